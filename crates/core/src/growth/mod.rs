//! How seedlings grow: in height by warmth, stretched by dim light and by crowding; in leaf and root by
//! light and warmth together, until their cell is full.
//!
//! All figures that no source is named for are our own estimates.

pub mod conditions;
pub mod height;
pub mod leaves;
pub mod pace;
pub mod roots;
pub mod seedling;
pub mod usual;

pub use conditions::{Air, Conditions};
pub use seedling::{Behind, Seedling};
