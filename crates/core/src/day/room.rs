//! The room as a whole on a date.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::day::away::Away;
use crate::day::bay::BayOnDay;
use crate::day::detail::Detail;
use crate::day::place::PlaceOnDay;
use crate::day::unplaced::{UnplacedTray, unplaced};
use crate::power::Power;
use crate::season::Reckoned;

/// The room on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RoomOnDay {
    /// The day.
    pub date: Date,
    /// Every place.
    pub places: Vec<PlaceOnDay>,
    /// Every bay, place by place from the lowest tier up.
    pub bays: Vec<BayOnDay>,
    /// Trays that stand nowhere.
    pub unplaced: Vec<UnplacedTray>,
    /// What all lamps, mats and fans draw together.
    pub power: Power,
    /// What dries first, on days away and shortly before.
    pub away: Option<Away>,
}

impl RoomOnDay {
    /// Leaves out what `detail` does not want. Judgements have seen it by then.
    pub(crate) fn keep_asked_for(&mut self, detail: &Detail) {
        self.bays
            .iter_mut()
            .for_each(|bay| bay.keep_asked_for(detail));
    }
}

/// The room on a date with all that judgements look at.
#[derive(Debug)]
pub struct RoomView<'a> {
    /// The plan, and what is reckoned of it.
    pub reckoned: &'a Reckoned<'a>,
    /// What was computed.
    pub computed: RoomOnDay,
}

impl<'a> RoomView<'a> {
    /// The room with its `places` and `bays` on `date`.
    pub fn new(
        reckoned: &'a Reckoned<'a>,
        date: Date,
        places: Vec<PlaceOnDay>,
        bays: Vec<BayOnDay>,
    ) -> Self {
        Self {
            computed: RoomOnDay {
                date,
                power: bays.iter().map(|bay| bay.power).sum(),
                away: Away::on(reckoned.plan, date, &bays),
                unplaced: unplaced(reckoned, date),
                places,
                bays,
            },
            reckoned,
        }
    }
}
