//! Triggers when one tray holds sowings whose needs differ: warmth, light, days to show, or vigour
//! that shades the neighbour.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::DateSpan;
use crate::basis::words::{COMMON_PRACTICE, say};
use crate::season::Reckoned;
use crate::season::sharing::Sharer;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let (plan, dates) = (reckoned.plan, &reckoned.dates);
    plan.trays
        .iter()
        .filter_map(|tray| {
            let parts: Vec<Sharer<'_>> = tray
                .parts
                .iter()
                .map(|part| {
                    let i = plan.sowing_index(&part.sowing);
                    Sharer {
                        crop: plan.crop(&plan.sowings[i]),
                        dates: &dates[i],
                    }
                })
                .collect();
            let pairs = parts
                .iter()
                .enumerate()
                .flat_map(|(i, a)| parts[i + 1..].iter().map(move |b| (*a, *b)));
            let (a, b, reason) = pairs
                .into_iter()
                .find_map(|(a, b)| Some((a, b, a.misfit(&b)?)))?;
            Some(Finding {
                id: String::new(),
                code: "",
                topic: "",
                severity: Severity::Advice,
                place: None,
                bay: None,
                sowing: None,
                trays: vec![tray.id.clone()],
                cells: Vec::new(),
                days: DateSpan {
                    from: a.dates.sow.min(b.dates.sow),
                    to: a.dates.out.max(b.dates.out),
                },
                headline: say!(
                    "Sow {a} and {b} in separate trays, not both in {tray}",
                    a = &a.dates.name,
                    b = &b.dates.name,
                    tray = &tray.name
                ),
                reason,
                source: COMMON_PRACTICE,
                fixes: Vec::new(),
            })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::advice::testing::{kettle_fen, plan_judged, sowing};

    fn said(crop: &str) -> Option<String> {
        let plan = kettle_fen(|plan| {
            let sowing = sowing(plan, "lettuce-red");
            sowing.crop = crop.into();
            sowing.packet = None;
        });
        let found = plan_judged(&plan, judge).into_iter();
        found
            .filter(|f| f.trays == ["lx1"])
            .map(|f| f.reason.to_string())
            .next()
    }

    #[test]
    fn lettuces_go_together_and_lettuce_with_melon_does_not() {
        assert_eq!(said("lettuce"), None);
        assert!(said("melon").unwrap().contains("needs its mix at"));
        assert!(said("parsley").is_some());
    }
}
