//! The air that trays grow in: the room's, a closed space's, or outdoors.

use jiff::civil::Date;
use rustc_hash::FxHashMap;

use crate::growth::Air;
use crate::plan::SoundPlan;
use crate::room::{Bay, BayRef};
use crate::warmth::closed_space::{ClosedSpace, Inside};

/// The air of a plan's bays, all closed air reckoned once.
#[derive(Clone)]
pub(super) struct Airs<'a> {
    plan: &'a SoundPlan,
    /// By place, how it is set and tier.
    closed: FxHashMap<(usize, usize, usize), Option<Air>>,
}

/// So many of the trays that ever grow in closed air are there at once (our own estimate).
const AT_ONCE: f64 = 0.6;

impl<'a> Airs<'a> {
    pub(super) fn new(plan: &'a SoundPlan) -> Self {
        Self {
            plan,
            closed: FxHashMap::default(),
        }
    }

    /// The room's.
    pub(super) fn of_room(&self) -> Air {
        let air = &self.plan.site.air;
        Air::of(air.day_c, air.night_c)
    }

    /// That of a plant that hardens off on `date`: out by day, in a frame by night.
    pub(super) fn hardening(&self, date: Date) -> Air {
        let outdoors = self.plan.site.outdoors_on(date).in_a_frame();
        Air::of(outdoors.day_c, outdoors.night_c)
    }

    /// The air in the bay that `reference` names, on `date`.
    pub(super) fn there(&mut self, reference: &BayRef, date: Date) -> Air {
        let plan = self.plan;
        let Some(bay) = plan.bay_on(reference, date) else {
            return self.of_room();
        };
        if bay.place.outdoors() {
            return self.hardening(date);
        }
        let setting = plan.setting_on(bay.place_index, date);
        let known = self
            .closed
            .entry((bay.place_index, setting, bay.tier_index))
            .or_insert_with(|| closed(plan, &bay));
        known.unwrap_or_else(|| {
            let air = bay.place.air_around(&plan.site.air);
            Air::of(air.day_c, air.night_c)
        })
    }
}

/// The closed air of `bay`, its mats off and its lamps on; `None` in the open.
fn closed(plan: &SoundPlan, bay: &Bay<'_>) -> Option<Air> {
    let space = ClosedSpace::around(bay.place, bay.tier_index)?;
    let tiers = space.tiers();
    let here = |tray: &&crate::plan::Tray| tray.stands.iter().any(|s| s.bay.place == bay.place.id);
    let trays = plan.trays.iter().filter(here);
    let inside = Inside {
        lit: tiers
            .clone()
            .map(|i| !bay.place.tiers[i].lamps.is_empty())
            .collect(),
        heat: 0.0,
        grown: true,
        wet_kg: AT_ONCE * trays.map(|tray| plan.format(tray).wet_kg).sum::<f64>(),
    };
    let (_, day) = space.day(&plan.site, &inside, None)?;
    let shelf = day.shelves.get(bay.tier_index - tiers.start)?;
    Some(Air {
        mean_c: shelf.mean_c,
        day_over_night_k: shelf.most_c - shelf.least_c,
    })
}
