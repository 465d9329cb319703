//! Triggers when a place does not go through the room's door in one piece.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::season::Reckoned;
use crate::space::doors::{ThroughDoor, passage};

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let plan = reckoned.plan;
    let mm = |value: f64| Quantity::LengthMm.of(value);
    plan.places
        .iter()
        .filter(|place| passage(place, &plan.room) == Some(ThroughDoor::InPieces))
        .map(|place| {
            let [width, depth, height] = place.outer_mm();
            Finding::of_place(
                place,
                plan.season,
                Severity::Advice,
                say!("Assemble {place} inside the room", place = &place.name),
                say!(
                    "A piece {width} by {depth} by {height} will not go through a door of {door_width} by {door_height}, upright or on its side.",
                    width = mm(width),
                    depth = mm(depth),
                    height = mm(height),
                    door_width = mm(plan.room.door.width_mm),
                    door_height = mm(plan.room.door.height_mm),
                ),
            )
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{one_rack, plan_judged};

    #[test]
    fn speaks_when_a_door_is_too_narrow() {
        let judged =
            |width_mm| plan_judged(&one_rack(|plan| plan.room.door.width_mm = width_mm), judge);
        assert_eq!(judged(1600.0), []);
        let findings = judged(500.0);
        assert!(findings.iter().any(|f| f.place.as_deref() == Some("door")));
    }
}
