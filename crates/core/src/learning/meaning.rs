//! What a reading means at the moment at which it is typed.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::{Quantity, dli_mol_m2_d};
use crate::basis::words::{Statement, say};
use crate::learning::lesson::Lesson;
use crate::light::bay::lux_per_umol_m2_s;
use crate::log::detail::{About, Measurement};
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::log::told::Told;
use crate::plan::Tray;
use crate::room::BayRef;
use crate::season::Reckoned;

/// What a reading means.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Meaning {
    /// What it says of what grows there; `None` where it says nothing.
    pub now: Option<Statement>,
    /// Beside what is reckoned; `None` where nothing is.
    pub against: Option<Statement>,
    /// What it teaches together with those before it; `None` where nothing is learned from such a reading.
    pub lesson: Option<Lesson>,
}

/// What `entry` means, noted after all that is `told`; `None` where it is no reading.
pub fn meaning(reckoned: &Reckoned<'_>, told: &Told, entry: &Entry) -> Option<Meaning> {
    let Some(Fact::Measured { about, reading }) = &entry.fact else {
        return None;
    };
    let mut with = told.clone();
    with.add([entry.clone()]);
    let lessons = super::lessons(reckoned, &with, &[]).into_iter();
    let of_it = |lesson: &Lesson| lesson.readings.iter().any(|own| own.entry == entry.id);
    let lesson = lessons
        .filter(of_it)
        .max_by_key(|lesson| lesson.fix.is_some());
    let own = lesson.as_ref().and_then(|lesson| {
        let mut readings = lesson.readings.iter();
        readings.find(|own| own.entry == entry.id)
    });
    let against = own.map(|own| match &own.left_out {
        Some(why) => say!(
            "{reckoned} is reckoned here. It does not count: {why}",
            reckoned = own.quantity.of(own.reckoned),
            why = why.to_string()
        ),
        None => say!(
            "{reckoned} is reckoned here, and you measured {measured}",
            reckoned = own.quantity.of(own.reckoned),
            measured = own.quantity.of(own.measured)
        ),
    });
    Some(Meaning {
        now: now(reckoned, entry, about, *reading),
        against,
        lesson,
    })
}

fn now(
    reckoned: &Reckoned<'_>,
    entry: &Entry,
    about: &About,
    reading: Measurement,
) -> Option<Statement> {
    let plan = reckoned.plan;
    let tray: Option<&Tray> = match about {
        About::Tray(id) => plan.tray_index(id).map(|i| &plan.trays[i]),
        _ => None,
    };
    match reading {
        Measurement::SoilC(c) => {
            let dates = &reckoned.dates[plan.sowing_index(&tray?.parts[0].sowing)];
            let crop = plan.crop(&plan.sowings[plan.sowing_index(&dates.sowing)]);
            if dates.last.is_some_and(|last| last < entry.on) {
                return None;
            }
            let celsius = |c: f64| Quantity::TemperatureC.of(c);
            let curve = crop.curve();
            let best = curve.days(crop.root_zone_c)?;
            Some(match curve.days(c) {
                Some(days) => say!(
                    "At {c} half of {name} shows after {days}, at {wants} after {best}",
                    c = celsius(c),
                    name = &dates.name,
                    days = Quantity::Days.of(days),
                    wants = celsius(crop.root_zone_c),
                    best = Quantity::Days.of(best)
                ),
                None => say!(
                    "At {c} no {name} comes up",
                    c = celsius(c),
                    name = &dates.name
                ),
            })
        }
        Measurement::Lux(_) | Measurement::Ppfd(_) => {
            let own: Option<BayRef> = match about {
                About::Tray(_) => {
                    let tray = tray?;
                    let stage = reckoned.moments_of(tray).stage_on(entry.on)?;
                    tray.stand_on(stage, entry.on)
                        .map(|stand| stand.bay.clone())
                }
                About::Bay(bay) => Some(bay.clone()),
                About::Spot(spot) => Some(spot.bay.clone()),
                About::Room => None,
            };
            let bay = plan.bay_on(&own?, entry.on)?;
            let ppfd = match reading {
                Measurement::Lux(lux) => {
                    let per = lux_per_umol_m2_s(&bay.tier.lamps);
                    (per > 0.0).then(|| lux / per)?
                }
                Measurement::Ppfd(ppfd) => ppfd,
                _ => return None,
            };
            let hours = bay.tier.photoperiod_h;
            Some(say!(
                "That is {ppfd}, and {dli} in the {hours} that the lamps burn",
                ppfd = Quantity::PpfdUmolM2S.of(ppfd),
                dli = Quantity::DliMolM2D.of(dli_mol_m2_d(ppfd, hours)),
                hours = Quantity::Hours.of(hours)
            ))
        }
        _ => None,
    }
}
