//! Triggers when trays without holes stand out in the rain: they fill, and roots drown.

use crate::advice::finding::{Finding, Severity};
use crate::basis::words::say;
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if !view.bay.place.is_rained_on() {
        return None;
    }
    let solid = view.standing.iter().filter(|s| s.format.holds_water);
    let trays: Vec<_> = solid.collect();
    let first = trays.first()?;
    Some(Finding {
        trays: trays.iter().map(|s| s.tray.id.clone()).collect(),
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!(
                "Take {tray} out of its solid tray, or tip it after rain",
                tray = &first.tray.name
            ),
            say!(
                "A tray without holes fills in the rain, and roots that stand in water drown within days."
            ),
        )
    })
}
