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
    use crate::basis::dates::plus_days;
    use jiff::civil::date;

    #[test]
    fn one_far_taller_than_the_rest_is_named() {
        // On a stack of its own, so to say: a container as tall as the bay allows.
        let mixed = |mm: i32| {
            kettle_fen(|plan| {
                let mut tall = format(plan, "cells-72").clone();
                tall.id = "tall".into();
                tall.height_mm = f64::from(mm);
                tall.dome_height_mm = None;
                plan.tray_formats.push(tall);
                let tray = plan.trays.iter_mut().find(|t| t.id == "ce1").unwrap();
                tray.format = "tall".into();
            })
        };
        let found = (0..6).find_map(|week| {
            let day = plus_days(date(2027, 3, 12), 7 * week);
            let mut taller = (120..230).step_by(10);
            let finding = taller.find_map(|mm| judged(&mixed(mm), "t1", day, judge));
            let alike = judged(&kettle_fen(|_| ()), "t1", day, judge);
            finding.filter(|_| alike.is_none())
        });
        assert_eq!(found.expect("a finding").trays, ["ce1"]);
    }
}
