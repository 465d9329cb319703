//! Counts in trays to how much of a packet is alive.

use std::collections::BTreeMap;

use crate::basis::dates::days_between;
use crate::basis::fault::Pointer;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::learning::estimate::Estimate;
use crate::learning::evidence::{Asked, Evidence, learned};
use crate::learning::lesson::{Lesson, LessonKind, Said};
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::plan::patch::{Fix, PatchStep};
use crate::season::SowingDates;
use crate::season::how_many::sown_per_cell;
use crate::seeds::{Packet, Viability};

/// Less than this changes no sowing.
const LEAST: f64 = 0.04;
/// What nine tenths came up by has nearly all so many days later.
const ALL_AFTER_DAYS: i32 = 2;
/// After so many times the days to half of it next to nothing more comes (our own judgement).
const AGAIN_AS_LONG: f64 = 2.0;
/// What comes up in trays differs from the table by more than chance: a count says as much as this share of its
/// cells (our own judgement).
const SAYS: f64 = 0.8;
/// Cells in which nothing shows whatever the seed, because they dried, were missed or eaten: so large a share, and
/// how likely each is (our own judgement).
pub const DUD_CELLS: [(f64, f64); 3] = [(0.0, 0.6), (0.03, 0.25), (0.08, 0.15)];
/// Counts that differ from the others by more than this many standard deviations are another story: a tray that
/// dried, or mice.
const OUTLIES_FROM: f64 = 4.0;

/// The last count of a sowing in a tray.
struct Counted {
    evidence: Evidence,
    count: f64,
    of: f64,
    /// The share of live seeds that come up where it stood.
    comes_up: f64,
    /// Seeds in each cell.
    each: u32,
}

impl Counted {
    /// The chance that a cell shows, when the share `alive` of the seed is.
    fn chance(&self, alive: f64) -> f64 {
        let none = 1.0 - (alive * self.comes_up).clamp(0.0, 1.0);
        (1.0 - none.powi(self.each as i32)).clamp(1e-9, 1.0 - 1e-9)
    }
}

/// A lesson for each packet of which something was sown and counted.
pub(super) fn lessons(asked: &Asked<'_, '_>) -> Vec<Lesson> {
    let plan = asked.reckoned.plan;
    let mut last: BTreeMap<(&str, &str), (&Entry, u32, u32)> = BTreeMap::new();
    for entry in asked.told.all() {
        if let Some(Fact::Shown {
            tray,
            sowing,
            count,
            of,
        }) = &entry.fact
        {
            let own = plan.tray_index(tray).map(|i| &plan.trays[i]);
            let only = own.map(|tray| tray.parts[0].sowing.as_str());
            let Some(sowing) = sowing.as_deref().or(only) else {
                continue;
            };
            last.insert((tray, sowing), (entry, *count, *of));
        }
    }
    let mut by_packet: BTreeMap<&str, Vec<Counted>> = BTreeMap::new();
    for ((tray, sowing), (entry, count, of)) in last {
        let Some(dates) = asked.reckoned.dates.iter().find(|own| own.sowing == sowing) else {
            continue;
        };
        let sowing = &plan.sowings[plan.sowing_index(sowing)];
        if let Some(packet) = plan.packet(sowing) {
            let counted = counted(asked, dates, tray, (entry, count, of));
            by_packet.entry(&packet.id).or_default().extend(counted);
        }
    }
    let each = by_packet
        .into_iter()
        .filter_map(|(id, own)| lesson(asked, id, own));
    each.collect()
}

fn counted(
    asked: &Asked<'_, '_>,
    dates: &SowingDates,
    tray: &str,
    (entry, count, of): (&Entry, u32, u32),
) -> Option<Counted> {
    let plan = asked.reckoned.plan;
    let sowing = &plan.sowings[plan.sowing_index(&dates.sowing)];
    let crop = plan.crop(sowing);
    let comes_up = match asked.germinated_at_c(tray, dates) {
        Some(c) => crop.curve().share(c),
        None => dates.comes_up,
    };
    let name = &plan.trays[plan.tray_index(tray)?].name;
    // Where nothing shows its days move on with every count: twice the days reckoned for half of it are enough.
    let twice = dates.emergence_days.map(|days| AGAIN_AS_LONG * days);
    let all_up = dates.seen.is_some_and(|seen| seen.all)
        || twice.is_some_and(|days| f64::from(days_between(dates.sow, entry.on)) >= days)
        || dates
            .last
            .is_some_and(|last| days_between(last, entry.on) >= ALL_AFTER_DAYS);
    let each = sown_per_cell(plan, sowing, dates);
    let why_not = if each.is_none() {
        Some(say!(
            "it was sown thickly in an open tray: nobody knows of how many seeds"
        ))
    } else if !all_up {
        Some(say!("more may still come up"))
    } else {
        (comes_up < 0.2).then(|| say!("it is too cold there for seed to show whether it is alive"))
    };
    let (count, of) = (f64::from(count), f64::from(of));
    let share = Quantity::Share;
    let mut own = Counted {
        evidence: Evidence::by_difference(entry, name.clone(), share, count / of, 0.0),
        count,
        of,
        comes_up,
        each: each.unwrap_or(1),
    };
    let alive = crate::season::how_many::viability(plan, sowing).share;
    own.evidence.reckoned = own.chance(alive);
    own.evidence = own.evidence.unless(why_not);
    Some(own)
}

/// The shares that are tried.
fn grid() -> Vec<f64> {
    (0..=400).map(|i| f64::from(i) / 400.0).collect()
}

/// The logarithm of what each of [`grid`] weighs before anything is counted: a beta distribution with the mean
/// and the middle 90 % of `known`.
fn beforehand(known: &Viability) -> Vec<f64> {
    let mean = known.share.clamp(0.02, 0.98);
    let sd = ((known.high - known.low) / 3.29).max(0.01);
    let weight = (mean * (1.0 - mean) / (sd * sd) - 1.0).clamp(2.0, 60.0);
    let (a, b) = (mean * weight, (1.0 - mean) * weight);
    let log = |share: f64| {
        let share = share.clamp(1e-6, 1.0 - 1e-6);
        (a - 1.0) * share.ln() + (b - 1.0) * (1.0 - share).ln()
    };
    grid().into_iter().map(log).collect()
}

/// The share that is alive by what is known `beforehand` and the counts of `own`.
fn alive(beforehand: &[f64], own: &[&Counted]) -> Option<Estimate> {
    let weigh = |(share, before): (f64, &f64)| {
        let with = |&(duds, likely): &(f64, f64)| {
            let counts = own.iter().map(|own| {
                let chance = own.chance(share) * (1.0 - duds);
                SAYS * (own.count * chance.ln() + (own.of - own.count) * (1.0 - chance).ln())
            });
            counts.sum::<f64>() + f64::ln(likely)
        };
        let each = DUD_CELLS.each_ref().map(with);
        let most = each.iter().copied().fold(f64::NEG_INFINITY, f64::max);
        before + most + each.iter().map(|log| (log - most).exp()).sum::<f64>().ln()
    };
    let grid = grid();
    let weights: Vec<f64> = grid.iter().copied().zip(beforehand).map(weigh).collect();
    Estimate::within_bounds(&grid, &weights)
}

fn lesson(asked: &Asked<'_, '_>, id: &str, mut own: Vec<Counted>) -> Option<Lesson> {
    let plan = asked.reckoned.plan;
    let index = plan.packets.iter().position(|packet| packet.id == id)?;
    let packet: &Packet = &plan.packets[index];
    let crop = plan.find_crop(&packet.crop)?;
    let year = plan.season.from.year();
    let now = packet.viability(crop, year).share;
    let beforehand = beforehand(&packet.unsown(crop, year));
    if own.len() > 2 {
        let fine: Vec<bool> = (0..own.len()).map(|i| stands_out(&own, i)).collect();
        for (own, outlies) in own.iter_mut().zip(fine) {
            own.evidence.outlies = outlies && own.evidence.no.is_none();
        }
    }
    own.sort_by_key(|own| std::cmp::Reverse(own.evidence.on));
    let counting: Vec<&Counted> = own
        .iter()
        .filter(|own| asked.counts(&own.evidence))
        .collect();
    let estimate = (!counting.is_empty())
        .then(|| alive(&beforehand, &counting))
        .flatten();
    let said = estimate.map(|e| Said::of(&e, now, LEAST, 0.0..=1.0));
    let evidence: Vec<&Evidence> = counting.iter().map(|own| &own.evidence).collect();
    let learned = estimate.and_then(|estimate| learned(estimate, &evidence));
    let share = |value: f64| Quantity::Share.of(value);
    let sum =
        |of: fn(&Counted) -> f64| Quantity::Count.of(counting.iter().map(|own| of(own)).sum());
    let (count, of) = (sum(|own| own.count), sum(|own| own.of));
    let value = share(learned.map_or(now, |learned| learned.value));
    let low = share(learned.map_or(now, |learned| learned.low));
    let high = share(learned.map_or(now, |learned| learned.high));
    let name = called(packet, &crop.name);
    let verdict = match said {
        None => say!("No count tells of {packet} yet", packet = &name),
        Some(Said::Agrees) => say!(
            "{packet} is as good as reckoned: {count} of {of} cells came up ({low} to {high} alive)",
            packet = &name,
            count = count,
            of = of,
            low = low,
            high = high
        ),
        Some(Said::Unsure) => say!(
            "{count} of {of} cells came up: {packet} seems {value} alive, but may be anything from {low} to {high}",
            count = count,
            of = of,
            packet = &name,
            value = value.clone(),
            low = low,
            high = high
        ),
        _ => say!(
            "{count} of {of} cells came up: {value} of {packet} is alive ({low} to {high})",
            count = count,
            of = of,
            value = value.clone(),
            packet = &name,
            low = low,
            high = high
        ),
    };
    let poorer = learned.is_some_and(|learned| learned.value < now);
    let first = match said {
        Some(Said::Agrees) => say!("Nothing is to be corrected"),
        Some(Said::Corrects) if poorer => say!(
            "Rule out cold, drying out and mice first: a test on damp paper settles whether the seed is to blame"
        ),
        Some(Said::Corrects) => say!("Fewer seeds to a cell will do from now on"),
        _ => say!("Count once more when nothing has come up for four days"),
    };
    let fix = learned
        .filter(|_| said == Some(Said::Corrects))
        .map(|learned| Fix {
            label: say!("Take the packet as {value} alive", value = value.clone()),
            word: say!(
                "took {packet} as {value} alive, as counted",
                packet = &name,
                value = value
            ),
            patch: vec![PatchStep::set(
                &Pointer::default().at("packets").at(index).at("counted"),
                learned,
            )],
        });
    let readings = asked.shown(own.into_iter().map(|own| own.evidence).collect());
    Some(Lesson {
        id: format!("packet/{id}"),
        kind: LessonKind::Packet,
        about: name,
        quantity: Quantity::Share,
        now,
        learned,
        verdict,
        first,
        fix,
        readings,
    })
}

/// Whether the count at `i` differs from all others together by more than chance and care explain.
fn stands_out(own: &[Counted], i: usize) -> bool {
    let others = own
        .iter()
        .enumerate()
        .filter(|(j, own)| *j != i && own.evidence.no.is_none());
    let (count, of) = others.fold((0.0, 0.0), |(k, n), (_, own)| (k + own.count, n + own.of));
    if of == 0.0 {
        return false;
    }
    let (share, all) = (
        own[i].count / own[i].of,
        (count + own[i].count) / (of + own[i].of),
    );
    let sd = (all * (1.0 - all) * (1.0 / of + 1.0 / own[i].of)).sqrt();
    (share - count / of).abs() > OUTLIES_FROM * sd.max(0.02)
}

/// What a packet is called in words.
pub(crate) fn called(packet: &Packet, crop: &str) -> String {
    match packet.variety.as_str() {
        "" => format!("{crop}, {}", packet.year),
        variety => format!("{crop} ‘{variety}’, {}", packet.year),
    }
}
