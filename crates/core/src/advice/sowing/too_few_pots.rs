//! Triggers when a sowing is potted on, and the plan has no pots for its plants or too few.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::plan::patch::Fix;
use crate::room::container::TrayFormat;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let (cells, day) = (view.cells?, view.dates.pot_on?);
    let short = cells.pots?.saturating_sub(cells.pots_there);
    if short == 0 {
        return None;
    }
    let count = |n: u32| Quantity::Count.of(f64::from(n));
    let finding = view.finding(
        // Who has planned no pots at all may pot on elsewhere.
        if cells.pots_there == 0 { Severity::Advice } else { Severity::Conflict },
        DateSpan { from: day, to: plus_days(view.dates.harden, -1) },
        say!("Find pots for {short} plants of {name}", short = count(short), name = &view.dates.name),
        say!(
            "From {day} on the plants need {pots} pots of {ml}, with shelf room and light; the plan has {there}.",
            day = day,
            pots = count(cells.pots?),
            ml = Quantity::VolumeMl.of(view.crop.pot_ml()),
            there = count(cells.pots_there),
        ),
    );
    Some(Finding {
        fixes: more_pots(view, short).into_iter().collect(),
        ..finding
    })
}

/// As many trays of pots as the plants that are short take, of a format that the plan has.
fn more_pots(view: &SowingView<'_>, short: u32) -> Option<Fix> {
    let plan = view.plan;
    let own = plan.potted_into(&view.sowing.id).next();
    let format = match own {
        Some(tray) => plan.format(tray),
        None => TrayFormat::nearest(&plan.tray_formats, view.crop.pot_ml())?,
    };
    Some(view.more_trays(format, short, true))
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{fixed, kettle_fen, of_sowing};

    #[test]
    fn tomatoes_in_cells_want_pots_and_those_in_pots_do_not() {
        let code = "too_few_pots";
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "tomato", code), None);
        let cells = kettle_fen(|plan| {
            for tray in &mut plan.trays {
                if tray.parts[0].sowing == "tomato" {
                    tray.format = "cells-50".into();
                }
            }
        });
        let finding = of_sowing(&cells, "tomato", code).expect("no pots");
        let after = fixed(&cells, &finding);
        assert_eq!(of_sowing(&after, "tomato", code), None);
        let pots: Vec<_> = after.potted_into("tomato").collect();
        // 30 plants in trays of eighteen.
        assert_eq!(pots.len(), 2);
        assert!(pots.iter().all(|tray| tray.stands.is_empty()));
    }
}
