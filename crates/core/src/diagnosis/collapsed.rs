//! Fallen over, pinched at the soil line.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::diagnosis::cause::{Cause, above, below, both, celsius, days, known, only_if, share};
use crate::diagnosis::signs::Signs;

/// How much damping-off likes it here: damp still air, wet mix, a dome too long (our own judgement).
fn wetness(signs: &Signs) -> f64 {
    let damp = ((signs.humidity - 0.6) / 0.2).clamp(0.0, 1.5);
    let still = if signs.air_m_s < 0.1 { 0.4 } else { 0.0 };
    let wet = (signs.watered_over.unwrap_or(1.0) - 1.0).clamp(0.0, 1.5);
    let domed = (signs.domed_days / 3.0).clamp(0.0, 1.5);
    damp + still + wet + domed
}

/// What collapsed seedlings comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "damping_off",
            say!("Damping off"),
            above(Some(wetness(signs)), 1.0, 2.0),
            say!(
                "damp air ({humid}), {moving}, {wet} times the water it uses, and {domed} under a dome once up",
                humid = share(signs.humidity),
                moving = if signs.air_m_s < 0.1 {
                    "no moving air"
                } else {
                    "moving air"
                },
                wet = known(signs.watered_over, Quantity::Plain),
                domed = days(signs.domed_days)
            ),
            say!(
                "Take the fallen out with their mix, dome off, fan on, and water from below only when the tray is light"
            ),
            say!("Clean trays, fresh mix, the dome off at a quarter up, and air that moves"),
        ),
        Cause::of(
            "frosted",
            say!("Frozen"),
            if signs.frosted {
                above(Some(2.0), 1.0, 1.5)
            } else {
                below(Some(signs.coldest_c - signs.least_air_c), 0.5, -1.0)
            },
            say!(
                "the coldest air was {cold}, and {name} stands {least}",
                cold = celsius(signs.coldest_c),
                name = &signs.name,
                least = celsius(signs.least_air_c)
            ),
            say!("Shade it and let it thaw slowly; what is glassy and soft is lost"),
            say!("Bring it in on frost nights"),
        ),
        Cause::of(
            "overheated",
            say!("Too hot"),
            above(
                Some(
                    signs
                        .warmest_c
                        .max(if signs.mix_measured { signs.mix_c } else { 0.0 }),
                ),
                33.0,
                38.0,
            ),
            say!("it had up to {hot}", hot = celsius(signs.warmest_c)),
            say!("Into shade and air, and water it"),
            say!("Vent frame and dome before the sun is on them"),
        ),
        Cause::of(
            "dried_up",
            say!("Dried up"),
            above(
                signs
                    .watered_days
                    .zip(signs.lasts_days)
                    .map(|(days, lasts)| days / lasts.max(0.1)),
                1.3,
                2.0,
            ),
            say!(
                "it was last watered {days} ago, and a watering lasts {lasts} here",
                days = known(signs.watered_days, Quantity::Days),
                lasts = known(signs.lasts_days, Quantity::Days)
            ),
            say!("Stand it in water to the rim for half an hour"),
            say!("Water by weight, not by date"),
        ),
        Cause::of(
            "too_long_to_stand",
            say!("Stems too long to stand"),
            only_if(
                signs.days_up.is_some(),
                both(
                    below(signs.dli.map(|dli| dli / signs.dli_low.max(0.1)), 0.5, 0.25),
                    below(Some(wetness(signs)), 0.9, 0.4),
                ),
            ),
            say!(
                "it gets {dli} a day: stems built in that bend of themselves, without a pinch at the bottom",
                dli = known(signs.dli, Quantity::DliMolM2D)
            ),
            say!("Pot it up to its seed leaves and light it better"),
            say!("Into the light on the day the first show"),
        ),
    ]
}
