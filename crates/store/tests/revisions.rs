//! Plans, edits, undo and redo, conflicts, and what survives a crash.

use jiff::Timestamp;
use rusqlite::Connection;
use sunrise_core::plan::{Plan, SoundPlan};
use sunrise_store::{Step, Store, StoreError};
use tempfile::TempDir;

fn plan(name: &str) -> SoundPlan {
    let mut plan: Plan =
        serde_json::from_str(include_str!("../../../demo/kettle-fen.json")).unwrap();
    plan.name = name.into();
    plan.check().unwrap()
}

fn store() -> (TempDir, Store) {
    let dir = tempfile::tempdir().unwrap();
    let store = Store::open(&dir.path().join("plans.db")).unwrap();
    (dir, store)
}

const NOW: Timestamp = Timestamp::UNIX_EPOCH;

#[test]
fn edits_append_and_undo_gives_the_same_bytes_back() {
    let (_dir, mut store) = store();
    let first = store.create(&plan("one"), "began", NOW).unwrap();
    let second = store
        .save(first.id, first.revision, &plan("two"), "renamed", NOW)
        .unwrap();
    assert_eq!(second.undo.as_deref(), Some("renamed"));
    let undone = store.step(first.id, second.revision, Step::Undo).unwrap();
    let bytes = |p: &Plan| serde_json::to_string(p).unwrap();
    assert_eq!(bytes(&undone.plan), bytes(&plan("one")));
    assert_eq!(
        (undone.undo, undone.redo.as_deref()),
        (None, Some("renamed"))
    );
    let redone = store.step(first.id, undone.revision, Step::Redo).unwrap();
    assert_eq!(bytes(&redone.plan), bytes(&plan("two")));
}

#[test]
fn an_edit_after_undo_begins_a_new_line_and_keeps_the_old_one_in_the_file() {
    let (dir, mut store) = store();
    let id = store.create(&plan("a"), "began", NOW).unwrap().id;
    store.save(id, 1, &plan("b"), "to b", NOW).unwrap();
    store.save(id, 2, &plan("c"), "to c", NOW).unwrap();
    store.step(id, 3, Step::Undo).unwrap();
    let branched = store.save(id, 2, &plan("d"), "to d", NOW).unwrap();
    assert_eq!(branched.redo, None);
    let words: Vec<String> = store
        .history(id)
        .unwrap()
        .into_iter()
        .filter(|r| !r.aside)
        .map(|r| r.word)
        .collect();
    assert_eq!(words, ["to d", "to b", "began"]);
    let kept: i64 = Connection::open(dir.path().join("plans.db"))
        .unwrap()
        .query_row("SELECT count(*) FROM revisions", [], |row| row.get(0))
        .unwrap();
    assert_eq!(kept, 4);
}

#[test]
fn one_can_go_to_any_revision_of_the_line() {
    let (_dir, mut store) = store();
    let id = store.create(&plan("a"), "began", NOW).unwrap().id;
    for (base, name) in [(1, "b"), (2, "c"), (3, "d")] {
        store.save(id, base, &plan(name), name, NOW).unwrap();
    }
    let snapshot = store.step(id, 4, Step::To(2)).unwrap();
    assert_eq!(snapshot.plan.name, "b");
    assert_eq!(snapshot.redo.as_deref(), Some("c"));
    let history = store.history(id).unwrap();
    assert!(history[1].undone && history[2].current && !history[3].undone);
    assert!(matches!(
        store.step(id, 2, Step::To(99)),
        Err(StoreError::NoStep(_))
    ));
}

#[test]
fn an_edit_on_an_old_revision_is_a_conflict_and_changes_nothing() {
    let (_dir, mut store) = store();
    let id = store.create(&plan("a"), "began", NOW).unwrap().id;
    store.save(id, 1, &plan("mine"), "mine", NOW).unwrap();
    let error = store
        .save(id, 1, &plan("theirs"), "theirs", NOW)
        .unwrap_err();
    assert!(matches!(
        error,
        StoreError::Conflict {
            current: 2,
            base: 1
        }
    ));
    assert_eq!(store.plan(id).unwrap().plan.name, "mine");
    assert!(matches!(
        store.step(id, 1, Step::Undo),
        Err(StoreError::Conflict { .. })
    ));
}

#[test]
fn the_ends_of_the_chain_and_unknown_plans_are_said() {
    let (_dir, mut store) = store();
    let id = store.create(&plan("a"), "began", NOW).unwrap().id;
    assert!(matches!(
        store.step(id, 1, Step::Undo),
        Err(StoreError::NoStep(_))
    ));
    assert!(matches!(
        store.step(id, 1, Step::Redo),
        Err(StoreError::NoStep(_))
    ));
    assert!(matches!(store.plan(77), Err(StoreError::NoPlan(77))));
}

#[test]
fn a_half_written_save_leaves_the_last_whole_one() {
    let (dir, mut store) = store();
    let path = dir.path().join("plans.db");
    let id = store.create(&plan("whole"), "began", NOW).unwrap().id;
    drop(store);

    // A writer that dies between the revision and the plan's pointer: its log has the pages, its
    // commit never came. Copying the files while it is open is what a power cut leaves behind.
    let mut dying = Connection::open(&path).unwrap();
    dying.pragma_update(None, "cache_size", 1).unwrap();
    let tx = dying.transaction().unwrap();
    for number in 2..40 {
        tx.execute(
            "INSERT INTO revisions (plan, number, parent, word, document, saved_at)
             SELECT plan, ?, 1, 'half', document, 0 FROM revisions WHERE number = 1",
            [number],
        )
        .unwrap();
    }
    let after = tempfile::tempdir().unwrap();
    for file in ["plans.db", "plans.db-wal"] {
        std::fs::copy(dir.path().join(file), after.path().join(file)).unwrap();
    }
    let log = std::fs::metadata(after.path().join("plans.db-wal")).unwrap();
    assert!(log.len() > 0, "nothing had been half written");

    let mut store = Store::open(&after.path().join("plans.db")).unwrap();
    assert_eq!(store.history(id).unwrap().len(), 1);
    let saved = store.save(id, 1, &plan("next"), "next", NOW).unwrap();
    assert_eq!(saved.revision, 2);
}

#[test]
fn the_database_is_durable_and_keeps_its_references() {
    let (dir, mut store) = store();
    store.create(&plan("a"), "began", NOW).unwrap();
    let db = Connection::open(dir.path().join("plans.db")).unwrap();
    let mode: String = db
        .pragma_query_value(None, "journal_mode", |row| row.get(0))
        .unwrap();
    assert_eq!(mode, "wal");
    db.pragma_update(None, "foreign_keys", true).unwrap();
    assert!(db.execute("UPDATE plans SET current = 9", []).is_err());
}
