//! Warmth: the root zone of a tray through the day, germination chambers, and what it takes to
//! hold them.
//!
//! The solvers take layers, areas and watts; each is also a calculator of its own. [`tray`], [`mat`] and
//! [`closed_space`] make their questions of the room's own things.

pub mod around;
pub mod bed;
pub mod chamber;
pub mod closed_air;
pub mod closed_space;
pub mod enclosed;
pub mod mat;
pub mod occupant;
mod remembered;
pub mod room_with_lamps;
pub mod root_zone;
pub mod transfer;
pub mod tray;
pub mod under_cover;
