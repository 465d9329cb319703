//! What each kind of crop needs: a library, and how its seed comes up.

mod crop;
pub mod emergence;
pub mod rates;
pub mod emergence_tables;
mod library;
mod short;
pub mod showing;

pub use crop::{
    Crop, GerminatesIn, GrownFrom, Habit, Known, StartPlace, StartReason, Transplants, Unknown,
    Vigour,
};
pub use emergence::{Emergence, Thermal};
pub use library::{Library, library};
pub use short::short;
