//! Triggers when the lamps cannot reach the seedlings' band at any height and hours.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let hang = view.computed.hang.as_ref()?;
    let target = view.computed.light.as_ref()?.target?;
    if hang.dli.mean >= target.low {
        return None;
    }
    let lamps = view.bay.tier.lamps.len() as f64;
    // Light adds up lamp by lamp, so the shortfall says how many of the same kind are missing.
    let missing = (lamps * (target.low / hang.dli.mean.max(0.01) - 1.0)).ceil();
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    Some(Finding {
        id: String::new(),
        code: "",
        topic: "",
        severity: Severity::Conflict,
        place: Some(view.bay.place.id.clone()),
        bay: Some(view.bay.reference()),
        sowing: None,
        trays: view.standing.iter().map(|s| s.tray.id.clone()).collect(),
        cells: Vec::new(),
        days: DateSpan::day(view.date),
        headline: if missing <= 1.0 {
            say!("Add one more lamp like these")
        } else if missing <= 12.0 {
            say!(
                "Add {lamps} lamps like these",
                lamps = Quantity::Count.of(missing)
            )
        } else {
            say!("Fit stronger lamps here")
        },
        reason: say!(
            "At their best height and hours these lamps average {best}; the seedlings here need {low} to {high}.",
            best = dli(hang.dli.mean),
            low = dli(target.low),
            high = dli(target.high),
        ),
        source: crate::crops::library().source("dli_low_mol_m2_d"),
        fixes: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn weak_lamps_are_told_apart_from_badly_hung_ones() {
        let day = date(2027, 4, 9);
        let plan = one_rack(|plan| {
            for lamp in &mut tier(plan, "door", "t2").lamps {
                lamp.flux_lm /= 3.0;
            }
        });
        assert!(judged(&plan, "t2", day, judge).is_some());
        let high = one_rack(|plan| {
            for lamp in &mut tier(plan, "door", "t2").lamps {
                lamp.height_mm = 300.0;
            }
        });
        assert_eq!(judged(&high, "t2", day, judge), None);
    }
}
