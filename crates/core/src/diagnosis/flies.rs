//! Tiny flies.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::diagnosis::cause::{Cause, above, celsius, known};
use crate::diagnosis::signs::Signs;

/// What tiny flies comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "kept_wet",
            say!("The top is kept wet"),
            above(signs.watered_over, 1.3, 1.8),
            say!(
                "it was watered {times} times as often as it dries: fungus gnats breed in a wet top",
                times = known(signs.watered_over, Quantity::Plain)
            ),
            say!("Let the top 20 mm dry out between waterings, hang yellow cards at the rim"),
            say!("Water from below, and cover the mix with 5 mm of grit"),
        ),
        Cause::of(
            "slow_to_dry",
            say!("Small plants in much mix that dries slowly"),
            above(signs.lasts_days, 6.0, 10.0),
            say!(
                "a watering lasts {days} here",
                days = known(signs.lasts_days, Quantity::Days)
            ),
            say!("Water half as much, and stir the air"),
            say!("Smaller cells until the roots fill them"),
        ),
        Cause::of(
            "warm_breeding",
            say!("Warm mix"),
            above(Some(signs.mix_c), 21.0, 26.0),
            say!(
                "at {mix} a brood takes three weeks",
                mix = celsius(signs.mix_c)
            ),
            say!("Mat off once they are up"),
            say!("Take the heat away when the last are up"),
        ),
        Cause::of(
            "came_with_the_mix",
            say!("They came with the mix"),
            (crate::diagnosis::cause::Speaks::Unknown, 0.2),
            say!(
                "nothing here tells where the mix came from, and it lies at {mix}",
                mix = celsius(signs.mix_c)
            ),
            say!("Nematodes against their grubs, watered in once"),
            say!("Scald or freeze opened mix, and close the bag"),
        ),
    ]
}
