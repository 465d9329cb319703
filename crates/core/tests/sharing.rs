//! One flat among several kinds, boxes, stacks, and places that are set otherwise from a date on.

use jiff::civil::{Date, date};
use sunrise_core::ask::{
    BayOnDay, Detail, Edit, Fields, Held, Share, apply, assess, sharing, spots,
};
use sunrise_core::basis::dates::{DateSpan, plus_days};
use sunrise_core::edit::Onto;
use sunrise_core::plan::divide::By;
use sunrise_core::plan::{Plan, SoundPlan, Stage};
use sunrise_core::room::BayRef;
use sunrise_core::room::place::PlaceSetting;
use sunrise_core::season::jobs;
use sunrise_core::season::jobs::{Event, EventKind};
use sunrise_core::season::moments::TrayMoments;
use sunrise_core::testing::{bay, dates_of, done, kettle_fen, reckoned, tray};

const SIX: [&str; 6] = [
    "lettuce",
    "lettuce-red",
    "lettuce-cos",
    "cabbage",
    "cabbage-red",
    "cauliflower",
];

/// The identifier of the flat that is made.
const NEW: &str = "mx1-2";

fn share(by: By, sowings: &[&str]) -> Share {
    Share {
        sowings: sowings.iter().map(|id| (*id).to_owned()).collect(),
        by,
        ..Share::default()
    }
}

fn bay_on(plan: &SoundPlan, at: &BayRef, day: Date) -> BayOnDay {
    let room = assess(plan, DateSpan::day(day), Detail::All).room.remove(0);
    let is = |b: &BayOnDay| b.bay == *at;
    room.bays.into_iter().find(is).unwrap()
}

/// A flat of six-packs with six kinds in it.
fn shared() -> SoundPlan {
    let six = Share {
        format: Some("six-packs".into()),
        even: true,
        ..share(By::Packs, &SIX)
    };
    done(&kettle_fen(|_| ()), &Edit::ShareFlat(six))
}

#[test]
fn six_kinds_share_a_flat_on_one_day_under_one_dome() {
    let plan = shared();
    let flat = plan.trays.iter().find(|tray| tray.id == NEW).unwrap();
    let all = reckoned(&plan);
    let days: Vec<Date> = SIX.iter().map(|id| dates_of(&all, id).sow).collect();
    assert!(days.iter().all(|day| *day == days[0]), "{days:?}");
    let own = kettle_fen(|_| ());
    let own = reckoned(&own);
    let mut alone: Vec<Date> = SIX.iter().map(|id| dates_of(&own, id).sow).collect();
    alone.sort();
    assert!(alone[0] <= days[0] && days[0] <= alone[5]);
    // Planting out stays where the frost puts it.
    for id in SIX {
        assert_eq!(dates_of(&all, id).out, dates_of(&own, id).out);
    }
    // Twelve cells each, one vent, one dome-off.
    let format = plan.format(flat);
    for id in SIX {
        let parts = flat.parts.iter().filter(|part| part.sowing == id);
        assert_eq!(
            parts.map(|part| part.block(format).cells()).sum::<u32>(),
            12
        );
    }
    let jobs = jobs::all(&all);
    let of_flat = |what: EventKind| {
        let own = |job: &&jobs::Event| job.what == what && job.tray.as_ref() == Some(&flat.id);
        jobs.iter().filter(own).count()
    };
    assert_eq!(of_flat(EventKind::Sow), 1);
    assert_eq!(of_flat(EventKind::Vent), 1);
    assert_eq!(of_flat(EventKind::Uncover), 1);
}

#[test]
fn kinds_that_do_not_go_together_are_grouped_apart_with_the_reason() {
    let plan = kettle_fen(|_| ());
    let asked = share(By::Rows, &["lettuce", "lettuce-red", "pepper", "melon"]);
    let found = sharing(&plan, &asked, &Fields::default()).unwrap();
    let with = |id: &str| {
        let flats = found.flats.iter();
        flats
            .clone()
            .position(|flat| flat.kinds.iter().any(|kind| kind.sowing == id))
            .unwrap()
    };
    assert_eq!(with("lettuce"), with("lettuce-red"));
    assert_ne!(with("pepper"), with("lettuce"));
    assert!(found.flats[0].apart.is_none());
    assert!(found.flats[1..].iter().all(|flat| flat.apart.is_some()));
    for flat in &found.flats {
        let cells: u32 = flat.kinds.iter().map(|kind| kind.cells).sum();
        let format = flat.format.as_ref().unwrap();
        let format = plan.tray_formats.iter().find(|f| f.id == *format).unwrap();
        assert_eq!(cells, format.cells(), "all cells are given away");
    }
    let nobody = share(By::Rows, &["nobody"]);
    assert!(sharing(&plan, &nobody, &Fields::default()).is_err());
}

#[test]
fn trays_that_stand_nowhere_are_not_needed_beside_the_flat() {
    let plan = kettle_fen(|plan| {
        for id in ["lx1", "ls2"] {
            tray(plan, id).stands.clear();
        }
        for sowing in &mut plan.sowings {
            if sowing.crop == "lettuce" {
                sowing.wanted = 6;
            }
        }
    });
    let two = share(By::Rows, &["lettuce-red", "lettuce-cos"]);
    let after = done(&plan, &Edit::ShareFlat(two));
    let left = |id: &str| after.trays.iter().any(|tray| tray.id == id);
    assert!(!left("lx1") && !left("ls2") && left("le1"));
}

#[test]
fn another_container_keeps_its_kinds_and_drops_spots_it_outgrows() {
    let change = |tray: &str, format: &str| Edit::SetFormat {
        tray: tray.into(),
        format: format.into(),
    };
    let plan = done(&shared(), &change(NEW, "cells-72"));
    let flat = plan.trays.iter().find(|tray| tray.id == NEW).unwrap();
    let kinds: std::collections::BTreeSet<_> = flat.parts.iter().map(|p| &p.sowing).collect();
    assert_eq!(kinds.len(), 6);
    let small = done(&plan, &change("le1", "half-tray"));
    let half = small.trays.iter().find(|tray| tray.id == "le1").unwrap();
    assert_eq!((half.format.as_str(), half.stands.len()), ("half-tray", 3));
    let few = apply(&plan, &change(NEW, "pot-9")).unwrap_err();
    assert_eq!(few[0].path, "/sowings");
}

#[test]
fn a_box_under_one_tray_lifts_its_leaves_alone() {
    let plan = kettle_fen(|_| ());
    let day = date(2027, 4, 9);
    let lifted = done(
        &plan,
        &Edit::BoxUnder {
            tray: "tc1".into(),
            on: day,
            box_mm: Some(50.0),
        },
    );
    let canopy = |plan: &SoundPlan, id: &str| {
        let bay = bay_on(plan, &bay("door", "t2"), day);
        let tray = bay.trays().iter().find(|t| t.tray == id).unwrap().clone();
        (tray.rim_mm, bay.headroom_mm.unwrap())
    };
    let (before, room) = canopy(&plan, "tc1");
    let (after, less) = canopy(&lifted, "tc1");
    assert!((after - before - 50.0).abs() < 1e-9);
    assert!(less <= room);
    assert_eq!(canopy(&plan, "tc2").0, canopy(&lifted, "tc2").0);
    // Slid along its deck it keeps the box, and leaves it there when it goes elsewhere.
    let stood = |tier: &str| {
        let edit = Edit::StandTrays {
            trays: vec!["tc1".into()],
            stage: Stage::Grow,
            from: None,
            bay: bay("door", tier),
            onto: None,
        };
        let after = done(&lifted, &edit);
        let tray = after.trays.iter().find(|tray| tray.id == "tc1").unwrap();
        tray.stand_in(Stage::Grow).unwrap().box_mm
    };
    assert_eq!((stood("t2"), stood("t4")), (Some(50.0), None));
    let away = Edit::BoxUnder {
        tray: "tc1".into(),
        on: day,
        box_mm: None,
    };
    assert_eq!(*done(&lifted, &away), *plan);
}

/// Onions 1 and 2, the second stacked on the first while both germinate.
fn stacked() -> SoundPlan {
    let edit = Edit::StandTrays {
        trays: vec!["on2".into()],
        stage: Stage::Germinate,
        from: None,
        bay: bay("cabinet", "t2"),
        onto: Some(Onto {
            stacked: true,
            ..Onto::default()
        }),
    };
    done(&kettle_fen(|_| ()), &edit)
}

#[test]
fn a_second_level_of_germinating_trays_takes_no_spot_and_covers_the_first() {
    let plan = stacked();
    let sown = dates_of(&reckoned(&plan), "onion").sow;
    let bay = bay_on(&plan, &bay("cabinet", "t2"), sown);
    let by = |id: &str| bay.trays().iter().find(|t| t.tray == id).unwrap();
    let (lower, upper) = (by("on1"), by("on2"));
    assert_eq!(upper.lift_mm, lower.rim_mm);
    assert_eq!((lower.x_mm, lower.y_mm), (upper.x_mm, upper.y_mm));
    assert_eq!(
        sunrise_core::season::stays::clashes(&reckoned(&plan).stays),
        []
    );
    // It grows where it grew before, unstacked.
    let tray = plan.trays.iter().find(|tray| tray.id == "on2").unwrap();
    assert!(!tray.stand_in(Stage::Grow).unwrap().stacked);
    // Without a spot to grow in it would stand nowhere from the day it is carried out.
    let mut homeless = (*plan).clone();
    let own = homeless
        .trays
        .iter_mut()
        .find(|tray| tray.id == "on2")
        .unwrap();
    own.stands.retain(|stand| stand.stage == Stage::Germinate);
    let homeless = homeless.check().unwrap();
    let own = homeless.trays.iter().find(|tray| tray.id == "on2").unwrap();
    assert_eq!(own.stand_in(Stage::Grow), None);
}

#[test]
fn what_is_stacked_where_nothing_stays_under_it_is_refused() {
    let edit = Edit::StandTrays {
        trays: vec!["me1".into()],
        stage: Stage::Germinate,
        from: None,
        bay: bay("window", "t1"),
        onto: Some(Onto {
            stacked: true,
            ..Onto::default()
        }),
    };
    let faults = apply(&kettle_fen(|_| ()), &edit).unwrap_err();
    assert_eq!(faults[0].path, "/bay");
}

#[test]
fn several_trays_stand_at_once_or_none_does() {
    let bare = |plan: &mut Plan| {
        for id in ["to1", "to2", "tp1", "tp2", "cu1"] {
            tray(plan, id)
                .stands
                .retain(|stand| stand.stage != Stage::Grow);
        }
    };
    let plan = kettle_fen(bare);
    let stand = |trays: &[&str]| Edit::StandTrays {
        trays: trays.iter().map(|id| (*id).to_owned()).collect(),
        stage: Stage::Grow,
        from: None,
        bay: bay("coat", "t1"),
        onto: None,
    };
    // Where the cells of the plum tomatoes stand moves the day that their pots come.
    let four = done(&plan, &stand(&["tp1", "to1", "to2", "tp2"]));
    assert_eq!(
        sunrise_core::season::stays::clashes(&reckoned(&four).stays),
        []
    );
    let faults = apply(&plan, &stand(&["to1", "to2", "tp1", "tp2", "cu1"])).unwrap_err();
    let said = faults[0].problem.to_string();
    assert!(said.contains("room for 4 of them"), "{said}");
    assert!(faults[0].remedy.to_string().contains("nearest free spot"));
}

#[test]
fn the_spot_nearest_to_the_hand_is_taken() {
    let plan = kettle_fen(|plan| plan.trays.retain(|tray| tray.id == "tc1"));
    let at = |x_mm: f64| {
        let edit = Edit::StandTrays {
            trays: vec!["tc1".into()],
            stage: Stage::Grow,
            from: None,
            bay: bay("door", "t4"),
            onto: Some(Onto {
                x_mm: Some(x_mm),
                ..Onto::default()
            }),
        };
        let after = done(&plan, &edit);
        after.trays[0].stand_in(Stage::Grow).unwrap().x_mm
    };
    for wanted in [100.0, 310.0, 640.0] {
        assert!(
            (at(wanted) - wanted).abs() < 30.0,
            "{wanted}: {}",
            at(wanted)
        );
    }
    assert!(at(5000.0) > 600.0);
}

#[test]
fn each_bay_says_what_it_has_for_the_tray_that_is_held() {
    let plan = kettle_fen(|_| ());
    let held = |stage| Held {
        tray: "cu1".into(),
        stage,
        from: None,
        stacked: false,
    };
    let found = spots(&plan, &held(Stage::Grow), &Fields::default()).unwrap();
    let at = |place: &str, tier: &str| {
        let is = |b: &&sunrise_core::ask::BaySpots| b.bay == bay(place, tier);
        found.iter().find(is).unwrap()
    };
    // Four tomato trays fill it.
    assert!(at("coat", "t1").spots.is_empty() && at("coat", "t1").against.is_some());
    let dark = at("cabinet", "t3").against.as_ref().unwrap().to_string();
    assert!(dark.contains("no light"), "{dark}");
    assert!(!at("door", "t2").spots.is_empty() && at("door", "t2").against.is_none());
    let nobody = Held {
        tray: "nobody".into(),
        ..held(Stage::Grow)
    };
    assert!(spots(&plan, &nobody, &Fields::default()).is_err());
}

#[test]
fn a_bay_is_set_otherwise_from_a_date_on() {
    let at = bay("door", "t3");
    let set = |setting: fn(&mut PlaceSetting)| {
        kettle_fen(|plan| {
            let mut own = PlaceSetting {
                from: date(2027, 4, 1),
                tier: Some("t3".into()),
                lamps_germinating: None,
                mats_growing: None,
                domes_growing: None,
                shut: None,
                airing: None,
            };
            setting(&mut own);
            let door = plan.places.iter_mut().find(|p| p.id == "door").unwrap();
            door.settings.push(own);
        })
    };
    // Peppers germinate here until late in March and grow on.
    let on_mat = set(|own| own.mats_growing = Some(true));
    let mats = |plan: &SoundPlan, day: Date| {
        let bay = bay_on(plan, &at, day);
        bay.roots()
            .iter()
            .filter(|roots| roots.mat.is_some())
            .count()
    };
    let late = date(2027, 4, 20);
    assert_eq!(mats(&kettle_fen(|_| ()), late), 0);
    assert!(mats(&on_mat, late) > 0);
    let before = date(2027, 3, 31);
    assert_eq!(mats(&on_mat, before), mats(&kettle_fen(|_| ()), before));

    // Domes stay on over what grows, and hold the warmth in.
    let domed = set(|own| own.domes_growing = Some(true));
    let warmth = |plan: &SoundPlan| {
        let bay = bay_on(plan, &at, late);
        let uses = |roots: &sunrise_core::day::root_zones::TrayRoots| roots.water.uses_ml_d;
        let all: Vec<f64> = bay.roots().iter().map(uses).collect();
        all.iter().sum::<f64>() / all.len() as f64
    };
    assert!(warmth(&kettle_fen(|_| ())) > 0.0);
    assert_eq!(warmth(&domed), 0.0);
    let lifted = |plan: &SoundPlan| {
        let events = sunrise_core::season::jobs::all(&reckoned(plan));
        let off = |e: &&Event| e.what == EventKind::Uncover && e.sowing == "pepper";
        events.iter().filter(off).count()
    };
    let kept = kettle_fen(|plan| {
        let door = plan.places.iter_mut().find(|p| p.id == "door").unwrap();
        door.tiers
            .iter_mut()
            .for_each(|tier| tier.domes_growing = true);
    });
    assert!(lifted(&kettle_fen(|_| ())) > 0);
    assert_eq!(lifted(&kept), 0);

    let lit = set(|own| {
        own.from = date(2027, 2, 1);
        own.lamps_germinating = Some(true);
    });
    let sown = plus_days(dates_of(&reckoned(&lit), "pepper").sow, 1);
    assert!(bay_on(&lit, &at, sown).burning);
    assert!(!bay_on(&kettle_fen(|_| ()), &at, sown).burning);
}

#[test]
fn a_tray_that_lies_under_another_leaves_at_half_up() {
    let plan = stacked();
    let all = reckoned(&plan);
    let lower = plan.trays.iter().find(|tray| tray.id == "on1").unwrap();
    assert!(plan.is_covered(lower));
    assert!(TrayMoments::of(&plan, lower, &all.dates).shut_in);
}
