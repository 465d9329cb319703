//! Changes of a plan's form: what a hand adds, copies, moves and takes away.

mod add;
mod again;
mod apply;
mod change;
mod editor;
mod pots;
mod relocate;
mod remove;
mod share;
mod sow;
mod stand;

pub use apply::apply;
pub use change::{Edit, Edited, GearList, GearRef, Onto, Share, Thing};
