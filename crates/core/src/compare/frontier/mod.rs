//! What lamps, walls and mats cost, against the plants that they raise well: the set-ups of a shelf, or of the
//! whole stand, of which none is both dearer and worse than another.

mod light;
mod mixes;
mod offer;
mod shelf;
mod warmth;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::words::Statement;
use crate::compare::frontier::mixes::{Mix, line, mixes};
use crate::compare::frontier::offer::{Item, Owned};
use crate::compare::frontier::shelf::shelves;
use crate::compare::least_gear::Lessening;
use crate::plan::SoundPlan;
use crate::plan::patch::PatchStep;
use crate::room::{BayRef, bays};
use crate::season::Reckoned;

/// Set-ups by what they cost and what they raise.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Frontier {
    /// The shelves that were looked at, in words.
    pub shelves: Vec<String>,
    /// What is there, with its lamps hung and burning as advised; `None` where something of it has no price.
    pub yours: Option<CostPoint>,
    /// Those that none is both cheaper and better than; the cheapest first.
    pub points: Vec<CostPoint>,
    /// The cheapest that gives nine tenths of the cells the light that they want, and nine tenths of those
    /// that come up their warmth.
    pub enough: Option<CostPoint>,
    /// The same among those that cost no more to buy than the budget; where none does, the one that raises
    /// most. `None` without a budget.
    pub within_budget: Option<CostPoint>,
    /// How many were tried, shelf by shelf.
    pub tried: u32,
    /// Kinds of lamps and mats that were left out since nobody said what one costs.
    pub unpriced: Vec<String>,
}

/// A set-up, what it costs and what it raises.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CostPoint {
    /// What it is, shelf by shelf.
    pub parts: Vec<ShelfPart>,
    /// A season's share of what its gear is worth, and its current, in the site's currency.
    pub cost: f64,
    /// What its gear is worth.
    pub worth: f64,
    /// What of that is to be bought: what lies or hangs there and is owned is not bought again.
    pub to_buy: f64,
    /// What its current costs over the season.
    pub current: f64,
    /// The share of cells under its lamps that get the light that their crop wants, 0 to 1.
    pub lit: f64,
    /// The share of cells that come up there in the warmth that they want; `None` where nothing comes up in
    /// the open.
    pub warm: Option<f64>,
    /// Both together.
    pub well: f64,
    /// Whether both are enough: nine tenths.
    pub enough: bool,
    /// How the plan becomes this; empty for what is there.
    pub patch: Vec<PatchStep>,
}

/// What a shelf would have.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ShelfPart {
    /// The shelf, in words.
    pub name: String,
    /// Its lamps and walls, or its mats.
    pub what: Statement,
}

/// The share that is enough (our own estimate).
const ENOUGH: f64 = 0.9;
/// So many shelves of a stand are tried, those with most cells first; the others stay as they are.
const MOST_SHELVES: usize = 12;

/// The set-ups of `bay` on `date`, or of every lit shelf together; `None` where nothing grows under lamps.
///
/// `tell` hears how far it is, and ends it by `false`: then what was tried so far is the answer.
pub fn frontier(
    reckoned: &Reckoned<'_>,
    bay: Option<&BayRef>,
    date: Date,
    tell: &mut dyn FnMut(Lessening) -> bool,
) -> Option<Frontier> {
    let plan = reckoned.plan;
    let mut shelves = shelves(reckoned, bay, date);
    shelves.sort_by_key(|shelf| std::cmp::Reverse(shelf.cells));
    shelves.truncate(MOST_SHELVES);
    let mut owned = Owned::of(plan);
    let mut items: Vec<Item<'_>> = Vec::new();
    let (mut tried, mut going, of) = (0, true, shelves.len() as f64);
    for (i, shelf) in shelves.iter().enumerate() {
        let mut tell = |share: f64| {
            tried += 1;
            going &= tell(Lessening {
                done: (i as f64 + share) / of,
                tried,
            });
            going
        };
        items.push(light::offers(reckoned, shelf, date, &mut owned, &mut tell));
        items.extend(warmth::offers(reckoned, shelf, &mut owned));
    }
    if items.is_empty() {
        return None;
    }
    let mut unpriced: Vec<String> = items
        .iter()
        .flat_map(|item| item.unpriced.clone())
        .collect();
    unpriced.sort();
    unpriced.dedup();
    // A shelf for which nothing has a price stays as it is.
    items.retain(|item| !item.offers.is_empty());
    let all = mixes(&items);
    let point = |mix: &Mix| as_point(plan, &items, mix);
    let yours = Mix::of_yours(&items).map(|mix| CostPoint {
        patch: Vec::new(),
        ..point(&mix)
    });
    let cheapest = |mixes: &mut dyn Iterator<Item = &Mix>| {
        let enough = mixes.map(point).filter(|point| point.enough);
        enough.min_by(|a, b| a.cost.total_cmp(&b.cost))
    };
    let within_budget = plan.prices.budget.and_then(|budget| {
        let within = || all.iter().filter(|mix| mix.to_buy <= budget);
        let most = || {
            within()
                .max_by(|a, b| a.well().total_cmp(&b.well()))
                .map(point)
        };
        cheapest(&mut within()).or_else(most)
    });
    Some(Frontier {
        shelves: shelves.iter().map(|shelf| shelf.bay.name()).collect(),
        yours,
        points: line(&all).into_iter().map(point).collect(),
        enough: cheapest(&mut all.iter()),
        within_budget,
        tried,
        unpriced,
    })
}

fn as_point(plan: &SoundPlan, items: &[Item<'_>], mix: &Mix) -> CostPoint {
    let offers = || {
        items
            .iter()
            .zip(&mix.picks)
            .map(|(item, &pick)| (item, &item.offers[pick]))
    };
    let cells = |warm: bool| -> f64 {
        let own = items.iter().filter(|item| item.is_warmth == warm);
        own.map(|item| item.cells).sum()
    };
    let (lit_cells, warm_cells) = (cells(false), cells(true));
    let lit = mix.lit / lit_cells.max(1.0);
    let warm = (warm_cells > 0.0).then(|| mix.warm / warm_cells);
    let mut then = plan.places.clone();
    for (item, offer) in offers() {
        let tier = &mut then[item.bay.place_index].tiers[item.bay.tier_index];
        offer.change.apply(tier);
    }
    let changed = bays(&then)
        .zip(bays(&plan.places))
        .filter(|(then, now)| then.tier != now.tier);
    CostPoint {
        parts: offers()
            .map(|(item, offer)| ShelfPart {
                name: item.bay.name(),
                what: offer.what.clone(),
            })
            .collect(),
        cost: mix.cost,
        worth: offers().map(|(_, offer)| offer.worth).sum(),
        to_buy: mix.to_buy,
        current: offers().map(|(_, offer)| offer.current).sum(),
        enough: lit >= ENOUGH && warm.is_none_or(|warm| warm >= ENOUGH),
        lit,
        warm,
        well: mix.well() / (lit_cells + warm_cells).max(1.0),
        patch: changed
            .flat_map(|(then, now)| PatchStep::between(&now.pointer(), now.tier, then.tier))
            .collect(),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::patch::patched;
    use crate::site::prices::Good;
    use crate::testing::{bay, kettle_fen, reckoned};
    use jiff::civil::date;

    const DAY: Date = date(2027, 4, 9);

    fn no_point_is_dominated(all: &Frontier) {
        for pair in all.points.windows(2) {
            assert!(pair[0].cost < pair[1].cost && pair[0].well < pair[1].well);
        }
        let yours = all.yours.as_ref().unwrap();
        let matched = |p: &CostPoint| p.cost <= yours.cost + 1e-9 && p.well >= yours.well - 1e-9;
        assert!(all.points.iter().any(matched));
    }

    #[test]
    fn no_point_is_both_dearer_and_worse_and_yours_is_matched() {
        let plan = kettle_fen(|_| ());
        let door = bay("door", "t1");
        let all = frontier(&reckoned(&plan), Some(&door), DAY, &mut |_| true).unwrap();
        assert!(
            all.points.len() >= 2 && all.tried >= 20,
            "{} of {}",
            all.points.len(),
            all.tried
        );
        no_point_is_dominated(&all);
        // What is set up so costs and raises what was said.
        let best = all.points.last().unwrap();
        let then = patched(&plan, &best.patch).unwrap().check().unwrap();
        let again = frontier(&reckoned(&then), Some(&door), DAY, &mut |_| true).unwrap();
        let yours = again.yours.unwrap();
        assert!(
            (yours.lit - best.lit).abs() < 0.02,
            "{} {}",
            yours.lit,
            best.lit
        );
    }

    #[test]
    fn a_whole_stand_is_equipped_within_a_budget() {
        let plan = kettle_fen(|plan| {
            plan.prices.budget = Some(150.0);
            plan.prices.goods.iter_mut().for_each(|good| good.owned = 0);
        });
        let all = frontier(&reckoned(&plan), None, DAY, &mut |_| true).unwrap();
        assert!(all.shelves.len() >= 2, "{:?}", all.shelves);
        no_point_is_dominated(&all);
        let within = all.within_budget.unwrap();
        assert!(within.to_buy <= 150.0 && within.well > 0.0);
        assert_eq!(within.to_buy, within.worth);
        // Nothing on the line that can be paid raises more and costs less.
        for point in all.points.iter().filter(|point| point.to_buy <= 150.0) {
            assert!(!(point.well > within.well + 1e-9 && point.cost < within.cost - 1e-9));
        }
        assert!(patched(&plan, &within.patch).unwrap().check().is_ok());
    }

    #[test]
    fn what_is_owned_is_not_bought_again() {
        let owned = |owned: u32| {
            let plan = kettle_fen(|plan| {
                let lamp = plan.places[0]
                    .tiers
                    .iter()
                    .flat_map(|tier| &tier.lamps)
                    .next()
                    .unwrap();
                let name = lamp.name.clone();
                plan.prices.goods.retain(|good| good.name != name);
                plan.prices.goods.push(Good {
                    name,
                    price: Some(20.0),
                    owned,
                });
            });
            let door = bay("door", "t1");
            let all = frontier(&reckoned(&plan), Some(&door), DAY, &mut |_| false).unwrap();
            all.yours.unwrap()
        };
        assert!(owned(0).to_buy > owned(40).to_buy);
        assert_eq!(owned(0).worth, owned(40).worth);
    }

    #[test]
    fn who_stops_it_gets_what_was_tried() {
        let plan = kettle_fen(|_| ());
        let all = frontier(&reckoned(&plan), None, DAY, &mut |_| false).unwrap();
        assert!(all.yours.is_some() && all.tried < 20, "{}", all.tried);
    }
}
