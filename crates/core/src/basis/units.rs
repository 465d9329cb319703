//! Quantities, the units people read them in, and every conversion factor there is.
//!
//! Inside, everything is SI as the field names say. The screen asks [`shown_units`] how to write
//! a quantity for its reader; nobody else holds a factor.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// The two systems of units a reader may choose.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum UnitSystem {
    /// Centimetres and degrees Celsius.
    Metric,
    /// Inches and degrees Fahrenheit.
    Us,
}

/// What a number measures, and so the unit it is held in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Quantity {
    /// A length in mm.
    LengthMm,
    /// A temperature in °C.
    TemperatureC,
    /// A difference of temperature in K.
    DifferenceK,
    /// Photosynthetic photon flux density in µmol/m²/s.
    PpfdUmolM2S,
    /// Daily light integral in mol/m²/d.
    DliMolM2D,
    /// Photons emitted in µmol/s.
    PpfUmolS,
    /// Luminous flux in lm.
    FluxLm,
    /// Illuminance in lux.
    IlluminanceLux,
    /// Correlated colour temperature in K.
    ColourTemperatureK,
    /// A duration in hours.
    Hours,
    /// A time of day in hours after midnight, read by the clock.
    ClockH,
    /// A duration in days.
    Days,
    /// A duration in weeks.
    Weeks,
    /// Years.
    Years,
    /// Power in W.
    PowerW,
    /// Current in A.
    CurrentA,
    /// Voltage in V.
    VoltageV,
    /// Energy in kWh.
    EnergyKwh,
    /// An amount of the site's currency.
    Money,
    /// A whole number of things.
    Count,
    /// A fraction from 0 to 1, read in percent.
    Share,
    /// An angle in degrees.
    AngleDeg,
    /// A mass in kg.
    MassKg,
    /// A volume in ml.
    VolumeMl,
    /// A flow of air in m³/h.
    FlowM3H,
    /// A thermal conductivity in W/(m·K).
    ConductivityWMk,
    /// A difference of vapour pressure in kPa.
    PressureKpa,
    /// A speed of air in m/s.
    SpeedMS,
    /// A bare number.
    Plain,
}

impl Quantity {
    const ALL: [Self; 29] = [
        Self::LengthMm,
        Self::TemperatureC,
        Self::DifferenceK,
        Self::PpfdUmolM2S,
        Self::DliMolM2D,
        Self::PpfUmolS,
        Self::FluxLm,
        Self::IlluminanceLux,
        Self::ColourTemperatureK,
        Self::Hours,
        Self::ClockH,
        Self::Days,
        Self::Weeks,
        Self::Years,
        Self::PowerW,
        Self::CurrentA,
        Self::VoltageV,
        Self::EnergyKwh,
        Self::Money,
        Self::Count,
        Self::Share,
        Self::AngleDeg,
        Self::MassKg,
        Self::VolumeMl,
        Self::FlowM3H,
        Self::ConductivityWMk,
        Self::PressureKpa,
        Self::SpeedMS,
        Self::Plain,
    ];

    /// How the quantity is written in SI, as the command line and error texts do.
    pub fn si(self) -> ShownUnit {
        let (unit, factor, decimals) = match self {
            Self::LengthMm => ("mm", 1.0, 0),
            Self::TemperatureC => ("°C", 1.0, 1),
            Self::DifferenceK => ("K", 1.0, 1),
            Self::PpfdUmolM2S => ("µmol/m²/s", 1.0, 0),
            Self::DliMolM2D => ("mol/m²/d", 1.0, 1),
            Self::PpfUmolS => ("µmol/s", 1.0, 1),
            Self::FluxLm => ("lm", 1.0, 0),
            Self::IlluminanceLux => ("lux", 1.0, 0),
            Self::ColourTemperatureK => ("K", 1.0, 0),
            Self::Hours => ("h", 1.0, 1),
            Self::ClockH => ("", 1.0, 2),
            Self::Days => ("days", 1.0, 1),
            Self::Weeks => ("weeks", 1.0, 1),
            Self::Years => ("years", 1.0, 1),
            Self::PowerW => ("W", 1.0, 0),
            Self::CurrentA => ("A", 1.0, 2),
            Self::VoltageV => ("V", 1.0, 0),
            Self::EnergyKwh => ("kWh", 1.0, 2),
            Self::Money => ("", 1.0, 2),
            Self::Count => ("", 1.0, 0),
            Self::Share => ("%", 100.0, 0),
            Self::AngleDeg => ("°", 1.0, 1),
            Self::MassKg => ("kg", 1.0, 1),
            Self::VolumeMl => ("ml", 1.0, 0),
            Self::FlowM3H => ("m³/h", 1.0, 1),
            Self::ConductivityWMk => ("W/(m·K)", 1.0, 3),
            Self::PressureKpa => ("kPa", 1.0, 2),
            Self::SpeedMS => ("m/s", 1.0, 1),
            Self::Plain => ("", 1.0, 2),
        };
        ShownUnit {
            unit,
            factor,
            offset: 0.0,
            decimals,
            step: match self {
                Self::Hours | Self::ClockH => 0.5,
                Self::LengthMm => 5.0,
                Self::Money => 0.01,
                Self::MassKg => 0.5,
                Self::ConductivityWMk => 0.005,
                _ => 1.0,
            },
            snap: None,
        }
    }

    /// How it is written for somebody who measures in `system`.
    pub fn shown(self, system: UnitSystem) -> ShownUnit {
        match (self, system) {
            (Self::LengthMm, UnitSystem::Metric) => ShownUnit {
                unit: "cm",
                factor: 1.0 / MM_PER_CM,
                offset: 0.0,
                decimals: 1,
                step: 0.5,
                snap: None,
            },
            (Self::LengthMm, UnitSystem::Us) => ShownUnit {
                unit: "in",
                factor: 1.0 / MM_PER_INCH,
                offset: 0.0,
                decimals: 2,
                step: 0.25,
                snap: Some(0.25),
            },
            (Self::TemperatureC, UnitSystem::Us) => ShownUnit {
                unit: "°F",
                factor: FAHRENHEIT_PER_KELVIN,
                offset: 32.0,
                decimals: 0,
                step: 1.0,
                snap: None,
            },
            (Self::DifferenceK, UnitSystem::Us) => ShownUnit {
                unit: "°F",
                factor: FAHRENHEIT_PER_KELVIN,
                offset: 0.0,
                decimals: 1,
                step: 1.0,
                snap: None,
            },
            (Self::MassKg, UnitSystem::Us) => ShownUnit {
                unit: "lb",
                factor: 1.0 / KG_PER_POUND,
                offset: 0.0,
                decimals: 1,
                step: 1.0,
                snap: None,
            },
            (Self::VolumeMl, UnitSystem::Us) => ShownUnit {
                unit: "fl oz",
                factor: 1.0 / ML_PER_US_FLUID_OUNCE,
                offset: 0.0,
                decimals: 1,
                step: 0.5,
                snap: None,
            },
            (Self::FlowM3H, UnitSystem::Us) => ShownUnit {
                unit: "cfm",
                factor: 1.0 / M3_PER_H_PER_CFM,
                offset: 0.0,
                decimals: 0,
                step: 5.0,
                snap: None,
            },
            (Self::SpeedMS, UnitSystem::Us) => ShownUnit {
                unit: "ft/min",
                factor: FEET_PER_MIN_PER_M_S,
                offset: 0.0,
                decimals: 0,
                step: 10.0,
                snap: None,
            },
            (Self::DifferenceK, UnitSystem::Metric) => ShownUnit {
                unit: "°C",
                ..self.si()
            },
            _ => self.si(),
        }
    }
}

/// How a quantity is written: `shown = held * factor + offset`, with `decimals` places.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct ShownUnit {
    /// The unit's sign, empty for bare numbers and money.
    pub unit: &'static str,
    /// Shown units per held unit.
    pub factor: f64,
    /// Added after the factor (°F).
    pub offset: f64,
    /// Decimal places that are worth reading.
    pub decimals: u8,
    /// A handy step to change it by, in shown units.
    pub step: f64,
    /// What is within a millimetre of a multiple of this, in shown units, is shown as that: nobody
    /// calls a shelf of 48 inches one of 48.03.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub snap: Option<f64>,
}

/// One quantity in both systems.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct UnitRow {
    /// The quantity.
    pub quantity: Quantity,
    /// How a metric reader sees it.
    pub metric: ShownUnit,
    /// How a US reader sees it.
    pub us: ShownUnit,
    /// How the plan holds it.
    pub held: ShownUnit,
}

/// The whole table of units for a screen to write and read numbers by.
pub fn shown_units() -> Vec<UnitRow> {
    Quantity::ALL
        .into_iter()
        .map(|quantity| UnitRow {
            quantity,
            metric: quantity.shown(UnitSystem::Metric),
            us: quantity.shown(UnitSystem::Us),
            held: quantity.si(),
        })
        .collect()
}

const MM_PER_CM: f64 = 10.0;
/// Exact by definition of the international inch (1959).
pub(crate) const MM_PER_INCH: f64 = 25.4;
const FAHRENHEIT_PER_KELVIN: f64 = 1.8;
/// Exact by definition of the international avoirdupois pound (1959).
const KG_PER_POUND: f64 = 0.453_592_37;
/// A US gallon is 231 cubic inches and 128 fluid ounces.
const ML_PER_US_FLUID_OUNCE: f64 = 231.0 * 16.387_064 / 128.0;
/// A cubic foot is 12 cubed inches; 60 minutes in an hour.
const M3_PER_H_PER_CFM: f64 = 60.0 * 0.304_8 * 0.304_8 * 0.304_8;

/// Sixty seconds a minute, 304.8 mm a foot.
const FEET_PER_MIN_PER_M_S: f64 = 60.0 / 0.304_8;

/// Exact by definition: twelve inches.
pub(crate) const MM_PER_FOOT: f64 = 12.0 * MM_PER_INCH;

/// The step in mm in which a hand hangs a lamp: a centimetre, or half an inch.
pub fn hanging_step_mm(system: UnitSystem) -> f64 {
    match system {
        UnitSystem::Metric => MM_PER_CM,
        UnitSystem::Us => MM_PER_INCH / 2.0,
    }
}

/// Days in a week.
pub const DAYS_PER_WEEK: f64 = 7.0;

/// Area in m² of a rectangle given in mm.
pub fn area_m2(length_mm: f64, width_mm: f64) -> f64 {
    length_mm * width_mm * 1e-6
}

/// Volume in litres of a box given in mm.
pub fn litres(length_mm: f64, width_mm: f64, depth_mm: f64) -> f64 {
    length_mm * width_mm * depth_mm * 1e-6
}

/// Daily light integral in mol/m²/d of `ppfd` µmol/m²/s held for `hours` h.
///
/// 3600 s per hour and 10⁻⁶ mol per µmol give the trade's factor 0.0036.
///
/// ```
/// use sunrise_core::basis::units::dli_mol_m2_d;
/// assert!((dli_mol_m2_d(200.0, 16.0) - 11.52).abs() < 1e-9);
/// ```
pub fn dli_mol_m2_d(ppfd: f64, hours: f64) -> f64 {
    ppfd * hours * 3600.0 * 1e-6
}

/// The PPFD in µmol/m²/s that gives a daily light integral of `dli` mol/m²/d in `hours` h.
pub fn ppfd_umol_m2_s(dli: f64, hours: f64) -> f64 {
    dli / dli_mol_m2_d(1.0, hours)
}

/// Energy in kWh of `watts` W for `hours` h.
pub fn energy_kwh(watts: f64, hours: f64) -> f64 {
    watts * hours / 1000.0
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_quantity_is_listed_once() {
        let mut seen: Vec<_> = shown_units().iter().map(|row| row.quantity).collect();
        seen.sort();
        seen.dedup();
        assert_eq!(seen.len(), Quantity::ALL.len());
    }

    #[test]
    fn fixed_points_convert() {
        let shown = |q: Quantity, v: f64| {
            let u = q.shown(UnitSystem::Us);
            v * u.factor + u.offset
        };
        assert!((shown(Quantity::LengthMm, 304.8) - 12.0).abs() < 1e-12);
        assert!((shown(Quantity::TemperatureC, 100.0) - 212.0).abs() < 1e-12);
        assert!((shown(Quantity::TemperatureC, -40.0) + 40.0).abs() < 1e-12);
    }
}
