//! The logs of the plans that were asked for last, read once and added to as they grow.

use std::collections::HashMap;
use std::sync::{Arc, Mutex};

use sunrise_core::ask::{Happened, Told};
use sunrise_store::{Store, StoreError};

/// A log as it stands.
#[derive(Debug, Clone, Default)]
pub struct Log {
    /// The number of its last entry.
    pub last: i64,
    /// The entries that count.
    pub told: Arc<Told>,
    /// What dates and jobs follow from.
    pub happened: Arc<Happened>,
}

/// Logs by the number of their plan.
#[derive(Debug, Default)]
pub struct Logs(Mutex<HashMap<i64, Log>>);

/// So many logs are remembered.
const MOST: usize = 4;

impl Logs {
    /// The log of `plan` as `store` has it now.
    ///
    /// # Errors
    /// As [`Store::log_since`].
    pub fn of(&self, store: &Store, plan: i64) -> Result<Log, StoreError> {
        let mut logs = self.0.lock().unwrap_or_else(|poison| poison.into_inner());
        let known = logs.remove(&plan).unwrap_or_default();
        let (last, entries) = store.log_since(plan, known.last)?;
        let log = if entries.is_empty() {
            known
        } else {
            let mut told = Arc::unwrap_or_clone(known.told);
            told.add(entries);
            Log {
                last,
                happened: Arc::new(told.happened()),
                told: Arc::new(told),
            }
        };
        if logs.len() >= MOST {
            logs.clear();
        }
        logs.insert(plan, log.clone());
        Ok(log)
    }
}
