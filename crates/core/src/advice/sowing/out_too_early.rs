//! Triggers when a hardy crop is to go out, without a cover, weeks before it usually does: hard frosts
//! are common then. Tender ones are judged by the chance of any frost.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::days_between;
use crate::basis::units::{DAYS_PER_WEEK, Quantity};
use crate::basis::words::say;

/// So many weeks before its time (our own estimate).
const EARLY_WEEKS: f64 = 2.0;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let usual = view.plan.usually_out(view.sowing, view.crop);
    let open = view
        .sowing
        .covered_until
        .unwrap_or(view.dates.out)
        .max(view.dates.out);
    let weeks = f64::from(days_between(open, usual)) / DAYS_PER_WEEK;
    let hardy = view.crop.weeks_after_last_frost < 0.0;
    if !hardy || weeks < EARLY_WEEKS {
        return None;
    }
    let weeks = Quantity::Weeks.of(weeks.round());
    Some(Finding {
        fixes: vec![view.plant_out_later(days_between(view.dates.out, usual))],
        ..view.finding(
            Severity::Advice,
            view.days(),
            say!(
                "Cover {name} outdoors, or plant it out on {usual}",
                name = &view.dates.name,
                usual = usual
            ),
            say!(
                "{crop} is hardy and usually goes out on {usual}; {out} is {weeks} earlier, when hard frosts are common.",
                crop = &view.crop.name,
                usual = usual,
                out = view.dates.out,
                weeks = weeks,
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{fixed, kettle_fen, of_sowing, sowing};

    #[test]
    fn cabbages_a_month_early_are_covered_or_moved() {
        let code = "out_too_early";
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "cabbage", code), None);
        let early = kettle_fen(|plan| sowing(plan, "cabbage").shift_days = -28);
        let finding = of_sowing(&early, "cabbage", code).expect("too early");
        assert_eq!(of_sowing(&fixed(&early, &finding), "cabbage", code), None);
        let covered = kettle_fen(|plan| {
            let cabbage = sowing(plan, "cabbage");
            cabbage.shift_days = -28;
            cabbage.covered_until = Some("2027-04-20".parse().unwrap());
        });
        assert_eq!(of_sowing(&covered, "cabbage", code), None);
    }
}
