//! Triggers when tender plants stand outdoors, in a frame or in the open, while a frost is still
//! likely.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::warmth::under_cover::{Weather, under_cover};

/// A frost after this day in more than one year of four is likely (our own estimate).
const LIKELY: f64 = 0.25;
/// Seedlings that stand no colder air than this are tender.
const TENDER_C: f64 = 3.0;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if !view.bay.place.outdoors() {
        return None;
    }
    let risk = view.plan.site.frost_risk(view.date);
    if risk <= LIKELY {
        return None;
    }
    let tender = view.standing.iter().filter(|s| {
        s.is_up_or_hardening()
            && s.parts
                .iter()
                .any(|part| view.plan.crop(part.sowing).least_air_c > TENDER_C)
    });
    let trays: Vec<_> = tender.collect();
    let first = trays.first()?;
    let frost = under_cover(&view.plan.site, view.bay.place, view.date, Weather::Frost);
    let parts = trays.iter().flat_map(|s| &s.parts);
    let least_c = parts
        .map(|part| view.plan.crop(part.sowing).least_air_c)
        .fold(TENDER_C, f64::max);
    // A greenhouse that is heated is no matter of frost.
    if frost.is_some_and(|air| air.least_c >= least_c) {
        return None;
    }
    // Nothing is certain.
    let risk = risk.min(0.99);
    let names: Vec<&str> = trays.iter().map(|s| s.tray.name.as_str()).collect();
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
            match frost {
                Some(air) => say!(
                    "Frost still comes after {day} in {risk} of years. In such a night it falls to about {least} in there, and {names} bear {bear} at the least; straw or a blanket over it keeps off a little more.",
                    day = view.date,
                    risk = Quantity::Share.of(risk),
                    least = Quantity::TemperatureC.of(air.least_c),
                    names = names.join(", "),
                    bear = Quantity::TemperatureC.of(least_c),
                ),
                None => say!(
                    "Frost still comes after {day} in {risk} of years, and kills {names}: nothing covers them there.",
                    day = view.date,
                    risk = Quantity::Share.of(risk),
                    names = names.join(", "),
                ),
            },
        )
    })
}
