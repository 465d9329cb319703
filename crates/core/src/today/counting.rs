//! Counting what is up: every other day, until no more comes.

use jiff::civil::Date;

use crate::basis::dates::plus_days;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::crops::GrownFrom;
use crate::log::fact::Fact;
use crate::plan::Tray;
use crate::season::SowingDates;
use crate::today::job::{Asks, Job, JobFact, JobKind};
use crate::today::look::{Placed, Walk, Where, again};

/// From one count to the next (common practice, no source).
const EVERY_DAYS: i32 = 2;
/// So long after all should be up nobody counts any more.
const PATIENCE_DAYS: i32 = 10;

/// Trays that are to be counted.
struct Counting {
    at: Where,
    due: Date,
    notes: Vec<JobFact>,
    names: Vec<String>,
    reason: Statement,
}

/// A count in each place where something is coming up.
pub(super) fn jobs(walk: &Walk<'_, '_>) -> Vec<Placed> {
    let mut places: Vec<Counting> = Vec::new();
    for own in walk
        .reckoned
        .dates
        .iter()
        .filter_map(|dates| of(walk, dates))
    {
        match places.iter_mut().find(|here| here.at.same_place(&own.at)) {
            Some(here) => {
                here.due = here.due.min(own.due);
                here.notes.extend(own.notes);
                here.names.extend(own.names);
                here.reason = say!(
                    "Cells in which something shows. The count shows how good seed and warmth are, and the dates follow it"
                );
            }
            None => places.push(own),
        }
    }
    let each = places.into_iter();
    each.map(|own| {
        let headline = match &own.names[..] {
            [one] => say!("Count {name}", name = one),
            all => say!(
                "Count what is up: {n} kinds",
                n = Quantity::Count.of(all.len() as f64)
            ),
        };
        let id = format!("count/{}", own.at.place().unwrap_or_default());
        let words = [headline, own.reason];
        let job = walk.job((id, JobKind::Count, own.due), words, &own.at, own.notes);
        let job = Job {
            recurring: true,
            asks: Some(Asks::Count),
            ..job
        };
        (own.at, job)
    })
    .collect()
}

fn of(walk: &Walk<'_, '_>, dates: &SowingDates) -> Option<Counting> {
    let plan = walk.reckoned.plan;
    let sowing = &plan.sowings[plan.sowing_index(&dates.sowing)];
    if sowing.stays.is_some() || plan.crop(sowing).grown_from != GrownFrom::Seed {
        return None;
    }
    let first = dates.first?;
    let ends = plus_days(dates.last.unwrap_or(first), PATIENCE_DAYS);
    let counted = dates.seen;
    if walk.date > ends || counted.is_some_and(|seen| seen.all || seen.count == seen.of) {
        return None;
    }
    let done = |tray: &&Tray| {
        let past = plan.happened().tray(&tray.id);
        past.is_some_and(|p| p.thinned.or(p.pricked_out).or(p.potted_on).is_some())
    };
    let trays: Vec<&Tray> = plan
        .sown_in(&sowing.id)
        .filter(|tray| !done(tray) && walk.is_sown(&tray.id))
        .collect();
    let at = walk.stands(&trays.first()?.id, walk.date);
    let begins = first.max(walk.date);
    let due = again(counted.map(|seen| seen.on), EVERY_DAYS, begins);
    if at == Where::Table || due > plus_days(walk.date, 1) {
        return None;
    }
    let note = |tray: &&Tray| {
        let of = plan.cells_in(tray, &sowing.id);
        let past = plan.happened().tray(&tray.id);
        let counts = past.map_or(&[][..], |past| &past.counts).iter();
        let mut own = counts.filter(|c| c.sowing.as_ref().is_none_or(|id| *id == sowing.id));
        let fact = Fact::Shown {
            tray: tray.id.clone(),
            sowing: (tray.parts.len() > 1).then(|| sowing.id.clone()),
            count: own.next_back().map_or(0, |count| count.count.min(of)),
            of,
        };
        JobFact {
            most: Some(of),
            to: Some(say!("{name}", name = &dates.name)),
            ..JobFact::of(tray, fact)
        }
    };
    let reason = match counted {
        Some(seen) => say!(
            "{count} of {of} on {day}. The count shows how good the seed and the warmth are",
            count = Quantity::Count.of(f64::from(seen.count)),
            of = Quantity::Count.of(f64::from(seen.of)),
            day = seen.on
        ),
        None => say!(
            "The first should show about {first}. From the count on, the dates go by what you saw",
            first = first
        ),
    };
    Some(Counting {
        notes: trays.iter().map(note).collect(),
        names: vec![dates.name.clone()],
        at,
        due,
        reason,
    })
}
