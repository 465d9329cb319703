//! Triggers when no hand and no can come between leaves and lamps, however the lamps are moved.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::room::Adjust;

/// A hand with a small can in it, over leaves or rims, in mm (common practice, no source).
const HAND_MM: f64 = 70.0;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let tier = view.bay.tier;
    let lowest_mm = tier
        .lamps
        .iter()
        .map(|lamp| lamp.height_mm)
        .reduce(f64::min)?;
    // Lamps that hang are lifted for the minute that it takes.
    let lifted_mm = match tier.adjust {
        Some(Adjust::Fixed | Adjust::Boxes(_)) => lowest_mm,
        _ => view.bay.highest_face_mm(),
    };
    let tops = view.standing.iter().map(|s| (s, s.canopy_mm()));
    let (tray, top_mm) = tops.max_by(|a, b| a.1.total_cmp(&b.1))?;
    let free_mm = lifted_mm - top_mm;
    // Nothing at all is a finding of its own.
    if !(0.0..HAND_MM).contains(&free_mm) {
        return None;
    }
    let mm = |value: f64| Quantity::LengthMm.of(value);
    Some(Finding {
        trays: vec![tray.tray.id.clone()],
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!(
                "Water {tray} from below, or take it out to water it",
                tray = &tray.tray.name
            ),
            say!(
                "Between {tray} and the lamps there is only {free} even with the lamps right up; a hand with a can needs {wanted}.",
                tray = &tray.tray.name,
                free = mm(free_mm),
                wanted = mm(HAND_MM),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, one_rack, tier};
    use crate::room::Adjust;
    use jiff::civil::date;

    #[test]
    fn speaks_of_fixed_lamps_a_finger_over_the_rims_and_not_of_those_that_are_lifted() {
        let judged = |height_mm, adjust: Option<Adjust>| {
            let plan = one_rack(|plan| {
                let tier = tier(plan, "door", "t4");
                tier.adjust = adjust;
                for lamp in &mut tier.lamps {
                    lamp.height_mm = height_mm;
                }
            });
            judged(&plan, "t4", date(2027, 2, 10), judge)
        };
        let heights = || (8..28).map(|cm| f64::from(cm) * 10.0);
        assert!(heights().all(|mm| judged(mm, None).is_none()));
        assert!(heights().any(|mm| judged(mm, Some(Adjust::Fixed)).is_some()));
        assert_eq!(judged(270.0, Some(Adjust::Fixed)), None);
    }
}
