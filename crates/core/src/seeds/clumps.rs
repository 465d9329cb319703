//! How many plants cells give: each seed comes up or not, a clump keeps as many as it is to have, and
//! some are lost later. Plants are counted as they come, not by whole clumps.

use statrs::distribution::{Binomial, ContinuousCDF, Discrete, DiscreteCDF, Normal};

use crate::basis::work::go_on;

/// More cells than this nobody sows.
pub(super) const MOST_CELLS: u64 = 10_000_000;
/// More seeds than this do not go into a cell.
pub(super) const MOST_PER_CELL: u32 = 50;
/// Clumps are summed exactly while that takes no more steps than this; beyond, by their mean, spread and
/// skewness.
const MOST_STEPS: u64 = 2_000_000;

/// A cell with its seeds.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Sown {
    /// The chance that a seed comes up at all.
    pub per_seed: f64,
    /// Seedlings that one that comes up gives on the mean: 1 to 3, for clusters hold several.
    pub seedlings_per_seed: f64,
    /// Seeds in the cell.
    pub seeds: u32,
    /// Plants that are kept of those that come up.
    pub kept: u32,
    /// The share of them that is lost later.
    pub losses: f64,
}

/// The chance of k successes of n, each with chance `p`.
fn of_n(k: u64, n: u64, p: f64) -> f64 {
    Binomial::new(p.clamp(0.0, 1.0), n).map_or(0.0, |binomial| binomial.pmf(k))
}

/// Whether the sum of so many cells, as far as `wanted`, is reckoned exactly.
fn exactly(wanted: u64, cells: u64, cell: &[f64]) -> bool {
    let steps = wanted.saturating_mul(cells);
    steps.saturating_mul(cell.len() as u64) <= MOST_STEPS
}

/// The sum of two counts: their chances, convolved, as far as `most`; all beyond falls to the last.
fn sum(a: &[f64], b: &[f64], most: usize) -> Vec<f64> {
    let mut out = vec![0.0; (a.len() + b.len() - 1).min(most + 1)];
    let last = out.len() - 1;
    for (i, p) in a.iter().enumerate().filter(|(_, p)| **p > 0.0) {
        for (j, q) in b.iter().enumerate() {
            out[(i + j).min(last)] += p * q;
        }
    }
    out
}

impl Sown {
    /// The chances of 0, 1, 2 … seedlings that are kept.
    ///
    /// A cluster that comes up gives one seedling and up to two more, each of those with chance
    /// (s − 1) / 2, so that it gives s on the mean (our own estimate).
    pub fn seedlings(&self) -> Vec<f64> {
        let more = ((self.seedlings_per_seed - 1.0) / 2.0).clamp(0.0, 1.0);
        let p = self.per_seed.clamp(0.0, 1.0);
        let one = [
            1.0 - p,
            p * (1.0 - more) * (1.0 - more),
            p * 2.0 * more * (1.0 - more),
            p * more * more,
        ];
        let one = if more > 0.0 { &one[..] } else { &one[..2] };
        let kept = self.kept.max(1) as usize;
        (0..self.seeds).fold(vec![1.0], |cell, _| sum(&cell, one, kept))
    }

    /// The chances of 0, 1, 2 … plants in the end.
    pub fn plants(&self) -> Vec<f64> {
        let seedlings = self.seedlings();
        let kept = seedlings.len() as u64;
        let stays = 1.0 - self.losses;
        (0..kept)
            .map(|k| {
                let from = seedlings.iter().enumerate().skip(k as usize);
                from.map(|(n, p)| p * of_n(k, n as u64, stays)).sum()
            })
            .collect()
    }
}

/// The mean of a count whose `chances` these are.
pub fn mean_of(chances: &[f64]) -> f64 {
    let each = chances.iter().enumerate();
    each.map(|(k, p)| k as f64 * p).sum()
}

/// The chance of at least `wanted` plants from so many `cells`, each with the chances `cell` of 0, 1,
/// 2 … plants: the exact sum up to about a thousand plants; beyond, the normal distribution with a
/// correction for skewness (Cornish and Fisher 1937, first term of the Edgeworth series).
pub fn chance_of(wanted: u64, cells: u64, cell: &[f64]) -> f64 {
    if wanted == 0 {
        return 1.0;
    }
    if cell.len() <= 2 {
        let q = cell.get(1).copied().unwrap_or(0.0);
        return single(wanted, cells, q);
    }
    if cells.saturating_mul(cell.len() as u64 - 1) < wanted {
        return 0.0;
    }
    if !exactly(wanted, cells, cell) {
        return roughly(wanted, cells, cell);
    }
    let most = wanted as usize;
    let mut all = vec![1.0];
    for _ in 0..cells {
        all = sum(&all, cell, most);
    }
    all.get(most).copied().unwrap_or(0.0).min(1.0)
}

/// The least number of cells that give at least `wanted` plants with chance `sure`; `None` when that is
/// more than anybody sows.
pub fn cells_for(wanted: u64, cell: &[f64], sure: f64) -> Option<u64> {
    let mean = mean_of(cell);
    if wanted == 0 {
        return Some(0);
    }
    if mean <= 0.0 {
        return None;
    }
    let about = (wanted as f64 / mean).ceil();
    if about > MOST_CELLS as f64 {
        return None;
    }
    if cell.len() <= 2 || !exactly(wanted, 2 * about as u64, cell) {
        return least(
            wanted,
            |n| chance_of(wanted, n, cell) >= sure,
            cell.len() as u64 - 1,
        );
    }
    // One cell after another: every chance on the way is wanted anyhow.
    let most = wanted as usize;
    let mut all = vec![1.0];
    for n in 1..=2 * about as u64 {
        go_on();
        all = sum(&all, cell, most);
        if all.get(most).is_some_and(|chance| *chance >= sure) {
            return Some(n);
        }
    }
    // So sure takes more than twice the cells that the mean does: told roughly.
    least(
        wanted,
        |n| roughly(wanted, n, cell) >= sure,
        cell.len() as u64 - 1,
    )
}

/// The least n that is `enough`; more cells never make it less likely.
fn least(wanted: u64, enough: impl Fn(u64) -> bool, most_each: u64) -> Option<u64> {
    let first = wanted.div_ceil(most_each.max(1));
    let mut high = first;
    while !enough(high) {
        high = high.checked_mul(2).filter(|n| *n <= 2 * MOST_CELLS)?;
    }
    let mut low = (high / 2).max(first) - 1;
    while high - low > 1 {
        let middle = low + (high - low) / 2;
        if enough(middle) {
            high = middle;
        } else {
            low = middle;
        }
    }
    (high <= MOST_CELLS).then_some(high)
}

/// P(Binomial(n, q) ≥ wanted).
fn single(wanted: u64, n: u64, q: f64) -> f64 {
    if n < wanted {
        return 0.0;
    }
    Binomial::new(q.clamp(0.0, 1.0), n).map_or(0.0, |binomial| binomial.sf(wanted - 1))
}

fn roughly(wanted: u64, cells: u64, cell: &[f64]) -> f64 {
    let mean = mean_of(cell);
    let moment = |power: i32| {
        let each = cell.iter().enumerate();
        each.map(|(k, p)| (k as f64 - mean).powi(power) * p)
            .sum::<f64>()
    };
    let n = cells as f64;
    let spread = (n * moment(2)).sqrt();
    if spread <= 0.0 {
        return if n * mean >= wanted as f64 { 1.0 } else { 0.0 };
    }
    let skewness = n * moment(3) / spread.powi(3);
    let z = (wanted as f64 - 0.5 - n * mean) / spread;
    let density = (-z * z / 2.0).exp() / std::f64::consts::TAU.sqrt();
    let below = Normal::standard().cdf(z) - skewness / 6.0 * (z * z - 1.0) * density;
    (1.0 - below).clamp(0.0, 1.0)
}

/// Seeds a cell so that at most the share `most_empty` of cells stays empty when each seed comes up
/// with chance `p`: (1 − p)^k ≤ e. At least 1; `None` when more than fifty would be needed.
///
/// Each seed comes up by itself: the binomial distribution.
///
/// ```
/// use sunrise_core::seeds::seeds_per_cell;
/// assert_eq!(seeds_per_cell(0.7, 0.1), Some(2));
/// assert_eq!(seeds_per_cell(0.95, 0.1), Some(1));
/// // Old seed, one in ten.
/// assert_eq!(seeds_per_cell(0.1, 0.1), Some(22));
/// ```
pub fn seeds_per_cell(p: f64, most_empty: f64) -> Option<u32> {
    if p >= 1.0 - most_empty {
        return Some(1);
    }
    if p <= 0.0 {
        return None;
    }
    // One that is exactly enough must not become one more by rounding.
    let k = (most_empty.ln() / (-p).ln_1p() - 1e-9).ceil();
    (k <= f64::from(MOST_PER_CELL)).then_some(k as u32)
}

/// The least number of cells of which at least `wanted` succeed with chance `sure`, each with
/// chance `q`: the least n with P(Binomial(n, q) ≥ wanted) ≥ sure. `None` when that is more than
/// anybody sows.
///
/// Source: the binomial distribution, checked against SciPy.
pub fn cells_to_sow(wanted: u64, q: f64, sure: f64) -> Option<u64> {
    cells_for(wanted, &[1.0 - q, q], sure)
}

#[cfg(test)]
mod tests {
    use super::*;

    const ONIONS: Sown = Sown {
        per_seed: 0.55,
        seedlings_per_seed: 1.0,
        seeds: 8,
        kept: 4,
        losses: 0.1,
    };

    #[test]
    fn chances_add_up_to_one() {
        let clusters = Sown {
            seedlings_per_seed: 2.0,
            ..ONIONS
        };
        for sown in [ONIONS, clusters] {
            for chances in [sown.seedlings(), sown.plants()] {
                assert_eq!(chances.len(), 5);
                assert!((chances.iter().sum::<f64>() - 1.0).abs() < 1e-12);
            }
        }
        assert!(mean_of(&clusters.plants()) > mean_of(&ONIONS.plants()));
        assert!(mean_of(&ONIONS.plants()) < 4.0 * 0.9);
    }

    #[test]
    fn clumps_of_onions_are_counted_as_they_come() {
        // 29 cells with 8 seeds each are not as good as sure of 90 plants.
        let chance = chance_of(90, 29, &ONIONS.plants());
        assert!((0.6..0.9).contains(&chance), "{chance}");
        let cells = cells_for(90, &ONIONS.plants(), 0.95).unwrap();
        assert!((29..36).contains(&cells), "{cells}");
        assert!(chance_of(90, cells - 1, &ONIONS.plants()) < 0.95);
    }

    #[test]
    fn the_rough_sum_joins_on_to_the_exact_one() {
        let cell = ONIONS.plants();
        for cells in [205, 212, 218, 230] {
            assert!(exactly(700, cells, &cell));
            let exact = chance_of(700, cells, &cell);
            let rough = roughly(700, cells, &cell);
            assert!((exact - rough).abs() < 0.005, "{cells}: {exact} {rough}");
        }
    }
}
