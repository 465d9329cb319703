//! The room itself and its door.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The room that the places stand in.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Room {
    /// From the left wall to the right.
    pub width_mm: f64,
    /// From the near wall to the far.
    pub depth_mm: f64,
    /// From the floor to the ceiling.
    pub height_mm: f64,
    /// The narrowest door on the way in.
    pub door: Door,
}

/// A clear opening, between the frames.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Door {
    /// Clear width.
    pub width_mm: f64,
    /// Clear height.
    pub height_mm: f64,
}
