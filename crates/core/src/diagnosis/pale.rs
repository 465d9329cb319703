//! Pale or yellow leaves.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::diagnosis::cause::{Cause, above, below, both, celsius, dli, known};
use crate::diagnosis::signs::Signs;

/// What pale leaves comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "hungry",
            say!("Hungry"),
            above(signs.unfed_days, 10.0, 18.0),
            say!(
                "since its last feed, or its first true leaves, it has been {days}",
                days = known(signs.unfed_days, Quantity::Days)
            ),
            say!(
                "Feed at a quarter to half strength, on damp mix, and look for greener new leaves in a week"
            ),
            say!("Feed weakly once a week from the first true leaves"),
        ),
        Cause::of(
            "kept_too_wet",
            say!("Kept too wet"),
            above(signs.watered_over, 1.4, 2.0),
            say!(
                "it was watered {times} times as often as it dries",
                times = known(signs.watered_over, Quantity::Plain)
            ),
            say!("Let it dry until the tray feels light, and empty the saucer"),
            say!("Lift the tray before you water"),
        ),
        Cause::of(
            "cold_mix",
            say!("Mix too cold to feed from"),
            below(Some(signs.mix_c), 14.0, 11.0),
            say!(
                "the mix is at {mix}, and roots take little up in cold mix",
                mix = celsius(signs.mix_c)
            ),
            say!("Stand it warmer, or put the mat back on by night"),
            say!("Keep the room over 14 °C by night"),
        ),
        Cause::of(
            "bleached",
            say!("Bleached by strong light"),
            both(
                above(signs.dli.map(|dli| dli / signs.dli_high.max(0.1)), 1.1, 1.5),
                above(
                    signs.gap_mm.map(|mm| signs.least_gap_mm * 2.0 - mm),
                    -40.0,
                    0.0,
                ),
            ),
            say!(
                "it gets {dli} a day and gains nothing over {high}",
                dli = known(signs.dli, Quantity::DliMolM2D),
                high = dli(signs.dli_high)
            ),
            say!("Raise the lamps or let them burn fewer hours"),
            say!("Raise the lamps with the leaves, week by week"),
        ),
        Cause::of(
            "starved_of_light",
            say!("Too little light to be green"),
            below(signs.dli.map(|dli| dli / signs.dli_low.max(0.1)), 0.6, 0.35),
            say!(
                "it gets {dli} a day and wants {low} at least",
                dli = known(signs.dli, Quantity::DliMolM2D),
                low = dli(signs.dli_low)
            ),
            say!("Hang the lamps lower or let them burn longer"),
            say!("Count the lamps before you sow"),
        ),
    ]
}
