//! Rulers to how tall a crop grows here.

use std::collections::BTreeMap;

use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::learning::estimate::Estimate;
use crate::learning::evidence::{Asked, Evidence, learned, so_many};
use crate::learning::lesson::{Lesson, LessonKind, Said};
use crate::learning::of_crop::set_on_crop;
use crate::log::detail::{About, Measurement};
use crate::plan::patch::Fix;

/// Seedlings of a tray differ by so much from its mean, as a share (our own estimate).
const USUAL_SCATTER: f64 = 0.15;
/// Less than this is weather.
const LEAST: f64 = 0.08;
const BELIEVABLE: std::ops::RangeInclusive<f64> = 0.3..=3.0;
/// Lower than this a ruler tells little.
const LEAST_MM: f64 = 8.0;

/// A lesson for each crop whose plants were measured.
pub(super) fn lessons(asked: &Asked<'_, '_>) -> Vec<Lesson> {
    let plan = asked.reckoned.plan;
    let mut by_crop: BTreeMap<String, Vec<Evidence>> = BTreeMap::new();
    for (entry, about, reading) in asked.measured() {
        let (About::Tray(id), Measurement::HeightMm(mm)) = (about, reading) else {
            continue;
        };
        let Some(tray) = plan.tray_index(id).map(|i| &plan.trays[i]) else {
            continue;
        };
        let grown = asked.reckoned.growing.of_tray(plan, tray);
        let first = grown.first().and_then(|grown| grown.on(entry.on));
        let Some(plant) = first.filter(|plant| plant.height_mm >= LEAST_MM) else {
            continue;
        };
        let sowing = &tray.parts[0].sowing;
        let mixed = tray.parts.iter().any(|part| part.sowing != *sowing);
        let mixed =
            mixed.then(|| say!("several kinds grow in this tray: which was measured is not told"));
        let (name, mm_of) = (tray.name.clone(), Quantity::LengthMm);
        let own = Evidence::by_ratio(entry, name, mm_of, mm, plant.height_mm).unless(mixed);
        let crop = plan.sowings[plan.sowing_index(sowing)].crop.clone();
        by_crop.entry(crop).or_default().push(own);
    }
    let each = by_crop
        .into_iter()
        .filter_map(|(crop, own)| lesson(asked, &crop, own));
    each.collect()
}

/// The readings; where there are several trays, the mean of each: plants of one tray share its luck.
fn by_tray(counting: &[&Evidence]) -> Vec<f64> {
    let mut trays: BTreeMap<&str, Vec<f64>> = BTreeMap::new();
    for own in counting {
        trays.entry(&own.at).or_default().push(own.off);
    }
    if trays.len() == 1 {
        return counting.iter().map(|own| own.off).collect();
    }
    let mean = |all: Vec<f64>| all.iter().sum::<f64>() / all.len() as f64;
    trays.into_values().map(mean).collect()
}

fn lesson(asked: &Asked<'_, '_>, crop: &str, own: Vec<Evidence>) -> Option<Lesson> {
    let plan = asked.reckoned.plan;
    let of = plan.find_crop(crop)?;
    let now = of.tall_here.map_or(1.0, |learned| learned.value);
    let all = asked.weighed(own, USUAL_SCATTER);
    let counting = asked.counting(&all);
    let ratios = by_tray(&counting);
    let estimate = Estimate::of_mean(&ratios, USUAL_SCATTER);
    let estimate = estimate.map(|ratio| ratio.map(|ratio| now * ratio.exp()));
    let said = estimate.map(|e| Said::of(&e, now, LEAST, BELIEVABLE));
    let learned = estimate.and_then(|estimate| learned(estimate, &counting));
    let share = |value: f64| Quantity::Share.of(value);
    let value = share(learned.map_or(now, |learned| learned.value));
    let low = share(learned.map_or(now, |learned| learned.low));
    let high = share(learned.map_or(now, |learned| learned.high));
    let name = of.name.as_str();
    let n = so_many(&counting);
    let verdict = match said {
        None => say!("No height here tells of {crop}", crop = name),
        Some(Said::Agrees) => say!(
            "{crop} grows as tall as reckoned ({n}: {low} to {high})",
            crop = name,
            n = n,
            low = low,
            high = high
        ),
        Some(Said::Corrects) => say!(
            "{crop} grows to {value} of the height reckoned, in the light and warmth that it has ({n}: {low} to {high})",
            crop = name,
            value = value.clone(),
            n = n,
            low = low,
            high = high
        ),
        Some(Said::Unsure) => say!(
            "{crop} seems to grow to {value} of the height reckoned, but may be anything from {low} to {high} ({n})",
            crop = name,
            value = value.clone(),
            low = low,
            high = high,
            n = n
        ),
        Some(Said::Unbelievable) => say!(
            "{crop} at {value} of the height reckoned: something else is wrong ({n})",
            crop = name,
            value = value.clone(),
            n = n
        ),
    };
    let first = match said {
        Some(Said::Agrees) => say!("Nothing is to be corrected"),
        Some(Said::Corrects) => {
            say!(
                "Correct lamps and air first, if they were found otherwise: dim light stretches, and cold holds back"
            )
        }
        _ => say!("Measure five plants from the rim up and note their mean"),
    };
    let fix = learned
        .filter(|_| said == Some(Said::Corrects))
        .map(|learned| Fix {
            label: say!(
                "Take {crop} as {value} as tall",
                crop = name,
                value = value.clone()
            ),
            word: say!(
                "took {crop} as {value} as tall, as measured",
                crop = name,
                value = value
            ),
            patch: set_on_crop(plan, of, |own| own.tall_here = Some(learned)),
        });
    Some(Lesson {
        id: format!("height/{crop}"),
        kind: LessonKind::Height,
        about: of.name.clone(),
        quantity: Quantity::Share,
        now,
        learned,
        verdict,
        first,
        fix,
        readings: asked.shown(all),
    })
}
