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

/// What plants that stand `over_mm` higher beside it leave of the light on one that is `own_mm` tall:
/// the taller they are against it, the less, and never less than three fifths, since light falls in
/// from the other side as well (our own estimate).
pub fn unshaded(over_mm: f64, own_mm: f64) -> f64 {
    const MOST: f64 = 0.4;
    /// Leaves this low are hardly up: what stands higher is not above them yet.
    const LOW_MM: f64 = 25.0;
    1.0 - MOST * (over_mm / own_mm.max(LOW_MM)).clamp(0.0, 1.0)
}
