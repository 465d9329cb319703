//! The open database.

use std::path::{Path, PathBuf};

use jiff::Timestamp;
use rusqlite::{Connection, Transaction, TransactionBehavior};

use crate::error::StoreError;
use crate::file::{self, Watch};

/// The database.
#[derive(Debug)]
pub struct Store {
    pub(crate) db: Connection,
    watch: Watch,
    set_aside: Option<PathBuf>,
    pub(crate) tidied_at: Option<Timestamp>,
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

    pub(crate) fn transaction(&mut self) -> Result<Transaction<'_>, StoreError> {
        self.watch.check()?;
        // Immediate: the check of the base and the write see the same state.
        Ok(self
            .db
            .transaction_with_behavior(TransactionBehavior::Immediate)?)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use sunrise_core::plan::Plan;

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
