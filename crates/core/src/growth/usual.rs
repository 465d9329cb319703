//! What follows from a crop's own figures.

use crate::crops::Crop;
use crate::growth::pace::growing_days;
use crate::growth::roots;

/// What follows from a crop's own figures, for somebody who asks day by day.
#[derive(Debug, Clone, Copy)]
pub struct Usual {
    /// See [`growing_days`].
    pub(super) growing_days: f64,
    /// See [`roots::per_usual_day`].
    pub(super) per_day: f64,
}

impl Usual {
    /// Of `crop`.
    pub fn of(crop: &Crop) -> Self {
        Self {
            growing_days: growing_days(crop),
            per_day: roots::per_usual_day(crop),
        }
    }
}
