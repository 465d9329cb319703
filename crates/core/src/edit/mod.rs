//! Changes of a plan's form: what a hand adds, copies, moves and takes away.

mod add;
mod again;
mod apply;
mod begin;
mod change;
mod editor;
mod equip;
mod follow;
mod pots;
mod relocate;
mod remove;
mod share;
mod sow;
mod stand;
mod place_all;
mod propose;
mod wire;

pub use apply::{apply, place_all};
pub use change::{Edit, Edited, Equipment, GearList, GearRef, Onto, Share, Thing};
pub use follow::follow;
