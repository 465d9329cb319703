//! Triggers for a sowing that is potted on: on which day, and how many pots.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;

/// So long the day may be put off before roots circle (our own estimate).
const MAY_WAIT_DAYS: i32 = 7;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let day = view.dates.pot_on?;
    Some(Finding {
        source: view.crop.source("pot_on_ml"),
        ..view.finding(
            Severity::Advice,
            DateSpan {
                from: day,
                to: plus_days(day, MAY_WAIT_DAYS),
            },
            say!("Pot on {name} by {day}", name = &view.dates.name, day = day),
            say!(
                "By then roots fill the cells. You need {pots} pots of {ml}, and more shelf room.",
                pots = Quantity::Count.of(f64::from(view.cells?.pots?)),
                ml = Quantity::VolumeMl.of(view.crop.pot_ml()),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, of_sowing, sowing};

    #[test]
    fn celery_in_small_cells_is_potted_on_and_tomatoes_in_pots_are_not() {
        let code = "pot_on_now";
        let plan = kettle_fen(|plan| {
            let tray = plan.trays.iter_mut().find(|t| t.id == "to1").unwrap();
            tray.format = "cells-50".into();
        });
        let finding = of_sowing(&plan, "tomato", code).expect("potted on");
        assert!(finding.days.from < finding.days.to);
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "tomato", code), None);
        let stays = kettle_fen(|plan| {
            plan.trays
                .iter_mut()
                .find(|t| t.id == "to1")
                .unwrap()
                .format = "cells-50".into();
            sowing(plan, "tomato").pots_on = Some(false);
        });
        assert_eq!(of_sowing(&stays, "tomato", code), None);
    }
}
