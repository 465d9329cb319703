//! Triggers when leaves stand nearer to a lamp than its least gap: they scorch, or grow into it.

use crate::advice::finding::{Finding, Severity};
use crate::advice::fixes::{advised, hang_here};
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::{COMMON_PRACTICE, say};
use crate::day::view::BayView;
use crate::lamps::chooser::Change;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let light = view.computed.light.as_ref()?;
    let (tray, part) = view.tallest()?;
    let least = view.least_gap_mm();
    if !part.is_growing() || light.gap_mm >= least {
        return None;
    }
    let mm = |value: f64| Quantity::LengthMm.of(value);
    let reason = if light.gap_mm <= 0.0 {
        say!(
            "The plants in {tray} reach {over} past the lamps; leave {least} between lamps and leaves.",
            tray = &tray.tray.name,
            over = mm(-light.gap_mm),
            least = mm(least),
        )
    } else {
        say!(
            "The gap to the leaves in {tray} is only {gap}; these lamps need {least}.",
            gap = mm(light.gap_mm),
            tray = &tray.tray.name,
            least = mm(least),
        )
    };
    let fix = hang_here(view, Change::TooNear);
    let headline = match advised(view, Change::TooNear) {
        Some(hang) => say!(
            "Raise the lamps to {height} and run them {hours} a day",
            height = mm(hang.setting.height_mm),
            hours = Quantity::Hours.of(hang.setting.hours_h),
        ),
        None => say!(
            "Take {tray} out from under the lamps",
            tray = &tray.tray.name
        ),
    };
    Some(Finding {
        id: String::new(),
        code: "",
        topic: "",
        severity: Severity::Harm,
        place: Some(view.bay.place.id.clone()),
        bay: Some(view.bay.reference()),
        sowing: None,
        trays: vec![tray.tray.id.clone()],
        cells: Vec::new(),
        days: DateSpan::day(view.date),
        headline,
        reason,
        source: COMMON_PRACTICE,
        fixes: fix.into_iter().collect(),
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, format, judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn a_germinating_tray_with_a_higher_rim_does_not_hide_seedlings_beside_it() {
        let plan = one_rack(|plan| {
            // The aubergines' pots become the only seedlings: lower than the rim of a deep tray.
            format(plan, "cells-72").height_mm = 160.0;
            let tray = plan.trays.iter_mut().find(|t| t.id == "cu1").unwrap();
            tray.format = "cells-72".into();
            for lamp in &mut tier(plan, "door", "t3").lamps {
                lamp.height_mm = 170.0;
            }
        });
        // On 25 April the cucumbers germinate; the peppers stand about 130 mm over the deck.
        let finding = judged(&plan, "t3", date(2027, 4, 25), judge).expect("a finding");
        assert!(finding.trays[0].starts_with("pe"), "{:?}", finding.trays);
    }

    #[test]
    fn speaks_when_the_gap_is_used_up_and_its_fix_gives_it_back() {
        let day = date(2027, 4, 9);
        let plan = one_rack(|plan| {
            for lamp in &mut tier(plan, "door", "t2").lamps {
                lamp.height_mm = 90.0;
            }
        });
        let finding = judged(&plan, "t2", day, judge).expect("a finding");
        assert_eq!(judged(&fixed(&plan, &finding), "t2", day, judge), None);
    }
}
