//! What is asked of a root zone, and what is answered.

use crate::basis::fault::Fault;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::warmth::transfer::{Layer, resistance_m2k_w};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A tray with what is under, in and over it.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RootZone {
    /// The air around it.
    pub air: RoomAir,
    /// The tray.
    pub tray: TrayBox,
    /// What is in it.
    #[serde(default)]
    pub mix: Mix,
    /// What lies between the mat, or the tray, and the air below: a board, a pad; nothing on
    /// wires.
    #[serde(default)]
    pub under: Vec<Layer>,
    /// The temperature of a warm surface that it all stands on; left out, air is below.
    #[serde(default)]
    pub warm_surface_c: Option<f64>,
    /// The mat under it; left out, there is none.
    #[serde(default)]
    pub mat: Option<HeatMat>,
    /// What switches the mat; left out, it is always on.
    #[serde(default)]
    pub thermostat: Option<Thermostat>,
    /// Whether a clear dome covers it.
    #[serde(default)]
    pub dome: bool,
    /// How fast the air moves over it, in m/s; left out, it is still.
    #[serde(default)]
    pub air_m_s: f64,
    /// The light on it; left out, it is dark.
    #[serde(default)]
    pub light: Option<Light>,
}

/// The air of a room.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RoomAir {
    /// Warmest of the day, in °C.
    pub day_c: f64,
    /// Coolest of the night.
    pub night_c: f64,
    /// Relative humidity, 0 to 1.
    #[serde(default = "usual_humidity")]
    pub humidity: f64,
}

fn usual_humidity() -> f64 {
    0.5
}

/// A tray's outer size.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrayBox {
    /// Its length.
    pub length_mm: f64,
    /// Its width.
    pub width_mm: f64,
    /// The share of its sides that stand free, 0 to 1: none in the middle of others.
    #[serde(default = "all")]
    pub free_sides: f64,
}

fn all() -> f64 {
    1.0
}

/// The mix in a tray.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Mix {
    /// How deep it is; roots are taken to be half as deep.
    pub depth_mm: f64,
    /// How well it conducts: 0.3 dry to 0.6 wet, in W/(m·K) (from memory of peat mixes).
    pub conductivity_w_mk: f64,
    /// What it stores, in MJ/(m³·K): 4.2 times its share of water and a little more.
    pub heat_capacity_mj_m3k: f64,
    /// How wet its surface is: 0 dry, 1 a sheet of water.
    pub wetness: f64,
}

impl Default for Mix {
    /// A moist mix in cells (our own estimate).
    fn default() -> Self {
        Self {
            depth_mm: 55.0,
            conductivity_w_mk: 0.45,
            heat_capacity_mj_m3k: 2.8,
            wetness: 0.4,
        }
    }
}

/// A heat mat under a tray.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct HeatMat {
    /// Power at the plug.
    pub watts: f64,
    /// Its length.
    pub length_mm: f64,
    /// Its width.
    pub width_mm: f64,
    /// The share of the tray that it lies under, 0 to 1.
    #[serde(default = "all")]
    pub cover: f64,
}

/// What switches a mat.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Thermostat {
    /// What its dial says, in °C.
    pub set_c: f64,
    /// From switching on to switching off.
    #[serde(default = "usual_hysteresis")]
    pub hysteresis_k: f64,
    /// Where its probe is.
    #[serde(default)]
    pub probe: ProbeSpot,
    /// How much warmer it really is than the dial says when it switches.
    #[serde(default)]
    pub dial_error_k: f64,
}

fn usual_hysteresis() -> f64 {
    1.0
}

/// Where a thermostat's probe is.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ProbeSpot {
    /// In the mix, at root depth.
    #[default]
    Mix,
    /// In the air of the room.
    Air,
    /// Between mat and tray.
    Mat,
}

/// Light on a tray.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Light {
    /// PPFD on the surface, in µmol/m²/s.
    pub ppfd: f64,
    /// When it goes on, in hours after midnight.
    pub from_h: f64,
    /// How long it burns a day.
    pub hours: f64,
}

/// A root zone at each full hour from midnight on, in °C.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RootZoneHours {
    /// At root depth.
    pub root_zone_c: Vec<f64>,
    /// At the surface.
    pub surface_c: Vec<f64>,
    /// Between mat and tray.
    pub mat_c: Vec<f64>,
}

/// A root zone that has come to run through the same day again and again.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RootZoneDay {
    /// Hour by hour; `None` in a view that did not ask for it, never as the model gives it.
    pub hours: Option<RootZoneHours>,
    /// Mean at root depth.
    pub mean_c: f64,
    /// Coolest at root depth.
    pub least_c: f64,
    /// Warmest at root depth.
    pub most_c: f64,
    /// Mean over the mean of the room's air.
    pub lift_k: f64,
    /// The share of the day that the mat is on.
    pub duty: f64,
    /// What the mat draws for this tray, in kWh a day.
    pub kwh_per_day: f64,
    /// Hours from a cold start until it is warm: the thermostat first switches off, or nine
    /// tenths of the rise; `None` without a mat, and when it never is.
    pub warm_up_h: Option<f64>,
    /// What evaporates, in kg/m² a day.
    pub evaporation_kg_m2_d: f64,
    /// Whether the thermostat's setting is reached; true without one.
    pub reaches: bool,
    /// What would help where it is not reached, the most first.
    pub helps: Vec<Help>,
}

/// A change, and what it would bring.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Help {
    /// What to do.
    pub what: Statement,
    /// Mean at root depth then, in °C.
    pub mean_c: f64,
    /// Against now.
    pub gain_k: f64,
}

impl RootZoneDay {
    /// At root depth at each full hour, in °C.
    ///
    /// # Panics
    /// In a view that did not ask for the hours.
    pub fn root_zone_c(&self) -> &[f64] {
        let hours = self.hours.as_ref();
        &hours.expect("the model gives every hour").root_zone_c
    }
}

impl RootZone {
    /// Through the day, once every day is like the last.
    ///
    /// One column per area of tray, from the air below to the air above, stepped by the implicit rule in
    /// two to five minutes until a day ends as it began. Surfaces after ISO 6946; evaporation by
    /// Penman's psychrometric balance (Monteith, J. L., and M. H. Unsworth: Principles of Environmental
    /// Physics; from memory); contact and wetness our own estimates.
    ///
    /// # Errors
    /// Every figure that physics or the trade rules out, by its path.
    pub fn day(&self) -> Result<RootZoneDay, Vec<Fault>> {
        self.check()?;
        let mut day = self.run();
        if !day.reaches {
            day.helps = self.helps(&day);
        }
        Ok(day)
    }

    /// What would bring a root zone that stays too cool nearer to its thermostat's setting.
    fn helps(&self, now: &RootZoneDay) -> Vec<Help> {
        const FOAM_MM: f64 = 20.0;
        let pad = || Layer {
            thickness_mm: FOAM_MM,
            conductivity_w_mk: 0.035,
        };
        let mut tries = Vec::new();
        if resistance_m2k_w(&self.under) < 0.3 {
            let mut padded = self.clone();
            padded.under.push(pad());
            tries.push((
                say!(
                    "Lay {foam} of foam under the mat",
                    foam = Quantity::LengthMm.of(FOAM_MM)
                ),
                padded,
            ));
        }
        if !self.dome {
            let domed = Self {
                dome: true,
                ..self.clone()
            };
            tries.push((say!("Put a dome on"), domed));
        }
        if self.tray.free_sides > 0.3 {
            let mut close = self.clone();
            close.tray.free_sides = 0.25;
            tries.push((
                say!("Stand trays side by side, their sides against one another"),
                close,
            ));
        }
        if let Some(mat) = self.mat.filter(|mat| mat.cover < 0.95) {
            let whole = Self {
                mat: Some(HeatMat { cover: 1.0, ..mat }),
                ..self.clone()
            };
            tries.push((say!("Have the mat lie under the whole tray"), whole));
        }
        let mut helps: Vec<Help> = tries
            .into_iter()
            .map(|(what, changed)| {
                let mean_c = changed.run().mean_c;
                Help {
                    what,
                    mean_c,
                    gain_k: mean_c - now.mean_c,
                }
            })
            .filter(|help| help.gain_k > 0.2)
            .collect();
        helps.sort_by(|a, b| b.gain_k.total_cmp(&a.gain_k));
        helps
    }
}
