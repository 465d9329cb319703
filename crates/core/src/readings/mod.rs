//! Measured against reckoned.

pub mod lux_meter;
pub mod story;
