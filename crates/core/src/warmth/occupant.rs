//! A tray in a bay, as warmth and damp know it.

use crate::basis::plane::Footprint;
use crate::room::container::TrayFormat;
use crate::warmth::tray::wet_m2;

/// A tray in a bay, as warmth and damp know it.
#[derive(Debug, Clone)]
pub struct Occupant<'a> {
    /// The tray.
    pub tray: &'a str,
    /// Its kind.
    pub format: &'a TrayFormat,
    /// Its outline on the deck.
    pub footprint: Footprint,
    /// Whether not all of it is up: it wants warmth and damp.
    pub coming_up: bool,
    /// Whether seedlings stand in any of it.
    pub up: bool,
    /// Whether its dome is on.
    pub domed: bool,
    /// Whether others are stacked on it, so that it lies dark.
    pub covered: bool,
    /// Whether any of it wants its lamps on.
    pub wants_lamps: bool,
}

/// The share of a tray that leaves cover half way through.
const HALF_GROWN: f64 = 0.5;

impl Occupant<'_> {
    /// The share of it that leaves cover, as far as others mind: none while it comes up.
    pub(super) fn leaves(&self) -> f64 {
        if self.coming_up { 0.0 } else { HALF_GROWN }
    }

    /// The wet surface by which it gives off water, in m²: none under a dome.
    pub(super) fn wet_m2(&self) -> f64 {
        if self.domed {
            0.0
        } else {
            wet_m2(self.format, self.leaves())
        }
    }
}
