//! Jobs of long ago that nobody logged: who begins in the middle of a season notes them in one go.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::log::fact::Fact;
use crate::season::jobs::Event;
use crate::today::dated;
use crate::today::look::Walk;

/// Jobs of long ago without an entry in the log.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Unlogged {
    /// So many jobs.
    pub jobs: u32,
    /// The day of the first.
    pub from: Date,
    /// The day of the last.
    pub to: Date,
    /// What to note if all went as planned, each on its day.
    pub facts: Vec<DatedFact>,
}

/// A fact with its day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DatedFact {
    /// The day.
    pub on: Date,
    /// What would have happened.
    pub fact: Fact,
}

/// Of `events`, none of which was done. What nobody can know is not among the facts: how many came up.
pub(super) fn of(walk: &Walk<'_, '_>, events: &[&Event]) -> Option<Unlogged> {
    let days = || events.iter().map(|event| event.date);
    let (from, to) = (days().min()?, days().max()?);
    let facts = events.iter().flat_map(|event| {
        let jobs = dated::job(walk, &[], event).into_iter();
        let facts = jobs.flat_map(|(_, job)| match job.asks {
            Some(_) => vec![Fact::Done {
                job: event.id.clone(),
            }],
            None => job.notes.into_iter().map(|note| note.fact).collect(),
        });
        let on = event.date;
        facts.map(move |fact| DatedFact { on, fact })
    });
    Some(Unlogged {
        jobs: events.len() as u32,
        from,
        to,
        facts: facts.collect(),
    })
}
