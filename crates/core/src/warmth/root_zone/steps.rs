//! The column from step to step.

use crate::air::{saturation_pressure_pa, saturation_slope_per_k};
use crate::basis::clock::{Burning, DAY_H};
use crate::warmth::root_zone::column::{Air, Column, NODES, ROOTS};
use crate::warmth::root_zone::set_up::{ProbeSpot, RootZone, Thermostat};

/// Heat in photons of white light, in J/µmol: 550 nm, N_A h c / λ.
const J_PER_UMOL: f64 = 0.2175;

/// What mix and leaves take up of light (1 less their reflectance).
const ABSORBED: f64 = 0.92;

/// What flowed over some time.
#[derive(Default)]
pub(super) struct Flows {
    pub(super) evaporated_j_m2: f64,
    /// Seconds that the mat was on.
    pub(super) on_s: f64,
}

impl Flows {
    pub(super) fn add(&mut self, other: Self) {
        self.evaporated_j_m2 += other.evaporated_j_m2;
        self.on_s += other.on_s;
    }
}

/// The column at a moment.
#[derive(Clone, Copy)]
pub(super) struct State {
    /// °C of each level: the mat's first, the surface's last.
    pub(super) at: [f64; NODES],
    /// Whether the mat is on.
    pub(super) on: bool,
}

impl State {
    pub(super) fn cold(column: &Column, c: f64) -> Self {
        Self {
            at: [c; NODES],
            on: column.mat_w_m2 > 0.0,
        }
    }
}

impl Thermostat {
    /// The probe's temperatures at which it switches on and off.
    pub(super) fn switches_c(&self) -> [f64; 2] {
        [-0.5, 0.5].map(|half| self.set_c + self.dial_error_k + half * self.hysteresis_k)
    }
}

impl RootZone {
    /// A step on. A thermostat that switches within it splits it there.
    pub(super) fn step(&self, column: &Column, state: &mut State, hour: f64, flows: &mut Flows) {
        let step_s = self.step_s();
        let before = *state;
        let mut own = Flows::default();
        self.go(column, state, hour, step_s, &mut own);
        let Some(thermostat) = self.thermostat else {
            flows.add(own);
            return;
        };
        let probe = |state: &State, hour: f64| match thermostat.probe {
            ProbeSpot::Mix => state.at[ROOTS],
            ProbeSpot::Mat => state.at[0],
            ProbeSpot::Air => self.air_c(hour),
        };
        let [on_c, off_c] = thermostat.switches_c();
        let from = probe(&before, hour);
        let to = probe(state, hour + step_s / 3600.0);
        let crosses = if before.on { to >= off_c } else { to <= on_c };
        if !crosses {
            flows.add(own);
            return;
        }
        let at_c = if before.on { off_c } else { on_c };
        let share = if to == from {
            0.0
        } else {
            ((at_c - from) / (to - from)).clamp(0.0, 1.0)
        };
        *state = before;
        let first_s = share * step_s;
        if first_s > 0.0 {
            self.go(column, state, hour, first_s, flows);
        }
        state.on = !before.on;
        if first_s < step_s {
            let hour = hour + first_s / 3600.0;
            self.go(column, state, hour, step_s - first_s, flows);
        }
    }

    /// `seconds` on from `hour`.
    pub(super) fn go(
        &self,
        column: &Column,
        state: &mut State,
        hour: f64,
        seconds: f64,
        flows: &mut Flows,
    ) {
        let per_hour = column.air.len() as f64 / DAY_H;
        let whole = seconds == 3600.0 / per_hour;
        let step = (hour * per_hour).round() as usize;
        let air = match column.air.get(step) {
            Some(air) if whole => *air,
            _ => self.air(hour + seconds / 3600.0),
        };
        let lit = self
            .light
            .filter(|light| Burning::new(light.from_h, light.hours).at(hour));
        let light_w_m2 = lit.map_or(0.0, |light| light.ppfd * J_PER_UMOL * ABSORBED);
        self.advance(column, state, (air, light_w_m2), seconds, flows);
    }

    /// As warm as it would be if the mean day went on for ever: a good place to begin.
    pub(super) fn settled(&self, column: &Column) -> State {
        let air = (self.air.day_c + self.air.night_c) / 2.0;
        let light = self.light.map_or(0.0, |light| {
            light.ppfd * J_PER_UMOL * ABSORBED * light.hours / DAY_H
        });
        let at = |on: bool| {
            let mut state = State::cold(column, air);
            state.on = on;
            // Evaporation is no straight line: a few steps without end settle it.
            const FOR_EVER_S: f64 = 1e9;
            for _ in 0..4 {
                self.advance(
                    column,
                    &mut state,
                    (self.air_of(air), light),
                    FOR_EVER_S,
                    &mut Flows::default(),
                );
            }
            state
        };
        let mut on = at(column.mat_w_m2 > 0.0);
        if let Some(thermostat) = self.thermostat {
            let off = at(false);
            let rise = on.at[ROOTS] - off.at[ROOTS];
            let wanted = thermostat.set_c + thermostat.dial_error_k - off.at[ROOTS];
            let share = (wanted / rise.max(0.01)).clamp(0.0, 1.0);
            for (c, off) in on.at.iter_mut().zip(off.at) {
                *c = off + share * (*c - off);
            }
        }
        on
    }

    /// `seconds` on in still air of so many °C and so much light in W/m², by the implicit rule.
    pub(super) fn advance(
        &self,
        column: &Column,
        state: &mut State,
        (Air { c: air, vapour_pa }, light_w_m2): (Air, f64),
        seconds: f64,
        flows: &mut Flows,
    ) {
        let surface = state.at[NODES - 1];
        // Evaporation along its tangent at the last surface temperature.
        let (tangent, evaporation) = if column.evaporates > 0.0 {
            let saturated = saturation_pressure_pa(surface);
            let slope = saturated * saturation_slope_per_k(surface);
            let over = saturated - vapour_pa;
            (column.evaporates * slope, column.evaporates * over)
        } else {
            (0.0, 0.0)
        };

        let below = self.warm_surface_c.unwrap_or(air);
        let mut diagonal = [0.0; NODES];
        let mut right = [0.0; NODES];
        for i in 0..NODES {
            let stored = column.stores[i] / seconds;
            diagonal[i] = stored + column.aside[i];
            right[i] = stored * state.at[i] + column.aside[i] * air;
            if i > 0 {
                diagonal[i] += column.up[i - 1];
            }
            if i + 1 < NODES {
                diagonal[i] += column.up[i];
            }
        }
        diagonal[0] += column.down;
        right[0] += column.down * below;
        if state.on {
            right[0] += column.mat_w_m2;
        }
        let last = NODES - 1;
        diagonal[last] += column.above + tangent;
        right[last] += column.above * air + light_w_m2 - evaporation + tangent * surface;
        // Gauss's elimination of three diagonals.
        for i in 1..NODES {
            let share = column.up[i - 1] / diagonal[i - 1];
            diagonal[i] -= share * column.up[i - 1];
            right[i] += share * right[i - 1];
        }
        state.at[last] = right[last] / diagonal[last];
        for i in (0..last).rev() {
            state.at[i] = (right[i] + column.up[i] * state.at[i + 1]) / diagonal[i];
        }
        let evaporated_w_m2 = evaporation + tangent * (state.at[last] - surface);
        flows.evaporated_j_m2 += evaporated_w_m2 * seconds;
        flows.on_s += if state.on { seconds } else { 0.0 };
    }
}
