//! The room on one day: who stands where, what they get of light, warmth, air and water, how the
//! lamps would hang best, and what all of it weighs and draws.

pub mod air;
pub mod apart;
pub mod away;
pub mod bay;
pub mod cell_light;
pub mod closed_air;
pub mod detail;
pub mod draws;
pub mod fits;
pub mod frost_night;
pub mod hang;
pub mod harm;
pub mod light;
pub mod load;
pub mod measures;
pub mod place;
mod power;
pub mod room;
pub mod root_zones;
pub mod shelf_hours;
pub mod sill;
pub mod spot;
pub mod standing;
pub mod trays;
pub mod unplaced;
pub mod view;
pub mod water;
