//! Two batches compared: the figures against SciPy (`reference/batches.py`), and what is told apart of seeded ones.

use std::sync::Arc;

use serde::Deserialize;
use sunrise_core::basis::dates::plus_days;
use sunrise_core::batches::batch::Batch;
use sunrise_core::batches::comparison::{Comparison, InSeason};
use sunrise_core::batches::differs::{ConditionOf, DifferenceOf, ToldApart};
use sunrise_core::batches::figures::{Share, holm, means_apart, shares_apart};
use sunrise_core::learning::estimate::Estimate;
use sunrise_core::log::detail::{About, Measurement};
use sunrise_core::log::entry::Entry;
use sunrise_core::log::fact::Fact;
use sunrise_core::log::told::Told;
use sunrise_core::plan::SoundPlan;
use sunrise_core::testing::{bay, dates_of, kettle_fen, noted, reckoned};

#[derive(Deserialize)]
struct Reference {
    shares: Vec<Shares>,
    means: Vec<Means>,
    posterior: Posterior,
    beta: Beta,
}

#[derive(Deserialize)]
struct Shares {
    a: [u32; 2],
    b: [u32; 2],
    wilson_a: [f64; 2],
    wilson_b: [f64; 2],
    newcombe: [f64; 2],
    fisher: f64,
}

#[derive(Deserialize)]
struct Means {
    a: Vec<f64>,
    b: Vec<f64>,
    p: f64,
    interval: [f64; 2],
}

#[derive(Deserialize)]
struct Posterior {
    values: Vec<f64>,
    usual_sd: f64,
    mean: f64,
    interval: [f64; 2],
}

#[derive(Deserialize)]
struct Beta {
    of: u32,
    sprouted: u32,
    middle_95: [f64; 2],
    median: f64,
}

fn reference() -> Reference {
    serde_json::from_str(include_str!("reference/batches.json")).expect("it reads")
}

fn near(a: f64, b: f64) -> bool {
    (a - b).abs() < 1e-9
}

#[test]
fn shares_and_means_are_scipys() {
    let reference = reference();
    let share = |[count, of]: [u32; 2]| Share { count, of };
    for own in &reference.shares {
        let (a, b) = (share(own.a), share(own.b));
        for (ours, theirs) in [(a.wilson(), own.wilson_a), (b.wilson(), own.wilson_b)] {
            assert!(
                near(ours[0], theirs[0]) && near(ours[1], theirs[1]),
                "{ours:?} {theirs:?}"
            );
        }
        let apart = shares_apart(a, b);
        assert!(near(apart.low, own.newcombe[0]) && near(apart.high, own.newcombe[1]));
        assert!(
            near(apart.p, own.fisher),
            "{:?}: {} {}",
            own.a,
            apart.p,
            own.fisher
        );
    }
    for own in &reference.means {
        let apart = means_apart(&own.a, &own.b).expect("there are enough");
        assert!(near(apart.p, own.p), "{} {}", apart.p, own.p);
        // Quantiles of Student's t are found by halving.
        assert!((apart.low - own.interval[0]).abs() < 1e-6);
        assert!((apart.high - own.interval[1]).abs() < 1e-6);
    }
    assert_eq!(means_apart(&[1.0], &[2.0, 3.0]), None);
    assert_eq!(means_apart(&[1.0, 1.0], &[1.0, 1.0]), None);
}

#[test]
fn what_readings_say_is_scipys() {
    let Reference {
        posterior, beta, ..
    } = reference();
    let ours = Estimate::of_mean(&posterior.values, posterior.usual_sd).unwrap();
    assert!(near(ours.value, posterior.mean));
    assert!((ours.low - posterior.interval[0]).abs() < 1e-6);
    assert!((ours.high - posterior.interval[1]).abs() < 1e-6);
    // A count on a grid of thousandths: the beta distribution, to a step.
    let grid: Vec<f64> = (0..=1000).map(|i| f64::from(i) / 1000.0).collect();
    let log = |p: &f64| {
        let p = p.clamp(1e-9, 1.0 - 1e-9);
        let (k, n) = (f64::from(beta.sprouted), f64::from(beta.of));
        k * p.ln() + (n - k) * (1.0 - p).ln()
    };
    let weights: Vec<f64> = grid.iter().map(log).collect();
    let ours = Estimate::within_bounds(&grid, &weights).unwrap();
    for (ours, theirs) in [
        (ours.low, beta.middle_95[0]),
        (ours.high, beta.middle_95[1]),
        (ours.value, beta.median),
    ] {
        assert!((ours - theirs).abs() < 0.0015, "{ours} {theirs}");
    }
}

#[test]
fn several_tests_at_once_are_held_to_more() {
    // Holm's own example in outline: the least by three, the next by two, never falling.
    let raised = holm(&[0.01, 0.04, 0.03]);
    assert!(near(raised[0], 0.03) && near(raised[2], 0.06) && near(raised[1], 0.06));
    assert_eq!(holm(&[0.9, 0.8]), [1.0, 1.0]);
    assert!(holm(&[]).is_empty());
}

/// Cabbage in two trays, one of which shows `late` days later, with `up` of 50 cells each, and stands `taller`.
fn two_trays(plan: &SoundPlan, seed: u64, up: [f64; 2], late: f64, taller: f64) -> Vec<Entry> {
    let mut chance = fastrand::Rng::with_seed(seed);
    let all = reckoned(plan);
    let dates = dates_of(&all, "cabbage");
    let mut entries = Vec::new();
    for (i, tray) in ["ca1", "ca2"].into_iter().enumerate() {
        let name = || tray.to_owned();
        entries.push(noted(dates.sow, Fact::Sown { tray: name() }));
        let cells: Vec<f64> = (0..50)
            .filter_map(|_| {
                let day = 5.0 + 3.0 * chance.f64() + if i == 1 { late } else { 0.0 };
                (chance.f64() < up[i]).then_some(day)
            })
            .collect();
        for day in 1..=16 {
            let count = cells.iter().filter(|c| **c <= f64::from(day)).count() as u32;
            let (tray, sowing, of) = (name(), None, 50);
            let shown = Fact::Shown {
                tray,
                sowing,
                count,
                of,
            };
            entries.push(noted(plus_days(dates.sow, day), shown));
        }
        for day in [30, 34, 38, 42] {
            let usual = 20.0 + f64::from(day);
            let scatter = 1.0 + 0.2 * (chance.f64() + chance.f64() - 1.0);
            let mm = usual * scatter * if i == 1 { taller } else { 1.0 };
            let (about, reading) = (About::Tray(name()), Measurement::HeightMm(mm));
            entries.push(noted(
                plus_days(dates.sow, day),
                Fact::Measured { about, reading },
            ));
        }
    }
    entries
}

fn compared(plan: &SoundPlan, entries: Vec<Entry>, a: Batch, b: Batch) -> Comparison {
    let told = Told::of(entries);
    let plan = plan.clone().after(Arc::new(told.happened()));
    let all = reckoned(&plan);
    let of = |batch| InSeason {
        reckoned: &all,
        told: &told,
        batch,
    };
    Comparison::of(of(&a), of(&b)).expect("both are there")
}

fn trays() -> [Batch; 2] {
    [Batch::Tray("ca1".into()), Batch::Tray("ca2".into())]
}

#[test]
fn true_differences_are_told_apart_and_none_is_made_up() {
    let plan = kettle_fen(|_| ());
    let apart = |seed, up: [f64; 2], late, taller| {
        let [a, b] = trays();
        let found = compared(&plan, two_trays(&plan, seed, up, late, taller), a, b);
        assert_eq!(found.differences.len(), 3);
        found
            .differences
            .iter()
            .any(|d| d.told_apart == ToldApart::Clearly)
    };
    let told = |up, late, taller| {
        (0..100)
            .filter(|&seed| apart(seed, up, late, taller))
            .count()
    };
    // Poorer seed; slower; taller, each alone.
    assert!(told([0.85, 0.45], 0.0, 1.0) >= 95);
    assert!(told([0.8, 0.8], 1.0, 1.0) >= 95);
    assert!(told([0.8, 0.8], 0.0, 1.6) >= 95);
    assert!(told([0.8, 0.8], 0.0, 1.0) <= 5);
}

#[test]
fn a_difference_is_said_in_words_with_what_it_is_probably_down_to() {
    let plan = kettle_fen(|_| ());
    let [a, b] = trays();
    let mut entries = two_trays(&plan, 4, [0.9, 0.3], 0.0, 1.0);
    let soil = |tray: &str, c| {
        let (about, reading) = (About::Tray(tray.into()), Measurement::SoilC(c));
        let sow = dates_of(&reckoned(&plan), "cabbage").sow;
        noted(plus_days(sow, 2), Fact::Measured { about, reading })
    };
    entries.extend([soil("ca1", 21.0), soil("ca2", 12.5)]);
    let found = compared(&plan, entries.clone(), a, b);
    let words = found.verdict.to_string();
    assert!(
        words.contains("of 50 came up in Ca1 against") && words.ends_with("in Ca2"),
        "{words}"
    );
    let why = found.probably.expect("a reason").to_string();
    assert!(
        why.contains("warmer spot") && why.contains("21 °C") && why.contains("12.5 °C"),
        "{why}"
    );
    let mix = found
        .conditions
        .iter()
        .find(|own| own.what == ConditionOf::Mix)
        .unwrap();
    assert_eq!(mix.measured, [Some(21.0), Some(12.5)]);
    // The other way round it reads the other way round.
    let [a, b] = trays();
    let turned = compared(&plan, entries, b, a);
    assert_eq!(turned.differences[0].by, -found.differences[0].by);
    assert!(
        turned
            .probably
            .unwrap()
            .to_string()
            .contains("21 °C in Ca1")
    );
    // Where nothing differs, nothing is explained.
    let [a, b] = trays();
    let same = compared(&plan, two_trays(&plan, 5, [0.8, 0.8], 0.0, 1.0), a, b);
    assert_eq!(same.probably, None);
    assert!(same.verdict.to_string().contains("not told apart"));
}

#[test]
fn what_cannot_be_compared_is_said() {
    let plan = kettle_fen(|_| ());
    let nothing = compared(
        &plan,
        Vec::new(),
        Batch::Sowing("onion".into()),
        Batch::Sowing("celery".into()),
    );
    assert!(nothing.verdict.to_string().contains("Nobody counted"));
    assert!(
        nothing
            .but
            .iter()
            .any(|but| but.to_string().contains("not the same crop"))
    );
    let [a, _] = trays();
    let other = compared(
        &plan,
        two_trays(&plan, 1, [0.9, 0.3], 0.0, 1.0),
        a,
        Batch::Sowing("onion".into()),
    );
    assert!(other.differences.is_empty());
    let shelves = compared(
        &plan,
        two_trays(&plan, 1, [0.9, 0.3], 0.0, 1.0),
        Batch::Bay(bay("coat", "t3")),
        Batch::Place("coat".into()),
    );
    assert!(
        shelves
            .but
            .iter()
            .any(|but| but.to_string().contains("in both"))
    );
    assert_eq!(shelves.differences[0].what, DifferenceOf::CameUp);
    let told = Told::default();
    let all = reckoned(&plan);
    let of = |batch| InSeason {
        reckoned: &all,
        told: &told,
        batch,
    };
    let (nowhere, ghost) = (Batch::Tray("zz".into()), Batch::Bay(bay("attic", "t1")));
    let faults = Comparison::of(of(&nowhere), of(&ghost)).unwrap_err();
    let paths: Vec<&str> = faults.iter().map(|fault| fault.path.as_str()).collect();
    assert_eq!(paths, ["/a/tray", "/b/bay"]);
}
