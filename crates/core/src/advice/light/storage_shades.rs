//! Triggers when seedlings stand without a lamp of their own under a shelf that lets no light
//! through: one with a closed deck, or one that is kept for storage.

use crate::advice::finding::{Finding, Severity};
use crate::basis::words::say;
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let bay = &view.bay;
    let above = bay.above()?;
    let growing = view
        .standing
        .iter()
        .filter(|s| s.parts.iter().any(|part| part.is_growing()));
    let trays: Vec<String> = growing.map(|s| s.tray.id.clone()).collect();
    let shades = above.tier.storage || !bay.place.deck.material.is_open();
    if trays.is_empty() || !bay.tier.lamps.is_empty() || !shades {
        return None;
    }
    let why = if above.tier.storage {
        say!(
            "Things stored on {above} block the light, and no lamp hangs here.",
            above = &above.tier.name
        )
    } else {
        say!(
            "{above} lets no light through, and no lamp hangs here.",
            above = &above.tier.name
        )
    };
    Some(Finding {
        trays,
        ..Finding::of_bay(
            view,
            Severity::Conflict,
            say!("Hang a lamp in {bay}", bay = bay.name()),
            why,
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn speaks_of_seedlings_in_the_dark_under_a_store() {
        let day = date(2027, 3, 31);
        assert_eq!(judged(&one_rack(|_| ()), "t4", day, judge), None);
        let plan = one_rack(|plan| tier(plan, "door", "t4").lamps.clear());
        assert!(judged(&plan, "t4", day, judge).is_some());
        // Through a wire deck the lamps of the tier above shine down.
        let plan = one_rack(|plan| tier(plan, "door", "t3").lamps.clear());
        assert_eq!(judged(&plan, "t3", day, judge), None);
    }
}
