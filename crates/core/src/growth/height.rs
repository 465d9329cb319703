//! How tall a seedling grows: by warmth, more in dim light, in a crowd and in warm days after cool
//! nights.

use crate::basis::learned::Learned;
use crate::crops::Crop;
use crate::growth::conditions::{Air, Conditions};
use crate::growth::pace::{growing_days, thermal_cd, usual_cd};
use crate::growth::usual::Usual;

/// A seedling stands at its first height after so many °Cd (our own estimate).
pub(super) const STANDS_AFTER_CD: f64 = 30.0;
/// Daily light in which height is what a crop's figures say, in mol/m²/d (our own estimate).
const PLAIN_MOL_M2_D: f64 = 10.0;
/// Light makes it so much shorter, or taller, at the most (our own estimate).
const STRETCH: [f64; 2] = [0.7, 2.0];
/// Leaves that overlap wholly make it so much taller (our own estimate).
const CROWDED: f64 = 0.8;
/// A day that is a degree warmer against its night than usual makes it so much taller (from memory:
/// growers' figures on day and night temperature).
const PER_KELVIN: f64 = 1.03;
/// In less daily light than this it has too little to build stems from once its seed is used up, in
/// mol/m²/d: what it reaches for and what it has then keep the balance (our own estimate).
const STARVES_UNDER_MOL_M2_D: f64 = 5.0;
/// Where the curve of height is steepest, as a share of the way to planting out, and how steep.
const MIDDLE: f64 = 0.6;
const STEEPNESS: f64 = 8.0;

fn sigmoid(way: f64) -> f64 {
    1.0 / (1.0 + (-STEEPNESS * (way - MIDDLE)).exp())
}

/// How tall it grows here against its figures.
fn tall_here(crop: &Crop) -> f64 {
    Learned::share(crop.tall_here)
}

/// Height in mm that `crop` owes to its seed after `cd` °Cd since it came up.
fn from_seed_mm(crop: &Crop, cd: f64) -> f64 {
    tall_here(crop)
        * crop.emerges_mm.min(crop.height_out_mm)
        * (cd / STANDS_AFTER_CD).clamp(0.0, 1.0)
}

/// Height in mm that it owes to its leaves by then: a logistic curve that ends at the crop's height at
/// planting out when the usual days have passed.
fn from_leaves_mm(crop: &Crop, growing_days: f64, cd: f64) -> f64 {
    let way = cd.max(0.0) / (usual_cd(crop) * growing_days);
    let (none, all) = (sigmoid(0.0), sigmoid(1.0));
    tall_here(crop) * (crop.height_out_mm - crop.emerges_mm).max(0.0) * (sigmoid(way) - none)
        / (all - none)
}

/// Height in mm of `crop` in usual conditions, `cd` °Cd after it came up: in thermal time (our own
/// estimate).
pub fn plain_mm(crop: &Crop, cd: f64) -> f64 {
    from_seed_mm(crop, cd) + from_leaves_mm(crop, growing_days(crop), cd)
}

/// Height in mm of `crop` in usual conditions, `days` after it came up, its tops cut back; 0 before.
pub fn usual_mm(crop: &Crop, days: f64) -> f64 {
    kept_back(crop, 0.0, plain_mm(crop, usual_cd(crop) * days))
}

/// How much taller it grows in so much daily light, in mol/m²/d: with the root of what it lacks.
///
/// ```
/// use sunrise_core::growth::height::stretch;
/// assert_eq!(stretch(10.0), 1.0);
/// assert_eq!(stretch(0.0), 2.0);
/// ```
pub fn stretch(dli: f64) -> f64 {
    (PLAIN_MOL_M2_D / dli.max(0.01))
        .sqrt()
        .clamp(STRETCH[0], STRETCH[1])
}

/// How much taller it grows among leaves that are `spread_mm` wide on cells that are `pitch_mm` apart,
/// than on cells as far apart as the crop's figures have it: its height at planting out takes their
/// crowd for granted.
fn crowding(crop: &Crop, spread_mm: f64, pitch_mm: f64) -> f64 {
    let among =
        |pitch_mm: f64| 1.0 + CROWDED * (spread_mm / pitch_mm.max(1.0) - 1.0).clamp(0.0, 1.0);
    among(pitch_mm) / among(crop.spacing_mm)
}

/// As tall as `crop` gets by growing `mm` more from `from_mm`: what flops over is cut back.
pub(super) fn kept_back(crop: &Crop, from_mm: f64, mm: f64) -> f64 {
    let grown = from_mm + mm;
    if crop.cut_back_mm > 0.0 {
        grown.min(crop.cut_back_mm.max(from_mm))
    } else {
        grown
    }
}

/// What a day adds to the height.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Added {
    /// As it is, in mm.
    pub(super) mm: f64,
    /// In the least light that the crop wants, and with room, in mm.
    pub(super) sturdy_mm: f64,
}

/// What a day adds to the height of `crop` that has had `cd` °Cd, its leaves `spread_mm` wide.
pub(super) fn added(
    crop: &Crop,
    usual: &Usual,
    cd: f64,
    day: &Conditions,
    spread_mm: f64,
) -> Added {
    let to = cd + thermal_cd(crop, day.air);
    let seed = from_seed_mm(crop, to) - from_seed_mm(crop, cd);
    let leaves =
        from_leaves_mm(crop, usual.growing_days, to) - from_leaves_mm(crop, usual.growing_days, cd);
    let over_usual_k = day.air.day_over_night_k - Air::USUAL.day_over_night_k;
    let by_air = PER_KELVIN.powf(over_usual_k.clamp(-10.0, 10.0));
    let dli = day.dli * day.unshaded;
    let fed = (dli / STARVES_UNDER_MOL_M2_D).clamp(0.0, 1.0).sqrt();
    Added {
        mm: (seed + leaves * fed) * by_air * stretch(dli) * crowding(crop, spread_mm, day.pitch_mm),
        sturdy_mm: (seed + leaves) * by_air.min(1.0) * stretch(dli.max(crop.dli_low_mol_m2_d)),
    }
}
