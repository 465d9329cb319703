//! How long lamps burn: the owner of the least hours, the timer's step and the crops' limits.

use crate::lamps::start::USUAL_STEP_MIN;

/// How long lamps may burn.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HourLimits {
    /// The longest day that the crops stand.
    pub most_h: f64,
    /// The hours that lie outside the quiet ones.
    pub free_h: f64,
    /// The shortest time in use.
    pub used_h: f64,
}

/// Shortest photoperiod in use, and where lamps only add to daylight, in hours (common practice, no
/// source).
const LEAST_HOURS: [f64; 2] = [12.0, 4.0];

/// The step by which hours are chosen, so that any timer can be set to them.
pub(super) const TIMER_STEP_H: f64 = USUAL_STEP_MIN as f64 / 60.0;

impl HourLimits {
    /// For crops that stand `most_h`, of which `free_h` are not quiet; where `daylight` gives them
    /// their day, lamps burn for as little as is missing.
    pub fn new(most_h: f64, free_h: f64, daylight: bool) -> Self {
        Self {
            most_h,
            free_h,
            used_h: LEAST_HOURS[usize::from(daylight)],
        }
    }

    /// The shortest time to choose, in whole steps of a timer.
    pub fn least_h(&self) -> f64 {
        let steps = (self.used_h / TIMER_STEP_H).floor();
        (steps * TIMER_STEP_H).clamp(0.0, self.most_h.max(0.0))
    }

    /// How many numbers of hours there are to choose from, a timer's step apart.
    pub(super) fn steps(&self) -> usize {
        ((self.most_h - self.least_h()) / TIMER_STEP_H).floor() as usize + 1
    }

    /// Whether the crops do not stand so long a day.
    pub fn are_passed_by(&self, hours_h: f64) -> bool {
        hours_h > self.most_h + 1e-6
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_hours_to_choose_from_never_pass_the_crops_limit() {
        for (most_h, daylight, least, steps) in [
            (16.0, false, 12.0, 9),
            (14.2, false, 12.0, 5),
            (10.0, false, 10.0, 1),
            (16.0, true, 4.0, 25),
        ] {
            let limits = HourLimits::new(most_h, 24.0, daylight);
            assert_eq!((limits.least_h(), limits.steps()), (least, steps));
            let longest = limits.least_h() + TIMER_STEP_H * (limits.steps() - 1) as f64;
            assert!(!limits.are_passed_by(longest));
        }
    }
}
