//! What an acknowledged edit survives.

mod running;

use std::sync::atomic::{AtomicBool, Ordering};
use std::time::Duration;

use running::Server;
use serde_json::{Value, json};

const KILLS: u64 = 20;

/// Saves edit after edit, is killed (SIGKILL) in the middle of it, and starts again, 20 times:
/// every acknowledged edit is in the history, and the database opens.
#[test]
fn twenty_kills_lose_no_acknowledged_edit() {
    let data = tempfile::tempdir().unwrap();
    let mut acknowledged: Vec<String> = Vec::new();
    for round in 0..KILLS {
        let mut server = Server::start(data.path());
        let view = server.get("/api/plans/1").json();
        check(&server, &acknowledged);
        let mut base = view["revision"].as_i64().unwrap();
        let mut plan = view["plan"].clone();
        let killed = AtomicBool::new(false);
        let process = server.id();
        std::thread::scope(|scope| {
            let killed = &killed;
            scope.spawn(move || {
                // A different moment each time, so that every part of a save is hit.
                std::thread::sleep(Duration::from_millis(80 + round * 11));
                let _ = std::process::Command::new("kill")
                    .args(["-9", &process.to_string()])
                    .status();
                killed.store(true, Ordering::SeqCst);
            });
            for edit in 0.. {
                let word = format!("edit {edit} of round {round}");
                plan["name"] = Value::from(word.clone());
                let body = json!({"base_revision": base, "word": word, "plan": plan}).to_string();
                let answer = server.try_send(
                    "POST",
                    "/api/plans/1/revisions",
                    "application/json",
                    body.as_bytes(),
                );
                match answer {
                    Some(answer) => {
                        assert_eq!(answer.status, 201, "{answer:?}");
                        base = answer.json()["revision"].as_i64().unwrap();
                        acknowledged.push(word);
                    }
                    None if killed.load(Ordering::SeqCst) => break,
                    // Between the signal and the note of it.
                    None => std::thread::sleep(Duration::from_millis(1)),
                }
            }
        });
        server.kill();
    }
    assert!(
        acknowledged.len() as u64 > KILLS,
        "hardly anything was saved"
    );
    check(&Server::start(data.path()), &acknowledged);
}

fn check(server: &Server, acknowledged: &[String]) {
    let history = server.get("/api/plans/1/revisions").json();
    let words: std::collections::HashSet<&str> = history
        .as_array()
        .unwrap()
        .iter()
        .map(|revision| revision["word"].as_str().unwrap())
        .collect();
    for word in acknowledged {
        assert!(words.contains(word.as_str()), "{word} is lost");
    }
}

#[test]
fn it_stops_cleanly_when_told_to() {
    let data = tempfile::tempdir().unwrap();
    let mut server = Server::start(data.path());
    assert_eq!(server.get("/healthz").status, 200);
    let told = std::process::Command::new("kill")
        .arg(server.id().to_string())
        .status()
        .unwrap();
    assert!(told.success());
    assert!(server.wait().success());
}
