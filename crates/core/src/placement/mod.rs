//! Where every tray stands on every day: from the stages of a plan's trays to positions on its decks.

mod asked;
mod hosts;
mod laid;
mod positions;
pub mod solver;
mod whole;

pub use whole::{How, place_all};
