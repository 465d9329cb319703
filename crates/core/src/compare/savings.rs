//! What the lamps cost on a day, and what gives the same light for less.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::compare::ideas::thrifty;
use crate::compare::least_gear::Lessening;
use crate::compare::set_ups::{SetUp, tried};
use crate::day::detail::Detail;
use crate::day::view::Looker;
use crate::plan::patch::Fix;
use crate::power::draw::Drawer;
use crate::room::BayRef;
use crate::season::Reckoned;

/// What the lamps cost, and how they would cost less.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Savings {
    /// The day.
    pub date: Date,
    /// What the lamps cost that day, in the site's currency.
    pub cost_per_day: f64,
    /// Trays under lamps that burn.
    pub trays: u32,
    /// What the changes below save a day together.
    pub saves_per_day: f64,
    /// In a sentence.
    pub verdict: Statement,
    /// A change for each shelf that has one, what saves most first.
    pub ways: Vec<Saving>,
}

/// A change that gives a shelf the same light for less.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Saving {
    /// The bay.
    pub bay: BayRef,
    /// In words.
    pub name: String,
    /// What to change.
    pub what: Statement,
    /// What differs then.
    pub differences: Vec<Statement>,
    /// What the shelf costs a day now, in the site's currency.
    pub costs_now: f64,
    /// What it would cost.
    pub costs_then: f64,
    /// The edit.
    pub fix: Fix,
}

/// So many shelves are looked at, the dearest first: each takes a while.
const MOST_SHELVES: usize = 10;
/// So small a share of cells that lose their light is as good as none (our own estimate).
const SAME: f64 = 0.02;
/// Less than this share is not worth the work (our own estimate).
const WORTH: f64 = 0.1;

/// What the lamps cost on `date`, and what gives the dearest shelves the same light for less.
///
/// `tell` hears how far it is, and ends it by `false`: then what was found so far is the answer.
pub fn savings(
    reckoned: &Reckoned<'_>,
    date: Date,
    tell: &mut dyn FnMut(Lessening) -> bool,
) -> Savings {
    let plan = reckoned.plan;
    let mut looker = Looker::new(reckoned, Detail::Outline);
    let (mut cost_per_day, mut trays) = (0.0, 0);
    let mut lit: Vec<(BayRef, String, f64)> = Vec::new();
    for index in 0..plan.places.len() {
        for view in looker.look(index, date) {
            let lamps = view
                .computed
                .draws
                .iter()
                .filter(|draw| draw.what == Drawer::Lamp);
            let cost: f64 = lamps.map(|draw| draw.cost(&plan.site, date)).sum();
            if cost > 0.0 {
                cost_per_day += cost;
                trays += view.standing.len() as u32;
                lit.push((view.bay.reference(), view.bay.name(), cost));
            }
        }
    }
    lit.sort_by(|a, b| b.2.total_cmp(&a.2));
    lit.truncate(MOST_SHELVES);
    let mut ways: Vec<Saving> = Vec::new();
    for (i, (bay, name, _)) in lit.iter().enumerate() {
        let done = i as f64 / lit.len() as f64;
        if !tell(Lessening {
            done,
            tried: i as u32,
        }) {
            break;
        }
        ways.extend(way(reckoned, bay, name, date));
    }
    ways.sort_by(|a, b| b.saves().total_cmp(&a.saves()));
    let saves_per_day: f64 = ways.iter().map(Saving::saves).sum();
    let money = |value: f64| Quantity::Money.of(value);
    let count = Quantity::Count.of(f64::from(trays));
    let verdict = if cost_per_day == 0.0 {
        say!("No lamp burns that day")
    } else if ways.is_empty() {
        say!(
            "The lamps cost {cost} a day for {trays} trays, and no set-up that we tried gives the same light for less",
            cost = money(cost_per_day),
            trays = count
        )
    } else {
        say!(
            "The lamps cost {cost} a day for {trays} trays; the same light is to be had for {then}",
            cost = money(cost_per_day),
            trays = count,
            then = money(cost_per_day - saves_per_day)
        )
    };
    Savings {
        date,
        cost_per_day,
        trays,
        saves_per_day,
        verdict,
        ways,
    }
}

fn way(reckoned: &Reckoned<'_>, bay: &BayRef, name: &str, date: Date) -> Option<Saving> {
    let here = reckoned.plan.bay_on(bay, date)?;
    let all = tried(reckoned, &here, date, thrifty(&here));
    let (now, others) = all.split_first()?;
    let same = |other: &&SetUp| {
        let (a, b) = (&now.light, &other.light);
        !other.patch.is_empty() && b.under <= a.under + SAME && b.over <= a.over + SAME
    };
    let cheapest = others.iter().filter(same).min_by(|a, b| {
        let cost = |s: &SetUp| s.power.cost_per_day;
        cost(a).total_cmp(&cost(b))
    })?;
    let (costs_now, costs_then) = (now.power.cost_per_day, cheapest.power.cost_per_day);
    (costs_then < (1.0 - WORTH) * costs_now).then(|| Saving {
        bay: bay.clone(),
        name: name.into(),
        what: cheapest.name.clone(),
        differences: cheapest.differences.clone(),
        costs_now,
        costs_then,
        fix: Fix {
            label: say!("Change it"),
            word: say!("a cheaper set-up of {bay}", bay = name.to_owned()),
            patch: cheapest.patch.clone(),
        },
    })
}

impl Saving {
    /// What it saves a day, in the site's currency.
    pub fn saves(&self) -> f64 {
        self.costs_now - self.costs_then
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::patch::patched;
    use crate::testing::{kettle_fen, reckoned};
    use jiff::civil::date;

    #[test]
    fn each_way_costs_what_it_says_and_takes_no_light() {
        let day = date(2027, 4, 10);
        let plan = kettle_fen(|_| ());
        let all = savings(&reckoned(&plan), day, &mut |_| true);
        assert!(all.cost_per_day > 4.0, "{}", all.cost_per_day);
        assert!(
            all.saves_per_day > 0.4 * all.cost_per_day,
            "{}",
            all.saves_per_day
        );
        let first = &all.ways[0];
        let changed = patched(&plan, &first.fix.patch).unwrap().check().unwrap();
        let as_it_is = |plan| {
            let reckoned = reckoned(plan);
            let here = reckoned.plan.bay_on(&first.bay, day).unwrap();
            tried(&reckoned, &here, day, Vec::new()).remove(0)
        };
        let (then, now) = (as_it_is(&changed), as_it_is(&plan));
        assert!((then.power.cost_per_day - first.costs_then).abs() < 1e-9);
        assert!(then.light.under <= now.light.under + SAME);
    }
}
