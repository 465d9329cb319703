//! What is asked of enclosed air, and what is answered.

use crate::basis::fault::Fault;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Air that a cover closes off from outdoors.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EnclosedAir {
    /// How much air there is.
    pub volume_m3: f64,
    /// Heat that its cover lets through, surfaces included, in W/K.
    pub cover_w_k: f64,
    /// By how much the air and the sky that the cover looks at are colder than the air alone, in K.
    #[serde(default)]
    pub sky_k: f64,
    /// What is laid over the cover by night; left out where nothing is.
    #[serde(default)]
    pub night_cover: Option<NightCover>,
    /// Air that leaks while it is shut, in m³/h.
    pub leak_m3_h: f64,
    /// How it is opened; left out, it stays shut.
    #[serde(default)]
    pub opening: Option<Opening>,
    /// Heat that the ground beneath takes or gives, in W/K.
    #[serde(default)]
    pub ground_w_k: f64,
    /// The ground half a metre down, in °C.
    #[serde(default)]
    pub ground_c: f64,
    /// What soil, trays and water in it store, in J/K.
    pub store_j_k: f64,
    /// Between them and the air, in W/K.
    pub store_w_k: f64,
    /// The sun that comes in; left out where none does.
    #[serde(default)]
    pub sun: Option<Sun>,
    /// Warmest of the day outdoors, in °C.
    pub day_c: f64,
    /// Coolest of the night outdoors, in °C.
    pub night_c: f64,
    /// Relative humidity outdoors at the mean of both, 0 to 1.
    pub humidity: f64,
    /// What heats it; left out where nothing does.
    #[serde(default)]
    pub heating: Option<Heating>,
    /// Lamps in it, all of whose watts end as heat in its air.
    #[serde(default)]
    pub lamps: Vec<WarmingLamp>,
    /// Wet mix and leaves that give off water, in m².
    #[serde(default)]
    pub wet_m2: f64,
    /// The inside of the cover, on which dew falls, in m².
    #[serde(default)]
    pub dew_m2: f64,
    /// How far down from the air inside to that outdoors the inside of the cover is, 0 to 1.
    #[serde(default)]
    pub dew_share: f64,
}

/// A lamp that warms the air.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WarmingLamp {
    /// What it draws while it burns.
    pub watts: f64,
    /// When it goes on, in hours after midnight.
    pub from_h: f64,
    /// For how long.
    pub hours: f64,
}

/// What is laid over a cover by night.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NightCover {
    /// Heat that the cover lets through with it, in W/K.
    pub cover_w_k: f64,
    /// When it is laid on, in hours after midnight.
    pub from_h: f64,
    /// How long it lies there.
    pub hours: f64,
}

/// How enclosed air is let out: the more the warmer it is, between two temperatures.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Opening {
    /// Air that passes when it is wide open, in m³/h.
    pub wide_m3_h: f64,
    /// It begins to open at so much inside, in °C.
    pub from_c: f64,
    /// It is wide open at so much more, in K.
    pub over_k: f64,
    /// When it may be opened, in hours after midnight.
    pub from_h: f64,
    /// For how long.
    pub hours: f64,
}

/// Sun that comes in: it rises and falls as half a sine.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sun {
    /// What stays inside as heat in a day, in kWh.
    pub kwh: f64,
    /// When it rises, in hours after midnight.
    pub rises_h: f64,
    /// How long it is up.
    pub hours: f64,
    /// The share of it that falls on what stores heat, 0 to 1; the rest warms the air.
    pub on_store: f64,
}

/// A heater with a thermostat in the air, which gives more the more is lacking.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Heating {
    /// What it is set to: it gives nothing from there on, in °C.
    pub set_c: f64,
    /// It gives all it has at so much less, in K.
    pub under_k: f64,
    /// The most that it gives.
    pub most_w: f64,
}

/// Enclosed air on a day that begins as it ends.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct EnclosedDay {
    /// Its air at each full hour, in °C.
    pub air_c: Vec<f64>,
    /// Soil, trays and water at each full hour, in °C.
    pub store_c: Vec<f64>,
    /// Relative humidity at each full hour, 0 to 1.
    pub humidity: Vec<f64>,
    /// Coolest of the day, in °C.
    pub least_c: f64,
    /// Mean of the day, in °C.
    pub mean_c: f64,
    /// Warmest of the day, in °C.
    pub most_c: f64,
    /// What the heater draws, in kWh a day.
    pub heating_kwh: f64,
}

impl EnclosedAir {
    /// Through the day, once every day is like the last.
    ///
    /// # Errors
    /// Every figure that physics or the trade rules out, by its path.
    pub fn day(&self) -> Result<EnclosedDay, Vec<Fault>> {
        self.check()?;
        Ok(self.settled())
    }
}
