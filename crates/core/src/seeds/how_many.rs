//! How many cells to sow, and how many seeds in each.

use serde::{Deserialize, Serialize};
use statrs::distribution::{Binomial, DiscreteCDF};
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::range::Ranges;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::seeds::viability::{GerminationTest, Viability};

/// Plants that are wanted, and what the seed is like.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Want {
    /// Plants wanted in the end.
    pub wanted: u32,
    /// The share of the seeds that are alive, 0 to 1; left out where `test` is given.
    #[serde(default)]
    pub viability: Option<f64>,
    /// A test on damp paper.
    #[serde(default)]
    pub test: Option<GerminationTest>,
    /// The share of live seeds that come up where they lie; all when left out.
    #[serde(default = "all")]
    pub comes_up: f64,
    /// The share of seedlings lost from emergence to planting out.
    #[serde(default)]
    pub losses: f64,
    /// Plants that grow together in a cell as a clump.
    #[serde(default = "one")]
    pub plants_per_cell: u32,
    /// Seeds in each cell; left out, as many as keep empty cells under `most_empty`.
    #[serde(default)]
    pub seeds_per_cell: Option<u32>,
    /// The share of cells that may stay empty.
    #[serde(default = "tenth")]
    pub most_empty: f64,
    /// How sure one wants to be of the plants wanted.
    #[serde(default = "sure")]
    pub sure: f64,
    /// Seeds in the packet; left out when nobody counted.
    #[serde(default)]
    pub seeds: Option<u32>,
}

fn all() -> f64 {
    1.0
}
fn one() -> u32 {
    1
}
fn tenth() -> f64 {
    0.1
}
fn sure() -> f64 {
    0.95
}

impl Want {
    /// A dozen plants of seed that nobody tested, of which a tenth is lost (our own estimate).
    pub fn usual() -> Self {
        Self {
            wanted: 12,
            viability: Some(0.75),
            test: None,
            comes_up: all(),
            losses: 0.1,
            plants_per_cell: one(),
            seeds_per_cell: None,
            most_empty: tenth(),
            sure: sure(),
            seeds: None,
        }
    }
}

/// What to sow.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ToSow {
    /// How alive the seed is taken to be.
    pub viability: Viability,
    /// The chance that one seed gives a seedling.
    pub per_seed: f64,
    /// Seeds in each cell.
    pub seeds_per_cell: u32,
    /// The share of cells that stay empty.
    pub empty: f64,
    /// Cells to sow.
    pub cells: u32,
    /// Seeds for all of them.
    pub seeds: u32,
    /// The chance of at least the plants wanted.
    pub chance: f64,
    /// The chance with seed as poor as `viability.low` has it.
    pub chance_at_worst: f64,
    /// Seedlings to pull or prick out, on the mean.
    pub thinnings: f64,
    /// Seeds that the packet lacks; 0 when it suffices, `None` when nobody counted.
    pub short_of: Option<u32>,
    /// In a sentence.
    pub verdict: Statement,
}

/// More seeds than this do not go into a cell.
const MOST_PER_CELL: u32 = 50;
/// More cells than this nobody sows.
const MOST_CELLS: u64 = 10_000_000;

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
    if wanted == 0 {
        return Some(0);
    }
    if q <= 0.0 {
        return None;
    }
    let enough = |n: u64| chance_of(wanted, n, q) >= sure;
    let mut high = wanted;
    while !enough(high) {
        high = high.checked_mul(2).filter(|n| *n <= 2 * MOST_CELLS)?;
    }
    let mut low = (high / 2).max(wanted) - 1;
    // More cells never make it less likely.
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
fn chance_of(wanted: u64, n: u64, q: f64) -> f64 {
    if wanted == 0 {
        return 1.0;
    }
    if n < wanted {
        return 0.0;
    }
    match Binomial::new(q.clamp(0.0, 1.0), n) {
        Ok(binomial) => binomial.sf(wanted - 1),
        Err(_) => 0.0,
    }
}

impl Want {
    /// What to sow.
    ///
    /// # Errors
    /// Every figure that cannot be, by its path; seed too poor to sow.
    pub fn to_sow(&self) -> Result<ToSow, Vec<Fault>> {
        self.check()?;
        let viability = match (self.test, self.viability) {
            (Some(test), _) => test.viability(),
            (None, share) => {
                let share = share.expect("one of them was checked for");
                Viability {
                    share,
                    low: share,
                    high: share,
                    basis: say!("as it was given"),
                }
            }
        };
        self.of_viability(viability)
    }

    /// The same with seed of known `viability`.
    pub(crate) fn of_viability(&self, viability: Viability) -> Result<ToSow, Vec<Fault>> {
        let per_seed = viability.share * self.comes_up;
        let too_poor = |at: &str, value: f64| {
            vec![Fault {
                path: Pointer::default().at(at).to_string(),
                value: value.into(),
                problem: say!(
                    "of such seed {share} gives a seedling: too poor to sow",
                    share = Quantity::Share.of(per_seed)
                ),
                remedy: say!("buy fresh seed, or sow it thickly in an open tray and prick out"),
            }]
        };
        let clump = self.plants_per_cell.max(1);
        let seeds_per_cell = match self.seeds_per_cell {
            Some(seeds) => seeds,
            None if clump > 1 => {
                // A clump of so many seedlings on the mean.
                let seeds = (f64::from(clump) / per_seed.max(1e-9)).ceil();
                if seeds > f64::from(MOST_PER_CELL) {
                    return Err(too_poor("viability", viability.share));
                }
                seeds as u32
            }
            None => seeds_per_cell(per_seed, self.most_empty)
                .ok_or_else(|| too_poor("viability", viability.share))?,
        };
        let succeeds = |per_seed: f64| {
            let any = 1.0 - (1.0 - per_seed).powi(seeds_per_cell as i32);
            any * (1.0 - self.losses)
        };
        let q = succeeds(per_seed);
        let wanted = u64::from(self.wanted.div_ceil(clump));
        let cells = cells_to_sow(wanted, q, self.sure)
            .and_then(|n| u32::try_from(n).ok())
            .filter(|n| n.checked_mul(seeds_per_cell).is_some())
            .ok_or_else(|| too_poor("viability", viability.share))?;
        let empty = (1.0 - per_seed).powi(seeds_per_cell as i32);
        let seedlings = f64::from(cells) * f64::from(seeds_per_cell) * per_seed;
        let kept = f64::from(cells) * (1.0 - empty) * f64::from(clump);
        let seeds = cells * seeds_per_cell;
        let short_of = self.seeds.map(|have| seeds.saturating_sub(have));
        let count = |n: u32| Quantity::Count.of(f64::from(n));
        let verdict = match short_of {
            Some(short) if short > 0 => say!(
                "Sow {cells} cells, {each} per cell: the packet is {short} seeds short",
                cells = count(cells),
                each = count(seeds_per_cell),
                short = count(short)
            ),
            _ => say!(
                "Sow {cells} cells, {each} per cell: a {sure} chance of at least {wanted} plants",
                cells = count(cells),
                each = count(seeds_per_cell),
                wanted = count(self.wanted),
                sure = Quantity::Share.of(chance_of(wanted, u64::from(cells), q))
            ),
        };
        Ok(ToSow {
            per_seed,
            seeds_per_cell,
            empty,
            cells,
            seeds,
            chance: chance_of(wanted, u64::from(cells), q),
            chance_at_worst: chance_of(
                wanted,
                u64::from(cells),
                succeeds(viability.low * self.comes_up),
            ),
            thinnings: (seedlings - kept).max(0.0),
            short_of,
            verdict,
            viability,
        })
    }

    fn check(&self) -> Result<(), Vec<Fault>> {
        let mut faults = Faults::default();
        self.look_over(&mut faults);
        faults.verdict()
    }

    /// The ranges of its figures.
    pub(crate) fn ranges(&self) -> Ranges {
        let mut faults = Faults::with_ranges();
        self.look_over(&mut faults);
        faults.into_ranges()
    }

    fn look_over(&self, faults: &mut Faults) {
        let root = Pointer::default();
        let share = Quantity::Share;
        let count = Quantity::Count;
        let wanted = f64::from(self.wanted);
        faults.number(&root.at("wanted"), wanted, 1.0..=100_000.0, count);
        match (self.test, self.viability) {
            (Some(test), _) => test.check(&root.at("test"), faults),
            (None, Some(viability)) => {
                faults.number(&root.at("viability"), viability, 0.0..=1.0, share);
            }
            (None, None) => faults.add(
                &root.at("viability"),
                serde_json::Value::Null,
                say!("nothing says how alive the seed is"),
                say!("give a viability from 0 to 1, or a test"),
            ),
        }
        for (name, value, range) in [
            ("comes_up", self.comes_up, 0.0..=1.0),
            ("losses", self.losses, 0.0..=0.95),
            ("most_empty", self.most_empty, 0.001..=0.9),
            ("sure", self.sure, 0.5..=0.9999),
        ] {
            faults.number(&root.at(name), value, range, share);
        }
        let clump = f64::from(self.plants_per_cell);
        faults.number(&root.at("plants_per_cell"), clump, 1.0..=20.0, count);
        if let Some(seeds) = self.seeds_per_cell {
            let most = f64::from(MOST_PER_CELL);
            let at = root.at("seeds_per_cell");
            faults.number(&at, f64::from(seeds), 1.0..=most, count);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn want(json: serde_json::Value) -> Want {
        serde_json::from_value(json).unwrap()
    }

    #[test]
    fn six_plants_do_not_take_a_tray_of_72() {
        let sow = want(serde_json::json!({"wanted": 6, "viability": 0.78, "losses": 0.1}))
            .to_sow()
            .unwrap();
        assert_eq!(sow.seeds_per_cell, 2);
        assert!((7..=10).contains(&sow.cells), "{}", sow.cells);
        assert!(sow.chance >= 0.95);
        assert!(sow.thinnings > 3.0);
    }

    #[test]
    fn beets_are_sown_for_clumps() {
        let sow = want(serde_json::json!({
            "wanted": 40, "viability": 0.8, "plants_per_cell": 4, "seeds": 20
        }))
        .to_sow()
        .unwrap();
        assert_eq!(sow.seeds_per_cell, 5);
        assert!((10..=12).contains(&sow.cells), "{}", sow.cells);
        assert_eq!(sow.short_of, Some(sow.seeds - 20));
        assert!(sow.verdict.to_string().contains("seeds short"));
    }

    #[test]
    fn dead_seed_and_missing_figures_are_refused_by_name() {
        let dead = want(serde_json::json!({"wanted": 6, "viability": 0.001})).to_sow();
        assert_eq!(dead.unwrap_err()[0].path, "/viability");
        let none = want(serde_json::json!({"wanted": 6})).to_sow();
        assert_eq!(none.unwrap_err()[0].path, "/viability");
        let test = want(serde_json::json!({"wanted": 6, "test": {"sprouted": 11, "of": 10}}));
        assert_eq!(test.to_sow().unwrap_err()[0].path, "/test/sprouted");
    }
}
