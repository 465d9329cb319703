//! The choice of height and hours: what can be set, what suits the seedlings best, when the lamps
//! go on, and what to change as plants grow.

pub mod adjust;
pub mod choice;
pub mod hours;
pub mod start;
