//! Triggers when tender plants stand outdoors, in a frame or in the open, while a frost is still
//! likely.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

/// A frost after this day in more than one year of four is likely (our own estimate).
const LIKELY: f64 = 0.25;
/// Seedlings that stand no colder air than this are tender.
const TENDER_C: f64 = 3.0;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let risk = view.plan.site.frost_risk(view.date);
    if !view.bay.place.outdoors() || risk <= LIKELY {
        return None;
    }
    let tender = view.standing.iter().filter(|s| {
        s.is_up_or_hardening()
            && s.parts
                .iter()
                .any(|part| view.plan.crop(part.sowing).least_air_c > TENDER_C)
    });
    let trays: Vec<_> = tender.collect();
    let names: Vec<&str> = trays.iter().map(|s| s.tray.name.as_str()).collect();
    let first = trays.first()?;
    Some(Finding {
        trays: trays.iter().map(|s| s.tray.id.clone()).collect(),
        ..Finding::of_bay(
            view,
            Severity::Advice,
            if names.len() == 1 {
                say!(
                    "Bring {tray} in on clear, cold nights",
                    tray = &first.tray.name
                )
            } else {
                say!(
                    "Bring {count} tender trays in on clear, cold nights",
                    count = Quantity::Count.of(names.len() as f64)
                )
            },
            say!(
                "Frost still comes after {day} in {risk} of years, and kills {names}. A closed frame keeps off a degree or two, no more.",
                day = view.date,
                // Nothing is certain.
                risk = Quantity::Share.of(risk.min(0.99)),
                names = names.join(", "),
            ),
        )
    })
}
