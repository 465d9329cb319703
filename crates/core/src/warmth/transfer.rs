//! Heat through layers and surfaces.

use crate::basis::clock::DAY_H;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;

/// Resistance of an inner surface to heat that flows up, across and down, in m²K/W.
///
/// Source: ISO 6946, table of conventional surface resistances: 0.10, 0.13, 0.17.
pub const SURFACE_UP_M2K_W: f64 = 0.10;
/// See [`SURFACE_UP_M2K_W`].
pub const SURFACE_ACROSS_M2K_W: f64 = 0.13;
/// See [`SURFACE_UP_M2K_W`].
pub const SURFACE_DOWN_M2K_W: f64 = 0.17;
/// Resistance of an unventilated layer of air, 15 to 300 mm thick, to heat that flows up.
///
/// Source: ISO 6946, table of unventilated air layers.
pub const AIR_LAYER_UP_M2K_W: f64 = 0.16;

/// A layer of a wall or a pad.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Layer {
    /// How thick it is.
    pub thickness_mm: f64,
    /// How well it conducts, in W/(m·K).
    pub conductivity_w_mk: f64,
}

impl Layer {
    /// Its resistance in m²K/W: R = d / λ.
    ///
    /// Source: ISO 6946, homogeneous layers.
    ///
    /// Source: ISO 6946, thermal resistance of a component of homogeneous layers.
    ///
    /// ```
    /// use sunrise_core::warmth::transfer::Layer;
    /// let foam = Layer { thickness_mm: 35.0, conductivity_w_mk: 0.035 };
    /// assert!((foam.resistance_m2k_w() - 1.0).abs() < 1e-12);
    /// ```
    pub fn resistance_m2k_w(&self) -> f64 {
        self.thickness_mm / 1000.0 / self.conductivity_w_mk
    }

    pub(super) fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.number(
            &at.at("thickness_mm"),
            self.thickness_mm,
            0.01..=500.0,
            Quantity::LengthMm,
        );
        faults.number(
            &at.at("conductivity_w_mk"),
            self.conductivity_w_mk,
            0.005..=500.0,
            Quantity::ConductivityWMk,
        );
    }
}

/// The resistance of layers on top of one another, without surfaces, in m²K/W.
pub fn resistance_m2k_w(layers: &[Layer]) -> f64 {
    layers.iter().map(Layer::resistance_m2k_w).sum()
}

/// The hour at which air is warmest (common practice, no source).
pub const WARMEST_H: f64 = 15.0;

/// The hours of a day in which air that is so warm by day and by night is at `least_c` or over: as many
/// before its warmest as after.
pub fn hours_over(day_c: f64, night_c: f64, least_c: f64) -> f64 {
    let (mean_c, half_k) = ((day_c + night_c) / 2.0, (day_c - night_c) / 2.0);
    if half_k <= 0.0 {
        return if mean_c >= least_c { DAY_H } else { 0.0 };
    }
    let over = ((least_c - mean_c) / half_k).clamp(-1.0, 1.0);
    over.acos() * DAY_H / std::f64::consts::PI
}

/// The air of a room through the day, in °C at the full hours: a sine between night and day that
/// is warmest at three in the afternoon (common practice, no source).
pub fn air_through_day(day_c: f64, night_c: f64) -> [f64; 24] {
    std::array::from_fn(|hour| air_at(day_c, night_c, hour as f64))
}

/// The same at any hour.
pub fn air_at(day_c: f64, night_c: f64, hour: f64) -> f64 {
    let turn = (hour - WARMEST_H) * std::f64::consts::TAU / DAY_H;
    (day_c + night_c) / 2.0 + (day_c - night_c) / 2.0 * turn.cos()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn air_is_over_a_temperature_for_the_hours_that_its_sine_is() {
        assert!((hours_over(16.0, 4.0, 10.0) - 12.0).abs() < 1e-9);
        assert_eq!(hours_over(16.0, 4.0, 3.0), 24.0);
        assert_eq!(hours_over(16.0, 4.0, 17.0), 0.0);
        assert_eq!(
            (hours_over(9.0, 9.0, 8.0), hours_over(9.0, 9.0, 10.0)),
            (24.0, 0.0)
        );
        let hours = hours_over(15.0, 5.0, 13.0);
        assert!((air_at(15.0, 5.0, WARMEST_H - hours / 2.0) - 13.0).abs() < 1e-9);
    }

    /// ISO 6946: R_total = R_si + Σ d/λ + R_se. A wall of 43 mm of mineral wool between sheets.
    #[test]
    fn layers_add_up() {
        let wool = Layer {
            thickness_mm: 43.0,
            conductivity_w_mk: 0.038,
        };
        let steel = Layer {
            thickness_mm: 1.0,
            conductivity_w_mk: 50.0,
        };
        let wall = resistance_m2k_w(&[steel.clone(), wool, steel]);
        let total = SURFACE_ACROSS_M2K_W + wall + SURFACE_ACROSS_M2K_W;
        assert!((total - (0.26 + 0.043 / 0.038 + 0.00004)).abs() < 1e-9);
    }

    #[test]
    fn the_room_swings_between_night_and_day() {
        let air = air_through_day(18.0, 15.0);
        assert_eq!(air[15], 18.0);
        assert!((air[3] - 15.0).abs() < 1e-9);
        let mean = air.iter().sum::<f64>() / 24.0;
        assert!((mean - 16.5).abs() < 1e-9);
    }
}
