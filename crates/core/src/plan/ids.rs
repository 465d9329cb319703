//! Where everything stands that a plan calls by name: made once, read instead of searching.

use crate::basis::plane::Footprint;
use crate::plan::document::Plan;
use crate::plan::tray::{Stage, Stand, Tray};
use crate::room::{Bay, BayRef};
use rustc_hash::FxHashMap;

/// The index of each thing in its list, by its identifier; of two by one name, the first.
#[derive(Debug, Clone, Default, PartialEq)]
pub(super) struct Ids {
    pub(super) sowings: FxHashMap<String, usize>,
    pub(super) trays: FxHashMap<String, usize>,
    pub(super) formats: FxHashMap<String, usize>,
    pub(super) packets: FxHashMap<String, usize>,
    pub(super) crops: FxHashMap<String, usize>,
    places: FxHashMap<String, usize>,
    tiers: Vec<FxHashMap<String, usize>>,
    /// Whether others are stacked on each tray while it germinates.
    pub(super) covered: Vec<bool>,
    /// The trays that each sowing is sown in, in the plan's order.
    pub(super) sown_in: Vec<Vec<usize>>,
    /// The trays that each sowing is potted on into, in the plan's order.
    pub(super) potted_into: Vec<Vec<usize>>,
    /// The trays that ever stand in each tier of each place, in the plan's order.
    pub(super) trays_in: Vec<Vec<Vec<usize>>>,
}

fn index<'a>(ids: impl Iterator<Item = &'a String>) -> FxHashMap<String, usize> {
    let mut found = FxHashMap::default();
    for (i, id) in ids.enumerate() {
        if !found.contains_key(id) {
            found.insert(id.clone(), i);
        }
    }
    found
}

/// Adds `tray` to a list that is filled in the plan's order, once.
fn note(list: &mut Vec<usize>, tray: usize) {
    if list.last() != Some(&tray) {
        list.push(tray);
    }
}

/// Where a tray germinates, and its outline there.
fn outline<'a>(plan: &Plan, ids: &Ids, tray: &'a Tray) -> Option<(&'a Stand, Footprint)> {
    let stand = tray.stand_in(Stage::Germinate)?;
    let format = plan.tray_formats.get(*ids.formats.get(&tray.format)?)?;
    Some((stand, stand.footprint(format)))
}

/// Which trays lie under one that is stacked on them while both germinate.
fn covered(plan: &Plan, ids: &Ids) -> Vec<bool> {
    let stacked = plan
        .trays
        .iter()
        .filter_map(|tray| outline(plan, ids, tray));
    let stacked: Vec<_> = stacked.filter(|(stand, _)| stand.stacked).collect();
    let lies_under = |tray: &Tray| {
        !stacked.is_empty()
            && outline(plan, ids, tray).is_some_and(|(stand, footprint)| {
                let over = |(upper, above): &(&Stand, Footprint)| {
                    upper.bay == stand.bay && above.overlaps(&footprint)
                };
                !stand.stacked && stacked.iter().any(over)
            })
    };
    plan.trays.iter().map(lies_under).collect()
}

impl Ids {
    pub(super) fn of(plan: &Plan) -> Self {
        let mut ids = Self {
            sowings: index(plan.sowings.iter().map(|s| &s.id)),
            trays: index(plan.trays.iter().map(|t| &t.id)),
            formats: index(plan.tray_formats.iter().map(|f| &f.id)),
            packets: index(plan.packets.iter().map(|p| &p.id)),
            crops: index(plan.crops.iter().map(|c| &c.id)),
            places: index(plan.places.iter().map(|p| &p.id)),
            tiers: plan
                .places
                .iter()
                .map(|place| index(place.tiers.iter().map(|tier| &tier.id)))
                .collect(),
            covered: Vec::new(),
            sown_in: vec![Vec::new(); plan.sowings.len()],
            potted_into: vec![Vec::new(); plan.sowings.len()],
            trays_in: plan
                .places
                .iter()
                .map(|place| vec![Vec::new(); place.tiers.len()])
                .collect(),
        };
        for (i, tray) in plan.trays.iter().enumerate() {
            for part in &tray.parts {
                if let Some(&sowing) = ids.sowings.get(&part.sowing) {
                    let trays = match tray.potted {
                        true => &mut ids.potted_into,
                        false => &mut ids.sown_in,
                    };
                    note(&mut trays[sowing], i);
                }
            }
            for stand in &tray.stands {
                if let Some([place, tier]) = ids.bay_index(&stand.bay) {
                    note(&mut ids.trays_in[place][tier], i);
                }
            }
        }
        ids.covered = covered(plan, &ids);
        ids
    }

    fn bay_index(&self, reference: &BayRef) -> Option<[usize; 2]> {
        let place = *self.places.get(&reference.place)?;
        let tier = *self.tiers.get(place)?.get(&reference.tier)?;
        Some([place, tier])
    }

    /// The bay of `plan` that `reference` names.
    pub(super) fn bay<'a>(&self, plan: &'a Plan, reference: &BayRef) -> Option<Bay<'a>> {
        let [place_index, tier_index] = self.bay_index(reference)?;
        let place = plan.places.get(place_index)?;
        Some(Bay {
            place,
            place_index,
            tier: place.tiers.get(tier_index)?,
            tier_index,
        })
    }

    pub(super) fn place(&self, id: &str) -> Option<usize> {
        self.places.get(id).copied()
    }
}
