//! Triggers while slips root: water that stands turns foul.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::crops::GrownFrom;

/// Slips get fresh water so often (common practice, no source).
const EVERY_DAYS: f64 = 3.0;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    if view.crop.grown_from != GrownFrom::Slips {
        return None;
    }
    let rooted = view.dates.emerge.unwrap_or(view.dates.harden);
    Some(view.finding(
        Severity::Advice,
        DateSpan {
            from: view.dates.sow,
            to: plus_days(rooted, -1).max(view.dates.sow),
        },
        say!(
            "Change the water of {name} every {days}",
            name = &view.dates.name,
            days = Quantity::Days.of(EVERY_DAYS)
        ),
        say!(
            "A root gives several slips: twist off those that are a hand long and root each by itself. Standing water rots them."
        ),
    ))
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, of_sowing, sowing};

    #[test]
    fn slips_stand_in_water_and_lettuce_does_not() {
        let code = "slips_want_fresh_water";
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "lettuce", code), None);
        let slips = kettle_fen(|plan| {
            let lettuce = sowing(plan, "lettuce");
            lettuce.crop = "sweet-potato-slips".into();
            lettuce.packet = None;
        });
        assert!(of_sowing(&slips, "lettuce", code).is_some());
    }
}
