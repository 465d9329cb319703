//! Day length against pvlib 0.16 (sunrise and sunset with refraction), two days a month at six
//! latitudes.

use sunrise_core::light::daylight::cloudless_mol_m2_d;
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
