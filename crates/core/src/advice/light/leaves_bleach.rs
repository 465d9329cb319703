//! Triggers when cells get light that bleaches leaves raised indoors.

use crate::advice::finding::{Finding, Severity};
use crate::advice::fixes::{advised, hang_here};
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::day::harm::Harm;
use crate::day::view::BayView;
use crate::lamps::bands::bleaches_over_umol_m2_s;
use crate::lamps::chooser::Change;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let harm = view.harmed(Harm::Bleached)?;
    let light = view.computed.light.as_ref()?;
    // Leaves nearer than the lamps' least gap are a finding of their own, with the same way out.
    if light.gap_mm < view.least_gap_mm() {
        return None;
    }
    let ages = view
        .growing()
        .filter_map(|(_, part)| part.dates.days_up(view.date));
    let most = bleaches_over_umol_m2_s(ages.min().unwrap_or(0));
    let ppfd = |value: f64| Quantity::PpfdUmolM2S.of(value);
    Some(Finding {
        trays: harm.trays.clone(),
        cells: harm.cells(&view.standing),
        days: DateSpan {
            from: view.date,
            to: harm.until,
        },
        source: OWN_ESTIMATE,
        fixes: hang_here(view, Change::Harms).into_iter().collect(),
        ..Finding::of_bay(
            view,
            Severity::Harm,
            match advised(view, Change::Harms) {
                Some(hang) if hang.setting.height_mm > view.bay.lowest_overhead_mm() => say!(
                    "Raise the lamps to {height} before leaves bleach",
                    height = Quantity::LengthMm.of(hang.setting.height_mm)
                ),
                _ => say!("Give these trays less light before leaves bleach"),
            },
            say!(
                "Leaves of their age raised indoors bleach above {most}, and {cells} of {all} cells get up to {best}: {names}. Hold the back of your hand at leaf height: too hot for you is too hot for them.",
                cells = Quantity::Count.of(harm.count as f64),
                all = Quantity::Count.of(harm.of as f64),
                most = ppfd(most),
                best = ppfd(light.ppfd.best),
                names = harm.names(&view.standing),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn strong_lamps_close_above_bleach_the_cells_under_them_until_they_are_raised() {
        let day = date(2027, 4, 9);
        let plan = one_rack(|plan| {
            for lamp in &mut tier(plan, "door", "t2").lamps {
                lamp.flux_lm *= 1.5;
                lamp.height_mm = 210.0;
            }
        });
        let finding = judged(&plan, "t2", day, judge).expect("a finding");
        assert!(!finding.cells.is_empty() && !finding.trays.is_empty());
        assert!(finding.days.to >= day);
        assert_eq!(judged(&fixed(&plan, &finding), "t2", day, judge), None);
        assert_eq!(judged(&one_rack(|_| ()), "t2", day, judge), None);
    }
}
