//! One way to equip each shelf, together: all of them of which none is dearer and worse than another.

use std::collections::HashMap;

use crate::basis::work::go_on;
use crate::compare::frontier::offer::{Item, Offer};

/// One offer for each item.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Mix {
    /// The offers' indices.
    pub(super) picks: Vec<usize>,
    pub(super) cost: f64,
    pub(super) to_buy: f64,
    /// Cells that get their light.
    pub(super) lit: f64,
    /// Cells that come up in their warmth.
    pub(super) warm: f64,
}

/// So many mixes are carried from shelf to shelf. Where there are more, those that differ little are
/// thinned out, so that the line is off by a few parts in a hundred at most in very large stands.
const MOST: usize = 300;
/// The line that is shown has no more points.
const MOST_ON_LINE: usize = 24;

impl Mix {
    fn nothing() -> Self {
        Self {
            picks: Vec::new(),
            cost: 0.0,
            to_buy: 0.0,
            lit: 0.0,
            warm: 0.0,
        }
    }

    fn with(&self, item: &Item<'_>, pick: usize, offer: &Offer) -> Self {
        let mut picks = self.picks.clone();
        picks.push(pick);
        let [lit, warm] = if item.is_warmth {
            [0.0, offer.well]
        } else {
            [offer.well, 0.0]
        };
        Self {
            picks,
            cost: self.cost + offer.cost,
            to_buy: self.to_buy + offer.to_buy,
            lit: self.lit + lit,
            warm: self.warm + warm,
        }
    }

    /// What is there; `None` where something of it has no price, or nothing was asked.
    pub(super) fn of_yours(items: &[Item<'_>]) -> Option<Self> {
        if items.is_empty() {
            return None;
        }
        items.iter().try_fold(Self::nothing(), |mix, item| {
            let mut offers = item.offers.iter().enumerate();
            let (pick, offer) = offers.find(|(_, offer)| offer.yours)?;
            Some(mix.with(item, pick, offer))
        })
    }

    /// Cells that get what they want.
    pub(super) fn well(&self) -> f64 {
        self.lit + self.warm
    }

    /// Whether it is as good as `other` in everything.
    fn beats(&self, other: &Self) -> bool {
        const CELL: f64 = 1e-6;
        self.to_buy <= other.to_buy + 1e-9
            && self.lit >= other.lit - CELL
            && self.warm >= other.warm - CELL
    }
}

/// The mixes of `items` of which none costs as much, is as much to buy, and raises as little as another;
/// the cheapest first. Empty where there are no items.
pub(super) fn mixes(items: &[Item<'_>]) -> Vec<Mix> {
    if items.is_empty() {
        return Vec::new();
    }
    let mut all = vec![Mix::nothing()];
    for item in items {
        go_on();
        let each = all.iter().flat_map(|mix| {
            let offers = item.offers.iter().enumerate();
            offers.map(|(pick, offer)| mix.with(item, pick, offer))
        });
        all = undominated(each.collect());
    }
    all
}

fn undominated(mut all: Vec<Mix>) -> Vec<Mix> {
    all.sort_by(|a, b| {
        let by_cost = a.cost.total_cmp(&b.cost);
        by_cost
            .then(b.well().total_cmp(&a.well()))
            .then(a.to_buy.total_cmp(&b.to_buy))
    });
    let mut kept: Vec<Mix> = Vec::new();
    for mix in all {
        if !kept.iter().any(|cheaper| cheaper.beats(&mix)) {
            kept.push(mix);
        }
        if kept.len() > 4 * MOST {
            kept = thinned(kept);
        }
    }
    thinned(kept)
}

/// The cheapest of those that are alike; `all` is in order of cost.
fn thinned(all: Vec<Mix>) -> Vec<Mix> {
    let most = |of: fn(&Mix) -> f64| all.iter().map(of).fold(1e-9, f64::max);
    let (lit, warm, to_buy) = (most(|m| m.lit), most(|m| m.warm), most(|m| m.to_buy));
    let mut parts = 200.0;
    let mut kept = all.clone();
    while kept.len() > MOST {
        let mut seen: HashMap<[i64; 3], usize> = HashMap::new();
        for (i, mix) in all.iter().enumerate() {
            let part = |share: f64| (share * parts).floor() as i64;
            let key = [
                part(mix.lit / lit),
                part(mix.warm / warm),
                part(mix.to_buy / to_buy),
            ];
            seen.entry(key).or_insert(i);
        }
        let mut indices: Vec<usize> = seen.into_values().collect();
        // What raises most stays.
        let best = (0..all.len()).max_by(|&a, &b| all[a].well().total_cmp(&all[b].well()));
        indices.extend(best);
        indices.sort_unstable();
        indices.dedup();
        kept = indices.into_iter().map(|i| all[i].clone()).collect();
        parts /= 1.5;
    }
    kept
}

/// Those of `all` that none is both cheaper and better than, the cheapest first.
pub(super) fn line(all: &[Mix]) -> Vec<&Mix> {
    let mut best = f64::NEG_INFINITY;
    let mut line: Vec<&Mix> = all
        .iter()
        .filter(|mix| {
            let better = mix.well() > best + 1e-6;
            best = best.max(mix.well());
            better
        })
        .collect();
    if line.len() > MOST_ON_LINE {
        let last = line.len() - 1;
        let step = |i: usize| i * last / (MOST_ON_LINE - 1);
        line = (0..MOST_ON_LINE).map(|i| line[step(i)]).collect();
    }
    line
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::basis::words::say;
    use crate::compare::frontier::offer::Change;
    use crate::room::bays;
    use crate::testing::kettle_fen;

    fn item<'a>(bay: crate::room::Bay<'a>, is_warmth: bool, offers: &[[f64; 3]]) -> Item<'a> {
        let each = offers
            .iter()
            .enumerate()
            .map(|(i, [cost, to_buy, well])| Offer {
                what: say!("an offer"),
                yours: i == 0,
                worth: *to_buy,
                to_buy: *to_buy,
                current: 0.0,
                cost: *cost,
                well: *well,
                change: Change::Mats(Vec::new()),
            });
        Item {
            bay,
            is_warmth,
            cells: 100.0,
            offers: each.collect(),
            unpriced: Vec::new(),
        }
    }

    /// Against every mix there is.
    #[test]
    fn no_mix_is_left_out_that_is_cheaper_and_as_good() {
        let plan = kettle_fen(|_| ());
        let bay = bays(&plan.places).next().unwrap();
        let mut drawn = fastrand::Rng::with_seed(4);
        let mut offers = |n: usize| -> Vec<[f64; 3]> {
            let one = |drawn: &mut fastrand::Rng| f64::from(drawn.u32(1..40));
            (0..n)
                .map(|_| [one(&mut drawn), one(&mut drawn), one(&mut drawn)])
                .collect()
        };
        let items = [
            item(bay, false, &offers(6)),
            item(bay, true, &offers(4)),
            item(bay, false, &offers(5)),
        ];
        let found = mixes(&items);
        assert!(found.iter().is_sorted_by(|a, b| a.cost <= b.cost));
        let mut every = vec![Mix::nothing()];
        for item in &items {
            let with = |mix: &Mix| {
                let offers = item.offers.iter().enumerate();
                offers
                    .map(|(i, offer)| mix.with(item, i, offer))
                    .collect::<Vec<_>>()
            };
            every = every.iter().flat_map(with).collect();
        }
        assert_eq!(every.len(), 120);
        for mix in &every {
            let as_good = |other: &Mix| other.cost <= mix.cost && other.beats(mix);
            assert!(found.iter().any(as_good));
        }
        let line = line(&found);
        for pair in line.windows(2) {
            assert!(pair[0].cost < pair[1].cost && pair[0].well() < pair[1].well());
        }
    }

    #[test]
    fn a_hundred_shelves_are_mixed_in_bounds() {
        let plan = kettle_fen(|_| ());
        let bay = bays(&plan.places).next().unwrap();
        let mut drawn = fastrand::Rng::with_seed(9);
        let items: Vec<Item<'_>> = (0..100)
            .map(|_| {
                let each = (0..12).map(|_| [drawn.f64(), drawn.f64(), drawn.f64()]);
                item(bay, false, &each.collect::<Vec<_>>())
            })
            .collect();
        let found = mixes(&items);
        assert!(found.len() <= MOST && line(&found).len() <= MOST_ON_LINE);
        assert_eq!(found[0].picks.len(), 100);
        assert!(mixes(&[]).is_empty() && Mix::of_yours(&[]).is_none());
    }
}
