//! How long lamps burn: the owner of the least hours, the timer's step and the crops' limits.

use crate::basis::units::dli_mol_m2_d;

/// How long lamps may burn.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct HourLimits {
    /// The longest day that the crops bear.
    pub most_h: f64,
    /// The hours that lie outside the quiet ones.
    pub free_h: f64,
}

/// Shortest photoperiod in use, in hours (common practice, no source).
pub(super) const LEAST_HOURS: f64 = 12.0;

/// A mechanical timer's step, in hours (common practice, no source: 15 or 30 minutes).
pub(super) const TIMER_STEP_H: f64 = 0.5;

impl HourLimits {
    /// The hours, in whole steps of a timer, that `ppfd` µmol/m²/s takes to add up to `dli` mol/m²/d;
    /// `None` when the crops do not bear so long a day.
    ///
    /// ```
    /// use sunrise_core::lamps::hours::HourLimits;
    /// let limits = HourLimits { most_h: 16.0, free_h: 24.0 };
    /// assert_eq!(limits.hours_for(7.3, 200.0), Some(10.5)); // 200 gives 0.72 an hour
    /// assert_eq!(limits.hours_for(20.0, 200.0), None);
    /// ```
    pub fn hours_for(&self, dli: f64, ppfd: f64) -> Option<f64> {
        let hours = (dli / dli_mol_m2_d(ppfd, 1.0)).max(0.0);
        let steps = (hours / TIMER_STEP_H).ceil();
        Some(steps * TIMER_STEP_H).filter(|hours| *hours <= self.most_h)
    }
}
