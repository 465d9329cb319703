//! Where the gardener lives, and the season that follows from it.

use jiff::civil::Date;

use crate::basis::words::say;
use crate::edit::editor::{Editor, Word, unknown};
use crate::site::home::{Home, homes};

impl Editor {
    /// Sets all that follows from living in a town.
    pub(super) fn live_at(&mut self, id: &str, today: Date) -> Word {
        let Some(home) = Home::named(id) else {
            let known = homes().iter().map(|home| home.id.clone());
            return Err(unknown("home", id, known));
        };
        self.plan.live_at(home, today);
        Ok(say!(
            "moved to {town}, {country}",
            town = &home.town,
            country = &home.country
        ))
    }

    /// Sets the last frost, and the season around it.
    pub(super) fn anchor(&mut self, last_frost: Date) -> Word {
        self.plan.anchor(last_frost);
        Ok(say!(
            "set the last frost to {day}, and the season around it",
            day = last_frost
        ))
    }
}
