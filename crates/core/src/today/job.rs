//! A job of a day.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::days_between;
use crate::basis::words::Statement;
use crate::log::fact::Fact;
use crate::room::BayRef;
use crate::today::recipe::Recipe;

/// Something to do on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Job {
    /// What it is called in the log: it stays the same from day to day.
    pub id: String,
    /// What is done.
    pub what: JobKind,
    /// The day on which it falls due.
    pub due: Date,
    /// Whether it is late, due or early.
    pub pressing: Pressing,
    /// Whether it comes again and again: nothing is lost where it waits for a day.
    pub recurring: bool,
    /// What to do.
    pub headline: Statement,
    /// Why, and how.
    pub reason: Statement,
    /// Where; `None` where it is at no bay in particular.
    pub bay: Option<BayRef>,
    /// The same in words; empty where it is at none.
    pub bay_name: String,
    /// What is noted when it is done, tray by tray.
    pub notes: Vec<JobFact>,
    /// What to type, tray by tray, before it is noted; `None` where one tap does.
    pub asks: Option<Asks>,
    /// How a sowing is made; `None` for other jobs.
    pub recipe: Option<Recipe>,
}

/// What is noted of a tray when a job is done to it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct JobFact {
    /// The tray; `None` where it is about no tray.
    pub tray: Option<String>,
    /// What its label says; empty without a tray.
    pub label: String,
    /// The fact, with the number that is expected where one is asked for.
    pub fact: Fact,
    /// The most that can be counted; `None` where nothing is.
    pub most: Option<u32>,
    /// Where the tray goes; `None` where it stays.
    pub to: Option<Statement>,
}

impl JobFact {
    /// Of a tray, with nothing to type.
    pub(super) fn of(tray: &crate::plan::Tray, fact: Fact) -> Self {
        Self {
            tray: Some(tray.id.clone()),
            label: tray.name.clone(),
            fact,
            most: None,
            to: None,
        }
    }

    /// Of no tray.
    pub(super) fn plain(fact: Fact) -> Self {
        Self {
            tray: None,
            label: String::new(),
            fact,
            most: None,
            to: None,
        }
    }
}

/// What is typed before a job is noted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Asks {
    /// Cells in which something shows.
    Count,
    /// Plants.
    Plants,
    /// Water, which may be left out.
    Water,
}

/// What a job is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum JobKind {
    /// Carry in what a frost would kill.
    FrostNight,
    /// Bring in what hardens off by day.
    BackIn,
    /// Into the light.
    IntoLight,
    /// Lamps on over what has come up.
    LightOn,
    /// Lift a dome, and unplug the mat.
    LiftDome,
    /// Vent a dome.
    Vent,
    /// Mat off.
    MatOff,
    /// Set lamps, or boxes under trays.
    Lamps,
    /// Water.
    Water,
    /// Carry to another spot.
    Move,
    /// Count what is up.
    Count,
    /// Sow.
    Sow,
    /// Put seed cold and moist.
    Chill,
    /// Thin.
    Thin,
    /// Prick out.
    PrickOut,
    /// Pot on.
    PotOn,
    /// Harden off.
    Harden,
    /// Plant out.
    PlantOut,
    /// Feed.
    Feed,
    /// Cut back.
    CutBack,
    /// Turn trays.
    Turn,
    /// Look for gnats.
    Gnats,
    /// Clean.
    Clean,
}

/// How pressing a job is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Pressing {
    /// It fell due so many days ago.
    Overdue(i32),
    /// It is due.
    Due,
    /// It falls due in so many days.
    Early(i32),
}

impl Pressing {
    /// Of a job that falls due on a day, on `date`.
    pub(super) fn of(due: Date, date: Date) -> Self {
        match days_between(due, date) {
            0 => Self::Due,
            late if late > 0 => Self::Overdue(late),
            early => Self::Early(-early),
        }
    }
}
