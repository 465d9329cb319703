//! Other ways to do what a bay or a chamber does, beside the one that is there.

pub mod chamber;
pub mod few_timers;
pub mod frontier;
mod ideas;
pub mod least_gear;
pub mod making_room;
pub mod savings;
mod set_ups;
mod turned;
pub mod warmth;

pub use set_ups::{SetUp, set_ups};
