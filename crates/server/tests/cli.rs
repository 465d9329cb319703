//! The command line of the real binary.

use std::io::Write;
use std::process::{Command, Output, Stdio};

use serde_json::{Value, json};

fn run(arguments: &[&str], input: &str) -> Output {
    let mut process = Command::new(env!("CARGO_BIN_EXE_faint-sunrise"))
        .args(arguments)
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    // A program that refuses its arguments closes the pipe unread.
    let _ = process.stdin.take().unwrap().write_all(input.as_bytes());
    process.wait_with_output().unwrap()
}

fn kettle_fen() -> &'static str {
    concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo/kettle-fen.json")
}

#[test]
fn assess_prints_the_season_in_outline_and_the_fullest_day_or_the_days_asked_for() {
    let assess = |more: &[&str]| -> Value {
        let arguments = [&["assess", kettle_fen()], more].concat();
        serde_json::from_slice(&run(&arguments, "").stdout).unwrap()
    };
    let plain = assess(&[]);
    assert_eq!(plain["season"]["days"].as_array().unwrap().len(), 152);
    assert_eq!(plain["room"].as_array().unwrap().len(), 1);
    assert_eq!(plain["room"][0]["date"], plain["season"]["fullest"]);
    let day = assess(&["--from", "2027-04-09"]);
    assert!(
        !day["room"][0]["bays"][1]["trays"]
            .as_array()
            .unwrap()
            .is_empty()
    );
    // A whole season comes without its trays, and is otherwise the same.
    let whole = assess(&["--from", "2027-01-15", "--to", "2027-06-15"]);
    assert_eq!(whole["room"].as_array().unwrap().len(), 152);
    let then = &whole["room"][84];
    assert_eq!(then["date"], "2027-04-09");
    assert_eq!(then["bays"][1].get("trays"), None);
    assert_eq!(
        then["bays"][1]["light"]["dli"],
        day["room"][0]["bays"][1]["light"]["dli"]
    );
}

#[test]
fn calc_answers_a_list_of_cases_with_a_list_and_names_the_case_at_fault() {
    let case = |width: f64| json!({"deck": {"width_mm": width, "depth_mm": 600}, "sizes": [{"length_mm": 540, "width_mm": 280}]});
    let cases: Vec<Value> = (0..1000).map(|i| case(600.0 + f64::from(i))).collect();
    let output = run(&["calc", "packing"], &json!(cases).to_string());
    let answers: Vec<Value> = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(answers.len(), 1000);
    let alone = run(&["calc", "packing"], &case(1220.0).to_string());
    let alone: Value = serde_json::from_slice(&alone.stdout).unwrap();
    assert_eq!(answers[620], alone);
    let output = run(
        &["calc", "packing"],
        &json!([case(700.0), case(-3.0)]).to_string(),
    );
    let said = String::from_utf8_lossy(&output.stderr);
    assert!(said.contains("/1/deck/width_mm"), "{said}");
    assert!(output.stdout.is_empty());
}

#[test]
fn calc_light_reads_a_scene_and_prints_lux() {
    let scene = r#"{"name": "one strip", "bay": {"width_mm": 1200, "depth_mm": 450, "height_mm": 300},
        "emitters": [{"centre_mm": [600, 225], "height_mm": 25, "length_mm": 1150, "width_mm": 25,
                      "along": "x", "flux_lm": 1600, "beam_exponent": 1}],
        "grid": {"x_mm": [600], "y_mm": [225], "z_mm": 0}}"#;
    let output = run(&["calc", "light"], scene);
    assert!(output.status.success());
    let answer: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(answer["name"], "one strip");
    assert!(answer["direct_lux"][0][0].as_f64().unwrap() > 1000.0);
}

#[test]
fn calc_reckons_warmth_and_emergence() {
    for (model, question, field) in [
        (
            "root-zone",
            r#"{"air": {"day_c": 18, "night_c": 15}, "tray": {"length_mm": 540, "width_mm": 280}}"#,
            "mean_c",
        ),
        (
            "chamber",
            r#"{"width_mm": 600, "depth_mm": 500, "height_mm": 900, "shelves_mm": [50],
                "walls": [{"thickness_mm": 40, "conductivity_w_mk": 0.04}], "day_c": 18, "night_c": 15}"#,
            "walls_w_k",
        ),
        (
            "emergence",
            r#"{"crop": "pea", "root_zone_c": [15, 20]}"#,
            "half_days",
        ),
    ] {
        let output = run(&["calc", model], question);
        assert!(output.status.success(), "{model}");
        let answer: Value = serde_json::from_slice(&output.stdout).unwrap();
        assert!(answer[field].as_f64().unwrap() > 1.0, "{model}: {answer}");
    }
}

#[test]
fn faults_are_said_on_standard_error_and_fail() {
    for (arguments, input, says) in [
        (vec!["calc", "light"], "{", "EOF"),
        (vec!["calc", "light"], "{\"bay\": 3}", "/bay"),
        (
            vec!["assess", "/nowhere.json"],
            "",
            "/nowhere.json cannot be read",
        ),
        (
            vec!["assess", "-"],
            "{\"schema_version\": 1}",
            "missing field",
        ),
        (
            vec![
                "assess",
                kettle_fen(),
                "--from",
                "2028-01-01",
                "--to",
                "2027-01-01",
            ],
            "",
            "/to",
        ),
    ] {
        let output = run(&arguments, input);
        let said = String::from_utf8_lossy(&output.stderr);
        assert!(!output.status.success(), "{arguments:?}");
        assert!(said.contains(says), "{arguments:?}: {said}");
    }
}

#[test]
fn an_address_in_use_is_said_with_a_way_out() {
    let taken = std::net::TcpListener::bind("127.0.0.1:0").unwrap();
    let address = taken.local_addr().unwrap().to_string();
    let data = tempfile::tempdir().unwrap();
    let output = run(
        &[
            "serve",
            "--listen",
            &address,
            "--data",
            data.path().to_str().unwrap(),
        ],
        "",
    );
    let said = String::from_utf8_lossy(&output.stderr);
    assert!(!output.status.success());
    assert!(said.contains("--listen takes another address"), "{said}");
}

#[test]
fn calc_seeds_and_frost_read_standard_input() {
    let output = run(&["calc", "seeds"], r#"{"wanted": 12, "viability": 0.75}"#);
    let sow: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(sow["seeds_per_cell"], 2);
    let days = (0..365).map(|day| {
        let date = jiff::civil::date(2025, 1, 1).saturating_add(jiff::Span::new().days(day));
        format!("{date};{}\n", if day < 120 { "28,4" } else { "50" })
    });
    let table = format!("date;min\n{}", days.collect::<String>());
    let arguments = [
        "calc",
        "frost",
        "--fahrenheit",
        "--latitude",
        "41",
        "--year",
        "2026",
    ];
    let frost: Value = serde_json::from_slice(&run(&arguments, &table).stdout).unwrap();
    assert_eq!(frost["record"]["years"][0]["last"], "2025-04-30");
    assert_eq!(frost["dates"]["p50"], "2026-04-30");
}

#[test]
fn load_and_timer_answer_and_name_what_is_wrong() {
    let question = json!({
        "mains_v": 120,
        "wiring": {"feeds": [
            {"id": "c", "name": "Circuit", "kind": {"circuit": {"breaker_a": 15}}},
            {"id": "s", "name": "Socket", "into": "c", "kind": {"socket": {"outlets": 2}}}
        ]},
        "draws": [{"what": "lamp", "id": "l1", "name": "lamp", "watts": 1500, "plugged": "s",
                   "hours": {"from_h": 6, "to_h": 22}}]
    });
    let output = run(&["calc", "load"], &question.to_string());
    let answer: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(answer["feeds"][0]["limits"][0]["over"], true);
    assert_eq!(answer["all"]["kwh"], 24.0);
    let plan: Value =
        serde_json::from_str(&std::fs::read_to_string(kettle_fen()).unwrap()).unwrap();
    let question = json!({"site": plan["site"], "date": "2027-04-09", "hours": 16, "watts": 100, "step_min": 15});
    let output = run(&["calc", "timer"], &question.to_string());
    let answer: Value = serde_json::from_slice(&output.stdout).unwrap();
    assert_eq!(answer["best"]["quiet_min"], 0);
    assert_eq!(answer["all"].as_array().unwrap().len(), 96);
    let output = run(&["calc", "timer"], &json!({"site": plan["site"], "date": "2027-04-09", "hours": 30, "watts": 100, "step_min": 15}).to_string());
    assert!(!output.status.success());
    let said = String::from_utf8_lossy(&output.stderr);
    assert!(said.contains("/hours"), "{said}");
}
