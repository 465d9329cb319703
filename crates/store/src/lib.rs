//! Plans and their revisions in SQLite.
//!
//! A plan is a chain of revisions, each with the whole document and a word about the edit. The
//! plan points at one of them: undo and redo move the pointer along the chain, an edit appends
//! behind it. Nothing is ever overwritten; a branch that an edit leaves behind stays in the history
//! and can be brought back. Only what is old and one of many is thinned out, and plans that were
//! deleted a month ago go.

mod file;
mod history;
mod migrations;

use std::path::{Path, PathBuf};

use jiff::Timestamp;
use rusqlite::{
    Connection, ErrorCode, OptionalExtension, Transaction, TransactionBehavior, params,
};
use serde::Serialize;
use sunrise_core::plan::{Plan, SoundPlan};
use sunrise_core::upgrade::upgraded;
use utoipa::ToSchema;

pub use file::Watch;
use history::History;

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
    /// The plan was deleted, and can still be brought back.
    #[error("plan {id} was deleted on {} and is kept until {}", day(*.at), day(kept_until(*.at)))]
    Deleted {
        /// The plan.
        id: i64,
        /// When it was deleted.
        at: Timestamp,
    },
    /// The file is damaged: nothing was changed in it.
    #[error("the database at {path} is damaged: {reason}")]
    Unsound {
        /// Where it is.
        path: String,
        /// What SQLite says.
        reason: String,
    },
    /// The file was deleted, moved or replaced since it was opened.
    #[error("the database at {path} is no longer there")]
    Gone {
        /// Where it was.
        path: String,
    },
    /// There is no room on the disk.
    #[error("the disk is full")]
    Full,
    /// A damaged file could not be set aside.
    #[error("the damaged database at {path} cannot be set aside: {reason}")]
    Stuck {
        /// Where it is.
        path: String,
        /// Why.
        reason: String,
    },
    /// SQLite refused.
    #[error("the database refused: {0}")]
    Sqlite(rusqlite::Error),
}

impl From<rusqlite::Error> for StoreError {
    fn from(error: rusqlite::Error) -> Self {
        match error.sqlite_error_code() {
            Some(ErrorCode::DiskFull) => Self::Full,
            _ => Self::Sqlite(error),
        }
    }
}

/// How long a deleted plan can be brought back.
pub const KEPT_DAYS: i64 = 30;

fn kept_until(deleted_at: Timestamp) -> Timestamp {
    let month = jiff::Span::new().hours(24 * KEPT_DAYS);
    deleted_at.checked_add(month).unwrap_or(Timestamp::MAX)
}

fn day(at: Timestamp) -> jiff::civil::Date {
    at.to_zoned(jiff::tz::TimeZone::UTC).date()
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
    /// Its name; what can be said of it when the document does not read.
    pub name: String,
    /// Whether its document reads.
    pub readable: bool,
    /// When it was last edited.
    #[schema(value_type = String, format = DateTime)]
    pub saved_at: Timestamp,
    /// When it was deleted; it is kept for 30 days from then on. `None` while it is in use.
    #[schema(value_type = Option<String>, format = DateTime)]
    pub deleted_at: Option<Timestamp>,
}

/// An edit in a plan's history.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Revision {
    /// Its number; numbers grow with time.
    pub number: i64,
    /// The revision that it changed; `None` for the first.
    pub parent: Option<i64>,
    /// What was done.
    pub word: String,
    /// When.
    #[schema(value_type = String, format = DateTime)]
    pub saved_at: Timestamp,
    /// Whether the plan stands here.
    pub current: bool,
    /// Whether it has been undone: redo leads to it.
    pub undone: bool,
    /// Whether it is on a branch that an edit after an undo left behind.
    pub aside: bool,
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
    watch: Watch,
    set_aside: Option<PathBuf>,
    tidied_at: Option<Timestamp>,
}

impl Store {
    /// Opens the database at `path`, making it or bringing it up to date as needed.
    ///
    /// # Errors
    /// When SQLite cannot open or migrate it, it is damaged, or a newer program wrote it.
    pub fn open(path: &Path) -> Result<Self, StoreError> {
        let (db, watch) = file::open(path)?;
        Ok(Self {
            db,
            watch,
            set_aside: None,
            tidied_at: None,
        })
    }

    /// The same as [`Store::open`], but a damaged database is moved out of the way, never
    /// overwritten, and an empty one begun in its place.
    ///
    /// # Errors
    /// As [`Store::open`]; [`StoreError::Stuck`] when the damaged file cannot be moved.
    pub fn open_or_set_aside(path: &Path, now: Timestamp) -> Result<Self, StoreError> {
        match Self::open(path) {
            Err(StoreError::Unsound { .. }) => {
                let aside = file::set_aside(path, now).map_err(|error| StoreError::Stuck {
                    path: path.display().to_string(),
                    reason: error.to_string(),
                })?;
                Ok(Self {
                    set_aside: Some(aside),
                    ..Self::open(path)?
                })
            }
            other => other,
        }
    }

    /// Where a damaged database was put when this one was opened.
    pub fn set_aside(&self) -> Option<&Path> {
        self.set_aside.as_deref()
    }

    /// Tells whether the file is still there.
    pub fn watch(&self) -> &Watch {
        &self.watch
    }

    /// All plans in use, the last edited first.
    ///
    /// # Errors
    /// When SQLite refuses.
    pub fn plans(&self) -> Result<Vec<PlanSummary>, StoreError> {
        self.summaries("deleted_at IS NULL")
    }

    /// The plans that were deleted and can be brought back, the last edited first.
    ///
    /// # Errors
    /// When SQLite refuses.
    pub fn deleted_plans(&self) -> Result<Vec<PlanSummary>, StoreError> {
        self.summaries("deleted_at IS NOT NULL")
    }

    fn summaries(&self, which: &str) -> Result<Vec<PlanSummary>, StoreError> {
        // One document that other hands have spoilt must not hide the rest.
        let mut statement = self.db.prepare(&format!(
            "SELECT plans.id, CASE WHEN json_valid(document) THEN document ->> '$.name' END,
                 coalesce(saved_at, 0), deleted_at
             FROM plans LEFT JOIN revisions ON revisions.plan = plans.id AND number = current
             WHERE {which}
             ORDER BY saved_at DESC, plans.id DESC"
        ))?;
        let rows = statement.query_map([], |row| {
            let id = row.get(0)?;
            let name: Option<String> = row.get(1).unwrap_or(None);
            Ok(PlanSummary {
                id,
                readable: name.is_some(),
                name: name.unwrap_or_else(|| format!("plan {id}, which cannot be read")),
                saved_at: from_micros(row.get(2)?),
                deleted_at: row.get::<_, Option<i64>>(3)?.map(from_micros),
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Deletes a plan; for [`KEPT_DAYS`] it can be brought back.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], or SQLite's refusal.
    pub fn delete(&mut self, id: i64, now: Timestamp) -> Result<(), StoreError> {
        let tx = self.transaction()?;
        let changed = tx.execute(
            "UPDATE plans SET deleted_at = coalesce(deleted_at, ?2) WHERE id = ?1",
            [id, now.as_microsecond()],
        )?;
        if changed == 0 {
            return Err(StoreError::NoPlan(id));
        }
        Ok(tx.commit()?)
    }

    /// Brings a deleted plan back.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], or SQLite's refusal.
    pub fn restore(&mut self, id: i64) -> Result<Snapshot, StoreError> {
        let tx = self.transaction()?;
        let changed = tx.execute("UPDATE plans SET deleted_at = NULL WHERE id = ?", [id])?;
        if changed == 0 {
            return Err(StoreError::NoPlan(id));
        }
        let snapshot = snapshot(&tx, id)?;
        tx.commit()?;
        Ok(snapshot)
    }

    /// Thins out old revisions and lets go of plans that were deleted a month ago, at most once a
    /// day; gives how many revisions went.
    ///
    /// # Errors
    /// SQLite's refusal.
    pub fn tidy(&mut self, now: Timestamp) -> Result<usize, StoreError> {
        let day = jiff::Span::new().hours(24);
        let due = |at: Timestamp| at.checked_add(day).is_ok_and(|due| due <= now);
        if !self.tidied_at.is_none_or(due) {
            return Ok(0);
        }
        let tx = self.transaction()?;
        let month = jiff::Span::new().hours(24 * KEPT_DAYS);
        let long_ago = now.checked_sub(month).unwrap_or(Timestamp::MIN);
        tx.execute_batch("PRAGMA defer_foreign_keys = ON")?;
        for sql in [
            "DELETE FROM revisions WHERE plan IN (SELECT id FROM plans WHERE deleted_at < ?)",
            "DELETE FROM plans WHERE deleted_at < ?",
        ] {
            tx.execute(sql, [long_ago.as_microsecond()])?;
        }
        let ids: Vec<i64> = {
            let mut statement = tx.prepare("SELECT id FROM plans")?;
            let ids = statement.query_map([], |row| row.get(0))?;
            ids.collect::<Result<_, _>>()?
        };
        let mut gone = 0;
        for id in ids {
            gone += history::thin(&tx, id, now)?;
        }
        tx.commit()?;
        self.tidied_at = Some(now);
        Ok(gone)
    }

    /// A revision of a plan, wherever it stands in the history, to be looked at.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], [`StoreError::NoStep`], [`StoreError::Damaged`], or SQLite's
    /// refusal.
    pub fn revision(&self, id: i64, number: i64) -> Result<Plan, StoreError> {
        in_use(&self.db, id)?;
        document(&self.db, id, number)
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

    /// Moves the plan along its history; [`Step::To`] may lead to a branch that was left behind.
    ///
    /// # Errors
    /// [`StoreError::Conflict`] as for [`Store::save`]; [`StoreError::NoStep`] at the chain's ends.
    pub fn step(&mut self, id: i64, base: i64, step: Step) -> Result<Snapshot, StoreError> {
        let tx = self.transaction()?;
        at_base(&tx, id, base)?;
        let history = History::read(&tx, id)?;
        let target = match step {
            Step::Undo => history.previous(),
            Step::Redo => history.next(),
            Step::To(number) => history.get(number),
        };
        let target = target.ok_or(StoreError::NoStep(match step {
            Step::Undo => "there is nothing to undo",
            Step::Redo => "there is nothing to redo",
            Step::To(_) => "that revision is not in this plan's history",
        }))?;
        tx.execute(
            "UPDATE plans SET current = ?2, tip = ?3, changes = changes + 1 WHERE id = ?1",
            [id, target.number, history.tip_of(target.number)],
        )?;
        let snapshot = snapshot(&tx, id)?;
        tx.commit()?;
        Ok(snapshot)
    }

    /// Every edit of the plan, the newest first: those that were undone, and those on branches
    /// that were left behind.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], or SQLite's refusal.
    pub fn history(&self, id: i64) -> Result<Vec<Revision>, StoreError> {
        in_use(&self.db, id)?;
        Ok(History::read(&self.db, id)?.revisions())
    }

    fn transaction(&mut self) -> Result<Transaction<'_>, StoreError> {
        self.watch.check()?;
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

/// Where the plan stands, if it is in use.
fn in_use(db: &Connection, id: i64) -> Result<i64, StoreError> {
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

fn at_base(tx: &Transaction<'_>, id: i64, base: i64) -> Result<(), StoreError> {
    let current = in_use(tx, id)?;
    if current == base {
        Ok(())
    } else {
        Err(StoreError::Conflict { current, base })
    }
}

/// The document of a revision, in today's form; as it lies it is left alone.
fn document(db: &Connection, id: i64, revision: i64) -> Result<Plan, StoreError> {
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

fn snapshot(db: &Connection, id: i64) -> Result<Snapshot, StoreError> {
    let revision = in_use(db, id)?;
    let history = History::read(db, id)?;
    let word = |entry: Option<&history::Entry>| entry.map(|entry| entry.word.clone());
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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_full_disk_is_told_from_other_trouble_and_keeps_nothing_by_halves() {
        let folder = tempfile::tempdir().unwrap();
        let mut store = Store::open(&folder.path().join("plans.db")).unwrap();
        let demo = include_str!("../../../demo/kettle-fen.json");
        let plan: Plan = serde_json::from_str(demo).unwrap();
        let plan = plan.check().unwrap();
        let now = Timestamp::UNIX_EPOCH;
        let id = store.create(&plan, "began", now).unwrap().id;
        let pages: i64 = store
            .db
            .pragma_query_value(None, "page_count", |row| row.get(0))
            .unwrap();
        store
            .db
            .pragma_update(None, "max_page_count", pages + 2)
            .unwrap();
        let full = store.save(id, 1, &plan, "one more", now).unwrap_err();
        assert!(matches!(full, StoreError::Full), "{full}");
        assert_eq!(store.history(id).unwrap().len(), 1);
        store
            .db
            .pragma_update(None, "max_page_count", pages + 1000)
            .unwrap();
        assert_eq!(
            store.save(id, 1, &plan, "one more", now).unwrap().revision,
            2
        );
    }
}
