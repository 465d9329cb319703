//! The room and what stands in it without a fault.

mod gear;
mod lamp;
mod place;
mod tier;
mod wiring;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::room::place::Place;
use crate::room::walls::Room;
use crate::site::Site;

impl Room {
    pub(crate) fn check(&self, at: &Pointer, faults: &mut Faults) {
        let door = at.at("door");
        for (at, mm, range) in [
            (at.at("width_mm"), self.width_mm, 300.0..=30_000.0),
            (at.at("depth_mm"), self.depth_mm, 300.0..=30_000.0),
            (at.at("height_mm"), self.height_mm, 500.0..=8000.0),
            (door.at("width_mm"), self.door.width_mm, 300.0..=6000.0),
            (door.at("height_mm"), self.door.height_mm, 300.0..=6000.0),
        ] {
            faults.number(&at, mm, range, Quantity::LengthMm);
        }
    }
}

/// Checks all places; each stands in a room that the site has.
pub(crate) fn check(places: &[Place], site: &Site, at: &Pointer, faults: &mut Faults) {
    faults.unique(at, places.iter().map(|place| place.id.as_str()));
    for (i, place) in faults.list(at, places, 0..=100) {
        place.check(&at.at(i), faults);
        let known = || site.rooms.iter().map(|room| room.id.clone());
        if let Some(room) = &place.in_room
            && !known().any(|id| id == *room)
        {
            faults.unknown(&at.at(i).at("in_room"), room, known());
        }
    }
}
