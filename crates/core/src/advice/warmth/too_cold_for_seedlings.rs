//! Triggers when seedlings that are up stand in air colder than their crop stands for a night.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::StandingPart;
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    // Outdoors it is a matter of frost.
    if view.bay.place.outdoors() {
        return None;
    }
    let coldest_c = view.coldest_air_c();
    let least = |part: &StandingPart<'_>| view.plan.crop(part.sowing).least_air_c;
    let (standing, part) = view
        .growing()
        .max_by(|a, b| least(a.1).total_cmp(&least(b.1)))?;
    let least_c = least(part);
    if coldest_c >= least_c {
        return None;
    }
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    Some(Finding {
        trays: vec![standing.tray.id.clone()],
        source: crate::crops::library().source("least_air_c"),
        ..Finding::of_bay(
            view,
            Severity::Conflict,
            say!(
                "Keep {tray} at {least} or more at night",
                tray = &standing.tray.name,
                least = celsius(least_c)
            ),
            say!(
                "The air falls to {coldest}; seedlings of {crop} are chilled below {least}: they stop growing, turn pale and rot.",
                coldest = celsius(coldest_c),
                crop = &part.dates.crop,
                least = celsius(least_c),
            ),
        )
    })
}
