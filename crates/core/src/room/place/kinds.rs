//! The kinds of place, and what only each has.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::room::place::cover::Cover;
use crate::room::vent::Vent;

/// What a place is, written `{"rack": {…}}`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Kind {
    /// Free-standing shelving.
    Rack(Rack),
    /// Shelves on brackets in wall rails.
    WallShelf(Fittings),
    /// A built-in closet with shelves and doors.
    Closet(Closet),
    /// A table or bench.
    Bench(Bench),
    /// A germination chamber: a cabinet, box or tent that keeps warmth in.
    Chamber(Chamber),
    /// A window with its sill.
    Window(Window),
    /// A cold frame, a greenhouse, a covered bed or a bare spot outdoors.
    ColdFrame(ColdFrame),
    /// A bare surface in the room: the floor, or the top of a cabinet.
    Surface(Surface),
}

/// What only a rack has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Rack {
    /// Distance from one height that a deck can have to the next.
    pub pitch_mm: f64,
    /// Thickness of the corner posts, which take that much of each corner.
    pub post_mm: f64,
    /// Whether crossed braces or a back panel keep it from swaying.
    pub braced: bool,
    /// Whether it is fixed to the wall.
    pub wall_fixed: bool,
    /// What it stands on.
    pub feet: Feet,
}

/// What a rack stands on.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Feet {
    /// Bare post ends.
    Plain,
    /// Feet that screw in and out.
    Levelling,
    /// Wheels.
    Castors,
}

/// Shelves on fittings in a wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Fittings {
    /// Distance from one height that a deck can have to the next.
    pub pitch_mm: f64,
}

/// What only a closet has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Closet {
    /// Distance from one height that a deck can have to the next.
    pub pitch_mm: f64,
    /// Whether its doors are kept shut, so that it holds what warmth its lamps give; open when
    /// left out.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub shut: bool,
    /// Openings in its doors and walls, besides the gaps round the doors.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub vents: Vec<Vent>,
}

/// What only a bench has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Bench {
    /// Whether it can be carried folded, or with its legs off.
    pub folds: bool,
}

/// What only a germination chamber has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Chamber {
    /// Distance from one height that a shelf can have to the next.
    pub pitch_mm: f64,
    /// The layers of its walls from the inside out.
    pub walls: Vec<WallLayer>,
    /// Openings that let warm, damp air out and fresh air in.
    pub vents: Vec<Vent>,
    /// Where its thermostat's probe hangs over its floor; half way up when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub probe_mm: Option<f64>,
    /// What its over-temperature limit is set to, in °C; 30 °C when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub limit_c: Option<f64>,
}

/// A layer of a wall.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WallLayer {
    /// What it is made of.
    pub name: String,
    /// How thick it is.
    pub thickness_mm: f64,
    /// Thermal conductivity in W/(m·K).
    pub conductivity_w_mk: f64,
}

/// What only a window has.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Window {
    /// Where the pane looks: 0 north, 90 east, 180 south, 270 west.
    pub azimuth_deg: f64,
    /// Width of the glass.
    pub pane_width_mm: f64,
    /// Height of the glass.
    pub pane_height_mm: f64,
    /// How high over the horizon trees and houses opposite reach, seen from the sill.
    pub obstruction_deg: f64,
}

/// What only a cold frame has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ColdFrame {
    /// Whether it has a light that can be closed at night.
    pub glazed: bool,
    /// What covers it then, and how it is kept; [`Cover::USUAL`] when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub cover: Option<Cover>,
}

/// What only a bare surface has.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Surface {
    /// Whether it is the floor itself, rather than the top of something.
    pub floor: bool,
}
