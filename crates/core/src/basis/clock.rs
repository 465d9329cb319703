//! Hours of the day: spans by the clock, and how far they overlap.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;

/// Hours in a day.
pub const DAY_H: f64 = 24.0;

/// A span by the clock, from one time of day to another; over midnight when the second comes
/// first.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClockSpan {
    /// When it begins: hours after midnight, 6.5 for 06:30.
    pub from_h: f64,
    /// When it ends.
    pub to_h: f64,
}

impl ClockSpan {
    /// How long it is, in hours; a span that ends when it begins is empty.
    pub fn hours(self) -> f64 {
        (self.to_h - self.from_h).rem_euclid(DAY_H)
    }

    pub(crate) fn check(&self, at: &Pointer, faults: &mut Faults) {
        for (name, hour) in [("from_h", self.from_h), ("to_h", self.to_h)] {
            faults.number(&at.at(name), hour, 0.0..=DAY_H, Quantity::ClockH);
        }
        if self.hours() == 0.0 {
            faults.add(
                &at.at("to_h"),
                self.to_h,
                say!("these hours end when they begin"),
                say!("give another time to end, or leave the hours out"),
            );
        }
    }
}

/// Lamps that burn from a time of day on for so many hours.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Burning {
    /// When they go on: hours after midnight.
    pub from_h: f64,
    /// For how long, 0 to a day.
    pub hours: f64,
}

impl Burning {
    /// Lamps that go on at `from_h` and burn for `hours`, a day at the most.
    pub fn new(from_h: f64, hours: f64) -> Self {
        Self {
            from_h: from_h.rem_euclid(DAY_H),
            hours: hours.clamp(0.0, DAY_H),
        }
    }

    /// When they go out: hours after midnight.
    pub fn to_h(self) -> f64 {
        (self.from_h + self.hours).rem_euclid(DAY_H)
    }

    /// How many of its hours lie within `span`.
    pub fn within(self, span: ClockSpan) -> f64 {
        // The span as it lies today, yesterday and tomorrow against these hours.
        let end = self.from_h + self.hours;
        [-DAY_H, 0.0, DAY_H]
            .into_iter()
            .map(|day| {
                let from = span.from_h + day;
                let to = from + span.hours();
                (to.min(end) - from.max(self.from_h)).max(0.0)
            })
            .sum()
    }

    /// Whether they burn at `hour` after midnight.
    pub fn at(self, hour: f64) -> bool {
        (hour - self.from_h).rem_euclid(DAY_H) < self.hours
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn hours_over_midnight_overlap_like_any_others() {
        let night = ClockSpan {
            from_h: 22.0,
            to_h: 7.0,
        };
        assert_eq!(night.hours(), 9.0);
        assert_eq!(Burning::new(6.0, 16.0).within(night), 1.0);
        assert_eq!(Burning::new(20.0, 16.0).within(night), 9.0);
        assert_eq!(Burning::new(8.0, 12.0).within(night), 0.0);
        assert_eq!(Burning::new(3.0, 24.0).within(night), 9.0);
        assert_eq!(Burning::new(20.0, 16.0).to_h(), 12.0);
        assert!(Burning::new(20.0, 16.0).at(2.0));
        assert!(!Burning::new(20.0, 16.0).at(12.0));
    }

    /// Against a plain count of minutes.
    #[test]
    fn overlaps_equal_a_count_of_minutes() {
        for from in 0..24 {
            for hours in [0, 3, 11, 16, 24] {
                for (a, b) in [(22, 6), (1, 5), (13, 14), (0, 24), (23, 0)] {
                    let (span, own) = (
                        ClockSpan {
                            from_h: f64::from(a),
                            to_h: f64::from(b),
                        },
                        Burning::new(f64::from(from), f64::from(hours)),
                    );
                    let minutes = (0..1440)
                        .filter(|m| {
                            let h = (f64::from(*m) + 0.5) / 60.0;
                            own.at(h) && (h - span.from_h).rem_euclid(24.0) < span.hours()
                        })
                        .count();
                    let counted = minutes as f64 / 60.0;
                    assert!((own.within(span) - counted).abs() < 1e-9);
                }
            }
        }
    }
}
