//! Potting on: the day on which the plants of each tray of cells go into pots, and the day on which each
//! tray of pots takes the first of them.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::dates::{days_between, plus_days};
use crate::crops::Crop;
use crate::growth::roots::days_to_fill;
use crate::plan::{SoundPlan, Sowing, Tray};
use crate::season::paces::Paces;
use crate::season::sowing_dates::PottingDay;

/// When a sowing is potted on.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub(super) struct Potting {
    /// The day the first of it is; `None` when it stays where it was sown.
    pub(super) first: Option<Date>,
    /// The trays that give plants or take them, by day.
    pub(super) days: Vec<PottingDay>,
}

/// Sooner after coming up nothing is potted on: there is nothing to hold it by (common practice, no
/// source).
const SOONEST_DAYS: f64 = 7.0;
/// What is full within so many days of each other is potted on in one go (our own judgement).
const ONE_GO_DAYS: i32 = 4;
/// Cells of this share of the pot are as good as the pot (our own estimate).
const AS_LARGE: f64 = 0.8;

impl Potting {
    /// Of `sowing`, up on one day and hardened off from the other: out of each tray when roots fill its
    /// cells at the pace that the tray grows at, and before it is hardened off.
    pub(super) fn of(
        plan: &SoundPlan,
        sowing: &Sowing,
        paces: &Paces<'_>,
        up: Option<Date>,
        harden: Date,
    ) -> Self {
        let Some(up) = up.filter(|_| sowing.pots_on != Some(false)) else {
            return Self::default();
        };
        let crop = plan.crop(sowing);
        let full = |cell_ml: f64, rate: f64| {
            let days = (days_to_fill(crop, cell_ml) / rate).max(SOONEST_DAYS);
            let later = sowing.pot_on_later_days.unwrap_or(0);
            Some(plus_days(up, days.round() as i32 + later)).filter(|day| *day < harden)
        };
        let mut days: Vec<(&Tray, Date)> = leaving(plan, sowing, crop)
            .filter_map(|tray| {
                let cell_ml = plan.format(tray).cell_ml;
                Some((tray, full(cell_ml, paces.of_tray(tray))?))
            })
            .collect();
        days.sort_by_key(|(_, day)| *day);
        let mut one_go = None;
        for (_, day) in &mut days {
            let begun = one_go.filter(|begun| days_between(*begun, *day) < ONE_GO_DAYS);
            *day = *one_go.insert(begun.unwrap_or(*day));
        }
        // What happened wins.
        for tray in plan.sown_in(&sowing.id) {
            let past = plan.happened().tray(&tray.id);
            let Some(potted) = past.and_then(|past| past.potted_on) else {
                continue;
            };
            match days.iter_mut().find(|(own, _)| own.id == tray.id) {
                Some((_, day)) => *day = potted,
                None => days.push((tray, potted)),
            }
        }
        days.sort_by_key(|(_, day)| *day);
        // Who has no tray in the plan yet is reckoned in the cells that suit it.
        let sown = plan.sown_in(&sowing.id).next().is_some();
        let unplanned = (!sown && crop.pot_on_ml > 0.0)
            .then(|| full(crop.cell_ml, paces.mean.rate))
            .flatten();
        let first = days.first().map(|(_, day)| *day).or(unplanned);
        let pots = taking(plan, sowing, &days, first);
        let mut by_day: BTreeMap<Date, Vec<String>> = BTreeMap::new();
        for (tray, on) in days.into_iter().chain(pots) {
            by_day.entry(on).or_default().push(tray.id.clone());
        }
        let days = by_day.into_iter().map(|(on, mut trays)| {
            trays.sort_unstable();
            PottingDay { on, trays }
        });
        let days = days.collect();
        Self { first, days }
    }
}

/// The trays whose plants go into pots: whose cells are smaller than the pots that the plan has for them
/// or, where it has none, than the pot that suits the crop. Who plans pots of no more than that moves
/// them all.
fn leaving<'a>(
    plan: &'a SoundPlan,
    sowing: &'a Sowing,
    crop: &Crop,
) -> impl Iterator<Item = &'a Tray> {
    let ml = |tray: &Tray| plan.format(tray).cell_ml;
    let pots_ml = plan.potted_into(&sowing.id).map(ml).reduce(f64::max);
    let pot_ml = pots_ml.unwrap_or(crop.pot_on_ml);
    let smaller = move |tray: &&Tray| plan.format(tray).cell_ml < AS_LARGE * pot_ml;
    let any = plan.sown_in(&sowing.id).any(|tray| smaller(&tray));
    let all = !any && pots_ml.is_some();
    let sown = plan.sown_in(&sowing.id);
    sown.filter(move |tray| all || smaller(tray))
}

/// The day on which each tray of pots takes its first plant: they are filled one after another, in the
/// plan's order, from the cells that are full first.
fn taking<'a>(
    plan: &'a SoundPlan,
    sowing: &Sowing,
    leaving: &[(&Tray, Date)],
    first: Option<Date>,
) -> Vec<(&'a Tray, Date)> {
    let places = |tray: &Tray| f64::from(plan.cells_in(tray, &sowing.id));
    let cells: f64 = leaving.iter().map(|(tray, _)| places(tray)).sum();
    let pots: f64 = plan.potted_into(&sowing.id).map(places).sum();
    let mut before = 0.0;
    let day = |tray: &'a Tray| {
        let share = before / pots.max(1.0);
        before += places(tray);
        let mut filled = 0.0;
        let by_then = leaving.iter().find(|(from, _)| {
            filled += places(from);
            filled > share * cells
        });
        let past = plan.happened().tray(&tray.id);
        let potted = past.and_then(|past| past.potted_into);
        let planned = by_then.map(|(_, day)| *day).or(first);
        Some((tray, potted.or(planned)?))
    };
    plan.potted_into(&sowing.id).filter_map(day).collect()
}
