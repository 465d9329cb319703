//! The choice of height and hours: what can be set, what suits the seedlings best, when the lamps
//! go on, and what to change as plants grow.

pub mod adjust;
pub mod bands;
pub mod choice;
pub mod chooser;
pub mod hours;
mod known;
mod ladder;
pub mod misfit;
pub mod outcome;
pub mod shared_hours;
pub mod start;
