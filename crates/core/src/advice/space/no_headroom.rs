//! Triggers when the plants have grown so tall that no height is left for the lamps.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::{COMMON_PRACTICE, say};
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let (tray, part) = view.tallest()?;
    let least = view.least_gap_mm();
    let highest = view.bay.highest_face_mm();
    let short_mm = part.canopy_mm + least - highest;
    if view.bay.tier.lamps.is_empty() || !part.is_growing() || short_mm <= 0.0 {
        return None;
    }
    let mm = |value: f64| Quantity::LengthMm.of(value);
    Some(Finding {
        id: String::new(),
        code: "",
        topic: "",
        severity: Severity::Conflict,
        place: Some(view.bay.place.id.clone()),
        bay: Some(view.bay.reference()),
        sowing: None,
        trays: vec![tray.tray.id.clone()],
        cells: Vec::new(),
        days: DateSpan::day(view.date),
        headline: say!("Move {tray} to a taller shelf", tray = &tray.tray.name),
        reason: say!(
            "The plants stand {canopy} above the shelf and need {least} more to the lamps, which stop at {highest}: {short} too low.",
            canopy = mm(part.canopy_mm),
            least = mm(least),
            highest = mm(highest),
            short = mm(short_mm),
        ),
        source: COMMON_PRACTICE,
        fixes: Vec::new(),
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn speaks_when_a_bulky_lamp_leaves_no_height() {
        let plan = one_rack(|plan| {
            for lamp in &mut tier(plan, "door", "t2").lamps {
                lamp.body_height_mm = 350.0;
                lamp.height_mm = 60.0;
            }
        });
        assert!(judged(&plan, "t2", date(2027, 5, 5), judge).is_some());
        assert_eq!(
            judged(&one_rack(|_| ()), "t2", date(2027, 4, 9), judge),
            None
        );
    }
}
