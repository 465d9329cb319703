//! Thermometers in the air to how much warmer or colder a place is than the room.

use std::collections::BTreeMap;

use crate::basis::learned::Learned;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::learning::estimate::Estimate;
use crate::learning::evidence::{Asked, Evidence, learned, so_many};
use crate::learning::lesson::{Lesson, LessonKind, Said};
use crate::log::detail::{About, Measurement};
use crate::plan::patch::{Fix, PatchStep};
use crate::room::place_pointer;
use crate::warmth::closed_space::ClosedSpace;
use crate::warmth::transfer::air_at;

/// Thermometers and days differ by so much, in K (our own estimate).
const USUAL_SCATTER_K: f64 = 0.8;
/// Less than this is a draught.
const LEAST_K: f64 = 0.4;
const BELIEVABLE_K: std::ops::RangeInclusive<f64> = -12.0..=12.0;
/// The hours that tell of the day; the others tell of the night.
const BY_DAY_H: std::ops::Range<f64> = 9.0..21.0;
/// The hour at which somebody looks who does not tell.
pub(crate) const USUALLY_H: f64 = 15.0;

/// A lesson for each place in which the air was measured, by day and by night.
pub(super) fn lessons(asked: &Asked<'_, '_>) -> Vec<Lesson> {
    let plan = asked.reckoned.plan;
    let mut by_place: BTreeMap<(usize, bool), Vec<Evidence>> = BTreeMap::new();
    for (entry, about, reading) in asked.measured() {
        let Measurement::AirC(c) = reading else {
            continue;
        };
        let bay = match about {
            About::Tray(id) => asked.stood(id, entry.on).map(|(_, stand)| &stand.bay),
            About::Bay(bay) => Some(bay),
            About::Spot(spot) => Some(&spot.bay),
            About::Room => None,
        };
        let Some(bay) = bay.and_then(|bay| plan.bay_on(bay, entry.on)) else {
            continue;
        };
        if bay.place.outdoors() {
            continue;
        }
        let hour = entry.at_h.unwrap_or(USUALLY_H);
        let air = bay.place.room_air(&plan.site, entry.on);
        let reckoned = air_at(air.day_c, air.night_c, hour);
        let celsius = Quantity::TemperatureC;
        let closed = ClosedSpace::around(bay.place, bay.tier_index);
        let closed = closed
            .map(|_| say!("this air is closed in: it tells of its own warmth, not of the room's"));
        let own = Evidence::by_difference(entry, bay.name(), celsius, c, reckoned).unless(closed);
        let key = (bay.place_index, BY_DAY_H.contains(&hour));
        by_place.entry(key).or_default().push(own);
    }
    let each = by_place.into_iter();
    each.filter_map(|((place, by_day), own)| lesson(asked, place, by_day, own))
        .collect()
}

fn lesson(asked: &Asked<'_, '_>, index: usize, by_day: bool, own: Vec<Evidence>) -> Option<Lesson> {
    let place = &asked.reckoned.plan.places[index];
    let known = if by_day {
        place.air_day_k
    } else {
        place.air_night_k
    };
    let now = known.map_or(0.0, |known| known.value);
    let all = asked.weighed(own, USUAL_SCATTER_K);
    let counting = asked.counting(&all);
    let off: Vec<f64> = counting.iter().map(|own| own.off).collect();
    let estimate = Estimate::of_mean(&off, USUAL_SCATTER_K);
    let estimate = estimate.map(|off| off.map(|k| now + k));
    let said = estimate.map(|e| Said::of(&e, now, LEAST_K, BELIEVABLE_K));
    let learned = estimate.and_then(|estimate| learned(estimate, &counting));
    let kelvin = |k: f64| Quantity::DifferenceK.of(k);
    let figures = learned.unwrap_or(Learned::plain(now, all.first()?.on));
    let (low, high) = (kelvin(figures.low), kelvin(figures.high));
    let by = kelvin(figures.value.abs());
    let way = if figures.value < 0.0 {
        "colder"
    } else {
        "warmer"
    };
    let when = if by_day { "by day" } else { "by night" };
    let n = so_many(&counting);
    let name = place.name.as_str();
    let verdict = match said {
        None => say!(
            "No reading here tells of the air around {place}",
            place = name
        ),
        Some(Said::Agrees) => say!(
            "The air around {place} is as reckoned {when} ({n}: {low} to {high} off the room's)",
            place = name,
            when = when,
            n = n,
            low = low,
            high = high
        ),
        Some(Said::Corrects) => say!(
            "{place} is {by} {way} than the room {when} ({n}: {low} to {high})",
            place = name,
            by = by.clone(),
            way = way,
            when = when,
            n = n,
            low = low,
            high = high
        ),
        Some(Said::Unsure) => say!(
            "{place} seems {by} {way} than the room {when}, but may be anything from {low} to {high} ({n})",
            place = name,
            by = by.clone(),
            way = way,
            when = when,
            low = low,
            high = high,
            n = n
        ),
        Some(Said::Unbelievable) => say!(
            "{by} {way} than the room is no corner of it: check the room's own figures ({n})",
            by = by.clone(),
            way = way,
            n = n
        ),
    };
    let first = match said {
        Some(Said::Agrees) => say!("Nothing is to be corrected"),
        Some(Said::Corrects) => say!(
            "Look for a draught, an outer wall or a heater beside it, and shade the thermometer from lamps"
        ),
        _ => say!("Read the thermometer in its shade on a few days, at the same hour"),
    };
    let field = if by_day { "air_day_k" } else { "air_night_k" };
    let fix = learned
        .filter(|_| said == Some(Said::Corrects))
        .map(|learned| Fix {
            label: say!(
                "Take it as {by} {way} {when}",
                by = by.clone(),
                way = way,
                when = when
            ),
            word: say!(
                "took the air around {place} as {by} {way} than the room {when}, as measured",
                place = name,
                by = by,
                way = way,
                when = when
            ),
            patch: vec![PatchStep::set(&place_pointer(index).at(field), learned)],
        });
    Some(Lesson {
        id: format!("{field}/{}", place.id),
        kind: if by_day {
            LessonKind::AirByDay
        } else {
            LessonKind::AirByNight
        },
        about: place.name.clone(),
        quantity: Quantity::DifferenceK,
        now,
        learned,
        verdict,
        first,
        fix,
        readings: asked.shown(all),
    })
}
