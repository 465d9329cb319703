//! How many to sow against exact figures from SciPy (`reference/seeds.py`).

use serde::Deserialize;
use sunrise_core::seeds::{GerminationTest, cells_to_sow, seeds_per_cell};

#[derive(Deserialize)]
struct Reference {
    cells: Vec<Cells>,
    per_cell: Vec<PerCell>,
    tests: Vec<Test>,
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
