//! How much mix roots fill, and when a cell is full.

use crate::basis::units::DAYS_PER_WEEK;
use crate::crops::{Crop, Vigour};
use crate::growth::pace::growing_days;

/// Mix in ml that the roots of `crop` fill when it comes up (our own estimate).
fn at_first_ml(crop: &Crop) -> f64 {
    match crop.vigour {
        Vigour::Slow => 1.2,
        Vigour::Middle => 2.0,
        Vigour::Strong => 3.0,
    }
}

/// Usual days from coming up until the roots of `crop` fill the cell that suits it: the day it is
/// potted on, or planted out where it seldom is.
fn full_after_days(crop: &Crop) -> f64 {
    if crop.pot_on_weeks > 0.0 {
        crop.pot_on_weeks * DAYS_PER_WEEK
    } else {
        growing_days(crop) + f64::from(crop.hardening_days)
    }
}

/// The share by which leaf and root of `crop` grow on a usual day: so that they fill the cell that suits
/// it when it is potted on, or planted out.
pub fn per_usual_day(crop: &Crop) -> f64 {
    let times = (crop.cell_ml / at_first_ml(crop)).max(2.0);
    times.ln() / full_after_days(crop)
}

/// Mix in ml that the roots of `crop` fill after so many usual days of growth: they grow with the
/// leaves, by the same share a day (our own estimate).
pub fn filled_ml(crop: &Crop, usual_days: f64) -> f64 {
    filled_by(crop, per_usual_day(crop), usual_days)
}

/// The same for somebody who knows its [`per_usual_day`].
pub(super) fn filled_by(crop: &Crop, per_day: f64, usual_days: f64) -> f64 {
    at_first_ml(crop) * (per_day * usual_days).exp()
}

/// Usual days from coming up until the roots of `crop` fill a cell of `cell_ml`; 0 when they do so at
/// once.
pub fn days_to_fill(crop: &Crop, cell_ml: f64) -> f64 {
    ((cell_ml / at_first_ml(crop)).ln() / per_usual_day(crop)).max(0.0)
}

/// Pace of a plant whose roots fill `filled_ml` of a cell of `cell_ml`: 1 while there is room, less the
/// more often they would fill it (our own estimate).
pub fn pace(filled_ml: f64, cell_ml: f64) -> f64 {
    (cell_ml / filled_ml.max(1e-9)).min(1.0)
}
