//! What fits where: trays on a deck, domes under a ceiling, places through a door and on the floor.

use rustc_hash::FxHashMap;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::plane::{Axis, Footprint};
use crate::room::container::TrayFormat;
use crate::room::{MOST_OVERHANG_MM, Place};
use crate::space::packing;
use crate::space::packing::{Laid, Size};

/// A standard tray, outer length and width in mm: the "10 x 20 inch" of the trade (common
/// practice, no source).
pub const STANDARD_TRAY_MM: [f64; 2] = [540.0, 280.0];

/// How many trays of a format a deck holds.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DeckFit {
    /// The format.
    pub format: String,
    /// All with their length along the front.
    pub lengthwise: WayRound,
    /// All with their length from front to back.
    pub crosswise: WayRound,
    /// The most in any mixture of both ways, none over an edge.
    pub most: u32,
    /// Whether that is proven to be the most.
    pub proven: bool,
    /// Where each would lie then.
    pub laid: Vec<Laid>,
}

/// Trays in rows that all lie the same way.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct WayRound {
    /// How many lie wholly on the deck.
    pub trays: u32,
    /// How many with one more row that sticks out; `None` where it would stick out too far.
    pub overhanging: Option<Overhanging>,
}

/// Trays of which some stick out over the edge of a deck.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Overhanging {
    /// How many go on the deck so.
    pub trays: u32,
    /// How far front and back stick out together.
    pub overhang_mm: f64,
}

impl DeckFit {
    /// How many trays of `format` the decks of `place` hold.
    pub fn of(place: &Place, format: &TrayFormat) -> Self {
        let size = Size {
            length_mm: format.length_mm,
            width_mm: format.width_mm,
            most: None,
        };
        let packing = packing::most([place.width_mm, place.depth_mm], place.post_mm(), size);
        Self {
            format: format.id.clone(),
            lengthwise: WayRound::of(place, format, Axis::X),
            crosswise: WayRound::of(place, format, Axis::Y),
            most: packing.laid.len() as u32,
            proven: packing.proven,
            laid: packing.laid,
        }
    }
}

impl WayRound {
    fn of(place: &Place, format: &TrayFormat, along: Axis) -> Self {
        let [x, y] = along.lay(format.length_mm, format.width_mm);
        let rows = |width: f64, depth: f64| {
            let whole = |side: f64, tray: f64| ((side + 1e-6) / tray).floor().max(0.0);
            whole(width, x) * whole(depth, y)
        };
        let (w, d, post) = (place.width_mm, place.depth_mm, place.post_mm());
        let between = |posts: f64| (w - 2.0 * posts).max(0.0);
        // Posts take the corners: either the rows stand between them, or the first and last row
        // stand clear of them.
        let trays = rows(between(post), d).max(rows(w, d - 2.0 * post));
        // What sticks out at the front must pass between the posts.
        let columns = ((between(post) + 1e-6) / x).floor();
        let more_rows = ((d + 1e-6) / y).floor() + 1.0;
        let overhang_mm = more_rows * y - d;
        let fits = columns >= 1.0 && overhang_mm <= most_overhang_mm(y);
        Self {
            trays: trays as u32,
            overhanging: fits.then_some(Overhanging {
                trays: (columns * more_rows) as u32,
                overhang_mm,
            }),
        }
    }
}

/// How far a tray that is `size_mm` deep may stick out over an edge: a third of itself, and no
/// further than a hand's width (common practice, no source).
pub fn most_overhang_mm(size_mm: f64) -> f64 {
    MOST_OVERHANG_MM.min(size_mm / 3.0)
}

/// Decks of one size and posts hold the same, and what is free beside trays stays so until they
/// move: each is reckoned once.
#[derive(Debug, Default)]
pub struct Fits {
    known: FxHashMap<[u64; 5], DeckFit>,
    free: FxHashMap<Vec<u64>, (u32, bool)>,
}

impl Fits {
    /// How many trays of `format` a deck of `place` holds.
    pub fn of(&mut self, place: &Place, format: &TrayFormat) -> DeckFit {
        let key = [
            place.width_mm,
            place.depth_mm,
            place.post_mm(),
            format.length_mm,
            format.width_mm,
        ]
        .map(f64::to_bits);
        let known = self
            .known
            .entry(key)
            .or_insert_with(|| DeckFit::of(place, format));
        DeckFit {
            format: format.id.clone(),
            ..known.clone()
        }
    }

    /// How many more go beside what is `there` already, and whether that is proven to be the most.
    pub fn free(&mut self, place: &Place, format: &TrayFormat, there: &[Footprint]) -> (u32, bool) {
        if there.is_empty() {
            let deck = self.of(place, format);
            return (deck.most, deck.proven);
        }
        let mut taken = post_footprints(place);
        taken.extend(there);
        let deck = [place.width_mm, place.depth_mm];
        let size = Size {
            length_mm: format.length_mm,
            width_mm: format.width_mm,
            most: None,
        };
        let edges = taken.iter().flat_map(|t| [t.x_mm, t.y_mm]);
        let key = edges
            .chain([deck, [size.length_mm, size.width_mm]])
            .flatten()
            .map(f64::to_bits);
        *self.free.entry(key.collect()).or_insert_with(|| {
            let packing = packing::beside(deck, &taken, &[size]);
            (packing.laid.len() as u32, packing.proven)
        })
    }
}

/// The corners of a deck that posts take.
pub fn post_footprints(place: &Place) -> Vec<Footprint> {
    packing::corners_mm([place.width_mm, place.depth_mm], place.post_mm())
}
