//! The plan: one document that holds everything, the same on disk, over HTTP and in a file.

mod blank;
mod check;
mod differs;
pub mod divide;
mod document;
pub mod happened;
mod ids;
pub mod lit_rooms;
pub mod merge;
mod next_year;
pub mod patch;
mod sound;
mod sowing;
mod stirred;
pub mod starts;
mod tray;
pub mod upgrade;
pub mod usual_days;

pub use differs::Differs;
pub use document::{Plan, SCHEMA_VERSION};
pub use sound::SoundPlan;
pub use sowing::{Reason, Sowing};
pub use tray::{CellBlock, Part, Stage, Stand, Tray};
