//! Triggers when two trays want the same spot on the same days, as they may after a date moved.

use super::{Finding, Severity};
use crate::placement::clashes;
use crate::plan::SoundPlan;
use crate::room::find_bay;
use crate::say;
use crate::season::SowingDates;
use crate::words::COMMON_PRACTICE;

pub(super) fn judge(plan: &SoundPlan, dates: &[SowingDates]) -> Vec<Finding> {
    clashes(plan, dates)
        .into_iter()
        .map(|clash| {
            let bay = find_bay(&plan.places, clash.bay).map_or_else(String::new, |b| b.name());
            Finding {
                code: "trays_clash",
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
                    "Both are to stand at the same spot of {bay} from {from} to {to}.",
                    bay = bay,
                    from = clash.days.from,
                    to = clash.days.to,
                ),
                source: COMMON_PRACTICE,
                fixes: Vec::new(),
            }
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::super::testing::one_rack;
    use super::judge;

    #[test]
    fn a_second_tray_on_the_same_spot_is_found_and_the_demo_has_none() {
        let plan = one_rack(|_| ());
        assert_eq!(judge(&plan, &crate::season::dates(&plan)), []);
        let plan = one_rack(|plan| {
            let mut copy = plan.trays[0].clone();
            copy.id = "copy".into();
            plan.trays.push(copy);
        });
        let findings = judge(&plan, &crate::season::dates(&plan));
        assert!(
            findings
                .iter()
                .any(|f| f.trays.contains(&"copy".to_owned()))
        );
    }
}
