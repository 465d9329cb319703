//! What facts hold: where, how, why, and what an instrument showed.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::room::BayRef;

/// How a dome is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Dome {
    /// Closed over the tray.
    On,
    /// On, with its vents open.
    Vented,
    /// Off.
    Off,
}

/// Why plants were lost.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Loss {
    /// Damping off.
    DampingOff,
    /// Too dry.
    Dry,
    /// Too cold, or frost.
    Cold,
    /// Too hot, or scorched by lamps.
    Heat,
    /// Pests.
    Pests,
    /// Dropped, trodden on or eaten.
    Accident,
    /// Something else: the text says what.
    Other,
}

/// What a fact is about.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum About {
    /// A tray.
    Tray(String),
    /// A bay.
    Bay(BayRef),
    /// A spot of a bay's deck.
    Spot(DeckSpot),
    /// The room as a whole.
    Room,
}

/// A spot of a bay's deck.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DeckSpot {
    /// The bay.
    pub bay: BayRef,
    /// From the left of the deck.
    pub x_mm: f64,
    /// From the front of the deck.
    pub y_mm: f64,
}

/// A reading of an instrument.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Measurement {
    /// Temperature in the mix, in °C.
    SoilC(f64),
    /// Temperature of the air, in °C.
    AirC(f64),
    /// Relative humidity, 0 to 1.
    Humidity(f64),
    /// Illuminance in lx.
    Lux(f64),
    /// PPFD in µmol/m²/s.
    Ppfd(f64),
    /// Height of the plants in mm.
    HeightMm(f64),
    /// Mass of a tray with all that is in it, in kg.
    MassKg(f64),
}

impl Measurement {
    /// Its field, its value and what an instrument in a room can show.
    pub(super) fn range(self) -> (&'static str, f64, [f64; 2], Quantity) {
        match self {
            Self::SoilC(c) => ("soil_c", c, [-20.0, 60.0], Quantity::TemperatureC),
            Self::AirC(c) => ("air_c", c, [-40.0, 70.0], Quantity::TemperatureC),
            Self::Humidity(share) => ("humidity", share, [0.0, 1.0], Quantity::Share),
            Self::Lux(lux) => ("lux", lux, [0.0, 200_000.0], Quantity::IlluminanceLux),
            Self::Ppfd(ppfd) => ("ppfd", ppfd, [0.0, 3000.0], Quantity::PpfdUmolM2S),
            Self::HeightMm(mm) => ("height_mm", mm, [0.0, 3000.0], Quantity::LengthMm),
            Self::MassKg(kg) => ("mass_kg", kg, [0.0, 100.0], Quantity::MassKg),
        }
    }
}
