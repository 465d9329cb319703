//! The days on which seedlings showed to how fast a crop comes up here.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::dates::days_between;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::learning::estimate::Estimate;
use crate::learning::evidence::{Asked, Evidence, learned, so_many};
use crate::learning::lesson::{Lesson, LessonKind, Said};
use crate::learning::of_crop::set_on_crop;
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::plan::patch::Fix;

/// Batches of a crop differ by so much in their days, as a share (our own estimate).
const USUAL_SCATTER: f64 = 0.12;
/// Less than this is a matter of the hour at which somebody looks.
const LEAST: f64 = 0.08;
/// Who looks once a day sees half of them up so many days late or early, and all trays alike (our own judgement).
const LOOKS_WITHIN_DAYS: f64 = 0.4;
const BELIEVABLE: std::ops::RangeInclusive<f64> = 0.3..=3.0;

/// A lesson for each crop whose seedlings were counted as they came.
pub(super) fn lessons(asked: &Asked<'_, '_>) -> Vec<Lesson> {
    let plan = asked.reckoned.plan;
    let mut by_tray: BTreeMap<(&str, &str), Vec<(&Entry, u32)>> = BTreeMap::new();
    for entry in asked.told.all() {
        if let Some(Fact::Shown {
            tray,
            sowing,
            count,
            ..
        }) = &entry.fact
            && let Some(own) = plan.tray_index(tray).map(|i| &plan.trays[i])
        {
            let sowing = sowing.as_deref().unwrap_or(&own.parts[0].sowing);
            by_tray
                .entry((tray, sowing))
                .or_default()
                .push((entry, *count));
        }
    }
    let mut by_crop: BTreeMap<&str, Vec<Evidence>> = BTreeMap::new();
    for ((tray, sowing), counts) in by_tray {
        let Some(dates) = asked.reckoned.dates.iter().find(|own| own.sowing == sowing) else {
            continue;
        };
        let sowing = &plan.sowings[plan.sowing_index(sowing)];
        let past = plan.happened().tray(tray);
        let sown = past.and_then(|past| past.sown);
        let (Some(sown), Some((entry, half))) = (sown, half_up(&counts)) else {
            continue;
        };
        let curve = plan.crop(sowing).curve();
        let reckoned = match asked.germinated_at_c(tray, dates) {
            Some(c) => curve.days(c),
            None => dates.emergence_days,
        };
        let (Some(reckoned), Some(i)) = (reckoned, plan.tray_index(tray)) else {
            continue;
        };
        let days = days_between(sown, half.0) as f64 + half.1;
        let (name, unit) = (plan.trays[i].name.clone(), Quantity::Days);
        let mut own = Evidence::by_ratio(entry, name, unit, days.max(0.5), reckoned);
        // Twice the days are half the pace.
        own.off = -own.off;
        by_crop.entry(&sowing.crop).or_default().push(own);
    }
    let each = by_crop
        .into_iter()
        .filter_map(|(crop, own)| lesson(asked, crop, own));
    each.collect()
}

/// The entry by which half of all that came up in a tray showed, and when that was: a day, and the share of a
/// day after it; `None` while nobody knows how many will.
fn half_up<'e>(counts: &[(&'e Entry, u32)]) -> Option<(&'e Entry, (Date, f64))> {
    /// Fewer counts than this do not tell when half were up, and whether more will come.
    const LEAST_COUNTS: usize = 3;
    let most = counts
        .iter()
        .map(|(_, count)| *count)
        .max()
        .filter(|most| *most >= 4)?;
    let half = f64::from(most) / 2.0;
    let reached = counts
        .iter()
        .position(|(_, count)| f64::from(*count) >= half)?;
    let (entry, count) = counts[reached];
    // What was half up when somebody first looked came before, nobody knows when.
    let (before, fewer) = counts.get(reached.checked_sub(1)?)?;
    let grew = f64::from(count) - f64::from(*fewer);
    let way = ((half - f64::from(*fewer)) / grew.max(1e-9)).clamp(0.0, 1.0);
    let days = way * f64::from(days_between(before.on, entry.on));
    (counts.len() >= LEAST_COUNTS).then_some((entry, (before.on, days)))
}

fn lesson(asked: &Asked<'_, '_>, crop: &str, mut own: Vec<Evidence>) -> Option<Lesson> {
    let plan = asked.reckoned.plan;
    let of = plan.find_crop(crop)?;
    let now = of.comes_up_here.map_or(1.0, |learned| learned.value);
    own.sort_by_key(|own| std::cmp::Reverse(own.on));
    let all = asked.weighed(own, USUAL_SCATTER);
    let counting = asked.counting(&all);
    let ratios: Vec<f64> = counting.iter().map(|own| own.off).collect();
    let estimate = Estimate::of_mean(&ratios, USUAL_SCATTER);
    let days: f64 = counting.iter().map(|own| own.measured).sum();
    let looks = LOOKS_WITHIN_DAYS * counting.len() as f64 / days.max(0.1);
    let estimate = estimate.map(|ratio| Estimate {
        low: now * (ratio.low - looks).exp(),
        value: now * ratio.value.exp(),
        high: now * (ratio.high + looks).exp(),
    });
    let said = estimate.map(|e| Said::of(&e, now, LEAST, BELIEVABLE));
    let learned = estimate.and_then(|estimate| learned(estimate, &counting));
    // In days it is easier to grasp than in pace.
    let days = |pace: f64| Quantity::Share.of(now / pace);
    let value = days(learned.map_or(now, |learned| learned.value));
    let low = days(learned.map_or(now, |learned| learned.high));
    let high = days(learned.map_or(now, |learned| learned.low));
    let name = of.name.as_str();
    let n: crate::basis::words::Figure = match counting.len() {
        1 => "one tray".into(),
        n => format!("{n} trays").into(),
    };
    let verdict = match said {
        None => say!("No count tells how fast {crop} comes up", crop = name),
        Some(Said::Agrees) => say!(
            "{crop} comes up as fast as reckoned ({n}: {low} to {high} of the days)",
            crop = name,
            n = n,
            low = low,
            high = high
        ),
        Some(Said::Corrects) => say!(
            "{crop} takes {value} of the days reckoned to come up ({n}: {low} to {high})",
            crop = name,
            value = value.clone(),
            n = n,
            low = low,
            high = high
        ),
        Some(Said::Unsure) => say!(
            "{crop} seems to take {value} of the days reckoned, but may take anything from {low} to {high} ({n})",
            crop = name,
            value = value.clone(),
            low = low,
            high = high,
            n = n
        ),
        Some(Said::Unbelievable) => say!(
            "{value} of the days reckoned is no habit of {crop}: something else is wrong ({n})",
            value = value.clone(),
            crop = name,
            n = n
        ),
    };
    let measured = so_many(&counting);
    let first = match said {
        Some(Said::Agrees) => say!("Nothing is to be corrected"),
        Some(Said::Corrects) => say!(
            "Correct the mats first, if they were found weaker: a thermometer in the mix tells cold from slow seed"
        ),
        _ => say!(
            "Count every second day from the first to show ({n} so far)",
            n = measured
        ),
    };
    let fix = learned
        .filter(|_| said == Some(Said::Corrects))
        .map(|learned| Fix {
            label: say!(
                "Take {crop} at {value} of the days",
                crop = name,
                value = value.clone()
            ),
            word: say!(
                "took {crop} to come up in {value} of the days reckoned, as counted",
                crop = name,
                value = value
            ),
            patch: set_on_crop(plan, of, |own| own.comes_up_here = Some(learned)),
        });
    Some(Lesson {
        id: format!("comes_up/{crop}"),
        kind: LessonKind::ComesUp,
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
