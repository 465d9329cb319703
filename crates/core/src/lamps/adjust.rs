//! What can be moved in a bay: lamps link by link, boxes under trays, dimmers; and when it has to
//! be, as plants grow.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::plus_days;
use crate::basis::words::{Statement, say};
use crate::lamps::choice;
use crate::lamps::choice::{Choice, Setting, Want};
use crate::lamps::chooser::{Now, WORTH_OF_CELLS, choose};
use crate::lamps::hours::HourLimits;
use crate::lamps::outcome::Outcome;
use crate::room::{Adjust, Bay};

/// A setting as a hand carries it out.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Step {
    /// Lamps hang at any height.
    Anywhere,
    /// Chains let out by `links` from the highest; `change` links more (lower) or fewer than now.
    Links {
        /// Links let out.
        links: i32,
        /// Against now; negative takes links in.
        change: i32,
    },
    /// Trays stand on boxes of `lift_mm` together; `change_mm` more or less than now.
    Boxes {
        /// What they stand on.
        lift_mm: f64,
        /// Against now.
        change_mm: f64,
    },
    /// Nothing moves.
    Fixed,
}

/// A change to make on a day, because plants have grown.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Adjustment {
    /// The day.
    pub date: Date,
    /// What to set then.
    pub setting: Setting,
    /// How a hand does it, against the setting before.
    pub step: Step,
    /// From the tallest leaves of that day to the faces then.
    pub gap_mm: f64,
}

/// The lamps as they hang: lamps at different heights count at their mean.
pub fn now(bay: &Bay<'_>) -> Setting {
    let lamps = &bay.tier.lamps;
    let mean = lamps.iter().map(|l| l.height_mm).sum::<f64>() / lamps.len().max(1) as f64;
    let choice = Choice {
        height_mm: mean,
        lift_mm: bay.tier.lift_mm(),
        brightness: 1.0,
    };
    Setting::new(choice, bay.tier.photoperiod_h)
}

/// How far the trays of a bay may reach: their tallest leaves and tops over what they stand on,
/// and the least gap that the lamps keep to leaves.
#[derive(Debug, Clone, Copy)]
pub struct Reach {
    /// The tallest leaves over the trays' feet.
    pub leaves_mm: f64,
    /// The highest dome or rim over the trays' feet.
    pub tops_mm: f64,
    /// Least gap from the leaves to the faces.
    pub least_gap_mm: f64,
}

impl Reach {
    /// With room for what `other` reaches besides.
    pub fn or(self, other: Self) -> Self {
        Self {
            leaves_mm: self.leaves_mm.max(other.leaves_mm),
            tops_mm: self.tops_mm.max(other.tops_mm),
            least_gap_mm: self.least_gap_mm.max(other.least_gap_mm),
        }
    }

    /// The lowest that faces may hang over trays that stand on `lift_mm`.
    pub fn lowest_mm(&self, lift_mm: f64) -> f64 {
        lift_mm + (self.leaves_mm + self.least_gap_mm).max(self.tops_mm)
    }
}

/// Every place of lamps and trays that the bay's way of adjusting allows; heights go by
/// `step_mm` where lamps hang anywhere.
pub fn choices(bay: &Bay<'_>, reach: Reach, step_mm: f64) -> Vec<Choice> {
    let now = now(bay);
    let highest = bay.highest_face_mm();
    let places: Vec<[f64; 2]> = match &bay.tier.adjust {
        None => {
            let lowest = reach.lowest_mm(0.0);
            let mut heights = choice::heights(lowest, highest, step_mm);
            // Where they hang is a choice too, whole step or not.
            if (lowest..=highest).contains(&now.height_mm) && !heights.contains(&now.height_mm) {
                heights.push(now.height_mm);
            }
            heights.into_iter().map(|height| [height, 0.0]).collect()
        }
        Some(Adjust::Chain(chain)) => {
            let links = ((highest - reach.lowest_mm(0.0)) / chain.link_mm).floor() as i32;
            let height = |n: i32| highest - f64::from(n) * chain.link_mm;
            (0..=links).rev().map(|n| [height(n), 0.0]).collect()
        }
        Some(Adjust::Boxes(boxes)) => boxes
            .stacks_mm()
            .into_iter()
            .filter(|&lift| reach.lowest_mm(lift) <= now.height_mm)
            .map(|lift| [now.height_mm, lift])
            .collect(),
        Some(Adjust::Fixed) if reach.lowest_mm(0.0) <= now.height_mm => {
            vec![[now.height_mm, 0.0]]
        }
        Some(Adjust::Fixed) => Vec::new(),
    };
    let bright = brightness(bay);
    places
        .into_iter()
        .flat_map(|[height_mm, lift_mm]| {
            bright.iter().map(move |&brightness| Choice {
                height_mm,
                lift_mm,
                brightness,
            })
        })
        .collect()
}

/// How bright the lamps can burn against now: more than one where all have the same dimmer.
fn brightness(bay: &Bay<'_>) -> Vec<f64> {
    let mut dimmers = bay.tier.lamps.iter().map(|lamp| lamp.dimmer.as_ref());
    let Some(Some(first)) = dimmers.next() else {
        return vec![1.0];
    };
    if !dimmers.all(|dimmer| dimmer == Some(first)) {
        return vec![1.0];
    }
    let now = first.steps.get(first.at).copied().unwrap_or(1.0);
    first.steps.iter().map(|share| share / now).collect()
}

/// How a hand gets from one setting to another.
pub fn step(bay: &Bay<'_>, from: Setting, to: Setting) -> Step {
    match &bay.tier.adjust {
        None => Step::Anywhere,
        Some(Adjust::Chain(chain)) => {
            let links = |mm: f64| (mm / chain.link_mm).round() as i32;
            Step::Links {
                links: links(bay.highest_face_mm() - to.height_mm),
                change: links(from.height_mm - to.height_mm),
            }
        }
        Some(Adjust::Boxes(_)) => Step::Boxes {
            lift_mm: to.lift_mm,
            change_mm: to.lift_mm - from.lift_mm,
        },
        Some(Adjust::Fixed) => Step::Fixed,
    }
}

/// A bay on one of the days to come.
#[allow(missing_debug_implementations)]
pub struct Ahead {
    /// What its seedlings get and want.
    pub wants: Vec<Want<'static>>,
    /// The tray of each of `wants`, and how tall its leaves stand over its feet, in mm.
    pub trays: Vec<(String, f64)>,
    /// How far each tray that stands there reaches, growing or not.
    pub reaches: Vec<(String, Reach)>,
    /// How far all of them do.
    pub reach: Reach,
    /// How long its lamps may burn.
    pub limits: HourLimits,
}

/// A change is made for plants as tall as they will be so many days on.
pub const AHEAD_DAYS: i32 = 4;

impl Ahead {
    /// What can be set here: with room for the leaves of `soon`, or at least of now.
    pub fn choices(&self, bay: &Bay<'_>, soon: Option<&Self>, step_mm: f64) -> Vec<Choice> {
        let roomy = soon.map(|soon| choices(bay, soon.reach.or(self.reach), step_mm));
        match roomy {
            Some(list) if !list.is_empty() => list,
            _ => choices(bay, self.reach, step_mm),
        }
    }

    /// How the lamps would do with `setting`.
    fn with(&self, setting: Setting) -> Now {
        Now {
            setting,
            outcome: choice::outcome_at(&self.wants, setting),
            touches: self.reach.lowest_mm(setting.lift_mm) > setting.height_mm + 1e-6,
        }
    }
}

/// What is to be changed in a bay until its seedlings leave, and how well that does.
#[derive(Debug, Clone, PartialEq)]
pub struct Outlook {
    /// The changes, in order.
    pub adjustments: Vec<Adjustment>,
    /// The last day on which seedlings stand there.
    pub until: Date,
    /// The first day on which, in spite of all changes, a good part of the cells gets the wrong light.
    pub wrong_from: Option<Date>,
}

/// The changes to make from `from` on, while `look` still finds seedlings; at most `days` ahead. The
/// lamps are `now` as they are.
pub fn outlook(
    bay: &Bay<'_>,
    from: Date,
    days: i32,
    step_mm: f64,
    now: &Now,
    look: impl Fn(Date) -> Option<Ahead>,
) -> Outlook {
    let mut now = *now;
    let mut list = Vec::new();
    let (mut until, mut wrong_from) = (from, None);
    for day in 0..days {
        let date = plus_days(from, day);
        let Some(here) = look(date) else { break };
        until = date;
        if day > 0 {
            now = here.with(now.setting);
        }
        let soon = look(plus_days(date, AHEAD_DAYS));
        let choices = here.choices(bay, soon.as_ref(), step_mm);
        let chosen = choose(&here.wants, &choices, here.limits, &now);
        if let Some(best) = chosen.filter(|chosen| chosen.change.is_some()) {
            list.push(Adjustment {
                date,
                setting: best.setting,
                step: step(bay, now.setting, best.setting),
                gap_mm: best.setting.height_mm - best.setting.lift_mm - here.reach.leaves_mm,
            });
            now = here.with(best.setting);
        }
        if wrong_from.is_none() && (now.touches || is_wrong(&now.outcome)) {
            wrong_from = Some(date);
        }
    }
    Outlook {
        adjustments: list,
        until,
        wrong_from,
    }
}

/// Whether more of the cells than is worth a change lie outside what suits them.
fn is_wrong(outcome: &Outcome) -> bool {
    let share = outcome.shares();
    share.under >= WORTH_OF_CELLS || share.harmed > 0.0
}

impl Outlook {
    /// What is to be expected, in words.
    pub fn words(&self, bay: &Bay<'_>) -> Statement {
        let until = self.until;
        match (self.adjustments.len(), self.wrong_from) {
            (0, None) => say!(
                "Leave these lamps alone: every tray gets light enough until {until}, when the last seedlings leave",
                until = until
            ),
            (0, Some(from)) if bay.tier.adjust == Some(Adjust::Fixed) => say!(
                "Fixed as they are, these lamps give some cells too much or too little from {from} on: chains or boxes would help, or fewer or more lamps",
                from = from
            ),
            (0, Some(from)) => say!(
                "No other setting would do noticeably better, yet from {from} on some cells get too much or too little light",
                from = from
            ),
            (n, None) => say!(
                "With {changes}, every tray gets light enough until {until}",
                changes = changes(n),
                until = until
            ),
            (n, Some(from)) => say!(
                "{changes} until {until}, yet from {from} some cells get too much or too little light",
                changes = changes(n),
                until = until,
                from = from
            ),
        }
    }
}

fn changes(n: usize) -> String {
    if n == 1 {
        "one change".into()
    } else {
        format!("{n} changes")
    }
}
