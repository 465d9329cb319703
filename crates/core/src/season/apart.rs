//! Which trays have something to do with each other.

use rustc_hash::FxHashMap;

use crate::plan::SoundPlan;
use crate::room::BayRef;

/// The trays of `plan` in groups that have nothing to do with each other: none of one ever stands in a bay
/// of another, or is potted on from it.
pub(super) fn apart(plan: &SoundPlan) -> Vec<Vec<usize>> {
    let mut groups: Vec<Vec<usize>> = Vec::new();
    // The group of all that they have to do with each other by.
    let mut of_bay: FxHashMap<&BayRef, usize> = FxHashMap::default();
    let mut of_sowing: FxHashMap<&str, usize> = FxHashMap::default();
    for (i, tray) in plan.trays.iter().enumerate() {
        let bays = || tray.stands.iter().map(|stand| &stand.bay);
        let potted = |id: &&str| plan.potted_into(id).next().is_some();
        let sowings = || tray.parts.iter().map(|part| &*part.sowing).filter(potted);
        let by_bays = bays().filter_map(|bay| of_bay.get(bay));
        let by_sowings = sowings().filter_map(|id| of_sowing.get(id));
        let mut known: Vec<usize> = by_bays.chain(by_sowings).copied().collect();
        known.sort_unstable();
        known.dedup();
        let own = known.first().copied().unwrap_or(groups.len());
        if own == groups.len() {
            groups.push(Vec::new());
        }
        groups[own].push(i);
        // What it joins is one group from now on.
        for &other in known.iter().skip(1) {
            let joined = std::mem::take(&mut groups[other]);
            groups[own].extend(joined);
            let all = of_bay.values_mut().chain(of_sowing.values_mut());
            all.filter(|group| **group == other)
                .for_each(|group| *group = own);
        }
        of_bay.extend(bays().map(|bay| (bay, own)));
        of_sowing.extend(sowings().map(|id| (id, own)));
    }
    groups.retain(|group| !group.is_empty());
    groups
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::testing::kettle_fen;

    #[test]
    fn trays_that_share_a_shelf_or_pots_are_reckoned_together_and_others_apart() {
        let plan = kettle_fen(|_| {});
        let groups = apart(&plan);
        let mut all = groups.concat();
        all.sort_unstable();
        assert_eq!(all, (0..plan.trays.len()).collect::<Vec<_>>());
        let group = |tray: usize| groups.iter().position(|group| group.contains(&tray));
        let shares = |a: usize, b: usize| {
            let (a, b) = (&plan.trays[a], &plan.trays[b]);
            let mut shelves = a
                .stands
                .iter()
                .flat_map(|s| b.stands.iter().map(move |t| (s, t)));
            shelves.any(|(s, t)| s.bay == t.bay)
        };
        for a in 0..plan.trays.len() {
            let with: Vec<usize> = (0..a).filter(|b| shares(a, *b)).collect();
            assert!(
                with.iter().all(|b| group(*b) == group(a)),
                "{a} and {with:?}"
            );
        }
        // Two trays that never meet have nothing to do with each other.
        let first = plan.trays[0].id.clone();
        let far = (1..plan.trays.len()).find(|&b| {
            let sown = |tray: usize| &plan.trays[tray].parts[0].sowing;
            !shares(0, b) && sown(0) != sown(b)
        });
        let far = plan.trays[far.expect("the demo has more than one shelf")]
            .id
            .clone();
        let two = kettle_fen(|plan| plan.trays.retain(|tray| [&first, &far].contains(&&tray.id)));
        assert_eq!(apart(&two), [[0], [1]]);
    }
}
