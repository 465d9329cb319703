//! Whatever stands in a plan, checking it names the fault and assessing a sound one never panics.

use serde_json::{Value, json};
use sunrise_core::ask::assess;
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::detail::Detail;
use sunrise_core::plan::Plan;
use sunrise_core::testing::KETTLE_FEN;

/// Every leaf of a document, by its pointer.
fn leaves(value: &Value, at: String, into: &mut Vec<String>) {
    match value {
        Value::Object(map) => {
            for (key, child) in map {
                leaves(child, format!("{at}/{key}"), into);
            }
        }
        Value::Array(list) => {
            for (i, child) in list.iter().enumerate() {
                leaves(child, format!("{at}/{i}"), into);
            }
        }
        _ => into.push(at),
    }
}

fn nasty(rng: &mut fastrand::Rng) -> Value {
    match rng.u32(0..18) {
        0 => json!(0),
        1 => json!(-1),
        2 => json!(1e308),
        3 => json!(-1e-308),
        4 => json!(f64::MIN_POSITIVE),
        5 => json!(rng.f64() * 10f64.powi(rng.i32(-3..6))),
        6 => json!(rng.u32(0..50)),
        7 => json!(""),
        8 => json!("x".repeat(500)),
        9 => json!("{braces} and \u{202e}"),
        10 => json!("9999-12-31"),
        11 => json!("-009999-01-01"),
        12 => json!("2027-04-09"),
        13 => Value::Null,
        14 => json!(true),
        15 => json!([]),
        16 => json!("grow"),
        _ => json!("t1"),
    }
}

#[test]
fn mutated_plans_are_refused_by_path_or_assessed() {
    // `MUTANTS=20000 cargo test -p sunrise-core --test hostile_plans` tries more.
    let mutants = std::env::var("MUTANTS").ok().and_then(|n| n.parse().ok());
    let mutants: usize = mutants.unwrap_or(2000);
    let mut longest = (std::time::Duration::ZERO, String::new());
    let demo: Value = serde_json::from_str(KETTLE_FEN).unwrap();
    let mut paths = Vec::new();
    leaves(&demo, String::new(), &mut paths);
    let mut rng = fastrand::Rng::with_seed(7);
    let (mut unread, mut refused, mut assessed) = (0, 0, 0);
    for _ in 0..mutants {
        let began = std::time::Instant::now();
        let mut changed = String::new();
        let mut document = demo.clone();
        for _ in 0..rng.usize(1..3) {
            let path = &paths[rng.usize(..paths.len())];
            let value = nasty(&mut rng);
            changed += &format!("{path} = {value:.60} ");
            *document.pointer_mut(path).unwrap() = value;
        }
        let Ok(plan) = serde_json::from_value::<Plan>(document) else {
            unread += 1;
            continue;
        };
        let season = plan.season;
        match plan.check() {
            Err(faults) => {
                refused += 1;
                for fault in faults {
                    assert!(fault.path.starts_with('/'), "{fault}");
                    assert!(!fault.to_string().is_empty());
                }
            }
            Ok(plan) => {
                assessed += 1;
                let day = season.clamp("2027-04-20".parse().unwrap());
                let assessment = assess(&plan, DateSpan::day(day), Detail::All);
                let json = serde_json::to_string(&assessment).unwrap();
                // serde_json writes numbers that are none as null; no figure may be one.
                for figure in [
                    "\"mean\":null",
                    "\"worst\":null",
                    "\"value\":null",
                    "\"amps\":null",
                ] {
                    assert!(!json.contains(figure), "{figure}");
                }
                for finding in &assessment.findings {
                    assert!(!finding.reason.to_string().is_empty());
                }
            }
        }
        if began.elapsed() > longest.0 {
            longest = (began.elapsed(), changed);
        }
    }
    println!(
        "{unread} unread, {refused} refused, {assessed} assessed; the longest took {longest:?}"
    );
    // A server gives up long before; a test machine may be busy.
    assert!(longest.0.as_secs() < 20, "{longest:?}");
    // Each outcome must have been tried often, or the test says nothing.
    assert!(
        unread > 300 && refused > 100 && assessed > 100,
        "{unread} {refused} {assessed}"
    );
}

#[test]
fn an_empty_room_and_a_plan_without_sowings_are_fine() {
    for emptied in ["/trays", "/sowings", "/places"] {
        let mut demo: Value = serde_json::from_str(KETTLE_FEN).unwrap();
        // What names what was emptied goes too.
        for path in match emptied {
            "/trays" => vec!["/trays"],
            "/sowings" => vec!["/trays", "/sowings"],
            _ => vec!["/trays", "/places"],
        } {
            *demo.pointer_mut(path).unwrap() = json!([]);
        }
        let plan: Plan = serde_json::from_value(demo).unwrap();
        let plan = plan.check().unwrap();
        let assessment = assess(&plan, plan.season, Detail::Outline);
        assert!(assessment.room.iter().all(|day| day.power.watts == 0.0));
    }
}
