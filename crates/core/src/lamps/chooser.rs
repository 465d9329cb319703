//! The chooser: the one owner of what height, hours and brightness suit trays that share a bay, and of
//! whether a change is worth getting up for. Sheet, schedule, findings, comparison and pace read it.
//!
//! In this order: no cell comes to harm and no leaf nearer than the lamps' least gap; as few cells as
//! possible stretch; as few as possible are under their band; no quiet hours; the least energy; the
//! fewest changes (our own estimate, after growers' usual practice).

use std::collections::BTreeMap;

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::work::go_on;
use crate::lamps::choice::{Choice, Setting, Want, outcome_at};
use crate::lamps::hours::{HourLimits, TIMER_STEP_H};
use crate::lamps::known::{Known, question};
use crate::lamps::ladder::Ladder;
use crate::lamps::outcome::Outcome;

/// Why lamps had better be set otherwise, the gravest first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Change {
    /// Leaves, rims or domes stand nearer than the lamps may be.
    TooNear,
    /// Leaves bleach, or get far more than does them good.
    Harms,
    /// The day is longer than the crops stand.
    TooLong,
    /// Seedlings stretch.
    Stretches,
    /// Seedlings grow slowly.
    TooDark,
    /// Light is paid for that nobody uses.
    Wasted,
}

/// The lamps as they are.
#[derive(Debug, Clone, Copy)]
pub struct Now {
    /// How they hang and burn.
    pub setting: Setting,
    /// What the cells come to.
    pub outcome: Outcome,
    /// Whether anything stands nearer than they may be.
    pub touches: bool,
}

/// What is advised.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Chosen {
    /// The setting; as it is now where no other is worth getting up for.
    pub setting: Setting,
    /// Why it is another than now.
    pub change: Option<Change>,
    /// What the cells come to with it.
    pub then: Outcome,
    /// The greatest mean daily light that these lamps can give without harm, in mol/m²/d; `None`
    /// where all is well and nothing was searched.
    pub brightest_mol_m2_d: Option<f64>,
}

/// A change has to better the lot of so many of the cells (our own estimate).
pub const WORTH_OF_CELLS: f64 = 0.05;
/// Or the mean by so much of it (our own estimate).
pub const WORTH_OF_MEAN: f64 = 0.10;
/// Cells whose lot it betters have to lack so much less of what they want, on the mean of all: a
/// cell that is carried from just under a line to just over it gains nothing (our own estimate).
const WORTH_OF_LACK: f64 = 0.02;
/// So much of the light has to lie over the comfortable top before it is wasted (our own estimate).
pub const WASTE: f64 = 0.15;
/// And so much of the energy to be saved (our own estimate).
const WORTH_OF_ENERGY: f64 = 0.10;
/// Settings whose counts differ by less than these shares of the cells are as good as each other.
const AS_GOOD: [f64; 2] = [0.01, 0.02];
/// Energy within so much of the least is as little.
const AS_LITTLE: f64 = 1.05;

#[derive(Clone, Copy)]
struct Candidate {
    setting: Setting,
    outcome: Outcome,
}

/// The best of `choices` for each number of hours within `limits`, a timer's step apart: how a bay would be
/// set whose hours are not its own to choose.
pub fn best_by_hours(
    wants: &[Want<'_>],
    choices: &[Choice],
    limits: HourLimits,
    now: &Now,
) -> Vec<(Setting, Outcome)> {
    let mut by_hours: BTreeMap<i64, Vec<Candidate>> = BTreeMap::new();
    for candidate in candidates(wants, choices, limits) {
        let step = (candidate.setting.hours_h / TIMER_STEP_H).round() as i64;
        by_hours.entry(step).or_default().push(candidate);
    }
    let each = by_hours.into_values();
    each.filter_map(|own| best_of(harmless(own), limits, now))
        .map(|best| (best.setting, best.outcome))
        .collect()
}

/// What is best of `choices` and hours within `limits`, and whether it is worth a change from `now`;
/// `None` without a choice or a tray.
pub fn choose(
    wants: &[Want<'_>],
    choices: &[Choice],
    limits: HourLimits,
    now: &Now,
) -> Option<Chosen> {
    if wants.is_empty() || choices.is_empty() {
        return None;
    }
    if is_fine(now, limits) {
        return Some(leave(now, None));
    }
    static KNOWN: Known<Option<Chosen>> = Known::new();
    let is = (now.setting, now.outcome, now.touches);
    let question = question((wants, choices), limits, is);
    KNOWN.ask(question, || search(wants, choices, limits, now))
}

/// The lamps are left as they are.
fn leave(now: &Now, brightest_mol_m2_d: Option<f64>) -> Chosen {
    Chosen {
        setting: now.setting,
        change: None,
        then: now.outcome,
        brightest_mol_m2_d,
    }
}

fn search(wants: &[Want<'_>], choices: &[Choice], limits: HourLimits, now: &Now) -> Option<Chosen> {
    // Who burns lamps for less than is usual may go on so.
    let limits = HourLimits {
        used_h: limits.used_h.min(now.setting.hours_h),
        ..limits
    };
    let all = candidates(wants, choices, limits);
    let safe = harmless(all);
    let mean = |o: &Outcome| o.daily / o.cells.max(1.0);
    let brightest = safe.iter().map(|c| mean(&c.outcome)).reduce(f64::max)?;
    let best = best_of(safe, limits, now)?;
    Some(match change(now, &best, limits) {
        Some(change) => Chosen {
            setting: best.setting,
            change: Some(change),
            then: best.outcome,
            brightest_mol_m2_d: Some(brightest),
        },
        None => leave(now, Some(brightest)),
    })
}

/// The best setting of `choices` for a bay that is only thought of: nothing there is set yet.
pub fn best_anyhow(wants: &[Want<'_>], choices: &[Choice], limits: HourLimits) -> Option<Setting> {
    let first = *choices.first()?;
    let now = Now {
        setting: Setting::new(first, limits.most_h),
        outcome: outcome_at(wants, Setting::new(first, limits.most_h)),
        touches: true,
    };
    choose(wants, choices, limits, &now).map(|chosen| chosen.setting)
}

/// Whether nothing could be worth a change: then nothing is searched.
fn is_fine(now: &Now, limits: HourLimits) -> bool {
    let share = now.outcome.shares();
    !now.touches
        && now.outcome.harmed < 0.5
        && !limits.are_passed_by(now.setting.hours_h)
        && share.stretched < WORTH_OF_CELLS
        && share.under < WORTH_OF_CELLS
        && share.unused < WASTE
}

fn candidates(wants: &[Want<'_>], choices: &[Choice], limits: HourLimits) -> Vec<Candidate> {
    let mut list = Vec::new();
    let mut light: Vec<Vec<f64>> = Vec::new();
    let mut lit_at = None;
    for &choice in choices {
        go_on();
        // Choices that differ in brightness alone follow one another.
        let at = (choice.height_mm, choice.lift_mm);
        if lit_at != Some(at) {
            light = wants.iter().map(|want| (want.light)(at.0, at.1)).collect();
            lit_at = Some(at);
        }
        let mut ladder = Ladder::new(limits.least_h(), TIMER_STEP_H, limits.steps());
        for (want, ppfd) in wants.iter().zip(&light) {
            ladder.take(ppfd, choice.brightness, &want.besides, &want.band);
        }
        list.extend(
            ladder
                .outcomes()
                .into_iter()
                .map(|(hours, outcome)| Candidate {
                    setting: Setting::new(choice, hours),
                    outcome,
                }),
        );
    }
    list
}

/// Those of `all` that do as little harm as can be.
fn harmless(all: Vec<Candidate>) -> Vec<Candidate> {
    let least = |of: fn(&Outcome) -> f64, list: &[Candidate]| {
        list.iter()
            .map(|c| of(&c.outcome))
            .fold(f64::INFINITY, f64::min)
    };
    let harmed = least(|o| o.harmed, &all);
    let mut safe: Vec<Candidate> = all
        .into_iter()
        .filter(|c| c.outcome.harmed <= harmed)
        .collect();
    if harmed > 0.5 {
        // Where some come to harm anyhow, the less too much the better.
        let unused = least(|o| o.unused, &safe);
        safe.retain(|c| c.outcome.unused <= AS_LITTLE * unused);
    }
    safe
}

/// The best of settings that are as harmless as can be.
fn best_of(safe: Vec<Candidate>, limits: HourLimits, now: &Now) -> Option<Candidate> {
    // Nothing that is well now is made worse, where that can be had.
    let no_worse = |c: &&Candidate| {
        c.outcome.harmed <= now.outcome.harmed && c.outcome.stretched <= now.outcome.stretched
    };
    let mut list: Vec<Candidate> = safe.iter().filter(no_worse).copied().collect();
    if list.is_empty() {
        list = safe;
    }
    let cells = now.outcome.cells.max(1.0);
    for (of, as_good) in [
        ((|o| o.stretched) as fn(&Outcome) -> f64, AS_GOOD[0]),
        (|o| o.lacks_to_stretch, AS_GOOD[0]),
        (|o| o.under, AS_GOOD[1]),
        (|o| o.lacks, AS_GOOD[1]),
    ] {
        let least = list.iter().map(|c| of(&c.outcome)).reduce(f64::min)?;
        list.retain(|c| of(&c.outcome) <= least + as_good * cells);
    }
    let quiet = |c: &Candidate| (c.setting.hours_h - limits.free_h).max(0.0);
    let energy = |c: &Candidate| c.setting.hours_h * c.setting.brightness;
    let least_quiet = list.iter().map(quiet).reduce(f64::min)?;
    list.retain(|c| quiet(c) <= least_quiet + 1e-6);
    let least_energy = list.iter().map(energy).reduce(f64::min)?;
    list.retain(|c| energy(c) <= AS_LITTLE * least_energy);
    let key = |c: &Candidate| {
        let (to, from) = (c.setting, now.setting);
        let pairs = [
            (to.height_mm, from.height_mm),
            (to.lift_mm, from.lift_mm),
            (to.brightness, from.brightness),
            (to.hours_h, from.hours_h),
        ];
        let changes = pairs.iter().filter(|(a, b)| (a - b).abs() > 1e-6).count();
        let away = (to.height_mm - from.height_mm).abs() + (to.lift_mm - from.lift_mm).abs();
        [changes as f64, energy(c), away]
    };
    list.into_iter().min_by(|a, b| {
        key(a)
            .partial_cmp(&key(b))
            .expect("no figure of a setting is NaN")
    })
}

/// Why `best` is worth a change; `None` where it is not.
fn change(now: &Now, best: &Candidate, limits: HourLimits) -> Option<Change> {
    let (is, then) = (&now.outcome, &best.outcome);
    let cells = is.cells.max(1.0);
    let lacks_less = is.lacks - then.lacks >= WORTH_OF_LACK * cells;
    let fewer = |of: fn(&Outcome) -> f64| of(is) - of(then) >= WORTH_OF_CELLS * cells;
    let energy = |s: &Setting| s.hours_h * s.brightness;
    let harmless = then.harmed <= is.harmed && then.stretched <= is.stretched;
    let brighter = then.daily >= (1.0 + WORTH_OF_MEAN) * is.daily && is.lacks > 0.0;
    if now.touches {
        Some(Change::TooNear)
    } else if is.harmed > 0.5
        && then.stretched <= is.stretched
        && (is.harmed - then.harmed > 0.5 || then.unused <= (1.0 - WORTH_OF_MEAN) * is.unused)
    {
        Some(Change::Harms)
    } else if !harmless {
        None
    } else if limits.are_passed_by(now.setting.hours_h) {
        Some(Change::TooLong)
    } else if fewer(|o| o.stretched) && lacks_less {
        Some(Change::Stretches)
    } else if then.under <= is.under
        && lacks_less
        && (fewer(|o| o.under) || brighter && is.under >= 0.5 * cells)
    {
        Some(Change::TooDark)
    } else if is.unused >= WASTE * is.daily
        && energy(&best.setting) <= (1.0 - WORTH_OF_ENERGY) * energy(&now.setting)
        && then.under <= is.under + AS_GOOD[1] * cells
    {
        Some(Change::Wasted)
    } else {
        None
    }
}
