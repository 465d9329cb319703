//! Nothing has come up.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::crops::GerminatesIn;
use crate::diagnosis::cause::{Cause, above, below, celsius, known, only_if, share};
use crate::diagnosis::signs::Signs;

/// What nothing up comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "not_due_yet",
            say!("Not due yet"),
            above(signs.first_in_days, 0.0, 1.0),
            say!(
                "the first are due in {days}",
                days = known(signs.first_in_days, Quantity::Days)
            ),
            say!("Wait, and keep it damp"),
            say!("Note the day you sow: the log counts for you"),
        ),
        Cause::of(
            "too_cold_to_sprout",
            say!("Too cold"),
            only_if(
                signs.mix_c < signs.wants_c,
                below(
                    Some(
                        signs
                            .comes_up
                            .min(1.0 - 0.06 * (signs.wants_c - signs.mix_c - 3.0).max(0.0)),
                    ),
                    0.75,
                    0.5,
                ),
            ),
            say!(
                "the mix is at {mix}, and it wants {wants}",
                mix = celsius(signs.mix_c),
                wants = celsius(signs.wants_c)
            ),
            say!("Onto a mat or into the chamber: most still come up"),
            say!("Measure the mix before you sow"),
        ),
        Cause::of(
            "too_hot_to_sprout",
            say!("Too hot"),
            only_if(
                signs.mix_c > signs.wants_c,
                below(Some(signs.comes_up), 0.8, 0.5),
            ),
            say!(
                "the mix is at {mix}, and it wants {wants}: some seed falls asleep in the heat",
                mix = celsius(signs.mix_c),
                wants = celsius(signs.wants_c)
            ),
            say!("Cool it: out of the chamber, off the mat"),
            say!("A thermostat with its probe in the mix"),
        ),
        Cause::of(
            "dead_seed",
            say!("Dead seed"),
            below(
                Some(signs.alive),
                if signs.alive_known { 0.5 } else { 0.45 },
                0.25,
            ),
            say!(
                "the packet is taken to be {alive} alive",
                alive = share(signs.alive)
            ),
            say!("Lay ten on damp paper, warm: a week tells"),
            say!("Test old packets in January"),
        ),
        Cause::of(
            "dried_while_sprouting",
            say!("Dried out while it sprouted"),
            above(
                signs
                    .watered_days
                    .zip(signs.lasts_days)
                    .map(|(days, lasts)| days / lasts.max(0.1)),
                1.2,
                1.8,
            ),
            say!(
                "it was last watered {days} ago, and a watering lasts {lasts}",
                days = known(signs.watered_days, Quantity::Days),
                lasts = known(signs.lasts_days, Quantity::Days)
            ),
            say!("Sow again: a sprout that dried is dead"),
            say!("A dome or film until the first are up"),
        ),
        Cause::of(
            "wants_light",
            say!("It wants light to sprout"),
            only_if(
                signs.germinates_in == GerminatesIn::Light,
                if signs.lit {
                    above(Some(0.0), 1.0, 2.0)
                } else {
                    above(Some(2.0), 1.0, 2.0)
                },
            ),
            say!(
                "its seed sprouts in light, and {lit}",
                lit = if signs.lit {
                    "it has light"
                } else {
                    "it lies dark"
                }
            ),
            say!("Onto the surface and under a lamp"),
            say!("Press it in, do not cover it"),
        ),
        Cause::of(
            "sown_too_deep",
            say!("Sown too deep, or eaten"),
            only_if(
                signs.overdue_days.is_some(),
                above(signs.overdue_days, 4.0, 30.0),
            ),
            say!(
                "nine tenths were due {days} ago, and nothing in the figures explains it",
                days = known(signs.overdue_days, Quantity::Days)
            ),
            say!(
                "Dig for a seed: sound and white is too deep or too cold, soft is dead, gone is a mouse"
            ),
            say!("Twice its thickness of mix, and a lid against mice"),
        ),
    ]
}
