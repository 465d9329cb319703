//! One side or row ahead of the other.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::diagnosis::cause::{Cause, above, below, known, only_if, share};
use crate::diagnosis::signs::Signs;

/// What one side ahead comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "mat_under_a_part",
            say!("The mat lies under a part"),
            only_if(signs.mat_cover.is_some(), below(signs.mat_cover, 0.9, 0.6)),
            say!(
                "the mat lies under {share} of it",
                share = known(signs.mat_cover, Quantity::Share)
            ),
            say!("Turn the tray end for end every day"),
            say!("A mat as large as the tray, or a metal sheet between"),
        ),
        Cause::of(
            "uneven_light",
            say!("Uneven light"),
            below(signs.evenness, 0.8, 0.55),
            say!(
                "the darkest cell on this deck gets {share} of the mean",
                share = known(signs.evenness, Quantity::Share)
            ),
            say!("Turn the tray, and bring what lags under the middle of the lamps"),
            say!("Lamps as long as the deck, white boards at the ends"),
        ),
        Cause::of(
            "window_side",
            say!("The side at the window"),
            only_if(signs.window_only, above(Some(1.5), 1.0, 2.0)),
            say!(
                "a window {alone}",
                alone = if signs.window_only {
                    "alone lights it"
                } else {
                    "is not what lights it"
                }
            ),
            say!("Turn it every day"),
            say!("A white board on the room side"),
        ),
        Cause::of(
            "several_kinds",
            say!("Kinds of different pace in one tray"),
            above(Some(signs.kinds as f64), 2.0, 3.0),
            say!(
                "it holds {n} kinds",
                n = Quantity::Count.of(signs.kinds as f64)
            ),
            say!("Pot the fast ones on first"),
            say!("Sow like with like"),
        ),
        Cause::of(
            "tired_seed",
            say!("Tired seed"),
            below(Some(signs.alive), 0.6, 0.4),
            say!(
                "the packet is taken to be {share} alive: old seed comes up over weeks",
                share = share(signs.alive)
            ),
            say!("Wait for the late ones, or fill the gaps from the strong"),
            say!("Fresh seed, or a test before sowing"),
        ),
        Cause::of(
            "watered_unevenly",
            say!("Watered unevenly"),
            above(
                signs
                    .watered_days
                    .zip(signs.lasts_days)
                    .map(|(days, lasts)| days / lasts.max(0.1)),
                1.0,
                1.6,
            ),
            say!(
                "it was last watered {days} ago, and a watering lasts {lasts}: cells at the edge dry first",
                days = known(signs.watered_days, Quantity::Days),
                lasts = known(signs.lasts_days, Quantity::Days)
            ),
            say!("Water from below until every cell is dark"),
            say!("Level the shelf: water stands at the low end"),
        ),
    ]
}
