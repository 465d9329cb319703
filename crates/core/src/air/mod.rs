//! The air around plants: humidity, what it takes up, and what grows on wet leaves in it.

pub mod fan;
mod humidity;
pub mod mould;
pub mod vapour;

/// Air of a room where the site does not say (our own estimate).
pub const USUAL_HUMIDITY: f64 = 0.5;

pub use humidity::{dew_point_c, saturation_pressure_pa, saturation_slope_per_k, vpd_kpa};
