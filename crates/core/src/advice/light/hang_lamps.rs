//! Triggers when another height and other hours would bring clearly more of the seedlings into the light
//! that they need, or out of far too much.

use crate::advice::finding::{Finding, Severity};
use crate::advice::fixes::{advised, hang_here, how_to_set, why_set};
use crate::basis::words::OWN_ESTIMATE;
use crate::day::harm::Harm;
use crate::day::view::BayView;
use crate::lamps::chooser::Change;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let (hang, change) = [Change::Harms, Change::TooDark]
        .into_iter()
        .find_map(|change| Some((advised(view, change)?, change)))?;
    // Bleached leaves and days too long are findings of their own, with the same way out.
    let too_long = view.bay.tier.photoperiod_h > hang.most_hours_h;
    if change == Change::Harms && (too_long || view.harmed(Harm::Bleached).is_some()) {
        return None;
    }
    Some(Finding {
        trays: view.standing.iter().map(|s| s.tray.id.clone()).collect(),
        source: OWN_ESTIMATE,
        fixes: hang_here(view, change).into_iter().collect(),
        ..Finding::of_bay(view, Severity::Advice, how_to_set(hang), why_set(view)?)
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn lamps_too_high_are_to_come_down_and_then_all_is_well() {
        let plan = one_rack(|plan| {
            tier(plan, "door", "t3").photoperiod_h = 12.0;
            for lamp in &mut tier(plan, "door", "t3").lamps {
                lamp.height_mm = 300.0;
            }
        });
        let finding = judged(&plan, "t3", date(2027, 4, 9), judge).expect("a finding");
        assert!(
            finding.reason.text.contains("that they need"),
            "{}",
            finding.reason
        );
        let after = fixed(&plan, &finding);
        assert_eq!(judged(&after, "t3", date(2027, 4, 9), judge), None);
    }
}
