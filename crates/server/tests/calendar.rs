//! The calendar of jobs in a strict parser (Python's icalendar) and in a real client (khal), both as
//! Debian packs them.

mod running;

use std::path::Path;
use std::process::{Command, Stdio};

use running::Server;
use serde_json::{Value, json};

const LINES: &str = "/api/plans/1/calendar.ics";

/// Runs a program with `input`; what it prints.
fn run(program: &str, arguments: &[&str], input: &str, home: &Path) -> String {
    use std::io::Write;
    let mut child = Command::new(program)
        .args(arguments)
        .env("HOME", home)
        .env("XDG_DATA_HOME", home.join("data"))
        .env("XDG_CONFIG_HOME", home.join("config"))
        .env("XDG_CACHE_HOME", home.join("cache"))
        .env("LC_ALL", "C.UTF-8")
        .env("TZ", "Europe/London")
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap_or_else(|error| {
            panic!("{program} does not start ({error}): `cargo xtask test` installs khal")
        });
    let mut pipe = child.stdin.take().unwrap();
    pipe.write_all(input.as_bytes()).unwrap();
    drop(pipe);
    let out = child.wait_with_output().unwrap();
    let error = String::from_utf8_lossy(&out.stderr);
    assert!(out.status.success(), "{program} {arguments:?}: {error}");
    String::from_utf8(out.stdout).unwrap()
}

/// The plan with a name that wants escaping and folding, and cucumbers moved by so many days.
fn save(server: &Server, base: i64, shift_days: i64) {
    let mut plan = server.get("/api/plans/1").json()["plan"].clone();
    plan["name"] = json!(
        "Stall; trays, \\ \"labels\" and übermäßig lange Wörter, die umgebrochen werden müssen"
    );
    let sowings = plan["sowings"].as_array_mut().unwrap();
    let cucumber = sowings.iter_mut().find(|s| s["id"] == "cucumber").unwrap();
    cucumber["shift_days"] = json!(shift_days);
    cucumber["variety"] =
        json!("Äpfel, Birnen; und \\ noch viele andere lange Namen ohne Ende, ö ö ö ö ö ö ö ö");
    let edit = json!({"base_revision": base, "word": "moved cucumbers", "plan": plan});
    let saved = server.send("POST", "/api/plans/1/revisions", &edit.to_string());
    assert_eq!(saved.status, 201, "{saved:?}");
}

fn events(text: &str, home: &Path) -> Vec<Value> {
    const STRICT: &str = r#"
import json, sys
from icalendar import Calendar
calendar = Calendar.from_ical(sys.stdin.buffer.read().decode())
assert not calendar.errors, calendar.errors
out = []
for event in calendar.walk("VEVENT"):
    assert not event.errors, event.errors
    out.append({"uid": str(event["UID"]), "start": str(event["DTSTART"].dt), "end": str(event["DTEND"].dt),
                "sequence": int(event["SEQUENCE"]), "summary": str(event["SUMMARY"]),
                "note": str(event["DESCRIPTION"])})
json.dump({"name": str(calendar["X-WR-CALNAME"]), "events": out}, sys.stdout)
"#;
    let read = run("/usr/bin/python3", &["-c", STRICT], text, home);
    let read: Value = serde_json::from_str(&read).unwrap();
    assert!(read["name"].as_str().unwrap().contains("übermäßig"));
    read["events"].as_array().unwrap().clone()
}

#[test]
fn a_strict_parser_reads_it_and_lines_are_folded_and_escaped() {
    let data = tempfile::tempdir().unwrap();
    let server = Server::start(data.path());
    save(&server, 1, 0);
    let text = server.get(LINES).body;
    assert!(text.starts_with("BEGIN:VCALENDAR\r\n") && text.ends_with("END:VCALENDAR\r\n"));
    for line in text.split("\r\n") {
        assert!(line.len() <= 75, "{} octets: {line}", line.len());
        assert!(!line.contains('\n'), "{line:?}");
    }
    let events = events(&text, data.path());
    assert!(events.len() > 80, "{}", events.len());
    let mut uids: Vec<&str> = events.iter().map(|e| e["uid"].as_str().unwrap()).collect();
    uids.sort_unstable();
    uids.dedup();
    assert_eq!(uids.len(), events.len());
    let sow = events
        .iter()
        .find(|e| e["uid"] == "sow-cucumber-plan-1@faint-sunrise.invalid")
        .unwrap();
    assert!(
        sow["summary"]
            .as_str()
            .unwrap()
            .contains("Äpfel, Birnen; und \\ noch")
    );
    // Whole days: no zone and no change of the clock touches them.
    assert_eq!(sow["start"].as_str().unwrap().len(), "2027-03-18".len());
    assert!(sow["note"].as_str().unwrap().contains("per cell"));
}

#[test]
fn who_measures_in_inches_reads_inches_and_fahrenheit() {
    let data = tempfile::tempdir().unwrap();
    let server = Server::start(data.path());
    let mut plan = server.get("/api/plans/1").json()["plan"].clone();
    plan["site"]["units"] = json!("us");
    let edit = json!({"base_revision": 1, "word": "measures in inches", "plan": plan});
    let saved = server.send("POST", "/api/plans/1/revisions", &edit.to_string());
    assert_eq!(saved.status, 201, "{saved:?}");
    let text = server.get(LINES).body.replace("\r\n ", "");
    assert!(text.contains("°F") && text.contains(" in deep"));
    assert!(!text.contains("°C") && !text.contains(" mm "));
}

#[test]
fn a_client_that_imports_it_again_moves_what_moved_and_doubles_nothing() {
    let data = tempfile::tempdir().unwrap();
    let server = Server::start(data.path());
    let home = data.path();
    let config = home.join("khal.conf");
    let calendar = home.join("garden");
    std::fs::create_dir_all(&calendar).unwrap();
    std::fs::write(
        &config,
        format!(
            "[calendars]\n[[garden]]\npath = {}\n[locale]\ndateformat = %Y-%m-%d\nlongdateformat = %Y-%m-%d\ntimeformat = %H:%M\ndatetimeformat = %Y-%m-%d %H:%M\nlongdatetimeformat = %Y-%m-%d %H:%M\n",
            calendar.display()
        ),
    )
    .unwrap();
    let config = config.display().to_string();
    let import = || {
        let file = home.join("jobs.ics");
        std::fs::write(&file, server.get(LINES).body).unwrap();
        let file = file.display().to_string();
        run(
            "khal",
            &["-c", &config, "import", "--batch", "-a", "garden", &file],
            "",
            home,
        );
        let listed = run(
            "khal",
            &[
                "-c",
                &config,
                "list",
                "--format",
                "{start-date} {uid}",
                "--day-format",
                "",
                "2027-01-01",
                "2027-07-01",
            ],
            "",
            home,
        );
        let mut lines: Vec<String> = listed
            .lines()
            .filter(|l| l.contains('@'))
            .map(str::to_owned)
            .collect();
        lines.sort();
        lines
    };
    let before = import();
    let sow = |lines: &[String]| {
        let mut found = lines.iter().filter(|l| l.contains(" sow-cucumber-plan-1@"));
        let line = found.next().expect("cucumbers are to be sown").clone();
        assert_eq!(found.next(), None);
        line[..10].to_owned()
    };
    assert!(before.len() > 80, "{}", before.len());
    save(&server, 1, 5);
    let after = import();
    assert_eq!(after.len(), before.len());
    let days = |day: String| day.parse::<jiff::civil::Date>().unwrap();
    let moved = days(sow(&before))
        .until(days(sow(&after)))
        .unwrap()
        .get_days();
    assert_eq!(moved, 5);
    // Undone, it moves back: the sequence grew all the same.
    let undo = json!({"base_revision": 2, "step": "undo"}).to_string();
    assert_eq!(server.send("POST", "/api/plans/1/step", &undo).status, 200);
    assert_eq!(import(), before);
}
