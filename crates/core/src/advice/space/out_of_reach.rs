//! Triggers when trays could stand higher or deeper than one reaches from the floor in front.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::plan::SoundPlan;
use crate::room::Place;
use crate::season::Reckoned;
use crate::space::floor::{HIGHEST_REACH_MM, REACH_MM, STANDING_ROOM_MM, free_behind_mm};

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let plan = reckoned.plan;
    let mm = |value: f64| Quantity::LengthMm.of(value);
    plan.places
        .iter()
        .filter(|place| !place.outdoors())
        .filter_map(|place| {
            let in_use = place.tiers.iter().filter(|tier| !tier.storage);
            let highest = in_use.max_by(|a, b| a.deck_height_mm.total_cmp(&b.deck_height_mm))?;
            let (headline, reason) = if highest.deck_height_mm > HIGHEST_REACH_MM {
                (
                    say!(
                        "Keep a firm step by {place}, or keep its {tier} for storage",
                        place = &place.name,
                        tier = &highest.name
                    ),
                    say!(
                        "The top shelf is {height} up; above {most} you lift wet trays over your shoulder.",
                        height = mm(highest.deck_height_mm),
                        most = mm(HIGHEST_REACH_MM),
                    ),
                )
            } else if place.depth_mm > reach_mm(plan, place) {
                (
                    say!("Keep the back of {place} free, or work it from both sides", place = &place.name),
                    say!(
                        "You can reach about {most} from one side; this is {depth} deep.",
                        depth = mm(place.depth_mm),
                        most = mm(REACH_MM),
                    ),
                )
            } else {
                return None;
            };
            Some(Finding::of_place(
                place,
                plan.season,
                Severity::Advice,
                headline,
                reason,
            ))
        })
        .collect()
}

/// How deep a place may be: one reaches an island from both sides, and a floor one kneels on.
fn reach_mm(plan: &SoundPlan, place: &Place) -> f64 {
    let behind = free_behind_mm(place, &plan.room, &plan.places);
    if behind.is_some_and(|mm| mm >= STANDING_ROOM_MM) {
        2.0 * REACH_MM
    } else {
        REACH_MM
    }
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{one_rack, place, plan_judged, tier};

    #[test]
    fn speaks_of_a_high_and_of_a_deep_deck() {
        assert_eq!(plan_judged(&one_rack(|_| ()), judge), []);
        let high = one_rack(|plan| tier(plan, "door", "t5").storage = false);
        assert_eq!(plan_judged(&high, judge).len(), 1);
        let deep = one_rack(|plan| place(plan, "door").depth_mm = 900.0);
        assert_eq!(plan_judged(&deep, judge).len(), 1);
    }
}
