//! Triggers when one tray holds sowings whose needs differ: warmth, light, days to show, or vigour
//! that shades the neighbour.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::{DateSpan, days_between};
use crate::basis::units::Quantity;
use crate::basis::words::{COMMON_PRACTICE, Statement, say};
use crate::crops::{Crop, Vigour};
use crate::season::{Reckoned, SowingDates};

/// Root zones that differ by more do not suit both (our own estimate).
const APART_C: f64 = 5.0;
/// One that shows so much later sits under a dome that must come off (our own estimate).
const APART_DAYS: i32 = 6;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let (plan, dates) = (reckoned.plan, &reckoned.dates);
    plan.trays
        .iter()
        .filter_map(|tray| {
            let parts: Vec<(&Crop, &SowingDates)> = tray
                .parts
                .iter()
                .map(|part| {
                    let i = plan.sowing_index(&part.sowing);
                    (plan.crop(&plan.sowings[i]), &dates[i])
                })
                .collect();
            let pairs = parts
                .iter()
                .enumerate()
                .flat_map(|(i, a)| parts[i + 1..].iter().map(move |b| (*a, *b)));
            let (a, b, reason) = pairs
                .into_iter()
                .find_map(|(a, b)| Some((a, b, misfit(a, b)?)))?;
            Some(Finding {
                id: String::new(),
                code: "",
                severity: Severity::Advice,
                place: None,
                bay: None,
                sowing: None,
                trays: vec![tray.id.clone()],
                cells: Vec::new(),
                days: DateSpan {
                    from: a.1.sow.min(b.1.sow),
                    to: a.1.out.max(b.1.out),
                },
                headline: say!(
                    "Give {a} and {b} a tray each instead of {tray}",
                    a = &a.1.name,
                    b = &b.1.name,
                    tray = &tray.name
                ),
                reason,
                source: COMMON_PRACTICE,
                fixes: Vec::new(),
            })
        })
        .collect()
}

/// In what they do not go together.
fn misfit(a: (&Crop, &SowingDates), b: (&Crop, &SowingDates)) -> Option<Statement> {
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    if (a.0.root_zone_c - b.0.root_zone_c).abs() > APART_C {
        return Some(say!(
            "One wants its root zone at {a}, the other at {b}.",
            a = celsius(a.0.root_zone_c),
            b = celsius(b.0.root_zone_c)
        ));
    }
    let light = |x: &Crop, y: &Crop| x.dli_high_mol_m2_d < y.dli_low_mol_m2_d;
    if light(a.0, b.0) || light(b.0, a.0) {
        return Some(say!(
            "One wants {a} of light at least, the other {b}: no height suits both.",
            a = dli(a.0.dli_low_mol_m2_d),
            b = dli(b.0.dli_low_mol_m2_d)
        ));
    }
    if let (Some(first), Some(second)) = (a.1.emerge, b.1.emerge) {
        let apart = days_between(first, second).abs();
        if apart > APART_DAYS {
            return Some(say!(
                "One shows {apart} before the other: it stretches under the dome that the other needs.",
                apart = Quantity::Days.of(f64::from(apart))
            ));
        }
    }
    let (slow, strong) = if a.0.vigour < b.0.vigour {
        (a, b)
    } else {
        (b, a)
    };
    (slow.0.vigour == Vigour::Slow && strong.0.vigour == Vigour::Strong).then(|| {
        say!(
            "{strong} shades {slow} within a week or two: group by vigour.",
            strong = &strong.0.name,
            slow = slow.0.name.to_lowercase()
        )
    })
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
        assert!(said("melon").unwrap().contains("root zone"));
        assert!(said("parsley").is_some());
    }
}
