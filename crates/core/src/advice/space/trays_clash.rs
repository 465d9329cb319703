//! Triggers when two trays want the same spot on the same days, as they may after a date moved.

use crate::advice::finding::{Finding, Severity};
use std::collections::BTreeSet;

use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::{COMMON_PRACTICE, say};
use crate::plan::SoundPlan;
use crate::room::BayRef;
use crate::season::Reckoned;
use crate::season::stays::{Clash, clashes};

/// So many pairs of a bay are told one by one; trays in a heap make thousands.
const TOLD: usize = 8;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let plan = reckoned.plan;
    let clashes = clashes(&reckoned.stays);
    let mut findings = Vec::new();
    // The pairs of a bay follow one another.
    for of_bay in clashes.chunk_by(|a, b| a.bay == b.bay) {
        findings.extend(of_bay.iter().take(TOLD).map(|clash| pair(plan, clash)));
        if let Some(rest) = of_bay.get(TOLD..).filter(|rest| !rest.is_empty()) {
            let from = rest.iter().map(|clash| clash.days.from).min();
            let to = rest.iter().map(|clash| clash.days.to).max();
            let count = Quantity::Count.of(rest.len() as f64);
            let first = pair(plan, &rest[0]);
            findings.push(Finding {
                trays: Vec::new(),
                days: DateSpan {
                    from: from.unwrap_or(first.days.from),
                    to: to.unwrap_or(first.days.to),
                },
                headline: say!(
                    "Spread the trays out: {count} more pairs share a spot",
                    count = count
                ),
                reason: say!(
                    "{trays} trays are planned for {bay}, many on top of one another.",
                    trays = Quantity::Count.of(heaped(of_bay) as f64),
                    bay = bay_name(plan, of_bay[0].bay),
                ),
                ..first
            });
        }
    }
    findings
}

/// How many trays there are in the pairs.
fn heaped(pairs: &[Clash<'_>]) -> usize {
    let ids = pairs
        .iter()
        .flat_map(|clash| [&clash.first.id, &clash.second.id]);
    ids.collect::<BTreeSet<_>>().len()
}

fn bay_name(plan: &SoundPlan, bay: &BayRef) -> String {
    plan.bay(bay).map_or_else(String::new, |bay| bay.name())
}

fn pair(plan: &SoundPlan, clash: &Clash<'_>) -> Finding {
    let bay = bay_name(plan, clash.bay);
    Finding {
        id: String::new(),
        code: "",
        topic: "",
        severity: Severity::Conflict,
        place: Some(clash.bay.place.clone()),
        bay: Some(clash.bay.clone()),
        sowing: None,
        trays: vec![clash.first.id.clone(), clash.second.id.clone()],
        cells: Vec::new(),
        days: clash.days,
        headline: say!(
            "Find another spot for {first} or {second}",
            first = &clash.first.name,
            second = &clash.second.name,
        ),
        reason: say!(
            "Both trays have the same spot on {bay} from {from} to {to}.",
            bay = bay,
            from = clash.days.from,
            to = clash.days.to,
        ),
        source: COMMON_PRACTICE,
        fixes: Vec::new(),
    }
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{one_rack, plan_judged};

    #[test]
    fn a_second_tray_on_the_same_spot_is_found_and_the_demo_has_none() {
        let plan = one_rack(|_| ());
        assert_eq!(plan_judged(&plan, judge), []);
        let plan = one_rack(|plan| {
            let mut copy = plan.trays[0].clone();
            copy.id = "copy".into();
            plan.trays.push(copy);
        });
        let findings = plan_judged(&plan, judge);
        assert!(
            findings
                .iter()
                .any(|f| f.trays.contains(&"copy".to_owned()))
        );
    }

    #[test]
    fn a_heap_is_told_in_a_few_findings_each_with_its_own_name() {
        let plan = one_rack(|plan| {
            for i in 0..60 {
                let mut copy = plan.trays[0].clone();
                copy.id = format!("copy-{i}");
                plan.trays.push(copy);
            }
        });
        let mut findings = plan_judged(&plan, judge);
        assert!((3..30).contains(&findings.len()), "{}", findings.len());
        crate::advice::name_each(&mut findings);
        let names: std::collections::BTreeSet<_> = findings.iter().map(|f| &f.id).collect();
        assert_eq!(names.len(), findings.len());
        assert!(
            findings
                .iter()
                .any(|f| f.headline.to_string().starts_with("Spread the trays out"))
        );
    }
}
