//! The room as it is built: its places, their tiers, and what hangs and lies in them.
//!
//! Coordinates of a bay (the space above a tier's deck): x along the shelf from the left, y from
//! the front to the back, z up from the top of the deck, all in mm.

pub mod gear;
mod lamp;
pub mod place;
pub mod tier;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

pub use gear::{Axis, Fan, MOST_OVERHANG_MM, Mat, MatProbe};
pub use lamp::{
    Ageing, Dimmer, Distribution, Face, LOWEST_FACE_MM, Lamp, LampFamily, PhotometricType,
};
pub use place::{Deck, Faces, Feet, Kind, Material, Place, Spot, Vent, WallLayer, Window};
pub use tier::{Adjust, Boxes, Chain, Side, Sides, Tier};

use crate::fault::{Faults, Pointer};
use crate::units::Quantity;

/// The room that the places stand in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Room {
    /// From the left wall to the right.
    pub width_mm: f64,
    /// From the near wall to the far.
    pub depth_mm: f64,
    /// From the floor to the ceiling.
    pub height_mm: f64,
    /// The narrowest door on the way in.
    pub door: Door,
}

/// A clear opening, between the frames.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Door {
    /// Clear width.
    pub width_mm: f64,
    /// Clear height.
    pub height_mm: f64,
}

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

/// Names a bay: a tier of a place.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BayRef {
    /// The place.
    pub place: String,
    /// The tier.
    pub tier: String,
}

/// A bay with its place, where it stands in the document.
#[derive(Debug, Clone, Copy)]
pub struct Bay<'a> {
    /// The place.
    pub place: &'a Place,
    /// Index of the place in the plan.
    pub place_index: usize,
    /// The tier.
    pub tier: &'a Tier,
    /// Index of the tier in the place.
    pub tier_index: usize,
}

impl<'a> Bay<'a> {
    /// Clear height above the deck: up to the deck above, or to the top.
    pub fn clear_height_mm(&self) -> f64 {
        self.place.clear_height_mm(self.tier_index)
    }

    /// The tier above this one.
    pub fn above(&self) -> Option<Bay<'a>> {
        let tier = self.place.tiers.get(self.tier_index + 1)?;
        Some(Bay {
            tier,
            tier_index: self.tier_index + 1,
            ..*self
        })
    }

    /// How it is named in the document.
    pub fn reference(&self) -> BayRef {
        BayRef {
            place: self.place.id.clone(),
            tier: self.tier.id.clone(),
        }
    }

    /// Place and tier in words; a place with one tier goes by its own name.
    pub fn name(&self) -> String {
        if self.place.tiers.len() == 1 {
            return self.place.name.clone();
        }
        format!("{}, {}", self.place.name, self.tier.name.to_lowercase())
    }

    /// Where the tier stands in the document.
    pub fn pointer(&self) -> Pointer {
        place_pointer(self.place_index)
            .at("tiers")
            .at(self.tier_index)
    }

    /// The highest a lamp's face may hang: its body must stay under the deck above.
    pub fn highest_face_mm(&self) -> f64 {
        let body = self
            .tier
            .lamps
            .iter()
            .map(|lamp| lamp.body_height_mm)
            .fold(0.0, f64::max);
        self.clear_height_mm() - body
    }

    /// The lowest thing over the deck: a lamp's face, or what closes the bay at the top.
    pub fn lowest_overhead_mm(&self) -> f64 {
        let faces = self.tier.lamps.iter().map(|lamp| lamp.height_mm);
        faces.fold(self.clear_height_mm(), f64::min)
    }
}

/// Where place `index` stands in the document.
pub fn place_pointer(index: usize) -> Pointer {
    Pointer::default().at("places").at(index)
}

/// Every bay of the room, place by place and from the lowest tier up.
pub fn bays(places: &[Place]) -> impl Iterator<Item = Bay<'_>> {
    places.iter().enumerate().flat_map(|(place_index, place)| {
        place
            .tiers
            .iter()
            .enumerate()
            .map(move |(tier_index, tier)| Bay {
                place,
                place_index,
                tier,
                tier_index,
            })
    })
}

/// The bay that `reference` names.
pub fn find_bay<'a>(places: &'a [Place], reference: &BayRef) -> Option<Bay<'a>> {
    let place_index = places.iter().position(|p| p.id == reference.place)?;
    let place = &places[place_index];
    let tier_index = place.tiers.iter().position(|t| t.id == reference.tier)?;
    Some(Bay {
        place,
        place_index,
        tier: &place.tiers[tier_index],
        tier_index,
    })
}

/// Checks all places of the room.
pub(crate) fn check(places: &[Place], at: &Pointer, faults: &mut Faults) {
    faults.unique(at, places.iter().map(|place| place.id.as_str()));
    for (i, place) in faults.list(at, places, 0..=100) {
        place.check(&at.at(i), faults);
    }
}
