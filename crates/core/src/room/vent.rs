//! Openings in what closes a place or a bay.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;

/// An opening in what closes a place or a bay.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Vent {
    /// Its width.
    pub width_mm: f64,
    /// Its height.
    pub height_mm: f64,
    /// Its middle above the floor of a place, or over the deck of a bay.
    pub at_mm: f64,
}

/// Checks `all` the openings of something.
pub(super) fn check_vents(all: &[Vent], at: &Pointer, faults: &mut Faults) {
    for (i, vent) in faults.list(at, all, 0..=16) {
        for (name, mm, range) in [
            ("width_mm", vent.width_mm, 1.0..=2000.0),
            ("height_mm", vent.height_mm, 1.0..=2000.0),
            ("at_mm", vent.at_mm, 0.0..=3500.0),
        ] {
            faults.number(&at.at(i).at(name), mm, range, Quantity::LengthMm);
        }
    }
}
