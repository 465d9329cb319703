//! Water: each tray when its mix has given off what roots draw easily since it was watered last.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::dates::plus_days;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::Standing;
use crate::day::view::BayView;
use crate::log::fact::Fact;
use crate::room::BayRef;
use crate::today::job::{Asks, Job, JobFact, JobKind};
use crate::today::look::{Placed, Walk, Where};
use crate::today::thirst::{Thirst, last_wet};

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
    /// Whether a wick waters it from a reservoir.
    from_reservoir: bool,
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
    let own = |due: Date, last: Option<Date>, ml_d: [Option<f64>; 2]| Thirsty {
        bay: view.bay.reference(),
        standing,
        due,
        water_ml: ml_d[0].map(|ml| (ml / STEP_ML).round().max(1.0) * STEP_ML),
        known: last.is_some(),
        uses_ml_d: ml_d[1].unwrap_or(0.0),
        from_reservoir: standing.format.reservoir_ml.is_some(),
    };
    if view.bay.place.outdoors() {
        let last = last_wet(view, standing);
        let due = last.map_or(walk.date, |last| plus_days(last, OUTDOORS_DAYS));
        return (due <= walk.date).then(|| own(due, last, [None, None]));
    }
    let thirst = Thirst::of(view, standing);
    if !thirst.dries() {
        return None;
    }
    let due = thirst.due().unwrap_or(walk.date);
    let ml = [thirst.wants_ml(walk.date), thirst.water.uses_ml_d];
    (due <= plus_days(walk.date, 1)).then(|| own(due, thirst.last, ml.map(Some)))
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
    let wicked = trays.iter().all(|own| own.from_reservoir);
    let headline = match (known || outdoors, trays.len()) {
        (true, 1) if wicked => say!("Fill the reservoir of {tray}", tray = one),
        (true, _) if wicked => say!("Fill {n} reservoirs", n = n),
        (true, 1) => say!("Water {tray}", tray = one),
        (true, _) => say!("Water {n} trays", n = n),
        (false, 1) => say!("Lift {tray}: water it if it feels light", tray = one),
        (false, _) => say!("Lift {n} trays: water those that feel light", n = n),
    };
    let reason = match (outdoors, known) {
        (true, _) => {
            say!("Sun and wind dry trays outdoors quickly: feel the mix, and water what is dry")
        }
        (false, true) if wicked => say!(
            "A tray here gives off up to {most} a day. Let it run dry now and then while seedlings are small: roots want air",
            most = most
        ),
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
