//! Water: each tray when its mix has given off what roots draw easily since it was watered last.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::Standing;
use crate::day::view::BayView;
use crate::day::water::TrayWater;
use crate::log::fact::Fact;
use crate::room::BayRef;
use crate::today::job::{Asks, Job, JobFact, JobKind};
use crate::today::look::{Placed, Walk, Where};

/// Nobody pours more finely, in ml.
const STEP_ML: f64 = 50.0;
/// Outdoors sun and wind decide: a look every other day (common practice, no source).
const OUTDOORS_DAYS: i32 = 2;

/// A tray that wants water.
struct Thirsty<'a> {
    bay: BayRef,
    standing: &'a Standing<'a>,
    due: Date,
    water_ml: Option<f64>,
    /// Whether anybody ever logged that it was watered, sown or potted into.
    known: bool,
    uses_ml_d: f64,
}

/// A job for each place with trays that want water.
pub(super) fn jobs(walk: &Walk<'_, '_>) -> Vec<Placed> {
    let mut by_place: BTreeMap<(usize, bool), Vec<Thirsty<'_>>> = BTreeMap::new();
    for view in walk.views {
        for standing in &view.standing {
            if let Some(own) = thirsty(walk, view, standing) {
                let key = (view.bay.place_index, own.known);
                by_place.entry(key).or_default().push(own);
            }
        }
    }
    let each = by_place.into_values();
    each.map(|trays| job(walk, &trays)).collect()
}

/// `standing` where it wants water by tomorrow.
fn thirsty<'a>(
    walk: &Walk<'_, '_>,
    view: &BayView<'_>,
    standing: &'a Standing<'a>,
) -> Option<Thirsty<'a>> {
    let tray = &standing.tray.id;
    if !walk.is_sown(tray) {
        return None;
    }
    let past = walk.reckoned.plan.happened().tray(tray);
    let watered = past.and_then(|past| past.watered);
    // What is sown or potted is watered in.
    let wet = past.and_then(|past| past.sown.into_iter().chain(past.potted_into).max());
    let last = watered.map(|(day, _)| day).max(wet);
    if view.bay.place.outdoors() {
        let due = last.map_or(walk.date, |last| plus_days(last, OUTDOORS_DAYS));
        return (due <= walk.date).then_some(Thirsty {
            bay: view.bay.reference(),
            standing,
            due,
            water_ml: None,
            known: last.is_some(),
            uses_ml_d: 0.0,
        });
    }
    let roots = view
        .computed
        .roots()
        .iter()
        .find(|roots| roots.tray == *tray);
    let water: TrayWater = roots.map_or_else(|| view.water_in_air(standing), |roots| roots.water);
    let lasts = water.lasts_days?;
    let poured = watered
        .filter(|(day, _)| Some(*day) == last)
        .and_then(|(_, ml)| ml);
    // A little water lasts a little while.
    let lasts = match poured {
        Some(ml) if ml > 0.0 => lasts.min(ml / water.uses_ml_d.max(1e-6)),
        _ => lasts,
    };
    let days = (lasts.floor() as i32).max(1);
    let due = last.map_or(walk.date, |last| plus_days(last, days));
    let since = last.map_or(lasts, |last| f64::from(days_between(last, walk.date)));
    let ml = water.uses_ml_d * since.clamp(1.0, lasts.max(1.0));
    (due <= plus_days(walk.date, 1)).then_some(Thirsty {
        bay: view.bay.reference(),
        standing,
        due,
        water_ml: Some((ml / STEP_ML).round().max(1.0) * STEP_ML),
        known: last.is_some(),
        uses_ml_d: water.uses_ml_d,
    })
}

fn job(walk: &Walk<'_, '_>, trays: &[Thirsty<'_>]) -> Placed {
    let (bay, known) = (&trays[0].bay, trays[0].known);
    let due = trays.iter().map(|own| own.due).min().unwrap_or(walk.date);
    let note = |own: &Thirsty<'_>| {
        let tray = own.standing.tray;
        let fact = Fact::Watered {
            tray: tray.id.clone(),
            water_ml: own.water_ml,
        };
        JobFact::of(tray, fact)
    };
    let n = Quantity::Count.of(trays.len() as f64);
    let one = &trays[0].standing.tray.name;
    let outdoors = trays.iter().all(|own| own.water_ml.is_none());
    let most = trays.iter().map(|own| own.uses_ml_d).fold(0.0, f64::max);
    let most = Quantity::VolumeMl.of(most);
    let headline = match (known || outdoors, trays.len()) {
        (true, 1) => say!("Water {tray}", tray = one),
        (true, _) => say!("Water {n} trays", n = n),
        (false, 1) => say!("Lift {tray}: water it if it feels light", tray = one),
        (false, _) => say!("Lift {n} trays: water those that feel light", n = n),
    };
    let reason = match (outdoors, known) {
        (true, _) => {
            say!("Sun and wind dry trays outdoors quickly: feel the mix, and water what is dry")
        }
        (false, true) => say!(
            "A tray here gives off up to {most} a day. Water from below, 25 mm deep; pour off what is left",
            most = most
        ),
        (false, false) => say!(
            "Nobody logged their last water. A tray here gives off up to {most} a day",
            most = most
        ),
    };
    let at = Where::At(bay.clone());
    let id = format!("water/{}", bay.place);
    let id = if known { id } else { format!("{id}/unknown") };
    let notes = trays.iter().map(note).collect();
    let job = walk.job((id, JobKind::Water, due), [headline, reason], &at, notes);
    let job = Job {
        // What was never logged cannot be late.
        recurring: !known || outdoors,
        asks: (!outdoors).then_some(Asks::Water),
        ..job
    };
    (at, job)
}
