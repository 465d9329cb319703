//! Triggers when places stand in one another, through a wall or through the ceiling.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::season::Reckoned;
use crate::space::floor::outline;

/// Less than this is a matter of measuring, in mm.
const FORGIVEN_MM: f64 = 10.0;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let plan = reckoned.plan;
    let mm = |value: f64| Quantity::LengthMm.of(value);
    let mut findings = Vec::new();
    for (i, place) in plan.places.iter().enumerate() {
        let mut find = |headline, reason| {
            findings.push(Finding::of_place(
                place,
                plan.season,
                Severity::Conflict,
                headline,
                reason,
            ));
        };
        let [_, _, height_mm] = place.outer_mm();
        if place.stands_here() && height_mm > plan.room.height_mm {
            find(
                say!("{place} is too tall for the room", place = &place.name),
                say!(
                    "It is {height} tall under a ceiling of {ceiling}.",
                    height = mm(height_mm),
                    ceiling = mm(plan.room.height_mm)
                ),
            );
        }
        let Some(area) = outline(place) else { continue };
        let through = (area.x_mm[1] - plan.room.width_mm).max(area.y_mm[1] - plan.room.depth_mm);
        if through > FORGIVEN_MM {
            find(
                say!("Find another spot for {place}", place = &place.name),
                say!(
                    "It would stand {through} through the wall.",
                    through = mm(through)
                ),
            );
        }
        for other in &plan.places[i + 1..] {
            let Some(there) = outline(other) else {
                continue;
            };
            let overlap = area.overlap_mm(&there);
            if overlap > FORGIVEN_MM {
                find(
                    say!(
                        "Move {place} or {other}",
                        place = &place.name,
                        other = &other.name
                    ),
                    say!(
                        "They stand {overlap} in one another on the floor.",
                        overlap = mm(overlap)
                    ),
                );
            }
        }
    }
    findings
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{kettle_fen, place, plan_judged};

    #[test]
    fn speaks_of_walls_ceilings_and_neighbours() {
        assert_eq!(plan_judged(&kettle_fen(|_| ()), judge), []);
        let low = kettle_fen(|plan| plan.room.height_mm = 1800.0);
        assert!(!plan_judged(&low, judge).is_empty());
        let narrow = kettle_fen(|plan| plan.room.width_mm = 1000.0);
        assert!(!plan_judged(&narrow, judge).is_empty());
        let heaped = kettle_fen(|plan| place(plan, "coat").spot = place(plan, "door").spot);
        assert!(!plan_judged(&heaped, judge).is_empty());
    }
}
