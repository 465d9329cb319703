//! The air that trays grow in: a room's, a closed space's, or outdoors.

use std::sync::Arc;

use jiff::civil::Date;
use rustc_hash::FxHashMap;

use crate::growth::Air;
use crate::plan::SoundPlan;
use crate::room::{Bay, BayRef};
use crate::season::company::{Company, Known};
use crate::site;
use crate::warmth::around::{air_around, outdoors};
use crate::warmth::closed_air::Closed;

/// The air of a plan's bays, each reckoned once.
#[derive(Clone)]
pub(super) struct Airs<'a> {
    plan: &'a SoundPlan,
    company: Company<'a>,
    /// The days on which something changes in a place, in order.
    turns: FxHashMap<usize, Arc<[Date]>>,
    /// Closed air by place, tier, how it is set, and the days on which what is around it and in it came to
    /// be so.
    closed: FxHashMap<ClosedKey, Option<Air>>,
    /// Air outdoors, by place and date; in the open without a place.
    outdoors: FxHashMap<(Option<usize>, Date), Air>,
}

/// See [`Airs::closed`].
type ClosedKey = (usize, usize, usize, Option<Date>, usize);

/// Air that is `air` by day and by night.
fn grows_in(air: &site::air::Air) -> Air {
    Air::of(air.day_c, air.night_c)
}

impl<'a> Airs<'a> {
    /// Of `plan`, with everything as it is `known` to happen; with everybody alone where nothing is known
    /// yet.
    pub(super) fn new(plan: &'a SoundPlan, known: Option<Known<'a>>) -> Self {
        Self {
            plan,
            company: Company::of(plan, known),
            turns: FxHashMap::default(),
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
        if bay.place.shares_air(bay.tier_index).is_none() {
            return grows_in(&around());
        }
        let company = self.company;
        let turns = self.turns.entry(bay.place_index);
        let turns = turns.or_insert_with(|| company.turns(bay.place_index).into());
        let turn = turns.partition_point(|day| *day <= date);
        let key = (bay.place_index, bay.tier_index, setting, since, turn);
        let known = self.closed.entry(key);
        let known = *known.or_insert_with(|| closed(plan, company, &bay, date, around()));
        known.unwrap_or_else(|| grows_in(&around()))
    }
}

/// The closed air of `bay` on `date` for what grows there, with the air `around` it; `None` in the open.
fn closed<'a>(
    plan: &'a SoundPlan,
    company: Company<'a>,
    bay: &Bay<'_>,
    date: Date,
    around: site::air::Air,
) -> Option<Air> {
    let tiers = bay.place.tiers.iter().enumerate();
    let on_tier = |(tier_index, tier)| {
        let bay = Bay {
            tier,
            tier_index,
            ..*bay
        };
        company.in_bay(&bay, date, None)
    };
    let occupants: Vec<_> = tiers.map(on_tier).collect();
    let index = bay.tier_index;
    let air = Closed::that_grows(&plan.site, bay.place, index, &occupants, around)?;
    let shelf = air.on_tier(index).shelf?;
    Some(Air {
        mean_c: shelf.mean_c,
        day_over_night_k: shelf.most_c - shelf.least_c,
    })
}
