//! How many to sow against exact figures from SciPy, and clumps against sums and a Monte Carlo from NumPy
//! (`reference/seeds.py`).

use serde::Deserialize;
use sunrise_core::seeds::clumps::{Sown, chance_of};
use sunrise_core::seeds::{GerminationTest, Want, cells_to_sow, seeds_per_cell};

#[derive(Deserialize)]
struct Reference {
    cells: Vec<Cells>,
    per_cell: Vec<PerCell>,
    tests: Vec<Test>,
    clumps: Vec<Clumps>,
}

#[derive(Deserialize)]
struct Clumps {
    per_seed: f64,
    seedlings_per_seed: f64,
    seeds: u32,
    kept: u32,
    losses: f64,
    cells: u64,
    wanted: u64,
    exact: f64,
    monte_carlo: f64,
}

#[derive(Deserialize)]
struct Cells {
    wanted: u64,
    q: f64,
    sure: f64,
    cells: u64,
}

#[derive(Deserialize)]
struct PerCell {
    p: f64,
    most_empty: f64,
    seeds: u32,
}

#[derive(Deserialize)]
struct Test {
    sprouted: u32,
    of: u32,
    mean: f64,
    low: f64,
    high: f64,
}

fn reference() -> Reference {
    serde_json::from_str(include_str!("reference/seeds.json")).unwrap()
}

#[test]
fn cells_equal_the_exact_binomial_even_at_tiny_and_huge_rates() {
    let cases = reference().cells;
    assert!(cases.len() >= 50, "{}", cases.len());
    for case in cases {
        assert_eq!(
            cells_to_sow(case.wanted, case.q, case.sure),
            Some(case.cells),
            "{} at {} with {}",
            case.wanted,
            case.q,
            case.sure
        );
    }
}

#[test]
fn seeds_per_cell_equal_the_exact_binomial() {
    for case in reference().per_cell {
        let seeds = seeds_per_cell(case.p, case.most_empty);
        assert_eq!(seeds, Some(case.seeds), "{} {}", case.p, case.most_empty);
    }
}

#[test]
fn a_germination_test_gives_the_beta_posterior() {
    for case in reference().tests {
        let test = GerminationTest {
            sprouted: case.sprouted,
            of: case.of,
        };
        let got = test.viability();
        for (got, expected) in [
            (got.share, case.mean),
            (got.low, case.low),
            (got.high, case.high),
        ] {
            assert!(
                (got - expected).abs() < 1e-6,
                "{} of {}: {got}, SciPy {expected}",
                case.sprouted,
                case.of
            );
        }
    }
}

#[test]
fn clumps_are_counted_plant_by_plant() {
    let cases = reference().clumps;
    assert!(cases.len() >= 10);
    for case in cases {
        let sown = Sown {
            per_seed: case.per_seed,
            seedlings_per_seed: case.seedlings_per_seed,
            seeds: case.seeds,
            kept: case.kept,
            losses: case.losses,
        };
        let chance = chance_of(case.wanted, case.cells, &sown.plants());
        assert!(
            (chance - case.exact).abs() < 1e-9,
            "{sown:?}: {chance}, NumPy {}",
            case.exact
        );
        // 400,000 sowings err by a thousandth or so.
        assert!(
            (chance - case.monte_carlo).abs() < 0.005,
            "{sown:?}: {chance}, drawn {}",
            case.monte_carlo
        );
    }
}

fn want(json: serde_json::Value) -> Want {
    serde_json::from_value(json).unwrap()
}

#[test]
fn ninety_onions_are_not_sure_from_29_clumps_of_eight_seeds() {
    let asked = |viability: f64| {
        let ask = serde_json::json!({
            "wanted": 90, "viability": viability, "losses": 0.1, "plants_per_cell": 4, "seeds_per_cell": 8
        });
        want(ask).to_sow().unwrap()
    };
    let sow = asked(0.53);
    assert!(sow.cells > 29 && sow.chance >= 0.95, "{sow:?}");
    assert!(asked(0.9).cells < sow.cells);
}

#[test]
fn one_of_a_hundred_leads_to_an_open_tray_and_few_dear_seeds_to_one_a_cell() {
    let poor = serde_json::json!({"wanted": 6, "test": {"sprouted": 1, "of": 100}, "losses": 0.05});
    let sow = want(poor).to_sow().unwrap();
    assert!(
        sow.open_tray && sow.cells == 6 && sow.seeds > 300,
        "{sow:?}"
    );
    assert!(sow.chance >= 0.95);
    let dear = serde_json::json!({
        "wanted": 8, "viability": 0.8, "losses": 0.1, "fewest": true, "seeds": 12
    });
    let sow = want(dear).to_sow().unwrap();
    assert_eq!((sow.seeds_per_cell, sow.cells, sow.seeds), (1, 12, 12));
    assert_eq!((sow.thinnings, sow.short_of), (0.0, Some(0)));
}

#[test]
fn clusters_of_beet_need_fewer_than_single_seeds() {
    let beet = |each: f64| {
        let ask = serde_json::json!({
            "wanted": 40, "viability": 0.75, "plants_per_cell": 4, "seedlings_per_seed": each
        });
        want(ask).to_sow().unwrap().seeds
    };
    assert!(f64::from(beet(2.0)) < 0.7 * f64::from(beet(1.0)));
}
