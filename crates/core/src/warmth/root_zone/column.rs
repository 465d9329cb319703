//! A tray as a column of levels, and how heat runs through it.

use super::{ProbeSpot, RootZone, RootZoneDay, Thermostat};
use crate::air::{saturation_pressure_pa, saturation_slope_per_k};
use crate::daytime::{Burning, DAY_H};
use crate::fault::Fault;
use crate::units::{area_m2, energy_kwh};
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
/// Pa/K: what turns a difference of vapour pressure into one of heat at a wet surface, c_p p /
/// (0.622 L) at sea level.
///
/// Source: ASHRAE Fundamentals, psychrometrics (from memory).
const PSYCHROMETRIC_PA_K: f64 = 66.0;
/// Heat to evaporate water at 20 °C, in J/kg.
const LATENT_J_KG: f64 = 2.454e6;
/// Heat in photons of white light, in J/µmol: 550 nm, N_A h c / λ.
const J_PER_UMOL: f64 = 0.2175;
/// What mix and leaves take up of light (1 less their reflectance).
const ABSORBED: f64 = 0.92;

/// Levels in the mix, from its bottom to its surface; roots are in the middle.
const LEVELS: usize = 5;
const ROOTS: usize = 1 + LEVELS / 2;
/// The mat's level and the mix's.
const NODES: usize = LEVELS + 1;

/// The column as a network of conductances, per m² of tray.
struct Column {
    /// J/(m²·K) of each level.
    stores: [f64; NODES],
    /// W/(m²·K) from each level to the one above.
    up: [f64; NODES - 1],
    /// To what is below.
    down: f64,
    /// From the surface to the air above.
    above: f64,
    /// From each level through the sides.
    aside: [f64; NODES],
    /// What the mat gives when it is on, in W/m².
    mat_w_m2: f64,
    /// W/m² per Pa of vapour pressure that the surface has over the air's.
    evaporates: f64,
    /// The room's air at the end of each whole step of the day: every day asks for the same.
    air: Vec<Air>,
}

/// The room's air at a moment.
#[derive(Clone, Copy)]
struct Air {
    /// In °C.
    c: f64,
    /// Its vapour pressure.
    vapour_pa: f64,
}

impl RootZone {
    /// Steps of five minutes; of two where a thermostat switches.
    fn steps_per_hour(&self) -> usize {
        if self.thermostat.is_some() { 30 } else { 12 }
    }

    fn step_s(&self) -> f64 {
        3600.0 / self.steps_per_hour() as f64
    }

    fn column(&self) -> Column {
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
        let over = if self.dome {
            AIR_LAYER_UP_M2K_W + SURFACE_UP_M2K_W
        } else {
            SURFACE_UP_M2K_W
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
                self.mix.wetness * CONVECTION_UP_W_M2K / PSYCHROMETRIC_PA_K
            },
            air: (1..=24 * self.steps_per_hour())
                .map(|step| self.air(step as f64 / self.steps_per_hour() as f64))
                .collect(),
        }
    }

    fn air(&self, hour: f64) -> Air {
        self.air_of(self.air_c(hour))
    }

    fn air_of(&self, c: f64) -> Air {
        // Nothing asks under a dome.
        let vapour_pa = if self.dome {
            0.0
        } else {
            self.air.humidity * saturation_pressure_pa(c)
        };
        Air { c, vapour_pa }
    }

    pub(super) fn run(&self) -> RootZoneDay {
        let column = self.column();
        let mut state = self.settled(&column);
        let warm_up_h = self.warm_up_h(&column);
        const MOST_DAYS: usize = 6;
        const SAME_K: f64 = 0.02;
        let mut before: Option<RootZoneDay> = None;
        let mut day = None;
        for _ in 0..MOST_DAYS {
            let began = state;
            let run = self.one_day(&column, &mut state);
            let near = |a: f64, b: f64| (a - b).abs() < SAME_K;
            let same = match (&self.thermostat, &before) {
                // A thermostat's beat shifts from day to day; its mean does not.
                (Some(_), Some(last)) => near(run.mean_c, last.mean_c),
                (Some(_), None) => false,
                // What ends as it began goes on so.
                (None, _) => began.at.iter().zip(&state.at).all(|(a, b)| near(*a, *b)),
            };
            before = Some(run.clone());
            day = Some(run);
            if same {
                break;
            }
        }
        let mut day = day.expect("at least one day was run");
        day.warm_up_h = warm_up_h;
        day.reaches = self
            .thermostat
            .is_none_or(|thermostat| match thermostat.probe {
                ProbeSpot::Mix => {
                    day.least_c >= thermostat.switches_c()[0] - thermostat.hysteresis_k
                }
                ProbeSpot::Mat | ProbeSpot::Air => day.duty < 0.99,
            });
        day
    }

    fn one_day(&self, column: &Column, state: &mut State) -> RootZoneDay {
        let (mut hours, mut surface, mut mat) = (Vec::new(), Vec::new(), Vec::new());
        let (mut sum, mut least, mut most) = (0.0, f64::INFINITY, f64::NEG_INFINITY);
        let mut flows = Flows::default();
        let per_hour = self.steps_per_hour();
        let steps = 24 * per_hour;
        for step in 0..steps {
            let hour = step as f64 / per_hour as f64;
            if step.is_multiple_of(per_hour) {
                hours.push(state.at[ROOTS]);
                surface.push(state.at[NODES - 1]);
                mat.push(state.at[0]);
            }
            self.step(column, state, hour, &mut flows);
            let roots = state.at[ROOTS];
            sum += roots;
            least = least.min(roots);
            most = most.max(roots);
        }
        let air = (self.air.day_c + self.air.night_c) / 2.0;
        let mean_c = sum / steps as f64;
        let duty = flows.on_s / (DAY_H * 3600.0);
        let area = area_m2(self.tray.length_mm, self.tray.width_mm);
        RootZoneDay {
            root_zone_c: hours,
            surface_c: surface,
            mat_c: mat,
            mean_c,
            least_c: least,
            most_c: most,
            lift_k: mean_c - air,
            duty: if self.mat.is_some() { duty } else { 0.0 },
            kwh_per_day: energy_kwh(column.mat_w_m2 * area * duty, DAY_H),
            warm_up_h: None,
            evaporation_kg_m2_d: flows.evaporated_j_m2.max(0.0) / LATENT_J_KG,
            reaches: true,
            helps: Vec::new(),
        }
    }

    /// At root depth at each full hour from midnight on, `hours` of them, when all of it is as
    /// cool as the night's air to begin with, in °C.
    ///
    /// # Errors
    /// See [`Self::day`].
    pub fn from_cold(&self, hours: usize) -> Result<Vec<f64>, Vec<Fault>> {
        self.check()?;
        let column = self.column();
        let mut state = State::cold(&column, self.air.night_c);
        let mut flows = Flows::default();
        let each = (0..hours).map(|hour| {
            for step in 0..self.steps_per_hour() {
                let hour = hour as f64 + step as f64 / self.steps_per_hour() as f64;
                let hour = hour.rem_euclid(DAY_H);
                self.step(&column, &mut state, hour, &mut flows);
            }
            state.at[ROOTS]
        });
        Ok(each.collect())
    }

    /// A step on. A thermostat that switches within it splits it there.
    fn step(&self, column: &Column, state: &mut State, hour: f64, flows: &mut Flows) {
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

    fn air_c(&self, hour: f64) -> f64 {
        air_at(self.air.day_c, self.air.night_c, hour)
    }

    /// `seconds` on from `hour`.
    fn go(&self, column: &Column, state: &mut State, hour: f64, seconds: f64, flows: &mut Flows) {
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
    fn settled(&self, column: &Column) -> State {
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
    fn advance(
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

    /// From the coolest of the night, mat on, until warm.
    fn warm_up_h(&self, column: &Column) -> Option<f64> {
        self.mat?;
        const MOST_H: usize = 72;
        const COLDEST_H: f64 = 3.0;
        let mut state = State::cold(column, self.air.night_c);
        let mut flows = Flows::default();
        let always = Self {
            thermostat: None,
            ..self.clone()
        };
        let wanted = match &self.thermostat {
            Some(thermostat) if thermostat.probe == ProbeSpot::Mix => thermostat.switches_c()[1],
            _ => {
                let top = always.settled(column).at[ROOTS];
                self.air.night_c + 0.9 * (top - self.air.night_c)
            }
        };
        let per_hour = always.steps_per_hour() as f64;
        (0..MOST_H * always.steps_per_hour())
            .find(|step| {
                let hour = COLDEST_H + *step as f64 / per_hour;
                always.step(column, &mut state, hour.rem_euclid(DAY_H), &mut flows);
                state.at[ROOTS] >= wanted
            })
            .map(|step| (step + 1) as f64 / per_hour)
    }
}

impl Thermostat {
    /// The probe's temperatures at which it switches on and off.
    fn switches_c(&self) -> [f64; 2] {
        [-0.5, 0.5].map(|half| self.set_c + self.dial_error_k + half * self.hysteresis_k)
    }
}

/// What flowed over some time.
#[derive(Default)]
struct Flows {
    evaporated_j_m2: f64,
    /// Seconds that the mat was on.
    on_s: f64,
}

impl Flows {
    fn add(&mut self, other: Self) {
        self.evaporated_j_m2 += other.evaporated_j_m2;
        self.on_s += other.on_s;
    }
}

/// The column at a moment.
#[derive(Clone, Copy)]
struct State {
    /// °C of each level: the mat's first, the surface's last.
    at: [f64; NODES],
    /// Whether the mat is on.
    on: bool,
}

impl State {
    fn cold(column: &Column, c: f64) -> Self {
        Self {
            at: [c; NODES],
            on: column.mat_w_m2 > 0.0,
        }
    }
}
