//! Root zones, chambers and humidity against hand calculations, a general solver and psychrolib.

use serde_json::{Value, json};
use sunrise_core::air::{dew_point_c, saturation_pressure_pa, vpd_kpa};
use sunrise_core::warmth::chamber::{ChamberSetUp, VentSlot, stack_flow_m3_s};
use sunrise_core::warmth::root_zone::RootZone;

fn merged(mut base: Value, more: Value) -> Value {
    for (name, value) in more.as_object().unwrap() {
        base[name] = value.clone();
    }
    base
}

/// A standard tray of moist mix, 18 to 15 °C in the room.
fn tray(more: Value) -> RootZone {
    let base = json!({
        "air": {"day_c": 18, "night_c": 15, "humidity": 0.45},
        "tray": {"length_mm": 540, "width_mm": 280},
    });
    serde_json::from_value(merged(base, more)).unwrap()
}

fn mat() -> Value {
    json!({"watts": 18, "length_mm": 510, "width_mm": 240, "cover": 0.81})
}

/// ISO 6946: surface resistances 0.10 up and 0.17 down, an unventilated air layer 0.16 upwards, of it 1.95
/// W/(m²·K) by moving air, which carries vapour to the lid too; R = d/λ for each layer. A steady mat between
/// two series of them divides its heat as they let it.
#[test]
fn steady_states_equal_the_sum_of_layers() {
    let still = json!({"day_c": 16, "night_c": 16, "humidity": 0.45});
    let no_sides = json!({"length_mm": 540, "width_mm": 280, "free_sides": 0});
    for (under, dome, conducts) in [(0.0, true, 0.45), (20.0, true, 0.3), (40.0, false, 0.6)] {
        let mut layers = Vec::new();
        if under > 0.0 {
            layers.push(json!({"thickness_mm": under, "conductivity_w_mk": 0.035}));
        }
        let wetness = if dome { 0.4 } else { 0.0 };
        let setup = tray(json!({
            "air": still, "tray": no_sides, "mat": mat(), "dome": dome, "under": layers,
            "mix": {"depth_mm": 55, "conductivity_w_mk": conducts, "wetness": wetness},
        }));
        let day = setup.day().unwrap();
        let q = 18.0 / (0.510 * 0.240) * 0.81;
        let down = 0.17 + under / 1000.0 / 0.035;
        // Vapour pressure rises by 144 Pa/K at 20 °C (ASHRAE Fundamentals); a lid is 1.4 times its tray.
        let vapour = 0.4 * 1.95 / 66.0 * 144.0;
        let domed = 1.0 / (1.0 / 0.16 + vapour) + 0.10 / 1.4;
        let over = if dome { domed } else { 0.10 };
        let up = 0.03 + 0.055 / conducts + over;
        let mat_c = 16.0 + q / (1.0 / down + 1.0 / up);
        let flow_up = (mat_c - 16.0) / up;
        let roots_c = mat_c - flow_up * (0.03 + 0.0275 / conducts);
        assert!(
            (day.mean_c - roots_c).abs() < 0.1,
            "{} for {roots_c}",
            day.mean_c
        );
        assert!((day.hours.as_ref().unwrap().mat_c[12] - mat_c).abs() < 0.1);
        assert!((day.most_c - day.least_c).abs() < 0.05, "nothing changes");
    }
}

/// scipy's LSODA on the same network, reference/root_zone.py.
#[test]
fn transients_equal_a_general_solvers() {
    let cases: Vec<Value> = serde_json::from_str(include_str!("reference/root_zone.json")).unwrap();
    assert!(cases.len() >= 8);
    for case in cases {
        let setup: RootZone = serde_json::from_value(case["setup"].clone()).unwrap();
        let expected: Vec<f64> = serde_json::from_value(case["root_zone_c"].clone()).unwrap();
        let computed = setup.from_cold(expected.len()).unwrap();
        for (hour, (c, wanted)) in computed.iter().zip(&expected).enumerate() {
            assert!(
                (c - wanted).abs() < 0.2,
                "{} after {} h: {c} for {wanted}",
                case["name"],
                hour + 1
            );
        }
    }
}

#[test]
fn a_thermostat_holds_where_its_probe_is() {
    let with = |thermostat: Value| {
        let setup = tray(json!({
            "mat": mat(), "dome": true, "thermostat": thermostat,
            "under": [{"thickness_mm": 20, "conductivity_w_mk": 0.035}],
        }));
        setup.day().unwrap()
    };
    let in_mix = with(json!({"set_c": 24}));
    assert!(
        in_mix.reaches && (in_mix.mean_c - 24.0).abs() < 0.5,
        "{}",
        in_mix.mean_c
    );
    assert!(in_mix.duty > 0.2 && in_mix.duty < 0.95);
    assert!(in_mix.warm_up_h.unwrap() > 1.0);
    // The dial says 24, the probe switches at 27.
    let wrong = with(json!({"set_c": 24, "dial_error_k": 3}));
    assert!((wrong.mean_c - 27.0).abs() < 0.7, "{}", wrong.mean_c);
    // On the mat it switches off long before the mix is warm.
    let on_mat = with(json!({"set_c": 24, "probe": "mat"}));
    assert!(on_mat.mean_c < in_mix.mean_c - 1.0);
    // In the air of a cool room it never switches off.
    let in_air = with(json!({"set_c": 24, "probe": "air"}));
    assert!(in_air.duty > 0.99 && !in_air.reaches);
}

#[test]
fn what_is_not_reached_is_said_with_what_would_help() {
    let weak = tray(json!({
        "air": {"day_c": 12, "night_c": 8}, "mat": mat(), "thermostat": {"set_c": 26},
    }));
    let day = weak.day().unwrap();
    assert!(!day.reaches && day.warm_up_h.is_none());
    assert!(day.helps.len() >= 3);
    assert!(
        day.helps
            .windows(2)
            .all(|pair| pair[0].gain_k >= pair[1].gain_k)
    );
    assert!(day.helps.iter().any(|help| help.what.text.contains("dome")));
}

#[test]
fn light_warms_and_evaporation_cools() {
    let mean = |more: Value| tray(more).day().unwrap().mean_c;
    let plain = mean(json!({}));
    assert!(
        plain < 16.5,
        "a wet open tray is cooler than the room: {plain}"
    );
    assert!(mean(json!({"dome": true})) > plain);
    let lit = json!({"light": {"ppfd": 250, "from_h": 6, "hours": 16}});
    assert!(mean(lit) > plain + 0.5);
    let dry = json!({"air": {"day_c": 18, "night_c": 15, "humidity": 0.29}});
    assert!(mean(dry) < plain, "dry air takes more");
}

#[test]
fn impossible_physics_is_refused_with_its_path() {
    let refused = |more: Value| tray(more).day().unwrap_err();
    let hot = refused(json!({"mat": {"watts": 5000, "length_mm": 510, "width_mm": 240}}));
    assert_eq!(hot[0].path, "/mat/watts");
    assert!(hot[0].problem.to_string().contains("burn"));
    let negative = refused(json!({"under": [{"thickness_mm": -20, "conductivity_w_mk": 0.035}]}));
    assert_eq!(negative[0].path, "/under/0/thickness_mm");
    let nowhere = json!({"set_c": 24, "probe": "nowhere"});
    let parsed = serde_json::from_value::<RootZone>(json!({
        "air": {"day_c": 18, "night_c": 15}, "tray": {"length_mm": 540, "width_mm": 280},
        "mat": mat(), "thermostat": nowhere,
    }));
    assert!(
        parsed
            .unwrap_err()
            .to_string()
            .contains("unknown variant `nowhere`")
    );
    assert_eq!(
        refused(json!({"thermostat": {"set_c": 24}}))[0].path,
        "/mat"
    );
    assert_eq!(
        refused(json!({"mix": {"wetness": 2}}))[0].path,
        "/mix/wetness"
    );
}

/// A retired proving cabinet, 620 x 570 x 1690 mm inside, 45 mm of wall, 45 W at its foot.
fn cabinet(more: Value) -> ChamberSetUp {
    let base = json!({
        "width_mm": 620, "depth_mm": 570, "height_mm": 1690,
        "walls": [
            {"thickness_mm": 1, "conductivity_w_mk": 50},
            {"thickness_mm": 43, "conductivity_w_mk": 0.038},
            {"thickness_mm": 1, "conductivity_w_mk": 50},
        ],
        "vents": [{"width_mm": 200, "height_mm": 15, "at_mm": 1640}],
        "shelves_mm": [100, 360, 620, 880, 1140, 1400],
        "day_c": 18, "night_c": 15, "wet_kg": 25,
        "heaters": [{"watts": 45, "at_mm": 100}],
        "thermostat": {"set_c": 21, "probe_at_mm": 900},
    });
    serde_json::from_value(merged(base, more)).unwrap()
}

#[test]
fn a_cabinet_is_warmer_on_top_and_cooler_at_the_bottom() {
    let day = cabinet(json!({})).day().unwrap();
    assert!(day.reaches && !day.overheats);
    let means: Vec<f64> = day.shelves.iter().map(|s| s.mean_c).collect();
    assert!(means.is_sorted(), "{means:?}");
    // Common practice, no source: about +1 K at the top and -1 to -3 K at the bottom.
    let probe = means[3];
    assert!((probe - 21.0).abs() < 0.5, "{means:?}");
    assert!((0.3..=1.6).contains(&(means[5] - probe)), "{means:?}");
    assert!((-3.0..=-0.7).contains(&(means[0] - probe)), "{means:?}");
    // By hand: U of the walls 1/(0.13 + 0.043/0.038 + 0.13), of top and bottom with 0.10, 0.17.
    let wool = 0.043 / 0.038 + 0.002 / 50.0;
    let deck = 0.62 * 0.57;
    let by_hand =
        2.0 * (0.62 + 0.57) * 1.69 / (0.26 + wool) + deck / (0.23 + wool) + deck / (0.30 + wool);
    assert!((day.walls_w_k - by_hand).abs() < 0.01, "{}", day.walls_w_k);
    // A fan evens it out.
    let stirred = cabinet(json!({"fan_m3_h": 60})).day().unwrap();
    let spread = |day: &sunrise_core::warmth::chamber::ChamberDay| {
        day.shelves[5].mean_c - day.shelves[0].mean_c
    };
    assert!(spread(&stirred) < 0.5 * spread(&day));
}

/// In a steady state what heats goes out through walls and vents: Q = UA ΔT + ρ c V ΔT.
#[test]
fn a_steady_chamber_is_in_balance() {
    let day = cabinet(json!({
        "day_c": 16, "night_c": 16, "vents": [], "thermostat": null, "fan_m3_h": 2000,
        "heaters": [{"watts": 20, "at_mm": 100}],
    }))
    .day()
    .unwrap();
    let mean = day.shelves.iter().map(|s| s.mean_c).sum::<f64>() / 6.0;
    assert!((mean - 16.0 - 20.0 / day.walls_w_k).abs() < 0.1, "{mean}");
    assert!((day.kwh_per_day - 0.48).abs() < 1e-9);
}

#[test]
fn a_foil_box_with_two_mats_and_no_vents_overheats_and_vents_help() {
    // 10 mm of foil-faced board round a tier, two mats of 45 W; common practice, no source: past
    // 30 °C.
    let box_of = |vents: Value| {
        let setup = json!({
            "width_mm": 1220, "depth_mm": 610, "height_mm": 450,
            "walls": [{"thickness_mm": 10, "conductivity_w_mk": 0.04}],
            "vents": vents, "shelves_mm": [20], "day_c": 18, "night_c": 16, "wet_kg": 7,
            "heaters": [{"watts": 45, "at_mm": 20}, {"watts": 45, "at_mm": 20}],
        });
        let setup: ChamberSetUp = serde_json::from_value(setup).unwrap();
        setup.day().unwrap()
    };
    let shut = box_of(json!([]));
    assert!(shut.overheats && shut.shelves[0].most_c > 30.0);
    assert!(shut.helps.len() >= 3);
    let best = &shut.helps[0];
    assert!(
        best.most_c < shut.shelves[0].most_c - 3.0,
        "{}",
        best.most_c
    );
    let vented = box_of(json!([
        {"width_mm": 200, "height_mm": 20, "at_mm": 30},
        {"width_mm": 200, "height_mm": 20, "at_mm": 420},
    ]));
    assert!(vented.shelves[0].most_c < shut.shelves[0].most_c - 2.0);
}

/// ASHRAE Fundamentals: Q = C_d A √(2 g h ΔT/T), two like openings in series count 1/√2 of one.
#[test]
fn stacks_draw_as_the_handbook_says() {
    let slot = |at_mm: f64| VentSlot {
        width_mm: 200.0,
        height_mm: 20.0,
        at_mm,
    };
    let flow = stack_flow_m3_s(&[slot(100.0), slot(1600.0)], 5.0);
    let by_hand = 0.65 * 0.004 / 2f64.sqrt() * (2.0 * 9.81 * 1.5 * 5.0 / 293.15f64).sqrt();
    assert!((flow / by_hand - 1.0).abs() < 1e-9);
    assert_eq!(stack_flow_m3_s(&[], 5.0), 0.0);
    assert!(stack_flow_m3_s(&[slot(1600.0)], 5.0) < 0.2 * flow);
}

#[test]
fn chambers_that_cannot_be_are_refused_with_their_path() {
    let paths = |more: Value| -> Vec<String> {
        let faults = cabinet(more).day().unwrap_err();
        faults.into_iter().map(|fault| fault.path).collect()
    };
    assert_eq!(
        paths(json!({"heaters": [{"watts": 5000, "at_mm": 0}]})),
        ["/heaters/0/watts"]
    );
    assert_eq!(paths(json!({"shelves_mm": [500, 300]})), ["/shelves_mm/1"]);
    assert_eq!(
        paths(json!({"thermostat": {"set_c": 21, "probe_at_mm": 9000}})),
        ["/thermostat/probe_at_mm"]
    );
    assert_eq!(
        paths(json!({"walls": [{"thickness_mm": 20, "conductivity_w_mk": -1}]})),
        ["/walls/0/conductivity_w_mk"]
    );
}

/// psychrolib 2.5.
#[test]
fn humidity_equals_psychrolib() {
    let mut reader = csv::Reader::from_reader(include_bytes!("reference/psychro.csv").as_slice());
    let mut rows = 0;
    for row in reader.deserialize() {
        let (t_c, rh, saturated, vpd, dew): (f64, f64, f64, f64, f64) = row.unwrap();
        let humidity = rh / 100.0;
        assert!((saturation_pressure_pa(t_c) / saturated - 1.0).abs() < 0.005);
        assert!(
            (vpd_kpa(t_c, humidity) - vpd).abs() <= 0.005 * vpd + 5e-5,
            "{t_c} {rh}"
        );
        let computed = dew_point_c(t_c, humidity).unwrap();
        assert!(
            (computed - dew).abs() <= 0.005 * dew.abs() + 0.02,
            "{t_c} {rh}: {computed}"
        );
        rows += 1;
    }
    assert!(rows > 20);
    assert_eq!(dew_point_c(20.0, 0.0), None);
}
