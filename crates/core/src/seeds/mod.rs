//! Packets of seed, how alive they are, and how many to sow: the calculator `seeds`.

mod how_many;
mod viability;

pub use how_many::{ToSow, Want, cells_to_sow, seeds_per_cell};
pub use viability::{GerminationTest, Packet, SeedSource, Viability};
