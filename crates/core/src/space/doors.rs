//! Ways through a door.

use crate::room::{Door, Place, Room};
use serde::Serialize;
use utoipa::ToSchema;

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
    place
        .is_furniture()
        .then(|| through_door(place.outer_mm(), place.folds(), room.door))
}
