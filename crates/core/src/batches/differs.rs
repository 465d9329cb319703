//! What two batches had, and in what they differ.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::Statement;
use crate::batches::figures::Apart;

/// What two batches had.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Condition {
    /// What.
    pub what: ConditionOf,
    /// What the figures are.
    pub quantity: Quantity,
    /// As reckoned, the first and the second.
    pub reckoned: [Option<f64>; 2],
    /// As measured, the first and the second.
    pub measured: [Option<f64>; 2],
}

/// What of its surroundings.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ConditionOf {
    /// The mix while it germinated.
    Mix,
    /// The air where it grew.
    GrowingAir,
    /// The light where it grew.
    Light,
}

/// In what two batches differ.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Difference {
    /// In what.
    pub what: DifferenceOf,
    /// What the difference is.
    pub quantity: Quantity,
    /// The first less the second.
    pub by: f64,
    /// With 95 % certainty it is at least so much.
    pub low: f64,
    /// With 95 % certainty it is at most so much.
    pub high: f64,
    /// The chance of one as large where there is none, raised for as many tries as there are.
    pub p: f64,
    /// Whether chance explains it.
    pub told_apart: ToldApart,
    /// In words.
    pub words: Statement,
    /// The test.
    pub test: &'static str,
}

/// What of a batch.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DifferenceOf {
    /// How much came up.
    CameUp,
    /// How many days it took.
    Days,
    /// How tall it grew.
    Height,
}

/// Whether chance explains a difference.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ToldApart {
    /// Chance makes one as large in fewer than one of twenty cases.
    Clearly,
    /// In fewer than one of five.
    Likely,
    /// More often.
    Not,
}

impl ToldApart {
    pub(super) fn of(p: f64) -> Self {
        match p {
            p if p < 0.05 => Self::Clearly,
            p if p < 0.2 => Self::Likely,
            _ => Self::Not,
        }
    }
}

impl Difference {
    pub(super) fn of(
        what: DifferenceOf,
        quantity: Quantity,
        apart: Apart,
        words: Statement,
        test: &'static str,
    ) -> Self {
        Self {
            what,
            quantity,
            by: apart.by,
            low: apart.low,
            high: apart.high,
            p: apart.p,
            told_apart: ToldApart::of(apart.p),
            words,
            test,
        }
    }
}
