//! Triggers when no height and hours suit all trays of a bay, and one of them is the reason.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let misfit = view.computed.hang.as_ref()?.misfit.as_ref()?;
    let tray = view
        .computed
        .trays()
        .iter()
        .find(|t| t.tray == misfit.tray)?;
    let part = tray.parts.first()?;
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    Some(Finding {
        trays: vec![misfit.tray.clone()],
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!("Move {tray} to another shelf", tray = &tray.label),
            say!(
                "At {height} tall, {crop} needs {low} to {high} of light, and no lamp height suits this tray and its neighbours together.",
                crop = &part.name,
                height = Quantity::LengthMm.of(part.plant_height_mm),
                low = dli(part.target.low),
                high = dli(part.target.high),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{format, judged, kettle_fen};
    use jiff::civil::date;

    #[test]
    fn one_far_taller_than_the_rest_is_named() {
        let day = date(2027, 4, 9);
        assert_eq!(judged(&kettle_fen(|_| ()), "t1", day, judge), None);
        // On a stack of its own, so to say: a container as tall as the bay allows.
        let mixed = kettle_fen(|plan| {
            let mut tall = format(plan, "cells-72").clone();
            tall.id = "tall".into();
            tall.height_mm = 190.0;
            tall.dome_height_mm = None;
            plan.tray_formats.push(tall);
            let tray = plan.trays.iter_mut().find(|t| t.id == "ce1").unwrap();
            tray.format = "tall".into();
        });
        let finding = judged(&mixed, "t1", day, judge).expect("a finding");
        assert_eq!(finding.trays, ["ce1"]);
    }
}
