//! How fast leaf and root grow, against what the weeks of the trade take for granted.

use crate::basis::units::DAYS_PER_WEEK;
use crate::crops::Crop;
use crate::growth::conditions::{Air, Conditions};

/// Half of the fastest pace is reached in so much daily light, in mol/m²/d (our own estimate).
const HALF_PACE_MOL_M2_D: f64 = 6.0;
/// Warmer than so far over the temperature at which growth begins it grows no faster, in K (our own
/// estimate).
const BEST_OVER_BASE_K: f64 = 18.0;
fn of_fastest(dli: f64) -> f64 {
    dli / (dli + HALF_PACE_MOL_M2_D)
}

/// Pace by light: 1 in as much daily light as `crop` wants at least, less in less, and no more over
/// what it gains by. `dli` in mol/m²/d.
pub fn by_light(crop: &Crop, dli: f64) -> f64 {
    let used = dli.clamp(0.0, crop.dli_high_mol_m2_d);
    of_fastest(used) / of_fastest(crop.dli_low_mol_m2_d.max(0.1))
}

/// Degrees over the temperature at which `crop` begins to grow, none over its best, on a day in such
/// air: °Cd.
pub fn thermal_cd(crop: &Crop, air: Air) -> f64 {
    (air.mean_c - crop.grows_over_c).clamp(0.0, BEST_OVER_BASE_K)
}

/// Pace by warmth: 1 in the air of the trade's weeks.
pub fn by_warmth(crop: &Crop, air: Air) -> f64 {
    thermal_cd(crop, air) / usual_cd(crop)
}

/// °Cd on a usual day; never none, since a pace is counted by it.
pub fn usual_cd(crop: &Crop) -> f64 {
    thermal_cd(crop, Air::USUAL).max(1.0)
}

/// Days from coming up until it is hardened off that the weeks indoors of `crop` leave.
pub fn growing_days(crop: &Crop) -> f64 {
    let germinating = crop.curve().days(crop.root_zone_c).unwrap_or(0.0);
    let weeks = crop.weeks_indoors * DAYS_PER_WEEK;
    (weeks - germinating - f64::from(crop.hardening_days)).max(7.0)
}

/// Usual days of growth that a day in such conditions brings, by light and warmth together.
pub fn usual_days(crop: &Crop, day: &Conditions) -> f64 {
    by_light(crop, day.dli * day.unshaded) * by_warmth(crop, day.air)
}
