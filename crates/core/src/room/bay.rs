//! A bay: the space over one tier of a place.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::Pointer;
use crate::room::place::Place;
use crate::room::tier::Tier;

impl Place {
    /// Its bays from the lowest up, where it is the plan's place `place_index`.
    pub fn bays(&self, place_index: usize) -> impl Iterator<Item = Bay<'_>> {
        let tiers = self.tiers.iter().enumerate();
        tiers.map(move |(tier_index, tier)| Bay {
            place: self,
            place_index,
            tier,
            tier_index,
        })
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
        format!("{}, {}", self.place.name, self.tier.name)
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

    /// The greatest of its lamps' least gaps to leaves; 0 without lamps.
    pub fn least_gap_mm(&self) -> f64 {
        let gaps = self.tier.lamps.iter().map(|lamp| lamp.least_gap_mm);
        gaps.fold(0.0, f64::max)
    }

    /// Whether nothing lights it: it has no lamps, and no daylight comes in.
    pub fn is_dark(&self) -> bool {
        self.tier.lamps.is_empty() && !self.place.has_daylight()
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
    places
        .iter()
        .enumerate()
        .flat_map(|(i, place)| place.bays(i))
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
