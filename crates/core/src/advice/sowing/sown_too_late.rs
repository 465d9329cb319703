//! Triggers when a sowing was moved so late that its crop has lost weeks of its season.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::days_between;
use crate::basis::units::{DAYS_PER_WEEK, Quantity};
use crate::basis::words::say;
use crate::crops::StartReason;

/// So many weeks late a crop with a long season no longer ripens (our own estimate).
const LATE_WEEKS: f64 = 3.0;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let usual = view.plan.usually_out(view.sowing, view.crop);
    let weeks = f64::from(days_between(usual, view.dates.out)) / DAYS_PER_WEEK;
    let long = view.crop.start_reason == StartReason::LongSeason;
    // What has been sown is not to be sown earlier.
    if view.sowing.sown || !long || weeks < LATE_WEEKS {
        return None;
    }
    Some(Finding {
        fixes: (view.sowing.shift_days > 0 && view.sowing.sow_on.is_none())
            .then(|| view.shift(-view.sowing.shift_days))
            .into_iter()
            .collect(),
        source: view.crop.source("start_reason"),
        ..view.finding(
            Severity::Advice,
            view.days(),
            say!(
                "Sow {name} {weeks} earlier, or buy plants",
                name = &view.dates.name,
                weeks = Quantity::Weeks.of(weeks.round())
            ),
            say!(
                "{crop}: {why}. Sowing on {sow} costs {weeks} of that season.",
                crop = &view.crop.name,
                why = view.crop.start_reason.words(),
                sow = view.dates.sow,
                weeks = Quantity::Weeks.of(weeks.round()),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, of_sowing, sowing};

    #[test]
    fn peppers_a_month_late_are_named_and_lettuce_is_not() {
        let code = "sown_too_late";
        let late = kettle_fen(|plan| {
            sowing(plan, "pepper").shift_days = 28;
            sowing(plan, "lettuce").shift_days = 28;
        });
        assert!(of_sowing(&late, "pepper", code).is_some());
        assert_eq!(of_sowing(&late, "lettuce", code), None);
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "pepper", code), None);
    }
}
