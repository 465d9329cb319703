//! What does not fit, and ways to make room, as they are told.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::words::Statement;
use crate::edit::Edited;
use crate::placement::Crowding;

/// What does not fit, and what would make it fit.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Overflow {
    /// What the room is short of.
    #[serde(flatten)]
    pub crowding: Crowding,
    /// What would help, the least harm first.
    pub ways: Vec<WayToFit>,
    /// Whether everything was tried; not where somebody stopped it.
    pub all_tried: bool,
}

/// A change after which more trays have a spot.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WayToFit {
    /// What to do: one thing, or several together.
    pub steps: Vec<Statement>,
    /// What that costs plants and people.
    pub costs: Vec<Statement>,
    /// What has to be bought or found for it.
    pub buys: Vec<Statement>,
    /// Trays that stand nowhere even then.
    pub left: u32,
    /// The plan with that done and all trays placed.
    pub edited: Edited,
}

/// How far the search is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Trying {
    /// The share of the changes that were tried.
    pub done: f64,
    /// Changes that were tried.
    pub tried: u32,
    /// Ways found after which all trays have a spot.
    pub found: u32,
}
