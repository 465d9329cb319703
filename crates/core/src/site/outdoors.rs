//! What the air outdoors is like on a usual day of the year.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use std::f64::consts::{PI, TAU};
use utoipa::ToSchema;

use crate::basis::dates::plus_days;
use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;

/// The air outdoors in a month.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MonthAir {
    /// Mean of the days' minima in °C.
    pub minimum_c: f64,
    /// Mean of the days' maxima in °C.
    pub maximum_c: f64,
    /// Mean relative humidity, 0 to 1; left out where nobody knows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub humidity: Option<f64>,
    /// What the sun sends on level ground in a mean day, in kWh/m²; left out where nobody knows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sun_kwh_m2: Option<f64>,
}

/// The air outdoors on a day.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Outdoors {
    /// Warmest of the day, in °C.
    pub day_c: f64,
    /// Coolest of the night, in °C.
    pub night_c: f64,
    /// Mean relative humidity, 0 to 1.
    pub humidity: f64,
    /// What the sun sends on level ground, in kWh/m²; `None` where no record tells.
    pub sun_kwh_m2: Option<f64>,
}

/// A usual year outdoors at a site.
#[derive(Debug, Clone, PartialEq)]
pub struct Year {
    day_c: Swing,
    night_c: Swing,
    humidity: Swing,
    sun_kwh_m2: Option<Swing>,
    estimated: bool,
}

/// What runs through the year as its mean and two sines, one of a year and one of half a year.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Swing {
    mean: f64,
    /// Of the cosine and the sine of the first and of the second.
    waves: [[f64; 2]; 2],
}

/// A usual night about the day that frost ends, in °C: a frost then is a night that is colder than
/// usual (our own estimate).
const NIGHT_AT_LAST_FROST_C: f64 = 4.5;
/// Nights swing so far about their mean for each degree of latitude, in K (our own estimate).
const SWING_PER_DEGREE_K: f64 = 0.13;
/// A day is so much warmer than its night, in K, on the mean of the year and more in summer (our own
/// estimates).
const DAY_OVER_NIGHT_K: f64 = 8.0;
const MORE_IN_SUMMER_K: f64 = 2.5;
/// Air outdoors is so damp on the mean of day and night (our own estimate, for temperate lowland).
const USUAL_HUMIDITY: f64 = 0.75;
/// The warmest days of the north, by the day of the year, and half a year later those of the south.
const WARMEST_DAY: f64 = 205.0;
const YEAR_DAYS: f64 = 365.25;
const MONTHS: usize = 12;

/// Where in the year `date` is, as an angle.
fn turn(date: Date) -> f64 {
    TAU * (f64::from(date.day_of_year()) - 0.5) / YEAR_DAYS
}

impl Swing {
    const fn flat(mean: f64) -> Self {
        Self {
            mean,
            waves: [[0.0; 2]; 2],
        }
    }

    /// Through the means of twelve months, taken as equally long.
    ///
    /// The first two terms of their Fourier series, each made larger by what the mean of a month takes
    /// from it: (kπ/12) / sin(kπ/12).
    fn through(months: [f64; MONTHS]) -> Self {
        let mean = months.iter().sum::<f64>() / MONTHS as f64;
        let wave = |k: f64| {
            let flattened = (k * PI / MONTHS as f64).sin() / (k * PI / MONTHS as f64);
            let mut of = [0.0; 2];
            for (i, value) in months.iter().enumerate() {
                let at = k * TAU * (i as f64 + 0.5) / MONTHS as f64;
                of[0] += value * at.cos();
                of[1] += value * at.sin();
            }
            of.map(|sum| sum * 2.0 / MONTHS as f64 / flattened)
        };
        Self {
            mean,
            waves: [wave(1.0), wave(2.0)],
        }
    }

    fn on(&self, date: Date) -> f64 {
        let waves = self.waves.iter().zip([1.0, 2.0]);
        let at = |k: f64| k * turn(date);
        self.mean
            + waves
                .map(|([cos, sin], k)| cos * at(k).cos() + sin * at(k).sin())
                .sum::<f64>()
    }
}

impl Year {
    /// Through the means of its months, January first; `None` unless there are twelve.
    pub(super) fn of_months(months: &[MonthAir]) -> Option<Self> {
        let months: &[MonthAir; MONTHS] = months.try_into().ok()?;
        let all = |of: fn(&MonthAir) -> Option<f64>| {
            let known: Option<Vec<f64>> = months.iter().map(of).collect();
            Some(Swing::through(known?.try_into().ok()?))
        };
        let known = |of: fn(&MonthAir) -> f64| Swing::through(months.each_ref().map(of));
        Some(Self {
            day_c: known(|month| month.maximum_c),
            night_c: known(|month| month.minimum_c),
            humidity: all(|month| month.humidity).unwrap_or(Swing::flat(USUAL_HUMIDITY)),
            sun_kwh_m2: all(|month| month.sun_kwh_m2),
            estimated: false,
        })
    }

    /// The day after summer on which nights are as cold again as on `frost_ends`.
    pub fn as_cold_again(&self, frost_ends: Date) -> Date {
        const SOONEST_DAYS: i32 = 60;
        const LATEST_DAYS: i32 = 300;
        let cold_c = self.on(frost_ends).night_c;
        let mut days = (SOONEST_DAYS..LATEST_DAYS).map(|n| plus_days(frost_ends, n));
        let cold = |day: &Date| self.on(*day).night_c <= cold_c;
        days.find(cold)
            .unwrap_or_else(|| plus_days(frost_ends, LATEST_DAYS))
    }

    /// At a latitude in degrees, north positive: a sine through the day of the last frost there,
    /// estimated from these two alone.
    pub(super) fn estimated(latitude_deg: f64, last_frost: Date) -> Self {
        let warmest = if latitude_deg < 0.0 {
            WARMEST_DAY - YEAR_DAYS / 2.0
        } else {
            WARMEST_DAY
        };
        let warmest = TAU * (warmest - 0.5) / YEAR_DAYS;
        let swing_k = SWING_PER_DEGREE_K * latitude_deg.abs();
        let mean_c = NIGHT_AT_LAST_FROST_C - swing_k * (turn(last_frost) - warmest).cos();
        let sine = |mean: f64, swing: f64| Swing {
            mean,
            waves: [[swing * warmest.cos(), swing * warmest.sin()], [0.0; 2]],
        };
        Self {
            day_c: sine(mean_c + DAY_OVER_NIGHT_K, swing_k + MORE_IN_SUMMER_K),
            night_c: sine(mean_c, swing_k),
            humidity: Swing::flat(USUAL_HUMIDITY),
            sun_kwh_m2: None,
            estimated: true,
        }
    }

    /// Whether it is only our estimate.
    pub fn is_estimated(&self) -> bool {
        self.estimated
    }

    /// The air on a usual `date`.
    pub fn on(&self, date: Date) -> Outdoors {
        let (day_c, night_c) = (self.day_c.on(date), self.night_c.on(date));
        Outdoors {
            day_c: day_c.max(night_c),
            night_c,
            humidity: self.humidity.on(date).clamp(0.05, 1.0),
            sun_kwh_m2: self.sun_kwh_m2.map(|sun| sun.on(date).max(0.0)),
        }
    }
}

impl Outdoors {
    /// Its mean, which is about that of the soil of a bed, in °C.
    pub fn mean_c(&self) -> f64 {
        (self.day_c + self.night_c) / 2.0
    }
}

/// Checks the months of a year: none, or twelve.
pub(super) fn check_months(months: &[MonthAir], at: &Pointer, faults: &mut Faults) {
    if months.is_empty() {
        return;
    }
    for (i, month) in faults.list(at, months, MONTHS..=MONTHS) {
        let at = at.at(i);
        for (name, c) in [
            ("minimum_c", month.minimum_c),
            ("maximum_c", month.maximum_c),
        ] {
            faults.number(&at.at(name), c, -60.0..=60.0, Quantity::TemperatureC);
        }
        if let Some(share) = month.humidity {
            faults.number(&at.at("humidity"), share, 0.05..=1.0, Quantity::Share);
        }
        if let Some(kwh) = month.sun_kwh_m2 {
            faults.number(&at.at("sun_kwh_m2"), kwh, 0.0..=15.0, Quantity::Plain);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use jiff::civil::date;

    #[test]
    fn estimated_summers_are_warm_on_both_sides_of_the_equator() {
        let frost = date(2027, 5, 6);
        let year = Year::estimated(52.9, frost);
        let north = |month| year.on(date(2027, month, 15));
        assert!((9.0..18.0).contains(&north(7).night_c));
        assert!((-8.0..3.0).contains(&north(1).night_c));
        assert!((year.on(frost).night_c - NIGHT_AT_LAST_FROST_C).abs() < 1e-9);
        let south = Year::estimated(-40.0, date(2027, 11, 6));
        let south = |month| south.on(date(2027, month, 15));
        assert!(south(1).mean_c() > south(7).mean_c() + 8.0);
        assert!(year.is_estimated());
    }

    #[test]
    fn months_that_run_as_a_sine_are_met_on_every_day() {
        // The mean of a month of a sine of a year is so much flatter than the sine.
        let flattened = (PI / 12.0).sin() / (PI / 12.0);
        let months: Vec<MonthAir> = (0..12)
            .map(|i| {
                let wave = flattened * (TAU * (f64::from(i) + 0.5) / 12.0 - 3.5).cos();
                MonthAir {
                    minimum_c: 5.0 + 8.0 * wave,
                    maximum_c: 14.0 + 10.0 * wave,
                    humidity: None,
                    sun_kwh_m2: None,
                }
            })
            .collect();
        let year = Year::of_months(&months).unwrap();
        for month in 1..=12 {
            let date = date(2027, month, 11);
            let day = year.on(date);
            let wave = (turn(date) - 3.5).cos();
            assert!((day.night_c - 5.0 - 8.0 * wave).abs() < 1e-9);
            assert!((day.day_c - 14.0 - 10.0 * wave).abs() < 1e-9);
        }
        assert!(Year::of_months(&months[..11]).is_none());
        assert!(!year.is_estimated());
    }
}
