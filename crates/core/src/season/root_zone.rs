//! What seed lies in while it germinates: the root zone that its tray will have there.

use crate::plan::{SoundPlan, Sowing, Stage};
use crate::warmth::chamber::ChamberDay;
use crate::warmth::closed_space::{ClosedSpace, Inside};
use crate::warmth::mat::mat_under;
use crate::warmth::transfer::air_through_day;
use crate::warmth::tray;
use crate::warmth::tray::TrayHere;
use rustc_hash::FxHashMap;

/// Root zones of a plan's sowings, all closed air reckoned once.
pub(super) struct Beds<'a> {
    plan: &'a SoundPlan,
    /// By place and lowest tier.
    closed: FxHashMap<(usize, usize), Option<Closed>>,
}

/// Closed air that trays germinate in.
struct Closed {
    first_tier: usize,
    thermostat_in_air: bool,
    day: ChamberDay,
}

/// How much of a tray's sides stand free among neighbours that come and go (our own estimate).
const FREE_SIDES: f64 = 0.5;
/// How many of the trays that ever germinate in a chamber are there at once (our own estimate).
const AT_ONCE: f64 = 0.4;

impl<'a> Beds<'a> {
    pub(super) fn new(plan: &'a SoundPlan) -> Self {
        Self {
            plan,
            closed: FxHashMap::default(),
        }
    }

    /// The root zone of the first tray with `sowing` in it, hour by hour while it germinates, in
    /// °C; the room's air where it stands nowhere indoors.
    pub(super) fn root_zone_c(&mut self, sowing: &Sowing) -> Vec<f64> {
        self.computed(sowing, true)
            .unwrap_or_else(|| self.in_air(sowing))
    }

    /// The same with no mat under it.
    pub(super) fn without_mat_c(&mut self, sowing: &Sowing) -> Vec<f64> {
        self.computed(sowing, false)
            .unwrap_or_else(|| self.in_air(sowing))
    }

    /// The air where it stands, or the room's, hour by hour.
    fn in_air(&self, sowing: &Sowing) -> Vec<f64> {
        let tray = self.plan.sown_in(&sowing.id).next();
        let stand = tray.and_then(|tray| tray.stand_in(Stage::Germinate));
        let place = stand.and_then(|stand| self.plan.place(&stand.bay.place));
        let room = &self.plan.site.air;
        let air = place.map_or_else(|| room.clone(), |place| place.air_around(room));
        air_through_day(air.day_c, air.night_c).to_vec()
    }

    fn computed(&mut self, sowing: &Sowing, on_mat: bool) -> Option<Vec<f64>> {
        let plan = self.plan;
        let tray = plan.sown_in(&sowing.id).next()?;
        let stand = tray.stand_in(Stage::Germinate)?;
        let bay = plan.bay(&stand.bay)?;
        if bay.place.outdoors() {
            return None;
        }
        let format = plan.format(tray);
        let damp = bay.place.keeps_damp_in();
        let here = TrayHere {
            format,
            mat: mat_under(bay.tier, &stand.footprint(format)).filter(|_| on_mat),
            free_sides: FREE_SIDES,
            domed: format.dome_height_mm.is_some() && !damp,
            ppfd: 0.0,
            leaves: 0.0,
        };
        let closed = self.closed(bay.place_index, bay.tier_index, here);
        let shelf = closed.and_then(|air| {
            let shelf = bay.tier_index - air.first_tier;
            Some((air.day.shelves.get(shelf)?, air))
        });
        let set_up = tray::root_zone(
            &plan.site,
            bay.place,
            bay.tier_index,
            here,
            shelf.map(|(shelf, _)| shelf),
        );
        let set_up = match shelf.filter(|(_, air)| air.thermostat_in_air) {
            Some((_, air)) => set_up.switched_elsewhere(air.day.duty),
            None => set_up,
        };
        Some(tray::zone_day(set_up)?.root_zone_c().to_vec())
    }

    /// The closed air of a tier, with its mats on and its lamps off.
    fn closed(&mut self, place: usize, tier: usize, on_mat: TrayHere<'_>) -> Option<&Closed> {
        let plan = self.plan;
        let place_of = &plan.places[place];
        let space = ClosedSpace::around(place_of, tier)?;
        let first_tier = space.tiers().start;
        let reckon = || {
            let id = &plan.places[place].id;
            let here = |tray: &&crate::plan::Tray| {
                let stand = tray.stand_in(Stage::Germinate);
                !tray.potted && stand.is_some_and(|stand| stand.bay.place == *id)
            };
            let trays = plan.trays.iter().filter(here);
            let inside = Inside {
                lit: space
                    .tiers()
                    .map(|i| place_of.tiers[i].lamps_germinating)
                    .collect(),
                heat: 1.0,
                grown: false,
                wet_kg: AT_ONCE * trays.map(|tray| plan.format(tray).wet_kg).sum::<f64>(),
            };
            let on_mat = on_mat.mat.is_some().then_some((tier, on_mat));
            Some(Closed {
                first_tier,
                thermostat_in_air: space.thermostat_in_air(),
                day: space.day(&plan.site, &inside, on_mat)?.1,
            })
        };
        let known = self.closed.entry((place, first_tier));
        known.or_insert_with(reckon).as_ref()
    }
}
