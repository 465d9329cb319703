//! The core's share of the table of budgets: `cargo xtask bench` reads the medians.
#![allow(missing_docs)]

use std::hint::black_box;

use jiff::civil::date;
use sunrise_core::assess;
use sunrise_core::bays::Detail;
use sunrise_core::light::emitter::Emitter;
use sunrise_core::light::falloff::light_at;
use sunrise_core::plan::{DateSpan, Plan, SoundPlan};
use sunrise_core::room::BayRef;

fn main() {
    divan::main();
}

fn demo() -> SoundPlan {
    let plan: Plan =
        serde_json::from_str(include_str!("../../../demo/kettle-fen.json")).expect("it reads");
    plan.check().expect("it is without fault")
}

/// Six lamps over 40 x 20 points, direct light.
#[divan::bench]
fn light_field(bencher: divan::Bencher) {
    let lamps: Vec<Emitter> = (0..6)
        .map(|i| {
            let y = 50.0 + 100.0 * f64::from(i);
            Emitter {
                x_mm: [25.0, 1175.0],
                y_mm: [y - 20.0, y + 20.0],
                z_mm: 300.0,
                flux: 57.0,
                beam_exponent: 1.0,
            }
        })
        .collect();
    let points: Vec<(f64, f64)> = (0..800)
        .map(|i| {
            (
                15.0 + 30.0 * f64::from(i % 40),
                15.0 + 30.0 * f64::from(i / 40),
            )
        })
        .collect();
    bencher.bench(|| {
        points
            .iter()
            .map(|&point| light_at(black_box(&lamps), point, 80.0))
            .sum::<f64>()
    });
}

/// The demo plan on one day: what a drag asks for.
#[divan::bench]
fn assess_day(bencher: divan::Bencher) {
    let plan = demo();
    let detail = Detail::Bay(BayRef {
        place: "door".into(),
        tier: "t2".into(),
    });
    bencher.bench(|| {
        assess(
            black_box(&plan),
            DateSpan::day(date(2027, 4, 9)),
            detail.clone(),
        )
    });
}

/// The demo plan on each day of its season.
#[divan::bench]
fn assess_season(bencher: divan::Bencher) {
    let plan = demo();
    bencher.bench(|| assess(black_box(&plan), plan.season, Detail::Outline));
}
