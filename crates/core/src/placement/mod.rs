//! Where every tray stands on every day: from the stages of a plan's trays to positions on its decks.

mod asked;
mod crowding;
mod hosts;
mod laid;
mod positions;
pub mod solver;
mod whole;

pub use crowding::{Crowding, Shortage, crowding};
pub use positions::spots_by_sort;
pub use whole::{How, Served, place_all, served};
