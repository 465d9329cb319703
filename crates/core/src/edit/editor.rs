//! A document in the making, and how what an edit names is found in it.

use std::sync::Arc;

use serde::Serialize;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::words::{Statement, say};
use crate::edit::change::{GearList, GearRef, Thing};
use crate::plan::happened::Happened;
use crate::plan::{Plan, SoundPlan};
use crate::room::shelf::Kinds;
use crate::room::{BayRef, Tier, find_bay, shelf};

pub(super) type Word = Result<Statement, Vec<Fault>>;

pub(super) struct Editor {
    pub(super) plan: Plan,
    pub(super) made: Vec<Thing>,
    happened: Arc<Happened>,
}

impl Editor {
    /// For an edit of `plan`.
    pub(super) fn of(plan: &SoundPlan) -> Self {
        Self {
            plan: (**plan).clone(),
            made: Vec::new(),
            happened: plan.happened_so_far(),
        }
    }

    /// The document as far as it is made, checked.
    pub(super) fn sound(&self) -> Result<SoundPlan, Vec<Fault>> {
        Ok(self.plan.clone().check()?.after(Arc::clone(&self.happened)))
    }
}

pub(super) fn fault(
    field: &str,
    value: impl Serialize,
    problem: Statement,
    remedy: Statement,
) -> Vec<Fault> {
    let mut faults = Faults::default();
    faults.add(&Pointer::default().at(field), value, problem, remedy);
    faults.verdict().expect_err("a fault was added")
}

pub(super) fn unknown(
    field: &str,
    id: &str,
    known: impl IntoIterator<Item = String>,
) -> Vec<Fault> {
    let mut faults = Faults::default();
    faults.unknown(&Pointer::default().at(field), id, known);
    faults.verdict().expect_err("a fault was added")
}

/// The kind called `id` on one list of the shelf.
pub(super) fn kind_of<'a, T>(
    list: &'a [T],
    id_of: fn(&T) -> &String,
    id: &str,
) -> Result<&'a T, Vec<Fault>> {
    list.iter()
        .find(|kind| id_of(kind) == id)
        .ok_or_else(|| unknown("kind", id, list.iter().map(|kind| id_of(kind).clone())))
}

impl Editor {
    /// The generic kinds in the sizes that the plan's people buy.
    pub(super) fn kinds(&self) -> &'static Kinds {
        shelf::library_in(self.plan.site.units)
    }

    pub(super) fn place_index(&self, id: &str) -> Result<usize, Vec<Fault>> {
        let places = &self.plan.places;
        places
            .iter()
            .position(|place| place.id == id)
            .ok_or_else(|| unknown("place", id, places.iter().map(|p| p.id.clone())))
    }

    pub(super) fn tier_at(&self, bay: &BayRef) -> Result<[usize; 2], Vec<Fault>> {
        let place = self.place_index(&bay.place)?;
        let tiers = &self.plan.places[place].tiers;
        let tier = tiers
            .iter()
            .position(|tier| tier.id == bay.tier)
            .ok_or_else(|| unknown("tier", &bay.tier, tiers.iter().map(|t| t.id.clone())))?;
        Ok([place, tier])
    }

    pub(super) fn tier(&mut self, [place, tier]: [usize; 2]) -> &mut Tier {
        &mut self.plan.places[place].tiers[tier]
    }

    pub(super) fn bay_name(&self, bay: &BayRef) -> String {
        find_bay(&self.plan.places, bay).map_or_else(String::new, |bay| bay.name())
    }

    pub(super) fn made_gear(&mut self, bay: &BayRef, list: GearList, id: &str) {
        self.made.push(Thing {
            place: bay.place.clone(),
            tier: Some(bay.tier.clone()),
            gear: Some(GearRef {
                list,
                id: id.to_owned(),
            }),
        });
    }

    /// Refuses an edit of more things than a hand picks.
    pub(super) fn not_too_many(&self, things: &[Thing]) -> Result<(), Vec<Fault>> {
        const MOST: usize = 200;
        let mut faults = Faults::default();
        faults.count(&Pointer::default().at("things"), things.len(), 0..=MOST);
        faults.verdict()
    }

    /// Refuses an edit of nothing.
    pub(super) fn some_things(&self, names: &[String]) -> Result<(), Vec<Fault>> {
        if names.is_empty() {
            return Err(fault(
                "things",
                Vec::<Thing>::new(),
                say!("nothing is picked"),
                say!("name at least one rack, shelf, lamp, mat or fan"),
            ));
        }
        Ok(())
    }
}

pub(super) fn whole(place: &str) -> Thing {
    Thing {
        place: place.to_owned(),
        tier: None,
        gear: None,
    }
}

/// Up to three names, and how many more.
pub(super) fn listed(names: &[String]) -> String {
    match names.len() {
        0..=3 => names.join("; "),
        n => format!("{} and {} more", names[..3].join("; "), n - 3),
    }
}
