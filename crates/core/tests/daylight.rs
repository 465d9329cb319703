//! Day length against pvlib 0.16 (sunrise and sunset with refraction), two days a month at six
//! latitudes.

use sunrise_core::site::day_length_h;

#[test]
fn day_length_is_within_two_minutes_of_pvlib() {
    let mut reader = csv::Reader::from_reader(include_bytes!("reference/daylight.csv").as_slice());
    let mut rows = 0;
    for row in reader.records() {
        let row = row.unwrap();
        let latitude: f64 = row[0].parse().unwrap();
        let date: jiff::civil::Date = row[1].parse().unwrap();
        let expected: f64 = row[2].parse().unwrap();
        let got = day_length_h(latitude, date);
        assert!(
            (got - expected).abs() < 2.0 / 60.0,
            "{latitude}° on {date}: {got} h, reference {expected} h"
        );
        rows += 1;
    }
    assert!(rows >= 50, "only {rows} rows were compared");
}

#[test]
fn polar_night_and_midnight_sun_are_whole_days() {
    let winter = jiff::civil::date(2027, 12, 21);
    assert_eq!(day_length_h(75.0, winter), 0.0);
    assert_eq!(day_length_h(-75.0, winter), 24.0);
}
