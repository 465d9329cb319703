//! Air under glass, film or a roof, through the day and night: the sun that comes in, what the ground
//! and water store, what the cover loses to air and sky, and what leaks and is let out.
//!
//! One air, one store of heat and one amount of vapour; what stands on shelves in still, warm air has
//! layers instead ([`crate::warmth::chamber`]). The calculator `enclosed_air`.

mod check;
mod hours;
mod set_up;

pub use hours::State;
pub use set_up::{EnclosedAir, EnclosedDay, Heating, NightCover, Opening, Sun, WarmingLamp};
