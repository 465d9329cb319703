//! What can be moved in a bay: lamps link by link, boxes under trays, dimmers; and when it has to
//! be, as plants grow.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::plus_days;
use crate::basis::words::{Statement, say};
use crate::lamps::choice;
use crate::lamps::choice::{Choice, Setting, Want};
use crate::lamps::hours::HourLimits;
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
            let heights = choice::heights(reach.lowest_mm(0.0), highest, step_mm);
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
    /// The tray of each of `wants`.
    pub trays: Vec<String>,
    /// How far its trays reach.
    pub reach: Reach,
    /// How long its lamps may burn.
    pub limits: HourLimits,
}

/// A best setting that misses by less is good enough for all.
const GOOD_ENOUGH: f64 = 0.15;

impl Ahead {
    /// The tray without which the others would fare so much better that it had better stand
    /// elsewhere, where the best of `choices` still misses by `miss`; `None` when all fare well,
    /// or none stands out.
    pub fn misfit(&self, choices: &[Choice], miss: f64) -> Option<Misfit> {
        let mut ids: Vec<&String> = self.trays.iter().collect();
        ids.dedup();
        if miss <= GOOD_ENOUGH || ids.len() < 2 {
            return None;
        }
        let without = |tray: &String| {
            let others: Vec<Want<'_>> = self
                .wants
                .iter()
                .zip(&self.trays)
                .filter(|(_, of)| *of != tray)
                .map(|(want, _)| want.clone())
                .collect();
            let best = choice::best(&others, choices, self.limits)?;
            Some(Misfit {
                tray: tray.clone(),
                miss: choice::miss(&others, best),
            })
        };
        let best = ids
            .into_iter()
            .filter_map(without)
            .min_by(|a, b| a.miss.total_cmp(&b.miss))?;
        (best.miss < miss / 2.0).then_some(best)
    }
}

/// A tray that keeps the others of its bay from good light.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Misfit {
    /// The tray.
    pub tray: String,
    /// How far the best setting for the others misses their bands.
    pub miss: f64,
}

/// How much further than when it was set a setting may miss the bands before it is changed.
const DRIFT: f64 = 0.06;
/// A change is made for plants as tall as they will be so many days on.
const AHEAD_DAYS: i32 = 4;

/// What is to be changed in a bay until its seedlings leave, and how well that does.
#[derive(Debug, Clone, PartialEq)]
pub struct Outlook {
    /// The changes, in order.
    pub adjustments: Vec<Adjustment>,
    /// The last day on which seedlings stand there.
    pub until: Date,
    /// The first day on which, in spite of all changes, a tray's mean lies outside its band.
    pub outside_from: Option<Date>,
}

/// The changes to make from `from` on, while `look` still finds seedlings; at most `days` ahead.
pub fn outlook(
    bay: &Bay<'_>,
    from: Date,
    days: i32,
    step_mm: f64,
    look: impl Fn(Date) -> Option<Ahead>,
) -> Outlook {
    let mut setting = now(bay);
    let mut set_miss: Option<f64> = None;
    let mut list = Vec::new();
    let (mut until, mut outside_from) = (from, None);
    for day in 0..days {
        let date = plus_days(from, day);
        let Some(here) = look(date) else { break };
        until = date;
        let miss = choice::miss(&here.wants, setting);
        let touches = here.reach.lowest_mm(setting.lift_mm) > setting.height_mm;
        if set_miss.is_some_and(|set| miss <= set + DRIFT) && !touches {
            note_outside(&mut outside_from, date, &here, setting);
            continue;
        }
        let later = look(plus_days(date, AHEAD_DAYS));
        let soon = later.as_ref().unwrap_or(&here);
        let choices = choices(bay, soon.reach, step_mm);
        let missed = |setting| choice::miss(&soon.wants, setting);
        let best = choice::best(&soon.wants, &choices, soon.limits)
            .filter(|best| touches || missed(*best) + choice::SAME < missed(setting));
        if let Some(best) = best.filter(|best| *best != setting) {
            list.push(Adjustment {
                date,
                setting: best,
                step: step(bay, setting, best),
                gap_mm: best.height_mm - best.lift_mm - here.reach.leaves_mm,
            });
            setting = best;
        }
        set_miss = Some(missed(setting).max(choice::miss(&here.wants, setting)));
        note_outside(&mut outside_from, date, &here, setting);
    }
    Outlook {
        adjustments: list,
        until,
        outside_from,
    }
}

fn note_outside(first: &mut Option<Date>, date: Date, here: &Ahead, setting: Setting) {
    let touches = here.reach.lowest_mm(setting.lift_mm) > setting.height_mm;
    if first.is_none() && (touches || choice::a_mean_is_outside(&here.wants, setting)) {
        *first = Some(date);
    }
}

impl Outlook {
    /// What is to be expected, in words.
    pub fn words(&self, bay: &Bay<'_>) -> Statement {
        let until = self.until;
        match (self.adjustments.len(), self.outside_from) {
            (0, None) => say!(
                "Leave these lamps alone: every tray gets the right light on average until {until}, when the last seedlings leave",
                until = until
            ),
            (0, Some(from)) if bay.tier.adjust == Some(Adjust::Fixed) => say!(
                "As they are fixed, these lamps give some trays too much or too little from {from} on: chains or boxes would help, or fewer or more lamps",
                from = from
            ),
            (0, Some(from)) => say!(
                "No setting here gives every tray the right light from {from} on",
                from = from
            ),
            (n, None) => say!(
                "With {changes}, every tray gets the right light on average until {until}",
                changes = changes(n),
                until = until
            ),
            (n, Some(from)) => say!(
                "{changes} until {until}, yet from {from} some trays get too much or too little light",
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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::light::falloff::Spread;
    use std::rc::Rc;

    /// Seedlings that all get the same light, and want these bands of it.
    fn ahead(bands: &[(&str, f64, f64)]) -> Ahead {
        let want = |low: f64, high: f64| Want {
            light: Rc::new(|height_mm, _| {
                let ppfd = 50_000.0 / height_mm;
                Spread {
                    mean: ppfd,
                    least: ppfd * 0.9,
                    most: ppfd * 1.1,
                }
            }),
            besides_mol_m2_d: 0.0,
            dli_mol_m2_d: low..=high,
        };
        Ahead {
            wants: bands
                .iter()
                .map(|(_, low, high)| want(*low, *high))
                .collect(),
            trays: bands.iter().map(|(tray, ..)| (*tray).into()).collect(),
            reach: Reach {
                leaves_mm: 80.0,
                tops_mm: 80.0,
                least_gap_mm: 50.0,
            },
            limits: HourLimits {
                most_h: 16.0,
                free_h: 24.0,
            },
        }
    }

    #[test]
    fn the_tray_that_spoils_it_for_the_others_is_named() {
        let choices: Vec<Choice> = (14..=60)
            .map(|cm| Choice {
                height_mm: f64::from(cm) * 10.0,
                lift_mm: 0.0,
                brightness: 1.0,
            })
            .collect();
        let misfit = |bands: &[(&str, f64, f64)]| {
            let ahead = ahead(bands);
            let best = choice::best(&ahead.wants, &choices, ahead.limits).unwrap();
            ahead.misfit(&choices, choice::miss(&ahead.wants, best))
        };
        let odd = misfit(&[("a", 5.0, 8.0), ("b", 5.0, 8.0), ("c", 15.0, 20.0)]);
        assert_eq!(odd.expect("one stands out").tray, "c");
        assert_eq!(misfit(&[("a", 5.0, 10.0), ("b", 7.0, 12.0)]), None);
        assert_eq!(misfit(&[("a", 90.0, 99.0)]), None);
    }
}
