//! What seed lies in while it germinates: the root zone that its tray will have there.

use crate::basis::dates::{days_between, plus_days};
use crate::plan::{SoundPlan, Sowing, Stage};
use crate::room::Place;
use crate::room::container::TrayFormat;
use crate::warmth::around::{air_around, changes_after};
use crate::warmth::chamber::ChamberDay;
use crate::warmth::closed_space::{ClosedSpace, Inside};
use crate::warmth::mat::mat_under;
use crate::warmth::transfer::air_through_day;
use crate::warmth::tray;
use crate::warmth::tray::TrayHere;
use jiff::civil::Date;
use rustc_hash::FxHashMap;

/// Root zones of a plan's sowings, all closed air reckoned once.
pub(super) struct Beds<'a> {
    plan: &'a SoundPlan,
    /// By place, lowest tier, and the day on which what is around it came to be so.
    closed: FxHashMap<(usize, usize, Option<Date>), Option<Closed>>,
}

/// Closed air that trays germinate in.
struct Closed {
    first_tier: usize,
    thermostat_in_air: bool,
    day: ChamberDay,
}

/// How much of a tray's sides stand free among neighbours that come and go (our own estimate).
const FREE_SIDES: f64 = 0.5;
/// Who has not come up after so many days is not waited for.
const MOST_DAYS: i32 = 60;
/// What changes from day to day is reckoned once in so many.
const STEP_DAYS: i32 = 7;
/// How many of the trays that ever germinate in a chamber are there at once (our own estimate).
const AT_ONCE: f64 = 0.4;

impl<'a> Beds<'a> {
    pub(super) fn new(plan: &'a SoundPlan) -> Self {
        Self {
            plan,
            closed: FxHashMap::default(),
        }
    }

    /// The root zone of the first tray with `sowing` in it, hour by hour while it germinates after it was
    /// sown on `sown`, in °C; the room's air where it stands nowhere. One day where they are all alike.
    pub(super) fn root_zone_c(&mut self, sowing: &Sowing, sown: Date) -> Vec<f64> {
        self.through(sowing, sown, true)
    }

    /// The same with no mat under it.
    pub(super) fn without_mat_c(&mut self, sowing: &Sowing, sown: Date) -> Vec<f64> {
        self.through(sowing, sown, false)
    }

    fn through(&mut self, sowing: &Sowing, sown: Date, on_mat: bool) -> Vec<f64> {
        let plan = self.plan;
        let stand = plan.sown_in(&sowing.id).next();
        let stand = stand.and_then(|tray| tray.stand_in(Stage::Germinate));
        let place = stand.and_then(|stand| plan.place(&stand.bay.place));
        let end = plus_days(sown, MOST_DAYS);
        let mut list = Vec::new();
        let mut from = sown;
        while from < end {
            let changes = match place {
                Some(place) => changes_after(&plan.site, place, from),
                None => plan.site.room_air_changes_after(None, from),
            };
            let hours = self
                .computed(sowing, from, on_mat)
                .unwrap_or_else(|| self.in_air(place, from));
            let until = match changes {
                None if list.is_empty() => return hours,
                // Outdoors each day differs from the last, but not by much.
                Some(next) => next.max(plus_days(from, STEP_DAYS)).min(end),
                None => end,
            };
            for _ in 0..days_between(from, until) {
                list.extend_from_slice(&hours);
            }
            from = until;
        }
        list
    }

    /// The air where it stands, or the room's, hour by hour on `date`.
    fn in_air(&self, place: Option<&Place>, date: Date) -> Vec<f64> {
        let site = &self.plan.site;
        let air = match place {
            Some(place) => air_around(site, place, date),
            None => site.room_air(None, date).clone(),
        };
        air_through_day(air.day_c, air.night_c).to_vec()
    }

    fn computed(&mut self, sowing: &Sowing, date: Date, on_mat: bool) -> Option<Vec<f64>> {
        let plan = self.plan;
        let tray = plan.sown_in(&sowing.id).next()?;
        let stand = tray.stand_in(Stage::Germinate)?;
        let bay = plan.bay(&stand.bay)?;
        let around = air_around(&plan.site, bay.place, date);
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
        let closed = self.closed(bay.place_index, bay.tier_index, here, date);
        let shelf = closed.and_then(|air| {
            let shelf = bay.tier_index - air.first_tier;
            Some((air.day.shelves.get(shelf)?, air))
        });
        let set_up = tray::root_zone(
            &around,
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
    fn closed(
        &mut self,
        place: usize,
        tier: usize,
        on_mat: TrayHere<'_>,
        date: Date,
    ) -> Option<&Closed> {
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
            let formats = || plan.trays.iter().filter(here).map(|tray| plan.format(tray));
            let damp = place_of.keeps_damp_in();
            let open = |format: &&TrayFormat| damp || format.dome_height_mm.is_none();
            let inside = Inside {
                lit: space
                    .tiers()
                    .map(|i| place_of.tiers[i].lamps_germinating)
                    .collect(),
                heat: 1.0,
                grown: false,
                wet_kg: AT_ONCE * formats().map(|format| format.wet_kg).sum::<f64>(),
                wet_m2: AT_ONCE
                    * formats()
                        .filter(open)
                        .map(|f| tray::wet_m2(f, 0.0))
                        .sum::<f64>(),
                around: air_around(&plan.site, place_of, date),
            };
            let on_mat = on_mat.mat.is_some().then_some((tier, on_mat));
            Some(Closed {
                first_tier,
                thermostat_in_air: space.thermostat_in_air(),
                day: space.day(&plan.site, &inside, on_mat)?.1,
            })
        };
        let room = place_of.in_room.as_deref();
        let since = plan.site.room_air_since(room, date);
        let known = self.closed.entry((place, first_tier, since));
        known.or_insert_with(reckon).as_ref()
    }
}
