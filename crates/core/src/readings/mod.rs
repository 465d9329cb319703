//! Measured against reckoned.

pub mod lux_meter;
