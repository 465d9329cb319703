//! Triggers when the plan's trays have fewer cells for a sowing than the plants wanted take.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::plan::patch::Fix;
use crate::room::container::TrayFormat;

/// The cells to sow are for a bad year: so many fewer still do in most (our own estimate).
const MARGIN: f64 = 0.15;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let cells = view.cells?;
    let sow = cells.to_sow.as_ref()?;
    let short = sow.cells.saturating_sub(cells.cells_there);
    if f64::from(short) <= MARGIN * f64::from(sow.cells) {
        return None;
    }
    let count = |n: u32| Quantity::Count.of(f64::from(n));
    let mut finding = view.finding(
        Severity::Conflict,
        view.days(),
        if cells.cells_there == 0 {
            say!("Give {name} a tray to come up in", name = &view.dates.name)
        } else {
            say!(
                "Give {name} {short} more cells",
                name = &view.dates.name,
                short = count(short)
            )
        },
        say!(
            "{wanted} plants need {cells} cells; the trays have {there}.",
            wanted = count(view.sowing.wanted),
            cells = count(sow.cells),
            there = count(cells.cells_there),
        ),
    );
    finding.fixes.extend(more_trays(view, short));
    Some(finding)
}

/// As many trays more, like the first that it has, as the cells that are short take.
fn more_trays(view: &SowingView<'_>, short: u32) -> Option<Fix> {
    let plan = view.plan;
    let like = plan.sown_in(&view.sowing.id).next();
    let format = match like {
        Some(tray) => plan.format(tray),
        None => TrayFormat::nearest(&plan.tray_formats, view.cells?.cell_ml)?,
    };
    Some(view.more_trays(format, short, false))
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{fixed, kettle_fen, of_sowing, sowing};

    #[test]
    fn thrice_the_plants_want_more_trays_and_one_cell_less_does() {
        let code = "too_few_cells";
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "tomato", code), None);
        let many = kettle_fen(|plan| sowing(plan, "tomato").wanted = 90);
        let finding = of_sowing(&many, "tomato", code).expect("too few");
        let after = fixed(&many, &finding);
        assert_eq!(of_sowing(&after, "tomato", code), None);
        // What was added stands nowhere yet, and has labels of its own.
        assert!(after.trays.len() > many.trays.len());
        let mut labels: Vec<_> = after.trays.iter().map(|tray| &tray.name).collect();
        labels.sort();
        labels.dedup();
        assert_eq!(labels.len(), after.trays.len());
        let none = kettle_fen(|plan| {
            plan.trays
                .retain(|tray| tray.parts.iter().all(|part| part.sowing != "tomato"));
        });
        let finding = of_sowing(&none, "tomato", code).expect("no tray at all");
        assert!(
            finding
                .headline
                .to_string()
                .contains("a tray to come up in")
        );
        assert_eq!(of_sowing(&fixed(&none, &finding), "tomato", code), None);
    }
}
