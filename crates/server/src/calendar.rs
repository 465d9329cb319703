//! A plan's jobs as iCalendar (RFC 5545): whole days at the site, so that no time zone or change of
//! the clock moves them.

use icalendar::{Calendar, Component, Event, Property};
use sunrise_core::ask::{self, EventKind, Fields};
use sunrise_store::Snapshot;

use crate::api::Past;
use crate::problem::Problem;

/// The calendar of a plan as it stands.
///
/// Every job keeps its UID as long as its sowing does; the sequence grows with each edit, undo and
/// redo, so that a client that reads it again moves what moved.
///
/// # Errors
/// When the plan kept is not sound.
pub fn of(snapshot: Snapshot, past: &Past, fields: &Fields) -> Result<String, Problem> {
    let Snapshot {
        id,
        changes,
        saved_at,
        plan,
        ..
    } = snapshot;
    let plan = past.sound(plan)?;
    let mut calendar = Calendar::empty();
    for (key, value) in [
        ("VERSION", "2.0"),
        ("PRODID", "-//Faint Sunrise//Seedlings//EN"),
        ("CALSCALE", "GREGORIAN"),
        ("X-WR-CALNAME", &printable(&plan.name)),
        ("REFRESH-INTERVAL;VALUE=DURATION", "PT12H"),
    ] {
        calendar.append_property(Property::new(key, value));
    }
    let manner = plan.site.manner();
    let stamp = saved_at.strftime("%Y%m%dT%H%M%SZ").to_string();
    for job in ask::jobs(&plan, fields) {
        // What is done stays in the calendar on the day on which it was done.
        let on = job.done.unwrap_or(job.date);
        let next = on.saturating_add(jiff::Span::new().days(1));
        let day = |date: jiff::civil::Date| date.strftime("%Y%m%d").to_string();
        let dated = |key: &str, date| {
            let parameter = icalendar::Parameter::new("VALUE", "DATE");
            Property::new(key, day(date))
                .append_parameter(parameter)
                .done()
        };
        // Some trays of a sowing may have another day than the others, and a tray moves more than once.
        let mut of = job.sowing.clone();
        if let Some(tray) = &job.tray {
            of = format!("{of}-{tray}");
        }
        if job.what == EventKind::Move {
            of = format!("{of}-{}", day(job.date));
        }
        let mut event = Event::new();
        event
            .uid(&format!(
                "{}-{of}-plan-{id}@faint-sunrise.invalid",
                job.what.word()
            ))
            .append_property(dated("DTSTART", on))
            .append_property(dated("DTEND", next))
            .add_property("DTSTAMP", &stamp)
            .add_property("LAST-MODIFIED", &stamp)
            .add_property("TRANSP", "TRANSPARENT")
            .sequence(u32::try_from(changes).unwrap_or(u32::MAX))
            .summary(&printable(&if job.done.is_some() {
                format!("Done: {}", job.headline.written(manner))
            } else {
                job.headline.written(manner)
            }))
            .description(&printable(&job.note.written(manner)));
        calendar.push(event.done());
    }
    Ok(calendar.done().to_string())
}

/// Without control characters but for line ends, which are escaped: RFC 5545 has none in a text.
fn printable(text: &str) -> String {
    text.chars()
        .filter(|c| !c.is_control() || *c == '\n')
        .collect()
}
