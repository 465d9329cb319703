//! What happened: sent once or many times, refused one by one, there after a crash.

mod running;

use running::{Server, demo};
use serde_json::{Value, json};

/// The demo's plan without anything that happened, beside the demo.
fn server() -> (tempfile::TempDir, Server) {
    let (data, server) = running::server();
    let body = json!({"plan": demo(), "word": "began anew"});
    let answer = server.send("POST", "/api/plans", &body.to_string());
    assert_eq!(answer.status, 201, "{}", answer.body);
    (data, server)
}

fn note(server: &Server, entries: &Value) -> Value {
    let body = json!({ "entries": entries });
    send(server, &body)["entries"].clone()
}

fn send(server: &Server, body: &Value) -> Value {
    let answer = server.send("POST", "/api/plans/2/log", &body.to_string());
    assert_eq!(answer.status, 200, "{}", answer.body);
    answer.json()
}

fn ids(server: &Server, query: &str) -> Vec<String> {
    let found = server.get(&format!("/api/plans/2/log{query}")).json();
    let ids = found.as_array().unwrap().iter();
    ids.map(|told| told["kept"]["entry"]["id"].as_str().unwrap().to_owned())
        .collect()
}

fn watered(id: &str) -> Value {
    json!({"id": id, "on": "2026-11-20", "fact": {"watered": {"tray": "tc1", "water_ml": 300}}})
}

#[test]
fn what_is_at_fault_does_not_hold_up_the_rest_and_nothing_is_doubled() {
    let (_data, server) = server();
    let forged = json!({"id": "x", "on": "2999-01-01", "fact": {"sown": {"tray": "nowhere"}}});
    let noted = note(&server, &json!([watered("a"), forged, watered("b")]));
    let kept: Vec<&Value> = noted
        .as_array()
        .unwrap()
        .iter()
        .map(|n| &n["kept"])
        .collect();
    assert_eq!(kept, [&json!("new"), &Value::Null, &json!("new")]);
    let paths: Vec<&Value> = (noted[1]["faults"].as_array().unwrap().iter())
        .map(|fault| &fault["path"])
        .collect();
    assert_eq!(paths, [&json!("/on"), &json!("/fact/sown/tray")]);
    // Out of order, and once more.
    let again = note(&server, &json!([watered("b"), watered("a")]));
    assert_eq!(again[0]["kept"], "before");
    assert_eq!(ids(&server, ""), ["b", "a"]);
    let mut other = watered("a");
    other["text"] = json!("something else");
    assert_eq!(note(&server, &json!([other]))[0]["kept"], "taken");
}

#[test]
fn an_entry_is_taken_back_by_a_further_one() {
    let (_data, server) = server();
    let back = |of: &str| json!({"id": "back", "on": "2026-11-21", "corrects": of});
    assert_eq!(
        note(&server, &json!([back("a")]))[0]["faults"][0]["path"],
        "/corrects"
    );
    // One that is sent along counts too.
    let both = note(&server, &json!([watered("a"), back("a")]));
    assert_eq!(both[1]["kept"], "new");
    assert_eq!(ids(&server, ""), ["back", "a"]);
}

#[test]
fn the_log_is_found_by_what_is_asked_and_nonsense_is_refused() {
    let (_data, server) = server();
    let soil = json!({"id": "c", "on": "2026-11-22", "text": "by the window",
        "fact": {"measured": {"about": {"tray": "tc2"}, "reading": {"soil_c": 19.5}}}});
    note(&server, &json!([watered("a"), watered("b"), soil]));
    assert_eq!(ids(&server, "?tray=tc2"), ["c"]);
    assert_eq!(ids(&server, "?kind=watered&limit=1"), ["b"]);
    assert_eq!(ids(&server, "?text=WINDOW"), ["c"]);
    assert_eq!(ids(&server, "?to=2026-11-21"), ["b", "a"]);
    for query in ["?limit=0", "?limit=501", "?from=spring", "?colour=blue"] {
        assert_eq!(
            server.get(&format!("/api/plans/2/log{query}")).status,
            422,
            "{query}"
        );
    }
    let many: Vec<Value> = (0..201).map(|i| watered(&format!("m{i}"))).collect();
    let body = json!({ "entries": many }).to_string();
    assert_eq!(server.send("POST", "/api/plans/2/log", &body).status, 422);
    let unknown = json!({"entries": [{"id": "d", "on": "2026-11-22", "fact": {"eaten": {}}}]});
    assert_eq!(
        server
            .send("POST", "/api/plans/2/log", &unknown.to_string())
            .status,
        422
    );
    assert_eq!(server.get("/api/plans/7/log").status, 404);
}

#[test]
fn what_was_answered_is_there_after_a_crash() {
    let (data, mut server) = server();
    note(&server, &json!([watered("a")]));
    server.kill();
    let server = Server::start(data.path());
    assert_eq!(
        note(&server, &json!([watered("a"), watered("b")]))[0]["kept"],
        "before"
    );
    assert_eq!(ids(&server, ""), ["b", "a"]);
}

#[test]
fn what_happened_wins_in_every_answer_that_names_its_log() {
    let (_data, server) = server();
    let dates = |log: &str| {
        let body =
            json!({"plan": demo(), "from": "2027-04-09", "to": "2027-04-09", "detail": "outline"});
        let answer = server.send("POST", &format!("/api/assess{log}"), &body.to_string());
        assert_eq!(answer.status, 200, "{}", answer.body);
        let all = answer.json()["sowings"].as_array().unwrap().clone();
        all.into_iter()
            .find(|own| own["sowing"] == "tomato")
            .unwrap()
    };
    let before = dates("?log=2");
    assert_eq!(before, dates(""));
    let trays = demo()["trays"].as_array().unwrap().clone();
    let own = trays
        .iter()
        .filter(|tray| tray["parts"][0]["sowing"] == "tomato");
    let sown = |(n, tray): (usize, &Value)| {
        let id = format!("late-{n}");
        json!({"id": id, "on": "2027-04-08", "fact": {"sown": {"tray": tray["id"]}}})
    };
    let sown: Vec<Value> = own.enumerate().map(sown).collect();
    note(&server, &json!(sown));
    assert_eq!(dates("?log=2")["sow"], "2027-04-08");
    assert_eq!(dates("")["sow"], before["sow"]);
    // The calendar goes by it too, and says what is done.
    let calendar = server.get("/api/plans/2/calendar.ics").body;
    let event = calendar
        .split("BEGIN:VEVENT")
        .find(|own| own.contains("UID:sow-tomato-plan-2"));
    let event = event.expect("it is still in the calendar");
    assert!(
        event.contains("20270408") && event.contains("SUMMARY:Done: Sow Tomato"),
        "{event}"
    );
    // Taken back, the plan counts again.
    let back = |entry: &Value| {
        let id = entry["id"].as_str().unwrap();
        json!({"id": format!("back-{id}"), "on": "2027-04-09", "corrects": id})
    };
    note(
        &server,
        &json!(sown.iter().map(back).collect::<Vec<Value>>()),
    );
    assert_eq!(dates("?log=2"), before);
    for (log, status) in [("?log=9", 404), ("?log=x", 422)] {
        let body = json!({"plan": demo(), "from": "2027-04-09", "to": "2027-04-09"}).to_string();
        assert_eq!(
            server
                .send("POST", &format!("/api/assess{log}"), &body)
                .status,
            status
        );
    }
}

#[test]
fn a_job_of_today_goes_when_what_it_notes_is_kept_and_lamps_hang_as_they_were_set() {
    let (_data, mut server) = server();
    let lamps = |server: &Server| {
        let today = server.get("/api/plans/2/today").json();
        assert_eq!(today["date"], "2027-04-09");
        let stops = today["stops"].as_array().unwrap().clone();
        let jobs = stops
            .iter()
            .flat_map(|stop| stop["jobs"].as_array().unwrap().clone());
        jobs.filter(|job| job["what"] == "lamps")
            .collect::<Vec<Value>>()
    };
    let before = lamps(&server);
    let job = before.first().expect("lamps to set").clone();
    let fact = job["notes"][0]["fact"].clone();
    let entry = json!({"id": "set", "on": "2027-04-09", "fact": fact});
    let answer = send(&server, &json!({"entries": [entry]}));
    assert_eq!(answer["plan_changed"], true);
    assert!(lamps(&server).iter().all(|other| other["id"] != job["id"]));
    let plan = server.get("/api/plans/2").json();
    assert!(
        plan["undo"]
            .as_str()
            .unwrap()
            .starts_with("as logged: lamps of")
    );
    // The answer got lost, the server was killed: sent again it changes nothing.
    server.kill();
    let server = Server::start(_data.path());
    let again = send(&server, &json!({"entries": [entry]}));
    assert_eq!(
        (&again["entries"][0]["kept"], &again["plan_changed"]),
        (&json!("before"), &json!(false))
    );
    assert_eq!(
        server.get("/api/plans/2").json()["revision"],
        plan["revision"]
    );
    // Undoing the plan's change does not undo what happened.
    let undo = json!({"base_revision": plan["revision"], "step": "undo"}).to_string();
    assert_eq!(server.send("POST", "/api/plans/2/step", &undo).status, 200);
    assert_eq!(ids(&server, ""), ["set"]);
}

#[test]
fn the_demo_has_a_life_up_to_the_day_it_stands_still_on() {
    let (_data, server) = server();
    let log = server.get("/api/plans/1/log?limit=500").json();
    assert_eq!(log.as_array().unwrap().len(), 500);
    assert!(log[0]["kept"]["entry"]["on"].as_str().unwrap() <= "2027-04-09");
    let view = server.get("/api/plans/1").json();
    assert_eq!(
        (&view["today"], &view["opening_day"]),
        (&json!("2027-04-09"), &json!("2027-04-09"))
    );
    // Two were sown late, a packet is poor, and a mat is weaker than its thermostat is set to.
    let sowings = view["assessment"]["sowings"].as_array().unwrap().clone();
    let of = |id: &str| {
        sowings
            .iter()
            .find(|own| own["sowing"] == id)
            .unwrap()
            .clone()
    };
    assert_eq!(
        (&of("parsley")["sow"], &of("beetroot")["sow"]),
        (&json!("2027-02-24"), &json!("2027-03-23"))
    );
    let celery = of("celery")["seen"].clone();
    assert!(
        celery["all"].as_bool().unwrap()
            && celery["count"].as_f64() < Some(0.5 * celery["of"].as_f64().unwrap())
    );
    assert!(of("pepper")["behind_days"].as_i64() > Some(0));
    // Begun from the questions it is the same.
    let begun = server.send("POST", "/api/demo-plan", "");
    assert_eq!(begun.status, 201);
    let log = server.get("/api/plans/3/log?limit=500").json();
    assert_eq!(log.as_array().unwrap().len(), 500);
}

#[test]
fn a_trays_life_is_told_and_its_label_has_a_code() {
    let (_data, server) = server();
    let story = server.get("/api/plans/1/trays/ce1/story").json();
    assert_eq!(story["label"], "Ce1");
    let sow = &story["steps"][0];
    assert_eq!(
        (&sow["what"], &sow["happened"]),
        (&json!("sow"), &json!(true))
    );
    assert!(story["counts"][0]["seen"].as_array().unwrap().len() > 2);
    assert_eq!(server.get("/api/plans/1/trays/none/story").status, 404);
    let code = server.get("/api/plans/1/trays/ce1/code.svg");
    assert!(code.status == 200 && code.kind == "image/svg+xml" && code.body.contains("<svg"));
    assert_eq!(server.get("/api/plans/1/trays/none/code.svg").status, 404);
}

#[test]
fn the_log_goes_out_as_a_table_and_comes_in_again_with_problems_by_row() {
    let (_data, server) = server();
    let table = server.get("/api/plans/1/log.csv");
    assert!(table.kind.starts_with("text/csv"));
    let read = |text: &str, keep_sound: bool| {
        let body = json!({"text": text, "keep_sound": keep_sound}).to_string();
        let answer = server.send("POST", "/api/plans/2/log/table", &body);
        assert_eq!(answer.status, 200, "{}", answer.body);
        answer.json()
    };
    let first = read(&table.body, false);
    let rows = table.body.lines().count() - 1;
    assert_eq!(
        (first["added"].as_u64(), &first["problems"]),
        (Some(rows as u64), &json!([]))
    );
    assert_eq!(
        read(&table.body, false)["before"].as_u64(),
        Some(rows as u64)
    );
    assert_eq!(server.get("/api/plans/2/log.csv").body, table.body);
    let faulty = "day,kind,tray\n2027-04-01,watered,tc1\n2027-04-02,watered,nowhere\n2099-01-01,watered,tc1\n";
    let refused = read(faulty, false);
    let rows: Vec<u64> = refused["problems"]
        .as_array()
        .unwrap()
        .iter()
        .map(|p| p["row"].as_u64().unwrap())
        .collect();
    assert_eq!((refused["added"].as_u64(), rows), (Some(0), vec![3, 4]));
    assert_eq!(read(faulty, true)["added"].as_u64(), Some(1));
    assert_eq!(read(faulty, true)["before"].as_u64(), Some(1));
    let none = server.send(
        "POST",
        "/api/plans/2/log/table",
        &json!({"text": "a,b\n1,2"}).to_string(),
    );
    assert_eq!(none.status, 422);
}

#[test]
fn a_photo_comes_before_its_entry_and_what_is_none_is_refused() {
    let (data, server) = server();
    let put = |name: &str, bytes: &[u8]| {
        let path = format!("/api/plans/2/photos/{name}");
        server
            .try_send("PUT", &path, "image/jpeg", bytes)
            .expect("an answer")
            .status
    };
    let picture = include_bytes!("../../../web/static/icon-192.png");
    let entry = json!({"id": "seen", "on": "2027-04-08", "photo": "p1", "fact": {"noted": {"about": "room"}}});
    let noted = note(&server, &json!([entry]));
    assert_eq!(noted[0]["faults"][0]["path"], "/photo");
    assert_eq!(put("p1", picture), 204);
    assert_eq!(note(&server, &json!([entry]))[0]["kept"], "new");
    assert!(data.path().join("photos/2/p1.jpg").exists());
    assert_eq!(put("p1", picture), 204);
    assert_eq!(put("p2", b"no picture at all"), 422);
    assert_eq!(put("p3", &vec![0xff; 50 << 20]), 413);
    assert_eq!(put("..%2F..%2Fplans", picture), 422);
    let other = server.try_send("PUT", "/api/plans/9/photos/p1", "image/jpeg", picture);
    assert_eq!(other.expect("an answer").status, 404);
    assert_eq!(server.get("/api/plans/2/photos/none").status, 404);
    assert_eq!(
        std::fs::read_dir(data.path().join("photos/2"))
            .unwrap()
            .count(),
        1
    );
}
