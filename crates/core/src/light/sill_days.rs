//! The days of a sill, each reckoned when somebody first asks for it.

use std::sync::OnceLock;

use jiff::civil::{Date, date};

use crate::basis::dates::{days_between, plus_days};
use crate::light::daylight::{Sill, SillDay};

/// The days of a sill through a year.
#[derive(Debug)]
pub struct SillDays {
    sill: Sill,
    first: Date,
    days: Vec<OnceLock<SillDay>>,
}

/// No year has more days.
const DAYS: usize = 366;

impl SillDays {
    /// Of `sill` in `year`.
    pub fn new(sill: Sill, year: i16) -> Self {
        Self {
            sill,
            first: date(year, 1, 1),
            days: (0..DAYS).map(|_| OnceLock::new()).collect(),
        }
    }

    /// A day of average cloud; `day` is one of its year.
    pub fn on(&self, day: Date) -> &SillDay {
        let i = usize::try_from(days_between(self.first, day)).unwrap_or(0);
        self.days[i.min(DAYS - 1)].get_or_init(|| self.sill.on(day))
    }

    /// The first day of the year from which the mean light over `points` stays at `wanted` mol/m²/d up to
    /// midsummer; `None` when it never is enough.
    pub fn enough_from(&self, points: &[(f64, f64)], z_mm: f64, wanted: f64) -> Option<Date> {
        let south = self.sill.latitude_deg < 0.0;
        let (first, last) = if south { (181, 364) } else { (0, 171) };
        let day = |i: i32| plus_days(self.first, i);
        let n = points.len().max(1) as f64;
        let enough = |i: i32| {
            let sill = self.on(day(i));
            let each = points.iter().map(|&point| sill.mol_m2_d(point, z_mm));
            each.sum::<f64>() / n >= wanted
        };
        // A high sun misses the back of a sill: what counts is the rise out of winter. Light rises
        // from day to day there, so months are tried before days.
        const MONTH: i32 = 28;
        let mut months = (first..=last).step_by(MONTH as usize).chain([last]);
        let mut by = months.find(|&i| enough(i))?;
        let mut not_yet = (by - MONTH).max(first - 1);
        while by - not_yet > 1 {
            let between = (by + not_yet) / 2;
            if enough(between) {
                by = between;
            } else {
                not_yet = between;
            }
        }
        Some(day(by))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::room::Window;

    fn south() -> SillDays {
        let sill = Sill {
            window: Window {
                azimuth_deg: 180.0,
                pane_width_mm: 1300.0,
                pane_height_mm: 1050.0,
                obstruction_deg: 12.0,
            },
            width_mm: 1400.0,
            depth_mm: 250.0,
            latitude_deg: 52.9,
            of_cloudless: 0.5,
        };
        SillDays::new(sill, 2028)
    }

    #[test]
    fn it_is_enough_from_a_day_in_spring_or_never() {
        let points = [(400.0, 125.0), (700.0, 125.0), (1000.0, 125.0)];
        let from = south().enough_from(&points, 80.0, 5.0);
        let from = from.expect("a south sill is bright some day");
        assert!(
            (date(2028, 1, 15)..date(2028, 5, 1)).contains(&from),
            "{from}"
        );
        assert_eq!(south().enough_from(&points, 80.0, 40.0), None);
    }

    #[test]
    fn a_day_asked_for_again_is_the_day_itself_the_last_of_a_leap_year_too() {
        let days = south();
        for day in [date(2028, 1, 1), date(2028, 2, 29), date(2028, 12, 31)] {
            let at = (700.0, 125.0);
            let first = days.on(day).mol_m2_d(at, 80.0);
            assert_eq!(first, days.on(day).mol_m2_d(at, 80.0));
            assert_eq!(first, days.sill.on(day).mol_m2_d(at, 80.0), "{day}");
        }
    }
}
