//! The core's share of the table of budgets: `cargo xtask bench` reads the medians.
#![allow(missing_docs)]

use std::hint::black_box;
use std::sync::Arc;

use jiff::civil::date;
use sunrise_core::ask::{Lately, assess, assess_lately};
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::basis::plane::{Axis, Footprint};
use sunrise_core::day::detail::Detail;
use sunrise_core::light::ambient::{Ambient, Nodes};
use sunrise_core::light::beam::Beam;
use sunrise_core::light::emitter::{Emitter, Optics};
use sunrise_core::light::enclosure::{Enclosure, Faces, Fineness};
use sunrise_core::light::falloff::{Falloff, Spread, light_at};
use sunrise_core::light::fields::Fields;
use sunrise_core::placement::solver::{Instance, place};
use sunrise_core::plan::{Plan, SoundPlan};
use sunrise_core::room::{BayRef, Distribution, Face, Lamp, PhotometricType, Side};
use sunrise_core::testing::instances::crowded;
use sunrise_core::warmth::root_zone::RootZone;

// As the server has.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn main() {
    divan::main();
}

const DEMO: &str = include_str!("../../../demo/kettle-fen.json");

fn demo() -> SoundPlan {
    let plan: Plan = serde_json::from_str(DEMO).expect("it reads");
    plan.check().expect("it is without fault")
}

fn six_lamps() -> Vec<Emitter> {
    (0..6)
        .map(|i| {
            let y = 50.0 + 100.0 * f64::from(i);
            Emitter {
                x_mm: [25.0, 1175.0],
                y_mm: [y - 20.0, y + 20.0],
                z_mm: 300.0,
                flux: 57.0,
                optics: Optics::Beam(Beam::new(1.0)),
            }
        })
        .collect()
}

/// A bay of which every side reflects.
fn foil_bay() -> (Enclosure, [f64; 3]) {
    let reflectance = Faces {
        floor: 0.1,
        ceiling: 0.5,
        left: 0.9,
        right: 0.9,
        front: 0.9,
        back: 0.9,
    };
    let size_mm = [1200.0, 600.0, 400.0];
    let bay = Enclosure::new(
        size_mm,
        black_box(reflectance),
        Faces::default(),
        Fineness::Quick,
    );
    (bay, size_mm)
}

/// So many points along and across the bay.
const FIELD: (u32, u32) = (40, 20);

fn field_outline() -> Footprint {
    Footprint {
        x_mm: [0.0, 1200.0],
        y_mm: [0.0, 600.0],
    }
}

fn field_points() -> Vec<(f64, f64)> {
    field_outline().cells(FIELD.0, FIELD.1)
}

fn hung(lamps: &[Emitter], z_mm: f64) -> Vec<Emitter> {
    let at = |lamp: &Emitter| Emitter {
        z_mm,
        ..lamp.clone()
    };
    lamps.iter().map(at).collect()
}

/// 12 racks with some 240 positions, some 600 trays, 200 days.
fn large_instance() -> Instance {
    crowded(4, 12, 340, 200)
}

/// All of them placed from nothing.
#[divan::bench(sample_count = 3, sample_size = 1)]
fn place_large(bencher: divan::Bencher) {
    let instance = large_instance();
    bencher.bench(|| place(black_box(&instance), &mut |_| true).expect("it is sound"));
}

/// One tray can no longer stand where it stood.
#[divan::bench(sample_count = 5, sample_size = 1)]
fn large_again(bencher: divan::Bencher) {
    let mut instance = large_instance();
    let before = place(&instance, &mut |_| true).expect("it is sound");
    instance.keep = true;
    for tray in &mut instance.trays {
        for (stage, place) in tray.stages.iter_mut().zip(&before.assignment[&tray.id]) {
            stage.was.clone_from(place);
        }
    }
    let moved = instance.trays.iter_mut().flat_map(|tray| &mut tray.stages);
    let mut moved = moved.filter(|stage| stage.needs_light && stage.was.is_some());
    if let Some(stage) = moved.next() {
        let was = stage.was.clone().unwrap_or_default();
        stage.places.remove(&was);
    }
    bencher.bench(|| place(black_box(&instance), &mut |_| true).expect("it is sound"));
}

/// Six lamps in a bay that reflects on all sides, over 40 x 20 points at one height, from nothing.
#[divan::bench]
fn light_field(bencher: divan::Bencher) {
    let (lamps, points) = (six_lamps(), field_points());
    bencher.bench(|| {
        let lamps = black_box(&lamps);
        let (bay, size_mm) = foil_bay();
        let height = [80.0, 300.0];
        let back = Ambient::at_one_height(&bay, size_mm, height, lamps);
        let places = back.places(&field_outline(), FIELD);
        let back = back.at(&places, height[0], height[1]);
        let field = points.iter().zip(back);
        field
            .map(|(&point, back)| light_at(lamps, point, height[0]) + back)
            .sum::<f64>()
    });
}

/// The same bay and points with the lamps at 40 heights.
#[divan::bench]
fn light_sweep(bencher: divan::Bencher) {
    let (lamps, points) = (six_lamps(), field_points());
    bencher.bench(|| {
        let lamps = black_box(&lamps);
        let (bay, size_mm) = foil_bay();
        let heights = Nodes::new(110.0, 370.0, 5);
        let none = Faces::default();
        let hung = |z| hung(lamps, z);
        let mut back = Ambient::over_floors(&bay, size_mm, &heights, hung, none, &[0.1]);
        let back = back.remove(0);
        let places = back.places(&field_outline(), FIELD);
        let falloff = Falloff::new(lamps.clone(), points.clone(), 400.0);
        (0..40)
            .map(|i| {
                let height = 110.0 + 6.5 * f64::from(i);
                let mut light = falloff.at(height - 80.0);
                for (sum, back) in light.iter_mut().zip(back.at(&places, 80.0, height)) {
                    *sum += back;
                }
                Spread::of(&light).least
            })
            .sum::<f64>()
    });
}

fn one_bay() -> Detail {
    Detail::Bay(BayRef {
        place: "door".into(),
        tier: "t2".into(),
    })
}

/// The demo plan on one day, from nothing.
#[divan::bench]
fn assess_day(bencher: divan::Bencher) {
    let plan = demo();
    let day = DateSpan::day(date(2027, 4, 9));
    bencher.bench(|| assess(black_box(&plan), day, one_bay()));
}

/// The same while a lamp is dragged: every asking has it at another height.
#[divan::bench]
fn assess_drag(bencher: divan::Bencher) {
    dragged(bencher, demo(), DateSpan::day(date(2027, 4, 9)), one_bay());
}

/// A lamp of `plan` is dragged, and each time `days` are asked about.
fn dragged(bencher: divan::Bencher, plan: SoundPlan, days: DateSpan, detail: Detail) {
    let plan = plan.into_inner();
    let hung = |i: i32| {
        let mut plan = plan.clone();
        plan.places[0].tiers[1].lamps[0].height_mm = 150.0 + f64::from(i);
        plan.check().expect("it is without fault")
    };
    let hung: Vec<SoundPlan> = (0..20).map(hung).collect();
    let (fields, lately) = (Fields::default(), Lately::default());
    let mut turn = 0;
    bencher.bench_local(|| {
        turn = (turn + 1) % hung.len();
        assess_lately(&hung[turn], days, detail.clone(), &fields, &lately)
    });
}

/// The demo with foil around one bay and four lamps in it, measured or not.
fn foil_plan(measured: bool) -> SoundPlan {
    let mut plan: Plan = serde_json::from_str(DEMO).expect("it reads");
    let vertical_deg: Vec<f64> = (0..=18).map(|i| 5.0 * f64::from(i)).collect();
    let horizontal_deg: Vec<f64> = (0..=16).map(|i| 22.5 * f64::from(i)).collect();
    let cd = |h: f64, v: f64| {
        let (h, v) = (h.to_radians(), v.to_radians());
        1000.0 * v.cos().powf(1.3) * (1.0 + 0.3 * v.sin() * (2.0 * h).cos())
    };
    let column = |&h: &f64| vertical_deg.iter().map(|&v| cd(h, v)).collect();
    let data = Distribution {
        kind: PhotometricType::C,
        candela: horizontal_deg.iter().map(column).collect(),
        vertical_deg,
        horizontal_deg,
    };
    let data = measured.then(|| Arc::new(data));
    let depth_mm = plan.places[0].depth_mm;
    let tier = &mut plan.places[0].tiers[1];
    let like = tier.lamps[0].clone();
    tier.lamps = (0..4)
        .map(|i| Lamp {
            id: format!("l{i}"),
            y_mm: depth_mm * (f64::from(i) + 0.5) / 4.0,
            emitters: vec![Face {
                across_mm: 0.0,
                ..like.emitters[0].clone()
            }],
            distribution: data.clone(),
            ..like.clone()
        })
        .collect();
    let sides = &mut tier.sides;
    for side in [
        &mut sides.left,
        &mut sides.right,
        &mut sides.back,
        &mut sides.front,
        &mut sides.top,
    ] {
        *side = Side::Foil;
    }
    plan.check().expect("it is without fault")
}

fn foil_day(bencher: divan::Bencher, measured: bool) {
    let (plan, day) = (foil_plan(measured), DateSpan::day(date(2027, 4, 9)));
    bencher.bench(|| assess(black_box(&plan), day, one_bay()));
}

/// One day with four lamps of measured distribution in a foil bay, from nothing.
#[divan::bench]
fn measured_bay(bencher: divan::Bencher) {
    foil_day(bencher, true);
}

/// The same with lamps that are told by their beam.
#[divan::bench]
fn plain_bay(bencher: divan::Bencher) {
    foil_day(bencher, false);
}

/// The demo plan on each day of its season.
#[divan::bench]
fn assess_season(bencher: divan::Bencher) {
    let plan = demo();
    bencher.bench(|| assess(black_box(&plan), plan.season, Detail::Days));
}

/// The same again and again, each time with a lamp that hangs otherwise.
#[divan::bench]
fn assess_season_again(bencher: divan::Bencher) {
    let plan = demo();
    let season = plan.season;
    dragged(bencher, plan, season, Detail::Days);
}

/// The demo's first rack twelve times, with fifty trays on each.
fn large_plan() -> SoundPlan {
    let mut plan: Plan = serde_json::from_str(DEMO).expect("it reads");
    plan.season = DateSpan {
        from: date(2027, 1, 1),
        to: date(2027, 7, 19),
    };
    (plan.room.width_mm, plan.room.depth_mm) = (20_000.0, 6000.0);
    let (rack, tray) = (plan.places[0].clone(), plan.trays[0].clone());
    let sowings = ["onion", "pepper", "tomato", "cabbage", "lettuce"];
    plan.places = (0..12)
        .map(|i| {
            let mut copy = rack.clone();
            (copy.id, copy.name) = (format!("r{i}"), format!("Rack {i}"));
            if let Some(spot) = &mut copy.spot {
                spot.x_mm = 1300.0 * f64::from(i);
            }
            copy.tiers[4].storage = false;
            copy.tiers[4].lamps.clear();
            copy
        })
        .collect();
    let all = (0..12).flat_map(|rack| (0..5).map(move |tier| (rack, tier)));
    let all = all.flat_map(|(rack, tier)| (0..10).map(move |x| (rack, tier, x)));
    plan.trays = all
        .map(|(rack, tier, x)| {
            let mut copy = tray.clone();
            copy.id = format!("{rack}-{tier}-{x}");
            copy.name = format!("T{tier}{x}");
            copy.parts.truncate(1);
            copy.parts[0].sowing = sowings[(tier + x) % sowings.len()].into();
            copy.stands.truncate(1);
            let stand = &mut copy.stands[0];
            stand.bay = BayRef {
                place: format!("r{rack}"),
                tier: format!("t{}", tier + 1),
            };
            (stand.x_mm, stand.y_mm) = (40.0 + 97.0 * x as f64, 35.0);
            stand.along = Axis::Y;
            copy
        })
        .collect();
    plan.check().expect("it is without fault")
}

/// 600 trays on each of 200 days.
#[divan::bench(sample_count = 5, sample_size = 1)]
fn large_season(bencher: divan::Bencher) {
    let plan = large_plan();
    bencher.bench(|| assess(black_box(&plan), plan.season, Detail::Days));
}

/// One day of it again and again, each time with a lamp that hangs otherwise.
#[divan::bench(sample_count = 10, sample_size = 1)]
fn large_day(bencher: divan::Bencher) {
    dragged(
        bencher,
        large_plan(),
        DateSpan::day(date(2027, 4, 9)),
        large_bay(),
    );
}

/// The days of it, one after the other, of one plan.
#[divan::bench(sample_count = 10, sample_size = 1)]
fn large_scrub(bencher: divan::Bencher) {
    let (plan, fields, lately) = (large_plan(), Fields::default(), Lately::default());
    let days: Vec<_> = plan.season.days().skip(60).map(DateSpan::day).collect();
    let mut turn = 0;
    bencher.bench_local(|| {
        turn = (turn + 1) % days.len();
        assess_lately(&plan, days[turn], large_bay(), &fields, &lately)
    });
}

/// The bay of which a lamp is dragged.
fn large_bay() -> Detail {
    Detail::Bay(BayRef {
        place: "r0".into(),
        tier: "t2".into(),
    })
}

/// The root zones of 60 trays by the hour over 120 days: each germinates under a dome on a mat of
/// its own, and then grows in more light every fortnight. A day like the last is not reckoned anew.
#[divan::bench]
fn warmth_season(bencher: divan::Bencher) {
    let set_up = |tray: i32, step: i32| -> RootZone {
        let germinates = step == 0;
        let mut question = serde_json::json!({
            "air": {"day_c": 18, "night_c": 15, "humidity": 0.45},
            "tray": {"length_mm": 540, "width_mm": 280, "free_sides": f64::from(tray % 5) / 5.0},
            "mix": {"depth_mm": 50 + tray % 7, "wetness": 0.4},
            "dome": germinates,
        });
        if germinates {
            question["mat"] = serde_json::json!({
                "watts": 18, "length_mm": 510, "width_mm": 240, "cover": 0.5 + f64::from(tray) / 120.0
            });
            question["thermostat"] = serde_json::json!({"set_c": 22 + tray % 5});
        } else {
            question["light"] =
                serde_json::json!({"ppfd": 100 + 25 * step, "from_h": 6, "hours": 16});
        }
        serde_json::from_value(question).expect("it reads")
    };
    let set_ups: Vec<Vec<RootZone>> = (0..60)
        .map(|tray| (0..9).map(|step| set_up(tray, step)).collect())
        .collect();
    bencher.bench(|| {
        let mut sum = 0.0;
        for steps in black_box(&set_ups) {
            let mut known: Option<(usize, Vec<f64>)> = None;
            for day in 0..120 {
                let step = usize::div_ceil(day, 14);
                if known.as_ref().is_none_or(|(at, _)| *at != step) {
                    let day = steps[step.min(8)].day().expect("it is without fault");
                    known = Some((step, day.root_zone_c().to_vec()));
                }
                sum += known
                    .as_ref()
                    .map_or(0.0, |(_, hours)| hours.iter().sum::<f64>());
            }
        }
        sum
    });
}
