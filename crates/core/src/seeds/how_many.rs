//! How many cells to sow, and how many seeds in each.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::range::Ranges;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::seeds::clumps::{MOST_PER_CELL, Sown, cells_for, chance_of, mean_of, seeds_per_cell};
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
    /// Seedlings that a seed gives on the mean: clusters hold several.
    #[serde(default = "one_each")]
    pub seedlings_per_seed: f64,
    /// Whether seed is dear: one to a cell, or a clump's worth, and none to spare.
    #[serde(default)]
    pub fewest: bool,
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
fn one_each() -> f64 {
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
            seedlings_per_seed: one_each(),
            fewest: false,
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
    /// Seeds in each cell; in an open tray, for each cell that is pricked out into.
    pub seeds_per_cell: u32,
    /// Whether they are sown thickly in an open tray, and what comes up is pricked out.
    pub open_tray: bool,
    /// The share of cells that stay empty.
    pub empty: f64,
    /// Cells to sow, or to prick out into.
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

/// More seeds than this in a cell are better sown in an open tray and pricked out (common practice, no
/// source).
const MOST_TO_SUIT: u32 = 12;
/// More seeds than this for each plant that is wanted nobody sows.
const MOST_PER_PLANT: u64 = 300;

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
        let clump = self.plants_per_cell.max(1);
        let seeds_per_cell = match (self.seeds_per_cell, self.fewest) {
            (Some(seeds), _) => Some(seeds),
            (None, true) => Some(clump),
            // A clump of so many seedlings on the mean.
            (None, false) if clump > 1 => {
                let seeds = f64::from(clump) / (per_seed * self.seedlings_per_seed).max(1e-9);
                (seeds.ceil() <= f64::from(MOST_PER_CELL)).then_some(seeds.ceil() as u32)
            }
            (None, false) => {
                seeds_per_cell(per_seed, self.most_empty).filter(|seeds| *seeds <= MOST_TO_SUIT)
            }
        };
        match seeds_per_cell {
            Some(seeds) => self.in_cells(viability, per_seed, seeds),
            None => self.in_an_open_tray(viability, per_seed),
        }
    }

    fn too_poor(share: f64, per_seed: f64) -> Vec<Fault> {
        vec![Fault {
            path: Pointer::default().at("viability").to_string(),
            value: share.into(),
            problem: say!(
                "of such seed {share} gives a seedling: too poor to sow",
                share = Quantity::Share.of(per_seed)
            ),
            remedy: say!("buy fresh seed"),
        }]
    }

    fn sown(&self, per_seed: f64, seeds: u32) -> Sown {
        Sown {
            per_seed,
            seedlings_per_seed: self.seedlings_per_seed,
            seeds,
            kept: self.plants_per_cell.max(1),
            losses: self.losses,
        }
    }

    /// So many `seeds` to a cell.
    fn in_cells(
        &self,
        viability: Viability,
        per_seed: f64,
        each: u32,
    ) -> Result<ToSow, Vec<Fault>> {
        let wanted = u64::from(self.wanted);
        let sown = self.sown(per_seed, each);
        let plants = sown.plants();
        let mean = mean_of(&plants);
        let cells = if self.fewest {
            let enough = (f64::from(self.wanted) / mean.max(1e-9)).ceil();
            (enough <= f64::from(u32::MAX)).then_some(enough as u64)
        } else {
            cells_for(wanted, &plants, self.sure)
        };
        let cells = cells
            .and_then(|n| u32::try_from(n).ok())
            .filter(|n| n.checked_mul(each).is_some())
            .ok_or_else(|| Self::too_poor(viability.share, per_seed))?;
        let seedlings = f64::from(each) * per_seed * self.seedlings_per_seed;
        let kept = mean_of(&sown.seedlings());
        let at_worst = self.sown(viability.low * self.comes_up, each).plants();
        Ok(self.told(ToSow {
            per_seed,
            seeds_per_cell: each,
            open_tray: false,
            empty: (1.0 - per_seed).powi(each as i32),
            cells,
            seeds: cells * each,
            chance: chance_of(wanted, u64::from(cells), &plants),
            chance_at_worst: chance_of(wanted, u64::from(cells), &at_worst),
            thinnings: (f64::from(cells) * (seedlings - kept)).max(0.0),
            short_of: None,
            verdict: say!(""),
            viability,
        }))
    }

    /// Seed so poor that cells would take a pinch each: thickly in an open tray, and what comes up is
    /// pricked out.
    fn in_an_open_tray(&self, viability: Viability, per_seed: f64) -> Result<ToSow, Vec<Fault>> {
        let wanted = u64::from(self.wanted);
        let alive = |per_seed: f64| {
            let plant = per_seed * (1.0 - self.losses);
            [1.0 - plant, plant]
        };
        let seeds = cells_for(wanted, &alive(per_seed), self.sure)
            .filter(|seeds| *seeds <= MOST_PER_PLANT * wanted)
            .ok_or_else(|| Self::too_poor(viability.share, per_seed))?;
        let cells = self.wanted.div_ceil(self.plants_per_cell.max(1));
        Ok(self.told(ToSow {
            per_seed,
            seeds_per_cell: (seeds as u32).div_ceil(cells.max(1)),
            open_tray: true,
            empty: 0.0,
            cells,
            seeds: seeds as u32,
            chance: chance_of(wanted, seeds, &alive(per_seed)),
            chance_at_worst: chance_of(wanted, seeds, &alive(viability.low * self.comes_up)),
            thinnings: 0.0,
            short_of: None,
            verdict: say!(""),
            viability,
        }))
    }

    /// The same, with what the packet lacks and a verdict in words.
    fn told(&self, to_sow: ToSow) -> ToSow {
        let short_of = self.seeds.map(|have| to_sow.seeds.saturating_sub(have));
        let count = |n: u32| Quantity::Count.of(f64::from(n));
        let chance = Quantity::Share.of(to_sow.chance);
        let verdict = match short_of {
            _ if to_sow.open_tray && short_of.is_none_or(|short| short == 0) => say!(
                "Sow {seeds} seeds thickly in an open tray and prick out what comes up: a {sure} chance of at least {wanted} plants",
                seeds = count(to_sow.seeds),
                wanted = count(self.wanted),
                sure = chance
            ),
            Some(short) if short > 0 && to_sow.open_tray => say!(
                "Sow {seeds} seeds thickly in an open tray and prick out what comes up: the packet is {short} seeds short",
                seeds = count(to_sow.seeds),
                short = count(short)
            ),
            Some(short) if short > 0 => say!(
                "Sow {cells} cells, {each} per cell: the packet is {short} seeds short",
                cells = count(to_sow.cells),
                each = count(to_sow.seeds_per_cell),
                short = count(short)
            ),
            _ => say!(
                "Sow {cells} cells, {each} per cell: a {sure} chance of at least {wanted} plants",
                cells = count(to_sow.cells),
                each = count(to_sow.seeds_per_cell),
                wanted = count(self.wanted),
                sure = chance
            ),
        };
        ToSow {
            short_of,
            verdict,
            ..to_sow
        }
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
        let at = root.at("seedlings_per_seed");
        faults.number(&at, self.seedlings_per_seed, 1.0..=3.0, Quantity::Plain);
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
