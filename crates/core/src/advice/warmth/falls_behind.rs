//! Triggers when seedlings have stayed small for their age because of cold air, or of taller plants beside
//! them. What they lack of light, and a full cell, have their own advice.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::{Standing, StandingPart};
use crate::day::view::BayView;
use crate::growth::Behind;
use crate::growth::seedling::SMALL_FOR_ITS_AGE;

/// Younger ones tell nothing yet, in days.
const TELLS_AFTER_DAYS: f64 = 10.0;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if view.bay.place.outdoors() {
        return None;
    }
    let growing = view.growing().filter_map(|(s, part)| {
        let plant = part.plant.filter(|_| part.sowing.stays.is_none())?;
        let size = plant.size(view.plan.crop(part.sowing));
        let small = plant.age_days >= TELLS_AFTER_DAYS && size < SMALL_FOR_ITS_AGE;
        let by = plant.behind_by().filter(|_| small)?;
        matches!(by, Behind::Warmth | Behind::Shade).then_some((s, part, size, by))
    });
    let (s, part, size, by) = growing.min_by(|a, b| a.2.total_cmp(&b.2))?;
    // What is chilled is told so already.
    let chilled = view.coldest_air_c() < view.plan.crop(part.sowing).least_air_c;
    if by == Behind::Warmth && chilled {
        return None;
    }
    let name = &part.dates.name;
    let size = Quantity::Share.of(size);
    let (headline, reason) = match by {
        Behind::Warmth => (
            say!("Give {name} warmer air, or plant it out later", name = name),
            say!(
                "At {air} on the mean it has grown to {size} of what is usual at its age.",
                air = Quantity::TemperatureC.of(view.mean_air_c()),
                size = size
            ),
        ),
        _ => (
            say!("Give {name} a tray of its own", name = name),
            say!(
                "{tallest} beside it in {tray} takes its light: it has grown to {size} of what is usual at its age.",
                tallest = tallest(s, part),
                tray = &s.tray.name,
                size = size
            ),
        ),
    };
    Some(Finding {
        trays: vec![s.tray.id.clone()],
        ..Finding::of_bay(view, Severity::Advice, headline, reason)
    })
}

fn tallest(s: &Standing<'_>, besides: &StandingPart<'_>) -> String {
    let others = s
        .parts
        .iter()
        .filter(|part| part.sowing.id != besides.sowing.id);
    let tallest = others.max_by(|a, b| a.plant_height_mm.total_cmp(&b.plant_height_mm));
    tallest.map_or_else(String::new, |part| part.dates.name.clone())
}
