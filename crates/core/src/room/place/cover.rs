//! What covers a spot outdoors, and how it is kept.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What covers a spot outdoors, and how it is kept.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Cover {
    /// Its shape.
    pub shape: CoverShape,
    /// What the sun comes in through.
    pub glazing: Glazing,
    /// When it is opened.
    pub opens: Opens,
    /// Whether a mat of straw, or a blanket, is laid over it by night.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub night_mat: bool,
    /// What a heater keeps it at, in °C; left out where none does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub heated_c: Option<f64>,
    /// The share of the sun that trees and houses leave it, 0 to 1; all of it when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sun_share: Option<f64>,
    /// Water that stands in it to store warmth, in l.
    #[serde(default, skip_serializing_if = "is_none")]
    pub water_l: f64,
}

fn is_none(l: &f64) -> bool {
    *l == 0.0
}

/// The shape of a cover.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum CoverShape {
    /// A box of boards with a light on top.
    Frame,
    /// Glazed all round, to stand in.
    Greenhouse,
    /// Hoops over a bed.
    Tunnel,
    /// Clear jugs with mix in them and their caps off, sown in winter.
    Jugs,
}

/// What the sun comes in through.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Glazing {
    /// One pane of glass.
    SingleGlass,
    /// Two panes of glass.
    DoubleGlass,
    /// A sheet of two walls.
    TwinWall,
    /// Film, or the wall of a jug.
    Film,
    /// Fleece, which breathes.
    Fleece,
}

/// When a cover is opened.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Opens {
    /// Never: it stays shut.
    Never,
    /// By day, whatever the weather.
    ByDay,
    /// When it gets warm inside.
    WhenWarm,
}

impl Cover {
    /// A frame of single glass that is opened when it gets warm: what is meant where nobody says more.
    pub const USUAL: Self = Self {
        shape: CoverShape::Frame,
        glazing: Glazing::SingleGlass,
        opens: Opens::WhenWarm,
        night_mat: false,
        heated_c: None,
        sun_share: None,
        water_l: 0.0,
    };
}
