//! What no request may do: end the server, keep it busy, or be answered without end.

mod running;

use std::io::{Read, Write};
use std::net::TcpStream;
use std::time::{Duration, Instant};

use running::{Answer, Server};
use serde_json::{Value, json};

fn server() -> (tempfile::TempDir, Server) {
    let data = tempfile::tempdir().unwrap();
    let server = Server::start(data.path());
    (data, server)
}

fn demo() -> Value {
    serde_json::from_str(include_str!("../../../demo/kettle-fen.json")).unwrap()
}

fn post(server: &Server, path: &str, body: &Value) -> Answer {
    server.send("POST", path, &body.to_string())
}

#[test]
fn a_deck_that_once_ended_the_server_is_packed() {
    let (_data, server) = server();
    let ask = json!({"deck": {"width_mm": 610, "depth_mm": 1983, "post_mm": 40},
        "sizes": [{"length_mm": 79.5, "width_mm": 66}]});
    let packed = post(&server, "/api/calc/packing", &ask);
    assert_eq!(packed.status, 200, "{packed:?}");
    assert_eq!(server.get("/healthz").status, 200);
}

#[test]
fn a_sill_without_lamps_is_compared_and_odd_years_are_refused() {
    let (_data, server) = server();
    let bay = json!({"place": "window", "tier": "t1"});
    let assessment = server.get("/api/plans/1").json()["assessment"].clone();
    let mut sowings = assessment["sowings"].as_array().unwrap().iter();
    let lettuce = sowings.find(|dates| dates["sowing"] == "lettuce").unwrap();
    // Up on the sill, and nothing but the window lights it.
    let sill = json!({"plan": demo(), "bay": bay, "date": lettuce["last"]});
    let compared = post(&server, "/api/compare", &sill);
    assert_eq!(compared.status, 200, "{compared:?}");
    assert!(compared.json().as_array().unwrap().len() > 2);
    let how = json!({"text": "date,min\n2012-04-01,1\n", "how": {"year": 32767}});
    let refused = post(&server, "/api/calc/frost", &how);
    assert_eq!(refused.status, 422, "{refused:?}");
    assert_eq!(refused.json()["faults"][0]["path"], "/how/year");
    for year in [9999, -9999] {
        let text = "LOCATION,a,,,x,0,52.9,0,0,0\n".to_owned()
            + &"heading\n".repeat(7)
            + &format!("{year},1,1,1,60,?,-1.0,0,0\n");
        let preview = post(&server, "/api/calc/frost", &json!({"text": text})).json();
        assert_eq!(preview["problem_rows"], 1, "{preview}");
    }
}

/// Each asks for more than an answer may take: it is refused and says what to ask instead, or is
/// soon done.
#[test]
fn what_is_too_much_says_so_and_the_server_goes_on() {
    let (_data, server) = server();
    let mut long = demo();
    long["season"] = json!({"from": "2027-01-15", "to": "2028-02-14"});
    let season = json!({"plan": long, "from": "2027-01-15", "to": "2028-02-14"});
    let refused = post(&server, "/api/assess", &season);
    assert_eq!(refused.status, 422, "{refused:?}");
    let remedy = refused.json()["detail"].as_str().unwrap().to_owned();
    assert!(remedy.contains("days"), "{remedy}");
    // In outline it is answered, and small.
    let mut outline = season.clone();
    outline["detail"] = json!("days");
    let outline = post(&server, "/api/assess", &outline);
    assert!([200, 422].contains(&outline.status), "{}", outline.status);

    let mut heap = demo();
    let tray = heap["trays"][0].clone();
    let trays = heap["trays"].as_array_mut().unwrap();
    for i in 0..400 {
        let mut copy = tray.clone();
        copy["id"] = json!(format!("heap-{i}"));
        trays.push(copy);
    }
    let heaped =
        json!({"plan": heap, "from": "2027-04-09", "to": "2027-04-09", "detail": "outline"});
    let heaped = post(&server, "/api/assess", &heaped);
    assert!([200, 422].contains(&heaped.status), "{}", heaped.status);
    assert!(heaped.body.len() < 12 << 20);

    let emitter = json!({"centre_mm": [0, 0], "height_mm": 0.0001, "length_mm": 20000,
        "width_mm": 0.1, "along": "x", "flux_lm": 1000, "beam_exponent": 3.7});
    let scene = json!({"bay": {"width_mm": 20000, "depth_mm": 20000, "height_mm": 20000,
            "reflectance": {"floor": 0.9, "ceiling": 0.9, "left": 0.9, "right": 0.9, "back": 0.9}},
        "emitters": vec![emitter; 500],
        "grid": {"x_mm": [1, 2, 3, 4, 5, 6, 7, 8, 9, 10], "y_mm": [0, 1, 2, 3, 4], "z_mm": 0.0}});
    let lit = post(&server, "/api/calc/light", &scene);
    assert!(
        lit.status == 200 || lit.body.contains("fewer cases"),
        "{lit:?}"
    );

    let things = vec![json!({"place": "door", "tier": "t1"}); 1000];
    let again = json!({"plan": demo(), "edit": {"again": {"things": things}}});
    let again = post(&server, "/api/edit", &again);
    assert_eq!(again.status, 422);
    assert_eq!(again.json()["faults"][0]["path"], "/things");
    assert_eq!(server.get("/healthz").status, 200);
}

#[test]
fn a_plan_of_unknown_parts_is_refused_in_few_words() {
    let (_data, server) = server();
    let mut plan = demo();
    let unknown = json!({"sowing": "no-such-sowing-".repeat(100)});
    plan["trays"][0]["parts"] = json!(vec![unknown; 2000]);
    plan["name"] = json!("n".repeat(100_000));
    let refused = post(&server, "/api/plans", &json!({"plan": plan, "word": "x"}));
    assert_eq!(refused.status, 422);
    assert!(refused.body.len() < 100_000, "{}", refused.body.len());
    for fault in refused.json()["faults"].as_array().unwrap() {
        let echoed = fault["value"]
            .as_str()
            .map_or(0, |text| text.chars().count());
        assert!(echoed <= 200, "{fault}");
    }
}

#[test]
fn names_that_steer_the_screen_or_show_nothing_are_refused_by_field() {
    let (_data, server) = server();
    for name in [
        "a\u{7}b",
        "left\u{202e}thgir",
        "\u{200b}\u{feff}",
        "\u{3164}",
        "a\nb",
        " \t",
    ] {
        let mut plan = demo();
        plan["sowings"][0]["variety"] = json!(name);
        let refused = post(&server, "/api/plans", &json!({"plan": plan, "word": "x"}));
        assert_eq!(refused.status, 422, "{name:?}");
        let fault = &refused.json()["faults"][0];
        assert_eq!(fault["path"], "/sowings/0/variety", "{name:?}");
        assert!(!refused.body.contains('\u{202e}'));
    }
    let mut plan = demo();
    plan["sowings"][0]["variety"] = json!("Ñandú ‘Été’ 早生 ½");
    let kept = post(&server, "/api/plans", &json!({"plan": plan, "word": "x"}));
    assert_eq!(kept.status, 201, "{kept:?}");
}

/// The head of an answer to a request written by hand.
fn head(server: &Server, request: &str) -> String {
    let mut stream = TcpStream::connect(server.address()).unwrap();
    stream
        .set_read_timeout(Some(Duration::from_secs(10)))
        .unwrap();
    stream.write_all(request.as_bytes()).unwrap();
    let mut answer = String::new();
    let _ = stream.read_to_string(&mut answer);
    answer.to_ascii_lowercase()
}

#[test]
fn only_this_machines_own_pages_change_anything() {
    let (_data, server) = server();
    let step = r#"{"base_revision": 1, "step": "undo"}"#;
    let asked = |host: &str, more: &str| {
        let answer = head(
            &server,
            &format!(
                "POST /api/plans/1/step HTTP/1.1\r\nHost: {host}\r\nConnection: close\r\n{more}\
                 Content-Type: application/json\r\nContent-Length: {}\r\n\r\n{step}",
                step.len()
            ),
        );
        answer.split(' ').nth(1).unwrap_or_default().to_owned()
    };
    // There is nothing to undo, which is for the server to say.
    assert_eq!(asked("LOCALHOST:80", ""), "409");
    assert_eq!(
        asked("localhost:80", "Origin: http://localhost:80\r\n"),
        "409"
    );
    for foreign in ["http://example.test", "null", "http://localhost:81"] {
        assert_eq!(
            asked("localhost:80", &format!("Origin: {foreign}\r\n")),
            "403"
        );
    }
    assert_eq!(
        asked("localhost:80", "Sec-Fetch-Site: cross-site\r\n"),
        "403"
    );
    assert_eq!(asked("example.test", ""), "403");
}

#[test]
fn every_answer_is_guarded() {
    let (_data, server) = server();
    for path in ["/", "/api/units", "/api/nothing", "/healthz"] {
        let answer = head(
            &server,
            &format!("GET {path} HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n"),
        );
        for header in [
            "x-content-type-options: nosniff",
            "referrer-policy: no-referrer",
            "cross-origin-resource-policy: same-origin",
            "frame-ancestors 'none'",
            "script-src 'self'",
        ] {
            assert!(answer.contains(header), "{path}: {header}");
        }
        assert!(!answer.contains("script-src 'self' 'unsafe-inline'"));
    }
}

#[test]
fn what_changed_makes_the_whole_of_what_was_there() {
    let (_data, server) = server();
    let what = |plan: &Value| json!({"plan": plan, "from": "2027-04-09", "to": "2027-04-09", "detail": "outline"});
    let mut plan = demo();
    let ask = |plan: &Value, since: Option<&str>| {
        let answer = post(
            &server,
            "/api/assess/changes",
            &json!({"what": what(plan), "since": since}),
        );
        assert_eq!(answer.status, 200, "{}", answer.body);
        (answer.json(), answer.body.len())
    };
    let (first, whole) = ask(&plan, None);
    plan["places"][0]["tiers"][1]["lamps"][0]["height_mm"] = json!(171);
    let (second, small) = ask(&plan, first["id"].as_str());
    assert!(small * 5 < whole, "{small} of {whole}");
    assert!(second.get("season").is_none());
    let expected = post(&server, "/api/assess", &what(&plan)).json();
    let merged = |list: &str, parts: &Value, before: &Value| -> Value {
        let of = |part: &Value| {
            part.as_u64()
                .map_or(part.clone(), |i| before[i as usize].clone())
        };
        let parts = parts.as_array().unwrap_or_else(|| panic!("{list}"));
        parts.iter().map(of).collect()
    };
    for list in ["sowings", "findings"] {
        assert_eq!(
            merged(list, &second[list], &first[list]),
            expected[list],
            "{list}"
        );
    }
    let (room, before) = (&second["room"][0], &first["room"][0]);
    for list in ["places", "bays"] {
        let merged = merged(list, &room[list], &before[list]);
        assert_eq!(merged, expected["room"][0][list], "{list}");
    }
    assert_eq!(room["power"], expected["room"][0]["power"]);
    // A name that is not known any more, or of another server, is answered whole.
    let (again, size) = ask(&plan, Some("no-such-answer"));
    assert!(again["season"].is_object() && size > whole / 2);
}

#[test]
fn a_plan_comes_with_its_first_assessment() {
    let (_data, server) = server();
    let plan = server.get("/api/last-plan?on=2027-04-09").json();
    assert_eq!(plan["assessment"]["room"][0]["date"], "2027-04-09");
    let plan = server.get("/api/plans/1").json();
    assert_eq!(plan["assessment"]["room"][0]["date"], plan["opening_day"]);
    let deleted = server.send("DELETE", "/api/plans/1", "");
    assert_eq!(deleted.status, 204);
    assert_eq!(server.get("/api/last-plan").status, 404);
    assert_eq!(server.get("/api/plans/1").status, 410);
    assert_eq!(server.get("/api/deleted-plans").json()[0]["id"], 1);
    assert_eq!(
        server.send("POST", "/api/plans/1/restore", "").json()["id"],
        1
    );
}

#[test]
fn a_folder_that_vanishes_is_noticed_and_nothing_is_acknowledged() {
    let (data, server) = server();
    assert_eq!(server.get("/healthz").status, 200);
    std::fs::rename(
        data.path().join("plans.db"),
        data.path().join("elsewhere.db"),
    )
    .unwrap();
    let health = server.get("/healthz");
    assert_eq!(
        (health.status, health.kind.as_str()),
        (503, "application/problem+json")
    );
    let edit = json!({"base_revision": 1, "word": "x", "plan": demo()});
    let refused = post(&server, "/api/plans/1/revisions", &edit);
    assert_eq!(refused.status, 503, "{refused:?}");
    assert!(
        refused.json()["detail"]
            .as_str()
            .unwrap()
            .contains("no longer there")
    );
    // Put back, it is the same file: all goes on.
    std::fs::rename(
        data.path().join("elsewhere.db"),
        data.path().join("plans.db"),
    )
    .unwrap();
    assert_eq!(post(&server, "/api/plans/1/revisions", &edit).status, 201);
}

#[test]
fn a_damaged_database_is_put_aside_with_a_word() {
    let data = tempfile::tempdir().unwrap();
    std::fs::write(data.path().join("plans.db"), b"no database but a letter").unwrap();
    let server = Server::start(data.path());
    let health = server.get("/healthz").json();
    let aside = health["set_aside"].as_str().expect("it says so");
    assert_eq!(std::fs::read(aside).unwrap(), b"no database but a letter");
    assert_eq!(server.get("/api/plans/1").status, 200);
}

#[test]
fn told_to_stop_it_is_gone_soon_whatever_it_computes() {
    let data = tempfile::tempdir().unwrap();
    let mut server = Server::start(data.path());
    // Half a request that never ends, and one that computes for long.
    let mut half = TcpStream::connect(server.address()).unwrap();
    half.write_all(b"POST /api/assess HTTP/1.1\r\nHost: localhost\r\nContent-Length: 9\r\n")
        .unwrap();
    let emitter = json!({"centre_mm": [0, 0], "height_mm": 1, "length_mm": 20000, "width_mm": 0.1,
        "along": "x", "flux_lm": 1000, "beam_exponent": 3.7});
    let scene = json!({"bay": {"width_mm": 20000, "depth_mm": 20000, "height_mm": 20000,
            "reflectance": {"floor": 0.9, "ceiling": 0.9, "left": 0.9, "right": 0.9}},
        "emitters": vec![emitter; 500], "grid": {"x_mm": [1], "y_mm": [0], "z_mm": 0.0}})
    .to_string();
    let mut busy = TcpStream::connect(server.address()).unwrap();
    let head = format!(
        "POST /api/calc/light HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\n\
         Content-Length: {}\r\n\r\n{scene}",
        scene.len()
    );
    busy.write_all(head.as_bytes()).unwrap();
    std::thread::sleep(Duration::from_millis(200));
    let told = Instant::now();
    let _ = std::process::Command::new("kill")
        .args(["-TERM", &server.id().to_string()])
        .status();
    assert!(server.wait().success());
    // Promised is five seconds; ten leave room for a machine with other work.
    assert!(
        told.elapsed() < Duration::from_secs(10),
        "{:?}",
        told.elapsed()
    );
}

#[test]
fn an_address_holds_no_more_connections_than_it_may() {
    let (_data, server) = server();
    let held: Vec<TcpStream> = (0..256)
        .map(|_| TcpStream::connect(server.address()).unwrap())
        .collect();
    std::thread::sleep(Duration::from_millis(200));
    let ask = b"GET /healthz HTTP/1.1\r\nHost: localhost\r\nConnection: close\r\n\r\n";
    let mut one_more = TcpStream::connect(server.address()).unwrap();
    one_more
        .set_read_timeout(Some(Duration::from_secs(5)))
        .unwrap();
    let mut answer = Vec::new();
    let refused = one_more.write_all(ask).is_err() || one_more.read_to_end(&mut answer).is_err();
    assert!(
        refused || answer.is_empty(),
        "{}",
        String::from_utf8_lossy(&answer)
    );
    drop(held);
    std::thread::sleep(Duration::from_millis(300));
    assert_eq!(server.get("/healthz").status, 200);
}
