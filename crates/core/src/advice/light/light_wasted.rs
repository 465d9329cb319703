//! Triggers when light is paid for that nobody uses: fewer hours, a dimmer step or a lamp less would
//! do.

use crate::advice::finding::{Finding, Severity};
use crate::advice::fixes::{advised, hang_here, how_to_set};
use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::day::view::BayView;
use crate::lamps::chooser::{Change, WASTE};

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let hang = view.computed.hang.as_ref()?;
    let share = |value: f64| Quantity::Share.of(value);
    let (headline, reason) = if advised(view, Change::Wasted).is_some() {
        let energy = hang.setting.hours_h * hang.setting.brightness;
        let saved = 1.0 - energy / view.bay.tier.photoperiod_h;
        (
            how_to_set(hang),
            say!(
                "{unused} of the light is more than these seedlings need; this saves {saved} of the electricity and leaves them enough.",
                unused = share(hang.now.unused),
                saved = share(saved),
            ),
        )
    } else if a_lamp_less_would_do(view) {
        (
            say!(
                "Try one lamp less in {bay}, and look at the darkest cells again",
                bay = view.bay.name()
            ),
            say!(
                "{unused} of the light is more than these seedlings need, and the lamps run as short as is usual.",
                unused = share(hang.now.unused),
            ),
        )
    } else {
        return None;
    };
    Some(Finding {
        trays: view.standing.iter().map(|s| s.tray.id.clone()).collect(),
        source: OWN_ESTIMATE,
        fixes: hang_here(view, Change::Wasted).into_iter().collect(),
        ..Finding::of_bay(view, Severity::Advice, headline, reason)
    })
}

/// Whether the darkest cell would have enough if its own lamp and another were off: then one can be.
fn a_lamp_less_would_do(view: &BayView<'_>) -> bool {
    let lamps = view.bay.tier.lamps.len() as f64;
    let (Some(hang), Some(light)) = (&view.computed.hang, &view.computed.light) else {
        return false;
    };
    let low = light.target.map_or(f64::INFINITY, |target| target.low);
    hang.change.is_none()
        && hang.now.unused >= WASTE
        && lamps >= 2.0
        && light.dli.worst * (lamps - 2.0).max(1.0) / lamps >= low
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn speaks_of_light_that_nobody_uses_until_less_is_paid_for() {
        let day = date(2027, 4, 9);
        let at = |height_mm: f64| {
            one_rack(|plan| {
                let tier = tier(plan, "door", "t2");
                tier.photoperiod_h = 16.0;
                for lamp in &mut tier.lamps {
                    lamp.height_mm = height_mm;
                }
            })
        };
        // Between what is too bright and what is right there are heights that pay for too much.
        let heights = (20..40).map(|cm| at(f64::from(cm) * 10.0));
        let found = heights.map(|plan| (judged(&plan, "t2", day, judge), plan));
        let mut found = found.filter_map(|(finding, plan)| Some((plan, finding?)));
        let (plan, finding) = found.next().expect("more than is used");
        assert_eq!(judged(&fixed(&plan, &finding), "t2", day, judge), None);
        assert_eq!(judged(&one_rack(|_| ()), "t2", day, judge), None);
    }
}
