//! Triggers when seed comes up without a dome in a very dry room: the surface of the mix dries out.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

/// Air this dry takes the surface's water within a day (our own estimate).
const DRY: f64 = 0.35;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let bay = &view.bay;
    let closed = view.closed.is_some() || bay.place.keeps_damp_in() || bay.place.outdoors();
    if closed {
        return None;
    }
    let open = view
        .standing
        .iter()
        .filter(|s| s.coming_up && !s.domed && !s.covered && !s.is_up());
    let open: Vec<_> = open.collect();
    let first = open.first()?;
    let humidity = view.air().humidity;
    if humidity > DRY {
        return None;
    }
    Some(Finding {
        trays: open.iter().map(|s| s.tray.id.clone()).collect(),
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!("Cover {tray} until it comes up", tray = &first.tray.name),
            say!(
                "At {humidity} humidity the top of the mix dries out within a day, and seed that has begun to swell dies. A dome, film or damp paper keeps it moist.",
                humidity = Quantity::Share.of(humidity),
            ),
        )
    })
}
