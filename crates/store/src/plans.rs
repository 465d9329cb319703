//! Plans: listed, deleted, brought back, and tidied up.

use jiff::Timestamp;

use crate::error::StoreError;
use crate::records::{KEPT_DAYS, PlanSummary, Snapshot, from_micros};
use crate::rows::{in_use, snapshot};
use crate::store::Store;

impl Store {
    /// All plans in use, the last edited first, then those that are set aside.
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
                 coalesce(saved_at, 0), deleted_at, aside
             FROM plans LEFT JOIN revisions ON revisions.plan = plans.id AND number = current
             WHERE {which}
             ORDER BY aside, saved_at DESC, plans.id DESC"
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
                aside: row.get(4)?,
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

    /// Sets a plan aside, or takes it back to hand.
    ///
    /// # Errors
    /// [`StoreError::NoPlan`], [`StoreError::Deleted`], or SQLite's refusal.
    pub fn set_aside_plan(&mut self, id: i64, aside: bool) -> Result<(), StoreError> {
        let tx = self.transaction()?;
        in_use(&tx, id)?;
        tx.execute("UPDATE plans SET aside = ?2 WHERE id = ?1", (id, aside))?;
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
        crate::log::forget(&tx, "deleted_at < ?", long_ago.as_microsecond())?;
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
            gone += crate::history::thin(&tx, id, now)?;
        }
        tx.commit()?;
        self.tidied_at = Some(now);
        Ok(gone)
    }
}
