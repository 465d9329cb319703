//! Vapour that wet surfaces give off and cold ones take.

use crate::air::humidity::saturation_pressure_pa;

/// The gas constant of water vapour, in J/(kg·K).
const VAPOUR_J_KGK: f64 = 461.5;
const KELVIN: f64 = 273.15;
/// Heat of evaporation of water, in J/kg, at about 10 °C.
pub const EVAPORATION_J_KG: f64 = 2.477e6;
/// Speed at which vapour passes between still air and a surface, in m/s: 3 W/(m²·K) over what a m³ of
/// air stores (Lewis's relation; ASHRAE Fundamentals, from memory).
pub const VAPOUR_M_S: f64 = 0.0025;

/// Vapour in saturated air at `t_c`, in kg/m³.
///
/// ```
/// use sunrise_core::air::vapour::saturated_kg_m3;
/// assert!((saturated_kg_m3(20.0) - 0.0173).abs() < 0.0001);
/// ```
pub fn saturated_kg_m3(t_c: f64) -> f64 {
    saturation_pressure_pa(t_c) / (VAPOUR_J_KGK * (t_c + KELVIN))
}

/// A wet surface and a cold one in the same air.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Exchange {
    /// Wet mix and leaves, in m², and how warm they are, in °C.
    pub wet_m2: f64,
    /// See [`Exchange::wet_m2`].
    pub wet_c: f64,
    /// What dew may fall on, in m², and how cold it is, in °C.
    pub dew_m2: f64,
    /// See [`Exchange::dew_m2`].
    pub dew_c: f64,
}

/// What an [`Exchange`] does to air that holds so much vapour.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Exchanged {
    /// What evaporates, in kg/s.
    pub evaporates_kg_s: f64,
    /// What condenses, in kg/s.
    pub condenses_kg_s: f64,
    /// What the air takes up for each kg/m³ that it holds less, in m³/s.
    pub per_kg_m3: f64,
    /// What it would take up if it held nothing, in kg/s.
    pub into_dry_kg_s: f64,
}

impl Exchange {
    /// With air that holds `vapour_kg_m3`: wet surfaces do not dry the air, nor cold ones damp it.
    pub fn with(&self, vapour_kg_m3: f64) -> Exchanged {
        let (wet, dew) = (saturated_kg_m3(self.wet_c), saturated_kg_m3(self.dew_c));
        let gives = if wet > vapour_kg_m3 {
            VAPOUR_M_S * self.wet_m2
        } else {
            0.0
        };
        let takes = if dew < vapour_kg_m3 {
            VAPOUR_M_S * self.dew_m2
        } else {
            0.0
        };
        Exchanged {
            evaporates_kg_s: gives * (wet - vapour_kg_m3),
            condenses_kg_s: takes * (vapour_kg_m3 - dew),
            per_kg_m3: gives + takes,
            into_dry_kg_s: gives * wet + takes * dew,
        }
    }
}
