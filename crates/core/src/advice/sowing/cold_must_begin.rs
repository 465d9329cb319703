//! Triggers for seed that needs cold first: on which day it must begin.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::say;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let chill = view.dates.chill?;
    Some(Finding {
        source: view.crop.source("cold_weeks"),
        ..view.finding(
            Severity::Advice,
            DateSpan {
                from: chill,
                to: view.dates.sow,
            },
            say!(
                "Start chilling {name} by {chill}",
                name = &view.dates.name,
                chill = chill
            ),
            say!(
                "{crop} seed needs {weeks} cold and moist before it wakes; sow it in the warm on {sow}.",
                crop = &view.crop.name,
                weeks = Quantity::Weeks.of(view.crop.cold_weeks),
                sow = view.dates.sow,
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, of_sowing, sowing};
    use crate::basis::dates::days_between;

    #[test]
    fn lavender_goes_cold_four_weeks_before_it_is_sown() {
        let plan = kettle_fen(|plan| {
            let sowing = sowing(plan, "parsley");
            sowing.crop = "lavender".into();
            sowing.packet = None;
        });
        let finding = of_sowing(&plan, "parsley", "cold_must_begin").expect("cold first");
        assert_eq!(days_between(finding.days.from, finding.days.to), 28);
        assert_eq!(
            of_sowing(&kettle_fen(|_| ()), "tomato", "cold_must_begin"),
            None
        );
    }
}
