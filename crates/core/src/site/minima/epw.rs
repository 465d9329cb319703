//! An EnergyPlus weather file: a row for each hour.

use crate::basis::clock::DAY_H;
use crate::basis::words::say;
use crate::basis::work::go_on;
use crate::site::minima::found::{Extremes, Found};
use crate::site::minima::lines::{GIVEN_UP, Lines, MOST_ROWS, YEARS};
use jiff::civil::Date;
use std::collections::BTreeMap;

/// What the hours of a day come to: how many were read so far, and sums over them.
#[derive(Default)]
struct Sums {
    damp: [f64; 2],
    sun: [f64; 2],
}

/// An EnergyPlus weather file: the least and the greatest dry-bulb temperature of each day's hours, the
/// mean of their humidity, and what the sun sends on level ground.
///
/// Source: the EPW data dictionary of EnergyPlus, Auxiliary Programs (from memory): eight lines of
/// heading, then year, month, day, hour, minute, flags, dry bulb in °C, dew point, relative humidity in
/// %, pressure, three radiations and global horizontal radiation in Wh/m², …; 99.9, 999 and 9999 when
/// missing.
pub(super) fn epw(lines: &mut Lines<'_>, found: &mut Found) {
    const HEADING: u32 = 8;
    const DRY_BULB: usize = 6;
    const HUMIDITY: usize = 8;
    const SUN: usize = 13;
    const MISSING: f64 = 99.9;
    let mut sums: BTreeMap<Date, Sums> = BTreeMap::new();
    while let Some((row, line)) = lines.next() {
        if row <= HEADING || line.trim().is_empty() {
            continue;
        }
        if row > 24 * MOST_ROWS || found.problem_rows >= GIVEN_UP {
            return;
        }
        go_on();
        let cells: Vec<&str> = line.split(',').take(SUN + 1).collect();
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
                    humidity: None,
                    sun_kwh_m2: None,
                });
                day.minimum_c = day.minimum_c.min(c);
                day.maximum_c = day.maximum_c.map(|most| most.max(c));
                let sums = sums.entry(date).or_default();
                let known = number(HUMIDITY).filter(|percent| (1.0..=110.0).contains(percent));
                if let Some(percent) = known {
                    add(&mut sums.damp, (percent / 100.0).min(1.0));
                }
                if let Some(wh) = number(SUN).filter(|wh| (0.0..2000.0).contains(wh)) {
                    add(&mut sums.sun, wh / 1000.0);
                }
            }
            _ => found.problem(
                row,
                line,
                say!("this hour has no day or no temperature"),
                say!("give a file as EnergyPlus reads it"),
            ),
        }
    }
    for (date, sums) in sums {
        if let Some(day) = found.days.get_mut(&date) {
            let [hours, damp] = sums.damp;
            day.humidity = (hours > 0.0).then(|| damp / hours);
            let [hours, kwh] = sums.sun;
            // A day of which hours are missing has had less sun than it says.
            day.sun_kwh_m2 = (hours >= DAY_H).then_some(kwh);
        }
    }
}

fn add([hours, sum]: &mut [f64; 2], value: f64) {
    *hours += 1.0;
    *sum += value;
}
