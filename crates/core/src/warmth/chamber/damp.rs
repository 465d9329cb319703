//! The vapour in a chamber: what trays give off, walls take and vents carry away. One amount for all of its
//! air, which plumes keep stirring.

use crate::air::vapour::{EVAPORATION_J_KG, Exchange, saturated_kg_m3};
use crate::warmth::chamber::set_up::ChamberSetUp;
use crate::warmth::transfer::{SURFACE_ACROSS_M2K_W, resistance_m2k_w};

/// The vapour in a chamber from step to step.
pub(super) struct Damp {
    pub(super) vapour_kg_m3: f64,
    /// What its trays have given off since the day began, in kg, and what its walls took.
    pub(super) given_kg: f64,
    pub(super) dew_kg: f64,
    /// Of the room.
    outside_kg_m3: f64,
    volume_m3: f64,
    wet_m2: f64,
    walls_m2: f64,
    /// How far from the air inside to that of the room the inner face of its walls is.
    share: f64,
}

impl Damp {
    /// At first as damp as the room, which holds `outside_kg_m3`.
    pub(super) fn new(chamber: &ChamberSetUp, outside_kg_m3: f64) -> Self {
        let [w, d, h] =
            [chamber.width_mm, chamber.depth_mm, chamber.height_mm].map(|mm| mm / 1000.0);
        let wall = resistance_m2k_w(&chamber.walls);
        // Air that a fan drives takes up twice as much (our own estimate).
        const DRIVEN: f64 = 2.0;
        let driven = if chamber.fan_m3_h > 0.0 { DRIVEN } else { 1.0 };
        Self {
            vapour_kg_m3: outside_kg_m3,
            given_kg: 0.0,
            dew_kg: 0.0,
            outside_kg_m3,
            volume_m3: w * d * h,
            wet_m2: chamber.wet_m2 * driven,
            walls_m2: 2.0 * (w * d + w * h + d * h),
            share: SURFACE_ACROSS_M2K_W / (2.0 * SURFACE_ACROSS_M2K_W + wall),
        }
    }

    pub(super) fn begins_a_day(&mut self) {
        (self.given_kg, self.dew_kg) = (0.0, 0.0);
    }

    /// `step_s` seconds on with the air at `air_c`, the room at `room_c` and so much air let through; the heat that
    /// vapour gives the air, in W: less than nothing, since it evaporates before it condenses.
    pub(super) fn step(&mut self, step_s: f64, air_c: f64, room_c: f64, flow_m3_s: f64) -> f64 {
        let vapour = Exchange {
            wet_m2: self.wet_m2,
            wet_c: air_c,
            dew_m2: self.walls_m2,
            dew_c: air_c - self.share * (air_c - room_c),
        }
        .with(self.vapour_kg_m3);
        let volume = self.volume_m3 / step_s;
        let gains =
            volume * self.vapour_kg_m3 + flow_m3_s * self.outside_kg_m3 + vapour.into_dry_kg_s;
        let next = gains / (volume + flow_m3_s + vapour.per_kg_m3);
        self.vapour_kg_m3 = next.min(saturated_kg_m3(air_c));
        self.given_kg += vapour.evaporates_kg_s * step_s;
        self.dew_kg += vapour.condenses_kg_s * step_s;
        // What condenses warms the wall, which gives its share of it back.
        let back = vapour.condenses_kg_s * (1.0 - self.share);
        EVAPORATION_J_KG * (back - vapour.evaporates_kg_s)
    }
}

/// The relative humidity at each hour, 0 to 1, of air that is so warm and holds so much vapour.
pub(super) fn humidities(air_c: &[f64], vapour_kg_m3: &[f64]) -> Vec<f64> {
    let each = air_c.iter().zip(vapour_kg_m3);
    each.map(|(c, vapour)| (vapour / saturated_kg_m3(*c)).min(1.0))
        .collect()
}
