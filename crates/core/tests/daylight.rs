//! Day length against pvlib 0.16 (sunrise and sunset with refraction), two days a month at six
//! latitudes.

use sunrise_core::light::daylight::{Sill, cloudless_mol_m2_d};
use sunrise_core::room::Window;
use sunrise_core::site::day_length_h;

/// Latitude, date and all columns of each row of the reference.
fn rows() -> Vec<(f64, jiff::civil::Date, csv::StringRecord)> {
    let mut reader = csv::Reader::from_reader(include_bytes!("reference/daylight.csv").as_slice());
    let rows: Vec<_> = reader
        .records()
        .map(|row| row.unwrap())
        .map(|row| (figure(&row, 0), row[1].parse().unwrap(), row))
        .collect();
    assert!(rows.len() >= 50, "only {} rows are compared", rows.len());
    rows
}

fn figure(row: &csv::StringRecord, column: usize) -> f64 {
    row[column].parse().unwrap()
}

#[test]
fn day_length_is_within_two_minutes_of_pvlib() {
    for (latitude, date, row) in rows() {
        let expected = figure(&row, 2);
        let got = day_length_h(latitude, date);
        assert!(
            (got - expected).abs() < 2.0 / 60.0,
            "{latitude}° on {date}: {got} h, reference {expected} h"
        );
    }
}

#[test]
fn polar_night_and_midnight_sun_are_whole_days() {
    let winter = jiff::civil::date(2027, 12, 21);
    assert_eq!(day_length_h(75.0, winter), 0.0);
    assert_eq!(day_length_h(-75.0, winter), 24.0);
}

#[test]
fn cloudless_daily_light_follows_pvlib() {
    for (latitude, date, row) in rows() {
        let got = cloudless_mol_m2_d(latitude, date);
        // The same model, Haurwitz, and the more detailed one of Ineichen with Linke turbidity 3.
        let (haurwitz, ineichen) = (figure(&row, 5), figure(&row, 4));
        // Refraction, which lifts a very low sun, is left out.
        assert!(
            (got - haurwitz).abs() < (0.02 * haurwitz).max(0.12),
            "{latitude}° on {date}: {got}, {haurwitz}"
        );
        // The two part by more than a tenth only where a low sun gives next to nothing.
        let within = (0.1 * ineichen).max(1.5);
        assert!(
            (got - ineichen).abs() < within,
            "{latitude}° on {date}: {got}, {ineichen}"
        );
    }
}

/// `reference/panes.py`: the sun's place, a clear sky and angles by pvlib, and panes ray by ray.
#[test]
fn light_through_a_pane_is_within_a_tenth_of_pvlibs_in_every_month() {
    let mut reader = csv::Reader::from_reader(include_bytes!("reference/panes.csv").as_slice());
    let mut compared = 0;
    for row in reader.records() {
        let row = row.unwrap();
        let [latitude_deg, azimuth_deg, month, expected] = [0, 1, 2, 3].map(|i| figure(&row, i));
        let window = Window {
            azimuth_deg,
            pane_width_mm: 1000.0,
            pane_height_mm: 1000.0,
            obstruction_deg: 0.0,
        };
        let sill = Sill {
            window,
            width_mm: 1000.0,
            depth_mm: 250.0,
            latitude_deg,
            of_cloudless: 0.5,
        };
        let first = jiff::civil::date(2027, month as i8, 1);
        let days = first.series(jiff::Span::new().days(1));
        let days: Vec<f64> = days
            .take(first.days_in_month() as usize)
            .map(|day| sill.on(day).through_pane_mol_m2_d())
            .collect();
        let got = days.iter().sum::<f64>() / days.len() as f64;
        assert!(
            (got / expected - 1.0).abs() < 0.1,
            "{latitude_deg}° to {azimuth_deg}° in month {month}: {got}, reference {expected}"
        );
        compared += 1;
    }
    assert_eq!(compared, 108);
}
