//! Days to emergence against root-zone temperature.
//!
//! The table holds mean days at constant temperature; between its nodes the *rate* (1/days) is
//! interpolated, since days run off to infinity where germination ends.

use crate::crops::rates::{HOURS, comes_up, mean, until};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How days to emergence follow from temperature.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(untagged)]
pub enum Emergence {
    /// By a row of the table of days to emergence.
    Row(String),
    /// By three temperatures.
    Thermal(Thermal),
}

/// Emergence without a table.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Thermal {
    /// At this and below nothing comes up.
    pub base_c: f64,
    /// Here it comes up fastest.
    pub best_c: f64,
    /// At this and above nothing comes up.
    pub upper_c: f64,
    /// Mean days at the best temperature.
    pub days_at_best: f64,
}

/// What the table says at one temperature.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Tested {
    /// Mean days to emergence.
    Days(f64),
    /// Tested: little or no germination.
    None,
    /// Not tested.
    Unknown,
}

/// Days to emergence of one kind of seed.
#[derive(Debug, Clone, PartialEq)]
pub struct EmergenceCurve {
    nodes: Vec<(f64, Tested)>,
    /// Temperature in °C and rate in 1/day, ascending; the rate is a straight line between.
    rate: Vec<(f64, f64)>,
    /// Temperature in °C and the share of good seeds that come up, where it was tested.
    pub(super) shares: Vec<(f64, f64)>,
}

/// Progress at which the first tenth, a quarter and the last tenth show, against 1 for half of them
/// (our own estimate: fresh seed in even moisture).
const FIRST: f64 = 0.8;
const QUARTER: f64 = 0.88;
const LAST: f64 = 1.35;
/// Where the rate is less than this share of the fastest, fewer seeds come up (our own estimate).
const SLOW: f64 = 0.3;

/// Emergence at a constant temperature.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct AtTemperature {
    /// The root zone's temperature, in °C.
    pub root_zone_c: f64,
    /// Mean days until half show; `None` where none come up.
    pub days: Option<f64>,
    /// The share of good seeds that come up, 0 to 1.
    pub share: f64,
}

/// Days from sowing until seedlings show.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Showing {
    /// A tenth of them.
    pub first_days: f64,
    /// A quarter of them: the dome is vented.
    pub quarter_days: f64,
    /// Half of them.
    pub half_days: f64,
    /// Nine tenths.
    pub last_days: f64,
}

impl EmergenceCurve {
    /// A curve by base, best and upper temperature: the rate rises in a straight line to the best
    /// and falls in one to nothing.
    ///
    /// Model: linear thermal time between base, best and upper temperature (Garcia-Huidobro, J., J. L.
    /// Monteith and G. R. Squire: Time, temperature and germination of pearl millet, Journal of
    /// Experimental Botany 33, 1982; from memory). All in °C and days.
    ///
    /// # Errors
    /// A sentence when the temperatures do not rise or the days are none.
    pub fn thermal(thermal: Thermal) -> Result<Self, &'static str> {
        let Thermal {
            base_c,
            best_c,
            upper_c,
            days_at_best,
        } = thermal;
        if !(base_c < best_c && best_c < upper_c) {
            return Err("base, best and upper temperature do not rise");
        }
        if !(days_at_best > 0.0 && days_at_best.is_finite()) {
            return Err("days at the best temperature must be more than 0");
        }
        Ok(Self::new(vec![
            (base_c, Tested::None),
            (best_c, Tested::Days(days_at_best)),
            (upper_c, Tested::None),
        ]))
    }

    /// The same where everything shows `pace` times as fast.
    #[must_use]
    pub fn at_pace(mut self, pace: f64) -> Self {
        self.rate.iter_mut().for_each(|(_, rate)| *rate *= pace);
        for (_, tested) in &mut self.nodes {
            if let Tested::Days(days) = tested {
                *days /= pace;
            }
        }
        self
    }

    /// The temperature at which it comes up fastest, in °C.
    pub fn best_c(&self) -> f64 {
        let fastest = self.rate.iter().max_by(|a, b| a.1.total_cmp(&b.1));
        fastest.map_or(20.0, |(c, _)| *c)
    }

    /// The share, 0 to 1, of the seeds that come up where it suits them best that come up at
    /// `root_zone_c`: as tested where it was; else all while the rate is at least three tenths of
    /// the fastest, and fewer in proportion below.
    pub fn share(&self, root_zone_c: f64) -> f64 {
        let rate = self.rate_per_day(root_zone_c);
        if rate <= 0.0 {
            return 0.0;
        }
        let above = self.shares.partition_point(|&(c, _)| c <= root_zone_c);
        if let (Some(&(c0, s0)), next) = (
            above.checked_sub(1).and_then(|i| self.shares.get(i)),
            self.shares.get(above),
        ) {
            match next {
                Some(&(c1, s1)) => return s0 + (s1 - s0) * (root_zone_c - c0) / (c1 - c0),
                None if c0 == root_zone_c => return s0,
                None => {}
            }
        }
        let fastest = self.rate.iter().map(|(_, rate)| *rate).fold(0.0, f64::max);
        (rate / fastest / SLOW).min(1.0)
    }

    /// When seedlings show with the root zone at `hourly_c` from the hour of sowing on, a day at the least
    /// in equal shares, or more days hour by hour, over and over; `None` where nothing comes up.
    ///
    /// Days from sowing. The first tenth, a quarter, half and nine tenths show when the summed rate has
    /// reached 0.8, 0.88, 1 and 1.35 (our own estimate).
    pub fn showing(&self, hourly_c: &[f64]) -> Option<Showing> {
        let rates = self.rates(hourly_c);
        if !comes_up(&rates) {
            return None;
        }
        let until = |wanted: f64| until(wanted, &rates);
        Some(Showing {
            first_days: until(FIRST),
            quarter_days: until(QUARTER),
            half_days: until(1.0),
            last_days: until(LAST),
        })
    }

    /// The rate in each hour, at the most until all of it shows.
    fn rates(&self, hourly_c: &[f64]) -> Vec<f64> {
        let mut rates: Vec<f64> = Vec::with_capacity(hourly_c.len());
        let mut sum = 0.0;
        for (i, &c) in hourly_c.iter().enumerate() {
            // More days than one stay more than one.
            if sum > LAST * HOURS as f64 && i > HOURS {
                break;
            }
            // Many a day is like the last.
            let alike = i.checked_sub(HOURS).filter(|&last| hourly_c[last] == c);
            let rate = alike.map_or_else(|| self.rate_per_day(c), |last| rates[last]);
            sum += rate;
            rates.push(rate);
        }
        rates
    }

    pub(super) fn new(nodes: Vec<(f64, Tested)>) -> Self {
        let figures: Vec<(f64, f64)> = nodes
            .iter()
            .filter_map(|&(c, tested)| match tested {
                Tested::Days(days) => Some((c, 1.0 / days)),
                _ => None,
            })
            .collect();
        let mut rate = figures.clone();
        if let (Some(&first), Some(&last)) = (figures.first(), figures.last()) {
            let at = |c: f64| nodes.iter().position(|node| node.0 == c).unwrap_or(0);
            if let Some(&(c, tested)) = at(first.0).checked_sub(1).and_then(|i| nodes.get(i)) {
                if tested == Tested::None {
                    rate.insert(0, (c, 0.0));
                } else if let Some(&second) = figures.get(1) {
                    // Untested below: carry the line of the two coldest figures down to zero, as
                    // thermal time does, but never past a node where nothing came up.
                    let slope = (second.1 - first.1) / (second.0 - first.0);
                    let floor = nodes[..at(first.0)]
                        .iter()
                        .rfind(|node| node.1 == Tested::None)
                        .map_or(f64::NEG_INFINITY, |node| node.0);
                    if slope > 0.0 {
                        rate.insert(0, ((first.0 - first.1 / slope).max(floor), 0.0));
                    }
                }
            }
            if let Some(&(c, Tested::None)) = nodes.get(at(last.0) + 1) {
                rate.push((c, 0.0));
            }
        }
        Self {
            nodes,
            rate,
            shares: Vec::new(),
        }
    }

    /// The table's own nodes, temperature in °C first.
    pub fn nodes(&self) -> &[(f64, Tested)] {
        &self.nodes
    }

    /// Days and share at every whole degree at which any come up.
    pub fn by_temperature(&self) -> Vec<AtTemperature> {
        let ends = self.rate.first().zip(self.rate.last());
        let (low, high) = ends.map_or((0.0, -1.0), |(a, b)| (a.0.ceil(), b.0.floor()));
        (low as i32..=high as i32)
            .map(f64::from)
            .map(|root_zone_c| AtTemperature {
                root_zone_c,
                days: self.days(root_zone_c),
                share: self.share(root_zone_c),
            })
            .collect()
    }

    /// Emergence per day at `root_zone_c` °C: 0 where nothing comes up, and 0 above the warmest
    /// tested temperature, since nobody knows.
    ///
    /// Source of the tabled rows: Harrington, J. F., and P. A. Minges: Vegetable Seed Germination,
    /// University of California, 1954, reprinted in Knott's Handbook for Vegetable Growers (from
    /// memory). Between their temperatures the rate, not the days, runs in straight lines, as thermal
    /// time does; below the coldest figure its line is carried down to nothing.
    pub fn rate_per_day(&self, root_zone_c: f64) -> f64 {
        let above = self.rate.partition_point(|&(c, _)| c <= root_zone_c);
        match (
            above.checked_sub(1).map(|i| self.rate[i]),
            self.rate.get(above),
        ) {
            (Some((c, rate)), None) if c == root_zone_c => rate,
            (Some((c0, r0)), Some(&(c1, r1))) => r0 + (r1 - r0) * (root_zone_c - c0) / (c1 - c0),
            _ => 0.0,
        }
    }

    /// Mean days to emergence at a constant `root_zone_c`; `None` where nothing comes up.
    ///
    /// ```
    /// let crops = sunrise_core::crops::library();
    /// let tomato = crops.get("tomato").unwrap().curve();
    /// assert_eq!(tomato.days(20.0), Some(8.2));
    /// assert_eq!(tomato.days(5.0), None);
    /// ```
    pub fn days(&self, root_zone_c: f64) -> Option<f64> {
        self.days_over(&[root_zone_c])
    }

    /// Mean days to emergence when the root zone runs through the temperatures of `hourly_c` (°C: a day
    /// in equal shares, or more days hour by hour from sowing on), the rate being summed over them;
    /// `None` where nothing comes up.
    pub fn days_over(&self, hourly_c: &[f64]) -> Option<f64> {
        let rates = self.rates(hourly_c);
        comes_up(&rates).then(|| {
            if rates.len() > HOURS {
                until(1.0, &rates)
            } else {
                1.0 / mean(&rates)
            }
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::crops::emergence_tables::{read_table, read_tables};
    use std::collections::BTreeMap;

    fn curves() -> BTreeMap<String, EmergenceCurve> {
        read_table(include_str!("emergence_days.csv")).unwrap()
    }

    #[test]
    fn a_broken_cell_is_named() {
        let error = read_table("crop,10,15\nrye,5,soon\n").unwrap_err();
        assert_eq!(error, "rye at 15 °C: \"soon\" is no number of days");
    }

    #[test]
    fn never_overshoots_the_nodes_on_either_side() {
        for (crop, curve) in curves() {
            for pair in curve.rate.windows(2) {
                let (low, high) = (pair[0].1.min(pair[1].1), pair[0].1.max(pair[1].1));
                for i in 0..=20 {
                    let c = pair[0].0 + (pair[1].0 - pair[0].0) * f64::from(i) / 20.0;
                    let rate = curve.rate_per_day(c);
                    assert!(
                        (low - 1e-12..=high + 1e-12).contains(&rate),
                        "{crop} at {c} °C"
                    );
                }
            }
        }
    }

    #[test]
    fn a_warm_crop_is_not_promised_from_cold_soil_nobody_tested() {
        let curves = curves();
        // Watermelon: nothing at 5 °C, untested at 10 and 15, 11.8 days at 20.
        assert_eq!(curves["watermelon"].days(12.0), None);
        assert!(curves["watermelon"].days(18.0).unwrap() > 11.8);
        // Cabbage was not tested above 30 °C.
        assert_eq!(curves["cabbage"].days(31.0), None);
        assert_eq!(curves["cabbage"].days(30.0), Some(3.5));
    }

    #[test]
    fn too_warm_stops_lettuce_and_too_cold_peppers() {
        let days = include_str!("emergence_days.csv");
        let curves = read_tables(days, include_str!("emergence_share.csv")).unwrap();
        // Tested: 99 % at 25 °C, 12 % at 30.
        assert_eq!(curves["lettuce"].share(25.0), 0.99);
        assert!((curves["lettuce"].share(27.5) - 0.555).abs() < 1e-9);
        assert_eq!(curves["lettuce"].share(35.0), 0.0);
        assert!(curves["pepper"].share(15.0) < 0.8 && curves["pepper"].share(10.0) < 0.05);
        // Not tested: by the rate.
        assert_eq!(curves["watermelon"].share(28.0), 1.0);
        assert!(curves["watermelon"].share(17.5) < 1.0);
        assert_eq!(curves["watermelon"].share(10.0), 0.0);
    }

    #[test]
    fn the_first_show_before_half_and_the_last_after() {
        let curve = &curves()["tomato"];
        let even = curve.showing(&[25.0; 24]).unwrap();
        assert!((even.half_days - 5.9).abs() < 1e-9);
        assert!((even.first_days - 0.8 * 5.9).abs() < 1e-9);
        assert!((even.last_days - 1.35 * 5.9).abs() < 1e-9);
        // Warm noons hurry more than cool nights hold up; the last hours are counted as they come.
        let swing: Vec<f64> = (0..24).map(|h| if h < 12 { 15.0 } else { 25.0 }).collect();
        let swung = curve.showing(&swing).unwrap();
        assert!((swung.half_days - curve.days_over(&swing).unwrap()).abs() < 0.5);
        assert_eq!(curve.showing(&[5.0; 24]), None);
    }

    #[test]
    fn a_thermal_curve_is_fastest_at_its_best_and_ends_at_both_ends() {
        let curve = EmergenceCurve::thermal(Thermal {
            base_c: 10.0,
            best_c: 25.0,
            upper_c: 35.0,
            days_at_best: 5.0,
        })
        .unwrap();
        assert_eq!(curve.days(25.0), Some(5.0));
        assert!((curve.days(17.5).unwrap() - 10.0).abs() < 1e-9);
        assert_eq!((curve.days(10.0), curve.days(35.0)), (None, None));
    }

    #[test]
    fn warm_days_and_cold_nights_sum_their_rates() {
        let curve = &curves()["tomato"];
        let days = curve.days_over(&[25.0, 15.0]).unwrap();
        assert!((days - 2.0 / (1.0 / 5.9 + 1.0 / 13.6)).abs() < 1e-9);
    }
}
