//! Triggers when the trays on a deck weigh more, while they are watered, than its maker allows.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let load = view.computed.load;
    let rating_kg = load.rating_kg?;
    if load.watered_kg <= rating_kg || view.bay.place.is_floor() {
        return None;
    }
    let kg = |value: f64| Quantity::MassKg.of(value);
    Some(Finding {
        trays: view.standing.iter().map(|s| s.tray.id.clone()).collect(),
        source: "the maker's rating of the deck",
        ..Finding::of_bay(
            view,
            Severity::Harm,
            say!(
                "Take {over} off {bay}",
                over = kg(load.watered_kg - rating_kg),
                bay = view.bay.name()
            ),
            say!(
                "Freshly watered, these trays weigh {now}; the shelf is rated for {rating} and could give way.",
                now = kg(load.watered_kg),
                rating = kg(rating_kg),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, one_rack, place};
    use jiff::civil::date;

    #[test]
    fn speaks_when_watered_trays_weigh_more_than_the_deck_bears() {
        let judged = |rating| {
            let plan = one_rack(|plan| place(plan, "door").deck.rating_kg = rating);
            judged(&plan, "t2", date(2027, 5, 4), judge)
        };
        assert!(judged(Some(5.0)).is_some());
        assert_eq!(judged(Some(500.0)), None);
        assert_eq!(judged(None), None, "an unknown rating is not exceeded");
    }
}
