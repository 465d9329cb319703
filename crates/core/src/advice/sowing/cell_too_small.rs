//! Triggers when roots fill a cell, or a pot, long before its plants leave it, and nothing larger is
//! planned for them.

use jiff::civil::Date;

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::{DateSpan, days_between, plus_days};
use crate::basis::units::{DAYS_PER_WEEK, Quantity};
use crate::basis::words::say;
use crate::crops::GrownFrom;
use crate::growth::Seedling;
use crate::growth::usual::Usual;
use crate::plan::Tray;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::container::TrayFormat;
use crate::season::moments::PartSpan;

/// Full cells do no harm for so long (our own estimate).
const BEARS_DAYS: i32 = 14;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let plan = view.plan;
    // Slips and cuttings are cut again, or stand in pots from the start.
    if view.crop.grown_from != GrownFrom::Seed {
        return None;
    }
    let usual = Usual::of(view.crop);
    let full = |tray: &Tray| -> Option<(Date, Date, f64)> {
        let span = PartSpan::of(plan, tray, view.dates);
        // What is potted on before, or has its day for that, leaves in time.
        if !tray.potted && view.dates.pot_on_of(tray).is_some() {
            return None;
        }
        let cell_ml = plan.format(tray).cell_ml;
        let parts = view.growing.of_tray(plan, tray).iter().zip(&tray.parts);
        let own = parts.filter(|(_, part)| part.sowing == view.sowing.id);
        let is_full = |plant: &Seedling| plant.filled_usual_ml(view.crop, &usual) > cell_ml;
        let days = own.filter_map(|(grown, _)| grown.first_day(is_full));
        let day = days.min()?;
        (days_between(day, span.harden) >= BEARS_DAYS).then_some((day, span.harden, cell_ml))
    };
    let trays = plan.trays_of(&view.sowing.id);
    let all: Vec<(&Tray, (Date, Date, f64))> =
        trays.filter_map(|tray| Some((tray, full(tray)?))).collect();
    let &(tray, (day, leaves, cell_ml)) = all.iter().min_by_key(|(_, (day, ..))| *day)?;
    let early = f64::from(days_between(day, leaves)) / DAYS_PER_WEEK;
    let ml = |ml: f64| Quantity::VolumeMl.of(ml);
    let larger = larger_ml(view, tray, cell_ml);
    let sown = view.sowing.sown || tray.potted;
    Some(Finding {
        trays: all.iter().map(|(tray, _)| tray.id.clone()).collect(),
        source: view.crop.source("cell_ml"),
        fixes: pots(view, tray).into_iter().collect(),
        ..view.finding(
            Severity::Advice,
            DateSpan {
                from: if sown { day } else { view.dates.sow },
                to: plus_days(leaves, -1),
            },
            say!(
                "Pot {name} on by {day}, into {larger} or so",
                name = &view.dates.name,
                day = day,
                larger = ml(larger)
            ),
            say!(
                "Its roots fill the {cell} cells of {tray} by then, {early} before it is hardened off. After that it stands still and turns pale.",
                cell = ml(cell_ml),
                tray = &tray.name,
                early = Quantity::Weeks.of((2.0 * early).round() / 2.0),
            ),
        )
    })
}

/// The mix that they are potted on into, in ml.
fn larger_ml(view: &SowingView<'_>, tray: &Tray, cell_ml: f64) -> f64 {
    let own = if tray.potted {
        0.0
    } else {
        view.crop.pot_on_ml.max(view.crop.cell_ml)
    };
    own.max(2.0 * cell_ml)
}

/// Pots for all of it, of a kind that the plan has.
fn pots(view: &SowingView<'_>, tray: &Tray) -> Option<Fix> {
    if tray.potted {
        return None;
    }
    let cell_ml = view.plan.format(tray).cell_ml;
    let formats = &view.plan.tray_formats;
    let format = TrayFormat::nearest(formats, larger_ml(view, tray, cell_ml))?;
    if format.cell_ml <= cell_ml {
        return None;
    }
    let each = view.crop.plants_per_cell.max(1);
    let mut fix = view.more_trays(format, view.sowing.wanted.div_ceil(each), true);
    if view.sowing.pots_on == Some(false) {
        fix.patch.push(PatchStep::set(&view.at("pots_on"), true));
    }
    Some(fix)
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{fixed, kettle_fen, of_sowing, sowing};

    #[test]
    fn cabbages_in_tiny_cells_are_full_weeks_before_and_in_their_own_they_are_not() {
        let code = "cell_too_small";
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "cabbage", code), None);
        let tiny = kettle_fen(|plan| {
            let mut small = plan
                .tray_formats
                .iter()
                .find(|f| f.id == "cells-50")
                .unwrap()
                .clone();
            small.id = "tiny".into();
            small.cell_ml = 8.0;
            plan.tray_formats.push(small);
            let own = plan
                .trays
                .iter_mut()
                .filter(|t| t.parts[0].sowing == "cabbage");
            own.for_each(|tray| tray.format = "tiny".into());
            sowing(plan, "cabbage").pots_on = Some(false);
        });
        let finding = of_sowing(&tiny, "cabbage", code).expect("full early");
        let after = fixed(&tiny, &finding);
        assert_eq!(of_sowing(&after, "cabbage", code), None);
        assert!(after.potted_into("cabbage").next().is_some());
    }
}
