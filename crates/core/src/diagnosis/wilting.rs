//! Wilting though the mix is wet.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::diagnosis::cause::{Cause, above, below, both, celsius, known, share};
use crate::diagnosis::signs::Signs;

/// What wilting in wet mix comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "drowned",
            say!("Drowned roots"),
            above(signs.watered_over, 1.4, 2.0),
            say!(
                "it was watered {times} times as often as it dries: roots without air die from the tips",
                times = known(signs.watered_over, Quantity::Plain)
            ),
            say!("Pour off, stand it on a rack, and shade it until it dries"),
            say!("Lift the tray before you water"),
        ),
        Cause::of(
            "too_cold_to_drink",
            say!("Roots too cold to drink"),
            both(
                below(Some(signs.mix_c), 13.0, 10.0),
                above(signs.dli, 3.0, 8.0),
            ),
            say!(
                "the mix is at {mix} while light and air draw water from the leaves",
                mix = celsius(signs.mix_c)
            ),
            say!("Warm the mix before the lamps go on"),
            say!("Water with tepid water, and keep trays off a cold floor"),
        ),
        Cause::of(
            "salted",
            say!("Salted by feed"),
            above(
                signs
                    .strongest_feed
                    .map(|share| share * (1.0 + 0.2 * f64::from(signs.feeds.saturating_sub(2)))),
                0.7,
                1.0,
            ),
            say!(
                "the strongest feed was {feed} of the label, {n} times in a fortnight",
                feed = known(signs.strongest_feed, Quantity::Share),
                n = Quantity::Count.of(f64::from(signs.feeds))
            ),
            say!("Water through with plain water"),
            say!("Feed weakly, on damp mix"),
        ),
        Cause::of(
            "heat_of_the_day",
            say!("More heat than roots can follow"),
            above(Some(signs.warmest_c), 29.0, 34.0),
            say!(
                "it had up to {hot}: it drinks all it can and wilts until evening",
                hot = celsius(signs.warmest_c)
            ),
            say!("Shade and air; do not water what is wet"),
            say!("Vent before the sun is on it"),
        ),
        Cause::of(
            "stem_rot",
            say!("A rotten stem"),
            both(
                above(Some(signs.humidity), 0.7, 0.85),
                above(Some(0.1 - signs.air_m_s), 0.0, 0.1),
            ),
            say!(
                "the air is damp ({humid}) and still: look for a dark pinched stem at the soil line",
                humid = share(signs.humidity)
            ),
            say!("Take it out with its mix: it will not recover"),
            say!("Air that moves, and water from below"),
        ),
    ]
}
