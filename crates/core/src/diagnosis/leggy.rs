//! Long thin stems.

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::diagnosis::cause::{Cause, above, below, celsius, days, dli, known, only_if};
use crate::diagnosis::signs::Signs;

/// What long thin stems comes from.
pub(super) fn causes(signs: &Signs) -> Vec<Cause> {
    vec![
        Cause::of(
            "too_dim",
            say!("Too little light"),
            below(signs.dli.map(|dli| dli / signs.dli_low.max(0.1)), 0.95, 0.7),
            say!(
                "{name} gets {dli} a day here and wants {low} at least",
                name = &signs.name,
                dli = known(signs.dli, Quantity::DliMolM2D),
                low = dli(signs.dli_low)
            ),
            say!(
                "Hang the lamps lower or let them burn longer, and pot stretched ones deeper where the kind allows"
            ),
            say!("Into the light on the day the first show, with the lamps low"),
        ),
        Cause::of(
            "left_in_the_dark",
            say!("Left in the dark after they came up"),
            above(Some(signs.dark_days), 1.0, 2.5),
            say!(
                "from the first showing to the light it took {days}",
                days = days(signs.dark_days)
            ),
            say!("Nothing shortens a stem: pot it deeper where the kind allows, or sow again"),
            say!(
                "Look every day from the first that are due, and carry the tray out when a tenth are up"
            ),
        ),
        Cause::of(
            "too_warm",
            say!("Too warm for the light they have"),
            only_if(
                signs.dli.is_none_or(|dli| dli < 1.5 * signs.dli_low),
                above(Some(signs.air_c), 22.0, 25.0),
            ),
            say!(
                "the air is {air} on the mean: warmth drives stems faster than this light builds them",
                air = celsius(signs.air_c)
            ),
            say!("Cool the room to 16 to 18 °C, by night above all"),
            say!("Off the mat and out of the chamber once they are up"),
        ),
        Cause::of(
            "crowded",
            say!("Crowded"),
            above(signs.crowding, 1.0, 1.4),
            say!(
                "their leaves reach over {share} of the way to the next plant",
                share = known(signs.crowding, Quantity::Share)
            ),
            say!("Thin to one a cell, or prick out and set the pots apart"),
            say!("Sow fewer to a cell, or larger cells"),
        ),
        Cause::of(
            "light_from_one_side",
            say!("Light from one side"),
            if signs.window_only {
                above(Some(1.2), 1.0, 2.0)
            } else {
                above(Some(0.0), 1.0, 2.0)
            },
            say!(
                "a window alone lights them{still}",
                still = if signs.window_only {
                    ": they lean and reach for it"
                } else {
                    " nowhere: lamps hang over them"
                }
            ),
            say!("Turn the tray every day, put a white board behind it, or add a lamp"),
            say!("Hang a lamp over the sill until April"),
        ),
    ]
}
