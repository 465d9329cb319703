//! An EnergyPlus weather file: a row for each hour.

use crate::basis::words::say;
use crate::basis::work::go_on;
use crate::site::minima::found::{Extremes, Found};
use crate::site::minima::lines::{GIVEN_UP, Lines, MOST_ROWS, YEARS};
use jiff::civil::Date;

/// An EnergyPlus weather file: the least dry-bulb temperature of each day's hours.
///
/// Source: the EPW data dictionary of EnergyPlus, Auxiliary Programs (from memory): eight lines of
/// heading, then year, month, day, hour, minute, flags, dry bulb in °C, …; 99.9 when missing.
pub(super) fn epw(lines: &mut Lines<'_>, found: &mut Found) {
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
