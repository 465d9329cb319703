//! Triggers when too little floor is free in front of a place to stand and work there.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::season::Reckoned;
use crate::space::floor::{STANDING_ROOM_MM, free_in_front_mm};

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let plan = reckoned.plan;
    let mm = |value: f64| Quantity::LengthMm.of(value);
    plan.places
        .iter()
        .filter_map(|place| {
            let free_mm = free_in_front_mm(place, &plan.room, &plan.places)?;
            (free_mm < STANDING_ROOM_MM).then(|| {
                Finding::of_place(
                    place,
                    plan.season,
                    Severity::Advice,
                    say!(
                        "Clear {more} more floor in front of {place}",
                        place = &place.name,
                        more = mm(STANDING_ROOM_MM - free_mm)
                    ),
                    say!(
                        "Only {free} of floor is free; you need {wanted} to stand, bend and carry a tray.",
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
    use super::judge;
    use crate::advice::testing::{kettle_fen, plan_judged};

    #[test]
    fn speaks_when_a_wall_is_near() {
        assert_eq!(plan_judged(&kettle_fen(|_| ()), judge), []);
        let plan = kettle_fen(|plan| plan.room.depth_mm = 1000.0);
        assert!(!plan_judged(&plan, judge).is_empty());
    }
}
