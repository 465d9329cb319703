//! What trays weigh, what decks and racks carry, and how easily a place tips.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, Why, say};
use crate::day::standing::Standing;
use crate::room::Place;

/// The trays' mass on a deck.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, ToSchema)]
pub struct DeckLoad {
    /// All trays watered through and drained.
    pub drained_kg: f64,
    /// All trays while they stand in water from below.
    pub watered_kg: f64,
    /// What the deck may carry by its maker; `None` when unknown.
    pub rating_kg: Option<f64>,
}

impl DeckLoad {
    /// The load of `standing` on a deck of `place`.
    pub fn of(place: &Place, standing: &[Standing<'_>]) -> Self {
        let empty = Self {
            rating_kg: place.deck.rating_kg,
            ..Self::default()
        };
        standing.iter().fold(empty, |load, s| Self {
            drained_kg: load.drained_kg + s.format.wet_kg,
            watered_kg: load.watered_kg + s.format.watered_kg(),
            ..load
        })
    }
}

/// A place under its load.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlaceLoad {
    /// All trays of all tiers while they are watered.
    pub watered_kg: f64,
    /// What all decks together may carry by the maker; `None` when unknown.
    pub rating_kg: Option<f64>,
    /// Height of the centre of mass over the floor, trays and the empty place together.
    pub centre_mm: f64,
    /// Height against depth.
    pub slenderness: f64,
    /// How far it may lean forwards or backwards before it tips, in degrees.
    pub tips_at_deg: f64,
    /// How the centre and the lean are reckoned.
    pub why: Why,
}

impl PlaceLoad {
    /// The load of `place` with what stands on each of its tiers, in their order.
    pub fn of(place: &Place, tiers: &[&[Standing<'_>]]) -> Self {
        let [_, depth_mm, height_mm] = place.outer_mm();
        let mut watered_kg = 0.0;
        let mut moment = place.empty_kg * height_mm / 2.0;
        for (tier, standing) in place.tiers.iter().zip(tiers) {
            for tray in *standing {
                let kg = tray.format.watered_kg();
                watered_kg += kg;
                moment += kg * (tier.deck_height_mm + tray.format.height_mm / 2.0);
            }
        }
        let all_kg = place.empty_kg + watered_kg;
        let centre_mm = if all_kg > 0.0 {
            moment / all_kg
        } else {
            height_mm / 2.0
        };
        let tips_at_deg = (depth_mm / 2.0).atan2(centre_mm.max(1.0)).to_degrees();
        Self {
            watered_kg,
            rating_kg: place.rating_kg,
            centre_mm,
            slenderness: height_mm / depth_mm,
            tips_at_deg,
            why: Why {
                rule: say!(
                    "{empty} of the rack at half its height and {trays} of wet trays on their shelves have their common centre at {centre}; the rack tips when that passes over an edge of its {depth} footprint",
                    empty = Quantity::MassKg.of(place.empty_kg),
                    trays = Quantity::MassKg.of(watered_kg),
                    centre = Quantity::LengthMm.of(centre_mm),
                    depth = Quantity::LengthMm.of(depth_mm),
                ),
                source: OWN_ESTIMATE,
            },
        }
    }
}

/// What to mind with loaded racks.
pub const CAUTION: &str = "Brace racks or fix them to the wall, keep every deck within the maker's \
    rating and stand heavy, wet trays low. A loaded rack that tips can hurt people badly.";
