//! The days that a sowing is sown, hardened off and planted out: counted back from the last frost, or
//! forward from a day that the gardener has fixed.

use jiff::civil::Date;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::units::DAYS_PER_WEEK;
use crate::crops::Crop;
use crate::plan::{SoundPlan, Sowing};
use crate::season::pace::Pace;
use crate::season::past::Past;

/// Slow emergence brings the day to sow forward by no more than so many days: what takes longer is a
/// want of warmth, and no reason to sow in the winter before (our own estimate).
const MOST_LATE_DAYS: f64 = 14.0;

/// The days of one sowing.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Counted {
    pub(super) sow: Date,
    pub(super) harden: Date,
    pub(super) out: Date,
}

impl Counted {
    /// The same where seedlings showed so many days later than reckoned: plants that came up late are ready
    /// late. What has happened stays, and so do days that were chosen.
    pub(super) fn behind(
        self,
        plan: &SoundPlan,
        sowing: &Sowing,
        past: &Past,
        behind_days: i32,
    ) -> Self {
        let set = [past.planted_out, past.hardened_from, sowing.out_on];
        if behind_days <= 0 || set.iter().any(Option::is_some) {
            return self;
        }
        let crop = plan.crop(sowing);
        let weeks = sowing.packet_weeks.unwrap_or(crop.weeks_indoors);
        let ready = plus_days(self.sow, days(weeks) + behind_days);
        let later = days_between(self.out, ready).max(0);
        Self {
            harden: plus_days(self.harden, later),
            out: plus_days(self.out, later),
            ..self
        }
    }
}

/// Days that emergence takes longer in mix at `mean_c` than where the crop has it best.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct Late {
    /// All of them.
    pub(super) days: f64,
    /// Those that the day to sow is brought forward by.
    pub(super) counted: f64,
}

impl Late {
    /// None at all.
    pub(super) const NONE: Self = Self {
        days: 0.0,
        counted: 0.0,
    };

    /// Where emergence takes `days`, or never comes. Too warm a mix is no reason to sow earlier: it is
    /// to be cooled.
    pub(super) fn of(crop: &Crop, mean_c: f64, days: Option<f64>) -> Self {
        let best = crop.curve().days(crop.root_zone_c).unwrap_or(0.0);
        let late = days.map_or(0.0, |days| (days - best).max(0.0));
        Self {
            days: late,
            counted: if mean_c > crop.root_zone_c {
                0.0
            } else {
                late.min(MOST_LATE_DAYS)
            },
        }
    }

    /// Whether it is so long that warmth is wanted, not patience.
    pub(super) fn is_too_long(&self) -> bool {
        self.days > MOST_LATE_DAYS
    }
}

fn days(weeks: f64) -> i32 {
    (weeks * DAYS_PER_WEEK).round() as i32
}

/// The days of `sowing`; what shares a flat is sown on the day of that `flat`.
pub(super) fn counted(
    plan: &SoundPlan,
    sowing: &Sowing,
    flat: Option<Date>,
    late: Late,
    pace: &Pace,
    past: &Past,
) -> Counted {
    let crop = plan.crop(sowing);
    let usual = plus_days(plan.usually_out(sowing, crop), sowing.shift_days);
    let chosen = past.sown.or(sowing.sow_on);
    let fixed = chosen.or(flat);
    // Who sows later plants out later, as soon as the plants are ready.
    let ready =
        fixed.map(|sow| plus_days(sow, days(sowing.packet_weeks.unwrap_or(crop.weeks_indoors))));
    let out = match (past.planted_out.or(sowing.out_on), chosen.and(ready)) {
        (Some(out), _) => out,
        (None, Some(ready)) => usual.max(ready),
        (None, None) => usual,
    };
    let before = match sowing.packet_weeks {
        // Who goes by the packet counts its weeks and nothing else.
        Some(packet) => days(packet),
        None => {
            days(crop.weeks_indoors) + late.counted.round() as i32 + pace.lost_days.round() as i32
        }
    };
    let sow = fixed.unwrap_or_else(|| plus_days(out, -before));
    let mut out = out.max(plus_days(sow, 1));
    let harden = match past.hardened_from {
        // Who began late hardens off for as long all the same.
        Some(begun) => {
            if past.planted_out.is_none() && sowing.out_on.is_none() {
                out = out.max(plus_days(begun, crop.hardening_days));
            }
            begun
        }
        None => plus_days(out, -crop.hardening_days),
    };
    Counted {
        sow,
        harden: harden.max(plus_days(sow, 1)).min(out),
        out,
    }
}
