//! Triggers when seedlings stand in air so cold that their crop runs to seed for it later.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::StandingPart;
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if view.bay.place.outdoors() {
        return None;
    }
    let mean_c = view.mean_air_c();
    let under_c = |part: &StandingPart<'_>| view.plan.crop(part.sowing).bolts_under_c.under_c();
    let cold = view
        .growing()
        .filter_map(|(s, part)| Some((s, part, under_c(part).filter(|c| mean_c < *c)?)));
    let all: Vec<_> = cold.collect();
    let (_, part, least_c) = all.iter().max_by(|a, b| a.2.total_cmp(&b.2))?;
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    Some(Finding {
        trays: all.iter().map(|(s, ..)| s.tray.id.clone()).collect(),
        source: crate::crops::library().source("bolts_under_c"),
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!(
                "Keep {name} at {least} or more, or sow it later",
                name = &part.dates.name,
                least = celsius(*least_c)
            ),
            say!(
                "The air here is {mean} on the mean. A week or two under {least} as a seedling, and {crop} runs to seed instead of making leaf or root.",
                mean = celsius(mean_c),
                least = celsius(*least_c),
                crop = &part.dates.crop,
            ),
        )
    })
}
