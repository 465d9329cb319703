//! The column through a day, and from cold.

use crate::basis::clock::DAY_H;
use crate::basis::fault::Fault;
use crate::basis::units::{area_m2, energy_kwh};
use crate::warmth::root_zone::column::{Column, LATENT_J_KG, NODES, ROOTS};
use crate::warmth::root_zone::set_up::{ProbeSpot, RootZone, RootZoneDay, RootZoneHours};
use crate::warmth::root_zone::steps::{Flows, State};

impl RootZone {
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

    pub(super) fn one_day(&self, column: &Column, state: &mut State) -> RootZoneDay {
        let mut hours = RootZoneHours {
            root_zone_c: Vec::new(),
            surface_c: Vec::new(),
            mat_c: Vec::new(),
        };
        let (mut sum, mut least, mut most) = (0.0, f64::INFINITY, f64::NEG_INFINITY);
        let mut flows = Flows::default();
        let per_hour = self.steps_per_hour();
        let steps = 24 * per_hour;
        for step in 0..steps {
            let hour = step as f64 / per_hour as f64;
            if step.is_multiple_of(per_hour) {
                hours.root_zone_c.push(state.at[ROOTS]);
                hours.surface_c.push(state.at[NODES - 1]);
                hours.mat_c.push(state.at[0]);
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
            hours: Some(hours),
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

    /// From the coolest of the night, mat on, until warm.
    pub(super) fn warm_up_h(&self, column: &Column) -> Option<f64> {
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
