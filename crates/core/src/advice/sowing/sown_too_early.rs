//! Triggers when a sowing spends weeks longer indoors than its crop should.

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
    let late = view.dates.late_days / DAYS_PER_WEEK;
    let over = indoors - view.crop.weeks_indoors - slow - late;
    // Days that follow from the frost, or from a flat that is shared, are no early start.
    let own = view.sowing.packet_weeks.is_some()
        || view.sowing.sow_on.is_some()
        || view.sowing.out_on.is_some();
    if !own || over <= OVER_WEEKS {
        return None;
    }
    let round = |weeks: f64| Quantity::Weeks.of(weeks.round());
    let (headline, fix) = if view.sowing.sown {
        let headline = say!(
            "Pot {name} on in time, and plant out under cover if you can",
            name = &view.dates.name
        );
        (headline, None)
    } else {
        let headline = say!(
            "Sow {name} {weeks} later",
            name = &view.dates.name,
            weeks = round(over)
        );
        (
            headline,
            view.sow_later((over * DAYS_PER_WEEK).round() as i32),
        )
    };
    Some(Finding {
        fixes: fix.into_iter().collect(),
        ..view.finding(
            Severity::Advice,
            view.days(),
            headline,
            say!(
                "{crop} needs {needs} indoors and gets {indoors}, from {sow} to {out}: the plants are leggy and pot-bound before the bed is ready.",
                crop = &view.crop.name,
                needs = Quantity::Weeks.of(view.crop.weeks_indoors),
                indoors = round(indoors),
                sow = view.dates.sow,
                out = view.dates.out,
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{fixed, kettle_fen, of_sowing, sowing};
    use crate::basis::dates::plus_days;

    const CODE: &str = "sown_too_early";

    #[test]
    fn weeks_too_many_indoors_are_told_and_moving_all_its_days_is_not() {
        let usual = kettle_fen(|_| ());
        assert_eq!(of_sowing(&usual, "cabbage", CODE), None);
        let dates = crate::season::dates(&usual);
        let sow = dates.iter().find(|d| d.sowing == "cabbage").unwrap().sow;
        let early = kettle_fen(|plan| {
            sowing(plan, "cabbage").sow_on = Some(plus_days(sow, -28));
        });
        let finding = of_sowing(&early, "cabbage", CODE).expect("too early");
        assert!(finding.headline.to_string().contains("4 weeks later"));
        assert_eq!(of_sowing(&fixed(&early, &finding), "cabbage", CODE), None);
        // It goes out four weeks earlier too: no longer indoors than ever.
        let moved = kettle_fen(|plan| sowing(plan, "cabbage").shift_days = -28);
        assert_eq!(of_sowing(&moved, "cabbage", CODE), None);
        let packet = kettle_fen(|plan| sowing(plan, "cabbage").packet_weeks = Some(10.0));
        assert!(of_sowing(&packet, "cabbage", CODE).is_some());
    }

    #[test]
    fn what_has_been_sown_is_not_to_be_sown_later() {
        let sown = kettle_fen(|plan| {
            let cabbage = sowing(plan, "cabbage");
            cabbage.sow_on = Some("2027-01-20".parse().unwrap());
            cabbage.sown = true;
        });
        let finding = of_sowing(&sown, "cabbage", CODE).expect("too early");
        assert!(finding.fixes.is_empty() && finding.headline.to_string().starts_with("Pot "));
    }
}
