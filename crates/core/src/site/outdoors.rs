//! What the air outdoors is like on a day of the year, as far as the day of the last frost tells.

use jiff::civil::Date;
use std::f64::consts::TAU;

/// The air outdoors on a day.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Outdoors {
    /// Warmest of the day, in °C.
    pub day_c: f64,
    /// Coolest of the night, in °C.
    pub night_c: f64,
}

/// A usual night about the day that frost ends, in °C: a frost then is a night that is colder than
/// usual (our own estimate).
const NIGHT_AT_LAST_FROST_C: f64 = 6.0;
/// Nights swing so far about their mean for each degree of latitude, in K (our own estimate).
const SWING_PER_DEGREE_K: f64 = 0.15;
/// A day is so much warmer than its night, in K (our own estimate).
const DAY_OVER_NIGHT_K: f64 = 9.0;
/// The warmest days of the north, by the day of the year, and half a year later those of the south.
const WARMEST_DAY: f64 = 205.0;
const YEAR_DAYS: f64 = 365.25;

impl Outdoors {
    /// On a usual `date` at a latitude in degrees, north positive: a year's sine through the day of the
    /// last frost there, estimated from these two alone.
    pub(super) fn on(latitude_deg: f64, last_frost: Date, date: Date) -> Self {
        let warmest = if latitude_deg < 0.0 {
            WARMEST_DAY - YEAR_DAYS / 2.0
        } else {
            WARMEST_DAY
        };
        let season =
            |date: Date| (TAU * (f64::from(date.day_of_year()) - warmest) / YEAR_DAYS).cos();
        let swing_k = SWING_PER_DEGREE_K * latitude_deg.abs();
        let night_c = NIGHT_AT_LAST_FROST_C + swing_k * (season(date) - season(last_frost));
        Self {
            day_c: night_c + DAY_OVER_NIGHT_K,
            night_c,
        }
    }

    /// Its mean, which is about that of the soil of a bed, in °C.
    pub fn mean_c(&self) -> f64 {
        (self.day_c + self.night_c) / 2.0
    }

    /// The air in a closed frame, which keeps off some of the cold and gathers sun (common practice,
    /// no source).
    #[must_use]
    pub fn in_a_frame(&self) -> Self {
        Self {
            day_c: self.day_c + 5.0,
            night_c: self.night_c + 3.0,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use jiff::civil::date;

    #[test]
    fn summers_are_warm_on_both_sides_of_the_equator() {
        let frost = date(2027, 5, 6);
        let north = |month| Outdoors::on(52.9, frost, date(2027, month, 15));
        assert!((10.0..18.0).contains(&north(7).night_c));
        assert!((-8.0..3.0).contains(&north(1).night_c));
        let then = Outdoors::on(52.9, frost, frost);
        assert!((then.night_c - 6.0).abs() < 1e-9);
        let south = |month| Outdoors::on(-40.0, date(2027, 11, 6), date(2027, month, 15));
        assert!(south(1).mean_c() > south(7).mean_c() + 8.0);
        assert!(then.in_a_frame().night_c > then.night_c);
    }
}
