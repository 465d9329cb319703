//! What happened in a season, tray by tray, as far as its dates and jobs follow from it: what the log says,
//! in short. It is no part of the document.

use std::collections::HashMap;

use jiff::civil::Date;

use crate::room::BayRef;

/// What happened, by tray and by job. Trays that the plan has no more are of no account.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Happened {
    trays: HashMap<String, TrayPast>,
    jobs: HashMap<String, JobPast>,
    bays: HashMap<BayRef, BayPast>,
}

/// What happened to a tray.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct TrayPast {
    /// The day it was sown.
    pub sown: Option<Date>,
    /// What was counted, in order.
    pub counts: Vec<Count>,
    /// The day its dome was vented.
    pub vented: Option<Date>,
    /// The day its dome came off.
    pub dome_off: Option<Date>,
    /// The day it was thinned.
    pub thinned: Option<Date>,
    /// The day plants were first pricked out of it.
    pub pricked_out: Option<Date>,
    /// The day plants were first potted on out of it.
    pub potted_on: Option<Date>,
    /// The day plants were first pricked out or potted on into it.
    pub potted_into: Option<Date>,
    /// Where it was carried, in order.
    pub moved: Vec<(Date, BayRef)>,
    /// The last time it was watered, and with how much, in ml.
    pub watered: Option<(Date, Option<f64>)>,
    /// The day it was fed last.
    pub fed: Option<Date>,
    /// The first day it stood outdoors to harden off.
    pub hardened_from: Option<Date>,
    /// Days that it stood outdoors to harden off.
    pub hardened_days: u32,
    /// The last day it was carried out, or back in, and whether it is outdoors since.
    pub outdoors: Option<(Date, bool)>,
    /// The day it was planted out.
    pub planted_out: Option<Date>,
    /// Plants that it was counted or thinned to last, or that were potted into it.
    pub plants: Option<u32>,
    /// Plants that were lost since.
    pub lost: u32,
}

/// Seedlings that were counted.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Count {
    /// The day.
    pub on: Date,
    /// Which of the sowings in the tray; all of them when `None`.
    pub sowing: Option<String>,
    /// Cells in which something showed.
    pub count: u32,
    /// Of so many.
    pub of: u32,
}

/// What became of a job that has no fact of its own.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct JobPast {
    /// The last day it was done.
    pub done: Option<Date>,
    /// It is put off until this day.
    pub put_off: Option<Date>,
    /// The last day it was said to be skipped.
    pub skipped: Option<Date>,
}

/// What was set in a bay.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct BayPast {
    /// The last day its lamps were set.
    pub lamps_set: Option<Date>,
    /// The last day its mats were switched, and whether they are on since.
    pub mats: Option<(Date, bool)>,
}

impl Happened {
    /// Whether nothing is known to have happened.
    pub fn is_empty(&self) -> bool {
        self.trays.is_empty() && self.jobs.is_empty() && self.bays.is_empty()
    }

    /// What happened to the tray called `id`; `None` when nothing did.
    pub fn tray(&self, id: &str) -> Option<&TrayPast> {
        self.trays.get(id)
    }

    /// What became of the job called `id`.
    pub fn job(&self, id: &str) -> JobPast {
        self.jobs.get(id).copied().unwrap_or_default()
    }

    /// What was set in `bay`.
    pub fn bay(&self, bay: &BayRef) -> BayPast {
        self.bays.get(bay).copied().unwrap_or_default()
    }

    /// The past of the tray called `id`, to add to.
    pub fn tray_mut(&mut self, id: &str) -> &mut TrayPast {
        self.trays.entry(id.to_owned()).or_default()
    }

    /// The past of the job called `id`, to add to.
    pub fn job_mut(&mut self, id: &str) -> &mut JobPast {
        self.jobs.entry(id.to_owned()).or_default()
    }

    /// The past of `bay`, to add to.
    pub fn bay_mut(&mut self, bay: &BayRef) -> &mut BayPast {
        self.bays.entry(bay.clone()).or_default()
    }
}
