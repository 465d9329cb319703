//! Daily minima from a file: comma-separated values, or an EnergyPlus weather file (EPW).

mod epw;
mod found;
mod lines;
mod preview;
mod read;
mod table;
mod understanding;

pub use preview::{DayMinimum, Preview, RowProblem};
pub use read::read;
pub use understanding::{DegreeUnit, Understanding};
