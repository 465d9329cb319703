//! Triggers when lamps hang so low over the rims that no hand takes a tray out under them.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::Standing;
use crate::day::view::BayView;

/// A hand with a tray in it, over the rim, in mm (common practice, no source).
const HAND_MM: f64 = 70.0;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let lamps = &view.bay.tier.lamps;
    let lowest_mm = lamps.iter().map(|lamp| lamp.height_mm).reduce(f64::min)?;
    let rims = view.standing.iter().map(Standing::rim_mm);
    let rim_mm = rims.reduce(f64::max)?;
    let wanted_mm = rim_mm + HAND_MM;
    if lowest_mm >= wanted_mm {
        return None;
    }
    let mm = |value: f64| Quantity::LengthMm.of(value);
    Some(Finding::of_bay(
        view,
        Severity::Advice,
        say!(
            "Lift the lamps of {bay} before you take a tray out",
            bay = view.bay.name()
        ),
        say!(
            "The lamps hang {height} above the shelf; a tray {rim} high and your hand need {wanted}. Hooks or a pulley at the front make lifting one move.",
            height = mm(lowest_mm),
            rim = mm(rim_mm),
            wanted = mm(wanted_mm),
        ),
    ))
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn speaks_of_lamps_a_finger_over_the_rims() {
        let judged = |height_mm| {
            let plan = one_rack(|plan| {
                for lamp in &mut tier(plan, "door", "t4").lamps {
                    lamp.height_mm = height_mm;
                }
            });
            judged(&plan, "t4", date(2027, 3, 31), judge)
        };
        assert!(judged(90.0).is_some());
        assert_eq!(judged(150.0), None);
    }
}
