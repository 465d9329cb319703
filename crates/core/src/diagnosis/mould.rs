//! Fuzzy mould on the mix.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::diagnosis::cause::{Cause, above, days, known, share};
use crate::diagnosis::signs::Signs;

/// What mould on the mix comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "dome_too_long",
            say!("The dome on too long"),
            above(Some(signs.domed_days), 1.0, 4.0),
            say!(
                "the dome stayed on {days} after a quarter were up",
                days = days(signs.domed_days)
            ),
            say!("Dome off, scrape the fuzz off, and let the top dry"),
            say!("Vent at a quarter up, off when most are"),
        ),
        Cause::of(
            "damp_still_air",
            say!("Damp air that does not move"),
            above(
                Some((signs.humidity - 0.6) / 0.2 + if signs.air_m_s < 0.1 { 0.3 } else { -0.3 }),
                0.6,
                1.1,
            ),
            say!(
                "the air is at {humid} and {moving}",
                humid = share(signs.humidity),
                moving = if signs.air_m_s < 0.1 {
                    "nothing moves it"
                } else {
                    "a fan moves it"
                }
            ),
            say!("A small fan at the end of the shelf, day and night"),
            say!("Leave a hand between trays and walls"),
        ),
        Cause::of(
            "top_never_dries",
            say!("The top never dries"),
            above(signs.watered_over, 1.3, 1.8),
            say!(
                "it was watered {times} times as often as it dries",
                times = known(signs.watered_over, Quantity::Plain)
            ),
            say!("Let it dry until the tray feels light; water from below"),
            say!("Lift the tray before you water"),
        ),
        Cause::of(
            "fuzz_of_the_mix",
            say!("Harmless threads of the mix itself"),
            (crate::diagnosis::cause::Speaks::Unknown, 0.1),
            say!(
                "fresh mix with bark or compost in it grows white threads that hurt nobody, and {days} is when they show",
                days = days(signs.sown_days)
            ),
            say!("Leave it, and let the top dry"),
            say!("Store opened bags dry and cool"),
        ),
    ]
}
