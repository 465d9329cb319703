//! Triggers when another height and other hours would bring clearly more of the seedlings into the light
//! that they need, or out of far too much.

use crate::advice::finding::{Finding, Severity};
use crate::advice::fixes::{advised, hang_here, how_to_set};
use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::day::harm::Harm;
use crate::day::view::BayView;
use crate::lamps::chooser::Change;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let light = view.computed.light.as_ref()?;
    let target = light.target?;
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    let share = |value: f64| Quantity::Share.of(value);
    let (hang, change) = [Change::Harms, Change::TooDark]
        .into_iter()
        .find_map(|change| Some((advised(view, change)?, change)))?;
    // Bleached leaves and days too long are findings of their own, with the same way out.
    let too_long = view.bay.tier.photoperiod_h > hang.most_hours_h;
    if change == Change::Harms && (too_long || view.harmed(Harm::Bleached).is_some()) {
        return None;
    }
    let reason = if change == Change::Harms {
        say!(
            "{now} of cells get far more light than does them good, up to {best} where {high} is plenty; this leaves {then}.",
            now = share(hang.now.harmed),
            best = dli(light.dli.best),
            high = dli(target.high),
            then = share(hang.then.harmed),
        )
    } else if hang.now.under - hang.then.under < 0.01 {
        say!(
            "On average the leaves get {now} of light and need at least {low}; this gives them {then}.",
            now = dli(hang.now.mean_mol_m2_d),
            low = dli(target.low),
            then = dli(hang.then.mean_mol_m2_d),
        )
    } else {
        say!(
            "{now} of cells get less than the {low} of light that they need; this leaves {then}.",
            now = share(hang.now.under),
            low = dli(target.low),
            then = share(hang.then.under),
        )
    };
    Some(Finding {
        trays: view.standing.iter().map(|s| s.tray.id.clone()).collect(),
        source: OWN_ESTIMATE,
        fixes: hang_here(view, change).into_iter().collect(),
        ..Finding::of_bay(view, Severity::Advice, how_to_set(hang), reason)
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
