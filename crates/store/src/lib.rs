//! Plans and their revisions in SQLite.
//!
//! A plan is a chain of revisions, each with the whole document and a word about the edit. The
//! plan points at one of them: undo and redo move the pointer along the chain, an edit appends
//! behind it. Nothing is ever overwritten; a branch that an edit leaves behind stays in the history
//! and can be brought back. Only what is old and one of many is thinned out, and plans that were
//! deleted a month ago go.

mod error;
mod file;
mod history;
mod log;
mod merging;
mod migrations;
mod plans;
mod records;
mod revisions;
mod rows;
mod store;

pub use error::StoreError;
pub use file::Watch;
pub use log::{Kept, KeptEntry, LogQuery};
pub use merging::Saved;
pub use records::{KEPT_DAYS, PlanSummary, Revision, Snapshot, Step};
pub use store::Store;
