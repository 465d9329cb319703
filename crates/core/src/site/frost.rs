//! Last and first frosts by a record of daily minima.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::site::outdoors::{MonthAir, check_months};

/// The frosts of a place, year by year.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FrostRecord {
    /// What the record is called: a station, a file.
    pub name: String,
    /// A day whose minimum is at or below this is one of frost, in °C: 0, or −2 for hardier crops.
    pub threshold_c: f64,
    /// How cautious one is.
    pub caution: Caution,
    /// The years, in order; one alone for a typical year.
    pub years: Vec<FrostYear>,
    /// Set where the record is of one typical year, put together from months of several.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub typical: Option<TypicalYear>,
    /// The air outdoors month by month, January first; empty where the record does not tell.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub months: Vec<MonthAir>,
}

/// What a typical year lacks to tell how sure a day is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TypicalYear {
    /// How far the last frost strays from year to year, as a standard deviation in days: one
    /// typical year gives no odds, so this begins as [`LAST_FROST_SD_DAYS`].
    pub spread_days: f64,
}

/// A year's frosts.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FrostYear {
    /// The year, by its spring.
    pub year: i16,
    /// The last day of frost before summer; `None` when there was none since midwinter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub last: Option<Date>,
    /// The first day of frost after summer; `None` when there was none until midwinter, or the record
    /// ends before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub first: Option<Date>,
}

/// How cautious a gardener is about the last frost.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Caution {
    /// Frost still comes later in four years of five.
    Bold,
    /// In every other year.
    #[default]
    Even,
    /// In one year of ten.
    Careful,
}

impl Caution {
    /// The share of years whose last frost is over by the day that is chosen.
    pub fn share(self) -> f64 {
        match self {
            Self::Bold => 0.2,
            Self::Even => 0.5,
            Self::Careful => 0.9,
        }
    }
}

/// Dates of the last frost, each in the year asked for.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct FrostDates {
    /// Over by this day in one year of ten.
    pub p10: Date,
    /// In every other.
    pub p50: Date,
    /// In nine of ten.
    pub p90: Date,
    /// Over by this day as often as the caution wants.
    pub chosen: Date,
    /// The first frost after summer has come by this day in every other year; `None` when no year
    /// has one on record.
    pub first: Option<Date>,
    /// So many years say so.
    pub years: u32,
}

/// Midwinter: the year's frosts are counted from it, so that a winter's are not torn apart.
pub(super) fn midwinter(latitude_deg: f64, year: i16) -> Date {
    let (month, day) = if latitude_deg >= 0.0 {
        (1, 15)
    } else {
        (7, 15)
    };
    // Held at the calendar's ends: a year from outside may be any number.
    Date::new(year.clamp(-9998, 9998), month, day).unwrap_or_default()
}

/// Half a year: from midwinter to summer.
pub(super) const HALF_YEAR_DAYS: i32 = 182;

/// The `share` quantile of sorted `days`, between neighbours in proportion.
///
/// Source: type 7 of Hyndman and Fan (1996), which NumPy and most tables use.
///
/// ```
/// use sunrise_core::site::frost::quantile;
/// assert_eq!(quantile(&[10.0, 20.0, 40.0], 0.5), 20.0);
/// assert_eq!(quantile(&[10.0, 20.0, 40.0], 0.9), 36.0);
/// ```
///
/// # Panics
/// When there are no days.
pub fn quantile(days: &[f64], share: f64) -> f64 {
    let at = share.clamp(0.0, 1.0) * (days.len() - 1) as f64;
    let (low, high) = (at.floor() as usize, at.ceil() as usize);
    days[low] + (days[high] - days[low]) * (at - low as f64)
}

/// The chance that the last frost is still to come `days_after` the day by which half of the years
/// are over, when it strays by `spread_days`.
///
/// The logistic curve of that standard deviation, which stays within 0.02 of the normal one.
pub(super) fn still_comes(days_after: f64, spread_days: f64) -> f64 {
    1.0 / (1.0 + (days_after / logistic_scale(spread_days)).exp())
}

/// Days from the day by which half of the years are over to that of `share` of them:
/// [`still_comes`] the other way round.
fn strays(share: f64, spread_days: f64) -> f64 {
    logistic_scale(spread_days) * (share / (1.0 - share)).ln()
}

/// The scale of the logistic distribution of a standard deviation.
fn logistic_scale(spread_days: f64) -> f64 {
    spread_days * 3f64.sqrt() / std::f64::consts::PI
}

impl FrostRecord {
    /// Days from midwinter to each year's last frost, sorted; midwinter itself where there was none.
    fn days_to_last(&self, latitude_deg: f64) -> Vec<f64> {
        let each = self.years.iter().map(|year| {
            let from = midwinter(latitude_deg, year.year);
            year.last
                .map_or(0.0, |last| f64::from(days_between(from, last)))
        });
        let mut days: Vec<f64> = each.collect();
        days.sort_by(f64::total_cmp);
        days
    }

    /// When the last frost is over in `year`; `None` without any years.
    pub fn dates(&self, latitude_deg: f64, year: i16) -> Option<FrostDates> {
        let days = self.days_to_last(latitude_deg);
        if days.is_empty() {
            return None;
        }
        let from = midwinter(latitude_deg, year);
        let at = |share: f64| {
            let day = match self.typical {
                // A year without frost strays nowhere.
                Some(typical) if days[0] > 0.0 => days[0] + strays(share, typical.spread_days),
                _ => quantile(&days, share),
            };
            plus_days(from, day.round() as i32)
        };
        Some(FrostDates {
            p10: at(0.1),
            p50: at(0.5),
            p90: at(0.9),
            chosen: at(self.caution.share()),
            first: self.first(latitude_deg, from),
            years: days.len() as u32,
        })
    }

    /// The even-odds day of the first frost after summer, in the year whose midwinter is `from`.
    fn first(&self, latitude_deg: f64, from: Date) -> Option<Date> {
        let each = self.years.iter().filter_map(|year| {
            let from = midwinter(latitude_deg, year.year);
            Some(f64::from(days_between(from, year.first?)))
        });
        let mut days: Vec<f64> = each.collect();
        days.sort_by(f64::total_cmp);
        (!days.is_empty()).then(|| plus_days(from, quantile(&days, 0.5).round() as i32))
    }

    /// The share of years in which frost still comes on or after `date`; `None` without any years.
    /// Between the record's years it falls in proportion.
    pub fn risk(&self, latitude_deg: f64, date: Date) -> Option<f64> {
        let days = self.days_to_last(latitude_deg);
        let n = days.len() as f64;
        let mut from = midwinter(latitude_deg, date.year());
        if from > date {
            from = midwinter(latitude_deg, date.year() - 1);
        }
        let day = f64::from(days_between(from, date));
        // In autumn the next last frost is that of the spring to come.
        if day > f64::from(HALF_YEAR_DAYS) {
            return (n > 0.0).then_some(1.0);
        }
        if let (Some(typical), Some(&last)) = (self.typical, days.first()) {
            return Some(if last > 0.0 {
                still_comes(day - last, typical.spread_days)
            } else {
                0.0
            });
        }
        let later = days.iter().filter(|last| **last >= day).count() as f64;
        (n > 0.0).then(|| later / n)
    }

    pub(crate) fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.name(&at.at("name"), &self.name);
        faults.number(
            &at.at("threshold_c"),
            self.threshold_c,
            -15.0..=5.0,
            Quantity::TemperatureC,
        );
        let years = at.at("years");
        let most = if self.typical.is_some() { 1 } else { 300 };
        faults.count(&years, self.years.len(), 1..=most);
        if let Some(typical) = self.typical {
            let at = at.at("typical").at("spread_days");
            faults.number(&at, typical.spread_days, 1.0..=60.0, Quantity::Days);
        }
        check_months(&self.months, &at.at("months"), faults);
        for (i, year) in self.years.iter().enumerate() {
            let at = years.at(i);
            let range = 1750.0..=2200.0;
            faults.number(&at.at("year"), f64::from(year.year), range, Quantity::Count);
            for (name, date) in [("last", year.last), ("first", year.first)] {
                let near = |date: Date| (-1..=2).contains(&(date.year() - year.year));
                if let Some(date) = date.filter(|date| !near(*date)) {
                    faults.add(
                        &at.at(name),
                        date,
                        say!("{date} is not of that year", date = date),
                        say!("give the year of its spring and days of that season"),
                    );
                }
            }
        }
    }
}

/// How far the last frost strays around its median from year to year, in days: our own estimate
/// for temperate lowland, until a series of minima replaces it.
pub const LAST_FROST_SD_DAYS: f64 = 10.0;

#[cfg(test)]
mod tests {
    use super::*;
    use jiff::civil::date;

    fn record(lasts: &[Option<Date>]) -> FrostRecord {
        FrostRecord {
            name: "garden".into(),
            threshold_c: 0.0,
            caution: Caution::Careful,
            years: lasts
                .iter()
                .enumerate()
                .map(|(i, last)| FrostYear {
                    year: 2010 + i as i16,
                    last: last.map(|d| date(2010 + i as i16, d.month(), d.day())),
                    first: None,
                })
                .collect(),
            typical: None,
            months: Vec::new(),
        }
    }

    #[test]
    fn one_typical_year_takes_its_odds_from_the_spread() {
        let mut record = record(&[Some(date(2001, 4, 24))]);
        record.typical = Some(TypicalYear { spread_days: 10.0 });
        let dates = record.dates(52.0, 2027).unwrap();
        assert_eq!(dates.p50, date(2027, 4, 24));
        // 10 days x √3/π x ln 9 = 12.1 days either way.
        assert_eq!(
            (dates.p10, dates.p90),
            (date(2027, 4, 12), date(2027, 5, 6))
        );
        let on = |day| record.risk(52.0, day).unwrap();
        assert!((on(dates.p50) - 0.5).abs() < 1e-12);
        assert!((on(dates.p90) - 0.1).abs() < 0.01);
        record.years[0].last = None;
        assert_eq!(record.risk(52.0, date(2027, 2, 1)), Some(0.0));
    }

    #[test]
    fn the_careful_wait_longer_and_a_year_without_frost_counts() {
        let days = [Some(date(2001, 4, 20)), None, Some(date(2001, 5, 10))];
        let dates = record(&days).dates(52.9, 2027).unwrap();
        assert_eq!((dates.p50, dates.years), (date(2027, 4, 20), 3));
        assert!(dates.p10 < dates.p50 && dates.p50 < dates.p90);
        assert_eq!(dates.chosen, dates.p90);
    }

    #[test]
    fn risk_falls_from_one_to_none() {
        let days = [Some(date(2001, 4, 20)), None, Some(date(2001, 5, 10))];
        let record = record(&days);
        let on = |month, day| record.risk(52.9, date(2027, month, day)).unwrap();
        assert!((on(4, 1) - 2.0 / 3.0).abs() < 1e-12);
        assert!((on(5, 1) - 1.0 / 3.0).abs() < 1e-12);
        assert_eq!((on(5, 12), on(10, 20)), (0.0, 1.0));
    }

    #[test]
    fn south_of_the_equator_spring_is_in_september() {
        let mut south = record(&[None]);
        south.years = vec![FrostYear {
            year: 2020,
            last: Some(date(2020, 9, 12)),
            first: None,
        }];
        let dates = south.dates(-38.0, 2026).unwrap();
        assert_eq!(dates.p50, date(2026, 9, 12));
    }
}
