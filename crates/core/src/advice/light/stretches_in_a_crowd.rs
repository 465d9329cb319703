//! Triggers when seedlings have grown leggy though they have light enough: they stand too close.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::growth::seedling::STRETCHED;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let light = view.computed.light.as_ref()?;
    // What lacks light has its own advice.
    if view.bay.place.outdoors() || light.dli.mean < light.target?.low {
        return None;
    }
    let stretched = view.growing().filter_map(|(s, part)| {
        let plant = part.plant.filter(|_| part.sowing.stays.is_none())?;
        let by = plant.stretched();
        (by >= STRETCHED).then_some((s, part, by))
    });
    let all: Vec<_> = stretched.collect();
    let (s, part, by) = all.iter().max_by(|a, b| a.2.total_cmp(&b.2))?;
    Some(Finding {
        trays: all.iter().map(|(s, ..)| s.tray.id.clone()).collect(),
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!(
                "Space {name} out, or pot it on into larger cells",
                name = &part.dates.name
            ),
            say!(
                "In {tray} its leaves overlap: it stands {by} taller than sturdy plants of its age, on thin stems.",
                tray = &s.tray.name,
                by = Quantity::Share.of(by - 1.0)
            ),
        )
    })
}
