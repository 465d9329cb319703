//! What lamps and walls for a shelf cost, against the plants that they raise well: the set-ups of which none
//! is both dearer and worse than another.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::basis::work::go_on;
use crate::compare::ideas::{Idea, line_with_foil, rows_of};
use crate::compare::least_gear::Lessening;
use crate::day::detail::Detail;
use crate::day::hang::Hang;
use crate::day::view::Looker;
use crate::plan::patch::PatchStep;
use crate::power::draw::Drawer;
use crate::room::{Bay, BayRef, Lamp, Tier, shelf};
use crate::season::Reckoned;

/// Set-ups of a shelf by what they cost and what they raise.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Frontier {
    /// The bay.
    pub bay: BayRef,
    /// In words.
    pub name: String,
    /// Days of the season on which its lamps burn.
    pub lit_days: u32,
    /// The set-up that is there, with its lamps hung and burning as advised.
    pub yours: Option<CostPoint>,
    /// Those that none is both cheaper and better than; the cheapest first.
    pub points: Vec<CostPoint>,
    /// How many were tried.
    pub tried: u32,
    /// The cheapest that raises nine tenths of its cells well, if any does.
    pub enough: Option<usize>,
    /// Kinds of lamp that were left out since nobody said what one costs.
    pub unpriced: Vec<String>,
}

/// A set-up, what it costs and what it raises.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CostPoint {
    /// What it is.
    pub what: Statement,
    /// A season's share of what its lamps are worth, and its current, in the site's currency.
    pub cost: f64,
    /// What its lamps are worth.
    pub worth: f64,
    /// What its current costs over the season.
    pub current: f64,
    /// The share of cells that get the light that their crop wants, 0 to 1.
    pub well: f64,
    /// How the plan becomes this; empty for what is there.
    pub patch: Vec<PatchStep>,
}

/// The share of cells that is enough (our own estimate).
const ENOUGH: f64 = 0.9;
/// Kinds of lamp that people hang over a shelf, by their names on the shelf of kinds, and how many at most.
const KINDS: [(&str, usize); 6] = [
    ("bar-led-14", 6),
    ("shop-led-36", 4),
    ("shop-led-45", 4),
    ("shop-led-dimming", 4),
    ("panel-led-100", 2),
    ("twin-tube-64", 2),
];
/// Plans with more trays than this are tried with fewer set-ups: each is reckoned in the whole plan.
const MANY_TRAYS: usize = 150;

/// The set-ups of `bay` on `date`; `None` where nothing grows under its lamps.
///
/// `tell` hears how far it is, and ends it by `false`: then what was tried so far is the answer.
pub fn frontier(
    reckoned: &Reckoned<'_>,
    bay: &BayRef,
    date: Date,
    tell: &mut dyn FnMut(Lessening) -> bool,
) -> Option<Frontier> {
    let plan = reckoned.plan;
    let here = plan.bay_on(bay, date)?;
    let lit_days = lit_days(reckoned, &here);
    let price = |name: &str| plan.prices.good(name).and_then(|good| good.price);
    let mut tried = 0;
    let mut point = |what: Statement, tier: Tier| -> Option<CostPoint> {
        go_on();
        tried += 1;
        let worth: f64 = tier
            .lamps
            .iter()
            .map(|lamp| price(&lamp.name))
            .sum::<Option<f64>>()?;
        let idea = Idea::of(what, tier);
        let changed = idea.plan(plan, &here)?.check().ok()?;
        let hang = hang_of(
            &Reckoned::of(&changed, reckoned.fields),
            &here.reference(),
            date,
        )?;
        let tier = hung(idea.tier.clone(), &hang);
        let watts: f64 = tier.lamps.iter().map(Lamp::drawn_w).sum();
        let a_day = plan.site.cost_on(None, watts, tier.burning());
        let current = a_day * f64::from(lit_days);
        let idea = Idea { tier, ..idea };
        Some(CostPoint {
            cost: current + worth / plan.prices.lasts(),
            worth,
            current,
            well: (1.0 - hang.then.under - hang.then.over).clamp(0.0, 1.0),
            patch: idea.patch(&here),
            what: idea.name,
        })
    };
    let yours = point(say!("Yours, hung as advised"), here.tier.clone());
    let few = plan.trays.len() > MANY_TRAYS;
    let mut all: Vec<CostPoint> = yours.clone().into_iter().collect();
    let mut unpriced = Vec::new();
    let mut ideas: Vec<(Statement, Tier)> = Vec::new();
    let kinds = &shelf::library_in(plan.site.units).lamps;
    for (id, most) in KINDS {
        let Some(kind) = kinds.iter().find(|lamp| lamp.id == id) else {
            continue;
        };
        if price(&kind.name).is_none() {
            unpriced.push(kind.name.clone());
            continue;
        }
        for n in (1..=most).filter(|n| !few || n.is_multiple_of(2)) {
            ideas.extend(lamps_and_walls(&here, kind, n));
        }
    }
    let of = ideas.len();
    for (i, (what, tier)) in ideas.into_iter().enumerate() {
        let done = i as f64 / of as f64;
        if !tell(Lessening {
            done,
            tried: i as u32,
        }) {
            break;
        }
        all.extend(point(what, tier));
    }
    let points = undominated(all);
    Some(Frontier {
        bay: bay.clone(),
        name: here.name(),
        lit_days,
        yours,
        enough: points.iter().position(|point| point.well >= ENOUGH),
        points,
        tried,
        unpriced,
    })
}

/// `n` lamps of a kind, with the walls as they are and with foil all round.
fn lamps_and_walls(here: &Bay<'_>, kind: &Lamp, n: usize) -> [(Statement, Tier); 2] {
    let mut tier = here.tier.clone();
    tier.lamps = rows_of(kind, n, here);
    let mut in_foil = tier.clone();
    line_with_foil(&mut in_foil);
    let (n, lamp) = (Quantity::Count.of(n as f64), kind.name.as_str());
    [
        (say!("{n} × {lamp}", n = n.clone(), lamp = lamp), tier),
        (
            say!("{n} × {lamp}, foil on all sides", n = n, lamp = lamp),
            in_foil,
        ),
    ]
}

/// Those of `points` that none is both cheaper and better than, the cheapest first.
fn undominated(mut points: Vec<CostPoint>) -> Vec<CostPoint> {
    points.sort_by(|a, b| a.cost.total_cmp(&b.cost).then(b.well.total_cmp(&a.well)));
    let mut best = f64::NEG_INFINITY;
    points.retain(|point| {
        let better = point.well > best + 1e-9;
        best = best.max(point.well);
        better
    });
    points
}

/// Days of the season on which the lamps of `bay` burn.
fn lit_days(reckoned: &Reckoned<'_>, bay: &Bay<'_>) -> u32 {
    let mut looker = Looker::new(reckoned, Detail::Days);
    let lit = reckoned.plan.season.days().filter(|&date| {
        go_on();
        let views = looker.look(bay.place_index, date);
        let draws = views.get(bay.tier_index).map(|view| &view.computed.draws);
        draws.is_some_and(|draws| draws.iter().any(|draw| draw.what == Drawer::Lamp))
    });
    lit.count() as u32
}

fn hang_of(reckoned: &Reckoned<'_>, bay: &BayRef, date: Date) -> Option<Hang> {
    let here = reckoned.plan.bay_on(bay, date)?;
    let place = Looker::new(reckoned, Detail::Outline).look(here.place_index, date);
    place.into_iter().nth(here.tier_index)?.computed.hang
}

/// `tier` with its lamps as advised.
fn hung(mut tier: Tier, hang: &Hang) -> Tier {
    for lamp in &mut tier.lamps {
        lamp.height_mm = hang.setting.height_mm;
    }
    tier.photoperiod_h = hang.setting.hours_h;
    if hang.start.from_h != tier.burning().from_h {
        tier.lights_on_h = Some(hang.start.from_h);
    }
    tier
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::testing::{bay, kettle_fen, reckoned};
    use jiff::civil::date;

    #[test]
    fn no_point_is_both_dearer_and_worse_and_yours_is_matched() {
        let plan = kettle_fen(|_| ());
        let all = frontier(
            &reckoned(&plan),
            &bay("door", "t1"),
            date(2027, 4, 9),
            &mut |_| true,
        )
        .unwrap();
        assert!(
            all.points.len() >= 2 && all.tried >= 20,
            "{} of {}",
            all.points.len(),
            all.tried
        );
        for pair in all.points.windows(2) {
            assert!(pair[0].cost < pair[1].cost && pair[0].well < pair[1].well);
        }
        let yours = all.yours.unwrap();
        let matched = |p: &CostPoint| p.cost <= yours.cost + 1e-9 && p.well >= yours.well - 1e-9;
        assert!(all.points.iter().any(matched));
    }
}
