//! Daily minima from a file: comma-separated values, or an EnergyPlus weather file (EPW).

use std::collections::BTreeMap;

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::frost::{
    Caution, FrostDates, FrostRecord, FrostYear, HALF_YEAR_DAYS, MonthAir, TypicalYear, midwinter,
};
use super::{LAST_FROST_SD_DAYS, days_between, plus_days};
use crate::fault::{Fault, Faults, Pointer};
use crate::say;
use crate::units::Quantity;
use crate::words::Statement;
use crate::work::go_on;

/// How the file is to be understood.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Understanding {
    /// What the record is to be called.
    pub name: String,
    /// Its unit.
    pub unit: DegreeUnit,
    /// A day whose minimum is at or below this is one of frost, in °C.
    pub threshold_c: f64,
    /// How cautious one is.
    pub caution: Caution,
    /// How far the last frost strays from year to year, as a standard deviation in days: counts
    /// where the file is of one typical year, which gives no odds of its own.
    pub spread_days: f64,
    /// Latitude of the place in degrees, north positive: it decides when summer is.
    pub latitude_deg: f64,
    /// The year for which dates are wanted.
    pub year: i16,
}

impl Default for Understanding {
    fn default() -> Self {
        Self {
            name: "daily minima".into(),
            unit: DegreeUnit::C,
            threshold_c: 0.0,
            caution: Caution::Even,
            spread_days: LAST_FROST_SD_DAYS,
            latitude_deg: 50.0,
            year: 2027,
        }
    }
}

impl Understanding {
    /// # Errors
    /// Every figure out of range, by its path.
    fn check(&self) -> Result<(), Vec<Fault>> {
        let mut faults = Faults::default();
        let root = Pointer::default();
        faults.name(&root.at("name"), &self.name);
        for (name, value, range, quantity) in [
            (
                "threshold_c",
                self.threshold_c,
                -15.0..=5.0,
                Quantity::TemperatureC,
            ),
            ("spread_days", self.spread_days, 1.0..=60.0, Quantity::Days),
            (
                "latitude_deg",
                self.latitude_deg,
                -90.0..=90.0,
                Quantity::AngleDeg,
            ),
            (
                "year",
                f64::from(self.year),
                1900.0..=2200.0,
                Quantity::Count,
            ),
        ] {
            faults.number(&root.at(name), value, range, quantity);
        }
        faults.verdict()
    }
}

/// A unit of temperature.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DegreeUnit {
    /// °C.
    #[default]
    C,
    /// °F.
    F,
}

/// What a file holds, before anything of it is kept.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Preview {
    /// The days that were read.
    pub days: u32,
    /// First of them.
    pub from: Option<Date>,
    /// Last of them.
    pub to: Option<Date>,
    /// The coldest, in °C.
    pub coldest_c: Option<f64>,
    /// The first few, as they were understood.
    pub sample: Vec<DayMinimum>,
    /// What is wrong, row by row, the first hundred; a file with any is not taken.
    pub problems: Vec<RowProblem>,
    /// How many rows are wrong, a thousand at the most: then reading ends.
    pub problem_rows: u32,
    /// What to know besides: years that lack days are left out.
    pub notes: Vec<Statement>,
    /// The frosts, ready to be kept; `None` while there are problems.
    pub record: Option<FrostRecord>,
    /// What follows for the year asked for; `None` while there are problems.
    pub dates: Option<FrostDates>,
}

/// A day and its minimum.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct DayMinimum {
    /// The day.
    pub date: Date,
    /// Its minimum, in °C.
    pub minimum_c: f64,
}

/// A row that cannot be read.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RowProblem {
    /// The row, counted from 1 with the heading.
    pub row: u32,
    /// What stands there.
    pub value: String,
    /// What is wrong.
    pub problem: Statement,
    /// What would be right.
    pub remedy: Statement,
}

/// More than this is no record of a garden: 300 years of days.
const MOST_ROWS: u32 = 110_000;
/// So many problems are listed.
const LISTED: usize = 100;
/// Fewer springs than this say little of one year in ten.
const FEW_YEARS: usize = 10;
/// After so many nobody wants to hear of the rest.
const GIVEN_UP: u32 = 1000;
/// Minima outside of this are errors: the coldest ever measured outdoors where people garden, and
/// nights that never were so warm.
const MINIMA_C: std::ops::RangeInclusive<f64> = -60.0..=35.0;
/// Days that never were so warm.
const MOST_C: f64 = 60.0;
/// A spring with fewer of its days on record is left out: a frost may be among the missing.
const ENOUGH: f64 = 0.95;

/// Years that a file's days may be of.
const YEARS: std::ops::RangeInclusive<i16> = 1750..=2200;

/// Reads a file of daily minima.
///
/// CSV: a heading with a column for the date (`date`, `day`) and one for the minimum (`min`,
/// `temp_min`, `minimum`, …), or two columns without a heading; fields parted by commas,
/// semicolons or tabs; decimal commas where semicolons part; dates as 2012-01-31, 2012/01/31 or
/// 31.01.2012; a column for the maximum (`max`, `temp_max`, …) is read where there is one. EPW:
/// hourly, told by its first word, LOCATION; its latitude counts.
///
/// A file of one typical year, its months taken from different years, is read as one year: how far
/// the last frost strays then comes from `how`.
///
/// # Errors
/// What cannot be of `how`, by its path. What is wrong in the file stands in the preview.
pub fn read(text: &str, how: &Understanding) -> Result<Preview, Vec<Fault>> {
    how.check()?;
    let mut reader = Lines::new(text);
    let mut found = Found::default();
    let preview = match reader.peek() {
        Some(first) if first.starts_with("LOCATION,") => {
            let latitude = first.split(',').nth(6).and_then(|v| v.trim().parse().ok());
            let latitude = latitude.filter(|deg| (-90.0..=90.0).contains(deg));
            found.typical = says_typical(first);
            let how = Understanding {
                latitude_deg: latitude.unwrap_or(how.latitude_deg),
                ..how.clone()
            };
            epw(&mut reader, &mut found);
            found.preview(&how)
        }
        Some(_) => {
            table(&mut reader, how, &mut found);
            found.preview(how)
        }
        None => {
            found.problem(
                1,
                "",
                say!("the file is empty"),
                say!("give a date and a minimum in each row"),
            );
            found.preview(how)
        }
    };
    Ok(preview)
}

/// Whether the first line of an EPW file says that it is of a typical year: the source of its data
/// is its fourth field.
fn says_typical(first: &str) -> bool {
    let source = first.split(',').nth(4).unwrap_or_default();
    let source = source.to_ascii_uppercase();
    ["TMY", "IWEC", "CWEC", "TRY", "DSY", "TYPICAL"]
        .iter()
        .any(|word| source.contains(word))
}

/// The lines of a file, without a byte-order mark, each with its number from 1.
struct Lines<'a>(std::iter::Peekable<std::iter::Enumerate<std::str::Lines<'a>>>);

/// A longer line is no row of a table of days.
const LONGEST_LINE: usize = 10_000;

impl<'a> Lines<'a> {
    fn new(text: &'a str) -> Self {
        let text = text.strip_prefix('\u{feff}').unwrap_or(text);
        Self(text.lines().enumerate().peekable())
    }

    fn peek(&mut self) -> Option<&'a str> {
        self.0.peek().map(|(_, line)| cut(line))
    }

    fn next(&mut self) -> Option<(u32, &'a str)> {
        let (row, line) = self.0.next()?;
        Some((u32::try_from(row + 1).unwrap_or(u32::MAX), cut(line)))
    }
}

/// As much of a line as is looked at.
fn cut(line: &str) -> &str {
    line.get(..LONGEST_LINE).unwrap_or(line)
}

/// The least and the greatest temperature of a day, in °C.
#[derive(Debug, Clone, Copy)]
struct Extremes {
    minimum_c: f64,
    maximum_c: Option<f64>,
}

#[derive(Default)]
struct Found {
    days: BTreeMap<Date, Extremes>,
    /// The file says that it is of a typical year.
    typical: bool,
    problems: Vec<RowProblem>,
    problem_rows: u32,
}

impl Found {
    fn problem(&mut self, row: u32, value: &str, problem: Statement, remedy: Statement) {
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

    fn preview(self, how: &Understanding) -> Preview {
        let mut notes = Vec::new();
        let mut years = Vec::new();
        let typical = self.problem_rows == 0 && self.is_typical_year();
        if typical {
            let days = self.in_one_year(how.latitude_deg);
            years = frost_years(&days, how, &mut notes);
            years.truncate(1);
            notes.push(say!(
                "This is one typical year, its months from different years: it gives no odds, so the last frost is taken to stray by {spread} either way (our own estimate unless you change it)",
                spread = Quantity::Days.of(how.spread_days)
            ));
        } else if self.problem_rows == 0 {
            years = frost_years(&self.days, how, &mut notes);
            if (1..FEW_YEARS).contains(&years.len()) {
                notes.push(say!(
                    "Only {years} springs are on record: take what follows with care",
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
                "No spring is on record with enough of its days: nothing follows from it"
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

/// The means of the days' minima and maxima month by month; empty unless every month has both.
fn months(days: &BTreeMap<Date, Extremes>) -> Vec<MonthAir> {
    let mut sums = [(0u32, 0.0, 0.0); 12];
    for (date, day) in days {
        let Some(maximum_c) = day.maximum_c else {
            continue;
        };
        let (n, least, most) = &mut sums[usize::from(date.month().unsigned_abs()) - 1];
        *n += 1;
        *least += day.minimum_c;
        *most += maximum_c;
    }
    if sums.iter().any(|(n, ..)| *n == 0) {
        return Vec::new();
    }
    let mean = |(n, least, most): (u32, f64, f64)| MonthAir {
        minimum_c: least / f64::from(n),
        maximum_c: most / f64::from(n),
    };
    sums.map(mean).to_vec()
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

/// A table with a row for each day.
fn table(lines: &mut Lines<'_>, how: &Understanding, found: &mut Found) {
    let first = lines.peek().unwrap_or_default().to_owned();
    let parts = |line: &str, by: char| line.matches(by).count();
    let delimiter = [';', '\t', ',']
        .into_iter()
        .max_by_key(|by| (parts(&first, *by).min(1), *by != ',', parts(&first, *by)))
        .filter(|by| parts(&first, *by) > 0);
    let Some(delimiter) = delimiter else {
        found.problem(
            1,
            &first,
            say!("nothing parts the date from the minimum"),
            say!("part them by a comma, a semicolon or a tab"),
        );
        return;
    };
    let cells = |line: &str| -> Vec<String> {
        // Most rows need no reader of quoted fields, and there may be a hundred thousand.
        if !line.contains('"') {
            return line.split(delimiter).map(|c| c.trim().to_owned()).collect();
        }
        let mut reader = csv::ReaderBuilder::new()
            .has_headers(false)
            .flexible(true)
            .delimiter(delimiter as u8)
            .from_reader(line.as_bytes());
        let record = reader.records().next().and_then(Result::ok);
        record.map_or_else(Vec::new, |r| {
            r.iter().map(|c| c.trim().to_owned()).collect()
        })
    };
    let heading = cells(&first);
    let named = |names: &[&str]| {
        heading.iter().position(|cell| {
            let cell = cell.to_lowercase();
            names.iter().any(|name| cell == *name)
        })
    };
    const DATES: [&str; 5] = ["date", "day", "datum", "time", "fecha"];
    const MINIMA: [&str; 11] = [
        "min",
        "minimum",
        "tmin",
        "temp_min",
        "t_min",
        "tn",
        "minimum_c",
        "min_c",
        "minimum_f",
        "min_f",
        "low",
    ];
    const MAXIMA: [&str; 10] = [
        "max",
        "maximum",
        "tmax",
        "temp_max",
        "t_max",
        "tx",
        "maximum_c",
        "max_c",
        "maximum_f",
        "max_f",
    ];
    let maximum_at = named(&MAXIMA);
    let has_heading = heading
        .iter()
        .any(|cell| cell.chars().any(char::is_alphabetic));
    let (date_at, minimum_at) = if has_heading {
        lines.next();
        match (named(&DATES), named(&MINIMA)) {
            (Some(date), Some(minimum)) => (date, minimum),
            (date, _) => {
                let missing = if date.is_none() { "date" } else { "minimum" };
                found.problem(
                    1,
                    &first,
                    say!("no column is headed {missing}", missing = missing),
                    say!("head the columns date and minimum"),
                );
                return;
            }
        }
    } else {
        (0, 1)
    };
    while let Some((row, line)) = lines.next() {
        if line.trim().is_empty() {
            continue;
        }
        if found.problem_rows >= GIVEN_UP {
            return;
        }
        if row > MOST_ROWS {
            found.problem(
                row,
                "",
                say!("the file goes on and on"),
                say!(
                    "give {most} days at the most",
                    most = Quantity::Count.of(f64::from(MOST_ROWS))
                ),
            );
            return;
        }
        let cells = cells(line);
        let (Some(day), Some(minimum)) = (cells.get(date_at), cells.get(minimum_at)) else {
            found.problem(
                row,
                line,
                say!("the row has too few fields"),
                say!("give a date and a minimum, parted as in the first row"),
            );
            continue;
        };
        let date = match date_of(day) {
            Ok(date) => date,
            Err(remedy) => {
                found.problem(row, day, say!("\"{day}\" is no day", day = day), remedy);
                continue;
            }
        };
        go_on();
        let number = |cell: &str| {
            let cell = cell.replace('\u{2212}', "-");
            let cell = match delimiter {
                ',' => cell,
                _ => cell.replace(',', "."),
            };
            cell.parse::<f64>().ok().filter(|c| c.is_finite())
        };
        let in_c = |read: f64| match how.unit {
            DegreeUnit::C => read,
            DegreeUnit::F => (read - 32.0) / 1.8,
        };
        let Some(read) = number(minimum) else {
            found.problem(
                row,
                minimum,
                say!("\"{minimum}\" is no temperature", minimum = minimum),
                say!("give a number, or leave the row out"),
            );
            continue;
        };
        let c = in_c(read);
        if !MINIMA_C.contains(&c) {
            found.problem(
                row,
                minimum,
                say!(
                    "a minimum of {c} was never measured in a garden",
                    c = Quantity::TemperatureC.of(c)
                ),
                say!("check the column, and whether it is in °C or °F"),
            );
            continue;
        }
        let maximum = maximum_at.and_then(|at| number(cells.get(at)?)).map(in_c);
        let extremes = Extremes {
            minimum_c: c,
            maximum_c: maximum.filter(|most| (c..=MOST_C).contains(most)),
        };
        if found.days.insert(date, extremes).is_some() {
            found.problem(
                row,
                day,
                say!("{day} stands there twice", day = date),
                say!("give each day once"),
            );
        }
    }
}

/// A day as people write it.
fn date_of(text: &str) -> Result<Date, Statement> {
    const FORMS: &str = "write it as 2012-01-31";
    let day = text.split(['T', ' ']).next().unwrap_or_default();
    let by = ['-', '/', '.'].into_iter().find(|by| day.contains(*by));
    let parts: Option<Vec<i32>> = by.and_then(|by| {
        let parts: Result<Vec<i32>, _> = day.split(by).map(str::parse).collect();
        parts.ok().filter(|parts| parts.len() == 3)
    });
    let Some(parts) = parts else {
        return Err(say!("{forms}", forms = FORMS));
    };
    let (year, month, day) = match (by, parts[0], parts[2]) {
        (_, 1000.., _) => (parts[0], parts[1], parts[2]),
        (Some('.'), _, 1000..) => (parts[2], parts[1], parts[0]),
        (Some('/' | '-'), _, 1000..) if parts[0] > 12 => (parts[2], parts[1], parts[0]),
        (Some('/' | '-'), _, 1000..) if parts[1] > 12 => (parts[2], parts[0], parts[1]),
        (_, _, 1000..) => {
            return Err(say!(
                "it may be either day or month that comes first: {forms}",
                forms = FORMS
            ));
        }
        _ => return Err(say!("give a year of four digits: {forms}", forms = FORMS)),
    };
    let fits = |n: i32| i8::try_from(n).ok();
    i16::try_from(year)
        .ok()
        .filter(|year| YEARS.contains(year))
        .and_then(|year| Date::new(year, fits(month)?, fits(day)?).ok())
        .ok_or_else(|| say!("give a day that the calendar has, of a year from 1750 on"))
}

/// An EnergyPlus weather file: the least dry-bulb temperature of each day's hours.
///
/// Source: the EPW data dictionary of EnergyPlus, Auxiliary Programs (from memory): eight lines of
/// heading, then year, month, day, hour, minute, flags, dry bulb in °C, …; 99.9 when missing.
fn epw(lines: &mut Lines<'_>, found: &mut Found) {
    const HEADING: u32 = 8;
    const DRY_BULB: usize = 6;
    const MISSING: f64 = 99.9;
    while let Some((row, line)) = lines.next() {
        if row <= HEADING || line.trim().is_empty() {
            continue;
        }
        if row > 24 * MOST_ROWS || found.problem_rows >= GIVEN_UP {
            return;
        }
        go_on();
        let cells: Vec<&str> = line.split(',').take(DRY_BULB + 1).collect();
        let number = |i: usize| {
            cells
                .get(i)
                .and_then(|cell| cell.trim().parse::<f64>().ok())
        };
        let date = match (number(0), number(1), number(2)) {
            (Some(year), Some(month), Some(day)) => {
                let year = Some(year as i16).filter(|year| YEARS.contains(year));
                year.and_then(|year| Date::new(year, month as i8, day as i8).ok())
            }
            _ => None,
        };
        match (date, number(DRY_BULB)) {
            (Some(_), Some(c)) if c >= MISSING => {}
            (Some(date), Some(c)) if (-70.0..=60.0).contains(&c) => {
                let day = found.days.entry(date).or_insert(Extremes {
                    minimum_c: c,
                    maximum_c: Some(c),
                });
                day.minimum_c = day.minimum_c.min(c);
                day.maximum_c = day.maximum_c.map(|most| most.max(c));
            }
            _ => found.problem(
                row,
                line,
                say!("this hour has no day or no temperature"),
                say!("give a file as EnergyPlus reads it"),
            ),
        }
    }
}
