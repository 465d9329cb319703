//! How wide leaves spread, and how much of the ground they cover.

use crate::crops::{Crop, Habit};

/// The width of a plant of `crop` whose stem would be `sturdy_mm` tall in enough light: stretching
/// makes no leaf wider (our own estimate).
pub fn spread_mm(crop: &Crop, sturdy_mm: f64) -> f64 {
    sturdy_mm
        * match crop.habit {
            Habit::Rosette => 1.0,
            Habit::Bushy => 0.8,
            Habit::Upright => 0.7,
            Habit::Climbing => 0.6,
            Habit::Grass => 0.2,
        }
}

/// The share of a cell that leaves `spread_mm` wide cover, `cell_mm` from their neighbours.
///
/// Our own estimate: they cover more as they grow, until they meet.
pub fn cover(spread_mm: f64, cell_mm: f64) -> f64 {
    (spread_mm / cell_mm.max(1.0)).clamp(0.0, 1.0).powi(2)
}

/// Taller plants leave at least so much of the light, since it falls in from the other side as well (our
/// own estimate).
pub const LEAST_UNSHADED: f64 = 0.6;

/// What plants that stand `over_mm` higher beside it leave of the light on one that is `own_mm` tall:
/// the taller they are against it, the less, and never less than three fifths (our own estimate).
pub fn unshaded(over_mm: f64, own_mm: f64) -> f64 {
    /// Leaves this low are hardly up: what stands higher is not above them yet.
    const LOW_MM: f64 = 25.0;
    1.0 - (1.0 - LEAST_UNSHADED) * (over_mm / own_mm.max(LOW_MM)).clamp(0.0, 1.0)
}

/// How deep plants that stand `over_mm` higher, `apart_mm` off, shade what is behind its edge: light
/// falls in at half a right angle or so (our own estimate).
pub fn shaded_mm(over_mm: f64, apart_mm: f64) -> f64 {
    (over_mm - apart_mm).max(0.0)
}
