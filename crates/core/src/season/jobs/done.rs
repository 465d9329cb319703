//! Which jobs were done already, by what happened.

use jiff::civil::Date;

use crate::plan::happened::TrayPast;
use crate::plan::{SoundPlan, Stage};
use crate::season::jobs::event::{Event, EventKind};

/// The day by which `event` was done to all of its trays; `None` while it was not.
pub(super) fn by(plan: &SoundPlan, event: &Event) -> Option<Date> {
    let own = plan.happened().job(&event.id).done;
    if own.is_some() || event.trays.is_empty() {
        return own;
    }
    let each = event.trays.iter().map(|tray| on_tray(plan, event, tray));
    each.reduce(|a, b| Some(a?.max(b?))).flatten()
}

/// The day on which `event` was done to `tray`; `None` while it was not. What comes later shows that what
/// comes before was done.
pub fn on_tray(plan: &SoundPlan, event: &Event, tray: &str) -> Option<Date> {
    let past = plan.happened().tray(tray);
    let done =
        past.and_then(|past| own(plan, event, tray, past).or_else(|| later(event.what, past)));
    // Who marked a sowing as sown in the plan need not log it.
    let sowing = &plan.sowings[plan.sowing_index(&event.sowing)];
    let sown = sowing.sow_on.filter(|_| sowing.sown);
    let sown = sown.filter(|_| matches!(event.what, EventKind::Chill | EventKind::Sow));
    done.or(sown)
}

/// The day of the fact that answers it.
fn own(plan: &SoundPlan, event: &Event, tray: &str, past: &TrayPast) -> Option<Date> {
    match event.what {
        EventKind::Chill | EventKind::CutBack => None,
        EventKind::Sow => past.sown,
        EventKind::Vent => past.vented,
        EventKind::Emerge => {
            let carried = past.moved.first().map(|(day, _)| *day);
            let seen = past.counts.iter().find(|count| count.count > 0);
            // Carried into the light it must be; what is under lamps already only has to be seen.
            carried.or_else(|| seen.filter(|_| !is_shut_in(plan, tray)).map(|seen| seen.on))
        }
        EventKind::Uncover => past.dome_off,
        EventKind::MatOff => mat_off(plan, tray, past),
        EventKind::Thin => past.thinned.into_iter().chain(past.pricked_out).min(),
        EventKind::Feed => past.fed,
        EventKind::PotOn => past.potted_on,
        EventKind::Move => {
            let tray = plan.trays.get(plan.tray_index(tray)?)?;
            let stand = tray
                .stands
                .iter()
                .find(|stand| stand.from == Some(event.date))?;
            let moved = past.moved.iter().rev();
            let mut there = moved.filter(|(_, bay)| *bay == stand.bay);
            there.next().map(|(day, _)| *day)
        }
        EventKind::Harden => past.hardened_from,
        EventKind::PlantOut => past.planted_out,
    }
}

fn is_shut_in(plan: &SoundPlan, tray: &str) -> bool {
    let tray = plan.tray_index(tray).map(|i| &plan.trays[i]);
    let stand = tray.and_then(|tray| tray.stand_in(Stage::Germinate));
    let bay = stand.and_then(|stand| plan.bay(&stand.bay));
    bay.is_some_and(|bay| bay.is_dark() || bay.place.keeps_damp_in())
}

/// The day its mat was switched off, or it was carried off the mat.
fn mat_off(plan: &SoundPlan, tray: &str, past: &TrayPast) -> Option<Date> {
    let own = &plan.trays[plan.tray_index(tray)?];
    let bay = &own.stand_in(Stage::Germinate)?.bay;
    let switched = plan.happened().bay(bay).mats;
    let off = switched.filter(|(day, on)| !on && past.sown.is_none_or(|sown| sown < *day));
    let moved = past.moved.iter().find(|(_, to)| to != bay);
    let days = [off.map(|(day, _)| day), moved.map(|(day, _)| *day)];
    days.into_iter().flatten().min()
}

/// The day of what comes after it, where that happened.
fn later(what: EventKind, past: &TrayPast) -> Option<Date> {
    let up = past.counts.iter().find(|count| count.count > 0);
    let facts = [
        (EventKind::Sow, past.sown),
        (EventKind::Emerge, up.map(|count| count.on)),
        (EventKind::Uncover, past.dome_off),
        (EventKind::Thin, past.thinned.or(past.pricked_out)),
        (EventKind::PotOn, past.potted_on),
        (EventKind::Harden, past.hardened_from),
        (EventKind::PlantOut, past.planted_out),
    ];
    // Domes, mats and light wait for no count; cutting back and moving come whenever they do.
    let after = match what {
        EventKind::Vent => EventKind::Emerge,
        EventKind::Emerge | EventKind::MatOff => EventKind::Uncover,
        EventKind::Feed => EventKind::PotOn,
        EventKind::CutBack | EventKind::Move => EventKind::Harden,
        what => what,
    };
    let done = facts.into_iter().filter(|(kind, _)| *kind > after);
    done.filter_map(|(_, day)| day).min()
}
