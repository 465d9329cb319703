//! What happens to the file, to old revisions, and to plans that were deleted.

use jiff::{Span, Timestamp};
use rusqlite::Connection;
use sunrise_core::plan::{Plan, SoundPlan};
use sunrise_store::{Step, Store, StoreError};

fn plan(name: &str) -> SoundPlan {
    let mut plan: Plan =
        serde_json::from_str(include_str!("../../../demo/kettle-fen.json")).unwrap();
    plan.name = name.into();
    plan.check().unwrap()
}

fn at(day: i64, hour: i64) -> Timestamp {
    let begin: Timestamp = "2027-01-01T06:00:00Z".parse().unwrap();
    begin + Span::new().hours(24 * day + hour)
}

fn words(store: &Store, id: i64) -> Vec<String> {
    let history = store.history(id).unwrap();
    history.into_iter().map(|revision| revision.word).collect()
}

#[test]
fn what_an_edit_left_behind_is_in_the_history_and_can_be_brought_back() {
    let dir = tempfile::tempdir().unwrap();
    let mut store = Store::open(&dir.path().join("plans.db")).unwrap();
    let id = store.create(&plan("a"), "began", at(0, 0)).unwrap().id;
    store.save(id, 1, &plan("b"), "to b", at(0, 1)).unwrap();
    store.save(id, 2, &plan("c"), "to c", at(0, 2)).unwrap();
    store.step(id, 3, Step::To(1)).unwrap();
    store.save(id, 1, &plan("d"), "to d", at(0, 3)).unwrap();
    let history = store.history(id).unwrap();
    assert_eq!(words(&store, id), ["to d", "to c", "to b", "began"]);
    let aside: Vec<bool> = history.iter().map(|r| r.aside).collect();
    assert_eq!(aside, [false, true, true, false]);
    assert_eq!(history[1].parent, Some(2));
    assert_eq!(store.revision(id, 3).unwrap().name, "c");
    // Back to the middle of the branch: redo leads to its end, and the other line is aside.
    let back = store.step(id, 4, Step::To(2)).unwrap();
    assert_eq!(
        (back.plan.name.as_str(), back.redo.as_deref()),
        ("b", Some("to c"))
    );
    assert_eq!(store.step(id, 2, Step::Redo).unwrap().plan.name, "c");
    assert!(store.history(id).unwrap()[0].aside);
    let none = store.step(id, 3, Step::To(77)).unwrap_err();
    assert!(matches!(none, StoreError::NoStep(_)), "{none}");
}

#[test]
fn old_revisions_are_thinned_and_the_line_holds() {
    let dir = tempfile::tempdir().unwrap();
    let mut store = Store::open(&dir.path().join("plans.db")).unwrap();
    let id = store.create(&plan("0"), "began", at(0, 0)).unwrap().id;
    let mut base = 1;
    for day in 0..60 {
        for hour in 1..4 {
            let word = format!("{day}.{hour}");
            base = store
                .save(id, base, &plan(&word), &word, at(day, hour))
                .unwrap()
                .revision;
        }
    }
    // Nothing is old yet; then all but the last of each day goes, and what is young stays.
    assert_eq!(store.tidy(at(20, 0)).unwrap(), 0);
    let gone = store.tidy(at(60, 0)).unwrap();
    assert_eq!(gone, 30 * 2 + 2);
    let left = words(&store, id);
    assert_eq!(left.first().map(String::as_str), Some("59.3"));
    assert_eq!(left.last().map(String::as_str), Some("began"));
    assert!(left.contains(&"3.3".into()) && !left.contains(&"3.2".into()));
    assert!(left.contains(&"45.1".into()));
    // Undo goes on to the beginning, over what went.
    let mut steps = 0;
    let mut here = base;
    while let Ok(view) = store.step(id, here, Step::Undo) {
        here = view.revision;
        steps += 1;
    }
    assert_eq!((here, steps), (1, left.len() - 1));
    // Not twice a day; a year later the last of each week is left.
    assert_eq!(store.tidy(at(60, 5)).unwrap(), 0);
    store.tidy(at(800, 0)).unwrap();
    assert!(
        (8..=13).contains(&words(&store, id).len()),
        "{:?}",
        words(&store, id)
    );
}

#[test]
fn a_deleted_plan_can_be_brought_back_for_a_month() {
    let dir = tempfile::tempdir().unwrap();
    let mut store = Store::open(&dir.path().join("plans.db")).unwrap();
    let id = store.create(&plan("a"), "began", at(0, 0)).unwrap().id;
    let other = store.create(&plan("b"), "began", at(0, 1)).unwrap().id;
    store.delete(id, at(1, 0)).unwrap();
    assert_eq!(store.plans().unwrap().len(), 1);
    assert_eq!(store.deleted_plans().unwrap()[0].name, "a");
    let error = store.plan(id).unwrap_err().to_string();
    assert!(
        error.contains("2027-01-02") && error.contains("2027-02-01"),
        "{error}"
    );
    let refused = store.save(id, 1, &plan("c"), "to c", at(1, 1)).unwrap_err();
    assert!(matches!(refused, StoreError::Deleted { .. }));
    assert_eq!(store.restore(id).unwrap().plan.name, "a");
    store.delete(id, at(2, 0)).unwrap();
    store.tidy(at(31, 0)).unwrap();
    assert_eq!(store.deleted_plans().unwrap().len(), 1);
    store.tidy(at(33, 0)).unwrap();
    assert_eq!(store.deleted_plans().unwrap(), []);
    assert!(matches!(store.restore(id), Err(StoreError::NoPlan(_))));
    assert_eq!(store.plan(other).unwrap().plan.name, "b");
    assert!(matches!(
        store.delete(99, at(0, 0)),
        Err(StoreError::NoPlan(99))
    ));
}

#[test]
fn one_spoilt_document_hides_no_other_plan_and_none_of_its_own_past() {
    let dir = tempfile::tempdir().unwrap();
    let path = dir.path().join("plans.db");
    let mut store = Store::open(&path).unwrap();
    let id = store.create(&plan("a"), "began", at(0, 0)).unwrap().id;
    store.save(id, 1, &plan("b"), "to b", at(0, 1)).unwrap();
    store.create(&plan("other"), "began", at(0, 2)).unwrap();
    let db = Connection::open(&path).unwrap();
    for spoilt in ["'{\"schema_version\": 3}'", "'[]'"] {
        let sql =
            format!("UPDATE revisions SET document = {spoilt} WHERE plan = {id} AND number = 2");
        db.execute(&sql, []).unwrap();
        let plans = store.plans().unwrap();
        let readable: Vec<bool> = plans.iter().map(|plan| plan.readable).collect();
        assert_eq!(readable, [true, false], "{plans:?}");
        assert!(matches!(
            store.plan(id),
            Err(StoreError::Damaged { revision: 2, .. })
        ));
    }
    assert_eq!(store.step(id, 2, Step::To(1)).unwrap().plan.name, "a");
}

#[test]
fn a_damaged_file_is_set_aside_and_never_overwritten() {
    let dir = tempfile::tempdir().unwrap();
    let path = dir.path().join("plans.db");
    for (n, damage) in [b"this is no database at all, but a letter".to_vec(), {
        // A real one with its middle blotted out.
        let mut store = Store::open(&path).unwrap();
        store.create(&plan("a"), "began", at(0, 0)).unwrap();
        drop(store);
        Connection::open(&path)
            .unwrap()
            .pragma_update(None, "wal_checkpoint", "TRUNCATE")
            .ok();
        let mut bytes = std::fs::read(&path).unwrap();
        let middle = 4096..(bytes.len() - 4096);
        bytes[middle].fill(0x5a);
        std::fs::remove_file(&path).unwrap();
        bytes
    }]
    .into_iter()
    .enumerate()
    {
        std::fs::write(&path, &damage).unwrap();
        assert!(
            matches!(Store::open(&path), Err(StoreError::Unsound { .. })),
            "{n}"
        );
        assert_eq!(std::fs::read(&path).unwrap(), damage);
        let mut store = Store::open_or_set_aside(&path, at(0, 0)).unwrap();
        let aside = store.set_aside().expect("it was damaged").to_owned();
        assert_eq!(std::fs::read(&aside).unwrap(), damage);
        assert_eq!(store.plans().unwrap(), []);
        store.create(&plan("new"), "began", at(0, 0)).unwrap();
        drop(store);
        std::fs::remove_file(&path).unwrap();
    }
    let aside = std::fs::read_dir(dir.path()).unwrap();
    let names: Vec<String> = aside
        .map(|e| e.unwrap().file_name().into_string().unwrap())
        .collect();
    assert_eq!(
        names
            .iter()
            .filter(|name| name.contains(".damaged-2027"))
            .count(),
        2,
        "{names:?}"
    );
}

#[test]
fn a_file_that_is_gone_or_another_takes_no_edits() {
    let dir = tempfile::tempdir().unwrap();
    let path = dir.path().join("plans.db");
    let mut store = Store::open(&path).unwrap();
    let id = store.create(&plan("a"), "began", at(0, 0)).unwrap().id;
    assert!(store.watch().check().is_ok());
    let kept = std::fs::read(&path).unwrap();
    std::fs::remove_file(&path).unwrap();
    let gone = store.save(id, 1, &plan("b"), "to b", at(0, 1)).unwrap_err();
    assert!(matches!(gone, StoreError::Gone { .. }), "{gone}");
    // Another file under the same name is not the one that was opened.
    std::fs::write(&path, kept).unwrap();
    assert!(matches!(
        store.watch().check(),
        Err(StoreError::Gone { .. })
    ));
    assert!(matches!(
        store.delete(id, at(0, 2)),
        Err(StoreError::Gone { .. })
    ));
}

#[test]
fn a_plan_that_an_earlier_version_kept_is_of_today_when_it_is_read() {
    let dir = tempfile::tempdir().unwrap();
    let file = dir.path().join("plans.db");
    let mut store = Store::open(&file).unwrap();
    let id = store.create(&plan("old"), "began", at(0, 0)).unwrap().id;
    let old = include_str!("../../core/fixtures/kettle-fen-v2.json");
    let db = Connection::open(&file).unwrap();
    let changed = db.execute(
        "UPDATE revisions SET document = ? WHERE plan = ?",
        (old, id),
    );
    assert_eq!(changed.unwrap(), 1);
    let read = store.plan(id).unwrap().plan;
    assert_eq!(read.schema_version, 3);
    assert!(read.check().is_ok());
}
