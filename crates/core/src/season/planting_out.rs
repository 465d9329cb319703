//! When a crop is planted out in an ordinary year.

use jiff::civil::Date;

use crate::basis::dates::plus_days;
use crate::basis::units::DAYS_PER_WEEK;
use crate::crops::Crop;
use crate::plan::SoundPlan;

/// The day on which `crop` goes out in an ordinary year.
pub fn usually_out(plan: &SoundPlan, crop: &Crop) -> Date {
    let days = (crop.weeks_after_last_frost * DAYS_PER_WEEK).round() as i32;
    plus_days(plan.site.last_frost, days)
}
