//! Triggers when a dome reaches into a lamp or the deck above.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::{Quantity, hanging_step_mm};
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::plan::patch::{Fix, PatchStep};

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let bay = &view.bay;
    let domed = view.standing.iter().filter(|s| s.domed);
    let tallest = domed.max_by(|a, b| a.top_mm().total_cmp(&b.top_mm()))?;
    let top_mm = tallest.top_mm();
    let short_mm = top_mm - bay.lowest_overhead_mm();
    if short_mm <= 0.0 {
        return None;
    }
    let mm = |value: f64| Quantity::LengthMm.of(value);
    let step_mm = hanging_step_mm(view.plan.site.units);
    let height_mm = (top_mm / step_mm).ceil() * step_mm;
    let tray = &tallest.tray.name;
    if height_mm > bay.highest_face_mm() || bay.tier.lamps.is_empty() {
        return Some(Finding {
            trays: vec![tallest.tray.id.clone()],
            ..Finding::of_bay(
                view,
                Severity::Conflict,
                say!(
                    "Move {tray} to a taller shelf, or use a flat cover",
                    tray = tray
                ),
                say!(
                    "Tray and dome are {top} tall; with the lamps right up there is only {clear} of room.",
                    top = mm(top_mm),
                    clear = mm(bay.highest_face_mm()),
                ),
            )
        });
    }
    let tier = bay.pointer();
    let low = |lamp: &crate::room::Lamp| lamp.height_mm < height_mm;
    let lamps = bay.tier.lamps.iter().enumerate();
    let patch = lamps
        .filter(|(_, lamp)| low(lamp))
        .map(|(i, _)| PatchStep::replace(&tier.at("lamps").at(i).at("height_mm"), height_mm));
    Some(Finding {
        trays: vec![tallest.tray.id.clone()],
        fixes: vec![Fix {
            label: say!("Raise the lamps"),
            word: say!(
                "raised the lamps of {bay} to {height}",
                bay = bay.name(),
                height = mm(height_mm)
            ),
            patch: patch.collect(),
        }],
        ..Finding::of_bay(
            view,
            Severity::Conflict,
            say!(
                "Raise the lamps to {height} for the dome of {tray}",
                height = mm(height_mm),
                tray = tray
            ),
            say!(
                "Tray and dome are {top} tall, {short} too tall for the lowest lamp.",
                top = mm(top_mm),
                short = mm(short_mm),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, format, judged, one_rack, tier};

    #[test]
    fn a_dome_under_a_low_lamp_is_found_and_raised() {
        let plan = one_rack(|plan| {
            format(plan, "cells-72").dome_height_mm = Some(60.0);
            for lamp in &mut tier(plan, "door", "t4").lamps {
                lamp.height_mm = 90.0;
            }
        });
        // Onions germinate on tier 4 then.
        let dates = crate::season::dates(&plan);
        let onion = dates.iter().find(|d| d.sowing == "onion").unwrap();
        let day = crate::basis::dates::plus_days(onion.sow, 2);
        let finding = judged(&plan, "t4", day, judge).expect("the lamp is in the way");
        assert_eq!(judged(&fixed(&plan, &finding), "t4", day, judge), None);
    }

    #[test]
    fn a_bay_that_is_too_low_sends_the_tray_elsewhere() {
        let plan = one_rack(|plan| {
            tier(plan, "door", "t4").lamps.clear();
            for format in &mut plan.tray_formats {
                format.dome_height_mm = Some(400.0);
            }
        });
        let dates = crate::season::dates(&plan);
        let onion = dates.iter().find(|d| d.sowing == "onion").unwrap();
        let day = crate::basis::dates::plus_days(onion.sow, 2);
        let finding = judged(&plan, "t4", day, judge).unwrap();
        assert!(finding.fixes.is_empty());
    }
}
