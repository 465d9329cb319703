//! Causes of what is seen: each comes first in one set-up and not in another, and a tray's own log tells which.

use std::collections::BTreeSet;
use std::sync::Arc;

use sunrise_core::basis::dates::plus_days;
use sunrise_core::crops::GerminatesIn;
use sunrise_core::diagnosis::cause::{Cause, Speaks};
use sunrise_core::diagnosis::signs::Signs;
use sunrise_core::diagnosis::symptom::Symptom;
use sunrise_core::diagnosis::{causes, diagnose};
use sunrise_core::log::detail::{About, Measurement};
use sunrise_core::log::entry::Entry;
use sunrise_core::log::fact::Fact;
use sunrise_core::log::told::Told;
use sunrise_core::plan::SoundPlan;
use sunrise_core::testing::{dates_of, kettle_fen, noted, reckoned};

type Change = fn(&mut Signs);

/// For each cause, what makes a tray that does well suffer from it most.
const SET_UPS: [(Symptom, &str, Change); 48] = [
    (Symptom::Leggy, "too_dim", |s| s.dli = Some(6.0)),
    (Symptom::Leggy, "left_in_the_dark", |s| s.dark_days = 4.0),
    (Symptom::Leggy, "too_warm", |s| s.air_c = 26.0),
    (Symptom::Leggy, "crowded", |s| s.crowding = Some(1.7)),
    (Symptom::Leggy, "light_from_one_side", |s| {
        s.window_only = true
    }),
    (Symptom::Pale, "hungry", |s| s.unfed_days = Some(25.0)),
    (Symptom::Pale, "kept_too_wet", |s| {
        s.watered_over = Some(2.5)
    }),
    (Symptom::Pale, "cold_mix", |s| s.mix_c = 9.0),
    (Symptom::Pale, "bleached", |s| {
        s.dli = Some(34.0);
        s.gap_mm = Some(60.0);
    }),
    (Symptom::Pale, "starved_of_light", |s| s.dli = Some(3.0)),
    (Symptom::Purple, "cold_roots", |s| s.mix_c = 10.0),
    (Symptom::Purple, "hungry_for_phosphorus", |s| {
        s.unfed_days = Some(28.0)
    }),
    (Symptom::Purple, "drowned_roots", |s| {
        s.watered_over = Some(2.6)
    }),
    (Symptom::Purple, "strong_light", |s| {
        s.dli = Some(32.0);
        (s.air_c, s.mix_c) = (15.5, 17.0);
    }),
    (Symptom::BurntTips, "lamps_too_close", |s| {
        s.gap_mm = Some(25.0)
    }),
    (Symptom::BurntTips, "fed_too_strongly", |s| {
        s.strongest_feed = Some(1.0);
        s.feeds = 4;
    }),
    (Symptom::BurntTips, "dried_out", |s| {
        s.watered_days = Some(7.0)
    }),
    (Symptom::BurntTips, "dry_air", |s| s.humidity = 0.22),
    (Symptom::BurntTips, "sun_scorch", |s| s.outdoor_days = 1),
    (Symptom::Collapsed, "damping_off", |s| {
        (s.humidity, s.air_m_s) = (0.92, 0.0);
        s.domed_days = 4.0;
    }),
    (Symptom::Collapsed, "frosted", |s| s.coldest_c = -2.0),
    (Symptom::Collapsed, "overheated", |s| s.warmest_c = 41.0),
    (Symptom::Collapsed, "dried_up", |s| {
        s.watered_days = Some(9.0)
    }),
    (Symptom::Collapsed, "too_long_to_stand", |s| {
        s.dli = Some(2.0)
    }),
    (Symptom::Mould, "dome_too_long", |s| s.domed_days = 6.0),
    (Symptom::Mould, "damp_still_air", |s| {
        (s.humidity, s.air_m_s) = (0.9, 0.0)
    }),
    (Symptom::Mould, "top_never_dries", |s| {
        s.watered_over = Some(2.2)
    }),
    (Symptom::Mould, "fuzz_of_the_mix", |_| ()),
    (Symptom::Flies, "kept_wet", |s| s.watered_over = Some(2.2)),
    (Symptom::Flies, "slow_to_dry", |s| s.lasts_days = Some(12.0)),
    (Symptom::Flies, "warm_breeding", |s| s.mix_c = 27.0),
    (Symptom::Flies, "came_with_the_mix", |_| ()),
    (Symptom::WiltingWet, "drowned", |s| {
        s.watered_over = Some(2.5)
    }),
    (Symptom::WiltingWet, "too_cold_to_drink", |s| s.mix_c = 8.0),
    (Symptom::WiltingWet, "salted", |s| {
        s.strongest_feed = Some(1.2)
    }),
    (Symptom::WiltingWet, "heat_of_the_day", |s| {
        s.warmest_c = 37.0
    }),
    (Symptom::WiltingWet, "stem_rot", |s| {
        (s.humidity, s.air_m_s) = (0.93, 0.0)
    }),
    (Symptom::NothingUp, "not_due_yet", |s| {
        s.first_in_days = Some(3.0);
        s.overdue_days = None;
    }),
    (Symptom::NothingUp, "too_cold_to_sprout", |s| {
        (s.mix_c, s.comes_up) = (11.0, 0.3)
    }),
    (Symptom::NothingUp, "too_hot_to_sprout", |s| {
        (s.mix_c, s.comes_up) = (33.0, 0.2)
    }),
    (Symptom::NothingUp, "dead_seed", |s| {
        (s.mix_c, s.alive) = (23.0, 0.1)
    }),
    (Symptom::NothingUp, "dried_while_sprouting", |s| {
        s.mix_c = 23.0;
        s.watered_days = Some(8.0);
    }),
    (Symptom::NothingUp, "wants_light", |s| {
        s.mix_c = 23.0;
        s.germinates_in = GerminatesIn::Light;
    }),
    (Symptom::NothingUp, "sown_too_deep", |s| s.mix_c = 23.0),
    (Symptom::Uneven, "mat_under_a_part", |s| {
        s.mat_cover = Some(0.4)
    }),
    (Symptom::Uneven, "uneven_light", |s| s.evenness = Some(0.4)),
    (Symptom::Uneven, "several_kinds", |s| s.kinds = 4),
    (Symptom::Uneven, "tired_seed", |s| s.alive = 0.3),
];
/// Two more, of the last symptom.
const MORE: [(Symptom, &str, Change); 2] = [
    (Symptom::Uneven, "window_side", |s| s.window_only = true),
    (Symptom::Uneven, "watered_unevenly", |s| {
        s.watered_days = Some(6.0)
    }),
];

fn first(symptom: Symptom, change: Change) -> Cause {
    let mut signs = Signs::plain();
    change(&mut signs);
    causes(symptom, &signs).remove(0)
}

#[test]
fn every_cause_comes_first_in_its_set_up_and_not_in_another() {
    let all = || SET_UPS.iter().chain(&MORE);
    for (symptom, code, change) in all() {
        let found = first(*symptom, *change);
        assert_eq!(found.code, *code, "{symptom:?}");
        assert_ne!(found.speaks, Speaks::Against, "{code}");
        let mut others = all().filter(|(other, name, _)| other == symptom && name != code);
        assert!(
            others.any(|(_, _, change)| first(*symptom, *change).code != *code),
            "{code}"
        );
    }
    // No cause is without a set-up.
    let named: BTreeSet<&str> = all().map(|(_, code, _)| *code).collect();
    for symptom in Symptom::ALL {
        for cause in causes(symptom, &Signs::plain()) {
            assert!(named.contains(cause.code), "{symptom:?}: {}", cause.code);
            for words in [&cause.what, &cause.why, &cause.now, &cause.next_time] {
                assert!(!words.to_string().contains('{'), "{words}");
            }
        }
    }
}

#[test]
fn a_tray_that_does_well_is_blamed_for_nothing() {
    for symptom in Symptom::ALL {
        let causes = causes(symptom, &Signs::plain());
        let blamed = causes
            .iter()
            .filter(|cause| cause.speaks == Speaks::Strongly);
        let blamed: Vec<&str> = blamed.map(|cause| cause.code).collect();
        assert!(blamed.is_empty(), "{symptom:?}: {blamed:?}");
    }
}

#[test]
fn what_nobody_noted_is_said_and_speaks_neither_way() {
    let mut signs = Signs::plain();
    (signs.watered_over, signs.unfed_days) = (None, None);
    let hungry = causes(Symptom::Pale, &signs);
    let hungry = hungry.iter().find(|cause| cause.code == "hungry").unwrap();
    assert_eq!(hungry.speaks, Speaks::Unknown);
    assert!(hungry.why.to_string().contains("nothing that was noted"));
}

fn seen(plan: &SoundPlan, entries: Vec<Entry>, symptom: Symptom, after_sowing: i32) -> Vec<Cause> {
    let told = Told::of(entries);
    let plan = plan.clone().after(Arc::new(told.happened()));
    let all = reckoned(&plan);
    let on = plus_days(dates_of(&all, "tomato").sow, after_sowing);
    let found = diagnose(&all, &told, "to1", symptom, on).expect("the tray is there");
    assert_eq!((found.label.as_str(), found.on), ("To1", on));
    found.causes
}

#[test]
fn a_trays_own_log_and_light_tell_the_cause() {
    let plan = kettle_fen(|_| ());
    let dates = dates_of(&reckoned(&plan), "tomato").clone();
    let tray = || "to1".to_owned();
    let day = |n: i32| plus_days(dates.sow, n);
    // Watered every day, it wilts of that.
    let watered: Vec<Entry> = (1..=40)
        .map(|n| {
            noted(
                day(n),
                Fact::Watered {
                    tray: tray(),
                    water_ml: None,
                },
            )
        })
        .collect();
    assert_eq!(
        seen(&plan, watered, Symptom::WiltingWet, 40)[0].code,
        "drowned"
    );
    // A thermometer in the mix shows why nothing is up.
    let cold = |n| {
        let (about, reading) = (About::Tray(tray()), Measurement::SoilC(9.0));
        noted(day(n), Fact::Measured { about, reading })
    };
    let found = seen(&plan, vec![cold(2), cold(8)], Symptom::NothingUp, 14);
    assert_eq!(found[0].code, "too_cold_to_sprout");
    assert!(
        found[0].why.to_string().contains("9 °C"),
        "{}",
        found[0].why
    );
    // The day after sowing nothing is wrong yet.
    assert_eq!(
        seen(&plan, Vec::new(), Symptom::NothingUp, 1)[0].code,
        "not_due_yet"
    );
    // Lamps too weak to matter: leggy of dim light.
    let dim = kettle_fen(|plan| {
        for tier in plan.places.iter_mut().flat_map(|place| &mut place.tiers) {
            tier.lamps.iter_mut().for_each(|lamp| lamp.flux_lm *= 0.2);
        }
    });
    assert_eq!(
        seen(&dim, Vec::new(), Symptom::Leggy, 40)[0].code,
        "too_dim"
    );
    let well = seen(&plan, Vec::new(), Symptom::Leggy, 40);
    assert_ne!(
        (well[0].code, well[0].speaks),
        ("too_dim", Speaks::Strongly)
    );
    let told = Told::default();
    assert_eq!(
        diagnose(&reckoned(&plan), &told, "zz", Symptom::Pale, dates.sow),
        None
    );
}
