//! What a start indoors gains over sowing in the bed.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::units::DAYS_PER_WEEK;
use crate::crops::{Crop, GrownFrom};
use crate::growth::Air;
use crate::growth::pace::{growing_days, thermal_cd, usual_cd};
use crate::plan::SoundPlan;
use crate::site::outdoors::Outdoors;

/// The same crop sown in the bed.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct InTheBed {
    /// The first day on which it can be sown there, in a usual year.
    pub sow: Date,
    /// The day on which it is as far as what is planted out.
    pub ready: Date,
    /// Weeks that planting out is earlier; negative where the bed is.
    pub gained_weeks: f64,
}

/// Seed that would take longer is not sown outdoors yet: it rots first (our own estimate).
const AT_MOST_DAYS: f64 = 21.0;
/// Nobody sows in soil colder than this, or than so far over where the crop begins to grow (common
/// practice, no source).
const SOIL_AT_LEAST_C: f64 = 6.0;
const OVER_BASE_K: f64 = 2.0;
/// The year that is looked at begins so long before the last frost.
const BEFORE_FROST_DAYS: i32 = 100;
const YEAR_DAYS: i32 = 365;

/// A usual year outdoors at a site.
pub(super) struct YearOutdoors {
    from: Date,
    last_frost: Date,
    days: Vec<Outdoors>,
}

impl YearOutdoors {
    pub(super) fn of(plan: &SoundPlan) -> Self {
        let from = plus_days(plan.site.last_frost, -BEFORE_FROST_DAYS);
        let year = plan.site.year_outdoors();
        let days = (0..YEAR_DAYS).map(|day| year.on(plus_days(from, day)));
        Self {
            from,
            last_frost: plan.site.last_frost,
            days: days.collect(),
        }
    }

    /// What `crop` that is planted out on `out` would do sown in the bed; `None` where it never gets so
    /// far there, and for cuttings.
    pub(super) fn in_the_bed(&self, crop: &Crop, out: Date) -> Option<InTheBed> {
        if crop.grown_from != GrownFrom::Seed {
            return None;
        }
        let curve = crop.curve();
        let tender = crop.weeks_after_last_frost >= 0.0;
        let day = |i: usize| plus_days(self.from, i32::try_from(i).unwrap_or(YEAR_DAYS));
        let least_c = SOIL_AT_LEAST_C.max(crop.grows_over_c + OVER_BASE_K);
        let (sown, comes_up) = (0..self.days.len()).find_map(|i| {
            let soil_c = self.days[i].mean_c();
            let days = curve.days(soil_c).filter(|_| soil_c >= least_c)?;
            // Tender ones come up when frost is over.
            let up = plus_days(day(i), days.ceil() as i32);
            let safe = !tender || up >= self.last_frost;
            (days <= AT_MOST_DAYS && safe).then_some((i, days.ceil() as usize))
        })?;
        let needs_cd = usual_cd(crop) * (growing_days(crop) + f64::from(crop.hardening_days));
        let mut sum_cd = 0.0;
        let ready = (sown + comes_up..self.days.len()).find(|&i| {
            let air = &self.days[i];
            sum_cd += thermal_cd(crop, Air::of(air.day_c, air.night_c));
            sum_cd >= needs_cd
        })?;
        Some(InTheBed {
            sow: day(sown),
            ready: day(ready),
            gained_weeks: f64::from(days_between(out, day(ready))) / DAYS_PER_WEEK,
        })
    }
}

#[cfg(test)]
mod tests {
    use crate::testing::{kettle_fen, reckoned};
    use jiff::civil::date;

    #[test]
    fn a_start_indoors_gains_weeks_and_tender_seed_waits_for_the_frost_to_end() {
        let plan = kettle_fen(|_| ());
        let all = reckoned(&plan).dates;
        let gained = |sowing: &str| {
            let dates = all.iter().find(|d| d.sowing == sowing).unwrap();
            dates.in_the_bed.expect("it grows outdoors too")
        };
        let (tomato, cabbage) = (gained("tomato"), gained("cabbage"));
        for gained in [tomato.gained_weeks, cabbage.gained_weeks] {
            assert!((3.0..14.0).contains(&gained), "{gained}");
        }
        // Tender seed comes up when frost is over, hardy seed is sown weeks before.
        assert!(tomato.sow > date(2027, 4, 25) && cabbage.sow < tomato.sow);
        assert!(tomato.ready > tomato.sow);
    }
}
