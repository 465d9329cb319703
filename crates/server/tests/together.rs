//! Two who edit one plan, several plans, and a stranger's beginning.

mod running;

use running::{Answer, Server, demo, server};
use serde_json::{Value, json};

fn save(server: &Server, base: i64, plan: &Value, settle: Option<&str>) -> Answer {
    let body = json!({"base_revision": base, "word": "an edit", "plan": plan, "settle": settle});
    server.send("POST", "/api/plans/1/revisions", &body.to_string())
}

fn kept(server: &Server) -> Value {
    server.get("/api/plans/1").json()["plan"].clone()
}

#[test]
fn edits_of_different_fields_both_survive_and_it_is_said() {
    let (_data, server) = server();
    let (mut one, mut other) = (demo(), demo());
    one["site"]["price_per_kwh"] = json!(0.5);
    other["places"][0]["tiers"][1]["photoperiod_h"] = json!(13.0);
    assert_eq!(save(&server, 1, &one, None).status, 201);
    let late = save(&server, 1, &other, None);
    assert_eq!(late.status, 201);
    assert_eq!(late.json()["with"], json!(["an edit"]));
    let plan = kept(&server);
    assert_eq!(plan["site"]["price_per_kwh"], 0.5);
    assert_eq!(plan["places"][0]["tiers"][1]["photoperiod_h"], 13.0);
}

#[test]
fn of_two_edits_of_one_field_the_chosen_stays_and_the_other_is_in_the_history() {
    for (settle, wins) in [("mine", "mine"), ("theirs", "theirs")] {
        let (_data, server) = server();
        let (mut theirs, mut mine) = (demo(), demo());
        theirs["name"] = json!("theirs");
        theirs["site"]["price_per_kwh"] = json!(0.5);
        mine["name"] = json!("mine");
        mine["site"]["latitude_deg"] = json!(50.0);
        assert_eq!(save(&server, 1, &theirs, None).status, 201);
        let refused = save(&server, 1, &mine, None);
        assert_eq!(refused.status, 409);
        assert_eq!(save(&server, 1, &mine, Some(settle)).status, 201);
        let plan = kept(&server);
        assert_eq!(plan["name"], wins);
        // What only one of them changed stays whoever wins.
        assert_eq!(plan["site"]["price_per_kwh"], 0.5);
        assert_eq!(plan["site"]["latitude_deg"], 50.0);
        let history = server.get("/api/plans/1/revisions").json();
        let names: Vec<Value> = (history.as_array().unwrap().iter())
            .map(|revision| {
                let address = format!("/api/plans/1/revisions/{}", revision["number"]);
                server.get(&address).json()["name"].clone()
            })
            .collect();
        assert!(names.contains(&json!("mine")), "{names:?}");
        assert!(names.contains(&json!("theirs")), "{names:?}");
    }
}

#[test]
fn edits_that_do_not_go_together_are_refused_whole() {
    let (_data, server) = server();
    let (mut theirs, mut mine) = (demo(), demo());
    // The one takes a sowing out, the other gives it a tray.
    let gone = theirs["sowings"].as_array_mut().unwrap().remove(0);
    let trays = theirs["trays"].as_array_mut().unwrap();
    let holds = |tray: &Value| {
        let mut parts = tray["parts"].as_array().unwrap().iter();
        parts.any(|part| part["sowing"] == gone["id"])
    };
    trays.retain(|tray| !holds(tray));
    let own = mine["trays"]
        .as_array()
        .unwrap()
        .iter()
        .find(|tray| holds(tray));
    let mut more = own.unwrap().clone();
    (more["id"], more["name"], more["stands"]) = (json!("zz9"), json!("Zz9"), json!([]));
    mine["trays"].as_array_mut().unwrap().push(more);
    assert_eq!(save(&server, 1, &theirs, None).status, 201);
    assert_eq!(save(&server, 1, &mine, None).status, 409);
    assert_eq!(kept(&server), theirs);
    assert_eq!(save(&server, 1, &mine, Some("mine")).status, 201);
    assert_eq!(kept(&server), mine);
}

#[test]
fn a_plan_is_copied_for_next_year_and_set_aside() {
    let (_data, server) = server();
    let next = server.send("POST", "/api/plans/1/next-year", "");
    assert_eq!(next.status, 201);
    let next = next.json();
    assert_eq!(next["plan"]["site"]["last_frost"], "2028-05-06");
    assert_eq!(kept(&server)["site"]["last_frost"], "2027-05-06");
    let id = next["id"].as_i64().unwrap();
    let aside = |id: i64, to: bool| {
        let address = format!("/api/plans/{id}/aside");
        server
            .send("PUT", &address, &json!({ "aside": to }).to_string())
            .status
    };
    assert_eq!(server.get("/api/last-plan").json()["id"], id);
    assert_eq!(aside(id, true), 204);
    assert_eq!(server.get("/api/last-plan").json()["id"], 1);
    let plans = server.get("/api/plans").json();
    assert_eq!(
        (&plans[0]["aside"], &plans[1]["aside"]),
        (&json!(false), &json!(true))
    );
    assert_eq!(aside(id, false), 204);
    assert_eq!(aside(99, true), 404);
}

#[test]
fn a_stranger_finds_a_town_an_empty_plan_and_what_to_sow() {
    let (_data, server) = server();
    let homes = server.get("/api/homes").json();
    let home = homes
        .as_array()
        .unwrap()
        .iter()
        .find(|h| h["town"] == "Chicago");
    assert_eq!(home.unwrap()["units"], "us");
    let blank = server.get("/api/blank-plan").json();
    assert_eq!(blank["places"], json!([]));
    let body = json!({"plan": blank, "today": "2027-02-01"});
    let starts = server.send("POST", "/api/when", &body.to_string()).json();
    assert!(
        starts
            .as_array()
            .unwrap()
            .iter()
            .any(|start| start["now"] == true)
    );
    let inches = server.get("/api/kinds?units=us").json();
    assert!(
        inches["lamps"][0]["name"]
            .as_str()
            .unwrap()
            .contains("4 ft")
    );
    assert_eq!(server.get("/api/kinds?units=leagues").status, 422);
}
