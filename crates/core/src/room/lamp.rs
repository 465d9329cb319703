//! Lamps: what they emit, how far they are dimmed and aged, and where they hang.

use std::sync::Arc;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::learned::Learned;
use crate::basis::plane::Axis;

/// How a lamp's white is made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LampFamily {
    /// Blue-pumped phosphor LED.
    WhiteLed,
    /// Three-band fluorescent tube, as sold in the last decades.
    FluorescentTriBand,
    /// Standard (halophosphate) fluorescent tube, found in old fixtures.
    FluorescentStandard,
    /// Red and blue LEDs without white: purple light, whose lumens say next to nothing.
    RedBlueLed,
}

/// A lamp: one or more flat emitters that face down from one body.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lamp {
    /// Identifier, unique in the tier.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// How its white is made, which decides the photons in a lumen.
    pub family: LampFamily,
    /// Correlated colour temperature.
    pub cct_k: f64,
    /// Luminous flux of all its emitters together when new and undimmed; all of it downwards,
    /// but for bare tubes and measured distributions.
    pub flux_lm: f64,
    /// Photons per second as the maker states them; wins over the lumens' conversion.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ppf_umol_s: Option<f64>,
    /// Power drawn at the plug.
    pub watts: f64,
    /// Full angle at which the intensity has fallen to half; 120 for a bare Lambertian strip.
    pub beam_deg: f64,
    /// Which way the emitters' length runs.
    pub along: Axis,
    /// Centre of the lamp along the shelf.
    pub x_mm: f64,
    /// Centre of the lamp from the front.
    pub y_mm: f64,
    /// The emitting face above the deck.
    pub height_mm: f64,
    /// How far the body reaches up from the emitting face.
    pub body_height_mm: f64,
    /// Least gap to the leaves by the lamp's heat.
    pub least_gap_mm: f64,
    /// The emitting rectangles, which share the flux by area.
    pub emitters: Vec<Face>,
    /// Whether its emitters are bare tubes that shine all round, without a reflector above.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub bare_tube: bool,
    /// Its measured distribution, which wins over `beam_deg` and `bare_tube`. Shared, since it may
    /// hold a hundred thousand figures and plans are copied to be compared.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub distribution: Option<Arc<Distribution>>,
    /// Its brightness steps; left out when it only goes on and off.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dimmer: Option<Dimmer>,
    /// How far it has aged; left out for a new lamp.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ageing: Option<Ageing>,
    /// The share of the light that all the above has it give, as meters showed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub measured: Option<Learned>,
    /// The socket, strip, timer or chain that it is plugged into; left out where nobody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plugged: Option<String>,
    /// Watts over volt-amperes, from its label; 1 when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power_factor: Option<f64>,
    /// The current that rushes in for a moment when it is switched on, in A, from its label.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub inrush_a: Option<f64>,
}

/// The brightness steps of a lamp.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Dimmer {
    /// The share of its full light at each step, the least first; watts follow it.
    pub steps: Vec<f64>,
    /// The step it stands on, counted from 0.
    pub at: usize,
}

/// How far a lamp's light has fallen off with use.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Ageing {
    /// Hours that it has burnt.
    pub burnt_h: f64,
    /// Hours after which 70 % of its light is left, by the maker (L70).
    pub l70_h: f64,
}

/// How a luminaire's intensity was measured, by direction.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Distribution {
    /// What its angles count.
    pub kind: PhotometricType,
    /// The vertical angles in degrees, rising.
    pub vertical_deg: Vec<f64>,
    /// The horizontal angles in degrees, rising.
    pub horizontal_deg: Vec<f64>,
    /// The intensity in cd: a list over the vertical angles for each horizontal one.
    pub candela: Vec<Vec<f64>>,
}

/// The system of angles of a [`Distribution`], as ANSI/IES LM-63 names them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PhotometricType {
    /// Polar axis straight down: indoor luminaires.
    C,
    /// Polar axis along the luminaire: floodlights.
    B,
    /// Polar axis level, across the luminaire: searchlights.
    A,
}

/// An emitting rectangle of a lamp.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Face {
    /// Its length, along the lamp.
    pub length_mm: f64,
    /// Its width, across the lamp.
    pub width_mm: f64,
    /// How far its centre lies across from the lamp's centre.
    pub across_mm: f64,
}

impl Lamp {
    /// The share of its full light that its dimmer lets through.
    pub fn dimmed(&self) -> f64 {
        let step = self.dimmer.as_ref().and_then(|d| d.steps.get(d.at));
        step.copied().unwrap_or(1.0)
    }

    /// The share of a new lamp's light that age has left: an exponential through 70 % at L70.
    ///
    /// Source: the model of IES TM-21 for LED packages (from memory), taken for every family.
    pub fn maintained(&self) -> f64 {
        self.ageing
            .map_or(1.0, |age| 0.7f64.powf(age.burnt_h / age.l70_h))
    }

    /// Power at the plug with the dimmer as it stands.
    pub fn drawn_w(&self) -> f64 {
        self.watts * self.dimmed()
    }

    /// From where to where its emitting faces reach along x and along y, in mm.
    pub fn extent_mm(&self) -> [[f64; 2]; 2] {
        let long = self.emitters.iter().map(|face| face.length_mm / 2.0);
        let long = long.fold(0.0, f64::max);
        let across = |sign: f64| {
            let edges = self
                .emitters
                .iter()
                .map(|face| sign * face.across_mm + face.width_mm / 2.0);
            edges.fold(0.0, f64::max)
        };
        let (along, over) = ([-long, long], [-across(-1.0), across(1.0)]);
        let [x, y] = match self.along {
            Axis::X => [along, over],
            Axis::Y => [over, along],
        };
        [
            x.map(|edge| self.x_mm + edge),
            y.map(|edge| self.y_mm + edge),
        ]
    }
}

/// The lowest an emitting face can hang over the deck.
pub const LOWEST_FACE_MM: f64 = 10.0;
