//! Closed air as the chamber model takes it: chambers, closets that are kept shut, and bays that
//! film, cloth or board closes on all sides.

use crate::air::USUAL_HUMIDITY;
use crate::room::{Kind, Mat, Place, Tier, Vent, WallLayer};
use crate::site::Site;
use crate::site::air::Air;
use crate::warmth::chamber::{
    AirThermostat, ChamberDay, ChamberLamp, ChamberSetUp, Heater, OpenDoor, VentSlot,
};
use crate::warmth::remembered::Remembered;
use crate::warmth::transfer::Layer;
use crate::warmth::tray::{TrayHere, USUAL_HYSTERESIS_K, root_zone, zone_day};
use std::ops::Range;

/// The day of a chamber; `None` where its figures are none that physics allows.
pub fn chamber_day(set_up: ChamberSetUp) -> Option<ChamberDay> {
    static KNOWN: Remembered<ChamberSetUp, Option<ChamberDay>> = Remembered::new();
    KNOWN.ask(set_up, |set_up| set_up.day().ok())
}

/// What goes on in a closed space.
#[derive(Debug, Clone, PartialEq)]
pub struct Inside {
    /// Whether the lamps of each of its tiers burn, from the lowest up.
    pub lit: Vec<bool>,
    /// The share of their power that its mats give.
    pub heat: f64,
    /// Whether seedlings in it are up.
    pub grown: bool,
    /// What trays, mix and water in it weigh.
    pub wet_kg: f64,
    /// Mix and leaves in it that give off water, in m² of wet surface.
    pub wet_m2: f64,
    /// The air around it.
    pub around: Air,
}

/// The share of a fan's flow that goes from shelf to shelf (our own estimate).
const FROM_SHELF_TO_SHELF: f64 = 0.3;

/// More than this seedlings and mats do not bear for long (common practice, no source).
const LIMIT_C: f64 = 30.0;

/// Film, cloth and thin board hold nothing themselves: the still air at both faces does.
const SHEET: Layer = Layer {
    thickness_mm: 0.2,
    conductivity_w_mk: 0.2,
};

/// Doors and walls of a closet: boards of 18 mm (our own estimate).
const BOARDS: Layer = Layer {
    thickness_mm: 18.0,
    conductivity_w_mk: 0.13,
};

/// Gaps of a loosely hung sheet, and under and over closet doors (our own estimate).
const GAP_MM: f64 = 3.0;

/// The tiers of a place that share closed air.
#[derive(Debug, Clone)]
pub struct ClosedSpace<'a> {
    place: &'a Place,
    tiers: Range<usize>,
    /// Its floor over the place's.
    floor_mm: f64,
    height_mm: f64,
}

impl<'a> ClosedSpace<'a> {
    /// The closed space that tier `index` of `place` is in; `None` in the open.
    pub fn around(place: &'a Place, index: usize) -> Option<Self> {
        let tiers = place.shares_air(index)?;
        let whole = tiers.len() == place.tiers.len() && place.is_closed();
        let (floor_mm, height_mm) = if whole {
            (0.0, place.height_mm)
        } else {
            let floor_mm = place.tiers[index].deck_height_mm;
            (floor_mm, place.clear_height_mm(index))
        };
        Some(Self {
            place,
            tiers,
            floor_mm,
            height_mm,
        })
    }

    /// Its tiers, as indices into the place's.
    pub fn tiers(&self) -> Range<usize> {
        self.tiers.clone()
    }

    fn each_tier(&self) -> impl Iterator<Item = (usize, &'a Tier)> {
        self.place.tiers[self.tiers.clone()].iter().enumerate()
    }

    fn mats(&self) -> impl Iterator<Item = (&'a Tier, &'a Mat)> {
        self.each_tier()
            .flat_map(|(_, tier)| tier.mats.iter().map(move |mat| (tier, mat)))
    }

    /// Whether a thermostat in its air switches its mats; else each mat has one in the mix, or
    /// none.
    pub fn thermostat_in_air(&self) -> bool {
        matches!(self.place.kind, Kind::Chamber(_))
            && self.mats().any(|(_, mat)| mat.thermostat_c.is_some())
    }

    fn over_floor(&self, mm: f64) -> f64 {
        (mm - self.floor_mm).clamp(0.0, self.height_mm)
    }

    fn slits(&self) -> Vec<VentSlot> {
        let slit = |at_mm: f64| VentSlot {
            width_mm: self.place.width_mm,
            height_mm: GAP_MM,
            at_mm,
        };
        vec![slit(0.0), slit(self.height_mm)]
    }

    /// Openings with their middles over its floor.
    fn openings(&self, all: &[Vent]) -> Vec<VentSlot> {
        let slot = |vent: &Vent| VentSlot {
            width_mm: vent.width_mm,
            height_mm: vent.height_mm,
            at_mm: vent.at_mm.min(self.height_mm),
        };
        all.iter().map(slot).collect()
    }

    /// The door, or the flap, that it is aired by.
    fn door(&self) -> Option<OpenDoor> {
        let airing = self.place.airing.filter(|airing| airing.hours > 0.0)?;
        Some(OpenDoor {
            slot: VentSlot {
                width_mm: airing.gap_mm.min(self.place.width_mm),
                height_mm: self.height_mm,
                at_mm: self.height_mm / 2.0,
            },
            from_h: airing.from_h,
            hours: airing.hours,
            over_c: airing.over_c,
        })
    }

    /// It as the solver takes it: a chamber with its own walls and vents; a closet of boards, or a
    /// bay in sheets, with gaps at the bottom and at the top.
    pub fn set_up(&self, site: &Site, inside: &Inside) -> ChamberSetUp {
        let lit = |i: usize| inside.lit.get(i).copied().unwrap_or(false);
        let (mut walls, mut vents, mut limit_c) = (vec![SHEET], self.slits(), LIMIT_C);
        let mut probe_at_mm = self.height_mm / 2.0;
        match &self.place.kind {
            Kind::Chamber(chamber) => {
                let wall = |wall: &WallLayer| Layer {
                    thickness_mm: wall.thickness_mm,
                    conductivity_w_mk: wall.conductivity_w_mk,
                };
                walls = chamber.walls.iter().map(wall).collect();
                vents = self.openings(&chamber.vents);
                limit_c = chamber.limit_c.unwrap_or(limit_c);
                let probe = chamber.probe_mm.unwrap_or(probe_at_mm);
                probe_at_mm = probe.min(self.height_mm);
            }
            Kind::Closet(closet) => {
                walls = vec![BOARDS];
                vents.extend(self.openings(&closet.vents));
            }
            _ => {
                let holes = self.each_tier();
                vents.extend(holes.flat_map(|(_, tier)| self.openings(&tier.vents)));
            }
        }
        let own = self.mats().find(|(_, mat)| mat.thermostat_c.is_some());
        let own = own.filter(|_| self.thermostat_in_air());
        let around = &inside.around;
        ChamberSetUp {
            width_mm: self.place.width_mm,
            depth_mm: self.place.depth_mm,
            height_mm: self.height_mm,
            walls,
            vents,
            shelves_mm: self
                .each_tier()
                .map(|(_, tier)| self.over_floor(tier.deck_height_mm))
                .collect(),
            day_c: around.day_c,
            night_c: around.night_c,
            humidity: around.humidity.unwrap_or(USUAL_HUMIDITY),
            heaters: self
                .mats()
                .filter(|_| inside.heat > 0.0)
                .map(|(tier, mat)| Heater {
                    watts: mat.warming_w() * inside.heat,
                    at_mm: self.over_floor(tier.deck_height_mm),
                })
                .collect(),
            lamps: self
                .each_tier()
                .filter(|(i, _)| lit(*i))
                .flat_map(|(_, tier)| {
                    let burning = tier.burning();
                    tier.lamps.iter().map(move |lamp| ChamberLamp {
                        watts: lamp.drawn_w(),
                        at_mm: self.over_floor(tier.deck_height_mm + lamp.height_mm),
                        from_h: burning.from_h,
                        hours: burning.hours,
                    })
                })
                .collect(),
            thermostat: own.and_then(|(_, mat)| {
                Some(AirThermostat {
                    set_c: mat.thermostat_c? + mat.dial_error_k.unwrap_or(0.0),
                    hysteresis_k: mat.hysteresis_k.unwrap_or(USUAL_HYSTERESIS_K),
                    probe_at_mm,
                })
            }),
            fan_m3_h: self
                .each_tier()
                .flat_map(|(_, tier)| &tier.fans)
                .map(|fan| fan.flow_m3_h * FROM_SHELF_TO_SHELF)
                .sum(),
            door: self.door(),
            wet_kg: inside.wet_kg,
            wet_m2: inside.wet_m2,
            grown: inside.grown,
            limit_c,
            price_per_kwh: site.price_per_kwh,
        }
    }

    /// Its day, its mats held by a thermostat in the mix of `on_mat` where none hangs in its air;
    /// with the share of the day that they are on. `None` where the figures are none that physics
    /// allows.
    pub fn day(
        &self,
        site: &Site,
        inside: &Inside,
        on_mat: Option<(usize, TrayHere<'_>)>,
    ) -> Option<(ChamberSetUp, ChamberDay)> {
        let run = |heat: f64| {
            let set_up = self.set_up(
                site,
                &Inside {
                    heat,
                    ..inside.clone()
                },
            );
            let day = chamber_day(set_up.clone())?;
            Some((set_up, day))
        };
        let held = on_mat.filter(|(_, tray)| {
            let mat = tray.mat.and_then(|(mat, _)| mat.thermostat_c);
            inside.heat > 0.0 && mat.is_some() && !self.thermostat_in_air()
        });
        let Some((tier, tray)) = held else {
            return run(inside.heat);
        };
        // The mats warm the air, the air the mix, and the mix switches the mats: a few rounds
        // settle it.
        const ROUNDS: usize = 4;
        let mut heat = inside.heat;
        for _ in 0..ROUNDS {
            let (_, day) = run(heat)?;
            let shelf = day.shelves.get(tier - self.tiers.start);
            let zone = zone_day(root_zone(&inside.around, self.place, tier, tray, shelf))?;
            heat = (heat + zone.duty * inside.heat) / 2.0;
        }
        run(heat)
    }
}
