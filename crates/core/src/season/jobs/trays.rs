//! Jobs on trays: dome and mat. A tray of several kinds has one of each.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::plan::{SoundPlan, Stage, Stand, Tray};
use crate::season::company::wears_dome;
use crate::season::jobs::event::{Event, EventKind};
use crate::season::moments::TrayMoments;
use crate::season::reckoned::Reckoned;
use crate::season::stays::spots;
use crate::warmth::mat::mat_under;

/// What trays share that have a job in common: the first sowing, the job, its day, whether a mat comes
/// off too, and the flat where several kinds share it.
type Alike<'a> = (&'a str, EventKind, Date, bool, Option<&'a str>);

/// The jobs on every tray of what is raised; trays of one sowing that are alike share a job.
pub(super) fn of_trays(reckoned: &Reckoned<'_>) -> Vec<Event> {
    let plan = reckoned.plan;
    let mut alike: BTreeMap<Alike<'_>, Vec<&Tray>> = BTreeMap::new();
    let mut moves = Vec::new();
    for tray in &plan.trays {
        let first = &plan.sowings[plan.sowing_index(&tray.parts[0].sowing)];
        if first.stays.is_some() {
            continue;
        }
        let moments = reckoned.moments_of(tray);
        moves.extend(moves_of(reckoned, tray, &moments));
        moves.extend(sow_flat(reckoned, tray, &moments).filter(|_| !tray.potted));
        let domed = has_dome_on(plan, tray, Stage::Germinate, moments.sow);
        let on_mat = lies_on_mat(plan, tray);
        let mut job = |what, date, with_mat| {
            // A flat of several kinds has jobs of its own.
            let flat = (tray.parts.len() > 1).then_some(tray.id.as_str());
            let key = (first.id.as_str(), what, date, with_mat, flat);
            alike.entry(key).or_default().push(tray);
        };
        if let Some(vent) = moments.vent.filter(|_| domed) {
            job(EventKind::Vent, vent, false);
        }
        // Some of it never comes up: nothing is done then.
        if moments.all_up < moments.harden {
            let date = moments.leaves_mat(tray);
            let kept = has_dome_on(plan, tray, Stage::Grow, moments.all_up);
            match (domed && !kept, on_mat) {
                (true, on_mat) => job(EventKind::Uncover, date, on_mat),
                (false, true) => job(EventKind::MatOff, date, true),
                (false, false) => {}
            }
        }
    }
    let mut events: Vec<Event> = moves;
    for ((sowing, what, date, with_mat, _), trays) in alike {
        let again = events.iter().any(|e| e.sowing == sowing && e.what == what);
        let name = names(reckoned, trays[0]);
        let [headline, note] = words(what, &name, with_mat);
        events.push(Event {
            id: String::new(),
            date,
            what,
            sowing: sowing.to_owned(),
            trays: trays.iter().map(|tray| tray.id.clone()).collect(),
            done: None,
            // A second group of trays of one sowing needs a name of its own.
            tray: (again || trays[0].parts.len() > 1).then(|| trays[0].id.clone()),
            name,
            headline,
            note,
        });
    }
    events
}

/// The moves of a tray in the middle of a stage.
fn moves_of(reckoned: &Reckoned<'_>, tray: &Tray, moments: &TrayMoments) -> Vec<Event> {
    let spots = spots(tray, moments);
    let pairs = spots.windows(2);
    let moved = pairs.filter(|pair| pair[1].0.from == Some(pair[1].1.from));
    let name = names(reckoned, tray);
    let bay_name = |stand: &Stand| reckoned.plan.bay(&stand.bay).map(|bay| bay.name());
    let event = |pair: &[(&Stand, DateSpan)]| {
        let (was, is) = (bay_name(pair[0].0)?, bay_name(pair[1].0)?);
        Some(Event {
            id: String::new(),
            date: pair[1].1.from,
            what: EventKind::Move,
            sowing: tray.parts[0].sowing.clone(),
            trays: vec![tray.id.clone()],
            done: None,
            tray: Some(tray.id.clone()),
            name: name.clone(),
            headline: say!("Move {tray} to {bay}", tray = &tray.name, bay = is),
            note: say!("{name}: from {bay}", name = &name, bay = was),
        })
    };
    moved.filter_map(event).collect()
}

/// The day on which a flat is sown with all its kinds.
fn sow_flat(reckoned: &Reckoned<'_>, tray: &Tray, moments: &TrayMoments) -> Option<Event> {
    if !tray.sown_together {
        return None;
    }
    let format = reckoned.plan.format(tray);
    let mut kinds: Vec<(&str, u32)> = Vec::new();
    for part in &tray.parts {
        let name = &reckoned.dates[reckoned.plan.sowing_index(&part.sowing)].name;
        let cells = part.block(format).cells();
        match kinds.iter_mut().find(|(other, _)| other == name) {
            Some((_, all)) => *all += cells,
            None => kinds.push((name, cells)),
        }
    }
    let each = kinds
        .iter()
        .map(|(name, cells)| format!("{name} × {cells}"));
    Some(Event {
        id: String::new(),
        date: moments.sow,
        what: EventKind::Sow,
        sowing: tray.parts[0].sowing.clone(),
        trays: vec![tray.id.clone()],
        done: None,
        tray: Some(tray.id.clone()),
        name: names(reckoned, tray),
        headline: say!(
            "Sow {tray} with {n} kinds",
            tray = &tray.name,
            n = Quantity::Count.of(kinds.len() as f64)
        ),
        note: say!(
            "Cells of each: {each}. Its plan says which rows",
            each = each.collect::<Vec<_>>().join("; ")
        ),
    })
}

/// Whether a tray has a dome on in `stage` on `date`; one without a spot has, if it has any.
fn has_dome_on(plan: &SoundPlan, tray: &Tray, stage: Stage, date: Date) -> bool {
    let format = plan.format(tray);
    let stand = tray.stand_on(stage, date);
    match stand.and_then(|stand| plan.bay_on(&stand.bay, date)) {
        Some(bay) => wears_dome(format, &bay, stage),
        None => stage == Stage::Germinate && format.dome_height_mm.is_some(),
    }
}

/// Whether it germinates on a mat of its own; a chamber's warms all of it.
pub fn lies_on_mat(plan: &SoundPlan, tray: &Tray) -> bool {
    let stand = tray.stand_in(Stage::Germinate);
    stand.is_some_and(|stand| {
        let bay = plan.bay(&stand.bay);
        let bay = bay.filter(|bay| bay.place.chamber().is_none() && !bay.place.outdoors());
        let under = |bay: crate::room::Bay<'_>| {
            mat_under(bay.tier, &stand.footprint(plan.format(tray))).is_some()
        };
        bay.is_some_and(under)
    })
}

/// All that grows in a tray, in words.
fn names(reckoned: &Reckoned<'_>, tray: &Tray) -> String {
    let names = tray.parts.iter().map(|part| {
        let index = reckoned.plan.sowing_index(&part.sowing);
        reckoned.dates[index].name.as_str()
    });
    let mut names: Vec<&str> = names.collect();
    names.dedup();
    names.join(" + ")
}

fn words(what: EventKind, name: &str, with_mat: bool) -> [Statement; 2] {
    match what {
        EventKind::Vent => [
            say!("Open the dome vents on {name}", name = name),
            say!("About a quarter should be up"),
        ],
        EventKind::Uncover if with_mat => [
            say!("Lift the dome and unplug the mat: {name}", name = name),
            say!("All should be up; the mat is free for the next tray"),
        ],
        EventKind::Uncover => [
            say!("Dome off {name}", name = name),
            say!("All should be up"),
        ],
        _ => [
            say!("Mat off {name}", name = name),
            say!("All should be up; the mat is free for the next tray"),
        ],
    }
}
