//! What can go wrong.

use jiff::Timestamp;
use rusqlite::ErrorCode;
use sunrise_core::plan::merge::Clash;

use crate::records::{day, kept_until};

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
    /// The plan has moved on, and the edit changes fields that were changed meanwhile.
    #[error(
        "the plan is at revision {current}; this edit, based on {base}, changes what was changed since"
    )]
    Clash {
        /// Where the plan is.
        current: i64,
        /// What the edit was based on.
        base: i64,
        /// The fields that both changed.
        fields: Vec<Clash>,
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
    /// A stored entry of the log does not read; the database was changed by other hands.
    #[error("entry {number} of the log of plan {plan} does not read: {reason}")]
    SpoiltEntry {
        /// The plan.
        plan: i64,
        /// The entry's number.
        number: i64,
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
