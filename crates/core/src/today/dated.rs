//! Jobs that the dates of sowings and trays bring.

use crate::basis::dates::plus_days;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::crops::GerminatesIn;
use crate::log::detail::Dome;
use crate::log::fact::Fact;
use crate::plan::{Stage, Tray};
use crate::season::jobs::{Event, EventKind, lies_on_mat, on_tray};
use crate::season::potted::{Potted, potted};
use crate::today::job::{Asks, Job, JobFact, JobKind};
use crate::today::look::{Placed, Walk, Where};
use crate::today::recipe::Recipe;

/// The job that `event`, one of all `events`, is for the trays that it was not done to yet; one for each place
/// that they stand in.
pub(super) fn job(walk: &Walk<'_, '_>, events: &[Event], event: &Event) -> Vec<Placed> {
    let plan = walk.reckoned.plan;
    let left = event
        .trays
        .iter()
        .filter(|id| on_tray(plan, event, id).is_none());
    let left: Vec<&Tray> = left.filter_map(|id| walk.tray(id)).collect();
    let waits = |tray: &&Tray| event.what > EventKind::Sow && !walk.is_sown(&tray.id);
    let (unsown, left): (Vec<&Tray>, Vec<&Tray>) = left.into_iter().partition(waits);
    if left.is_empty() && !unsown.is_empty() {
        return Vec::new();
    }
    if left.is_empty() {
        // A sowing without a tray yet is sown all the same.
        let at = Where::Table;
        return what(walk, events, event, &left, &at)
            .map(|job| (at, job))
            .into_iter()
            .collect();
    }
    // What is to be carried stands where it stood the day before.
    let day = match event.what {
        EventKind::Emerge | EventKind::Move | EventKind::PotOn => plus_days(event.date, -1),
        EventKind::Sow => event.date,
        _ => walk.date.max(event.date),
    };
    let mut groups: Vec<(Where, Vec<&Tray>)> = Vec::new();
    for tray in left {
        let at = walk.stands(&tray.id, day);
        match groups.iter_mut().find(|(own, _)| own.same_place(&at)) {
            Some((_, trays)) => trays.push(tray),
            None => groups.push((at, vec![tray])),
        }
    }
    let each = groups.into_iter();
    each.filter_map(|(at, trays)| Some((at.clone(), what(walk, events, event, &trays, &at)?)))
        .collect()
}

fn what(
    walk: &Walk<'_, '_>,
    events: &[Event],
    event: &Event,
    trays: &[&Tray],
    at: &Where,
) -> Option<Job> {
    let plan = walk.reckoned.plan;
    let each = |fact: &dyn Fn(String) -> Fact| -> Vec<JobFact> {
        let own = trays
            .iter()
            .map(|tray| JobFact::of(tray, fact(tray.id.clone())));
        own.collect()
    };
    let plain = || {
        vec![JobFact::plain(Fact::Done {
            job: event.id.clone(),
        })]
    };
    let cells = |tray: &Tray| plan.cells_in(tray, &event.sowing);
    let mut reason = event.note.clone();
    let (mut asks, mut recipe) = (None, None);
    let (kind, notes) = match event.what {
        EventKind::Chill => (JobKind::Chill, plain()),
        EventKind::Sow => {
            recipe = Recipe::of(walk.reckoned, &event.sowing, trays);
            let notes = each(&|tray| Fact::Sown { tray });
            (JobKind::Sow, if notes.is_empty() { plain() } else { notes })
        }
        EventKind::Vent => {
            let dome = Dome::Vented;
            (JobKind::Vent, each(&|tray| Fact::Dome { tray, dome }))
        }
        EventKind::Emerge => match light(walk, trays) {
            Some(notes) => (JobKind::IntoLight, notes),
            // Under its lamps already: what is to be done is to see to the timer.
            None if plan
                .crop(&plan.sowings[plan.sowing_index(&event.sowing)])
                .germinates_in
                == GerminatesIn::Light =>
            {
                return None;
            }
            None => (JobKind::LightOn, plain()),
        },
        EventKind::Uncover => {
            let dome = Dome::Off;
            let mut notes = each(&|tray| Fact::Dome { tray, dome });
            if trays.iter().any(|tray| lies_on_mat(plan, tray)) {
                notes.extend(mat_off(walk, trays, at));
                reason = passed_on(walk, events, at).unwrap_or(reason);
            }
            (JobKind::LiftDome, notes)
        }
        EventKind::MatOff => {
            let notes: Vec<JobFact> = mat_off(walk, trays, at).into_iter().collect();
            reason = passed_on(walk, events, at).unwrap_or(reason);
            (
                JobKind::MatOff,
                if notes.is_empty() { plain() } else { notes },
            )
        }
        EventKind::Thin => {
            asks = Some(Asks::Plants);
            let notes = trays.iter().map(|tray| JobFact {
                most: Some(cells(tray) * 10),
                ..JobFact::of(
                    tray,
                    Fact::Thinned {
                        tray: tray.id.clone(),
                        left: cells(tray),
                    },
                )
            });
            let to_sow = walk.reckoned.cells_of(&event.sowing);
            let open = to_sow.and_then(|cells| cells.to_sow.as_ref());
            let open = open.is_some_and(|sow| sow.open_tray);
            let kind = if open {
                JobKind::PrickOut
            } else {
                JobKind::Thin
            };
            (kind, notes.collect())
        }
        // Feeding is a job of its own, place by place.
        EventKind::Feed => return None,
        EventKind::CutBack => (JobKind::CutBack, plain()),
        EventKind::PotOn => {
            asks = Some(Asks::Plants);
            let notes = potted_on(walk, event, trays);
            if notes.is_empty() {
                asks = None;
                (JobKind::PotOn, plain())
            } else {
                (JobKind::PotOn, notes)
            }
        }
        EventKind::Move => {
            let to = |tray: &&Tray| {
                let stand = tray
                    .stands
                    .iter()
                    .find(|stand| stand.from == Some(event.date))?;
                Some(JobFact {
                    to: Some(say!("{bay}", bay = walk.bay_name(&stand.bay))),
                    ..JobFact::of(
                        tray,
                        Fact::Moved {
                            tray: tray.id.clone(),
                            bay: stand.bay.clone(),
                        },
                    )
                })
            };
            (JobKind::Move, trays.iter().filter_map(to).collect())
        }
        // Each of its days is a job of its own.
        EventKind::Harden if event.date <= walk.date => return None,
        EventKind::Harden => {
            let outdoors = true;
            let notes = each(&|tray| Fact::Hardening { tray, outdoors });
            (JobKind::Harden, notes)
        }
        EventKind::PlantOut => {
            asks = Some(Asks::Plants);
            let notes = trays.iter().map(|tray| JobFact {
                most: Some(cells(tray) * 4),
                ..JobFact::of(
                    tray,
                    Fact::PlantedOut {
                        tray: tray.id.clone(),
                        plants: plants_in(walk, tray, cells(tray)),
                    },
                )
            });
            (JobKind::PlantOut, notes.collect())
        }
    };
    let words = [event.headline.clone(), reason];
    // Trays of a sowing in several places are jobs of their own.
    let job = walk.job((event.id.clone(), kind, event.date), words, at, notes);
    Some(Job {
        asks,
        recipe,
        ..job
    })
}

/// The plants in `tray` by the log, or one in each of its cells.
pub(super) fn plants_in(walk: &Walk<'_, '_>, tray: &Tray, cells: u32) -> u32 {
    let past = walk.reckoned.plan.happened().tray(&tray.id);
    let known = past.and_then(|past| Some(past.plants?.saturating_sub(past.lost)));
    known.unwrap_or(cells).max(1)
}

/// Where each of `trays` goes out of the dark; `None` where they stay.
fn light(walk: &Walk<'_, '_>, trays: &[&Tray]) -> Option<Vec<JobFact>> {
    let to = |tray: &&Tray| {
        let bay = &tray.stand_in(Stage::Grow)?.bay;
        let first = &tray.stand_in(Stage::Germinate)?.bay;
        let note = JobFact {
            to: Some(say!("{bay}", bay = walk.bay_name(bay))),
            ..JobFact::of(
                tray,
                Fact::Moved {
                    tray: tray.id.clone(),
                    bay: bay.clone(),
                },
            )
        };
        (bay != first).then_some(note)
    };
    let notes: Vec<JobFact> = trays.iter().filter_map(to).collect();
    (!notes.is_empty()).then_some(notes)
}

/// That the mat of a bay is off, once nothing else there is coming up.
fn mat_off(walk: &Walk<'_, '_>, trays: &[&Tray], at: &Where) -> Option<JobFact> {
    let Where::At(bay) = at else { return None };
    let view = walk.views.iter().find(|view| view.bay.reference() == *bay);
    let others = view.into_iter().flat_map(|view| &view.standing);
    let mut others = others.filter(|own| trays.iter().all(|tray| tray.id != own.tray.id));
    let bay = bay.clone();
    let free = !others.any(|own| own.coming_up);
    free.then(|| JobFact::plain(Fact::MatSwitched { bay, on: false }))
}

/// Which tray gets the mat next.
fn passed_on(walk: &Walk<'_, '_>, events: &[Event], at: &Where) -> Option<Statement> {
    let plan = walk.reckoned.plan;
    let Where::At(bay) = at else { return None };
    let sown = events
        .iter()
        .filter(|e| e.what == EventKind::Sow && e.date >= walk.date);
    let sown = sown.filter(|event| event.done.is_none());
    let mut next = sown.flat_map(|event| {
        let trays = event.trays.iter().filter_map(|id| walk.tray(id));
        trays.map(move |tray| (event.date, tray))
    });
    let (day, tray) = next.find(|(_, tray)| {
        let stand = tray.stand_in(Stage::Germinate);
        lies_on_mat(plan, tray) && stand.is_some_and(|stand| stand.bay.place == bay.place)
    })?;
    Some(say!(
        "All should be up. Next on the mat: {tray}, sown {day}",
        tray = &tray.name,
        day = day
    ))
}

/// Which pots the plants of each tray go into.
fn potted_on(walk: &Walk<'_, '_>, event: &Event, trays: &[&Tray]) -> Vec<JobFact> {
    let plan = walk.reckoned.plan;
    let own: Vec<&str> = trays.iter().map(|tray| tray.id.as_str()).collect();
    let going = potted(plan, &event.sowing).into_iter();
    let going = going.filter(|going| own.contains(&going.from.id.as_str()));
    let note = |going: Potted<'_>| JobFact {
        most: Some(going.pots.max(going.cells)),
        to: Some(say!(
            "{pots} ({n} pots)",
            pots = &going.into.name,
            n = Quantity::Count.of(f64::from(going.pots))
        )),
        ..JobFact::of(
            going.from,
            Fact::PottedOn {
                tray: going.from.id.clone(),
                into: going.into.id.clone(),
                plants: going.pots,
            },
        )
    };
    going.map(note).collect()
}
