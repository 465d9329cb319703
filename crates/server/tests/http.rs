//! The HTTP interface of the real binary: edits, history, and what it says to bad input.

mod running;

use running::{Answer, Server, demo, server};
use serde_json::{Value, json};

fn save(server: &Server, base: i64, plan: &Value) -> Answer {
    let edit = json!({"base_revision": base, "word": "moved a lamp", "plan": plan});
    server.send("POST", "/api/plans/1/revisions", &edit.to_string())
}

#[test]
fn an_edit_is_kept_undone_and_redone() {
    let (_data, server) = server();
    let first = server.get("/api/plans/1").json();
    assert_eq!(first["plan"], demo());
    let mut plan = first["plan"].clone();
    plan["places"][0]["tiers"][1]["lamps"][0]["height_mm"] = json!(180);
    let saved = save(&server, 1, &plan);
    assert_eq!(saved.status, 201, "{saved:?}");
    let step = |base: i64, step: Value| {
        let body = json!({"base_revision": base, "step": step}).to_string();
        server.send("POST", "/api/plans/1/step", &body).json()
    };
    let undone = step(2, json!("undo"));
    assert_eq!(undone["plan"], first["plan"]);
    assert_eq!(undone["redo"], "moved a lamp");
    assert_eq!(step(1, json!("redo"))["revision"], 2);
    assert_eq!(step(2, json!({"to": 1}))["revision"], 1);
    let history = server.get("/api/plans/1/revisions").json();
    assert_eq!(history[0]["undone"], true);
    assert_eq!(history[1]["current"], true);
}

#[test]
fn a_conflict_says_where_the_plan_is_and_changes_nothing() {
    let (_data, server) = server();
    let mut first = demo();
    first["name"] = json!("first");
    assert_eq!(save(&server, 1, &first).status, 201);
    let mut second = demo();
    second["name"] = json!("second");
    let late = save(&server, 1, &second);
    assert_eq!(
        (late.status, late.kind.as_str()),
        (409, "application/problem+json")
    );
    assert_eq!(late.json()["current_revision"], 2);
    assert_eq!(late.json()["faults"][0]["path"], "/plan/name");
    assert_eq!(server.get("/api/plans/1").json()["plan"], first);
}

#[test]
fn the_air_outdoors_and_in_rooms_with_lamps_is_told_month_by_month() {
    let (_data, server) = server();
    let year = server.get("/api/plans/1/outdoors").json();
    assert_eq!(year["months"].as_array().unwrap().len(), 12);
    let (january, july) = (&year["months"][0], &year["months"][6]);
    assert!(january["night_c"].as_f64() < july["night_c"].as_f64());
    let covered = year["covered"].as_array().unwrap();
    assert_eq!(covered[0]["place"], "frame");
    assert!(
        covered[0]["months"][3]["most_c"].as_f64() > covered[0]["months"][3]["least_c"].as_f64()
    );
    // Nobody said what the walls are like.
    assert_eq!(server.get("/api/plans/1/lit-rooms").json(), json!([]));
    let mut plan = demo();
    plan["site"]["envelope"] = json!({"walls": "usual"});
    assert_eq!(save(&server, 1, &plan).status, 201);
    let rooms = server.get("/api/plans/1/lit-rooms").json();
    assert_eq!(
        (rooms.as_array().unwrap().len(), &rooms[0]["room"]),
        (1, &Value::Null)
    );
    let from = rooms[0]["from"].as_array().unwrap();
    let warmer = |step: &Value| step["air"]["day_c"].as_f64() > step["dark"]["day_c"].as_f64();
    assert!(from.len() > 3 && from.iter().any(warmer), "{from:?}");
    // What is kept is what was typed.
    assert_eq!(server.get("/api/plans/1").json()["plan"], plan);
    plan["site"]["envelope"] = json!({"walls": "paper"});
    let bad = save(&server, 2, &plan);
    assert!((400..500).contains(&bad.status), "{bad:?}");
    assert_eq!(server.get("/api/plans/9/lit-rooms").status, 404);
}

#[test]
fn water_is_told_week_by_week() {
    let (_data, server) = server();
    let water = server.get("/api/plans/1/water?on=2027-04-09").json();
    assert_eq!(water["date"], "2027-04-09");
    let trays = water["trays"].as_array().unwrap();
    assert!(trays.len() > 5 && water["weeks"].as_array().unwrap().len() > 4);
    let light = |tray: &Value| tray["light_kg"].as_f64() < tray["wet_kg"].as_f64();
    assert!(trays.iter().all(light), "{trays:?}");
    let bad = server.get("/api/plans/1/water?on=someday");
    assert!((400..500).contains(&bad.status), "{bad:?}");
    assert_eq!(server.get("/api/plans/9/water").status, 404);
    // Far from the season nothing stands there.
    let winter = server.get("/api/plans/1/water?on=2031-01-01").json();
    assert_eq!(
        (&winter["trays"], &winter["weeks"]),
        (&json!([]), &json!([]))
    );
}

#[test]
fn what_if_answers_and_keeps_nothing() {
    let (_data, server) = server();
    let mut plan = demo();
    let what_if = |plan: &Value| {
        let body = json!({"plan": plan, "from": "2027-04-09", "to": "2027-04-09"});
        server.send("POST", "/api/assess", &body.to_string()).json()
    };
    let mean = |a: &Value| {
        a["room"][0]["bays"][1]["light"]["ppfd"]["mean"]
            .as_f64()
            .unwrap()
    };
    let before = what_if(&plan);
    for lamp in plan["places"][0]["tiers"][1]["lamps"]
        .as_array_mut()
        .unwrap()
    {
        lamp["height_mm"] = json!(350);
    }
    let after = what_if(&plan);
    assert!(mean(&after) < mean(&before));
    assert_eq!(server.get("/api/plans/1").json()["revision"], 1);
}

/// Every refusal: a 4xx problem+json that names field, value and remedy, after which the plan is
/// as it was.
#[test]
fn bad_input_is_refused_by_name_and_changes_nothing() {
    let (_data, server) = server();
    let edit = |path: &str, value: Value| {
        let mut plan = demo();
        *plan.pointer_mut(path).unwrap() = value;
        json!({"base_revision": 1, "word": "x", "plan": plan}).to_string()
    };
    let lamp = "/places/0/tiers/1/lamps/0";
    let whole = edit("/name", json!("fine"));
    let not_a_number = whole.replacen("\"watts\":64.0", "\"watts\":NaN", 1);
    assert_ne!(whole, not_a_number);
    let infinite = whole.replacen("\"watts\":64.0", "\"watts\":1e999", 1);
    let cases = [
        (
            "negative watts",
            422,
            edit(&format!("{lamp}/watts"), json!(-5)),
            format!("{lamp}/watts"),
        ),
        (
            "through the ceiling",
            422,
            edit(&format!("{lamp}/height_mm"), json!(900)),
            format!("{lamp}/height_mm"),
        ),
        (
            "unknown crop",
            422,
            edit("/sowings/0/crop", json!("triffid")),
            "/sowings/0/crop".into(),
        ),
        (
            "no date",
            422,
            edit("/site/last_frost", json!("maybe May")),
            "/plan/site/last_frost".into(),
        ),
        (
            "text for a number",
            422,
            edit(&format!("{lamp}/watts"), json!("lots")),
            format!("/plan{lamp}/watts"),
        ),
        (
            "NaN",
            400,
            not_a_number,
            "/plan/places/0/tiers/0/lamps/0/watts".into(),
        ),
        (
            "infinite",
            400,
            infinite,
            "/plan/places/0/tiers/0/lamps/0/watts".into(),
        ),
        ("no plan", 422, "{}".into(), String::new()),
        ("not JSON", 400, "hello".into(), String::new()),
        ("nothing", 400, String::new(), String::new()),
        ("cut off", 400, whole[..900].into(), "/plan".into()),
        (
            "no word",
            422,
            whole.replacen("\"word\":\"x\"", "\"word\":\"\"", 1),
            "/word".into(),
        ),
        (
            "an unknown field",
            422,
            whole.replacen("\"word\"", "\"wrod\"", 1),
            "/wrod".into(),
        ),
        ("too deep", 400, "[".repeat(100_000), String::new()),
    ];
    for (what, status, body, path) in cases {
        let answer = server.send("POST", "/api/plans/1/revisions", &body);
        assert_eq!(answer.status, status, "{what}: {answer:?}");
        assert_eq!(answer.kind, "application/problem+json", "{what}");
        let problem = answer.json();
        let fault = &problem["faults"][0];
        let found = fault["path"].as_str().unwrap();
        assert!(found.starts_with(&path), "{what}: {found} is not {path}");
        assert!(fault.get("value").is_some(), "{what}");
        assert!(
            fault["remedy"]["text"]
                .as_str()
                .is_some_and(|t| !t.is_empty()),
            "{what}"
        );
    }
    assert_eq!(server.get("/api/plans/1").json()["revision"], 1);
}

#[test]
fn fifty_megabytes_are_refused_politely() {
    let (_data, server) = server();
    let body = vec![b' '; 50 << 20];
    let answer = server
        .try_send("POST", "/api/assess", "application/json", &body)
        .expect("the refusal is readable");
    assert_eq!(answer.status, 413);
    assert_eq!(answer.json()["faults"][0]["value"], 50 << 20);
    let text = server
        .try_send("POST", "/api/calc/photometry", "text/plain", &body)
        .expect("the refusal is readable");
    assert_eq!(
        (text.status, text.kind.as_str()),
        (413, "application/problem+json")
    );
    assert_eq!(server.get("/healthz").status, 200);
}

#[test]
fn wrong_addresses_methods_and_types_are_problems_too() {
    let (_data, server) = server();
    for (method, path, status) in [
        ("GET", "/api/plans/77", 404),
        ("GET", "/api/plans/first", 404),
        ("GET", "/api/nothing", 404),
        ("GET", "/_app/missing.js", 404),
        ("GET", "/api/plans/%ff", 404),
        ("GET", "/api/plans/1/revisions/%c3%28", 404),
        ("GET", "/api/plans/1?on=soon", 422),
        ("PUT", "/api/plans/1", 405),
        ("POST", "/api/calc/photometry", 422),
    ] {
        let answer = server.send(method, path, "");
        assert_eq!(
            (answer.status, answer.kind.as_str()),
            (status, "application/problem+json"),
            "{method} {path}"
        );
    }
    let form = server
        .try_send("POST", "/api/assess", "text/plain", b"{}")
        .unwrap();
    assert_eq!(form.status, 415);
    let scene = json!({"bay": {"width_mm": 100, "depth_mm": 100, "height_mm": 100},
        "emitters": [], "grid": {"x_mm": [1], "y_mm": [1], "z_mm": 0}});
    let dark = server.send("POST", "/api/calc/light", &scene.to_string());
    assert_eq!(dark.status, 422);
    assert_eq!(dark.json()["faults"][0]["path"], "/emitters");
}

#[test]
fn the_interface_describes_itself() {
    let (_data, server) = server();
    let document = server.get("/api/openapi.json").json();
    assert!(document["paths"].as_object().unwrap().len() >= 10);
    assert_eq!(server.get("/healthz").json()["status"], "ok");
    let crops = server.get("/api/crops").json();
    assert!(crops["crops"].as_array().unwrap().len() >= 94);
    assert!(crops["sources"]["losses"].is_string());
}

#[test]
fn the_form_of_a_plan_is_edited_and_nothing_is_kept_until_it_is_saved() {
    let (_data, server) = server();
    let kinds = server.get("/api/kinds").json();
    let kind = kinds["places"][0]["id"].clone();
    let ask = |edit: Value| {
        let body = json!({"plan": demo(), "edit": edit}).to_string();
        server.send("POST", "/api/edit", &body)
    };
    let edited = ask(json!({"add_place": {"kind": kind}}));
    assert_eq!(edited.status, 200, "{edited:?}");
    let edited = edited.json();
    let places = |plan: &Value| plan["places"].as_array().unwrap().len();
    assert_eq!(places(&edited["plan"]), places(&demo()) + 1);
    assert_eq!(edited["made"].as_array().unwrap().len(), 1);
    assert_eq!(server.get("/api/plans/1").json()["revision"], 1);
    assert_eq!(save(&server, 1, &edited["plan"]).status, 201);
    for (edit, path) in [
        (json!({"add_place": {"kind": "attic"}}), "/kind"),
        (json!({"remove": {"things": []}}), "/things"),
        (json!({"paint": {}}), "/edit"),
    ] {
        let refused = ask(edit.clone());
        assert_eq!(refused.status, 422, "{edit}: {refused:?}");
        let refused = refused.json();
        let found = refused["faults"][0]["path"].as_str().unwrap();
        assert!(found.starts_with(path), "{edit}: {found}");
    }
}

#[test]
fn a_plan_file_of_version_2_is_taken_in_though_all_its_fields_are_known_today() {
    let (_data, server) = server();
    let old = include_str!("../../core/fixtures/kettle-fen-v2.json");
    let body = format!("{{\"plan\": {old}, \"word\": \"opened an old file\"}}");
    let kept = server.send("POST", "/api/plans", &body);
    assert_eq!(kept.status, 201, "{kept:?}");
    assert_eq!(kept.json()["plan"]["schema_version"], 3);
}

#[test]
fn a_plan_file_of_version_1_is_taken_in() {
    let (_data, server) = server();
    let old = include_str!("../../core/fixtures/one-rack-v1.json");
    let body = format!("{{\"plan\": {old}, \"word\": \"opened an old file\"}}");
    let kept = server.send("POST", "/api/plans", &body);
    assert_eq!(kept.status, 201, "{kept:?}");
    let plan = &kept.json()["plan"];
    assert_eq!(plan["schema_version"], 3);
    assert_eq!(plan["places"][0]["tiers"].as_array().unwrap().len(), 5);
}

#[test]
fn packing_is_reckoned_alone() {
    let (_data, server) = server();
    let ask = json!({
        "deck": {"width_mm": 1220, "depth_mm": 610},
        "sizes": [
            {"length_mm": 540, "width_mm": 280, "most": 2},
            {"length_mm": 370, "width_mm": 230}
        ]
    });
    let packing = server
        .send("POST", "/api/calc/packing", &ask.to_string())
        .json();
    let laid = packing["laid"].as_array().unwrap();
    assert_eq!(laid.iter().filter(|tray| tray["size"] == 0).count(), 2);
    assert!(laid.iter().filter(|tray| tray["size"] == 1).count() >= 2);
    let bad = json!({"deck": {"width_mm": -3, "depth_mm": 610}, "sizes": []});
    let refused = server.send("POST", "/api/calc/packing", &bad.to_string());
    assert_eq!(refused.status, 422);
    assert_eq!(refused.json()["faults"][0]["path"], "/deck/width_mm");
    assert_eq!(refused.json()["faults"][1]["path"], "/sizes");
}

#[test]
fn warmth_is_reckoned_alone_and_impossible_physics_refused() {
    let (_data, server) = server();
    let ask = |model: &str, question: &Value| {
        server.send("POST", &format!("/api/calc/{model}"), &question.to_string())
    };
    let root_zone = json!({
        "air": {"day_c": 18, "night_c": 15}, "tray": {"length_mm": 540, "width_mm": 280},
        "mat": {"watts": 18, "length_mm": 510, "width_mm": 240}, "dome": true
    });
    let day = ask("root-zone", &root_zone).json();
    assert_eq!(day["hours"]["root_zone_c"].as_array().unwrap().len(), 24);
    assert!(day["lift_k"].as_f64().unwrap() > 5.0);
    let mut hot = root_zone;
    hot["mat"]["watts"] = json!(5000);
    let refused = ask("root-zone", &hot);
    assert_eq!(refused.status, 422);
    assert_eq!(refused.json()["faults"][0]["path"], "/mat/watts");

    let chamber = json!({
        "width_mm": 600, "depth_mm": 500, "height_mm": 1500, "shelves_mm": [100, 800],
        "walls": [{"thickness_mm": 40, "conductivity_w_mk": 0.04}],
        "day_c": 18, "night_c": 15, "heaters": [{"watts": 40, "at_mm": 50}]
    });
    let day = ask("chamber", &chamber).json();
    assert_eq!(day["shelves"].as_array().unwrap().len(), 2);
    let mut thin = chamber;
    thin["walls"][0]["conductivity_w_mk"] = json!(-1);
    assert_eq!(ask("chamber", &thin).status, 422);

    let emergence = ask("emergence", &json!({"crop": "tomato", "root_zone_c": [25]})).json();
    assert!((emergence["half_days"].as_f64().unwrap() - 5.9).abs() < 1e-9);
    let unknown = ask(
        "emergence",
        &json!({"crop": "triffid", "root_zone_c": [25]}),
    );
    assert_eq!(unknown.json()["faults"][0]["path"], "/crop");
}

#[test]
fn a_lux_meter_is_held_to_a_plan_without_keeping_anything() {
    let (_data, server) = server();
    let ask = |lux: Value, x_mm: f64| {
        let probe = json!({"bay": {"place": "door", "tier": "t2"}, "date": "2027-04-09",
            "x_mm": x_mm, "y_mm": 250, "lux": lux});
        let body = json!({"plan": demo(), "probe": probe}).to_string();
        server.send("POST", "/api/probe", &body)
    };
    let probed = ask(Value::Null, 400.0).json();
    let lux = probed["lux"].as_f64().unwrap();
    assert!(lux > 5000.0 && probed["reading"].is_null());
    let read = ask(json!(0.7 * lux), 400.0).json();
    assert!((read["reading"]["ratio"].as_f64().unwrap() - 0.7).abs() < 1e-9);
    assert!(read["reading"]["fix"]["patch"].as_array().unwrap().len() >= 4);
    assert_eq!(ask(json!(-5), -1.0).status, 422);
    assert_eq!(server.get("/api/plans/1").json()["revision"], 1);
}

#[test]
fn ways_to_warm_chambers_and_mats_answer_over_http() {
    let (_data, server) = server();
    let ask = |path: &str, bay: &str| {
        let (place, tier) = bay.split_once('/').unwrap();
        let body = json!({
            "plan": demo(), "bay": {"place": place, "tier": tier}, "date": "2027-03-20"
        });
        server.send("POST", path, &body.to_string())
    };
    let warm = ask("/api/compare/warmth", "door/t3").json();
    assert_eq!(warm["ways"][0]["code"], "as_it_is");
    assert_eq!(ask("/api/compare/warmth", "door/t5").json(), Value::Null);
    let chamber = ask("/api/compare/chamber", "cabinet/t1").json();
    assert!(chamber.as_array().unwrap().len() > 5);
    assert_eq!(ask("/api/compare/chamber", "door/t1").json(), json!([]));
    let mats = server.send("POST", "/api/mats", &demo().to_string()).json();
    let count = |name: &str| mats[name].as_u64().unwrap();
    assert!((1..=count("trays")).contains(&count("needed")), "{mats}");
    // What no plan can be is refused by name.
    let mut away = demo();
    away["away"] = json!([{"from": "2027-04-09", "to": "2027-04-01"}]);
    let refused = server.send("POST", "/api/mats", &away.to_string());
    assert_eq!(refused.status, 422);
    assert!(refused.body.contains("/away/0/to"), "{refused:?}");
    let mut mat = demo();
    mat["places"][0]["tiers"][2]["mats"][0]["pad_mm"] = json!(-3);
    let refused = server.send("POST", "/api/mats", &mat.to_string());
    assert!(refused.body.contains("pad_mm"), "{refused:?}");
}

#[test]
fn seeds_and_frost_answer_over_http_and_refuse_by_name() {
    let (_data, server) = server();
    let calc = |name: &str, body: Value| {
        server.send("POST", &format!("/api/calc/{name}"), &body.to_string())
    };
    let sow = calc(
        "seeds",
        json!({"wanted": 12, "test": {"sprouted": 8, "of": 10}}),
    )
    .json();
    assert!(sow["cells"].as_u64() >= Some(12), "{sow}");
    let refused = calc("seeds", json!({"wanted": 0, "viability": 2}));
    assert_eq!(refused.status, 422);
    assert!(refused.body.contains("/wanted") && refused.body.contains("/viability"));
    let mut text = String::from("date,min\n");
    for day in 0..365 {
        let date = jiff::civil::date(2026, 1, 1).saturating_add(jiff::Span::new().days(day));
        text += &format!("{date},{}\n", if day < 100 { -1 } else { 9 });
    }
    let ask = json!({"text": text, "how": {"name": "garden", "latitude_deg": 52.9}});
    let preview = calc("frost", ask).json();
    assert_eq!(preview["record"]["years"][0]["last"], "2026-04-10");
    assert_eq!(preview["dates"]["p50"], "2027-04-10");
    let bad = json!({"text": text.replace("2026-02-03,-1", "2026-02-03,cold")});
    let preview = calc("frost", bad).json();
    assert_eq!(preview["problems"][0]["row"], 35);
    assert_eq!(preview["record"], Value::Null);
}

fn instance() -> Value {
    let text = include_str!("../../core/tests/reference/placement-30-trays.json");
    serde_json::from_str(text).unwrap()
}

#[test]
fn placing_is_reckoned_alone() {
    let (_data, server) = server();
    let answer = server.send("POST", "/api/calc/placement", &instance().to_string());
    assert_eq!(answer.status, 200);
    let answer = answer.json();
    assert_eq!(answer["assignment"].as_object().unwrap().len(), 30);
    assert_eq!(answer["unplaced"], json!(1572));
    let mut bad = instance();
    bad["trays"][0]["stages"][0]["to"] = json!(1);
    let refused = server.send("POST", "/api/calc/placement", &bad.to_string());
    assert_eq!(refused.status, 422);
    assert_eq!(refused.json()["faults"][0]["path"], "/trays/0/stages/0/to");
}

#[test]
fn placing_tells_how_far_it_is_and_stops_with_the_best_so_far() {
    use std::io::{BufRead, BufReader, Write};
    let (_data, server) = server();
    let body = instance().to_string();
    let mut stream = std::net::TcpStream::connect(server.address()).unwrap();
    let head = format!(
        "POST /api/calc/placement HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\
         Accept: text/event-stream\r\nContent-Type: application/json\r\n\
         Content-Length: {}\r\n\r\n{body}",
        body.len()
    );
    stream.write_all(head.as_bytes()).unwrap();
    let (mut event, mut ticks) = (String::new(), 0);
    for line in BufReader::new(stream).lines() {
        let line = line.unwrap();
        if let Some(name) = line.strip_prefix("event: ") {
            event = name.to_owned();
        }
        let Some(data) = line.strip_prefix("data: ") else {
            continue;
        };
        let data: Value = serde_json::from_str(data).unwrap();
        if event == "answer" {
            assert_eq!(data["stopped"], true);
            assert_eq!(data["assignment"].as_object().unwrap().len(), 30);
            assert!(ticks > 0);
            return;
        }
        assert_eq!(event, "progress");
        ticks += 1;
        assert!((0.0..=1.0).contains(&data["done"].as_f64().unwrap()));
        if ticks == 2 {
            let stop = format!("/api/placing/{}/stop", data["run"]);
            assert_eq!(server.send("POST", &stop, "").status, 204);
        }
    }
    panic!("no answer after {ticks} ticks");
}

#[test]
fn a_whole_plan_is_placed_and_nothing_kept() {
    let (_data, server) = server();
    let mut plan = running::demo();
    plan["trays"][0]["stands"] = json!([]);
    let ask = json!({"plan": plan, "afresh": false});
    let placed = server.send("POST", "/api/place-all", &ask.to_string());
    assert_eq!(placed.status, 200);
    assert!(
        placed.json()["word"]["text"]
            .as_str()
            .unwrap()
            .starts_with("placed")
    );
    let none = server.send("POST", "/api/placing/99/stop", "");
    assert_eq!(none.status, 404);
}

#[test]
fn what_has_no_room_is_explained_with_ways_out_that_are_whole_plans() {
    let (_data, server) = server();
    let plan = server.send("GET", "/api/plans/1", "").json()["plan"].clone();
    let found = server.send("POST", "/api/make-room", &plan.to_string());
    assert_eq!(found.status, 200);
    let found = found.json();
    assert_eq!(found["without"], json!(["tt4"]));
    let way = &found["ways"][0];
    assert_eq!(way["left"], 0);
    // What is offered is a plan that can be kept.
    let keep = json!({"base_revision": 1, "plan": way["edited"]["plan"], "word": "made room"});
    let kept = server.send("POST", "/api/plans/1/revisions", &keep.to_string());
    assert_eq!(
        kept.status,
        201,
        "{}",
        &kept.body[..200.min(kept.body.len())]
    );
    let mut bad = plan;
    bad["trays"][0]["format"] = json!("none such");
    for path in ["/api/make-room", "/api/least-gear"] {
        let refused = server.send("POST", path, &bad.to_string());
        assert_eq!(refused.status, 422, "{path}");
        assert_eq!(refused.json()["faults"][0]["path"], "/trays/0/format");
    }
}

#[test]
fn a_night_of_frost_is_asked_for_by_its_evening() {
    let (_data, server) = server();
    let plan = server.send("GET", "/api/plans/1", "").json()["plan"].clone();
    let ask = |date: &str| {
        let ask = json!({"plan": plan, "date": date});
        server.send("POST", "/api/frost-night", &ask.to_string())
    };
    let night = ask("2027-05-14").json();
    assert!(night["carry"].as_array().unwrap().len() > 3);
    assert!(ask("2027-02-01").json().is_null());
    assert_eq!(ask("some day").status, 422);
}
