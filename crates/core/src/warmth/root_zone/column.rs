//! A tray as a column of levels, and how heat runs through it.

use crate::air::{saturation_pressure_pa, saturation_slope_per_k};
use crate::basis::units::area_m2;
use crate::warmth::root_zone::set_up::RootZone;
use crate::warmth::transfer::{
    AIR_LAYER_UP_M2K_W, SURFACE_ACROSS_M2K_W, SURFACE_DOWN_M2K_W, SURFACE_UP_M2K_W, air_at,
    resistance_m2k_w,
};

/// Resistance between a mat and the mix over it: the tray's ribs and a little air (our own
/// estimate).
const CONTACT_M2K_W: f64 = 0.03;
/// What mat and tray store, in J/(m²·K): 3 kg of plastic a m² (our own estimate).
const MAT_J_M2K: f64 = 4500.0;
/// Convection at a level surface that heat leaves upwards, in W/(m²·K).
///
/// Source: ISO 6946, annex on surface resistances (h_c = 5.0).
const CONVECTION_UP_W_M2K: f64 = 5.0;
/// What moving air adds to that, in W/(m²·K) for each m/s.
///
/// Source: McAdams, flat plate in a parallel stream, 5.7 + 3.8 v (from memory).
const CONVECTION_BY_SPEED: f64 = 3.8;
/// Convection in a layer of air that heat crosses upwards, in W/(m²·K).
///
/// Source: ISO 6946, annex on unventilated layers (h_a = 1.95).
const LAYER_CONVECTION_W_M2K: f64 = 1.95;
/// A dome's lid and sides against the tray beneath (our own estimate: sides of 60 mm, partly among others).
const LID_PER_TRAY: f64 = 1.4;
/// Air under a dome is about so much warmer than the room's: how steeply vapour pressure rises is read there.
const UNDER_A_DOME_K: f64 = 4.0;
/// Heat to evaporate water at 20 °C, in J/kg.
pub(super) const LATENT_J_KG: f64 = 2.454e6;
/// Pa/K: what turns a difference of vapour pressure into one of heat at a wet surface, c_p p /
/// (0.622 L) at sea level.
///
/// Source: ASHRAE Fundamentals, psychrometrics (from memory).
const PSYCHROMETRIC_PA_K: f64 = 66.0;
/// Convection at a level surface over which air moves at `air_m_s`, in W/(m²·K).
fn convection_w_m2k(air_m_s: f64) -> f64 {
    CONVECTION_UP_W_M2K + CONVECTION_BY_SPEED * air_m_s
}

/// What evaporates from an open surface of mix in air that lacks `vpd_kpa` and moves at `air_m_s`, in kg/m² a
/// day, where nothing warms it (our own estimate of how wet it is; the rest as in a column).
pub fn evaporation_kg_m2_d(vpd_kpa: f64, wetness: f64, air_m_s: f64) -> f64 {
    const PA_PER_KPA: f64 = 1000.0;
    const SECONDS_PER_DAY: f64 = 86_400.0;
    let w_m2 = wetness * convection_w_m2k(air_m_s) / PSYCHROMETRIC_PA_K * vpd_kpa * PA_PER_KPA;
    w_m2 * SECONDS_PER_DAY / LATENT_J_KG
}

/// Levels in the mix, from its bottom to its surface; roots are in the middle.
pub(super) const LEVELS: usize = 5;
pub(super) const ROOTS: usize = 1 + LEVELS / 2;
/// The mat's level and the mix's.
pub(super) const NODES: usize = LEVELS + 1;

/// The column as a network of conductances, per m² of tray.
pub(super) struct Column {
    /// J/(m²·K) of each level.
    pub(super) stores: [f64; NODES],
    /// W/(m²·K) from each level to the one above.
    pub(super) up: [f64; NODES - 1],
    /// To what is below.
    pub(super) down: f64,
    /// From the surface to the air above.
    pub(super) above: f64,
    /// From each level through the sides.
    pub(super) aside: [f64; NODES],
    /// What the mat gives when it is on, in W/m².
    pub(super) mat_w_m2: f64,
    /// W/m² per Pa of vapour pressure that the surface has over the air's.
    pub(super) evaporates: f64,
    /// The room's air at the end of each whole step of the day: every day asks for the same.
    pub(super) air: Vec<Air>,
}

/// The room's air at a moment.
#[derive(Clone, Copy)]
pub(super) struct Air {
    /// In °C.
    pub(super) c: f64,
    /// Its vapour pressure.
    pub(super) vapour_pa: f64,
}

impl RootZone {
    /// Steps of five minutes; of two where a thermostat switches.
    pub(super) fn steps_per_hour(&self) -> usize {
        if self.thermostat.is_some() { 30 } else { 12 }
    }

    pub(super) fn step_s(&self) -> f64 {
        3600.0 / self.steps_per_hour() as f64
    }

    pub(super) fn column(&self) -> Column {
        let tray = &self.tray;
        let area = area_m2(tray.length_mm, tray.width_mm);
        let slice_m = self.mix.depth_mm / 1000.0 / (LEVELS - 1) as f64;
        // Levels at both ends of the mix stand for half a slice.
        let thick = |level: usize| {
            if level == 0 || level == LEVELS - 1 {
                slice_m / 2.0
            } else {
                slice_m
            }
        };
        let mut stores = [MAT_J_M2K; NODES];
        let mut up = [1.0 / CONTACT_M2K_W; NODES - 1];
        let mut aside = [0.0; NODES];
        let round_m = 2.0 * (tray.length_mm + tray.width_mm) / 1000.0 * tray.free_sides;
        for level in 0..LEVELS {
            stores[level + 1] = self.mix.heat_capacity_mj_m3k * 1e6 * thick(level);
            aside[level + 1] = round_m * thick(level) / area / SURFACE_ACROSS_M2K_W;
            if level + 1 < LEVELS {
                up[level + 1] = self.mix.conductivity_w_mk / slice_m;
            }
        }
        let under = resistance_m2k_w(&self.under);
        let down = if self.warm_surface_c.is_some() {
            CONTACT_M2K_W + under
        } else {
            SURFACE_DOWN_M2K_W + under
        };
        let moved = CONVECTION_BY_SPEED * self.air_m_s;
        let surface = 1.0 / (1.0 / SURFACE_UP_M2K_W + moved);
        let over = if self.dome {
            1.0 / (1.0 / AIR_LAYER_UP_M2K_W + self.condensing_w_m2k()) + surface / LID_PER_TRAY
        } else {
            surface
        };
        Column {
            stores,
            up,
            down: 1.0 / down,
            above: 1.0 / over,
            aside,
            mat_w_m2: self.mat.map_or(0.0, |mat| {
                mat.watts / area_m2(mat.length_mm, mat.width_mm) * mat.cover
            }),
            evaporates: if self.dome {
                0.0
            } else {
                self.mix.wetness * convection_w_m2k(self.air_m_s) / PSYCHROMETRIC_PA_K
            },
            air: (1..=24 * self.steps_per_hour())
                .map(|step| self.air(step as f64 / self.steps_per_hour() as f64))
                .collect(),
        }
    }

    /// What vapour carries from warm mix to the lid of a dome, where it condenses and drips back, in
    /// W/(m²·K).
    fn condensing_w_m2k(&self) -> f64 {
        let about_c = (self.air.day_c + self.air.night_c) / 2.0 + UNDER_A_DOME_K;
        let slope_pa_k = saturation_pressure_pa(about_c) * saturation_slope_per_k(about_c);
        self.mix.wetness * LAYER_CONVECTION_W_M2K / PSYCHROMETRIC_PA_K * slope_pa_k
    }

    pub(super) fn air(&self, hour: f64) -> Air {
        self.air_of(self.air_c(hour))
    }

    pub(super) fn air_of(&self, c: f64) -> Air {
        // Nothing asks under a dome.
        let vapour_pa = if self.dome {
            0.0
        } else {
            self.air.humidity * saturation_pressure_pa(c)
        };
        Air { c, vapour_pa }
    }

    pub(super) fn air_c(&self, hour: f64) -> f64 {
        air_at(self.air.day_c, self.air.night_c, hour)
    }
}
