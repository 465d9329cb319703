//! Triggers when seedlings of some cells get so little light that they stretch.

use crate::advice::finding::{Finding, Severity};
use crate::advice::fixes::{advised, hang_here, how_to_set};
use crate::advice::light::too_little_light;
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::harm::Harm;
use crate::day::view::BayView;
use crate::lamps::bands::STRETCHES_UNDER_MOL_M2_D;
use crate::lamps::chooser::{Change, WORTH_OF_CELLS};

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let harm = view.harmed(Harm::Stretched)?;
    let light = view.computed.light.as_ref()?;
    let hang = view.computed.hang.as_ref();
    let share = harm.count as f64 / harm.of as f64;
    let moves = advised(view, Change::Stretches);
    // Once the lamps are set for a graver reason, or there are lamps enough, one looks again. Where
    // the window alone gives the light, that is what is judged.
    let later = moves.is_none() && hang.is_some_and(|hang| hang.change.is_some());
    let others = too_little_light::short_of(view).is_some() || view.bay.place.has_daylight();
    // Leaves among the lamps are a finding of their own.
    let too_near = light.gap_mm < view.least_gap_mm();
    if share < WORTH_OF_CELLS || later || too_near || (moves.is_none() && others) {
        return None;
    }
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    let (cells, all, least) = (
        Quantity::Count.of(harm.count as f64),
        Quantity::Count.of(harm.of as f64),
        dli(STRETCHES_UNDER_MOL_M2_D),
    );
    let (worst, names) = (dli(light.dli.worst), harm.names(&view.standing));
    let reason = if harm.until > view.date {
        say!(
            "Seedlings go leggy below {least}. Until {until} they get less, down to {worst}, in {cells} of {all} cells: {names}.",
            cells = cells,
            all = all,
            least = least,
            worst = worst,
            until = harm.until,
            names = names,
        )
    } else {
        say!(
            "Seedlings go leggy below {least}. They get less, down to {worst}, in {cells} of {all} cells: {names}.",
            cells = cells,
            all = all,
            least = least,
            worst = worst,
            names = names,
        )
    };
    Some(Finding {
        trays: harm.trays.clone(),
        cells: harm.cells(&view.standing),
        days: DateSpan {
            from: view.date,
            to: harm.until,
        },
        source: crate::crops::library().source("dli_low_mol_m2_d"),
        fixes: hang_here(view, Change::Stretches).into_iter().collect(),
        ..Finding::of_bay(
            view,
            if share > 0.5 {
                Severity::Conflict
            } else {
                Severity::Advice
            },
            match moves {
                Some(hang) => how_to_set(hang),
                None if harm.turned * 2 < harm.count => {
                    say!("Turn the trays end for end every few days")
                }
                None if hang.is_none() => say!("Hang a lamp in {bay}", bay = view.bay.name()),
                None => say!(
                    "Bring more light to the edges of {bay}, or leave its dark cells empty",
                    bay = view.bay.name()
                ),
            },
            reason,
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::Severity;
    use crate::advice::testing::{judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn names_the_cells_and_the_days_and_is_graver_the_more_there_are() {
        let day = date(2027, 4, 9);
        let with_hours = |hours| {
            let plan = one_rack(|plan| {
                tier(plan, "door", "t2").photoperiod_h = hours;
                for lamp in &mut tier(plan, "door", "t2").lamps {
                    lamp.flux_lm /= 2.0;
                }
            });
            judged(&plan, "t2", day, judge)
        };
        let some = with_hours(8.0).expect("some cells stretch");
        let most = with_hours(2.0).expect("all cells stretch");
        assert!(some.cells.len() < most.cells.len());
        assert_eq!(most.severity, Severity::Conflict);
        assert!(some.reason.to_string().contains("row"), "{}", some.reason);
    }
}
