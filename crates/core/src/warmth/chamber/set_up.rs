//! What is asked of a chamber, and what is answered.

use crate::air::USUAL_HUMIDITY;
use crate::basis::fault::Fault;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::warmth::transfer::Layer;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

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
    /// Relative humidity of the room at the mean of both, 0 to 1; half when left out.
    #[serde(default = "usual_humidity")]
    pub humidity: f64,
    /// What warms it under the thermostat, or always.
    #[serde(default)]
    pub heaters: Vec<Heater>,
    /// The lamps inside.
    #[serde(default)]
    pub lamps: Vec<ChamberLamp>,
    /// What switches the heaters; left out, they are always on.
    #[serde(default)]
    pub thermostat: Option<AirThermostat>,
    /// A door that is left open for a part of the day; left out, it stays shut.
    #[serde(default)]
    pub door: Option<OpenDoor>,
    /// Air that a fan inside moves from layer to layer, in m³/h.
    #[serde(default)]
    pub fan_m3_h: f64,
    /// What trays, mix and water inside weigh.
    #[serde(default)]
    pub wet_kg: f64,
    /// Mix and leaves inside that give off water, in m² of wet surface.
    #[serde(default)]
    pub wet_m2: f64,
    /// Above this it is too hot: what the over-temperature limit, or the gardener, is set to.
    #[serde(default = "usual_limit")]
    pub limit_c: f64,
    /// Whether seedlings that are up need its lamps.
    #[serde(default)]
    pub grown: bool,
    /// Price of a kWh.
    #[serde(default)]
    pub price_per_kwh: f64,
}

fn usual_humidity() -> f64 {
    USUAL_HUMIDITY
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

/// What is opened as it gets warm is wide open so much later: a hand or a wax opener does it bit by bit (our
/// own estimate).
const WIDE_OPEN_K: f64 = 2.0;

/// A door, or a flap of film, that is left open.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OpenDoor {
    /// Its opening.
    pub slot: VentSlot,
    /// When it is opened, in hours after midnight.
    pub from_h: f64,
    /// How long it stays open.
    pub hours: f64,
    /// Only while the air inside is warmer than this, in °C: wide open 2 K over it; whatever the air is
    /// when left out.
    #[serde(default)]
    pub over_c: Option<f64>,
}

impl OpenDoor {
    /// How far it is open while the air inside is at `inside_c`.
    pub(super) fn as_warm_as(&self, inside_c: f64) -> VentSlot {
        let share = self.over_c.map_or(1.0, |over| {
            ((inside_c - over) / WIDE_OPEN_K).clamp(0.0, 1.0)
        });
        VentSlot {
            width_mm: self.slot.width_mm * share,
            ..self.slot
        }
    }
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
    /// Water that its trays give off, in l a day.
    pub gives_off_l: f64,
    /// The part of it that runs down its walls as dew.
    pub dew_l: f64,
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
    /// Its relative humidity at each full hour, 0 to 1.
    pub humidity: Vec<f64>,
    /// Mean of that.
    pub mean_humidity: f64,
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

/// A vent that one cuts (our own estimate): its width and height.
pub const SLOT_MM: [f64; 2] = [200.0, 20.0];

impl ChamberSetUp {
    /// Through the day, once every day is like the last.
    ///
    /// Layers of air that lie on one another, stepped by two minutes until a day ends as it began: walls
    /// after ISO 6946, vents by the stack effect (ASHRAE Handbook, Fundamentals, chapter on ventilation
    /// and infiltration; from memory), plumes and mixing our own estimate.
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

    fn helps(&self, now: &ChamberDay) -> Vec<ChamberHelp> {
        let mut tries: Vec<(Statement, Self)> = Vec::new();
        let mut with = |what: Statement, change: &dyn Fn(&mut Self)| {
            let mut other = self.clone();
            change(&mut other);
            tries.push((what, other));
        };
        let slot = |at_mm: f64| VentSlot {
            width_mm: SLOT_MM[0],
            height_mm: SLOT_MM[1],
            at_mm,
        };
        let [wide, high] = SLOT_MM.map(|mm| Quantity::LengthMm.of(mm));
        if now.overheats {
            let (bottom_mm, top_mm) = (
                30.0_f64.min(self.height_mm),
                (self.height_mm - 30.0).max(0.0),
            );
            with(
                say!(
                    "Cut a vent of {wide} x {high} at the top",
                    wide = wide.clone(),
                    high = high.clone()
                ),
                &|c| c.vents.push(slot(top_mm)),
            );
            with(
                say!(
                    "Cut vents of {wide} x {high} at the top and at the bottom",
                    wide = wide,
                    high = high
                ),
                &|c| c.vents.extend([slot(bottom_mm), slot(top_mm)]),
            );
            if self.thermostat.is_none() && !self.heaters.is_empty() {
                let set_c = 24.0;
                with(
                    say!(
                        "Put a thermostat on the heat, set to {set}",
                        set = Quantity::TemperatureC.of(set_c)
                    ),
                    &|c| {
                        c.thermostat = Some(AirThermostat {
                            set_c,
                            hysteresis_k: 1.0,
                            probe_at_mm: c.height_mm / 2.0,
                        });
                    },
                );
            }
            if self.grown && !self.lamps.is_empty() {
                with(say!("Open the doors while the lamps are on"), &|c| {
                    // As good as a vent from bottom to top for as long as they burn.
                    c.vents.push(VentSlot {
                        width_mm: c.width_mm / 2.0,
                        height_mm: c.height_mm,
                        at_mm: c.height_mm / 2.0,
                    });
                });
            } else if self.lamps.iter().any(|lamp| lamp.hours > 0.0) {
                with(say!("Leave the lamps off until something is up"), &|c| {
                    c.lamps.clear();
                });
            }
        } else {
            const FOAM_MM: f64 = 20.0;
            with(
                say!(
                    "Insulate with {foam} of foam all round",
                    foam = Quantity::LengthMm.of(FOAM_MM)
                ),
                &|c| {
                    c.walls.push(Layer {
                        thickness_mm: FOAM_MM,
                        conductivity_w_mk: 0.035,
                    });
                },
            );
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
}
