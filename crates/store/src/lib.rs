//! Plans and their revisions in SQLite.
//!
//! A plan is a chain of revisions, each with the whole document and a word about the edit. The
//! plan points at one of them: undo and redo move the pointer along the chain, an edit appends
//! behind it. Nothing is ever overwritten; a branch that an edit leaves behind stays in the file.

mod migrations;

use std::path::Path;

use jiff::Timestamp;
use rusqlite::{Connection, OptionalExtension, Transaction, TransactionBehavior, params};
use serde::Serialize;
use sunrise_core::plan::{Plan, SoundPlan};
use sunrise_core::upgrade::upgraded;
use utoipa::ToSchema;

/// What can go wrong with the store.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// There is no such plan.
    #[error("there is no plan {0}")]
    NoPlan(i64),
    /// The plan has moved on since the revision that an edit was based on.
    #[error("the plan is at revision {current}; this edit was based on {base}")]
    Conflict {
        /// Where the plan is.
        current: i64,
        /// What the edit was based on.
        base: i64,
    },
    /// Undo at the first revision, redo at the last, or a revision that is not in the chain.
    #[error("{0}")]
    NoStep(&'static str),
    /// A stored document does not read; the database was changed by other hands.
    #[error("revision {revision} of plan {plan} does not read: {reason}")]
    Damaged {
        /// The plan.
        plan: i64,
        /// The revision.
        revision: i64,
        /// What is wrong with it.
        reason: String,
    },
    /// The database was written by a newer program.
    #[error("the database at {path} was written by a newer version of this program: use that one")]
    TooNew {
        /// Where the database is.
        path: String,
    },
    /// SQLite refused.
    #[error("the database refused: {0}")]
    Sqlite(#[from] rusqlite::Error),
}

/// A plan at its current revision.
#[derive(Debug, Clone, PartialEq)]
pub struct Snapshot {
    /// The plan's number.
    pub id: i64,
    /// The revision's number.
    pub revision: i64,
    /// How often the plan was edited, undone or redone: it only ever grows.
    pub changes: i64,
    /// When this revision was saved.
    pub saved_at: Timestamp,
    /// The document.
    pub plan: Plan,
    /// Word of the edit that undo would take back.
    pub undo: Option<String>,
    /// Word of the edit that redo would bring back.
    pub redo: Option<String>,
}

/// A plan in a list.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct PlanSummary {
    /// The plan's number.
    pub id: i64,
    /// Its name.
    pub name: String,
    /// When it was last edited.
    #[schema(value_type = String, format = DateTime)]
    pub saved_at: Timestamp,
}

/// An edit in a plan's history.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Revision {
    /// Its number; numbers grow with time.
    pub number: i64,
    /// What was done.
    pub word: String,
    /// When.
    #[schema(value_type = String, format = DateTime)]
    pub saved_at: Timestamp,
    /// Whether the plan stands here.
    pub current: bool,
    /// Whether it has been undone.
    pub undone: bool,
}

/// A step along a plan's chain of revisions.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Step {
    /// To the revision before.
    Undo,
    /// To the revision after.
    Redo,
    /// To the revision of this number.
    To(i64),
}

/// The database.
#[derive(Debug)]
pub struct Store {
    db: Connection,
}

impl Store {
    /// Opens the database at `path`, making it or bringing it up to date as needed.
    ///
    /// # Errors
    /// When SQLite cannot open or migrate it, or a newer program wrote it.
    pub fn open(path: &Path) -> Result<Self, StoreError> {
        let mut db = Connection::open(path)?;
        db.busy_timeout(std::time::Duration::from_secs(5))?;
        // A saved edit is on the disk before it is acknowledged.
        db.pragma_update(None, "journal_mode", "WAL")?;
        db.pragma_update(None, "synchronous", "FULL")?;
        db.pragma_update(None, "foreign_keys", true)?;
        migrations::run(&mut db, path)?;
        Ok(Self { db })
    }

    /// All plans, the last edited first.
    ///
    /// # Errors
    /// When SQLite refuses.
    pub fn plans(&self) -> Result<Vec<PlanSummary>, StoreError> {
        let mut statement = self.db.prepare(
            "SELECT plans.id, document ->> 'name', saved_at
             FROM plans JOIN revisions ON revisions.plan = plans.id AND number = current
             ORDER BY saved_at DESC, plans.id DESC",
        )?;
        let rows = statement.query_map([], |row| {
            Ok(PlanSummary {
                id: row.get(0)?,
                name: row.get(1)?,
                saved_at: from_micros(row.get(2)?),
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Keeps a new plan.
    ///
    /// # Errors
    /// When SQLite refuses.
    pub fn create(
        &mut self,
        plan: &SoundPlan,
        word: &str,
        now: Timestamp,
    ) -> Result<Snapshot, StoreError> {
        let tx = self.transaction()?;
        tx.execute("INSERT INTO plans (current, tip) VALUES (1, 1)", [])?;
        let id = tx.last_insert_rowid();
        insert_revision(&tx, id, 1, None, word, plan, now)?;
        let snapshot = snapshot(&tx, id)?;
        tx.commit()?;
        Ok(snapshot)
    }

    /// A plan at its current revision.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], [`StoreError::Damaged`], or SQLite's refusal.
    pub fn plan(&self, id: i64) -> Result<Snapshot, StoreError> {
        snapshot(&self.db, id)
    }

    /// Appends an edit behind revision `base`, which must be the current one.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] when the plan has moved on: nothing is changed then.
    pub fn save(
        &mut self,
        id: i64,
        base: i64,
        plan: &SoundPlan,
        word: &str,
        now: Timestamp,
    ) -> Result<Snapshot, StoreError> {
        let tx = self.transaction()?;
        at_base(&tx, id, base)?;
        let number: i64 = tx.query_row(
            "SELECT max(number) + 1 FROM revisions WHERE plan = ?",
            [id],
            |row| row.get(0),
        )?;
        insert_revision(&tx, id, number, Some(base), word, plan, now)?;
        tx.execute(
            "UPDATE plans SET current = ?2, tip = ?2, changes = changes + 1 WHERE id = ?1",
            [id, number],
        )?;
        let snapshot = snapshot(&tx, id)?;
        tx.commit()?;
        Ok(snapshot)
    }

    /// Moves the plan along its chain of revisions.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] as for [`Store::save`]; [`StoreError::NoStep`] at the chain's ends.
    pub fn step(&mut self, id: i64, base: i64, step: Step) -> Result<Snapshot, StoreError> {
        let tx = self.transaction()?;
        at_base(&tx, id, base)?;
        let chain = chain(&tx, id)?;
        let here = chain
            .iter()
            .position(|revision| revision.current)
            .ok_or(StoreError::NoStep("this plan has lost its place"))?;
        let target = match step {
            Step::Undo => here.checked_add(1).and_then(|i| chain.get(i)),
            Step::Redo => here.checked_sub(1).and_then(|i| chain.get(i)),
            Step::To(number) => chain.iter().find(|revision| revision.number == number),
        };
        let target = target.ok_or(StoreError::NoStep(match step {
            Step::Undo => "there is nothing to undo",
            Step::Redo => "there is nothing to redo",
            Step::To(_) => "that revision is not in this plan's history",
        }))?;
        tx.execute(
            "UPDATE plans SET current = ?2, changes = changes + 1 WHERE id = ?1",
            [id, target.number],
        )?;
        let snapshot = snapshot(&tx, id)?;
        tx.commit()?;
        Ok(snapshot)
    }

    /// The plan's edits, the newest first, with those that were undone.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], or SQLite's refusal.
    pub fn history(&self, id: i64) -> Result<Vec<Revision>, StoreError> {
        chain(&self.db, id)
    }

    fn transaction(&mut self) -> Result<Transaction<'_>, StoreError> {
        // Immediate: the check of the base and the write see the same state.
        Ok(self
            .db
            .transaction_with_behavior(TransactionBehavior::Immediate)?)
    }
}

fn from_micros(micros: i64) -> Timestamp {
    Timestamp::from_microsecond(micros).unwrap_or_default()
}

fn insert_revision(
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

fn current(db: &Connection, id: i64) -> Result<i64, StoreError> {
    db.query_row("SELECT current FROM plans WHERE id = ?", [id], |row| {
        row.get(0)
    })
    .optional()?
    .ok_or(StoreError::NoPlan(id))
}

fn at_base(tx: &Transaction<'_>, id: i64, base: i64) -> Result<(), StoreError> {
    let current = current(tx, id)?;
    if current == base {
        Ok(())
    } else {
        Err(StoreError::Conflict { current, base })
    }
}

/// From the newest revision of the plan's line back to the first.
fn chain(db: &Connection, id: i64) -> Result<Vec<Revision>, StoreError> {
    let current = current(db, id)?;
    let mut statement = db.prepare_cached(
        "WITH RECURSIVE line (number, parent, word, saved_at) AS (
             SELECT number, parent, word, saved_at FROM revisions
             WHERE plan = ?1 AND number = (SELECT tip FROM plans WHERE id = ?1)
             UNION ALL
             SELECT r.number, r.parent, r.word, r.saved_at
             FROM revisions r JOIN line ON r.plan = ?1 AND r.number = line.parent
         )
         SELECT number, word, saved_at FROM line ORDER BY number DESC",
    )?;
    let rows = statement.query_map([id], |row| {
        let number: i64 = row.get(0)?;
        Ok(Revision {
            number,
            word: row.get(1)?,
            saved_at: from_micros(row.get(2)?),
            current: number == current,
            undone: number > current,
        })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}

fn snapshot(db: &Connection, id: i64) -> Result<Snapshot, StoreError> {
    let chain = chain(db, id)?;
    let here = chain.iter().position(|r| r.current).unwrap_or_default();
    let revision = chain.get(here).map_or(0, |r| r.number);
    let document: String = db.query_row(
        "SELECT document FROM revisions WHERE plan = ? AND number = ?",
        [id, revision],
        |row| row.get(0),
    )?;
    // Kept by an earlier version of this program: read in today's form, left as it lies.
    let read = serde_json::from_str(&document).map(upgraded);
    let plan = read
        .and_then(serde_json::from_value)
        .map_err(|e| StoreError::Damaged {
            plan: id,
            revision,
            reason: e.to_string(),
        })?;
    // The first revision has no edit to take back.
    let undo = (here + 1 < chain.len()).then(|| chain[here].word.clone());
    let redo = here.checked_sub(1).map(|i| chain[i].word.clone());
    let changes = db.query_row("SELECT changes FROM plans WHERE id = ?", [id], |row| {
        row.get(0)
    })?;
    Ok(Snapshot {
        id,
        revision,
        changes,
        saved_at: chain.get(here).map(|r| r.saved_at).unwrap_or_default(),
        plan,
        undo,
        redo,
    })
}
