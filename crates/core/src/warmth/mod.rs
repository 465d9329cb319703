//! Warmth: the root zone of a tray through the day, germination chambers, and what it takes to
//! hold them.
//!
//! The solvers take layers, areas and watts, never plans. Each is also a calculator of its own.

pub mod chamber;
pub mod root_zone;
pub mod transfer;
