//! Enclosed air from minute to minute.

use crate::air::vapour::{EVAPORATION_J_KG, Exchange, saturated_kg_m3};
use crate::basis::clock::{Burning, DAY_H};
use crate::basis::work::go_on;
use crate::warmth::enclosed::set_up::{EnclosedAir, EnclosedDay, Sun, WarmingLamp};
use crate::warmth::transfer::air_at;

/// What a m³ of air stores, in J/K, at 20 °C.
const AIR_J_M3K: f64 = 1206.0;

const STEP_S: f64 = 60.0;
const STEPS_PER_HOUR: usize = 60;

/// Enclosed air at a moment.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct State {
    /// The air, in °C.
    pub air_c: f64,
    /// What stores heat, in °C.
    pub store_c: f64,
    /// Vapour in the air, in kg/m³.
    pub vapour_kg_m3: f64,
    /// What the heater gave in the minute before, in W.
    pub heating_w: f64,
}

impl State {
    /// Relative humidity, 0 to 1.
    pub fn humidity(&self) -> f64 {
        (self.vapour_kg_m3 / saturated_kg_m3(self.air_c)).min(1.0)
    }
}

impl Sun {
    /// What comes in at `hour`, in W.
    fn watts_at(&self, hour: f64) -> f64 {
        let up = (hour - self.rises_h).rem_euclid(DAY_H);
        if self.hours <= 0.0 || up >= self.hours {
            return 0.0;
        }
        let arc = std::f64::consts::PI / self.hours;
        self.kwh * 1000.0 * arc / 2.0 * (arc * up).sin()
    }
}

impl EnclosedAir {
    /// As it is outdoors on the mean of the day.
    pub fn as_outdoors(&self) -> State {
        let mean_c = (self.day_c + self.night_c) / 2.0;
        State {
            air_c: mean_c,
            store_c: mean_c,
            vapour_kg_m3: self.outdoors_kg_m3(),
            heating_w: 0.0,
        }
    }

    /// Vapour outdoors: it stays the same through the day.
    fn outdoors_kg_m3(&self) -> f64 {
        self.humidity * saturated_kg_m3((self.day_c + self.night_c) / 2.0)
    }

    /// A minute on from `now`, which is `hour`, by the implicit rule: heat first, then vapour, the heat that
    /// vapour takes and gives as it was.
    fn step(&self, now: State, hour: f64) -> State {
        let outdoors_c = air_at(self.day_c, self.night_c, hour);
        let looks_at_c = outdoors_c - self.sky_k;
        let covered = self
            .night_cover
            .filter(|cover| Burning::new(cover.from_h, cover.hours).at(hour));
        let cover_w_k = covered.map_or(self.cover_w_k, |cover| cover.cover_w_k);
        let open = self.opening.map_or(0.0, |opening| {
            let may = Burning::new(opening.from_h, opening.hours).at(hour);
            let share = ((now.air_c - opening.from_c) / opening.over_k).clamp(0.0, 1.0);
            f64::from(u8::from(may)) * share * opening.wide_m3_h
        });
        let flow_m3_s = (self.leak_m3_h + open) / 3600.0;
        let flow_w_k = AIR_J_M3K * flow_m3_s;
        let dew_c = now.air_c - self.dew_share * (now.air_c - looks_at_c);
        let vapour = Exchange {
            wet_m2: self.wet_m2,
            wet_c: now.store_c,
            dew_m2: self.dew_m2,
            dew_c,
        }
        .with(now.vapour_kg_m3);
        let evaporates_w = EVAPORATION_J_KG * vapour.evaporates_kg_s;
        // What condenses warms the cover, which gives its share of it back.
        let condenses_w = EVAPORATION_J_KG * vapour.condenses_kg_s * (1.0 - self.dew_share);
        let lit = |lamp: &&WarmingLamp| Burning::new(lamp.from_h, lamp.hours).at(hour);
        let lamps_w: f64 = self.lamps.iter().filter(lit).map(|lamp| lamp.watts).sum();
        let sun_w = self.sun.map_or(0.0, |sun| sun.watts_at(hour));
        let on_store = self.sun.map_or(0.0, |sun| sun.on_store);

        let stored_air = AIR_J_M3K * self.volume_m3 / STEP_S;
        let stored = self.store_j_k / STEP_S;
        let mut of_air = stored_air + cover_w_k + flow_w_k + self.store_w_k;
        let mut to_air = stored_air * now.air_c
            + cover_w_k * looks_at_c
            + flow_w_k * outdoors_c
            + (1.0 - on_store) * sun_w
            + lamps_w
            + condenses_w;
        let of_store = stored + self.store_w_k + self.ground_w_k;
        let to_store = stored * now.store_c + self.ground_w_k * self.ground_c + on_store * sun_w
            - evaporates_w;
        let solve = |of_air: f64, to_air: f64| {
            let det = of_air * of_store - self.store_w_k * self.store_w_k;
            (to_air * of_store + self.store_w_k * to_store) / det
        };
        let mut air_c = solve(of_air, to_air);
        let mut heating_w = 0.0;
        if let Some(heating) = self.heating.filter(|heating| air_c < heating.set_c) {
            let w_k = heating.most_w / heating.under_k;
            let held = solve(of_air + w_k, to_air + w_k * heating.set_c);
            heating_w = (w_k * (heating.set_c - held)).min(heating.most_w);
            if heating_w < heating.most_w {
                of_air += w_k;
                to_air += w_k * heating.set_c;
            } else {
                to_air += heating.most_w;
            }
            air_c = solve(of_air, to_air);
        }
        let store_c = (to_store + self.store_w_k * air_c) / of_store;
        let volume = self.volume_m3 / STEP_S;
        let vapour_kg_m3 =
            (volume * now.vapour_kg_m3 + flow_m3_s * self.outdoors_kg_m3() + vapour.into_dry_kg_s)
                / (volume + flow_m3_s + vapour.per_kg_m3);
        State {
            air_c,
            store_c,
            // What is over saturation falls as fog.
            vapour_kg_m3: vapour_kg_m3.min(saturated_kg_m3(air_c)),
            heating_w,
        }
    }

    /// From `state` at midnight on, how it is at each of the `hours` that follow, itself first.
    pub fn through(&self, mut state: State, hours: usize) -> Vec<State> {
        let each = (0..hours).map(|hour| {
            let at_the_hour = state;
            for minute in 0..STEPS_PER_HOUR {
                // The middle of the minute stands for it.
                let hour = (hour as f64 + (minute as f64 + 0.5) / STEPS_PER_HOUR as f64) % DAY_H;
                state = self.step(state, hour);
            }
            at_the_hour
        });
        let mut list: Vec<State> = each.collect();
        list.push(state);
        list
    }

    pub(super) fn settled(&self) -> EnclosedDay {
        const MOST_DAYS: usize = 15;
        const SAME_K: f64 = 0.02;
        const HOURS: usize = 24;
        let mut state = self.as_outdoors();
        let mut day = Vec::new();
        for _ in 0..MOST_DAYS {
            go_on();
            day = self.through(state, HOURS);
            let end = day.pop().unwrap_or(state);
            let moved_k = (end.store_c - state.store_c).abs();
            state = end;
            if moved_k < SAME_K {
                break;
            }
        }
        let air_c: Vec<f64> = day.iter().map(|state| state.air_c).collect();
        // A heater's minute stands for its hour.
        let heating_kwh = day.iter().map(|state| state.heating_w).sum::<f64>() / 1000.0;
        EnclosedDay {
            store_c: day.iter().map(|state| state.store_c).collect(),
            humidity: day.iter().map(State::humidity).collect(),
            least_c: air_c.iter().copied().fold(f64::INFINITY, f64::min),
            mean_c: air_c.iter().sum::<f64>() / air_c.len() as f64,
            most_c: air_c.iter().copied().fold(f64::NEG_INFINITY, f64::max),
            air_c,
            heating_kwh,
        }
    }
}
