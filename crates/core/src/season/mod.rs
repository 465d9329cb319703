//! When everything happens: the dates of every sowing, where its trays stand, and the jobs.

mod airs;
mod apart;
mod around;
mod beside;
pub mod counting;
mod dates;
pub mod growing;
pub mod how_many;
mod in_the_bed;
pub mod jobs;
pub mod mats;
pub mod moments;
pub mod moves;
pub mod outline;
mod past;
mod pace;
pub mod planting_out;
pub mod potted;
mod potting;
pub mod reckoned;
pub mod room_for;
mod root_zone;
pub mod sharing;
mod sowing_dates;
mod spot_light;
pub mod stays;
pub mod suits;
mod tray_growing;
pub mod unplaced;

pub use dates::{dates, dates_again};
pub use in_the_bed::InTheBed;
pub use outline::{Demand, SeasonDay, days};
pub use pace::Pace;
pub use past::Seen;
pub use reckoned::Reckoned;
pub use sowing_dates::{DatesWhy, PottingDay, Shows, SowingDates};
