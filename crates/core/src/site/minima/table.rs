//! A table with a row for each day.

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::basis::work::go_on;
use crate::site::minima::found::{Extremes, Found};
use crate::site::minima::lines::{GIVEN_UP, Lines, MINIMA_C, MOST_C, MOST_ROWS, YEARS};
use crate::site::minima::understanding::{DegreeUnit, Understanding};
use jiff::civil::Date;

/// A table with a row for each day.
pub(super) fn table(lines: &mut Lines<'_>, how: &Understanding, found: &mut Found) {
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
            say!("separate them by a comma, a semicolon or a tab"),
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
                say!("the file does not end"),
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
            humidity: None,
            sun_kwh_m2: None,
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
