//! Triggers when a tender crop goes out while a frost is still likely.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::{days_between, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;

/// A frost on tender plants in more than one year of four is too often (our own estimate).
const TOO_LIKELY: f64 = 0.25;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    // Under a cover it is safe until that comes off.
    let out = view
        .sowing
        .covered_until
        .unwrap_or(view.dates.out)
        .max(view.dates.out);
    let tender = view.crop.weeks_after_last_frost >= 0.0;
    if !tender || view.dates.frost_risk_out <= TOO_LIKELY {
        return None;
    }
    const FAR_DAYS: i32 = 120;
    let safe = (1..=FAR_DAYS)
        .map(|days| plus_days(out, days))
        .find(|day| view.plan.site.frost_risk(*day) <= TOO_LIKELY)?;
    let days = days_between(out, safe);
    Some(Finding {
        fixes: match view.sowing.covered_until {
            Some(_) => vec![view.cover_until(safe)],
            None => vec![view.plant_out_later(days), view.cover_until(safe)],
        },
        ..view.finding(
            Severity::Conflict,
            crate::basis::dates::DateSpan {
                from: out,
                to: safe,
            },
            say!("Plant out {name} on {safe}, or cover it until then", name = &view.dates.name, safe = safe),
            say!(
                "These plants are tender: the chance of frost is {risk} after {out}, and {then} after {safe}.",
                out = out,
                risk = Quantity::Share.of(view.dates.frost_risk_out),
                safe = safe,
                then = Quantity::Share.of(view.plan.site.frost_risk(safe)),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{fixed, kettle_fen, of_sowing, sowing};

    #[test]
    fn tomatoes_before_the_last_frost_are_moved_and_cabbages_are_not() {
        let code = "frost_after_planting_out";
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "tomato", code), None);
        let early = kettle_fen(|plan| sowing(plan, "tomato").shift_days = -21);
        let finding = of_sowing(&early, "tomato", code).expect("a frost");
        assert_eq!(of_sowing(&fixed(&early, &finding), "tomato", code), None);
        let hardy = kettle_fen(|plan| sowing(plan, "cabbage").shift_days = -7);
        assert_eq!(of_sowing(&hardy, "cabbage", code), None);
    }
}
