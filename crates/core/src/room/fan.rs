//! Fans, and how far things may stick out.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A fan in a bay.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Fan {
    /// Identifier, unique among the tier's fans.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// Diameter of the frame around the blades.
    pub diameter_mm: f64,
    /// Air moved at the speed in use, in m³/h.
    pub flow_m3_h: f64,
    /// Power drawn at the plug.
    pub watts: f64,
    /// Its middle along the shelf.
    pub x_mm: f64,
    /// Its middle from the front.
    pub y_mm: f64,
    /// Its middle above the deck.
    pub height_mm: f64,
    /// Whether it turns from side to side, so that its stream reaches other places of the room, too.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub turns: bool,
    /// Other tiers of its place that it is carried to by turns, a day each; none when left out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub by_turns: Vec<String>,
    /// What it moves at the other speeds that its switch offers, in m³/h; none when left out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub speeds_m3_h: Vec<f64>,
    /// The socket, strip, timer or chain that it is plugged into; left out where nobody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plugged: Option<String>,
}

/// How far a lamp or a tray may stick out over the edge of a deck.
pub const MOST_OVERHANG_MM: f64 = 120.0;
