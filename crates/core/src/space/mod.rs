//! Room for trays and people: decks, doors and the floor.

pub mod decks;
pub mod doors;
pub mod floor;
pub mod packing;
pub mod spots;
