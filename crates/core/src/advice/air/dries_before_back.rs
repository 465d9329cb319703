//! Triggers on days away, and shortly before, when a tray dries out before somebody is back.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let away = view.plan.away_near(view.date)?;
    let dry = view.computed.roots().iter().filter_map(|roots| {
        let on = roots.dries_on(away.from, false)?;
        (on <= away.to).then_some((roots, on))
    });
    let dry: Vec<_> = dry.collect();
    let (first, on) = *dry.iter().min_by_key(|(_, on)| *on)?;
    // Filled from below all of them may last.
    let fills = dry.iter().all(|(roots, _)| {
        let filled = roots.dries_on(away.from, true);
        filled.is_none_or(|day| day > away.to)
    });
    let fill = first.water.fill_mm;
    Some(Finding {
        trays: dry.iter().map(|(roots, _)| roots.tray.clone()).collect(),
        source: OWN_ESTIMATE,
        ..Finding::of_bay(
            view,
            if fills {
                Severity::Advice
            } else {
                Severity::Conflict
            },
            if fills {
                say!(
                    "Before you leave, stand the trays of {bay} in {deep} of water",
                    bay = view.bay.name(),
                    deep = Quantity::LengthMm.of(fill)
                )
            } else {
                say!(
                    "Ask someone to water {bay} by {day}",
                    bay = view.bay.name(),
                    day = on
                )
            },
            say!(
                "You are away from {from} to {to}; {tray} uses {uses} a day and dries out first, by {day}.",
                from = away.from,
                to = away.to,
                tray = &first.label,
                uses = Quantity::VolumeMl.of(first.water.uses_ml_d),
                day = on,
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, kettle_fen};
    use crate::basis::dates::DateSpan;
    use jiff::civil::date;

    #[test]
    fn five_days_away_dry_out_a_sunny_tier_and_one_does_not() {
        let said = |to, on| {
            let plan = kettle_fen(|plan| {
                plan.site.air.humidity = Some(0.29);
                plan.away = vec![DateSpan {
                    from: date(2027, 4, 9),
                    to: date(2027, 4, to),
                }];
            });
            judged(&plan, "t1", date(2027, 4, on), judge)
        };
        let finding = said(18, 8).expect("dry in ten days");
        assert!(!finding.trays.is_empty());
        assert_eq!(said(9, 8), None);
        // Neither long before nor after.
        assert_eq!(said(18, 1), None);
        assert_eq!(said(18, 20), None);
    }
}
