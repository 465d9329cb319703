//! The days found in a file, and the frosts among them.

use crate::basis::dates::{days_between, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::basis::work::go_on;
use crate::site::frost::{FrostRecord, FrostYear, HALF_YEAR_DAYS, TypicalYear, midwinter};
use crate::site::minima::preview::{DayMinimum, Preview, RowProblem};
use crate::site::minima::understanding::Understanding;
use crate::site::outdoors::MonthAir;
use jiff::civil::Date;
use std::collections::BTreeMap;

/// So many problems are listed.
const LISTED: usize = 100;

/// Fewer springs than this say little of one year in ten.
const FEW_YEARS: usize = 10;

/// A spring with fewer of its days on record is left out: a frost may be among the missing.
const ENOUGH: f64 = 0.95;

/// The least and the greatest temperature of a day, in °C.
#[derive(Debug, Clone, Copy)]
pub(super) struct Extremes {
    pub(super) minimum_c: f64,
    pub(super) maximum_c: Option<f64>,
    /// Its mean relative humidity, 0 to 1, and what the sun sends, in kWh/m², where the file tells.
    pub(super) humidity: Option<f64>,
    pub(super) sun_kwh_m2: Option<f64>,
}

#[derive(Default)]
pub(super) struct Found {
    pub(super) days: BTreeMap<Date, Extremes>,
    /// The file says that it is of a typical year.
    pub(super) typical: bool,
    pub(super) problems: Vec<RowProblem>,
    pub(super) problem_rows: u32,
}

impl Found {
    pub(super) fn problem(&mut self, row: u32, value: &str, problem: Statement, remedy: Statement) {
        self.problem_rows += 1;
        if self.problems.len() < LISTED {
            self.problems.push(RowProblem {
                row,
                value: value.chars().take(60).collect(),
                problem,
                remedy,
            });
        }
    }

    /// Whether the days are one typical year: every month once, all from one year or out of step.
    fn is_typical_year(&self) -> bool {
        let (Some(first), Some(last)) = (self.days.keys().next(), self.days.keys().next_back())
        else {
            return false;
        };
        let mut year_of = [None; 12];
        for date in self.days.keys() {
            let year = &mut year_of[usize::from(date.month().unsigned_abs()) - 1];
            if *year.get_or_insert(date.year()) != date.year() {
                return false;
            }
        }
        let whole = year_of.iter().all(Option::is_some);
        whole && (self.typical || days_between(*first, *last) > 366)
    }

    /// The days of a typical year as one year from midwinter on, in year 2001 and the next.
    fn in_one_year(&self, latitude_deg: f64) -> BTreeMap<Date, Extremes> {
        let begins = midwinter(latitude_deg, TYPICAL_YEAR);
        let moved = self.days.iter().filter_map(|(date, day)| {
            let same = Date::new(TYPICAL_YEAR, date.month(), date.day()).ok()?;
            let date = if same < begins {
                Date::new(TYPICAL_YEAR + 1, date.month(), date.day()).ok()?
            } else {
                same
            };
            Some((date, *day))
        });
        moved.collect()
    }

    pub(super) fn preview(self, how: &Understanding) -> Preview {
        let mut notes = Vec::new();
        let mut years = Vec::new();
        let typical = self.problem_rows == 0 && self.is_typical_year();
        if typical {
            let days = self.in_one_year(how.latitude_deg);
            years = frost_years(&days, how, &mut notes);
            years.truncate(1);
            notes.push(say!(
                "This is one typical year, its months from different years, so it gives no odds: we take the last frost to stray by {spread} either way (our own estimate unless you change it)",
                spread = Quantity::Days.of(how.spread_days)
            ));
        } else if self.problem_rows == 0 {
            years = frost_years(&self.days, how, &mut notes);
            if (1..FEW_YEARS).contains(&years.len()) {
                notes.push(say!(
                    "Only {years} springs are on record: take these odds with care",
                    years = Quantity::Count.of(years.len() as f64)
                ));
            }
        }
        let record = (!years.is_empty()).then(|| FrostRecord {
            name: how.name.clone(),
            threshold_c: how.threshold_c,
            caution: how.caution,
            years,
            typical: typical.then_some(TypicalYear {
                spread_days: how.spread_days,
            }),
            months: months(&self.days),
        });
        if record.is_none() && self.problem_rows == 0 {
            notes.push(say!(
                "No spring is on record with enough days to tell anything"
            ));
        }
        let minima = self.days.values().map(|day| day.minimum_c);
        Preview {
            days: self.days.len() as u32,
            from: self.days.keys().next().copied(),
            to: self.days.keys().next_back().copied(),
            coldest_c: minima.reduce(f64::min),
            sample: self
                .days
                .iter()
                .take(5)
                .map(|(&date, day)| DayMinimum {
                    date,
                    minimum_c: day.minimum_c,
                })
                .collect(),
            dates: record
                .as_ref()
                .and_then(|record| record.dates(how.latitude_deg, how.year)),
            record,
            problems: self.problems,
            problem_rows: self.problem_rows,
            notes,
        }
    }
}

/// A year without 29 February, into which the days of a typical year are put.
const TYPICAL_YEAR: i16 = 2001;

/// The means of the days month by month; empty unless every month has both minima and maxima.
fn months(days: &BTreeMap<Date, Extremes>) -> Vec<MonthAir> {
    let with_both = |month: usize| {
        let of_month = move |date: &Date| usize::from(date.month().unsigned_abs()) == month;
        let own = days.iter().filter(move |(date, _)| of_month(date));
        own.filter_map(|(_, day)| Some((day, day.maximum_c?)))
    };
    let month = |month: usize| {
        let mean = |of: &dyn Fn(&(&Extremes, f64)) -> Option<f64>| {
            let all: Vec<f64> = with_both(month).filter_map(|day| of(&day)).collect();
            (!all.is_empty()).then(|| all.iter().sum::<f64>() / all.len() as f64)
        };
        Some(MonthAir {
            minimum_c: mean(&|(day, _)| Some(day.minimum_c))?,
            maximum_c: mean(&|(_, most)| Some(*most))?,
            humidity: mean(&|(day, _)| day.humidity),
            sun_kwh_m2: mean(&|(day, _)| day.sun_kwh_m2),
        })
    };
    let all: Option<Vec<MonthAir>> = (1..=12).map(month).collect();
    all.unwrap_or_default()
}

/// The frosts of every spring that has enough of its days on record.
fn frost_years(
    days: &BTreeMap<Date, Extremes>,
    how: &Understanding,
    notes: &mut Vec<Statement>,
) -> Vec<FrostYear> {
    let (Some(first), Some(last)) = (days.keys().next(), days.keys().next_back()) else {
        return Vec::new();
    };
    let mut years = Vec::new();
    let mut lacking = Vec::new();
    for year in first.year() - 1..=last.year() {
        go_on();
        let from = midwinter(how.latitude_deg, year);
        let summer = plus_days(from, HALF_YEAR_DAYS);
        let next = midwinter(how.latitude_deg, year + 1);
        let spring = days.range(from..summer);
        let seen = spring.clone().count();
        if seen == 0 {
            continue;
        }
        if (seen as f64) < ENOUGH * f64::from(HALF_YEAR_DAYS) {
            lacking.push(year.to_string());
            continue;
        }
        let frosty = |(_, day): &(&Date, &Extremes)| day.minimum_c <= how.threshold_c;
        years.push(FrostYear {
            year,
            last: spring.filter(frosty).map(|(date, _)| *date).next_back(),
            first: days.range(summer..next).find(frosty).map(|(date, _)| *date),
        });
    }
    if !lacking.is_empty() {
        let shown: Vec<String> = lacking.iter().take(8).cloned().collect();
        let more = lacking.len() - shown.len();
        let mut shown = shown.join(", ");
        if more > 0 {
            shown += &format!(" and {more} more");
        }
        notes.push(say!(
            "Left out, because too many days of spring are missing: {years}",
            years = shown
        ));
    }
    years
}
