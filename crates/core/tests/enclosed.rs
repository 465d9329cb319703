//! Air under glass and in closed boxes against a general solver.

use serde_json::Value;
use sunrise_core::warmth::chamber::ChamberSetUp;
use sunrise_core::warmth::enclosed::EnclosedAir;

/// The cases of reference/enclosed.py, with scipy's air in °C and humidity at each hour of two days.
fn cases(of: &str) -> Vec<(String, Value, Vec<f64>, Vec<f64>)> {
    let all: Value = serde_json::from_str(include_str!("reference/enclosed.json")).unwrap();
    let cases = all[of].as_array().unwrap();
    let list =
        |case: &Value, of: &str| -> Vec<f64> { serde_json::from_value(case[of].clone()).unwrap() };
    let each = cases.iter().map(|case| {
        let name = case["name"].as_str().unwrap().to_owned();
        let set_up = case["set_up"].clone();
        (name, set_up, list(case, "air_c"), list(case, "humidity"))
    });
    each.collect()
}

fn agrees(name: &str, hour: usize, air_c: [f64; 2], humidity: [f64; 2]) {
    let off = [air_c[0] - air_c[1], 100.0 * (humidity[0] - humidity[1])];
    assert!(
        off[0].abs() < 0.2 && off[1].abs() < 2.0,
        "{name} after {hour} h: {off:?} off {} °C and {}",
        air_c[1],
        humidity[1]
    );
}

/// scipy's LSODA on the same equations: two days from what is outdoors at midnight.
#[test]
fn two_days_under_glass_equal_a_general_solvers() {
    let cases = cases("under_glass");
    assert_eq!(cases.len(), 12);
    for (name, set_up, air_c, humidity) in cases {
        let set_up: EnclosedAir = serde_json::from_value(set_up).unwrap();
        // The first state is that of midnight.
        let computed = set_up.through(set_up.as_outdoors(), air_c.len());
        for hour in 0..air_c.len() {
            let state = &computed[hour + 1];
            let air = [state.air_c, air_c[hour]];
            agrees(&name, hour + 1, air, [state.humidity(), humidity[hour]]);
        }
    }
}

/// The same of rooms that their lamps warm.
#[test]
fn two_days_in_a_room_with_lamps_equal_a_general_solvers() {
    let cases = cases("rooms");
    assert_eq!(cases.len(), 6);
    for (name, set_up, air_c, humidity) in cases {
        let set_up: EnclosedAir = serde_json::from_value(set_up).unwrap();
        let computed = set_up.through(set_up.as_outdoors(), air_c.len());
        for hour in 0..air_c.len() {
            let state = &computed[hour + 1];
            let air = [state.air_c, air_c[hour]];
            agrees(&name, hour + 1, air, [state.humidity(), humidity[hour]]);
        }
    }
}

/// The same of boxes with one shelf, when each day is like the last.
#[test]
fn two_days_in_a_closed_box_equal_a_general_solvers() {
    let cases = cases("boxes");
    assert_eq!(cases.len(), 6);
    for (name, set_up, air_c, humidity) in cases {
        let set_up: ChamberSetUp = serde_json::from_value(set_up).unwrap();
        let day = set_up.day().unwrap();
        let shelf = &day.shelves[0];
        for hour in 0..air_c.len() {
            let air = [shelf.air_c[hour % 24], air_c[hour]];
            agrees(
                &name,
                hour,
                air,
                [shelf.humidity[hour % 24], humidity[hour]],
            );
        }
        assert!(
            day.gives_off_l > 0.0 && day.dew_l < day.gives_off_l,
            "{name}"
        );
    }
}
