//! The root zones of the trays in a bay, as they stand in the plan.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::plus_days;
use crate::crops::emergence::AtTemperature;
use crate::crops::showing::Outcome;
use crate::day::closed_air::ClosedAir;
use crate::day::standing::Standing;
use crate::day::water::TrayWater;
use crate::plan::SoundPlan;
use crate::room::{Bay, Mat, Tier};
use crate::season::Shows;
use crate::site::air::Air;
use crate::warmth::mat::{cover, mat_under};
use crate::warmth::root_zone::{RootZone, RootZoneDay};
use crate::warmth::tray;
use crate::warmth::tray::TrayHere;

/// The root zone of a tray on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrayRoots {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// The heat mat that warms it; `None` when none does, or it is off.
    pub mat: Option<String>,
    /// What its thermostat is set to, in °C.
    pub set_c: Option<f64>,
    /// Its temperatures.
    pub day: RootZoneDay,
    /// What it drinks.
    pub water: TrayWater,
    /// What is sown in it and comes up at these temperatures.
    pub sown: Vec<SownRoots>,
}

/// A sowing in the root zone that its tray has.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SownRoots {
    /// The sowing.
    pub sowing: String,
    /// Crop and variety in words.
    pub name: String,
    /// What suits it, in °C.
    pub wants_c: f64,
    /// When and how many show if the root zone stays so.
    pub outcome: Outcome,
    /// Days and share against temperature: none once it is up; `None` when it was not asked for.
    pub by_temperature: Option<Vec<AtTemperature>>,
    /// The days on which it shows; `None` when none come up.
    pub shows: Option<Shows>,
}

/// Trays with less than this between them keep one another's sides warm.
const SIDE_BY_SIDE_MM: f64 = 25.0;

/// The share of a tray's sides that no other stands against.
pub(crate) fn free_sides(own: &Standing<'_>, standing: &[Standing<'_>]) -> f64 {
    let f = &own.footprint;
    let (w, d) = (f.x_mm[1] - f.x_mm[0], f.y_mm[1] - f.y_mm[0]);
    let along = |a: [f64; 2], b: [f64; 2]| (a[1].min(b[1]) - a[0].max(b[0])).max(0.0);
    let beside = |near: f64, far: f64| (near - far).abs() < SIDE_BY_SIDE_MM;
    let mut against = 0.0;
    for other in standing.iter().filter(|s| s.tray.id != own.tray.id) {
        let g = &other.footprint;
        if beside(f.x_mm[0], g.x_mm[1]) || beside(f.x_mm[1], g.x_mm[0]) {
            against += along(f.y_mm, g.y_mm);
        }
        if beside(f.y_mm[0], g.y_mm[1]) || beside(f.y_mm[1], g.y_mm[0]) {
            against += along(f.x_mm, g.x_mm);
        }
    }
    (1.0 - against / (2.0 * (w + d))).clamp(0.0, 1.0)
}

/// Whether a mat of `tier` is plugged in: something on it germinates. Seedlings that are up need none
/// (common practice, no source), but may have it left on.
fn plugged_in(tier: &Tier, mat: &Mat, standing: &[Standing<'_>]) -> bool {
    let warmed = |s: &Standing<'_>| s.coming_up || tier.mats_growing && s.is_up();
    let on_it = standing.iter().filter(|s| cover(mat, &s.footprint) > 0.0);
    on_it.into_iter().any(warmed)
}

/// Whose root zones are wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Whose {
    /// Every tray's.
    All,
    /// Those of trays that come up: there they matter most.
    ComingUp,
}

/// Leaves count in steps of a tenth of a tray.
const LEAF_STEP: f64 = 0.1;
/// Light counts in steps of this many µmol/m²/s: it warms by a hundredth of a degree for each.
const LIGHT_STEP: f64 = 25.0;

/// A bay and what stands in it, with `ppfd` on each tray while its lamps burn (0 while they are off), in
/// the room's air or in `closed` air.
///
/// One mat under several trays has one probe: it is in the tray that the mat lies most under, the
/// first of like ones, and the others get what that one asks for.
#[derive(Debug, Clone, Copy)]
pub struct Here<'a> {
    /// The plan.
    pub plan: &'a SoundPlan,
    /// The bay.
    pub bay: &'a Bay<'a>,
    /// What stands there.
    pub standing: &'a [Standing<'a>],
    /// The light on each of it, in µmol/m²/s; none where nobody reckoned it.
    pub ppfd: &'a [f64],
    /// The air around its place.
    pub around: &'a Air,
    /// The closed air that the bay is in.
    pub closed: Option<&'a ClosedAir>,
}

impl Here<'_> {
    /// The root zones of its trays.
    pub fn trays(&self, whose: Whose) -> Vec<TrayRoots> {
        let wanted = |i: &usize| whose == Whose::All || self.standing[*i].coming_up;
        let each = (0..self.standing.len()).filter(wanted);
        each.filter_map(|i| self.roots(i)).collect()
    }

    /// The mats that are plugged in, by their index, each with the share of the day that it is on.
    pub fn mats_on(&self) -> Vec<(usize, f64)> {
        let mats = self.bay.tier.mats.iter().enumerate();
        let duties = mats.filter_map(|(i, mat)| Some((i, self.duty(mat)?)));
        duties.filter(|(_, duty)| *duty > 0.0).collect()
    }

    /// The mat under tray `i` that is plugged in, and the share of the tray that it lies under.
    fn mat(&self, i: usize) -> Option<(&Mat, f64)> {
        let under = mat_under(self.bay.tier, &self.standing[i].footprint);
        under.filter(|(mat, _)| plugged_in(self.bay.tier, mat, self.standing))
    }

    /// The tray that holds the probe of the thermostat that switches `mat`: on the mat that it is sold
    /// with, as long as something stands there.
    fn with_probe(&self, mat: &Mat) -> Option<usize> {
        let warms = |lead: &&Mat| plugged_in(self.bay.tier, lead, self.standing);
        let mat = self.bay.tier.lead_of(mat).filter(warms).unwrap_or(mat);
        let cover = |i: usize| cover(mat, &self.standing[i].footprint);
        (0..self.standing.len()).reduce(|best, i| {
            const MORE: f64 = 0.01;
            if cover(i) > cover(best) + MORE {
                i
            } else {
                best
            }
        })
    }

    /// The share of the day that `mat` is on; `None` while it is not plugged in.
    fn duty(&self, mat: &Mat) -> Option<f64> {
        if let Some(air) = self.closed.filter(|air| air.probe_mm.is_some()) {
            // A chamber's thermostat switches all its mats, whichever shelf germinates.
            return Some(air.day.duty);
        }
        if !plugged_in(self.bay.tier, mat, self.standing) {
            return None;
        }
        if mat.thermostat_c.is_none() {
            return Some(1.0);
        }
        Some(tray::zone_day(self.zone(self.with_probe(mat)?))?.duty)
    }

    fn zone(&self, i: usize) -> RootZone {
        let own = &self.standing[i];
        let light = self.ppfd.get(i).copied().unwrap_or(0.0);
        let tray = TrayHere {
            format: own.format,
            mat: self.mat(i),
            free_sides: free_sides(own, self.standing),
            domed: own.domed,
            ppfd: (light / LIGHT_STEP).round() * LIGHT_STEP,
            leaves: (own.leaf_cover() / LEAF_STEP).round() * LEAF_STEP,
        };
        let shelf = self
            .closed
            .and_then(|air| air.shelf_of(self.bay.tier_index));
        let place = self.bay.place;
        tray::root_zone(self.around, place, self.bay.tier_index, tray, shelf)
    }

    fn roots(&self, i: usize) -> Option<TrayRoots> {
        let (own, mat) = (&self.standing[i], self.mat(i));
        let mut zone = self.zone(i);
        if let (Some((mat, _)), Some(_)) = (mat, zone.thermostat) {
            let elsewhere = match self.closed.filter(|air| air.probe_mm.is_some()) {
                // A chamber's thermostat hangs in its air.
                Some(air) => Some(air.day.duty),
                None => match self.with_probe(mat).filter(|&holder| holder != i) {
                    Some(holder) => Some(tray::zone_day(self.zone(holder))?.duty),
                    None => None,
                },
            };
            if let Some(duty) = elsewhere {
                zone = zone.switched_elsewhere(duty);
            }
        }
        // A plan may hold what no thermostat or mat is like; then there is nothing to show.
        let day = tray::zone_day(zone)?;
        let sown = own.parts.iter().map(|part| {
            let crop = self.plan.crop(part.sowing);
            let curve = crop.curve();
            SownRoots {
                sowing: part.sowing.id.clone(),
                name: part.dates.name.clone(),
                wants_c: crop.root_zone_c,
                outcome: Outcome::of(crop, &curve, day.root_zone_c()),
                by_temperature: Some(if own.coming_up {
                    curve.by_temperature()
                } else {
                    Vec::new()
                }),
                shows: part.dates.shows(),
            }
        });
        Some(TrayRoots {
            tray: own.tray.id.clone(),
            label: own.tray.name.clone(),
            mat: mat.map(|(mat, _)| mat.name.clone()),
            set_c: mat.and_then(|(mat, _)| mat.thermostat_c),
            sown: sown.collect(),
            water: TrayWater::of(own.format, day.evaporation_kg_m2_d),
            day,
        })
    }
}

impl TrayRoots {
    /// The day on which it is dry, watered well on `from`, and left filled from below if `filled`;
    /// `None` when that is over a month away.
    pub fn dries_on(&self, from: Date, filled: bool) -> Option<Date> {
        let days = if filled {
            self.water.lasts_filled_days
        } else {
            self.water.lasts_days
        };
        days.map(|days| plus_days(from, days.floor() as i32))
    }

    /// Without its lists, which are for its own sheet: every bay's would swell the answer.
    pub(crate) fn in_outline(&mut self) {
        self.day.hours = None;
        for sown in &mut self.sown {
            sown.by_temperature = None;
        }
    }
}
