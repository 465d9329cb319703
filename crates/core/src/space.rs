//! What fits where: trays on a deck, domes under a ceiling, places through a door and on the floor.

use std::collections::HashMap;

use serde::Serialize;
use utoipa::ToSchema;

use crate::containers::TrayFormat;
use crate::light::bay::Footprint;
use crate::packing::{self, Laid, Size};
use crate::placement::Standing;
use crate::plan::SoundPlan;
use crate::room::{Axis, Bay, Door, Faces, Kind, MOST_OVERHANG_MM, Place, Room};

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
    known: HashMap<[u64; 5], DeckFit>,
    free: HashMap<Vec<u64>, (u32, bool)>,
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

    /// How many more go beside `standing`, and whether that is proven to be the most.
    fn free(
        &mut self,
        place: &Place,
        format: &TrayFormat,
        standing: &[Standing<'_>],
    ) -> (u32, bool) {
        if standing.is_empty() {
            let deck = self.of(place, format);
            return (deck.most, deck.proven);
        }
        let mut taken = post_footprints(place);
        taken.extend(standing.iter().map(|s| s.footprint));
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

/// How many standard trays the tiers of the room hold that are not kept for storage.
pub fn places_held(plan: &SoundPlan, fits: &mut Fits) -> u32 {
    let standard = TrayFormat {
        id: String::new(),
        name: String::new(),
        length_mm: STANDARD_TRAY_MM[0],
        width_mm: STANDARD_TRAY_MM[1],
        height_mm: 0.0,
        columns: 1,
        rows: 1,
        cell_ml: 0.0,
        cell_depth_mm: 0.0,
        wet_kg: 0.0,
        holds_water: false,
        dome_height_mm: None,
    };
    plan.places
        .iter()
        .filter(|place| !place.outdoors())
        .map(|place| {
            let tiers = place.tiers.iter().filter(|tier| !tier.storage).count() as u32;
            // Two narrow trays on a sill stand end to end even where they stick out a little.
            let fit = fits.of(place, &standard);
            tiers * fit.most
        })
        .sum()
}

/// A format in a bay on a date: what fits under the ceiling, and beside what stands there.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BayFit {
    /// What the deck holds.
    #[serde(flatten)]
    pub deck: DeckFit,
    /// How many more go beside what stands there on the date, without moving anything.
    pub free: u32,
    /// Whether that is proven to be the most.
    pub free_proven: bool,
    /// What stays between the rim and the lowest lamp, or the deck above; negative when it does
    /// not go under.
    pub over_rim_mm: f64,
    /// The same over its dome; `None` for a format without one.
    pub over_dome_mm: Option<f64>,
}

/// Every format of the plan in `bay`, beside the trays of `standing`.
pub fn bay_fits(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    standing: &[Standing<'_>],
    fits: &mut Fits,
) -> Vec<BayFit> {
    let overhead_mm = bay.lowest_overhead_mm();
    plan.tray_formats
        .iter()
        .map(|format| {
            let deck = fits.of(bay.place, format);
            let (free, free_proven) = fits.free(bay.place, format, standing);
            let over_rim_mm = overhead_mm - format.height_mm;
            BayFit {
                free,
                free_proven,
                deck,
                over_rim_mm,
                over_dome_mm: format.dome_height_mm.map(|dome| over_rim_mm - dome),
            }
        })
        .collect()
}

/// The corners of a deck that posts take.
pub fn post_footprints(place: &Place) -> Vec<Footprint> {
    packing::corners_mm([place.width_mm, place.depth_mm], place.post_mm())
}

/// Whether a place goes through a door.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ThroughDoor {
    /// Upright, as it stands.
    Upright,
    /// Lying on its side or its back.
    Tilted,
    /// Folded or with its legs off.
    Folded,
    /// Not in one piece: it must be put together in the room.
    InPieces,
}

/// Air around a thing that is carried through a door, in mm on both sides together (common
/// practice, no source).
pub const DOOR_AIR_MM: f64 = 20.0;

/// How a box of `size_mm` (width, depth, height) goes straight through `door`. Bends on the way and
/// turning it in the frame are not considered.
pub fn through_door(size_mm: [f64; 3], folds: bool, door: Door) -> ThroughDoor {
    let passes = |across: f64, up: f64| {
        across + DOOR_AIR_MM <= door.width_mm && up + DOOR_AIR_MM <= door.height_mm
    };
    let [w, d, h] = size_mm;
    if passes(w.min(d), h) {
        return ThroughDoor::Upright;
    }
    // One side goes ahead; the other two face the opening.
    let pairs = [(w, d), (d, w), (w, h), (h, w), (d, h), (h, d)];
    if pairs.into_iter().any(|(across, up)| passes(across, up)) {
        return ThroughDoor::Tilted;
    }
    if folds {
        ThroughDoor::Folded
    } else {
        ThroughDoor::InPieces
    }
}

/// How `place` comes into `room`; `None` for what is built in or stays outdoors.
pub fn passage(place: &Place, room: &Room) -> Option<ThroughDoor> {
    let folds = matches!(&place.kind, Kind::Bench(bench) if bench.folds);
    place
        .is_furniture()
        .then(|| through_door(place.outer_mm(), folds, room.door))
}

/// Free floor that one needs to stand and work in front of a place, in mm (common practice, no
/// source).
pub const STANDING_ROOM_MM: f64 = 600.0;
/// How far over a deck one reaches from one side, in mm (common practice, no source).
pub const REACH_MM: f64 = 650.0;
/// The highest deck that one waters without a step, in mm (common practice, no source).
pub const HIGHEST_REACH_MM: f64 = 1600.0;

/// A rectangle on the floor of the room, seen from above.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct FloorArea {
    /// Left and right edge.
    pub x_mm: [f64; 2],
    /// Near and far edge.
    pub y_mm: [f64; 2],
}

impl FloorArea {
    /// How wide the overlap of two is where it is narrower; 0 without one.
    pub fn overlap_mm(&self, other: &Self) -> f64 {
        let over = |a: [f64; 2], b: [f64; 2]| a[1].min(b[1]) - a[0].max(b[0]);
        over(self.x_mm, other.x_mm)
            .min(over(self.y_mm, other.y_mm))
            .max(0.0)
    }
}

/// The outline of `place` on the floor; `None` when it has no spot there.
pub fn outline(place: &Place) -> Option<FloorArea> {
    let spot = place.spot?;
    let [w, d, _] = place.outer_mm();
    let [x, y] = spot.faces.front_along().lay(w, d);
    Some(FloorArea {
        x_mm: [spot.x_mm, spot.x_mm + x],
        y_mm: [spot.y_mm, spot.y_mm + y],
    })
}

/// The floor in front of `place` that one stands on; `None` when it has no spot.
pub fn standing_area(place: &Place) -> Option<FloorArea> {
    let FloorArea { x_mm, y_mm } = outline(place)?;
    let deep = STANDING_ROOM_MM;
    Some(match place.spot?.faces {
        Faces::Near => FloorArea {
            x_mm,
            y_mm: [y_mm[0] - deep, y_mm[0]],
        },
        Faces::Far => FloorArea {
            x_mm,
            y_mm: [y_mm[1], y_mm[1] + deep],
        },
        Faces::Left => FloorArea {
            x_mm: [x_mm[0] - deep, x_mm[0]],
            y_mm,
        },
        Faces::Right => FloorArea {
            x_mm: [x_mm[1], x_mm[1] + deep],
            y_mm,
        },
    })
}

/// How deep the free floor in front of `place` is: up to the wall or the next place.
pub fn free_in_front_mm(place: &Place, room: &Room, others: &[Place]) -> Option<f64> {
    let area = outline(place)?;
    let faces = place.spot?.faces;
    let (i, away) = match faces {
        Faces::Near => (1, false),
        Faces::Far => (1, true),
        Faces::Left => (0, false),
        Faces::Right => (0, true),
    };
    let side = |a: &FloorArea| if i == 1 { a.y_mm } else { a.x_mm };
    let across = |a: &FloorArea| if i == 1 { a.x_mm } else { a.y_mm };
    let wall = if i == 1 { room.depth_mm } else { room.width_mm };
    let own = side(&area);
    let mut free = if away { wall - own[1] } else { own[0] };
    for other in others.iter().filter(|other| other.id != place.id) {
        let Some(there) = outline(other) else {
            continue;
        };
        let (mine, its) = (across(&area), across(&there));
        if mine[0].max(its[0]) + 1.0 >= mine[1].min(its[1]) {
            continue;
        }
        let edges = side(&there);
        let gap = if away {
            edges[0] - own[1]
        } else {
            own[0] - edges[1]
        };
        if gap >= -1.0 {
            free = free.min(gap.max(0.0));
        }
    }
    Some(free.max(0.0))
}
