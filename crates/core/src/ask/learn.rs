//! What a season teaches: corrections and what they change, two batches, causes, and what the next year takes over.

use std::sync::Arc;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::ask::assess::{Assessment, assess_again};
use crate::basis::dates::DateSpan;
use crate::basis::fault::Fault;
use crate::basis::words::Statement;
use crate::batches::batch::Batch;
use crate::batches::comparison::{Comparison, InSeason};
use crate::day::detail::Detail;
use crate::diagnosis::Diagnosis;
use crate::diagnosis::symptom::Symptom;
use crate::learning::handed_on::HandedOn;
use crate::learning::lesson::Lesson;
use crate::learning::meaning::Meaning;
use crate::light::fields::Fields;
use crate::log::entry::Entry;
use crate::log::told::Told;
use crate::plan::patch::patched;
use crate::plan::{Plan, SoundPlan};
use crate::season::{Reckoned, dates_again};
use crate::{batches, diagnosis, learning};

/// A season: its plan after its log, and that log.
#[derive(Debug, Clone, Copy)]
pub struct SeasonTold<'a> {
    /// The plan.
    pub plan: &'a SoundPlan,
    /// The log.
    pub told: &'a Told,
}

/// What accepting a lesson changes.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct LessonEffect {
    /// Days that move, the first first.
    pub moved: Vec<MovedDay>,
    /// How many more days move.
    pub more_moved: usize,
    /// Findings that are settled by it.
    pub settled: Vec<Statement>,
    /// Findings that it brings to light.
    pub found: Vec<Statement>,
}

/// A day of a sowing that moves.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct MovedDay {
    /// Crop and variety in words.
    pub name: String,
    /// Which day.
    pub what: MovedWhat,
    /// As it is.
    pub from: Date,
    /// As it will be.
    pub to: Date,
}

/// Which day of a sowing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MovedWhat {
    /// It is sown.
    Sow,
    /// Half of it shows.
    Show,
    /// It goes out.
    Out,
}

/// Lists of what changes end here.
const MOST_SHOWN: usize = 8;

/// What the log teaches of the plan; see [`learning::lessons`].
pub fn lessons(season: SeasonTold<'_>, put_in: &[String], fields: &Fields) -> Vec<Lesson> {
    learning::lessons(&Reckoned::of(season.plan, fields), season.told, put_in)
}

/// What accepting the lesson called `id` would change, looked at on `date`; `None` where there is no such lesson, or
/// nothing in it to accept.
///
/// # Errors
/// What the plan would be at fault for.
pub fn lesson_effect(
    season: SeasonTold<'_>,
    id: &str,
    put_in: &[String],
    date: Date,
    fields: &Fields,
) -> Result<Option<LessonEffect>, Vec<Fault>> {
    let lessons = lessons(season, put_in, fields).into_iter();
    let Some(fix) = lessons.filter(|own| own.id == id).find_map(|own| own.fix) else {
        return Ok(None);
    };
    let Ok(then) = patched(season.plan, &fix.patch) else {
        return Ok(None);
    };
    let then = season.plan.changed_to(then)?;
    let of = |plan: &SoundPlan| assess_again(plan, DateSpan::day(date), Detail::Outline, fields);
    Ok(Some(changes(&of(season.plan), &of(&then))))
}

fn changes(now: &Assessment, then: &Assessment) -> LessonEffect {
    let mut moved = Vec::new();
    for (a, b) in now.sowings.iter().zip(&then.sowings) {
        let mut add = |what, from: Option<Date>, to: Option<Date>| {
            if let (Some(from), Some(to)) = (from, to)
                && from != to
            {
                let name = a.name.clone();
                moved.push(MovedDay {
                    name,
                    what,
                    from,
                    to,
                });
            }
        };
        add(MovedWhat::Sow, Some(a.sow), Some(b.sow));
        add(MovedWhat::Show, a.emerge, b.emerge);
        add(MovedWhat::Out, Some(a.out), Some(b.out));
    }
    moved.sort_by_key(|own| own.to);
    let more_moved = moved.len().saturating_sub(MOST_SHOWN);
    moved.truncate(MOST_SHOWN);
    let only_in = |a: &Assessment, b: &Assessment| {
        let own = a
            .findings
            .iter()
            .filter(|own| b.findings.iter().all(|other| other.id != own.id));
        own.take(MOST_SHOWN)
            .map(|own| own.headline.clone())
            .collect()
    };
    LessonEffect {
        moved,
        more_moved,
        settled: only_in(now, then),
        found: only_in(then, now),
    }
}

/// What a reading means when it is typed; see [`learning::meaning::meaning`].
pub fn meaning(season: SeasonTold<'_>, entry: &Entry, fields: &Fields) -> Option<Meaning> {
    learning::meaning::meaning(&Reckoned::of(season.plan, fields), season.told, entry)
}

/// Two batches compared, of one season or of two; see [`batches::comparison`].
///
/// # Errors
/// What a batch names and its plan lacks.
pub fn compare_batches(
    (a, one): (SeasonTold<'_>, &Batch),
    (b, two): (SeasonTold<'_>, &Batch),
    fields: &Fields,
) -> Result<Comparison, Vec<Fault>> {
    let (first, second) = (Reckoned::of(a.plan, fields), Reckoned::of(b.plan, fields));
    batches::comparison::Comparison::of(
        InSeason {
            reckoned: &first,
            told: a.told,
            batch: one,
        },
        InSeason {
            reckoned: &second,
            told: b.told,
            batch: two,
        },
    )
}

/// What is seen in a tray, and what it comes from; see [`diagnosis::diagnose`].
pub fn diagnose(
    season: SeasonTold<'_>,
    tray: &str,
    symptom: Symptom,
    on: Date,
    fields: &Fields,
) -> Option<Diagnosis> {
    let reckoned = Reckoned::of(season.plan, fields);
    diagnosis::diagnose(&reckoned, season.told, tray, symptom, on)
}

/// What the season hands on to the next; see [`learning::handed_on`].
pub fn handed_on(plan: &SoundPlan, fields: &Fields) -> Vec<HandedOn> {
    let planned = plan.clone().after(Arc::default());
    let planned = dates_again(&planned, fields);
    learning::handed_on::handed_on(&Reckoned::of(plan, fields), &planned)
}

/// The next year's plan, with what is `handed_on` taken over where its name is among `takes`; as it usually is where
/// nobody says.
pub fn next_year(plan: &SoundPlan, takes: Option<&[String]>, fields: &Fields) -> Plan {
    let handed_on = handed_on(plan, fields);
    let takes = |own: &HandedOn| takes.map_or(own.taken, |takes| takes.contains(&own.id));
    learning::handed_on::next_year((**plan).clone(), &handed_on, takes)
}
