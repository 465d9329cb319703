//! A germination chamber through the day: walls, vents, heaters and lamps, and layers of air that
//! lie on one another.
//!
//! Every shelf has its own layer of air. Warm air rises from a heater as a plume: most of its heat
//! arrives at the top, and comes down again as far as layers mix. The calculator `chamber`.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::transfer::{
    Layer, SURFACE_ACROSS_M2K_W, SURFACE_DOWN_M2K_W, SURFACE_UP_M2K_W, air_at, resistance_m2k_w,
};
use crate::daytime::{Burning, DAY_H};
use crate::fault::{Fault, Faults, Pointer};
use crate::say;
use crate::units::{Quantity, energy_kwh};
use crate::words::Statement;

/// A closed box with shelves.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ChamberSetUp {
    /// Inner width.
    pub width_mm: f64,
    /// Inner depth.
    pub depth_mm: f64,
    /// Inner height.
    pub height_mm: f64,
    /// Its walls from the inside out; all six sides alike.
    pub walls: Vec<Layer>,
    /// Openings to the room.
    #[serde(default)]
    pub vents: Vec<VentSlot>,
    /// Heights of its shelves over the inner floor, from the lowest up.
    pub shelves_mm: Vec<f64>,
    /// Warmest of the room's day, in °C.
    pub day_c: f64,
    /// Coolest of the room's night.
    pub night_c: f64,
    /// What warms it under the thermostat, or always.
    #[serde(default)]
    pub heaters: Vec<Heater>,
    /// The lamps inside.
    #[serde(default)]
    pub lamps: Vec<ChamberLamp>,
    /// What switches the heaters; left out, they are always on.
    #[serde(default)]
    pub thermostat: Option<AirThermostat>,
    /// Air that a fan inside moves from layer to layer, in m³/h.
    #[serde(default)]
    pub fan_m3_h: f64,
    /// What trays, mix and water inside weigh.
    #[serde(default)]
    pub wet_kg: f64,
    /// Above this it is too hot: what the over-temperature limit, or the gardener, is set to.
    #[serde(default = "usual_limit")]
    pub limit_c: f64,
    /// Price of a kWh.
    #[serde(default)]
    pub price_per_kwh: f64,
}

/// Seedlings and mats bear no more for long (common practice, no source).
fn usual_limit() -> f64 {
    30.0
}

/// An opening in a wall.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct VentSlot {
    /// Its width.
    pub width_mm: f64,
    /// Its height.
    pub height_mm: f64,
    /// Its middle over the inner floor.
    pub at_mm: f64,
}

/// A heater in a chamber.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Heater {
    /// Power at the plug.
    pub watts: f64,
    /// Where it is over the inner floor.
    pub at_mm: f64,
}

/// A lamp in a chamber.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ChamberLamp {
    /// Power at the plug: all of it stays inside as heat.
    pub watts: f64,
    /// Where it is over the inner floor.
    pub at_mm: f64,
    /// When it goes on, in hours after midnight.
    pub from_h: f64,
    /// How long it burns a day.
    pub hours: f64,
}

/// A thermostat whose probe hangs in the air.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AirThermostat {
    /// What it is set to, in °C.
    pub set_c: f64,
    /// From switching on to switching off.
    #[serde(default = "usual_hysteresis")]
    pub hysteresis_k: f64,
    /// Where its probe hangs over the inner floor.
    pub probe_at_mm: f64,
}

fn usual_hysteresis() -> f64 {
    1.0
}

/// A chamber that has come to run through the same day again and again.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ChamberDay {
    /// Every shelf, from the lowest up.
    pub shelves: Vec<ShelfDay>,
    /// Heat that its walls let through, in W/K.
    pub walls_w_k: f64,
    /// Air that its vents let through on the mean, in m³/h.
    pub vents_m3_h: f64,
    /// The share of the day that the heaters are on.
    pub duty: f64,
    /// What heaters and lamps draw, in kWh a day.
    pub kwh_per_day: f64,
    /// What that costs a day.
    pub cost_per_day: f64,
    /// Whether the thermostat's setting is held; true without one.
    pub reaches: bool,
    /// Whether any shelf passes the limit.
    pub overheats: bool,
    /// What would help where it overheats or stays too cool, the most first.
    pub helps: Vec<ChamberHelp>,
}

/// A shelf of a chamber.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ShelfDay {
    /// Its height over the inner floor.
    pub at_mm: f64,
    /// Its air at each full hour, in °C.
    pub air_c: Vec<f64>,
    /// Mean of the day.
    pub mean_c: f64,
    /// Coolest of the day.
    pub least_c: f64,
    /// Warmest of the day.
    pub most_c: f64,
}

/// A change to a chamber, and what it would bring.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ChamberHelp {
    /// What to do.
    pub what: Statement,
    /// The warmest that any shelf would get, in °C.
    pub most_c: f64,
    /// The mean of all shelves then, in °C.
    pub mean_c: f64,
}

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
    /// Through the day, once every day is like the last.
    ///
    /// # Errors
    /// Every figure that physics or the trade rules out, by its path.
    pub fn day(&self) -> Result<ChamberDay, Vec<Fault>> {
        self.check()?;
        let mut day = self.run();
        if day.overheats || !day.reaches {
            day.helps = self.helps(&day);
        }
        Ok(day)
    }

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

    fn run(&self) -> ChamberDay {
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
        for _ in 0..MOST_DAYS {
            hours = vec![Vec::with_capacity(24); n];
            (on_steps, vented, lamps_j) = (0, 0.0, 0.0);
            for step in 0..STEPS_PER_DAY {
                let hour = step as f64 * STEP_S / 3600.0;
                if step.is_multiple_of(STEPS_PER_HOUR) {
                    hours
                        .iter_mut()
                        .zip(&at)
                        .for_each(|(list, c)| list.push(*c));
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
                let mean = at.iter().sum::<f64>() / n as f64;
                let flow = stack_flow_m3_s(&self.vents, mean - room);
                vented += flow;
                on_steps += usize::from(on);
                flows.pushed = AIR_J_M3K * flow;
                flows.step(&mut at, &stores, &walls, room);
            }
            let now: Vec<f64> = hours.concat();
            // A thermostat's beat shifts from day to day; the mean of the day does not.
            let mean = |list: &[f64]| list.iter().sum::<f64>() / list.len() as f64;
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
                mean_c: air_c.iter().sum::<f64>() / air_c.len() as f64,
                least_c: air_c.iter().copied().fold(f64::INFINITY, f64::min),
                most_c: air_c.iter().copied().fold(f64::NEG_INFINITY, f64::max),
                air_c,
            })
            .collect();
        let held = |t: AirThermostat, shelf: usize| {
            shelves[shelf].least_c >= t.set_c - 1.5 * t.hysteresis_k
        };
        ChamberDay {
            walls_w_k: walls.iter().sum(),
            vents_m3_h: vented / STEPS_PER_DAY as f64 * 3600.0,
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

    fn helps(&self, now: &ChamberDay) -> Vec<ChamberHelp> {
        let mut tries: Vec<(Statement, Self)> = Vec::new();
        let mut with = |what: Statement, change: &dyn Fn(&mut Self)| {
            let mut other = self.clone();
            change(&mut other);
            tries.push((what, other));
        };
        let slot = |at_mm: f64| VentSlot {
            width_mm: 200.0,
            height_mm: 20.0,
            at_mm,
        };
        if now.overheats {
            let (low, high) = (
                30.0_f64.min(self.height_mm),
                (self.height_mm - 30.0).max(0.0),
            );
            with(say!("Cut a vent of 200 x 20 mm at the top"), &|c| {
                c.vents.push(slot(high));
            });
            with(
                say!("Cut vents of 200 x 20 mm at the top and at the bottom"),
                &|c| c.vents.extend([slot(low), slot(high)]),
            );
            if self.thermostat.is_none() && !self.heaters.is_empty() {
                let set_c = 24.0;
                with(say!("Put a thermostat on the heat, set to 24 °C"), &|c| {
                    c.thermostat = Some(AirThermostat {
                        set_c,
                        hysteresis_k: 1.0,
                        probe_at_mm: c.height_mm / 2.0,
                    });
                });
            }
            if self.lamps.iter().any(|lamp| lamp.hours > 0.0) {
                with(say!("Leave the lamps off until something is up"), &|c| {
                    c.lamps.clear();
                });
            }
        } else {
            with(say!("Insulate it with 20 mm of foam all round"), &|c| {
                c.walls.push(Layer {
                    thickness_mm: 20.0,
                    conductivity_w_mk: 0.035,
                });
            });
            if !self.vents.is_empty() {
                with(say!("Close the vents"), &|c| c.vents.clear());
            }
            with(say!("Heat with half as many watts again"), &|c| {
                c.heaters.iter_mut().for_each(|h| h.watts *= 1.5);
            });
        }
        let mut helps: Vec<ChamberHelp> = tries
            .into_iter()
            .map(|(what, changed)| {
                let day = changed.run();
                let most = day.shelves.iter().map(|s| s.most_c);
                let mean: f64 = day.shelves.iter().map(|s| s.mean_c).sum();
                ChamberHelp {
                    what,
                    most_c: most.fold(f64::NEG_INFINITY, f64::max),
                    mean_c: mean / day.shelves.len() as f64,
                }
            })
            .collect();
        if now.overheats {
            helps.sort_by(|a, b| a.most_c.total_cmp(&b.most_c));
        } else {
            helps.sort_by(|a, b| b.mean_c.total_cmp(&a.mean_c));
        }
        helps
    }

    fn check(&self) -> Result<(), Vec<Fault>> {
        let mut faults = Faults::default();
        let root = Pointer::default();
        let mm = Quantity::LengthMm;
        let celsius = Quantity::TemperatureC;
        let mut tall = true;
        for (name, value) in [
            ("width_mm", self.width_mm),
            ("depth_mm", self.depth_mm),
            ("height_mm", self.height_mm),
        ] {
            tall &= faults.number(&root.at(name), value, 50.0..=5000.0, mm);
        }
        let inside = 0.0..=if tall { self.height_mm } else { 5000.0 };
        faults.count(&root.at("walls"), self.walls.len(), 1..=10);
        for (i, layer) in self.walls.iter().enumerate() {
            layer.check(&root.at("walls").at(i), &mut faults);
        }
        faults.count(&root.at("vents"), self.vents.len(), 0..=20);
        for (i, vent) in self.vents.iter().enumerate() {
            let at = root.at("vents").at(i);
            faults.number(&at.at("width_mm"), vent.width_mm, 0.0..=5000.0, mm);
            faults.number(&at.at("height_mm"), vent.height_mm, 0.0..=5000.0, mm);
            faults.number(&at.at("at_mm"), vent.at_mm, inside.clone(), mm);
        }
        let shelves = root.at("shelves_mm");
        faults.count(&shelves, self.shelves_mm.len(), 1..=20);
        for (i, &at_mm) in self.shelves_mm.iter().enumerate() {
            let least = i
                .checked_sub(1)
                .map_or(0.0, |below| self.shelves_mm[below] + 10.0);
            faults.number(&shelves.at(i), at_mm, least..=*inside.end(), mm);
        }
        for (name, c) in [("day_c", self.day_c), ("night_c", self.night_c)] {
            faults.number(&root.at(name), c, -20.0..=50.0, celsius);
        }
        // A chamber of a cubic metre needs some 50 W; a m³ with more than 2000 is an oven.
        const MOST_W_M3: f64 = 2000.0;
        let volume_m3 = self.width_mm * self.depth_mm * self.height_mm * 1e-9;
        let most_w = if tall {
            MOST_W_M3 * volume_m3
        } else {
            f64::INFINITY
        };
        let watts = |faults: &mut Faults, at: Pointer, watts: f64| {
            if !(0.0..=most_w).contains(&watts) {
                faults.add(
                    &at,
                    watts,
                    say!(
                        "{watts} in a chamber of this size would set it on fire",
                        watts = Quantity::PowerW.of(watts)
                    ),
                    say!(
                        "give {most} at the most",
                        most = Quantity::PowerW.of(most_w)
                    ),
                );
            }
        };
        faults.count(&root.at("heaters"), self.heaters.len(), 0..=20);
        for (i, heater) in self.heaters.iter().enumerate() {
            let at = root.at("heaters").at(i);
            watts(&mut faults, at.at("watts"), heater.watts);
            faults.number(&at.at("at_mm"), heater.at_mm, inside.clone(), mm);
        }
        faults.count(&root.at("lamps"), self.lamps.len(), 0..=40);
        for (i, lamp) in self.lamps.iter().enumerate() {
            let at = root.at("lamps").at(i);
            watts(&mut faults, at.at("watts"), lamp.watts);
            faults.number(&at.at("at_mm"), lamp.at_mm, inside.clone(), mm);
            faults.number(&at.at("from_h"), lamp.from_h, 0.0..=DAY_H, Quantity::ClockH);
            faults.number(&at.at("hours"), lamp.hours, 0.0..=DAY_H, Quantity::Hours);
        }
        if let Some(thermostat) = &self.thermostat {
            let at = root.at("thermostat");
            faults.number(&at.at("set_c"), thermostat.set_c, 0.0..=45.0, celsius);
            let range = 0.1..=10.0;
            let k = Quantity::DifferenceK;
            faults.number(&at.at("hysteresis_k"), thermostat.hysteresis_k, range, k);
            faults.number(&at.at("probe_at_mm"), thermostat.probe_at_mm, inside, mm);
        }
        let flow = 0.0..=5000.0;
        faults.number(&root.at("fan_m3_h"), self.fan_m3_h, flow, Quantity::FlowM3H);
        faults.number(
            &root.at("wet_kg"),
            self.wet_kg,
            0.0..=2000.0,
            Quantity::MassKg,
        );
        faults.number(&root.at("limit_c"), self.limit_c, 10.0..=60.0, celsius);
        let money = Quantity::Money;
        faults.number(
            &root.at("price_per_kwh"),
            self.price_per_kwh,
            0.0..=10_000.0,
            money,
        );
        faults.verdict()
    }
}
