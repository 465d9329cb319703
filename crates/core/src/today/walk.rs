//! The jobs of a day in the order in which somebody walks round the room.

use std::collections::HashSet;
use std::ops::RangeInclusive;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::plus_days;
use crate::basis::words::{Statement, say};
use crate::day::view::BayView;
use crate::season::Reckoned;
use crate::season::jobs;
use crate::season::jobs::{Event, EventKind, on_tray};
use crate::today::job::{Job, Pressing};
use crate::today::look::{Placed, Walk, Where};
use crate::today::unlogged::Unlogged;
use crate::today::{counting, dated, feeding, gear, hardening, unlogged, upkeep, watering};

/// What is to be done on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Today {
    /// The day.
    pub date: Date,
    /// The stops of the walk, in order; those without a job are left out.
    pub stops: Vec<Stop>,
    /// Jobs to do on the day.
    pub open: u32,
    /// Jobs that can wait.
    pub waiting: u32,
    /// Jobs of long ago that nobody logged; `None` where there are none.
    pub unlogged: Option<Unlogged>,
    /// The next day on which a job falls due, where nothing is open; `None` when nothing comes any more.
    pub next: Option<Date>,
}

/// A stop of the walk.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Stop {
    /// The place; `None` for the table, and for outdoors.
    pub place: Option<String>,
    /// What it is called.
    pub name: Statement,
    /// What to do there.
    pub jobs: Vec<Job>,
    /// What can wait, or can be done early.
    pub waiting: Vec<Job>,
}

/// So many days ahead jobs are shown, to be done early.
const EARLY_DAYS: i32 = 3;
/// What is overdue for longer was done, and not logged, or never will be.
const LONG_AGO_DAYS: i32 = 14;
/// Nobody gets more lines at once: what presses least waits.
const MOST_OPEN: usize = 16;

impl Today {
    /// What is to be done on `date`, when every bay is as `views` show it.
    pub fn of<'a>(reckoned: &'a Reckoned<'a>, date: Date, views: &[BayView<'a>]) -> Self {
        let events = jobs::all(reckoned);
        let long_ago = plus_days(date, -LONG_AGO_DAYS);
        let walk = Walk {
            reckoned,
            date,
            views,
            unsown: unsown(reckoned, &events, long_ago..=date),
        };
        let soon = plus_days(date, EARLY_DAYS);
        let skipped = |event: &Event| reckoned.plan.happened().job(&event.id).skipped.is_some();
        let open = events
            .iter()
            .filter(|event| event.done.is_none() && !skipped(event));
        let (due, later): (Vec<_>, Vec<_>) = open.partition(|event| event.date <= soon);
        let (mut gone, due): (Vec<_>, Vec<_>) = due.into_iter().partition(|e| e.date < long_ago);
        let (superseded, due) = walk.superseded(due);
        gone.extend(superseded);
        // What is done whenever it is wanted is not made up for.
        gone.retain(|event| event.what.is_a_step());
        let mut placed: Vec<Placed> = Vec::new();
        for event in due {
            placed.extend(dated::job(&walk, &events, event));
        }
        placed.extend(counting::jobs(&walk));
        placed.extend(gear::lamps(&walk));
        placed.extend(watering::jobs(&walk));
        placed.extend(feeding::jobs(&walk));
        placed.extend(hardening::jobs(&walk));
        placed.extend(upkeep::jobs(&walk));
        placed.retain(|(_, job)| walk.is_open(job));
        let next = later.iter().map(|event| event.date).min();
        walk.stops(placed, unlogged::of(&walk, &gone), next)
    }
}

impl<'a> Walk<'a, '_> {
    /// Whether it was not put off, nor skipped since it fell due.
    fn is_open(&self, job: &Job) -> bool {
        let past = self.reckoned.plan.happened().job(&job.id);
        let put_off = past.put_off.is_some_and(|until| self.date < until);
        let skipped = past
            .skipped
            .is_some_and(|day| day >= job.due || !job.recurring);
        !put_off && !skipped
    }

    /// Of the jobs that are `due`, those that a later one makes idle, and the others: the last step of a tray
    /// that is due shows that those before it were done. Where anything is logged, what was not logged as sown
    /// is still to be sown.
    fn superseded<'e>(&self, due: Vec<&'e Event>) -> (Vec<&'e Event>, Vec<&'e Event>) {
        let logging = !self.reckoned.plan.happened().is_empty();
        let due_now = due.iter().copied();
        let due_now: Vec<&Event> = due_now.filter(|e| e.date <= self.date).collect();
        let passed = |event: &Event| {
            let mut others = due_now.iter();
            let idle = event.what.is_a_step()
                && event.date <= self.date
                && !event.trays.is_empty()
                && !(logging && event.what == EventKind::Sow);
            idle && others.any(|other| {
                let later =
                    other.what.is_a_step() && other.what > event.what && other.date >= event.date;
                later && event.trays.iter().all(|tray| other.trays.contains(tray))
            })
        };
        due.into_iter().partition(|event| passed(event))
    }

    /// Where in the walk a job comes: the table, chambers, the other places as they stand from the left,
    /// outdoors; in each from the top down.
    fn order(&self, at: &Where) -> (u8, usize, usize) {
        let plan = self.reckoned.plan;
        match at {
            Where::Table => (0, 0, 0),
            Where::Outside => (4, 0, 0),
            Where::At(bay) => match plan.bay(bay) {
                Some(bay) => {
                    let rank = match () {
                        () if bay.place.outdoors() => 3,
                        () if bay.place.chamber().is_some() => 1,
                        () => 2,
                    };
                    let down = bay.place.tiers.len() - bay.tier_index;
                    (rank, bay.place_index, down)
                }
                None => (0, 0, 0),
            },
        }
    }

    fn stops(
        &self,
        mut placed: Vec<Placed>,
        unlogged: Option<Unlogged>,
        next: Option<Date>,
    ) -> Today {
        placed.sort_by_cached_key(|(at, job)| (self.order(at), job.what, job.due, job.id.clone()));
        let mut pressing: Vec<usize> = (0..placed.len()).collect();
        pressing.retain(|&i| !can_wait(&placed[i].1));
        pressing.sort_by_key(|&i| (placed[i].1.what, placed[i].1.due));
        pressing.truncate(MOST_OPEN);
        let mut stops: Vec<Stop> = Vec::new();
        let (mut open, mut waiting) = (0, 0);
        for (i, (at, job)) in placed.into_iter().enumerate() {
            let (place, name) = self.stop(&at);
            if stops.last().is_none_or(|stop| stop.name != name) {
                stops.push(Stop {
                    place,
                    name,
                    jobs: Vec::new(),
                    waiting: Vec::new(),
                });
            }
            let Some(stop) = stops.last_mut() else {
                continue;
            };
            if pressing.contains(&i) {
                open += 1;
                stop.jobs.push(job);
            } else {
                waiting += 1;
                stop.waiting.push(job);
            }
        }
        Today {
            date: self.date,
            stops,
            open,
            waiting,
            unlogged,
            next,
        }
    }

    fn stop(&self, at: &Where) -> (Option<String>, Statement) {
        match at {
            Where::Table => (None, say!("At the table")),
            Where::Outside => (None, say!("Outside")),
            Where::At(bay) => {
                let place = self.reckoned.plan.place(&bay.place);
                let name = place.map_or(bay.place.as_str(), |place| place.name.as_str());
                (Some(bay.place.clone()), say!("{place}", place = name))
            }
        }
    }
}

/// Whether nothing is lost by leaving it for today.
fn can_wait(job: &Job) -> bool {
    match job.pressing {
        Pressing::Early(_) => true,
        Pressing::Due => job.recurring,
        // A week late even what recurs is pressing.
        Pressing::Overdue(days) => job.recurring && days < 7,
    }
}

/// The trays that are not sown though their day has come, as far as anything is logged: nothing else is to be
/// done to them. What was to be sown before these `days` was sown and not logged, unless that was skipped.
fn unsown<'e>(
    reckoned: &Reckoned<'_>,
    events: &'e [Event],
    days: RangeInclusive<Date>,
) -> HashSet<&'e str> {
    let plan = reckoned.plan;
    if plan.happened().is_empty() {
        return HashSet::new();
    }
    let waits = |event: &&Event| {
        let skipped = plan.happened().job(&event.id).skipped.is_some();
        event.what == EventKind::Sow && (skipped || days.contains(&event.date))
    };
    let open = events.iter().filter(|event| event.done.is_none());
    open.filter(waits)
        .flat_map(|event| {
            let trays = event.trays.iter().map(String::as_str);
            trays.filter(|tray| on_tray(plan, event, tray).is_none())
        })
        .collect()
}
