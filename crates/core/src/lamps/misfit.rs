//! The tray that keeps the others of its bay from good light.

use serde::Serialize;
use utoipa::ToSchema;

use crate::lamps::adjust::{Ahead, Reach, choices};
use crate::lamps::choice::{Want, outcome_at};
use crate::lamps::chooser::{Now, choose};
use crate::lamps::outcome::Outcome;
use crate::room::Bay;

/// A tray that keeps the others of its bay from good light.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Misfit {
    /// The tray.
    pub tray: String,
    /// The share of the others' cells that would then still get the wrong light.
    pub wrong: f64,
}

/// A best setting that fails no more of the cells is good enough for all (our own estimate).
const GOOD_ENOUGH: f64 = 0.15;
/// Without it so many fewer of the cells have to fail (our own estimate).
const GAIN: f64 = 0.15;
/// Leaves whose tops differ by less stand in the same light, in mm (our own estimate).
const AS_TALL_MM: f64 = 40.0;
/// More trays than these are not tried one by one.
const MOST: usize = 24;

/// The share of cells that a setting fails: too dark, or harmed.
fn wrong(outcome: &Outcome) -> f64 {
    outcome.wrong() / outcome.cells.max(1.0)
}

/// The tray of `ahead` without which the others would fare so much better that it had better stand
/// elsewhere, where the setting advised in `bay` comes to `then`; `None` when all fare well, or none stands
/// out.
pub fn misfit(
    bay: &Bay<'_>,
    ahead: &Ahead,
    step_mm: f64,
    now: &Now,
    then: &Outcome,
) -> Option<Misfit> {
    let mut ids: Vec<&String> = ahead.trays.iter().map(|(tray, _)| tray).collect();
    ids.dedup();
    if wrong(then) <= GOOD_ENOUGH || ids.len() < 2 || ids.len() > MOST {
        return None;
    }
    let without = |tray: &String| {
        let others: Vec<Want<'_>> = ahead
            .wants
            .iter()
            .zip(&ahead.trays)
            .filter(|(_, (of, _))| of != tray)
            .map(|(want, _)| want.clone())
            .collect();
        // Anything but what hangs there for the tall one's sake.
        let now = Now {
            touches: true,
            outcome: outcome_at(&others, now.setting),
            ..*now
        };
        // Without a tall one the lamps come lower.
        let reaches = ahead.reaches.iter().filter(|(of, _)| of != tray);
        let reach = reaches.map(|(_, reach)| *reach).reduce(Reach::or)?;
        let choices = choices(bay, reach, step_mm);
        let chosen = choose(&others, &choices, ahead.limits, &now)?;
        Some(Misfit {
            tray: tray.clone(),
            wrong: wrong(&chosen.then),
        })
    };
    let best = ids
        .into_iter()
        .filter(|tray| is_unlike_the_rest(ahead, tray))
        .filter_map(without)
        .min_by(|a, b| a.wrong.total_cmp(&b.wrong))?;
    (best.wrong <= wrong(then) - GAIN).then_some(best)
}

/// Whether a tray wants another light than most of the others, or stands much taller or lower: one of
/// several alike is no misfit.
fn is_unlike_the_rest(ahead: &Ahead, tray: &str) -> bool {
    let parts = || ahead.wants.iter().zip(&ahead.trays);
    let alike = |(a, (_, a_mm)): (&Want<'_>, &(String, f64)),
                 (b, (_, b_mm)): (&Want<'_>, &(String, f64))| {
        let bands = [(a.band.low, b.band.low), (a.band.high, b.band.high)];
        bands.iter().all(|(a, b)| (a - b).abs() < 1e-6) && (a_mm - b_mm).abs() < AS_TALL_MM
    };
    let own = |of: &(String, f64)| of.0 == tray;
    let Some(mine) = parts().find(|(_, of)| own(of)) else {
        return false;
    };
    let others = parts().filter(|(_, of)| !own(of));
    let (alike, all) = others.fold((0, 0), |(n, all), other| {
        (n + usize::from(alike(mine, other)), all + 1)
    });
    alike * 2 < all
}
