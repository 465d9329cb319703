//! The root zone of a tray through the day: layers from the air below to the air above, a heat
//! mat, its thermostat, and what the surface gives off.
//!
//! One-dimensional: mat, tray and mix are one column per area of tray; what the sides give off is
//! taken from the mix at its height. The calculator `root-zone`.

mod check;
mod column;
mod day;
mod set_up;
mod steps;

pub use column::evaporation_kg_m2_d;
pub use set_up::{
    HeatMat, Help, Light, Mix, ProbeSpot, RoomAir, RootZone, RootZoneDay, RootZoneHours,
    Thermostat, TrayBox,
};
