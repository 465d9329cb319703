//! Packets of seed, how alive they are, and how many to sow: the calculator `seeds`.

pub mod clumps;
mod how_many;
mod viability;

pub use clumps::{cells_to_sow, seeds_per_cell};
pub use how_many::{ToSow, Want};
pub use viability::{GerminationTest, Packet, SeedSource, Viability};
