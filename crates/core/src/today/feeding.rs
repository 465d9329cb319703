//! Feed: very weak at the first true leaves, then half strength once a week.

use jiff::civil::Date;

use crate::basis::dates::plus_days;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::Standing;
use crate::log::fact::Fact;
use crate::plan::Tray;
use crate::today::job::{Job, JobFact, JobKind};
use crate::today::look::{Placed, Walk, Where};

/// The first feed as a share of the strength on the label, and those that follow (common practice, no
/// source).
const FIRST_STRENGTH: f64 = 0.25;
const STRENGTH: f64 = 0.5;
/// From one feed to the next (common practice, no source).
const EVERY_DAYS: i32 = 7;

/// A tray that wants feed.
struct Hungry<'a> {
    tray: &'a Tray,
    due: Date,
    strength: f64,
}

/// A job for each place with trays that want feed.
pub(super) fn jobs(walk: &Walk<'_, '_>) -> Vec<Placed> {
    let mut places: Vec<(Where, Vec<Hungry<'_>>)> = Vec::new();
    for view in walk.views {
        for own in view.standing.iter().filter_map(|own| hungry(walk, own)) {
            let at = Where::At(view.bay.reference());
            match places.last_mut() {
                Some((here, trays)) if here.same_place(&at) => trays.push(own),
                _ => places.push((at, vec![own])),
            }
        }
    }
    let each = places.into_iter();
    each.map(|(at, trays)| job(walk, at, &trays)).collect()
}

fn hungry<'a>(walk: &Walk<'_, '_>, standing: &Standing<'a>) -> Option<Hungry<'a>> {
    if !standing.is_up_or_hardening() || !walk.is_sown(&standing.tray.id) {
        return None;
    }
    let past = walk.reckoned.plan.happened().tray(&standing.tray.id);
    let (due, strength) = match past.and_then(|past| past.fed) {
        Some(fed) => (plus_days(fed, EVERY_DAYS), STRENGTH),
        // Pots are fed like what came into them.
        None if standing.tray.potted => return None,
        None => {
            let leaves = standing.parts.iter().filter_map(|part| part.dates.thin);
            (leaves.max()?, FIRST_STRENGTH)
        }
    };
    let tray = standing.tray;
    (due <= plus_days(walk.date, 1)).then_some(Hungry {
        tray,
        due,
        strength,
    })
}

fn job(walk: &Walk<'_, '_>, at: Where, trays: &[Hungry<'_>]) -> Placed {
    let due = trays.iter().map(|own| own.due).min().unwrap_or(walk.date);
    let note = |own: &Hungry<'_>| {
        let fact = Fact::Fed {
            tray: own.tray.id.clone(),
            strength: own.strength,
        };
        JobFact {
            to: Some(say!(
                "{strength} strength",
                strength = Quantity::Share.of(own.strength)
            )),
            ..JobFact::of(own.tray, fact)
        }
    };
    let headline = match trays {
        [one] => say!("Feed {tray}", tray = &one.tray.name),
        _ => say!("Feed {n} trays", n = Quantity::Count.of(trays.len() as f64)),
    };
    let reason = say!(
        "With the water: {first} of the strength on the label at the first true leaves, then {then} once a week",
        first = Quantity::Share.of(FIRST_STRENGTH),
        then = Quantity::Share.of(STRENGTH)
    );
    let id = format!("feed-all/{}", at.place().unwrap_or_default());
    let notes = trays.iter().map(note).collect();
    let job = walk.job((id, JobKind::Feed, due), [headline, reason], &at, notes);
    let recurring = true;
    (at, Job { recurring, ..job })
}
