//! Reading and writing rows, within a transaction of its caller.

use jiff::Timestamp;
use rusqlite::{Connection, OptionalExtension, Transaction, params};
use sunrise_core::plan::upgrade::upgraded;
use sunrise_core::plan::{Plan, SoundPlan};

use crate::error::StoreError;
use crate::history::{Entry, History};
use crate::records::{Snapshot, from_micros};

pub(crate) fn insert_revision(
    tx: &Transaction<'_>,
    plan_id: i64,
    number: i64,
    parent: Option<i64>,
    word: &str,
    plan: &SoundPlan,
    now: Timestamp,
) -> Result<(), StoreError> {
    let document = serde_json::to_string(&**plan).expect("a plan serialises");
    tx.execute(
        "INSERT INTO revisions (plan, number, parent, word, document, saved_at)
         VALUES (?, ?, ?, ?, ?, ?)",
        params![
            plan_id,
            number,
            parent,
            word,
            document,
            now.as_microsecond()
        ],
    )?;
    Ok(())
}

/// Appends an edit behind revision `base`, which is the current one.
pub(crate) fn append(
    tx: &Transaction<'_>,
    id: i64,
    base: i64,
    plan: &SoundPlan,
    word: &str,
    now: Timestamp,
) -> Result<(), StoreError> {
    let number: i64 = tx.query_row(
        "SELECT max(number) + 1 FROM revisions WHERE plan = ?",
        [id],
        |row| row.get(0),
    )?;
    insert_revision(tx, id, number, Some(base), word, plan, now)?;
    tx.execute(
        "UPDATE plans SET current = ?2, tip = ?2, changes = changes + 1 WHERE id = ?1",
        [id, number],
    )?;
    Ok(())
}

/// Where the plan stands, if it is in use.
pub(crate) fn in_use(db: &Connection, id: i64) -> Result<i64, StoreError> {
    let plan = db
        .query_row(
            "SELECT current, deleted_at FROM plans WHERE id = ?",
            [id],
            |row| Ok((row.get(0)?, row.get::<_, Option<i64>>(1)?)),
        )
        .optional()?;
    match plan.ok_or(StoreError::NoPlan(id))? {
        (current, None) => Ok(current),
        (_, Some(at)) => Err(StoreError::Deleted {
            id,
            at: from_micros(at),
        }),
    }
}

pub(crate) fn at_base(tx: &Transaction<'_>, id: i64, base: i64) -> Result<(), StoreError> {
    let current = in_use(tx, id)?;
    if current == base {
        Ok(())
    } else {
        Err(StoreError::Conflict { current, base })
    }
}

/// The document of a revision, in today's form; as it lies it is left alone.
pub(crate) fn document(db: &Connection, id: i64, revision: i64) -> Result<Plan, StoreError> {
    let document: Option<String> = db
        .query_row(
            "SELECT document FROM revisions WHERE plan = ? AND number = ?",
            [id, revision],
            |row| row.get(0),
        )
        .optional()?;
    let document = document.ok_or(StoreError::NoStep(
        "that revision is not in this plan's history",
    ))?;
    // Straight into a plan; only what an earlier version of this program kept takes the long way.
    serde_json::from_str(&document)
        .or_else(|_| {
            let read = serde_json::from_str(&document).map(upgraded);
            read.and_then(serde_json::from_value)
        })
        .map_err(|error| StoreError::Damaged {
            plan: id,
            revision,
            reason: error.to_string(),
        })
}

pub(crate) fn snapshot(db: &Connection, id: i64) -> Result<Snapshot, StoreError> {
    let revision = in_use(db, id)?;
    let history = History::read(db, id)?;
    let word = |entry: Option<&Entry>| entry.map(|entry| entry.word.clone());
    // The first revision has no edit to take back.
    let undo = history.previous().and(history.current());
    let changes = db.query_row("SELECT changes FROM plans WHERE id = ?", [id], |row| {
        row.get(0)
    })?;
    Ok(Snapshot {
        id,
        revision,
        changes,
        saved_at: history.current().map(|r| r.saved_at).unwrap_or_default(),
        plan: document(db, id, revision)?,
        undo: word(undo),
        redo: word(history.next()),
    })
}
