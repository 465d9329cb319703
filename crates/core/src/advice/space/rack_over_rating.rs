//! Triggers when all trays of a place together weigh more than its maker allows.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::place::PlaceView;

pub(super) fn judge(view: &PlaceView<'_, '_>) -> Option<Finding> {
    let load = &view.computed.load;
    let rating_kg = load.rating_kg?;
    if load.watered_kg <= rating_kg {
        return None;
    }
    let kg = |value: f64| Quantity::MassKg.of(value);
    Some(Finding {
        source: "the maker's rating of the place",
        ..Finding::of_place(
            view.place,
            DateSpan::day(view.date),
            Severity::Harm,
            say!(
                "Take {over} off {place}",
                over = kg(load.watered_kg - rating_kg),
                place = &view.place.name
            ),
            say!(
                "Freshly watered, all trays weigh {now}; {place} is rated for {rating} in all and could give way.",
                now = kg(load.watered_kg),
                rating = kg(rating_kg),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{one_rack, place, place_judged};
    use jiff::civil::date;

    #[test]
    fn speaks_when_the_whole_is_too_much() {
        let judged = |rating| {
            let plan = one_rack(|plan| place(plan, "door").rating_kg = rating);
            place_judged(&plan, date(2027, 5, 4), judge)
        };
        assert!(judged(Some(20.0)).is_some());
        assert_eq!(judged(Some(900.0)), None);
    }
}
