//! Purple leaves or stems.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::diagnosis::cause::{Cause, above, below, both, celsius, dli, known};
use crate::diagnosis::signs::Signs;

/// What purple leaves comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "cold_roots",
            say!("Cold: phosphorus stays in the mix"),
            below(Some(signs.mix_c.min(signs.air_c)), 15.0, 12.0),
            say!(
                "mix and air are at {cold}: in the cold roots take up no phosphorus, though the mix has it",
                cold = celsius(signs.mix_c.min(signs.air_c))
            ),
            say!("Stand it at 18 °C or more: new leaves are green within a week"),
            say!("Keep tomatoes and peppers over 15 °C by night"),
        ),
        Cause::of(
            "hungry_for_phosphorus",
            say!("Hungry"),
            above(signs.unfed_days, 12.0, 21.0),
            say!(
                "since its last feed, or its first true leaves, it has been {days}",
                days = known(signs.unfed_days, Quantity::Days)
            ),
            say!("Feed at half strength with a complete feed"),
            say!("Feed weakly once a week from the first true leaves"),
        ),
        Cause::of(
            "drowned_roots",
            say!("Roots without air"),
            above(signs.watered_over, 1.5, 2.2),
            say!(
                "it was watered {times} times as often as it dries",
                times = known(signs.watered_over, Quantity::Plain)
            ),
            say!("Let it dry until the tray feels light"),
            say!("Lift the tray before you water"),
        ),
        Cause::of(
            "strong_light",
            say!("Strong light in cool air"),
            both(
                above(signs.dli.map(|dli| dli / signs.dli_high.max(0.1)), 1.0, 1.4),
                below(Some(signs.air_c), 18.0, 14.0),
            ),
            say!(
                "it gets {dli} a day and gains nothing over {high}: some kinds shade themselves with purple",
                dli = known(signs.dli, Quantity::DliMolM2D),
                high = dli(signs.dli_high)
            ),
            say!("Leave it: it does no harm, and passes in warmth"),
            say!("Raise the lamps a little in a cool room"),
        ),
    ]
}
