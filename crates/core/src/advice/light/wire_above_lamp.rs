//! Triggers when trays stand on wires over a lamp: what drips from them falls on mains.

use crate::advice::finding::{Finding, Severity};
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::plan::patch::{Fix, PatchStep};

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let bay = &view.bay;
    let above = bay.above()?;
    if bay.tier.lamps.is_empty()
        || !bay.place.deck.material.is_open()
        || above.tier.liner
        || view.trays_above == 0
    {
        return None;
    }
    Some(Finding {
        fixes: vec![Fix {
            label: say!("A liner lies there"),
            word: say!("laid a liner on {bay}", bay = above.name()),
            patch: vec![PatchStep::replace(&above.pointer().at("liner"), true)],
        }],
        ..Finding::of_bay(
            view,
            Severity::Harm,
            say!("Lay a waterproof liner on {above}", above = above.name()),
            say!(
                "Water drips through the wire onto the lamps of {bay}.",
                bay = &bay.tier.name
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, judged, one_rack};
    use jiff::civil::date;

    #[test]
    fn speaks_of_wet_trays_over_a_lamp_until_a_liner_lies_between() {
        let day = date(2027, 3, 31);
        let plan = one_rack(|_| ());
        let finding = judged(&plan, "t3", day, judge).unwrap();
        assert_eq!(judged(&fixed(&plan, &finding), "t3", day, judge), None);
        // Nothing stands on the storage shelf over tier 4.
        assert_eq!(judged(&plan, "t4", day, judge), None);
    }
}
