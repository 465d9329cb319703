//! What a judgement looks at, and how a topic lists its own.

use crate::advice::finding::Finding;
use crate::advice::sowing_view::SowingView;
use crate::day::place::PlaceView;
use crate::day::room::RoomView;
use crate::day::view::BayView;
use crate::season::Reckoned;

/// What is found on a bay on a date.
pub(super) type OnBay = fn(&BayView<'_>) -> Option<Finding>;
/// What is found on a place on a date.
pub(super) type OnPlace = fn(&PlaceView<'_, '_>) -> Option<Finding>;
/// What is found on the room as a whole on a date.
pub(super) type OnRoom = fn(&RoomView<'_>) -> Vec<Finding>;

/// A judgement, by what it looks at.
#[derive(Clone, Copy)]
pub(super) enum Judgement {
    /// A bay on a date, whether or not anything stands there.
    Bay(OnBay),
    /// What stands in a bay on a date: nobody is asked of a bay where nothing does.
    Trays(OnBay),
    /// A place on a date.
    Place(OnPlace),
    /// The room as a whole on a date.
    #[expect(dead_code, reason = "none is listed so far")]
    Room(OnRoom),
    /// The whole plan with the dates of its sowings.
    Plan(fn(&Reckoned<'_>) -> Vec<Finding>),
    /// Each sowing by itself.
    Sowing(fn(&SowingView<'_>) -> Option<Finding>),
}

/// The judgements of a topic, a line each: the file's name, which is the finding's code, and what
/// its `judge` looks at.
macro_rules! judgements {
    ($($file:ident: $looks_at:ident,)*) => {
        $(mod $file;)*

        /// Each by its code.
        pub(super) const ALL: &[(&str, $crate::advice::judgement::Judgement)] =
            &[$((stringify!($file), $crate::advice::judgement::Judgement::$looks_at($file::judge))),*];
    };
}
pub(super) use judgements;
