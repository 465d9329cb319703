//! The season's jobs alone, for a calendar.

use crate::light::fields::Fields;
use crate::plan::SoundPlan;
use crate::season::jobs::Event;
use crate::season::{Reckoned, jobs};

/// Every job of the season, in order; light that `fields` remembers is not reckoned anew.
pub fn jobs(plan: &SoundPlan, fields: &Fields) -> Vec<Event> {
    jobs::all(&Reckoned::of(plan, fields))
}
