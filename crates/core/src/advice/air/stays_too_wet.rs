//! Triggers when cells hold more water than small seedlings and the air take in a week: roots want for
//! air, and fungus gnats breed.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

/// Mix that has not dried at the top after so many days is too wet (common practice, no source).
const TOO_LONG_DAYS: f64 = 7.0;
/// Leaves that cover more than this share of a tray drink what there is (our own estimate).
const SMALL: f64 = 0.4;
/// Gnats breed from here on, in °C (common practice, no source).
const GNATS_C: f64 = 16.0;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if view.bay.place.outdoors() {
        return None;
    }
    let small = view
        .standing
        .iter()
        .filter(|s| s.is_up() && !s.coming_up && !s.domed && s.leaf_cover() < SMALL);
    let wet: Vec<_> = small
        .map(|s| (s, view.water_in_air(s).lasts_days))
        .filter(|(_, days)| days.is_none_or(|days| days > TOO_LONG_DAYS))
        .collect();
    let (first, days) = wet.first()?;
    let gnats = view.mean_air_c() >= GNATS_C;
    let name = &first.tray.name;
    let how_long = match days {
        Some(days) => Quantity::Days.of(days.round()),
        None => "over a month".into(),
    };
    let reason = if gnats {
        say!(
            "Watered well, the mix of {tray} stays wet for {days}: roots rot, and fungus gnats breed in it. Small black flies are the sign; yellow sticky cards and a dry top stop them.",
            tray = name,
            days = how_long,
        )
    } else {
        say!(
            "Watered well, the mix of {tray} stays wet for {days}: cold, wet roots rot.",
            tray = name,
            days = how_long,
        )
    };
    Some(Finding {
        trays: wet.iter().map(|(s, _)| s.tray.id.clone()).collect(),
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!(
                "Let the top of {tray} dry before you water it again",
                tray = name
            ),
            reason,
        )
    })
}
