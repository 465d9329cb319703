//! What seed lies in while it germinates: the root zone of its tray, among those who stand there with it.

use std::sync::Arc;

use jiff::civil::Date;
use rustc_hash::FxHashMap;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::work::go_on;
use crate::crops::showing::Outcome;
use crate::light::bay::BayField;
use crate::light::fields::Fields;
use crate::light::surfaces::Cover;
use crate::plan::{SoundPlan, Sowing, Stage, Tray};
use crate::room::{Bay, Place, Tier};
use crate::season::company::{Company, Known, Sown};
use crate::warmth::around::{air_around, changes_after};
use crate::warmth::bed::{Bed, in_steps};
use crate::warmth::closed_air::Closed;
use crate::warmth::closed_space::ClosedSpace;
use crate::warmth::occupant::Occupant;
use crate::warmth::transfer::air_through_day;

/// Root zones of a plan's sowings.
#[derive(Debug)]
pub struct Beds<'a> {
    plan: &'a SoundPlan,
    fields: &'a Fields,
    company: Company<'a>,
    /// The days on which something changes in a place, in order.
    turns: FxHashMap<usize, Arc<[Date]>>,
    /// What comes up when of a sowing in a tray, by their indices.
    outcomes: FxHashMap<(usize, usize), Outcome>,
    /// Light on the deck of a bay as it is set.
    deck_ppfd: FxHashMap<(usize, usize, usize), f64>,
}

/// Who has not come up after so many days is not waited for.
const MOST_DAYS: i32 = 60;

/// The light of the lamps on the deck of `bay` while it is bare, in µmol/m²/s, as coarse as warmth minds.
pub fn deck_ppfd(bay: &Bay<'_>, fields: &Fields) -> f64 {
    if bay.tier.lamps.is_empty() {
        return 0.0;
    }
    in_steps(BayField::new(bay, Cover::default(), fields).mean_on_deck())
}

impl<'a> Beds<'a> {
    /// Of `plan`, whose light `fields` remembers, with everything as it is `known` to happen; with
    /// everybody alone where nothing is known yet.
    pub(super) fn new(plan: &'a SoundPlan, fields: &'a Fields, known: Option<Known<'a>>) -> Self {
        Self {
            plan,
            fields,
            company: Company::of(plan, known),
            turns: FxHashMap::default(),
            outcomes: FxHashMap::default(),
            deck_ppfd: FxHashMap::default(),
        }
    }

    /// The root zone of the first tray with `sowing` in it, hour by hour while it germinates after it was
    /// sown on `sown`, in °C; the room's air where it stands nowhere. One day where they are all alike.
    pub(super) fn root_zone_c(&mut self, sowing: &'a Sowing, sown: Date) -> Vec<f64> {
        self.through(self.plan.sown_in(&sowing.id).next(), sowing, sown, true)
    }

    /// The same with no mat under it.
    pub(super) fn without_mat_c(&mut self, sowing: &'a Sowing, sown: Date) -> Vec<f64> {
        self.through(self.plan.sown_in(&sowing.id).next(), sowing, sown, false)
    }

    /// What comes up when of the sowing at `sowing` in the tray at `tray`, sown on `sown`.
    pub fn outcome(&mut self, tray: usize, sowing: usize, sown: Date) -> &Outcome {
        let plan = self.plan;
        if !self.outcomes.contains_key(&(tray, sowing)) {
            let own = &plan.sowings[sowing];
            let bed_c = self.of_part_c(&plan.trays[tray], own, sown);
            let crop = plan.crop(own);
            let outcome = Outcome::of(crop, &crop.curve(), &bed_c);
            self.outcomes.insert((tray, sowing), outcome);
        }
        &self.outcomes[&(tray, sowing)]
    }

    /// What `sowing` lies in within `tray` after it was sown on `sown`: as its grower says, or as the tray's
    /// root zone is, hour by hour in °C.
    pub fn of_part_c(&mut self, tray: &'a Tray, sowing: &'a Sowing, sown: Date) -> Vec<f64> {
        match sowing.root_zone_c {
            Some(c) => vec![c],
            None => self.through(Some(tray), sowing, sown, true),
        }
    }

    fn through(
        &mut self,
        tray: Option<&'a Tray>,
        sowing: &'a Sowing,
        sown: Date,
        on_mat: bool,
    ) -> Vec<f64> {
        let own = tray.map(|tray| self.company.sown(tray, &sowing.id, sown));
        let later_days = own.map_or(0, |own| own.later_days);
        let end = plus_days(sown, MOST_DAYS);
        let mut stretches: Vec<(Vec<f64>, i32)> = Vec::new();
        let mut from = sown;
        while from < end {
            go_on();
            // Once all of it is up nobody minds: its last day stands for the rest.
            let stand = own.and_then(|own| self.company.bed_of(&own, from));
            let known = tray.is_some_and(|tray| tray.stand_in(Stage::Germinate).is_some());
            if known && stand.is_none() && !stretches.is_empty() {
                if let Some((_, days)) = stretches.last_mut() {
                    *days += days_between(from, end);
                }
                break;
            }
            let bay = stand.and_then(|stand| self.plan.bay_on(&stand.bay, from));
            let day = own.zip(bay);
            let hours = day.and_then(|(own, bay)| self.computed(&own, &bay, from, on_mat));
            let hours = hours.unwrap_or_else(|| self.in_air(bay.map(|bay| bay.place), from));
            let until = self.stays_until(bay.as_ref(), from, later_days).min(end);
            stretches.push((hours, days_between(from, until)));
            from = until;
        }
        in_hours(stretches)
    }

    /// The day after `from` on which what is around `bay`, or in it, may be another.
    fn stays_until(&mut self, bay: Option<&Bay<'_>>, from: Date, later_days: i32) -> Date {
        let plan = self.plan;
        let air = match bay {
            Some(bay) => {
                let next = changes_after(&plan.site, bay.place, from);
                next.map(|next| next.max(plus_days(from, self.company.step_days())))
            }
            None => plan.site.room_air_changes_after(None, from),
        };
        let turn = bay.and_then(|bay| {
            let company = self.company;
            let turns = self.turns.entry(bay.place_index);
            let turns = turns.or_insert_with(|| company.turns(bay.place_index).into());
            let next = |from: Date| {
                turns
                    .get(turns.partition_point(|day| *day <= from))
                    .copied()
            };
            // Its own turns come so much later.
            let own = next(plus_days(from, -later_days)).map(|day| plus_days(day, later_days));
            next(from).into_iter().chain(own).min()
        });
        air.into_iter().chain(turn).min().unwrap_or(Date::MAX)
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

    fn computed(
        &mut self,
        own: &Sown<'a>,
        bay: &Bay<'_>,
        date: Date,
        on_mat: bool,
    ) -> Option<Vec<f64>> {
        let plan = self.plan;
        let bare;
        let place = if on_mat {
            bay.place
        } else {
            bare = without_mats(bay.place, bay.tier_index);
            &bare
        };
        let around = air_around(&plan.site, place, date);
        let mut occupants: Vec<Vec<Occupant<'a>>> = vec![Vec::new(); place.tiers.len()];
        let space = ClosedSpace::around(place, bay.tier_index);
        let tiers = space
            .as_ref()
            .map_or_else(|| bay.tier_index..bay.tier_index + 1, |space| space.tiers());
        for tier_index in tiers {
            let bay = Bay {
                tier: &bay.place.tiers[tier_index],
                tier_index,
                ..*bay
            };
            occupants[tier_index] = self.company.in_bay(&bay, date, Some(own));
        }
        let closed = space.and_then(|_| {
            let around = around.clone();
            Closed::around(&plan.site, place, bay.tier_index, &occupants, around)
        });
        let here = &occupants[bay.tier_index];
        let burns = here.iter().any(|s| s.wants_lamps);
        let bed = Bed {
            around: &around,
            place,
            tier_index: bay.tier_index,
            occupants: here,
            deck_ppfd: if burns {
                self.deck_ppfd(bay, date)
            } else {
                0.0
            },
            closed: closed.as_ref().map(|air| air.on_tier(bay.tier_index)),
        };
        let i = here.iter().position(|s| s.tray == own.tray.id)?;
        Some(bed.day(i, None)?.root_zone_c().to_vec())
    }

    /// The light on the deck of `bay` while its lamps burn, as it is set on `date`.
    pub fn deck_ppfd(&mut self, bay: &Bay<'_>, date: Date) -> f64 {
        let setting = self.plan.setting_on(bay.place_index, date);
        let known = self
            .deck_ppfd
            .entry((bay.place_index, setting, bay.tier_index));
        *known.or_insert_with(|| deck_ppfd(bay, self.fields))
    }
}

/// `place` with no mats on its tier `index`.
fn without_mats(place: &Place, index: usize) -> Place {
    let mut place = place.clone();
    let tier: &mut Tier = &mut place.tiers[index];
    tier.mats.clear();
    place
}

/// Hour by hour, each day of hours for so many days; one day where they are all alike.
fn in_hours(stretches: Vec<(Vec<f64>, i32)>) -> Vec<f64> {
    let alike = stretches.windows(2).all(|pair| pair[0].0 == pair[1].0);
    if alike {
        return stretches.into_iter().next().map_or_else(Vec::new, |s| s.0);
    }
    let mut all = Vec::with_capacity(MOST_DAYS as usize * 24);
    for (hours, days) in stretches {
        for _ in 0..days {
            all.extend_from_slice(&hours);
        }
    }
    all
}
