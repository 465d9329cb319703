//! Judgements, a file each: what triggers one, what it says, and how it is checked.
//!
//! A judgement looks at a bay, a place or the room on a date, at a sowing or at the whole plan, and
//! says what to do, where, when, by how much and why. Its fixes are edits of the plan that can be
//! applied with one click.

mod air;
mod finding;
mod fixes;
mod judgement;
mod light;
mod list;
mod power;
mod sowing;
mod sowing_view;
mod space;
#[cfg(test)]
mod testing;
mod warmth;
mod wired;

pub use finding::{Finding, Severity, name_each};
pub use fixes::{how_to_set, why_set};
pub use list::{codes, on_bay, on_place, on_plan, on_room};
