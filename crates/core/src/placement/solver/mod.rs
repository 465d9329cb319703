//! Where trays stand, as a question of its own: the least unplaced first, then the least cost.
//!
//! A tray passes through stages, each an interval of days. A place is a set of like positions and holds
//! so many trays. Who asks works out which places each stage may use and how badly each suits; here is
//! only the search. It finds its bounds by prices of a place on a day (`prices`), fills single places
//! exactly by a flow through the days (`flow`), and takes out and puts back a few stages or trays at a
//! time until its work is done (`penalty`, `ruin`, `cost`).

mod cost;
mod filling;
mod flow;
mod instance;
mod penalty;
mod prices;
mod problem;
mod rivals;
mod ruin;
mod settle;
mod short;
mod solve;
mod watch;

pub use instance::{Instance, PlaceOf, StageOf, TrayOf};
pub use short::{Short, short};
pub use solve::{Answer, Effort, place, place_with};
pub use watch::Progress;
