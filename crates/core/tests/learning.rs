//! What is learned from noisy readings: known figures come back inside the interval that is stated.

use std::sync::Arc;

use jiff::civil::{Date, date};
use sunrise_core::ask;
use sunrise_core::basis::dates::plus_days;
use sunrise_core::basis::units::Quantity;
use sunrise_core::day::detail::Detail;
use sunrise_core::day::view::Looker;
use sunrise_core::learning::estimate::{Estimate, outliers};
use sunrise_core::learning::handed_on::HandedOf;
use sunrise_core::learning::lesson::{Lesson, LessonKind};
use sunrise_core::learning::lessons;
use sunrise_core::learning::packets::DUD_CELLS;
use sunrise_core::light::fields::Fields;
use sunrise_core::log::detail::{About, DeckSpot, Loss, Measurement};
use sunrise_core::log::entry::Entry;
use sunrise_core::log::fact::Fact;
use sunrise_core::log::told::Told;
use sunrise_core::plan::patch::patched;
use sunrise_core::plan::{Plan, SoundPlan};
use sunrise_core::readings::lux_meter::{Probe, probe};
use sunrise_core::season::how_many::sown_per_cell;
use sunrise_core::testing::{bay, dates_of, kettle_fen, noted, reckoned, sowing, tier};

/// Chance that comes again with its seed.
struct Chance(fastrand::Rng);

impl Chance {
    fn of(seed: usize) -> Self {
        Self(fastrand::Rng::with_seed(seed as u64))
    }

    /// A draw from a normal distribution around 0 (G. E. P. Box and M. E. Muller, 1958).
    fn normal(&mut self, sd: f64) -> f64 {
        let (u, v) = (1.0 - self.0.f64(), self.0.f64());
        sd * (-2.0 * u.ln()).sqrt() * (std::f64::consts::TAU * v).cos()
    }

    /// How many of `n` a chance of `p` hits.
    fn hits(&mut self, n: u32, p: f64) -> u32 {
        (0..n).filter(|_| self.0.f64() < p).count() as u32
    }
}

const RUNS: usize = 100;
/// So many of them at least hold the truth.
const HELD: usize = 90;

/// The lesson of `kind` about what `id` ends in.
fn lesson(plan: &SoundPlan, entries: Vec<Entry>, id: &str) -> Lesson {
    let told = Told::of(entries);
    let plan = plan.clone().after(Arc::new(told.happened()));
    let all = lessons(&reckoned(&plan), &told, &[]);
    let mut own = all.into_iter().filter(|lesson| lesson.id == id);
    own.next().unwrap_or_else(|| panic!("no lesson {id}"))
}

/// In how many of the runs `entries` lead to an interval that holds `truth`.
fn held(
    plan: &SoundPlan,
    id: &str,
    truth: f64,
    entries: impl Fn(&mut Chance) -> Vec<Entry>,
) -> usize {
    let runs = (0..RUNS).filter(|&seed| {
        let lesson = lesson(plan, entries(&mut Chance::of(seed)), id);
        let learned = lesson.learned.expect("there are readings");
        (learned.low..=learned.high).contains(&truth)
    });
    runs.count()
}

fn measured(on: Date, about: About, reading: Measurement) -> Entry {
    noted(on, Fact::Measured { about, reading })
}

const DAY: Date = date(2027, 4, 5);

/// Spots of the deck under the door rack's second tier, each with the lux reckoned there.
fn spots(plan: &SoundPlan) -> Vec<(DeckSpot, f64)> {
    let reckoned = reckoned(plan);
    let spots = [150.0, 350.0, 550.0, 750.0, 950.0, 1100.0].map(|x_mm| DeckSpot {
        bay: bay("door", "t2"),
        x_mm,
        y_mm: 230.0,
    });
    let each = spots.into_iter().map(|spot| {
        let asked = Probe {
            bay: spot.bay.clone(),
            date: DAY,
            x_mm: spot.x_mm,
            y_mm: spot.y_mm,
            lux: None,
        };
        let lux = probe(&reckoned, &asked).expect("it is on the deck").lux;
        (spot, lux)
    });
    each.collect()
}

fn lux(spot: &DeckSpot, lux: f64) -> Entry {
    measured(DAY, About::Spot(spot.clone()), Measurement::Lux(lux))
}

#[test]
fn readings_of_light_bring_back_the_lamps() {
    let plan = kettle_fen(|_| ());
    let (spots, truth) = (spots(&plan), 0.74);
    let readings = |chance: &mut Chance| {
        let each = spots.iter().map(|(spot, expected)| {
            let off = chance.normal(0.12).exp();
            lux(spot, expected * truth * off)
        });
        each.collect()
    };
    assert!(held(&plan, "lamps/door/t2", truth, readings) >= HELD);
}

#[test]
fn thermometers_in_the_mix_bring_back_the_mat() {
    // Sown on a day that nothing moves, over a mat that is weaker than its label.
    let fixed = |watts: f64| {
        kettle_fen(|plan| {
            sowing(plan, "pepper").sow_on = Some(date(2027, 2, 20));
            tier(plan, "door", "t3").mats[0].watts = watts;
        })
    };
    let (label, truth) = (100.0, 0.6);
    let (plan, weak) = (fixed(label), fixed(label * truth));
    let weak_reckoned = reckoned(&weak);
    let place = weak
        .places
        .iter()
        .position(|place| place.id == "door")
        .unwrap();
    let trays: Vec<&str> = plan
        .sown_in("pepper")
        .map(|tray| tray.id.as_str())
        .collect();
    let days = [3, 4, 5].map(|n| date(2027, 2, 20 + n));
    let mut expected = Vec::new();
    for day in days {
        let views = Looker::new(&weak_reckoned, Detail::Outline).look(place, day);
        let roots = views.iter().flat_map(|view| view.computed.roots());
        for roots in roots.filter(|roots| trays.contains(&roots.tray.as_str())) {
            assert!(roots.mat.is_some());
            expected.push((day, roots.tray.clone(), roots.day.mean_c));
        }
    }
    assert!(expected.len() >= 6, "{expected:?}");
    let readings = |chance: &mut Chance| {
        let each = expected.iter().map(|(day, tray, c)| {
            let c = c + chance.normal(0.8);
            measured(*day, About::Tray(tray.clone()), Measurement::SoilC(c))
        });
        each.collect()
    };
    assert!(held(&plan, "mat/door/t3/m1", truth, readings) >= HELD);
}

#[test]
fn counts_bring_back_the_packet() {
    let plan = kettle_fen(|_| ());
    let all = reckoned(&plan);
    for (id, packet, truth) in [
        ("cabbage", "cabbage-26", 0.68),
        ("celery", "celery-24", 0.55),
    ] {
        let dates = dates_of(&all, id);
        let own = &plan.sowings[plan.sowing_index(id)];
        let each = sown_per_cell(&plan, own, dates).expect("it is sown in cells");
        let chance_of = 1.0 - (1.0 - truth * dates.comes_up).powi(each as i32);
        let late = plus_days(dates.last.expect("it comes up"), 8);
        let counts = |chance: &mut Chance| {
            // Some cells dry or are missed, as often as the model has it.
            let (mut drawn, mut duds) = (chance.0.f64(), 0.0);
            for (share, likely) in DUD_CELLS {
                if drawn >= 0.0 {
                    duds = share;
                }
                drawn -= likely;
            }
            let chance_of = chance_of * (1.0 - duds);
            let trays = plan.sown_in(id).map(|tray| {
                let of = plan.cells_in(tray, id);
                let shown = Fact::Shown {
                    tray: tray.id.clone(),
                    sowing: None,
                    count: chance.hits(of, chance_of),
                    of,
                };
                noted(late, shown)
            });
            trays.collect()
        };
        let held = held(&plan, &format!("packet/{packet}"), truth, counts);
        assert!(held >= HELD, "{id}: {held}");
    }
}

#[test]
fn rulers_bring_back_growth_and_thermometers_the_corner() {
    let plan = kettle_fen(|_| ());
    let all = reckoned(&plan);
    let days: Vec<Date> = (0..6).map(|n| plus_days(date(2027, 4, 1), 2 * n)).collect();
    let tray = plan.sown_in("cabbage").next().expect("a tray");
    let grown = &all.growing.of_tray(&plan, tray)[0];
    let about = || About::Tray(tray.id.clone());
    let heights = |chance: &mut Chance| {
        let each = days.iter().map(|&day| {
            let mm = grown.on(day).expect("it is up").height_mm;
            let mm = mm * 1.3 * chance.normal(0.15).exp();
            measured(day, about(), Measurement::HeightMm(mm))
        });
        each.collect()
    };
    assert!(held(&plan, "height/cabbage", 1.3, heights) >= HELD);
    let (air, here) = (&plan.site.air, || About::Bay(bay("coat", "t1")));
    let readings = |chance: &mut Chance| {
        let each = days.iter().map(|&day| {
            let c = air.night_c - 3.0 + chance.normal(0.8);
            Entry {
                at_h: Some(3.0),
                ..measured(day, here(), Measurement::AirC(c))
            }
        });
        each.collect()
    };
    assert!(held(&plan, "air_night_k/coat", -3.0, readings) >= HELD);
}

#[test]
fn days_of_showing_bring_back_how_fast_a_crop_comes_up() {
    let plan = kettle_fen(|_| ());
    let all = reckoned(&plan);
    let dates = dates_of(&all, "onion");
    let days = dates.emergence_days.expect("it comes up");
    let truth = 0.75;
    let counts = |chance: &mut Chance| {
        let mut entries = Vec::new();
        for tray in plan.sown_in("onion") {
            entries.push(noted(
                dates.sow,
                Fact::Sown {
                    tray: tray.id.clone(),
                },
            ));
            let half = days / truth * chance.normal(0.12).exp();
            for day in 1..=30 {
                let up = 1.0 / (1.0 + (-(f64::from(day) - half) / (0.1 * half)).exp());
                let shown = Fact::Shown {
                    tray: tray.id.clone(),
                    sowing: None,
                    count: (60.0 * up).round() as u32,
                    of: 72,
                };
                entries.push(noted(plus_days(dates.sow, day), shown));
            }
        }
        entries
    };
    assert!(held(&plan, "comes_up/onion", truth, counts) >= HELD);
}

#[test]
fn a_correction_is_one_patch_after_which_nothing_is_left_to_correct() {
    let plan = kettle_fen(|_| ());
    let entries = || {
        spots(&plan)
            .iter()
            .map(|(spot, own)| lux(spot, 0.7 * own))
            .collect::<Vec<_>>()
    };
    let found = lesson(&plan, entries(), "lamps/door/t2");
    assert_eq!(
        (found.kind, found.quantity),
        (LessonKind::Lamps, Quantity::Share)
    );
    assert!(
        found.verdict.to_string().contains("70%"),
        "{}",
        found.verdict
    );
    let fix = found.fix.expect("a correction");
    let corrected = patched(&plan, &fix.patch).unwrap().check().unwrap();
    let lamps = &corrected.place("door").unwrap().tiers[1].lamps;
    assert!(
        lamps
            .iter()
            .all(|lamp| (lamp.measured.unwrap().value - 0.7).abs() < 0.01)
    );
    let again = lesson(&corrected, entries(), "lamps/door/t2");
    assert_eq!(again.fix, None, "{}", again.verdict);
    assert!((again.now - 0.7).abs() < 0.01);
    // What agrees corrects nothing, and one reading alone is not sure enough for a fifth.
    let fine = spots(&plan)
        .iter()
        .map(|(spot, own)| lux(spot, 0.98 * own))
        .collect();
    assert_eq!(lesson(&plan, fine, "lamps/door/t2").fix, None);
    let (spot, own) = spots(&plan).remove(2);
    let one = lesson(&plan, vec![lux(&spot, 0.82 * own)], "lamps/door/t2");
    assert!(one.fix.is_none() && one.verdict.to_string().contains("may be anything"));
}

#[test]
fn a_wild_reading_is_named_and_left_out_and_can_be_put_in() {
    let plan = kettle_fen(|_| ());
    let spots = spots(&plan);
    let mut entries: Vec<Entry> = spots
        .iter()
        .map(|(spot, own)| lux(spot, 0.9 * own))
        .collect();
    entries[3] = lux(&spots[3].0, 0.2 * spots[3].1);
    let wild = entries[3].id.clone();
    let told = Told::of(entries);
    let with = |put_in: &[String]| {
        let all = lessons(&reckoned(&plan), &told, put_in);
        let lesson = all.into_iter().find(|l| l.id == "lamps/door/t2").unwrap();
        let own = lesson
            .readings
            .iter()
            .find(|r| r.entry == wild)
            .unwrap()
            .clone();
        (lesson, own)
    };
    let (without, own) = with(&[]);
    assert!(own.can_be_put_in && own.left_out.is_some());
    assert!((without.learned.unwrap().value - 0.9).abs() < 0.01);
    let (within, own) = with(std::slice::from_ref(&wild));
    assert!(own.can_be_put_in && own.left_out.is_none());
    let (a, b) = (without.learned.unwrap(), within.learned.unwrap());
    assert!(b.value < a.value && b.high - b.low > a.high - a.low && b.readings == 6);
}

#[test]
fn readings_of_something_else_are_left_out_with_the_reason() {
    let plan = kettle_fen(|_| ());
    let (spot, own) = spots(&plan).remove(0);
    let why = |entries: Vec<Entry>, id: &str| {
        let lesson = lesson(&plan, entries, id);
        assert_eq!(lesson.fix, None);
        let why = lesson.readings[0].left_out.clone();
        why.expect("it does not count").to_string()
    };
    let night = Entry {
        at_h: Some(2.0),
        ..lux(&spot, own)
    };
    assert!(why(vec![night], "lamps/door/t2").contains("off at that hour"));
    // Hung otherwise since, and nobody noted how before.
    let set = Fact::LampSet {
        bay: bay("door", "t2"),
        height_mm: 300.0,
        hours_h: 15.0,
        from_h: None,
        lift_mm: None,
        brightness: None,
    };
    let since = vec![lux(&spot, own), noted(plus_days(DAY, 1), set.clone())];
    assert!(why(since, "lamps/door/t2").contains("set otherwise since"));
    // Where both are noted, the lamps hang as they did then.
    let known = vec![
        noted(plus_days(DAY, -1), set.clone()),
        lux(&spot, own),
        noted(plus_days(DAY, 1), set),
    ];
    let known = lesson(&plan, known, "lamps/door/t2");
    assert_eq!(known.readings[0].left_out, None);
    let closed = measured(
        DAY,
        About::Bay(bay("cabinet", "t2")),
        Measurement::AirC(26.0),
    );
    assert!(why(vec![closed], "air_day_k/cabinet").contains("closed in"));
    let mixed = measured(DAY, About::Tray("lx1".into()), Measurement::HeightMm(60.0));
    assert!(why(vec![mixed], "height/lettuce").contains("several kinds"));
}

#[test]
fn an_estimate_is_as_sure_as_its_readings() {
    // Student's t at 97.5 %: 4, 7 and 30 degrees of freedom, from any table.
    for (freedom, table) in [(4.0, 2.776), (7.0, 2.365), (30.0, 2.042)] {
        let t = sunrise_core::learning::estimate::t_975(freedom);
        assert!((t - table).abs() < 0.0006, "{freedom}: {t}");
    }
    let of = |values: &[f64]| Estimate::of_mean(values, 0.1).unwrap();
    let (one, six) = (of(&[0.0]), of(&[0.05, -0.05, 0.1, -0.1, 0.02, -0.02]));
    assert!(one.high - one.low > 2.0 * (six.high - six.low) && six.holds(0.0));
    assert_eq!(Estimate::of_mean(&[], 0.1), None);
    // A grid that ends before the readings do tells nothing.
    let nodes: Vec<f64> = (0..=100).map(|i| f64::from(i) / 100.0).collect();
    let misfit = |at: f64| move |x: f64| vec![x - at; 5];
    assert!(
        Estimate::on_grid(&nodes, misfit(0.5), 0.05)
            .unwrap()
            .holds(0.5)
    );
    assert_eq!(Estimate::on_grid(&nodes, misfit(1.4), 0.05), None);
    assert_eq!(
        outliers(&[1.0, 1.1, 0.9, 4.0], 0.1),
        [false, false, false, true]
    );
    assert_eq!(outliers(&[1.0, 9.0], 0.1), [false, false]);
}

#[test]
fn the_next_year_takes_over_what_it_is_told_to_and_leaves_the_rest() {
    let plan = kettle_fen(|plan| {
        plan.sowings
            .iter_mut()
            .for_each(|own| own.spare = Some(0.2))
    });
    let lights: Vec<Entry> = spots(&plan)
        .iter()
        .map(|(spot, own)| lux(spot, 0.7 * own))
        .collect();
    let fix = lesson(&plan, lights, "lamps/door/t2")
        .fix
        .expect("a correction");
    let plan = patched(&plan, &fix.patch).unwrap().check().unwrap();
    let dates = dates_of(&reckoned(&plan), "cabbage").clone();
    let trays: Vec<String> = plan
        .sown_in("cabbage")
        .map(|tray| tray.id.clone())
        .collect();
    let mut entries = Vec::new();
    for tray in &trays {
        let tray = || tray.clone();
        let (plants, why) = (30, Loss::Pests);
        entries.push(noted(plus_days(dates.sow, 9), Fact::Sown { tray: tray() }));
        entries.push(noted(
            plus_days(dates.sow, 40),
            Fact::Lost {
                tray: tray(),
                plants,
                why,
            },
        ));
    }
    for tray in plan.sown_in("lettuce") {
        let (tray, left) = (tray.id.clone(), 50);
        entries.push(noted(
            date(2027, 4, 20),
            Fact::Thinned {
                tray: tray.clone(),
                left,
            },
        ));
        entries.push(noted(
            date(2027, 5, 20),
            Fact::PlantedOut { tray, plants: 50 },
        ));
    }
    let after = plan.clone().after(Arc::new(Told::of(entries).happened()));
    let handed = ask::handed_on(&after, &Fields::default());
    let own = |id: &str| {
        let mut all = handed.iter();
        all.find(|own| own.id == id)
            .unwrap_or_else(|| panic!("{id}: {handed:#?}"))
    };
    assert_eq!(
        (own("lamps/door/t2").of, own("lamps/door/t2").taken),
        (HandedOf::Correction, true)
    );
    assert_eq!(
        (own("late/cabbage").of, own("late/cabbage").taken),
        (HandedOf::Late, false)
    );
    assert!(
        own("late/cabbage")
            .words
            .to_string()
            .contains("9 days later")
    );
    assert_eq!(own("lost/cabbage").of, HandedOf::Lost);
    assert_eq!(own("too_much/lettuce").of, HandedOf::TooMuch);
    assert!(own("seeds/cabbage-26").takes.to_string().contains("left"));
    let next = |takes: Option<&[String]>| ask::next_year(&after, takes, &Fields::default());
    let of = |plan: &Plan, id: &str| {
        plan.sowings
            .iter()
            .find(|own| own.id == id)
            .unwrap()
            .clone()
    };
    let measured = |plan: &Plan| plan.places[0].tiers[1].lamps[0].measured.is_some();
    let seeds = |plan: &Plan| {
        plan.packets
            .iter()
            .find(|own| own.id == "cabbage-26")
            .unwrap()
            .seeds
    };
    // As it usually is: all but what is late.
    let usual = next(None);
    assert!(measured(&usual) && usual.clone().check().is_ok());
    assert!(of(&usual, "cabbage").spare > Some(0.2) && of(&usual, "lettuce").spare.is_none());
    assert_eq!(
        of(&usual, "cabbage").shift_days,
        of(&plan, "cabbage").shift_days
    );
    assert!(seeds(&usual) < seeds(&plan));
    // Nothing at all: the plan a year later, its corrections gone.
    let bare = next(Some(&[]));
    assert!(!measured(&bare));
    assert_eq!(
        (of(&bare, "cabbage").spare, seeds(&bare)),
        (Some(0.2), seeds(&plan))
    );
    // Only that it is sown later.
    let late = next(Some(&["late/cabbage".to_owned()]));
    assert_eq!(
        of(&late, "cabbage").shift_days,
        of(&plan, "cabbage").shift_days + 9
    );
}

#[test]
fn a_reading_is_explained_while_it_is_typed_and_a_lesson_says_what_it_changes() {
    let plan = kettle_fen(|plan| sowing(plan, "pepper").root_zone_c = None);
    let (told, fields) = (Told::default(), Fields::default());
    let season = ask::SeasonTold {
        plan: &plan,
        told: &told,
    };
    let typed = |entry: &Entry| ask::meaning(season, entry, &fields);
    let sow = dates_of(&reckoned(&plan), "pepper").sow;
    let soil = measured(
        plus_days(sow, 2),
        About::Tray("pe1".into()),
        Measurement::SoilC(19.0),
    );
    let means = typed(&soil).expect("it is a reading");
    assert!(
        means
            .now
            .unwrap()
            .to_string()
            .starts_with("At 19 °C half of")
    );
    assert!(
        means
            .against
            .unwrap()
            .to_string()
            .contains("you measured 19 °C")
    );
    assert_eq!(means.lesson.unwrap().kind, LessonKind::Mat);
    let (spot, own) = spots(&plan).remove(0);
    let light = typed(&lux(&spot, 0.5 * own)).unwrap();
    assert!(
        light
            .now
            .unwrap()
            .to_string()
            .contains("mol/m²/d in the 15 h")
    );
    assert_eq!(typed(&noted(DAY, Fact::Sown { tray: "to1".into() })), None);
    let kg = measured(DAY, About::Room, Measurement::MassKg(2.0));
    let nothing = typed(&kg).unwrap();
    assert!(nothing.now.is_none() && nothing.against.is_none() && nothing.lesson.is_none());
    // A weaker mat comes up later: the days that move are named before anything is kept.
    let entries: Vec<Entry> = [2, 3, 4, 5]
        .into_iter()
        .flat_map(|n| {
            ["pe1", "pe2"].map(|tray| {
                measured(
                    plus_days(sow, n),
                    About::Tray(tray.into()),
                    Measurement::SoilC(20.0),
                )
            })
        })
        .collect();
    let told = Told::of(entries);
    let season = ask::SeasonTold {
        plan: &plan,
        told: &told,
    };
    let effect = |id: &str| ask::lesson_effect(season, id, &[], DAY, &fields).unwrap();
    let changes = effect("mat/door/t3/m1").expect("a correction");
    assert!(
        changes
            .moved
            .iter()
            .any(|day| day.name.contains("epper") && day.from != day.to),
        "{changes:?}"
    );
    assert_eq!(effect("mat/nowhere"), None);
}

#[test]
fn seed_of_which_nothing_comes_up_is_taken_as_dead_and_the_plan_stays_sound() {
    let plan = kettle_fen(|_| ());
    let late = plus_days(dates_of(&reckoned(&plan), "cabbage").last.unwrap(), 9);
    let counts = plan.sown_in("cabbage").map(|tray| {
        let (tray, sowing, count, of) = (tray.id.clone(), None, 0, 50);
        let shown = Fact::Shown {
            tray,
            sowing,
            count,
            of,
        };
        noted(late, shown)
    });
    let found = lesson(&plan, counts.collect(), "packet/cabbage-26");
    assert!(found.learned.unwrap().high < 0.2, "{found:?}");
    let fix = found.fix.expect("a correction");
    let corrected = patched(&plan, &fix.patch).unwrap().check().unwrap();
    let packet = corrected.packets.iter().find(|own| own.id == "cabbage-26");
    assert!(packet.unwrap().counted.unwrap().value < 0.2);
}
