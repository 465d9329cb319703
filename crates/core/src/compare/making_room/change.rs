//! A change that could make room.

use crate::basis::words::Statement;
use crate::plan::Plan;

/// A change of the plan, before its trays are placed again.
#[derive(Debug, Clone)]
pub(super) struct Change {
    /// What it is about: a sowing or a place. A few ways about the same are enough.
    pub(super) about: String,
    /// What to do.
    pub(super) step: Statement,
    /// What it costs plants and people, where that can be said beforehand.
    pub(super) costs: Vec<Statement>,
    /// What has to be bought.
    pub(super) buys: Option<Statement>,
    /// How much it harms or costs, to rank it: 0 nothing; 10 a few days or plants; 60 a thing to buy; 100 a
    /// rack.
    pub(super) harm: u32,
    /// Whether it gives more spots, rather than asking for fewer.
    pub(super) more_spots: bool,
    /// The plan with it.
    pub(super) plan: Plan,
}
