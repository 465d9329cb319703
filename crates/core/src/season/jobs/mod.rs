//! What a season brings on which day: the jobs of every sowing and tray, with a note on each.

mod done;
mod event;
mod sowings;
mod trays;

use crate::season::reckoned::Reckoned;

pub use done::on_tray;
pub use event::{Event, EventKind};
pub use sowings::covered_how;
pub use trays::lies_on_mat;

/// Every job, in order.
pub fn all(reckoned: &Reckoned<'_>) -> Vec<Event> {
    let mut events = sowings::of_sowings(reckoned);
    events.extend(trays::of_trays(reckoned));
    for event in &mut events {
        event.id = event.own_id();
        event.done = done::by(reckoned.plan, event);
    }
    events.sort_by(|a, b| {
        (a.date, a.what, &a.sowing, &a.tray).cmp(&(b.date, b.what, &b.sowing, &b.tray))
    });
    events
}
