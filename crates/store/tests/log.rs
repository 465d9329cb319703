//! What happens to entries of the log: kept once, in order, found again.

use jiff::civil::date;
use jiff::{Span, Timestamp};
use sunrise_core::log::entry::Entry;
use sunrise_core::log::fact::Fact;
use sunrise_core::plan::Plan;
use sunrise_store::{Kept, LogQuery, Store, StoreError};

fn begun(dir: &tempfile::TempDir) -> (Store, i64) {
    let demo = include_str!("../../../demo/kettle-fen.json");
    let plan: Plan = serde_json::from_str(demo).unwrap();
    let mut store = Store::open(&dir.path().join("plans.db")).unwrap();
    let plan = plan.check().unwrap();
    let id = store
        .create(&plan, "began", Timestamp::UNIX_EPOCH)
        .unwrap()
        .id;
    (store, id)
}

fn watered(id: &str, day: i8, tray: &str, text: &str) -> Entry {
    Entry {
        id: id.into(),
        on: date(2027, 3, day),
        at_h: None,
        corrects: None,
        fact: Some(Fact::Watered {
            tray: tray.into(),
            water_ml: Some(250.0),
        }),
        text: text.into(),
        photo: None,
    }
}

fn all() -> LogQuery {
    LogQuery {
        limit: 1000,
        ..LogQuery::default()
    }
}

fn ids(store: &Store, plan: i64, query: &LogQuery) -> Vec<String> {
    let found = store.log(plan, query).unwrap().into_iter();
    found.map(|kept| kept.entry.id).collect()
}

#[test]
fn what_comes_twice_is_kept_once_and_what_differs_is_not_taken_for_it() {
    let dir = tempfile::tempdir().unwrap();
    let (mut store, plan) = begun(&dir);
    let now = Timestamp::UNIX_EPOCH;
    let entry = watered("a", 1, "tc1", "");
    let both = [entry.clone(), entry.clone()];
    assert_eq!(
        store.note(plan, &both, now).unwrap(),
        [Kept::New, Kept::Before]
    );
    let other = watered("a", 2, "tc1", "");
    assert_eq!(store.note(plan, &[other], now).unwrap(), [Kept::Taken]);
    assert_eq!(ids(&store, plan, &all()), ["a"]);
    assert!(store.has_noted(plan, "a").unwrap() && !store.has_noted(plan, "b").unwrap());
    // Another plan has a log of its own.
    let demo = store.log(plan, &all()).unwrap();
    assert_eq!(demo[0].entry, entry);
    let none = store.note(99, &[entry], now).unwrap_err();
    assert!(matches!(none, StoreError::NoPlan(99)), "{none}");
}

#[test]
fn entries_are_found_by_tray_kind_text_and_day() {
    let dir = tempfile::tempdir().unwrap();
    let (mut store, plan) = begun(&dir);
    let potted = Entry {
        fact: Some(Fact::PottedOn {
            tray: "tc1".into(),
            into: "tp1".into(),
            plants: 18,
        }),
        ..watered("p", 5, "tc1", "100 % up, roots_white")
    };
    let entries = [
        watered("a", 1, "tc1", ""),
        watered("b", 3, "pe1", "Dry at the EDGE"),
        potted,
    ];
    store.note(plan, &entries, Timestamp::UNIX_EPOCH).unwrap();
    let by = |change: fn(&mut LogQuery)| {
        let mut query = all();
        change(&mut query);
        ids(&store, plan, &query)
    };
    assert_eq!(by(|_| ()), ["p", "b", "a"]);
    assert_eq!(by(|q| q.tray = Some("tc1".into())), ["p", "a"]);
    assert_eq!(by(|q| q.tray = Some("tp1".into())), ["p"]);
    assert_eq!(by(|q| q.kind = Some("watered".into())), ["b", "a"]);
    assert_eq!(by(|q| q.text = Some("edge".into())), ["b"]);
    // Signs that SQL reads otherwise are meant as they stand.
    assert_eq!(by(|q| q.text = Some("100 %".into())), ["p"]);
    assert_eq!(by(|q| q.text = Some("s_w".into())), ["p"]);
    assert_eq!(by(|q| q.text = Some("a_e".into())), Vec::<String>::new());
    assert_eq!(by(|q| q.from = Some(date(2027, 3, 3))), ["p", "b"]);
    assert_eq!(by(|q| q.to = Some(date(2027, 3, 3))), ["b", "a"]);
    assert_eq!(
        by(|q| (q.text, q.found) = (Some("edge".into()), vec!["tc1".into()])),
        ["p", "b", "a"]
    );
    let last = &store.log(plan, &all()).unwrap()[0];
    let earlier = LogQuery {
        before: Some((last.entry.on, last.number)),
        limit: 1,
        ..all()
    };
    assert_eq!(ids(&store, plan, &earlier), ["b"]);
}

/// A phone sends what it noted again and again, in any order, while the server goes down between.
#[test]
fn two_hundred_orders_of_sending_losing_and_sending_again_lose_and_double_nothing() {
    let mut drawn = fastrand::Rng::with_seed(19);
    for _ in 0..200 {
        let dir = tempfile::tempdir().unwrap();
        let (mut store, plan) = begun(&dir);
        let noted: Vec<Entry> = (0..8)
            .map(|i| watered(&format!("e{i}"), 1 + i, "tc1", ""))
            .collect();
        let mut queue: Vec<usize> = (0..noted.len()).collect();
        while !queue.is_empty() {
            let n = drawn.usize(1..=queue.len());
            drawn.shuffle(&mut queue);
            let sent: Vec<Entry> = queue[..n].iter().map(|&i| noted[i].clone()).collect();
            let arrives = drawn.u8(..4) > 0;
            if arrives {
                store.note(plan, &sent, Timestamp::UNIX_EPOCH).unwrap();
            }
            if drawn.u8(..4) == 0 {
                drop(store);
                store = Store::open(&dir.path().join("plans.db")).unwrap();
            }
            // The answer may get lost too: then the same is sent again.
            if arrives && drawn.u8(..3) > 0 {
                queue.drain(..n);
            }
        }
        let mut kept = ids(&store, plan, &all());
        kept.sort();
        let all: Vec<String> = noted.iter().map(|entry| entry.id.clone()).collect();
        assert_eq!(kept, all);
    }
}

#[test]
fn a_plan_that_is_let_go_takes_its_log_along() {
    let dir = tempfile::tempdir().unwrap();
    let (mut store, plan) = begun(&dir);
    let now = Timestamp::UNIX_EPOCH;
    store
        .note(plan, &[watered("a", 1, "tc1", "")], now)
        .unwrap();
    store.delete(plan, now).unwrap();
    let gone = store.log(plan, &all()).unwrap_err();
    assert!(matches!(gone, StoreError::Deleted { .. }), "{gone}");
    store.tidy(now + Span::new().hours(24 * 40)).unwrap();
    let gone = store.log(plan, &all()).unwrap_err();
    assert!(matches!(gone, StoreError::NoPlan(_)), "{gone}");
    assert!(!store.has_noted(plan, "a").unwrap());
}
