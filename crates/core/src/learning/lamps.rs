//! Readings of light to what a bay's lamps really give.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::day::spot::spot_light;
use crate::learning::estimate::Estimate;
use crate::learning::evidence::{Asked, Evidence, learned, so_many};
use crate::learning::lesson::{Lesson, LessonKind, Said};
use crate::light::bay::lux_per_umol_m2_s;
use crate::log::detail::{About, Measurement};
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::{Adjust, Bay, BayRef, Place};

/// Phone sensors and hands differ by so much, as a share (our own estimate).
const USUAL_SCATTER: f64 = 0.12;
/// Less than this is dust.
const LEAST: f64 = 0.05;
/// What lamps are ever found to give of their label's light.
pub(crate) const BELIEVABLE: std::ops::RangeInclusive<f64> = 0.3..=2.5;

/// A lesson for each bay in which light was measured.
pub(super) fn lessons(asked: &Asked<'_, '_>) -> Vec<Lesson> {
    let mut by_bay: BTreeMap<BayRef, Vec<Evidence>> = BTreeMap::new();
    /// So many of a bay are looked at.
    const MOST: usize = 40;
    for (entry, about, reading) in asked.measured() {
        let (Measurement::Lux(_) | Measurement::Ppfd(_)) = reading else {
            continue;
        };
        let Some((bay, spot_mm, at)) = held_at(asked, about, entry.on) else {
            continue;
        };
        let known = by_bay.entry(bay.clone()).or_default();
        if known.len() < MOST {
            known.extend(evidence(asked, entry, reading, &bay, spot_mm, at));
        }
    }
    let each = by_bay
        .into_iter()
        .filter_map(|(bay, own)| lesson(asked, &bay, own));
    each.collect()
}

/// The bay in which a meter was held, the spot of its deck, and that in words.
fn held_at(asked: &Asked<'_, '_>, about: &About, on: Date) -> Option<(BayRef, (f64, f64), String)> {
    let plan = asked.reckoned.plan;
    match about {
        About::Tray(id) => {
            let (tray, stand) = asked.stood(id, on)?;
            let outline = stand.footprint(plan.format(tray));
            let middle = |edges: [f64; 2]| (edges[0] + edges[1]) / 2.0;
            let spot = (middle(outline.x_mm), middle(outline.y_mm));
            Some((stand.bay.clone(), spot, tray.name.clone()))
        }
        About::Spot(spot) => {
            let name = plan.bay(&spot.bay)?.name();
            Some((spot.bay.clone(), (spot.x_mm, spot.y_mm), name))
        }
        About::Bay(bay) => {
            let place = plan.bay(bay)?;
            let middle = (place.place.width_mm / 2.0, place.place.depth_mm / 2.0);
            Some((bay.clone(), middle, place.name()))
        }
        About::Room => None,
    }
}

fn evidence(
    asked: &Asked<'_, '_>,
    entry: &Entry,
    reading: Measurement,
    bay: &BayRef,
    spot_mm: (f64, f64),
    at: String,
) -> Option<Evidence> {
    let plan = asked.reckoned.plan;
    let there = plan.bay_on(bay, entry.on)?;
    if there.tier.lamps.is_empty() {
        return None;
    }
    let (place, unknown) = hung(asked, &there, entry);
    let there = Bay {
        place: &place,
        tier: &place.tiers[there.tier_index],
        ..there
    };
    let (ppfd, _) = spot_light(asked.reckoned, &there, entry.on, spot_mm);
    let (measured, reckoned, quantity) = match reading {
        Measurement::Lux(lux) => {
            let reckoned = ppfd * lux_per_umol_m2_s(&there.tier.lamps);
            (lux, reckoned, Quantity::IlluminanceLux)
        }
        Measurement::Ppfd(measured) => (measured, ppfd, Quantity::PpfdUmolM2S),
        _ => return None,
    };
    if reckoned <= 0.0 {
        return None;
    }
    let dark = entry.at_h.is_some_and(|h| !there.tier.burning().at(h));
    let why_not = if there.place.has_daylight() {
        Some(say!(
            "daylight falls in here too: a reading of the lamps alone is taken after dark"
        ))
    } else if dark {
        Some(say!("the lamps are off at that hour"))
    } else {
        unknown
    };
    let own = Evidence::by_ratio(entry, at, quantity, measured, reckoned);
    Some(own.unless(why_not))
}

/// The place of `bay` with its lamps as they hung when `entry` was measured, by what was logged since; and why
/// that is not known.
fn hung(asked: &Asked<'_, '_>, bay: &Bay<'_>, entry: &Entry) -> (Place, Option<Statement>) {
    let reference = bay.reference();
    let when = |entry: &Entry| (entry.on, entry.at_h.map_or(-1, |h| (h * 3600.0) as i32));
    let sets = asked.told.all().filter_map(|own| match &own.fact {
        Some(Fact::LampSet {
            bay,
            height_mm,
            lift_mm,
            brightness,
            ..
        }) if *bay == reference => Some((when(own), *height_mm, *lift_mm, *brightness)),
        _ => None,
    });
    let (before, since): (Vec<_>, Vec<_>) = sets.partition(|set| set.0 <= when(entry));
    let mut place = bay.place.clone();
    if since.is_empty() {
        return (place, None);
    }
    let dimmed = since
        .iter()
        .any(|set| set.3.is_some_and(|share| share != 1.0));
    let Some((_, height_mm, lift_mm, _)) = before.last().filter(|_| !dimmed) else {
        let why = say!("the lamps were set otherwise since, and how they hung is not in the log");
        return (place, Some(why));
    };
    let tier = &mut place.tiers[bay.tier_index];
    for lamp in &mut tier.lamps {
        lamp.height_mm = *height_mm;
    }
    if let (Some(Adjust::Boxes(boxes)), Some(lift_mm)) = (&mut tier.adjust, lift_mm) {
        boxes.stacked_mm = *lift_mm;
    }
    (place, None)
}

fn lesson(asked: &Asked<'_, '_>, bay: &BayRef, own: Vec<Evidence>) -> Option<Lesson> {
    let bay = asked.reckoned.plan.bay(bay)?;
    let now = bay.tier.lamps.first()?.measured.map_or(1.0, |m| m.value);
    let all = asked.weighed(own, USUAL_SCATTER);
    let counting = asked.counting(&all);
    let ratios: Vec<f64> = counting.iter().map(|own| own.off).collect();
    let estimate = Estimate::of_mean(&ratios, USUAL_SCATTER);
    let estimate = estimate.map(|ratio| ratio.map(|ratio| now * ratio.exp()));
    let said = estimate.map(|e| Said::of(&e, now, LEAST, BELIEVABLE));
    let learned = estimate.and_then(|estimate| learned(estimate, &counting));
    let (verdict, first) = words(learned.as_ref().zip(said), so_many(&counting));
    let fix = learned
        .filter(|_| said == Some(Said::Corrects))
        .map(|learned| {
            let ratio = learned.value / now;
            let share = Quantity::Share.of(learned.value);
            let lamps = bay.tier.lamps.iter().enumerate();
            let steps = lamps.map(|(i, lamp)| {
                let own = lamp.measured.map_or(1.0, |m| m.value) * ratio / learned.value;
                let at = bay.pointer().at("lamps").at(i).at("measured");
                PatchStep::set(&at, learned.times(own))
            });
            Fix {
                label: say!("Take the lamps at {share}", share = share.clone()),
                word: say!(
                    "took the lamps of {bay} at {share}, as measured",
                    bay = bay.name(),
                    share = share
                ),
                patch: steps.collect(),
            }
        });
    Some(Lesson {
        id: format!("lamps/{}/{}", bay.place.id, bay.tier.id),
        kind: LessonKind::Lamps,
        about: bay.name(),
        quantity: Quantity::Share,
        now,
        learned,
        verdict,
        first,
        fix,
        readings: asked.shown(all),
    })
}

fn words(
    said: Option<(&crate::basis::learned::Learned, Said)>,
    n: crate::basis::words::Figure,
) -> (Statement, Statement) {
    let Some((learned, said)) = said else {
        return (
            say!("No reading here tells of the lamps"),
            say!("Hold the meter at the leaves, facing up, after dark, with only these lamps on"),
        );
    };
    let share = |value: f64| Quantity::Share.of(value);
    let (value, low, high) = (
        share(learned.value),
        share(learned.low),
        share(learned.high),
    );
    match said {
        Said::Agrees => (
            say!(
                "The lamps give {value} of their label's light, as reckoned ({n}: {low} to {high})",
                value = value,
                n = n,
                low = low,
                high = high
            ),
            say!("Nothing is to be corrected"),
        ),
        Said::Corrects if learned.value < 1.0 => (
            say!(
                "The lamps give {value} of the light on their label ({n}: {low} to {high})",
                value = value,
                n = n,
                low = low,
                high = high
            ),
            say!("Wipe them and measure again: dust takes a tenth and more"),
        ),
        Said::Corrects => (
            say!(
                "The lamps give {value} of the light on their label ({n}: {low} to {high})",
                value = value,
                n = n,
                low = low,
                high = high
            ),
            say!("Make sure that no other light fell on the meter"),
        ),
        Said::Unsure => (
            say!(
                "It looks like {value} of their label's light, but may be anything from {low} to {high} ({n})",
                value = value,
                low = low,
                high = high,
                n = n
            ),
            say!("A few more readings at other spots would tell"),
        ),
        Said::Unbelievable => (
            say!(
                "{value} of the label's light is not down to the lamps ({n})",
                value = value,
                n = n
            ),
            say!("Check the lamps' figures, and that the meter faced up at the leaves"),
        ),
    }
}
