//! What keeps the room in order: turning trays, looking for gnats, washing what was emptied.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::dates::plus_days;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::day::view::BayView;
use crate::log::fact::Fact;
use crate::today::job::{Job, JobFact, JobKind};
use crate::today::look::{Placed, Walk, Where, again, lately};

/// By a window trays are turned this often, under uneven lamps that often (common practice, no source).
const TURN_BY_WINDOW_DAYS: i32 = 3;
const TURN_UNDER_LAMPS_DAYS: i32 = 7;
/// Light is uneven where the darkest cell has less than this share of the mean (our own estimate).
const EVEN: f64 = 0.7;
/// From one look for gnats to the next (common practice, no source).
const GNATS_DAYS: i32 = 7;
/// Trays that were emptied so lately are still to be washed.
const EMPTIED_DAYS: i32 = 21;

/// All of them.
pub(super) fn jobs(walk: &Walk<'_, '_>) -> Vec<Placed> {
    let turns = turns(walk).into_iter();
    turns.chain(gnats(walk)).chain(clean(walk)).collect()
}

/// A job that recurs, with nothing to note but that it was done.
fn recurring(
    walk: &Walk<'_, '_>,
    (id, what): (String, JobKind),
    due: Date,
    words: [Statement; 2],
    at: Where,
) -> Option<Placed> {
    if due > plus_days(walk.date, 1) {
        return None;
    }
    let notes = vec![JobFact::plain(Fact::Done { job: id.clone() })];
    let job = walk.job((id, what, due), words, &at, notes);
    let recurring = true;
    Some((at, Job { recurring, ..job }))
}

/// The last day it was done, or was to be skipped.
fn last(walk: &Walk<'_, '_>, id: &str) -> Option<Date> {
    let past = walk.reckoned.plan.happened().job(id);
    past.done.max(past.skipped)
}

/// The trays of each place that are unevenly lit.
fn turns(walk: &Walk<'_, '_>) -> Vec<Placed> {
    let mut uneven: BTreeMap<usize, (&BayView<'_>, f64, bool)> = BTreeMap::new();
    for view in walk.views {
        let up = view.standing.iter().any(|own| own.is_up());
        let Some(light) = view.computed.light.as_ref().filter(|_| up) else {
            continue;
        };
        let window = view.bay.place.has_daylight() && light.daylight_mol_m2_d > 0.0;
        if view.bay.place.outdoors() || !window && light.evenness >= EVEN {
            continue;
        }
        let own = uneven.entry(view.bay.place_index);
        let (_, worst, by_window) = own.or_insert((view, light.evenness, window));
        (*worst, *by_window) = (worst.min(light.evenness), *by_window || window);
    }
    let each = uneven.into_values();
    each.filter_map(|(view, worst, window)| turn(walk, view, worst, window))
        .collect()
}

fn turn(walk: &Walk<'_, '_>, view: &BayView<'_>, worst: f64, window: bool) -> Option<Placed> {
    let bay = view.bay.reference();
    let id = format!("turn/{}", bay.place);
    let every = if window {
        TURN_BY_WINDOW_DAYS
    } else {
        TURN_UNDER_LAMPS_DAYS
    };
    let due = again(last(walk, &id), every, walk.date);
    let headline = say!("Turn the trays on {place}", place = &view.bay.place.name);
    let reason = if window {
        say!("They lean to the glass: half a turn every third day keeps stems straight")
    } else {
        say!(
            "The darkest cell gets {share} of the average: let trays at the ends and in the middle change places once a week",
            share = Quantity::Share.of(worst)
        )
    };
    let at = Where::At(bay);
    recurring(walk, (id, JobKind::Turn), due, [headline, reason], at)
}

fn gnats(walk: &Walk<'_, '_>) -> Option<Placed> {
    let indoors = walk.views.iter().filter(|view| !view.bay.place.outdoors());
    let mut up = indoors
        .flat_map(|view| &view.standing)
        .filter(|own| own.is_up());
    up.next()?;
    let id = "gnats/room".to_owned();
    let due = again(last(walk, &id), GNATS_DAYS, walk.date);
    let headline = say!("Look for gnats and mould");
    let reason = say!(
        "Small black flies on the sticky cards, fur on the mix: let the top dry, and move the air"
    );
    recurring(
        walk,
        (id, JobKind::Gnats),
        due,
        [headline, reason],
        Where::Table,
    )
}

fn clean(walk: &Walk<'_, '_>) -> Option<Placed> {
    let plan = walk.reckoned.plan;
    let id = "clean/room".to_owned();
    let washed = last(walk, &id);
    let emptied = plan.trays.iter().filter_map(|tray| {
        let past = plan.happened().tray(&tray.id)?;
        let day = past.potted_on.max(past.planted_out)?;
        let dirty =
            lately(day, walk.date, EMPTIED_DAYS) && washed.is_none_or(|washed| washed < day);
        dirty.then_some(day)
    });
    let emptied: Vec<Date> = emptied.collect();
    let due = plus_days(*emptied.iter().min()?, 1);
    let headline = say!(
        "Wash what was emptied: {n} trays",
        n = Quantity::Count.of(emptied.len() as f64)
    );
    let reason = say!(
        "Old mix carries damping off. Soap first; if you use bleach, alone, thinned, and with a window open"
    );
    recurring(
        walk,
        (id, JobKind::Clean),
        due,
        [headline, reason],
        Where::Table,
    )
}
