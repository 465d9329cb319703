//! Heat mats.

use crate::basis::learned::Learned;
use crate::basis::plane::Axis;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A heat mat that lies on a deck.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Mat {
    /// Identifier, unique among the tier's mats.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// Its length.
    pub length_mm: f64,
    /// Its width.
    pub width_mm: f64,
    /// Power drawn at the plug.
    pub watts: f64,
    /// Left edge on the deck.
    pub x_mm: f64,
    /// Front edge on the deck.
    pub y_mm: f64,
    /// Which way its length runs.
    pub along: Axis,
    /// What its thermostat holds the root zone at, in °C; left out, the mat is always on.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thermostat_c: Option<f64>,
    /// The mat of the same tier whose thermostat switches this one too; left out when it has its own,
    /// or none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub switched_with: Option<String>,
    /// Where its thermostat's probe is; in the mix when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub probe: Option<MatProbe>,
    /// From its thermostat's switching on to its switching off; 1 K when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hysteresis_k: Option<f64>,
    /// How much warmer it really is than the thermostat's dial says when it switches; 0 when left
    /// out. A thermometer in the mix shows it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dial_error_k: Option<f64>,
    /// Thickness of the foam that it lies on; left out, it lies on the deck.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pad_mm: Option<f64>,
    /// The share of its watts that warms what lies on it, as thermometers in the mix showed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub measured: Option<Learned>,
    /// The socket, strip, timer or chain that it is plugged into; left out where nobody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plugged: Option<String>,
}

/// Where the probe of a mat's thermostat is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MatProbe {
    /// In the mix, at root depth.
    Mix,
    /// Between mat and tray.
    Mat,
    /// In the air of the room.
    Air,
}

impl Mat {
    /// The watts that it warms with.
    pub fn warming_w(&self) -> f64 {
        self.watts * Learned::share(self.measured)
    }

    /// Its extent along x and along y, in mm.
    pub fn size_mm(&self) -> [f64; 2] {
        self.along.lay(self.length_mm, self.width_mm)
    }
}
