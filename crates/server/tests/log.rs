//! What happened: sent once or many times, refused one by one, there after a crash.

mod running;

use running::{Server, server};
use serde_json::{Value, json};

fn note(server: &Server, entries: &Value) -> Value {
    let body = json!({ "entries": entries });
    let answer = server.send("POST", "/api/plans/1/log", &body.to_string());
    assert_eq!(answer.status, 200, "{}", answer.body);
    answer.json()
}

fn ids(server: &Server, query: &str) -> Vec<String> {
    let found = server.get(&format!("/api/plans/1/log{query}")).json();
    let ids = found.as_array().unwrap().iter();
    ids.map(|kept| kept["entry"]["id"].as_str().unwrap().to_owned())
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
            server.get(&format!("/api/plans/1/log{query}")).status,
            422,
            "{query}"
        );
    }
    let many: Vec<Value> = (0..201).map(|i| watered(&format!("m{i}"))).collect();
    let body = json!({ "entries": many }).to_string();
    assert_eq!(server.send("POST", "/api/plans/1/log", &body).status, 422);
    let unknown = json!({"entries": [{"id": "d", "on": "2026-11-22", "fact": {"eaten": {}}}]});
    assert_eq!(
        server
            .send("POST", "/api/plans/1/log", &unknown.to_string())
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
