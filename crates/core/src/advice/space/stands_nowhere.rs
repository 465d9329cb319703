//! Triggers when trays of a sowing have no spot while they germinate or grow.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::{COMMON_PRACTICE, say};
use crate::season::Reckoned;
use crate::season::unplaced::Unplaced;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let holds = |unplaced: &&Unplaced<'_>, sowing: &str| {
        let mut parts = unplaced.tray.parts.iter();
        parts.any(|part| part.sowing == sowing)
    };
    let of_sowing = |dates: &crate::season::SowingDates| {
        let all = reckoned.unplaced.iter();
        let own: Vec<_> = all.filter(|one| holds(one, &dates.sowing)).collect();
        let days = own.iter().map(|one| one.days);
        let days = days.reduce(|a, b| DateSpan {
            from: a.from.min(b.from),
            to: a.to.max(b.to),
        })?;
        let count = |n: usize| Quantity::Count.of(n as f64);
        let of = reckoned.plan.trays_of(&dates.sowing).count();
        Some(Finding {
            id: String::new(),
            code: "",
            topic: "",
            severity: Severity::Conflict,
            place: None,
            bay: None,
            sowing: Some(dates.sowing.clone()),
            trays: own.iter().map(|one| one.tray.id.clone()).collect(),
            cells: Vec::new(),
            days,
            headline: say!(
                "Find a spot for {name}: {own} of {of} trays without one",
                name = &dates.name,
                own = count(own.len()),
                of = count(of)
            ),
            reason: say!(
                "From {from} to {to} nobody knows their light and warmth. Stand them from the tray shelf in the Room view.",
                from = days.from,
                to = days.to
            ),
            source: COMMON_PRACTICE,
            fixes: Vec::new(),
        })
    };
    reckoned.dates.iter().filter_map(of_sowing).collect()
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{kettle_fen, plan_judged, tray};
    use crate::plan::Stage;

    /// All but the one tray that the demo has no room for.
    fn found(plan: &crate::plan::SoundPlan) -> Vec<crate::advice::Finding> {
        let mut found = plan_judged(plan, judge);
        found.retain(|finding| finding.trays != ["tt4"]);
        found
    }

    #[test]
    fn a_tray_without_a_spot_is_found_by_each_of_its_sowings() {
        assert_eq!(found(&kettle_fen(|_| ())), []);
        let plan = kettle_fen(|plan| {
            tray(plan, "on1").stands.clear();
            tray(plan, "lx1").stands.clear();
        });
        let found = found(&plan);
        let sowings: Vec<_> = found.iter().map(|f| f.sowing.as_deref().unwrap()).collect();
        assert!(sowings.contains(&"onion"), "{sowings:?}");
        let shared = plan.trays.iter().find(|tray| tray.id == "lx1").unwrap();
        for part in &shared.parts {
            assert!(sowings.contains(&part.sowing.as_str()), "{sowings:?}");
        }
    }

    #[test]
    fn one_with_a_spot_to_grow_lacks_one_only_until_it_grows() {
        let plan = kettle_fen(|plan| {
            let stands = &mut tray(plan, "on1").stands;
            stands.retain(|stand| stand.stage != Stage::Germinate);
        });
        let [finding] = &found(&plan)[..] else {
            panic!("one finding");
        };
        let reckoned = crate::testing::reckoned(&plan);
        let onion = crate::testing::dates_of(&reckoned, "onion");
        assert_eq!(finding.days.from, onion.sow);
        assert!(finding.days.to < onion.harden);
    }
}
