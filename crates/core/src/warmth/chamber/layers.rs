//! The layers of air in a chamber, and how heat and air move between them.

use crate::air::vapour::saturated_kg_m3;
use crate::basis::clock::{Burning, DAY_H};
use crate::basis::units::energy_kwh;
use crate::warmth::chamber::damp::{Damp, humidities};
use crate::warmth::chamber::set_up::{AirThermostat, ChamberDay, ChamberSetUp, ShelfDay, VentSlot};
use crate::warmth::transfer::{
    SURFACE_ACROSS_M2K_W, SURFACE_DOWN_M2K_W, SURFACE_UP_M2K_W, air_at, resistance_m2k_w,
};

/// What a m³ of air stores, in J/K, at 20 °C.
const AIR_J_M3K: f64 = 1206.0;
/// What a kg of trays, wet mix and water stores, in J/K: mostly water (our own estimate).
const WET_J_KGK: f64 = 3200.0;
/// What a kg of air, shelves and inner wall store besides, by area of wall, in J/(m²·K): a sheet
/// of steel and a few mm of insulation (our own estimate).
const LINING_J_M2K: f64 = 4000.0;
/// The share of a heater's or lamp's heat that its plume carries to the top; the rest stays on its
/// shelf (our own estimate).
const PLUME: f64 = 0.8;
/// Air that a plume of P watts carries z metres up, in m³/s: 0.0055 P^(1/3) z^(5/3) (from memory:
/// Morton, Taylor and Turner 1956, for a point source in free air).
const PLUME_M3_S: f64 = 0.0055;
/// What shelves and trays leave of it (our own estimate, fitted to +1 K at the top and -1 to -3 K
/// at the bottom of a cabinet at 21 °C).
const PAST_SHELVES: f64 = 0.2;
/// Mixing of neighbouring layers of still air, as a speed of exchange in m/s: warm air on cool
/// hardly mixes (our own estimate).
const STILL_MIXING_M_S: f64 = 0.002;
/// Discharge coefficient of an opening (ASHRAE Fundamentals, from memory: 0.65).
const DISCHARGE: f64 = 0.65;
const GRAVITY_M_S2: f64 = 9.81;

const STEP_S: f64 = 120.0;
const STEPS_PER_DAY: usize = 720;
const STEPS_PER_HOUR: usize = 30;

/// Flow through openings by the stack effect, in m³/s, with air inside `warmer_k` warmer than
/// outside at about 20 °C.
///
/// Two openings at different heights: C_d A √(2 g h ΔT/T), A the two in series. A single one
/// breathes in below and out above: C_d A/3 √(g H ΔT/T), H its own height.
///
/// Source: ASHRAE Fundamentals, ventilation and infiltration, stack effect (from memory).
pub fn stack_flow_m3_s(vents: &[VentSlot], warmer_k: f64) -> f64 {
    const KELVIN: f64 = 293.15;
    let area = |v: &VentSlot| v.width_mm * v.height_mm * 1e-6;
    let drive = |h_m: f64| GRAVITY_M_S2 * h_m * warmer_k.abs() / KELVIN;
    let total: f64 = vents.iter().map(area).sum();
    if total <= 0.0 {
        return 0.0;
    }
    let middle = vents.iter().map(|v| area(v) * v.at_mm).sum::<f64>() / total;
    let (mut low, mut high) = ([0.0; 2], [0.0; 2]);
    for vent in vents {
        let side = if vent.at_mm < middle {
            &mut low
        } else {
            &mut high
        };
        side[0] += area(vent);
        side[1] += area(vent) * vent.at_mm / 1000.0;
    }
    let single: f64 = vents
        .iter()
        .map(|v| DISCHARGE * area(v) / 3.0 * drive(v.height_mm / 1000.0).sqrt())
        .sum();
    if low[0] <= 0.0 {
        return single;
    }
    let series = 1.0 / (1.0 / low[0].powi(2) + 1.0 / high[0].powi(2)).sqrt();
    let rise_m = high[1] / high[0] - low[1] / low[0];
    (DISCHARGE * series * (2.0 * drive(rise_m)).sqrt()).max(single)
}

fn mean(list: &[f64]) -> f64 {
    list.iter().sum::<f64>() / list.len() as f64
}

/// What moves heat between the layers of a chamber, in W and W/K.
struct Flows {
    /// Heat that arrives in each layer.
    heat: Vec<f64>,
    /// Between neighbours, both ways.
    mixing: f64,
    /// Room air that comes in at the lowest layer and leaves from the highest, pushing each up.
    pushed: f64,
    /// Air that plumes carry from each layer to the highest.
    risen: Vec<f64>,
    /// The same air as it comes down again, from the layer above each.
    sinking: Vec<f64>,
    /// Room to reckon in, of each layer.
    diagonal: Vec<f64>,
    right: Vec<f64>,
}

impl Flows {
    fn new(layers: usize, mixing: f64) -> Self {
        Self {
            heat: vec![0.0; layers],
            mixing,
            pushed: 0.0,
            risen: vec![0.0; layers],
            sinking: vec![0.0; layers],
            diagonal: vec![0.0; layers],
            right: vec![0.0; layers],
        }
    }

    /// Nothing flows.
    fn clear(&mut self) {
        for list in [&mut self.heat, &mut self.risen, &mut self.sinking] {
            list.fill(0.0);
        }
        self.pushed = 0.0;
    }

    /// Two minutes on, by the implicit rule; what plumes bring up is as warm as it was.
    fn step(&mut self, at: &mut [f64], stores: &[f64], walls: &[f64], room: f64) {
        let n = at.len();
        let up = self.mixing + self.pushed;
        let Self {
            heat,
            mixing,
            pushed,
            risen: rises,
            sinking,
            diagonal,
            right,
        } = self;
        let down = |i: usize| *mixing + sinking[i];
        let risen: f64 = rises.iter().zip(at.iter()).map(|(w_k, c)| w_k * c).sum();
        for i in 0..n {
            let stored = stores[i] / STEP_S;
            diagonal[i] = stored + walls[i] + *pushed + rises[i];
            right[i] = stored * at[i] + walls[i] * room + heat[i];
            if i == 0 {
                right[i] += *pushed * room;
            } else {
                diagonal[i] += down(i - 1);
            }
            if i + 1 < n {
                diagonal[i] += *mixing;
            }
        }
        right[n - 1] += risen;
        // The layer below gives what mixes and is pushed up, the one above what mixes and sinks.
        for i in 1..n {
            let share = up / diagonal[i - 1];
            diagonal[i] -= share * down(i - 1);
            right[i] += share * right[i - 1];
        }
        at[n - 1] = right[n - 1] / diagonal[n - 1];
        for i in (0..n - 1).rev() {
            at[i] = (right[i] + down(i) * at[i + 1]) / diagonal[i];
        }
    }
}

impl ChamberSetUp {
    /// From where to where over the floor the layer of each shelf reaches.
    fn layers_mm(&self) -> Vec<[f64; 2]> {
        let n = self.shelves_mm.len();
        (0..n)
            .map(|i| {
                let from = if i == 0 { 0.0 } else { self.shelves_mm[i] };
                let to = self.shelves_mm.get(i + 1).copied();
                [from, to.unwrap_or(self.height_mm)]
            })
            .collect()
    }

    fn layer_at(&self, at_mm: f64) -> usize {
        let layers = self.layers_mm();
        let inside = |layer: &[f64; 2]| at_mm < layer[1];
        layers.iter().position(inside).unwrap_or(layers.len() - 1)
    }

    /// W/K from each layer to the room through the walls.
    fn walls_w_k(&self) -> Vec<f64> {
        let wall = resistance_m2k_w(&self.walls);
        let u = |surface: f64| 1.0 / (surface + wall + SURFACE_ACROSS_M2K_W);
        let deck_m2 = self.width_mm * self.depth_mm * 1e-6;
        let round_m = 2.0 * (self.width_mm + self.depth_mm) * 1e-3;
        let layers = self.layers_mm();
        let last = layers.len() - 1;
        let each = layers.iter().enumerate().map(|(i, layer)| {
            let mut w_k = round_m * (layer[1] - layer[0]) * 1e-3 * u(SURFACE_ACROSS_M2K_W);
            if i == 0 {
                w_k += deck_m2 * u(SURFACE_DOWN_M2K_W);
            }
            if i == last {
                w_k += deck_m2 * u(SURFACE_UP_M2K_W);
            }
            w_k
        });
        each.collect()
    }

    pub(super) fn run(&self) -> ChamberDay {
        let layers = self.layers_mm();
        let n = layers.len();
        let deck_m2 = self.width_mm * self.depth_mm * 1e-6;
        let walls = self.walls_w_k();
        let round_m = 2.0 * (self.width_mm + self.depth_mm) * 1e-3;
        let stores: Vec<f64> = layers
            .iter()
            .map(|layer| {
                let high_m = (layer[1] - layer[0]) * 1e-3;
                AIR_J_M3K * deck_m2 * high_m
                    + LINING_J_M2K * round_m * high_m
                    + WET_J_KGK * self.wet_kg / n as f64
            })
            .collect();
        let mixing = AIR_J_M3K * (STILL_MIXING_M_S * deck_m2 + self.fan_m3_h / 3600.0);
        let probe = self.thermostat.map(|t| self.layer_at(t.probe_at_mm));
        let room = (self.day_c + self.night_c) / 2.0;
        let mut at = vec![self.thermostat.map_or(room, |t| t.set_c.max(room)); n];
        let mut flows = Flows::new(n, mixing);
        let mut on = true;
        let mut before = vec![f64::INFINITY; n * 24];
        const MOST_DAYS: usize = 12;
        const SAME_K: f64 = 0.03;
        let mut hours: Vec<Vec<f64>> = Vec::new();
        let (mut on_steps, mut vented, mut lamps_j) = (0, 0.0, 0.0);
        let outside = self.humidity * saturated_kg_m3(room);
        let mut damp = Damp::new(self, outside);
        let mut vapour_at = Vec::new();
        for _ in 0..MOST_DAYS {
            hours = vec![Vec::with_capacity(24); n];
            vapour_at = Vec::with_capacity(24);
            (on_steps, vented, lamps_j) = (0, 0.0, 0.0);
            damp.begins_a_day();
            for step in 0..STEPS_PER_DAY {
                let hour = step as f64 * STEP_S / 3600.0;
                if step.is_multiple_of(STEPS_PER_HOUR) {
                    hours
                        .iter_mut()
                        .zip(&at)
                        .for_each(|(list, c)| list.push(*c));
                    vapour_at.push(damp.vapour_kg_m3);
                }
                let room = air_at(self.day_c, self.night_c, hour + STEP_S / 3600.0);
                if let (Some(thermostat), Some(probe)) = (self.thermostat, probe) {
                    let half = thermostat.hysteresis_k / 2.0;
                    if at[probe] <= thermostat.set_c - half {
                        on = true;
                    } else if at[probe] >= thermostat.set_c + half {
                        on = false;
                    }
                }
                flows.clear();
                if on {
                    let heaters = self.heaters.iter();
                    heaters.for_each(|h| self.warm(&mut flows, h.watts, h.at_mm));
                }
                for lamp in &self.lamps {
                    if Burning::new(lamp.from_h, lamp.hours).at(hour) {
                        self.warm(&mut flows, lamp.watts, lamp.at_mm);
                        lamps_j += lamp.watts * STEP_S;
                    }
                }
                let mean = mean(&at);
                let open = self
                    .door
                    .filter(|door| Burning::new(door.from_h, door.hours).at(hour));
                let flow = match open {
                    None => stack_flow_m3_s(&self.vents, mean - room),
                    Some(door) => {
                        let door = door.as_warm_as(mean);
                        let all: Vec<VentSlot> = self.vents.iter().copied().chain([door]).collect();
                        stack_flow_m3_s(&all, mean - room)
                    }
                };
                vented += flow;
                on_steps += usize::from(on);
                flows.pushed = AIR_J_M3K * flow;
                let latent_w = damp.step(STEP_S, mean, room, flow) / n as f64;
                flows.heat.iter_mut().for_each(|heat| *heat += latent_w);
                flows.step(&mut at, &stores, &walls, room);
            }
            let now: Vec<f64> = hours.concat();
            // A thermostat's beat shifts from day to day; the mean of the day does not.
            let same = if self.thermostat.is_some() {
                (mean(&now) - mean(&before)).abs() < SAME_K
            } else {
                now.iter().zip(&before).all(|(a, b)| (a - b).abs() < SAME_K)
            };
            before = now;
            if same {
                break;
            }
        }
        let duty = on_steps as f64 / STEPS_PER_DAY as f64;
        let heaters: f64 = self.heaters.iter().map(|h| h.watts).sum();
        let kwh_per_day = energy_kwh(heaters * duty, DAY_H) + lamps_j / 3.6e6;
        let shelves: Vec<ShelfDay> = self
            .shelves_mm
            .iter()
            .zip(hours)
            .map(|(&at_mm, air_c)| ShelfDay {
                at_mm,
                mean_c: mean(&air_c),
                least_c: air_c.iter().copied().fold(f64::INFINITY, f64::min),
                most_c: air_c.iter().copied().fold(f64::NEG_INFINITY, f64::max),
                mean_humidity: mean(&humidities(&air_c, &vapour_at)),
                humidity: humidities(&air_c, &vapour_at),
                air_c,
            })
            .collect();
        let held = |t: AirThermostat, shelf: usize| {
            shelves[shelf].least_c >= t.set_c - 1.5 * t.hysteresis_k
        };
        ChamberDay {
            walls_w_k: walls.iter().sum(),
            vents_m3_h: vented / STEPS_PER_DAY as f64 * 3600.0,
            gives_off_l: damp.given_kg,
            dew_l: damp.dew_kg,
            duty: if heaters > 0.0 { duty } else { 0.0 },
            kwh_per_day,
            cost_per_day: kwh_per_day * self.price_per_kwh,
            reaches: match (self.thermostat, probe) {
                (Some(thermostat), Some(probe)) => held(thermostat, probe),
                _ => true,
            },
            overheats: shelves.iter().any(|shelf| shelf.most_c > self.limit_c),
            shelves,
            helps: Vec::new(),
        }
    }

    /// Adds a source of heat and the plume that rises from it.
    fn warm(&self, flows: &mut Flows, watts: f64, at_mm: f64) {
        let (layer, top) = (self.layer_at(at_mm), flows.heat.len() - 1);
        flows.heat[layer] += watts * (1.0 - PLUME);
        flows.heat[top] += watts * PLUME;
        let rise_m = (self.height_mm - at_mm).max(0.0) / 1000.0;
        let carried = PLUME_M3_S * (watts * PLUME).cbrt() * rise_m.powf(5.0 / 3.0);
        let w_k = AIR_J_M3K * PAST_SHELVES * carried;
        flows.risen[layer] += w_k;
        flows.sinking[layer..top]
            .iter_mut()
            .for_each(|sinks| *sinks += w_k);
    }
}
