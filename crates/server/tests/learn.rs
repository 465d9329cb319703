//! What a season teaches, over HTTP: shown before it is accepted, undone exactly, refused by the field.

mod running;

use running::{Server, server};
use serde_json::{Value, json};

/// The demo with its log: plan 1.
fn lessons(server: &Server, query: &str) -> Vec<Value> {
    let answer = server.get(&format!("/api/plans/1/lessons{query}"));
    assert_eq!(answer.status, 200, "{}", answer.body);
    answer.json().as_array().unwrap().clone()
}

fn lesson(server: &Server, id: &str, query: &str) -> Value {
    let all = lessons(server, query).into_iter();
    let mut own = all.filter(|lesson| lesson["id"] == id);
    own.next().unwrap_or_else(|| panic!("no lesson {id}"))
}

fn paths(problem: &Value) -> Vec<&str> {
    let faults = problem["faults"].as_array().unwrap().iter();
    faults
        .map(|fault| fault["path"].as_str().unwrap())
        .collect()
}

#[test]
fn the_demo_teaches_what_is_hidden_in_it() {
    let (_data, server) = server();
    let to_correct: Vec<String> = lessons(&server, "")
        .iter()
        .filter(|lesson| !lesson["fix"].is_null())
        .map(|lesson| lesson["id"].as_str().unwrap().to_owned())
        .collect();
    for hidden in [
        "lamps/coat/t1",
        "mat/door/t3/m1",
        "packet/celery-24",
        "air_night_k/coat",
    ] {
        assert!(
            to_correct.iter().any(|id| id == hidden),
            "{hidden}: {to_correct:?}"
        );
    }
    // The wild reading is left out, and put in by its name.
    let lamps = lesson(&server, "lamps/coat/t1", "");
    let readings = lamps["readings"].as_array().unwrap();
    let wild = readings
        .iter()
        .find(|own| !own["left_out"].is_null())
        .unwrap();
    let with = format!("?put_in={}", wild["entry"].as_str().unwrap());
    let with = lesson(&server, "lamps/coat/t1", &with);
    assert_eq!(
        (&lamps["learned"]["readings"], &with["learned"]["readings"]),
        (&json!(5), &json!(6))
    );
}

#[test]
fn a_correction_is_one_revision_and_undo_gives_the_same_plan_back() {
    let (_data, server) = server();
    let before = server.get("/api/plans/1").json();
    let effect = server.get("/api/plans/1/lesson-effect?lesson=packet/celery-24");
    assert_eq!(effect.status, 200, "{}", effect.body);
    assert!(effect.json()["moved"].is_array());
    let fix = lesson(&server, "packet/celery-24", "")["fix"].clone();
    let step = &fix["patch"][0];
    assert_eq!(step["path"], "/packets/1/counted");
    // Looking has changed nothing.
    let plan = || server.get("/api/plans/1").json()["plan"].clone();
    assert_eq!(plan(), before["plan"]);
    let mut corrected = before["plan"].clone();
    corrected["packets"][1]["counted"] = step["value"].clone();
    let body =
        json!({"plan": corrected, "base_revision": before["revision"], "word": "took it so"});
    let saved = server.send("POST", "/api/plans/1/revisions", &body.to_string());
    assert_eq!(saved.status, 201, "{}", saved.body);
    assert!(lesson(&server, "packet/celery-24", "")["fix"].is_null());
    let none = server.get("/api/plans/1/lesson-effect?lesson=packet/celery-24");
    assert_eq!(none.status, 404);
    let revision = server.get("/api/plans/1").json()["revision"].clone();
    let undo = json!({"base_revision": revision, "step": "undo"}).to_string();
    let undo = server.send("POST", "/api/plans/1/step", &undo);
    assert_eq!(undo.status, 200, "{}", undo.body);
    assert_eq!(plan(), before["plan"]);
}

#[test]
fn two_batches_of_one_season_or_two_are_compared_and_faults_named() {
    let (_data, server) = server();
    let compare = |body: Value| server.send("POST", "/api/plans/1/comparison", &body.to_string());
    let found = compare(json!({"a": {"tray": "cf1"}, "b": {"tray": "cf2"}}));
    assert_eq!(found.status, 200, "{}", found.body);
    let found = found.json();
    assert_eq!(found["differences"][0]["what"], "height");
    assert_eq!(found["differences"][0]["told_apart"], "clearly");
    assert_eq!(found["differences"][0]["test"], "Welch's t test");
    // Of next year nothing is known yet.
    let next = server.send("POST", "/api/plans/1/next-year", "").json();
    let seasons = json!({"a": {"sowing": "onion"}, "b": {"sowing": "onion"}, "b_plan": next["id"]});
    let seasons = compare(seasons);
    assert_eq!(seasons.status, 200, "{}", seasons.body);
    assert_eq!(seasons.json()["differences"], json!([]));
    let wrong = compare(json!({"a": {"tray": "zz"}, "b": {"place": "attic"}}));
    assert_eq!(wrong.status, 422);
    assert_eq!(paths(&wrong.json()), ["/a/tray", "/b/place"]);
    assert_eq!(
        compare(json!({"a": {"tray": "cf1"}, "b": {"tray": "cf2"}, "b_plan": 99})).status,
        404
    );
    assert_eq!(compare(json!({"a": {"tray": "cf1"}})).status, 422);
}

#[test]
fn causes_and_meanings_are_asked_for_and_nonsense_is_refused() {
    let (_data, server) = server();
    let causes = |tray: &str, query: &str| {
        server.get(&format!("/api/plans/1/trays/{tray}/diagnosis{query}"))
    };
    let found = causes("mx1", "?symptom=uneven&on=2027-04-09");
    assert_eq!(found.status, 200, "{}", found.body);
    assert_eq!(found.json()["causes"][0]["code"], "several_kinds");
    assert_eq!(causes("zz", "?symptom=uneven").status, 404);
    for nonsense in ["", "?symptom=sad", "?symptom=pale&on=spring"] {
        assert!(
            (400..=422).contains(&causes("mx1", nonsense).status),
            "{nonsense}"
        );
    }
    let means = |entry: Value| server.send("POST", "/api/plans/1/meaning", &entry.to_string());
    let about = json!({"tray": "cf1"});
    let height = |on: &str, mm: f64| {
        let measured = json!({"about": about, "reading": {"height_mm": mm}});
        means(json!({"id": "typed", "on": on, "fact": {"measured": measured}}))
    };
    let found = height("2027-04-09", 61.0);
    assert_eq!(found.status, 200, "{}", found.body);
    assert_eq!(found.json()["lesson"]["id"], "height/cauliflower");
    assert_eq!(
        paths(&height("2999-04-09", -4.0).json()),
        ["/on", "/fact/measured/height_mm"]
    );
    let sown = means(json!({"id": "typed", "on": "2027-04-09", "fact": {"sown": {"tray": "cf1"}}}));
    assert_eq!((sown.status, sown.json()), (200, Value::Null));
    // Nothing of it was noted.
    let log = server.get("/api/plans/1/log?text=typed").json();
    assert_eq!(log, json!([]));
}

#[test]
fn the_next_year_takes_over_what_it_is_told_to() {
    let (_data, server) = server();
    let handed = server.get("/api/plans/1/handed-on").json();
    let id = |own: &Value| own["id"].as_str().unwrap().to_owned();
    let all: Vec<String> = handed.as_array().unwrap().iter().map(id).collect();
    assert!(all.contains(&"late/parsley".to_owned()), "{all:?}");
    let next = |query: &str| {
        let made = server.send("POST", &format!("/api/plans/1/next-year{query}"), "");
        assert_eq!(made.status, 201, "{}", made.body);
        made.json()["plan"].clone()
    };
    let shift = |plan: &Value| {
        let mut sowings = plan["sowings"].as_array().unwrap().iter();
        let own = sowings.find(|own| own["id"] == "parsley").unwrap();
        own["shift_days"].clone()
    };
    assert_eq!(shift(&next("?takes=late/parsley")), 6);
    assert_eq!(shift(&next("?takes=")), Value::Null);
    assert_eq!(shift(&next("")), Value::Null);
}
