//! Triggers when a sowing spends weeks longer indoors than its crop should, or goes out weeks before
//! it may.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::days_between;
use crate::basis::units::{DAYS_PER_WEEK, Quantity};
use crate::basis::words::say;

/// Over the crop's own weeks seedlings get leggy and root-bound (common practice, no source).
const OVER_WEEKS: f64 = 2.0;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let weeks = |days: i32| f64::from(days) / DAYS_PER_WEEK;
    let indoors = weeks(days_between(view.dates.sow, view.dates.out));
    // Slow emergence and growth here are no early start.
    let slow = view.dates.pace.map_or(0.0, |pace| pace.lost_days.max(0.0)) / DAYS_PER_WEEK;
    let late = view.dates.emergence_days.map_or(0.0, |days| {
        let advised = view
            .crop
            .curve()
            .days(view.crop.root_zone_c)
            .unwrap_or(days);
        (days - advised).max(0.0) / DAYS_PER_WEEK
    });
    let over = indoors - view.crop.weeks_indoors - slow - late;
    let before = -weeks(view.sowing.shift_days);
    let (weeks, fix) = if view.sowing.packet_weeks.is_some() && over > OVER_WEEKS {
        (over, None)
    } else if before > OVER_WEEKS {
        (before, Some(view.shift(-view.sowing.shift_days)))
    } else {
        return None;
    };
    Some(Finding {
        fixes: fix.into_iter().collect(),
        ..view.finding(
            Severity::Advice,
            view.days(),
            say!(
                "Sow {name} {weeks} later",
                name = &view.dates.name,
                weeks = Quantity::Weeks.of(weeks.round())
            ),
            say!(
                "{crop} needs {indoors} indoors; sown on {sow}, the plants are leggy and pot-bound before the bed is ready.",
                crop = &view.crop.name,
                indoors = Quantity::Weeks.of(view.crop.weeks_indoors),
                sow = view.dates.sow,
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{fixed, kettle_fen, of_sowing, sowing};

    #[test]
    fn three_weeks_early_is_too_early_by_the_calendar_or_by_the_packet() {
        let code = "sown_too_early";
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "cabbage", code), None);
        let early = kettle_fen(|plan| sowing(plan, "cabbage").shift_days = -28);
        let finding = of_sowing(&early, "cabbage", code).expect("too early");
        assert!(finding.headline.to_string().contains("4 weeks later"));
        assert_eq!(of_sowing(&fixed(&early, &finding), "cabbage", code), None);
        let packet = kettle_fen(|plan| sowing(plan, "cabbage").packet_weeks = Some(10.0));
        assert!(of_sowing(&packet, "cabbage", code).is_some());
    }
}
