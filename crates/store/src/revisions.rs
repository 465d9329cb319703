//! Revisions of a plan: kept, stepped along, looked at.

use jiff::Timestamp;
use sunrise_core::plan::{Plan, SoundPlan};

use crate::error::StoreError;
use crate::history::History;
use crate::records::{Revision, Snapshot, Step};
use crate::rows::{append, at_base, document, in_use, insert_revision, snapshot};
use crate::store::Store;

impl Store {
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
        append(&tx, id, base, plan, word, now)?;
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
}
