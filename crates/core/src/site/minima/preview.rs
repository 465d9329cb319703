//! What a file of daily minima holds, before it is kept.

use crate::basis::words::Statement;
use crate::site::frost::{FrostDates, FrostRecord};
use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

/// What a file holds, before anything of it is kept.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Preview {
    /// The days that were read.
    pub days: u32,
    /// First of them.
    pub from: Option<Date>,
    /// Last of them.
    pub to: Option<Date>,
    /// The coldest, in °C.
    pub coldest_c: Option<f64>,
    /// The first few, as they were understood.
    pub sample: Vec<DayMinimum>,
    /// What is wrong, row by row, the first hundred; a file with any is not taken.
    pub problems: Vec<RowProblem>,
    /// How many rows are wrong, a thousand at the most: then reading ends.
    pub problem_rows: u32,
    /// What to know besides: years that lack days are left out.
    pub notes: Vec<Statement>,
    /// The frosts, ready to be kept; `None` while there are problems.
    pub record: Option<FrostRecord>,
    /// What follows for the year asked for; `None` while there are problems.
    pub dates: Option<FrostDates>,
}

/// A day and its minimum.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct DayMinimum {
    /// The day.
    pub date: Date,
    /// Its minimum, in °C.
    pub minimum_c: f64,
}

/// A row that cannot be read.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RowProblem {
    /// The row, counted from 1 with the heading.
    pub row: u32,
    /// What stands there.
    pub value: String,
    /// What is wrong.
    pub problem: Statement,
    /// What would be right.
    pub remedy: Statement,
}
