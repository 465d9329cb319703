//! Triggers for a sowing that is potted on: on which day, and how many pots.

use jiff::civil::Date;

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;

/// So long the day may be put off before roots circle (our own estimate).
const MAY_WAIT_DAYS: i32 = 7;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let day = view.dates.pot_on?;
    let cells = view.plan.sown_in(&view.sowing.id);
    let later = cells.filter_map(|tray| view.dates.pot_on_of(tray));
    let later: Vec<Date> = later.filter(|other| *other > day).collect();
    let pots = Quantity::Count.of(f64::from(view.cells?.pots?));
    let ml = Quantity::VolumeMl.of(view.crop.pot_ml());
    Some(Finding {
        source: view.crop.source("pot_on_ml"),
        ..view.finding(
            Severity::Advice,
            DateSpan {
                from: day,
                to: plus_days(day, MAY_WAIT_DAYS),
            },
            say!("Pot on {name} by {day}", name = &view.dates.name, day = day),
            match later.iter().max() {
                None => say!(
                    "By then roots fill the cells. You need {pots} pots of {ml}, and more shelf room.",
                    pots = pots,
                    ml = ml,
                ),
                Some(last) => say!(
                    "By then roots fill the first cells; those of the last tray are full by {last}. You need {pots} pots of {ml}, and more shelf room.",
                    last = *last,
                    pots = pots,
                    ml = ml,
                ),
            },
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
