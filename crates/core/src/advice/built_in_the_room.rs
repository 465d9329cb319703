//! Triggers when a place does not go through the room's door in one piece.

use super::{Finding, Severity};
use crate::plan::SoundPlan;
use crate::say;
use crate::season::SowingDates;
use crate::space::{ThroughDoor, passage};
use crate::units::Quantity;

pub(super) fn judge(plan: &SoundPlan, _: &[SowingDates]) -> Vec<Finding> {
    let mm = |value: f64| Quantity::LengthMm.of(value);
    plan.places
        .iter()
        .filter(|place| passage(place, &plan.room) == Some(ThroughDoor::InPieces))
        .map(|place| {
            let [width, depth, height] = place.outer_mm();
            Finding::of_place(
                place,
                plan.season,
                "built_in_the_room",
                Severity::Advice,
                say!("Put {place} together in the room", place = &place.name),
                say!(
                    "It measures {width} by {depth} by {height}; the door leaves {door_width} by {door_height}, too little for it upright or on its side.",
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
    use super::super::testing::one_rack;
    use super::judge;

    #[test]
    fn speaks_when_a_door_is_too_narrow() {
        let judged = |width_mm| judge(&one_rack(|plan| plan.room.door.width_mm = width_mm), &[]);
        assert_eq!(judged(1600.0), []);
        let findings = judged(500.0);
        assert!(findings.iter().any(|f| f.place.as_deref() == Some("door")));
    }
}
