//! Triggers when too little floor is free in front of a place to stand and work there.

use super::{Finding, Severity};
use crate::plan::SoundPlan;
use crate::say;
use crate::season::SowingDates;
use crate::space::{STANDING_ROOM_MM, free_in_front_mm};
use crate::units::Quantity;

pub(super) fn judge(plan: &SoundPlan, _: &[SowingDates]) -> Vec<Finding> {
    let mm = |value: f64| Quantity::LengthMm.of(value);
    plan.places
        .iter()
        .filter_map(|place| {
            let free_mm = free_in_front_mm(place, &plan.room, &plan.places)?;
            (free_mm < STANDING_ROOM_MM).then(|| {
                Finding::of_place(
                    place,
                    plan.season,
                    "no_standing_room",
                    Severity::Advice,
                    say!(
                        "Give {place} {more} more floor in front",
                        place = &place.name,
                        more = mm(STANDING_ROOM_MM - free_mm)
                    ),
                    say!(
                        "{free} are free before it; {wanted} let one stand, bend and carry a tray.",
                        free = mm(free_mm),
                        wanted = mm(STANDING_ROOM_MM),
                    ),
                )
            })
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::super::testing::kettle_fen;
    use super::judge;

    #[test]
    fn speaks_when_a_wall_is_near() {
        assert_eq!(judge(&kettle_fen(|_| ()), &[]), []);
        let plan = kettle_fen(|plan| plan.room.depth_mm = 1000.0);
        assert!(!judge(&plan, &[]).is_empty());
    }
}
