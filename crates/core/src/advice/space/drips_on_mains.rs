//! Triggers when a tray with holes stands indoors on a heat mat: what drains from it runs over mains.

use crate::advice::finding::{Finding, Severity};
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::warmth::mat::cover;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if view.bay.place.outdoors() || view.bay.tier.liner {
        return None;
    }
    let mats = &view.bay.tier.mats;
    let on_mat = view
        .standing
        .iter()
        .filter(|s| !s.format.holds_water && mats.iter().any(|mat| cover(mat, &s.footprint) > 0.0));
    let trays: Vec<_> = on_mat.collect();
    let first = trays.first()?;
    Some(Finding {
        trays: trays.iter().map(|s| s.tray.id.clone()).collect(),
        ..Finding::of_bay(
            view,
            Severity::Conflict,
            say!(
                "Stand {tray} in a tray without holes",
                tray = &first.tray.name
            ),
            say!(
                "Water drains from its holes over a heat mat and its cable. Keep every mat on an RCD (GFCI) socket."
            ),
        )
    })
}
