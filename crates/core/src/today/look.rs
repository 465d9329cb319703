//! What the jobs of a day are found by: the plan, the day, and every bay on it.

use std::collections::HashSet;

use jiff::civil::Date;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::words::Statement;
use crate::day::view::BayView;
use crate::plan::Tray;
use crate::room::BayRef;
use crate::season::Reckoned;
use crate::season::stays::Stay;
use crate::today::job::{Job, JobFact, JobKind, Pressing};

/// Where a job is done.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Where {
    /// At the table: what stands nowhere yet.
    Table,
    /// At a bay.
    At(BayRef),
    /// Outdoors, at no place of the plan's.
    Outside,
}

impl Where {
    /// The place it is in; `None` at the table and outdoors.
    pub(super) fn place(&self) -> Option<&str> {
        match self {
            Self::At(bay) => Some(&bay.place),
            _ => None,
        }
    }

    /// Whether both are at one stop of the walk.
    pub(super) fn same_place(&self, other: &Self) -> bool {
        match (self, other) {
            (Self::At(a), Self::At(b)) => a.place == b.place,
            (a, b) => a == b,
        }
    }
}

/// All that jobs of a day are found by.
pub(super) struct Walk<'a, 'v> {
    pub(super) reckoned: &'a Reckoned<'a>,
    pub(super) date: Date,
    /// Every bay on the day.
    pub(super) views: &'v [BayView<'a>],
    /// Trays that wait to be sown though their day has come: nothing else is to be done to them.
    pub(super) unsown: HashSet<&'v str>,
}

/// A job with where it is done.
pub(super) type Placed = (Where, Job);

impl<'a> Walk<'a, '_> {
    /// Whether the tray called `id` is sown by now, or was not to be yet.
    pub(super) fn is_sown(&self, id: &str) -> bool {
        !self.unsown.contains(id)
    }

    /// The tray called `id`.
    pub(super) fn tray(&self, id: &str) -> Option<&'a Tray> {
        let plan = self.reckoned.plan;
        Some(&plan.trays[plan.tray_index(id)?])
    }

    /// Where the tray called `id` stands on `day`; where it goes next, or stood last, when it stands
    /// nowhere then.
    pub(super) fn stands(&self, id: &str, day: Date) -> Where {
        let own = || self.reckoned.stays.iter().filter(|stay| stay.tray.id == id);
        let at = |stay: &Stay<'_>| Where::At(stay.bay.clone());
        let here = own().find(|stay| stay.days.contains(day));
        let next = own().find(|stay| stay.days.from > day);
        let last = own().rfind(|stay| stay.days.to < day);
        here.or(next).or(last).map_or(Where::Table, at)
    }

    /// The name of a bay.
    pub(super) fn bay_name(&self, bay: &BayRef) -> String {
        let bay = self.reckoned.plan.bay(bay);
        bay.map_or_else(String::new, |bay| bay.name())
    }

    /// A job with nothing to type.
    pub(super) fn job(
        &self,
        (id, what, due): (String, JobKind, Date),
        [headline, reason]: [Statement; 2],
        at: &Where,
        notes: Vec<JobFact>,
    ) -> Job {
        let bay = match at {
            Where::At(bay) => Some(bay.clone()),
            _ => None,
        };
        Job {
            id,
            what,
            due,
            pressing: Pressing::of(due, self.date),
            recurring: false,
            headline,
            reason,
            bay_name: bay
                .as_ref()
                .map_or_else(String::new, |bay| self.bay_name(bay)),
            bay,
            notes,
            asks: None,
            recipe: None,
        }
    }
}

/// The day after `last` by so many days, or `begins` where it was never done.
pub(super) fn again(last: Option<Date>, every_days: i32, begins: Date) -> Date {
    last.map_or(begins, |last| plus_days(last, every_days))
}

/// Whether `day` lies so many days back at the most.
pub(super) fn lately(day: Date, date: Date, days: i32) -> bool {
    (0..=days).contains(&days_between(day, date))
}
