//! What the store gives out.

use jiff::Timestamp;
use serde::Serialize;
use sunrise_core::plan::Plan;
use utoipa::ToSchema;

/// How long a deleted plan can be brought back.
pub const KEPT_DAYS: i64 = 30;

pub(crate) fn kept_until(deleted_at: Timestamp) -> Timestamp {
    let month = jiff::Span::new().hours(24 * KEPT_DAYS);
    deleted_at.checked_add(month).unwrap_or(Timestamp::MAX)
}

pub(crate) fn day(at: Timestamp) -> jiff::civil::Date {
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
    /// Whether it is set aside: it is not the one to open first.
    pub aside: bool,
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

pub(crate) fn from_micros(micros: i64) -> Timestamp {
    Timestamp::from_microsecond(micros).unwrap_or_default()
}
