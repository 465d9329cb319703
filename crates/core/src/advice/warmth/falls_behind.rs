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
        _ => match (tallest_in_tray(s, part), tallest_beside(view, s)) {
            (Some(tall), _) => (
                say!("Give {name} a tray of its own", name = name),
                say!(
                    "{tallest} beside it in {tray} takes its light: it has grown to {size} of what is usual at its age.",
                    tallest = &tall.dates.name,
                    tray = &s.tray.name,
                    size = size
                ),
            ),
            (None, tall) => (
                say!(
                    "Raise {tray}, or stand it apart from taller trays",
                    tray = &s.tray.name
                ),
                say!(
                    "{tallest} beside it takes its light: {name} has grown to {size} of what is usual at its age.",
                    tallest = tall.map_or("What is taller", |(tray, _)| tray.tray.name.as_str()),
                    name = name,
                    size = size
                ),
            ),
        },
    };
    Some(Finding {
        trays: vec![s.tray.id.clone()],
        ..Finding::of_bay(view, Severity::Advice, headline, reason)
    })
}

/// The tallest of what stands higher than `low` in its own tray.
fn tallest_in_tray<'s, 'a>(
    s: &'s Standing<'a>,
    low: &StandingPart<'_>,
) -> Option<&'s StandingPart<'a>> {
    let taller = s.parts.iter().filter(|part| part.canopy_mm > low.canopy_mm);
    taller.max_by(|a, b| a.canopy_mm.total_cmp(&b.canopy_mm))
}

/// The tallest of what grows in the other trays of the bay.
fn tallest_beside<'v>(
    view: &'v BayView<'_>,
    s: &Standing<'_>,
) -> Option<(&'v Standing<'v>, &'v StandingPart<'v>)> {
    let others = view
        .growing()
        .filter(|(other, _)| other.tray.id != s.tray.id);
    others.max_by(|a, b| a.1.canopy_mm.total_cmp(&b.1.canopy_mm))
}
