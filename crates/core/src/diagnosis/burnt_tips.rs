//! Brown or dry tips and edges.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::diagnosis::cause::{Cause, above, below, known, mm, only_if, share};
use crate::diagnosis::signs::Signs;

/// What brown tips comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "lamps_too_close",
            say!("Lamps too close"),
            below(
                signs.gap_mm.map(|mm| mm / signs.least_gap_mm.max(1.0)),
                1.1,
                0.9,
            ),
            say!(
                "the leaves are {gap} from lamps that want {least} at least",
                gap = known(signs.gap_mm, Quantity::LengthMm),
                least = mm(signs.least_gap_mm)
            ),
            say!("Raise the lamps today, link by link"),
            say!("Measure the gap every few days: seedlings grow into lamps"),
        ),
        Cause::of(
            "fed_too_strongly",
            say!("Fed too strongly"),
            above(
                signs
                    .strongest_feed
                    .map(|share| share * (1.0 + 0.15 * f64::from(signs.feeds.saturating_sub(2)))),
                0.6,
                0.9,
            ),
            say!(
                "the strongest feed was {feed} of the label, and there were {n} in a fortnight",
                feed = known(signs.strongest_feed, Quantity::Share),
                n = Quantity::Count.of(f64::from(signs.feeds))
            ),
            say!("Water through with plain water until it runs out below"),
            say!("A quarter of the label for seedlings, half for pots"),
        ),
        Cause::of(
            "dried_out",
            say!("Dried out"),
            above(
                signs
                    .watered_days
                    .zip(signs.lasts_days)
                    .map(|(days, lasts)| days / lasts.max(0.1)),
                1.1,
                1.6,
            ),
            say!(
                "it was last watered {days} ago, and a watering lasts {lasts} here",
                days = known(signs.watered_days, Quantity::Days),
                lasts = known(signs.lasts_days, Quantity::Days)
            ),
            say!("Stand it in water until the top is dark, then pour off"),
            say!("Water by weight, not by date"),
        ),
        Cause::of(
            "dry_air",
            say!("Dry, moving air"),
            below(Some(signs.humidity), 0.38, 0.28),
            say!(
                "the air over it is at {humid}",
                humid = share(signs.humidity)
            ),
            say!("Turn the fan aside, and stand trays of water below"),
            say!("Stand trays closer together: they keep each other damp"),
        ),
        Cause::of(
            "sun_scorch",
            say!("Sun and wind out of doors"),
            only_if(
                signs.outdoor_days > 0,
                below(Some(f64::from(signs.outdoor_days)), 6.0, 3.0),
            ),
            say!(
                "it has been outdoors on {n} days so far",
                n = Quantity::Count.of(f64::from(signs.outdoor_days))
            ),
            say!("Back into shade and out of the wind for two days"),
            say!("Begin with an hour in shade, and an hour more each day"),
        ),
    ]
}
