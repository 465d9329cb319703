//! The air that trays grow in: a room's, a closed space's, or outdoors.

use jiff::civil::Date;
use rustc_hash::FxHashMap;

use crate::growth::Air;
use crate::plan::SoundPlan;
use crate::room::{Bay, BayRef};
use crate::site;
use crate::warmth::around::{air_around, outdoors};
use crate::warmth::closed_space::{ClosedSpace, Inside};
use crate::warmth::tray::wet_m2;

/// The air of a plan's bays, each reckoned once.
#[derive(Clone)]
pub(super) struct Airs<'a> {
    plan: &'a SoundPlan,
    /// Closed air by place, how it is set, tier, and the day on which what is around it came to be so.
    closed: FxHashMap<(usize, usize, usize, Option<Date>), Option<Air>>,
    /// Air outdoors, by place and date; in the open without a place.
    outdoors: FxHashMap<(Option<usize>, Date), Air>,
}

/// So many of the trays that ever grow in closed air are there at once (our own estimate).
const AT_ONCE: f64 = 0.6;

/// The share of a tray that leaves cover half way through.
const HALF_GROWN: f64 = 0.5;

/// Air that is `air` by day and by night.
fn grows_in(air: &site::air::Air) -> Air {
    Air::of(air.day_c, air.night_c)
}

impl<'a> Airs<'a> {
    pub(super) fn new(plan: &'a SoundPlan) -> Self {
        Self {
            plan,
            closed: FxHashMap::default(),
            outdoors: FxHashMap::default(),
        }
    }

    /// The room's on `date`.
    pub(super) fn of_room(&self, date: Date) -> Air {
        grows_in(self.plan.site.room_air(None, date))
    }

    /// That of a plant that is carried out by day and in by night on `date`.
    pub(super) fn carried_out(&mut self, date: Date) -> Air {
        let site = &self.plan.site;
        let open = self.outdoors.entry((None, date));
        let out = *open.or_insert_with(|| grows_in(&outdoors(site, date)));
        let by_day_c = out.mean_c + out.day_over_night_k / 2.0;
        Air::of(by_day_c, site.room_air(None, date).night_c)
    }

    /// The air in the bay that `reference` names, on `date`.
    pub(super) fn there(&mut self, reference: &BayRef, date: Date) -> Air {
        let plan = self.plan;
        let Some(bay) = plan.bay_on(reference, date) else {
            return self.of_room(date);
        };
        let around = || air_around(&plan.site, bay.place, date);
        if bay.place.outdoors() {
            let known = self.outdoors.entry((Some(bay.place_index), date));
            return *known.or_insert_with(|| grows_in(&around()));
        }
        let setting = plan.setting_on(bay.place_index, date);
        let since = plan.site.room_air_since(bay.place.in_room.as_deref(), date);
        let known = self
            .closed
            .entry((bay.place_index, setting, bay.tier_index, since))
            .or_insert_with(|| closed(plan, &bay, around()));
        known.unwrap_or_else(|| grows_in(&around()))
    }
}

/// The closed air of `bay`, its mats off and its lamps on, with the air `around` it; `None` in the open.
fn closed(plan: &SoundPlan, bay: &Bay<'_>, around: site::air::Air) -> Option<Air> {
    let space = ClosedSpace::around(bay.place, bay.tier_index)?;
    let tiers = space.tiers();
    let here = |tray: &&crate::plan::Tray| tray.stands.iter().any(|s| s.bay.place == bay.place.id);
    let formats = || plan.trays.iter().filter(here).map(|tray| plan.format(tray));
    let inside = Inside {
        lit: tiers
            .clone()
            .map(|i| !bay.place.tiers[i].lamps.is_empty())
            .collect(),
        heat: 0.0,
        grown: true,
        wet_kg: AT_ONCE * formats().map(|format| format.wet_kg).sum::<f64>(),
        wet_m2: AT_ONCE
            * formats()
                .map(|format| wet_m2(format, HALF_GROWN))
                .sum::<f64>(),
        around,
    };
    let (_, day) = space.day(&plan.site, &inside, None)?;
    let shelf = day.shelves.get(bay.tier_index - tiers.start)?;
    Some(Air {
        mean_c: shelf.mean_c,
        day_over_night_k: shelf.most_c - shelf.least_c,
    })
}
