//! Each model alone: its question, and the answer that it gives.

pub use crate::crops::showing::{Outcome, Sown};
pub use crate::light::luminaire::Luminaire;
pub use crate::light::photometric_file::read as read_luminaire;
pub use crate::light::scene::{Scene, SceneLight};
pub use crate::placement::solver::{Answer, Instance, Progress, place};
pub use crate::power::load::{DayLoad, LoadSetUp};
pub use crate::power::window::{WindowAsk, Windows};
pub use crate::seeds::{ToSow, Want};
pub use crate::site::minima::{DegreeUnit, Preview, Understanding, read as read_minima};
pub use crate::space::packing::{Ask, Packing};
pub use crate::warmth::chamber::{ChamberDay, ChamberSetUp};
pub use crate::warmth::enclosed::{EnclosedAir, EnclosedDay};
pub use crate::warmth::root_zone::{RootZone, RootZoneDay};
