//! Every fault of a plan is named by its path, with its value and a remedy.

use serde_json::{Value, json};
use sunrise_core::basis::fault::Fault;
use sunrise_core::plan::Plan;
use sunrise_core::testing::KETTLE_FEN;

fn faults_of(changes: &[(&str, Value)]) -> Vec<Fault> {
    let mut document: Value = serde_json::from_str(KETTLE_FEN).unwrap();
    for (path, value) in changes {
        let (parent, field) = path.rsplit_once('/').unwrap();
        let parent = document
            .pointer_mut(parent)
            .unwrap_or_else(|| panic!("no {path}"));
        match parent {
            Value::Array(list) => list[field.parse::<usize>().unwrap()] = value.clone(),
            parent => parent[field] = value.clone(),
        }
    }
    let plan: Plan = serde_json::from_value(document).unwrap();
    plan.check().expect_err("the plan has a fault")
}

#[test]
fn each_fault_is_found_at_its_path() {
    let tier = "/places/0/tiers/1";
    let lamp = format!("{tier}/lamps/0");
    let cases = [
        ("/schema_version".to_owned(), json!(7)),
        ("/name".into(), json!(" ")),
        ("/site/latitude_deg".into(), json!(91)),
        ("/site/time_zone".into(), json!("Mars/Olympus")),
        ("/site/mains_v".into(), json!(12)),
        ("/site/price_per_kwh".into(), json!(-0.1)),
        ("/site/currency".into(), json!("euro")),
        ("/site/last_frost".into(), json!("2031-05-06")),
        ("/site/air/night_c".into(), json!(60)),
        ("/season/to".into(), json!("2026-01-01")),
        ("/places/0/width_mm".into(), json!(0)),
        (format!("{tier}/deck_height_mm"), json!(130)),
        (format!("{tier}/deck_height_mm"), json!(1e9)),
        (format!("{tier}/photoperiod_h"), json!(25)),
        (format!("{lamp}/height_mm"), json!(400)),
        (format!("{lamp}/height_mm"), json!(-3)),
        (format!("{lamp}/body_height_mm"), json!(450)),
        (format!("{lamp}/watts"), json!(-36)),
        (format!("{lamp}/flux_lm"), json!(1e12)),
        (format!("{lamp}/beam_deg"), json!(180)),
        (format!("{lamp}/emitters"), json!([])),
        (format!("{lamp}/emitters/0/width_mm"), json!(0)),
        ("/tray_formats/0/columns".into(), json!(0)),
        ("/room/door/width_mm".into(), json!(5)),
        ("/places/0/kind/rack/pitch_mm".into(), json!(0)),
        ("/places/0/deck/rating_kg".into(), json!(-4)),
        ("/places/0/empty_kg".into(), json!(1e7)),
        ("/places/0/spot/x_mm".into(), json!(-10)),
        ("/places/2/kind/chamber/walls".into(), json!([])),
        (
            "/places/2/kind/chamber/walls/1/conductivity_w_mk".into(),
            json!(0),
        ),
        ("/places/2/kind/chamber/vents/0/at_mm".into(), json!(90_000)),
        ("/places/4/kind/window/azimuth_deg".into(), json!(400)),
        ("/places/0/tiers/2/mats/0/x_mm".into(), json!(400)),
        ("/places/0/tiers/2/mats/0/thermostat_c".into(), json!(90)),
        ("/places/0/tiers/2/fans/0/diameter_mm".into(), json!(590)),
        ("/places/0/tiers/2/fans/0/height_mm".into(), json!(5)),
        ("/places/2/tiers/4/lamps/0/x_mm".into(), json!(100)),
        ("/tray_formats/0/wet_kg".into(), json!(-1)),
        ("/tray_formats/0/dome_height_mm".into(), json!(1e6)),
        ("/trays/0/parts".into(), json!([])),
        ("/trays/0/parts/0/columns".into(), json!([4, 13])),
        ("/sowings/0/crop".into(), json!("triffid")),
        ("/sowings/0/wanted".into(), json!(0)),
        ("/sowings/0/root_zone_c".into(), json!(80)),
        ("/trays/0/parts/0/sowing".into(), json!("nobody")),
        ("/trays/0/format".into(), json!("bathtub")),
        (
            "/trays/0/stands/0/bay".into(),
            json!({"place": "door", "tier": "t9"}),
        ),
        (
            "/trays/0/stands/0/bay".into(),
            json!({"place": "door", "tier": "t5"}),
        ),
        ("/trays/0/stands/0/x_mm".into(), json!(1200)),
        ("/trays/0/stands/0/stage".into(), json!("out")),
    ];
    for (path, value) in cases {
        let faults = faults_of(&[(&path, value.clone())]);
        let fault = faults.iter().find(|fault| fault.path == path);
        let fault = fault.unwrap_or_else(|| panic!("{path} = {value}: {faults:?}"));
        assert!(!fault.problem.to_string().is_empty(), "{path}");
        assert!(!fault.remedy.to_string().is_empty(), "{path}");
    }
}

#[test]
fn faults_of_air_and_water_name_the_figure_that_is_wrong() {
    let cases: Vec<(String, Value)> = vec![
        ("/places/0/tiers/2/fans/0/speeds_m3_h".into(), json!([9000])),
        ("/places/0/tiers/2/fans/0/by_turns".into(), json!(["attic"])),
        (
            "/places/0/tiers/2/vents".into(),
            json!([{"width_mm": 0, "height_mm": 20, "at_mm": 100}]),
        ),
        (
            "/places/2/airing".into(),
            json!({"gap_mm": 0, "from_h": 8, "hours": 12}),
        ),
        (
            "/places/2/airing".into(),
            json!({"gap_mm": 50, "from_h": 8, "hours": 30}),
        ),
        (
            "/places/2/airing".into(),
            json!({"gap_mm": 50, "from_h": 8, "hours": 12, "over_c": 90}),
        ),
        (
            "/places/2/settings".into(),
            json!([{"from": "2027-04-01", "airing": {"gap_mm": -5, "from_h": 8, "hours": 12}}]),
        ),
        ("/site/first_frost".into(), json!("2027-05-20")),
        ("/site/first_frost".into(), json!("2029-10-12")),
        (
            "/site/envelope".into(),
            json!({"walls": "usual", "humidified": 1.4}),
        ),
        ("/tray_formats/0/reservoir_ml".into(), json!(0)),
    ];
    for (path, value) in cases {
        let faults = faults_of(&[(&path, value.clone())]);
        let fault = faults.iter().find(|fault| fault.path.starts_with(&path));
        let fault = fault.unwrap_or_else(|| panic!("{path} = {value}: {faults:?}"));
        assert!(!fault.remedy.to_string().is_empty(), "{path}");
        assert_eq!(faults.len(), 1, "{path}: {faults:?}");
    }
}

#[test]
fn several_faults_come_together() {
    let faults = faults_of(&[
        ("/site/latitude_deg", json!(-120)),
        ("/places/0/tiers/0/lamps/0/watts", json!(-1)),
        ("/trays/1/parts/0/sowing", json!("nobody")),
    ]);
    let paths: Vec<&str> = faults.iter().map(|f| f.path.as_str()).collect();
    assert_eq!(
        paths,
        [
            "/site/latitude_deg",
            "/places/0/tiers/0/lamps/0/watts",
            "/trays/1/parts/0/sowing"
        ]
    );
}

#[test]
fn a_lamp_above_its_ceiling_is_told_how_high_it_may_hang() {
    let faults = faults_of(&[("/places/0/tiers/1/lamps/0/height_mm", json!(400))]);
    assert_eq!(
        faults[0].to_string(),
        "/places/0/tiers/1/lamps/0/height_mm: a lamp at 400 mm would stick through the \
         shelf above, which is 435 mm up; hang its emitting face at 390 mm or lower"
    );
}

#[test]
fn cells_are_sown_once() {
    let parts = json!([
        {"sowing": "onion", "columns": [0, 7]},
        {"sowing": "celery", "columns": [6, 12]}
    ]);
    let faults = faults_of(&[("/trays/0/parts", parts)]);
    assert_eq!(faults[0].path, "/trays/0/parts/1");
}

#[test]
fn two_things_of_one_name_are_told_apart() {
    let faults = faults_of(&[("/trays/1/id", json!("on1"))]);
    assert_eq!(faults[0].path, "/trays/1/id");
}

#[test]
fn numbers_that_are_none_are_refused_in_code_too() {
    let mut plan: Plan = serde_json::from_str(KETTLE_FEN).unwrap();
    plan.site.latitude_deg = f64::NAN;
    assert_eq!(plan.check().unwrap_err()[0].path, "/site/latitude_deg");
}

#[test]
fn misspelt_fields_are_not_swallowed() {
    let text = KETTLE_FEN.replace("mains_v", "mains_w");
    let error = serde_json::from_str::<Plan>(&text).unwrap_err().to_string();
    assert!(error.contains("unknown field `mains_w`"), "{error}");
}

/// A packet that is without fault, with `field` as it should not be.
fn packet(field: &str, value: Value) -> Value {
    let mut packet = json!({
        "id": "p", "crop": "basil", "variety": "Lamp Green", "year": 2026, "source": "bought",
        "cold": false
    });
    packet[field] = value;
    packet
}

#[test]
fn packets_crops_frosts_and_days_away_are_named_too() {
    let basil = sunrise_core::crops::library().get("basil").unwrap();
    let crop = |field: &str, value: Value| {
        let mut crop = serde_json::to_value(basil).unwrap();
        crop[field] = value;
        json!([crop])
    };
    let frost = |field: &str, value: Value| {
        let mut record = json!({
            "name": "garden", "threshold_c": 0, "caution": "even",
            "years": [{"year": 2020, "last": "2020-05-01"}]
        });
        record[field] = value;
        record
    };
    let away = |from: &str, to: &str| json!([{"from": from, "to": to}]);
    let cases: Vec<(&str, Value, &str)> = vec![
        (
            "/packets",
            json!([packet("crop", json!("triffid"))]),
            "/packets/0/crop",
        ),
        (
            "/packets",
            json!([packet("year", json!(1066))]),
            "/packets/0/year",
        ),
        (
            "/packets",
            json!([packet("stated", json!(1.4))]),
            "/packets/0/stated",
        ),
        (
            "/packets",
            json!([packet("variety", json!(" "))]),
            "/packets/0/variety",
        ),
        (
            "/packets",
            json!([packet("test", json!({"sprouted": 12, "of": 10}))]),
            "/packets/0/test/sprouted",
        ),
        (
            "/packets",
            json!([packet("test", json!({"sprouted": 0, "of": 0}))]),
            "/packets/0/test/of",
        ),
        (
            "/crops",
            crop("weeks_indoors", json!(0)),
            "/crops/0/weeks_indoors",
        ),
        ("/crops", crop("losses", json!(1)), "/crops/0/losses"),
        (
            "/crops",
            crop("root_zone_c", json!(2)),
            "/crops/0/root_zone_c",
        ),
        (
            "/crops",
            crop("emergence", json!("no such row")),
            "/crops/0/emergence",
        ),
        (
            "/crops",
            crop(
                "emergence",
                json!({"base_c": 30, "best_c": 20, "upper_c": 25, "days_at_best": 5}),
            ),
            "/crops/0/emergence",
        ),
        (
            "/crops",
            crop("plants_per_cell", json!(0)),
            "/crops/0/plants_per_cell",
        ),
        (
            "/site/frost",
            frost("threshold_c", json!(20)),
            "/site/frost/threshold_c",
        ),
        (
            "/site/frost",
            frost("years", json!([])),
            "/site/frost/years",
        ),
        (
            "/site/frost",
            frost("years", json!([{"year": 2020, "last": "1999-05-01"}])),
            "/site/frost/years/0/last",
        ),
        ("/away", away("2027-04-09", "2027-04-08"), "/away/0/to"),
        ("/away", away("2027-04-09", "2027-09-09"), "/away/0/to"),
        ("/sowings/0/shift_days", json!(900), "/sowings/0/shift_days"),
        (
            "/sowings/0/packet_weeks",
            json!(0),
            "/sowings/0/packet_weeks",
        ),
        ("/sowings/0/packet", json!("nowhere"), "/sowings/0/packet"),
        // A packet of another crop.
        ("/sowings/0/packet", json!("beet-25"), "/sowings/0/packet"),
        ("/sowings/0/sure", json!(1), "/sowings/0/sure"),
        ("/sowings/0/spare", json!(-1), "/sowings/0/spare"),
        (
            "/sowings/0/seeds_per_cell",
            json!(0),
            "/sowings/0/seeds_per_cell",
        ),
        (
            "/sowings/0/stays",
            json!({"from": "2027-04-09", "to": "2027-04-08"}),
            "/sowings/0/stays/to",
        ),
        (
            "/places/0/tiers/2/mats/0/hysteresis_k",
            json!(0),
            "/places/0/tiers/2/mats/0/hysteresis_k",
        ),
        (
            "/places/0/tiers/2/mats/0/dial_error_k",
            json!(40),
            "/places/0/tiers/2/mats/0/dial_error_k",
        ),
        (
            "/places/0/tiers/2/mats/0/pad_mm",
            json!(0),
            "/places/0/tiers/2/mats/0/pad_mm",
        ),
        (
            "/places/2/kind/chamber/probe_mm",
            json!(-5),
            "/places/2/kind/chamber/probe_mm",
        ),
        (
            "/places/2/kind/chamber/limit_c",
            json!(200),
            "/places/2/kind/chamber/limit_c",
        ),
    ];
    for (at, value, path) in cases {
        let faults = faults_of(&[(at, value.clone())]);
        let fault = faults
            .iter()
            .find(|fault| fault.path == path)
            .unwrap_or_else(|| panic!("{at} = {value}: {faults:?}"));
        assert!(!fault.remedy.to_string().is_empty());
    }
}
