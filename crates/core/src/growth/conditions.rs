//! What a seedling has around it on a day.

use crate::crops::Crop;

/// The air of a day.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Air {
    /// Its mean through the day and night, in °C.
    pub mean_c: f64,
    /// How much warmer the day is than the night, in K.
    pub day_over_night_k: f64,
}

impl Air {
    /// The weeks of the trade are those of a room at 18 °C by day and 15 °C by night (our own
    /// estimate).
    pub const USUAL: Self = Self {
        mean_c: 16.5,
        day_over_night_k: 3.0,
    };

    /// Air that is `day_c` by day and `night_c` by night.
    pub fn of(day_c: f64, night_c: f64) -> Self {
        Self {
            mean_c: (day_c + night_c) / 2.0,
            day_over_night_k: day_c - night_c,
        }
    }
}

/// What a seedling has around it on a day.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Conditions {
    /// Daily light over its leaves, in mol/m²/d.
    pub dli: f64,
    /// What taller plants beside it leave of that, 0 to 1.
    pub unshaded: f64,
    /// The air.
    pub air: Air,
    /// Mix in its cell, in ml.
    pub cell_ml: f64,
    /// From the middle of its cell to the next, in mm.
    pub pitch_mm: f64,
}

impl Conditions {
    /// What the weeks of the trade take for granted: as much light as `crop` wants at least, the
    /// trade's air, and the cell and spacing that suit it.
    pub fn usual(crop: &Crop) -> Self {
        Self {
            dli: crop.dli_low_mol_m2_d,
            unshaded: 1.0,
            air: Air::USUAL,
            cell_ml: crop.cell_ml.max(crop.pot_on_ml),
            pitch_mm: crop.spacing_mm,
        }
    }
}
