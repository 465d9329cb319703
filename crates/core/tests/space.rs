//! What fits where, and what it weighs.

use jiff::civil::date;
use sunrise_core::ask::{Assessment, assess};
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::detail::Detail;
use sunrise_core::day::fits::Capacity;
use sunrise_core::plan::SoundPlan;
use sunrise_core::room::{BayRef, Door, Kind, Place, shelf};
use sunrise_core::space::decks::{DeckFit, Fits};
use sunrise_core::space::doors::{ThroughDoor, passage, through_door};
use sunrise_core::testing::{alder_bluff, kettle_fen};

fn on_9_april(plan: &SoundPlan, detail: Detail) -> Assessment {
    assess(plan, DateSpan::day(date(2027, 4, 9)), detail)
}

fn kind(id: &str) -> Place {
    let places = &shelf::library().places;
    places.iter().find(|place| place.id == id).unwrap().clone()
}

fn standard_on(place: &Place) -> DeckFit {
    let containers = &shelf::library().containers;
    let standard = containers.iter().find(|c| c.id == "cells-72").unwrap();
    DeckFit::of(place, standard)
}

#[test]
fn a_deck_of_1220_by_610_takes_four_standard_trays_either_way_round() {
    let fit = standard_on(&kind("wire-rack"));
    assert_eq!((fit.lengthwise.trays, fit.crosswise.trays), (4, 4));
    assert_eq!((fit.most, fit.proven), (4, true));
}

#[test]
fn a_deck_of_1220_by_457_takes_two_or_four_that_overhang_by_83_mm() {
    let fit = standard_on(&kind("narrow-wire-rack"));
    assert_eq!(fit.lengthwise.trays, 2, "end to end");
    assert_eq!(fit.lengthwise.overhanging, None);
    assert_eq!(fit.crosswise.trays, 0);
    let over = fit.crosswise.overhanging.unwrap();
    assert_eq!(over.trays, 4);
    assert!((over.overhang_mm - 83.0).abs() < 1e-9);
    assert_eq!((fit.most, fit.proven), (2, true));
}

#[test]
fn alder_bluff_takes_two_end_to_end_or_four_that_overhang_by_three_inches() {
    let plan = alder_bluff(|_| ());
    let fit = DeckFit::of(plan.place("wire").unwrap(), plan.format(&plan.trays[0]));
    assert_eq!((fit.lengthwise.trays, fit.crosswise.trays), (2, 0));
    let over = fit.crosswise.overhanging.unwrap();
    assert_eq!(over.trays, 4);
    // 540 mm on 18 inches.
    assert!((over.overhang_mm - (540.0 - 18.0 * 25.4)).abs() < 1e-9);
    let found = assess(&plan, DateSpan::day(date(2027, 4, 20)), Detail::Outline).findings;
    let overhang = found.iter().find(|f| f.code == "trays_overhang").unwrap();
    assert_eq!(overhang.trays.len(), 4);
    assert!(
        !found
            .iter()
            .any(|f| f.code == "tall_and_unbraced" && f.fixes.is_empty())
    );
}

#[test]
fn the_demo_room_holds_45_standard_trays() {
    // Wire rack 4 x 4, coat rack 3 x 4, cabinet 6 x 2, bench 5; none on the sill, none outdoors.
    assert_eq!(
        Capacity::of(&kettle_fen(|_| ()), &mut Fits::default()).standard,
        16 + 12 + 12 + 5
    );
}

#[test]
fn capacity_is_told_in_standard_trays_own_containers_and_plants() {
    let plan = kettle_fen(|_| ());
    let capacity = Capacity::of(&plan, &mut Fits::default());
    for (held, format) in capacity.own.iter().zip(&plan.tray_formats) {
        assert_eq!(held.format, format.id);
        assert_eq!(held.cells, held.trays * format.cells());
    }
    let of = |id: &str| capacity.own.iter().find(|held| held.format == id).unwrap();
    assert_eq!((of("cells-72").trays, of("cells-72").cells), (45, 45 * 72));
    assert!(of("third-tray").trays > 2 * of("cells-72").trays);
}

#[test]
fn what_sticks_out_counts_and_is_no_fault_where_it_is_accepted() {
    let held = |accepted: bool| {
        let plan = alder_bluff(|plan| {
            let wire = plan.places.iter_mut().find(|place| place.id == "wire");
            wire.unwrap().overhang_accepted = accepted;
        });
        let found = assess(&plan, DateSpan::day(date(2027, 4, 20)), Detail::Outline).findings;
        let said = found.iter().any(|f| f.code == "trays_overhang");
        (Capacity::of(&plan, &mut Fits::default()).standard, said)
    };
    let (without, said) = held(false);
    let (with, silent) = held(true);
    let tiers = alder_bluff(|_| ()).place("wire").unwrap().tiers.len() as u32;
    assert!(with > without && with <= without + 2 * tiers);
    assert!(said && !silent);
}

#[test]
fn a_box_goes_through_a_door_upright_on_its_side_or_not_at_all() {
    let door = Door {
        width_mm: 760.0,
        height_mm: 1980.0,
    };
    let cases = [
        ([1220.0, 610.0, 1900.0], false, ThroughDoor::Upright),
        ([610.0, 1220.0, 1900.0], false, ThroughDoor::Upright),
        ([1220.0, 610.0, 2100.0], false, ThroughDoor::Tilted),
        ([900.0, 800.0, 1900.0], false, ThroughDoor::InPieces),
        ([1500.0, 800.0, 900.0], true, ThroughDoor::Folded),
        // A finger of air is wanted on either side.
        ([1220.0, 745.0, 1900.0], false, ThroughDoor::InPieces),
    ];
    for (size, folds, expected) in cases {
        assert_eq!(through_door(size, folds, door), expected, "{size:?}");
    }
    let room = &kettle_fen(|_| ()).room;
    assert_eq!(passage(&kind("window-sill"), room), None);
    assert_eq!(passage(&kind("cold-frame"), room), None);
    assert_eq!(passage(&kind("closet"), room), None);
}

#[test]
fn fits_are_told_for_the_bay_that_was_asked_for() {
    let plan = kettle_fen(|_| ());
    let bay = BayRef {
        place: "door".into(),
        tier: "t2".into(),
    };
    let room = &on_9_april(&plan, Detail::Bay(bay.clone())).room[0];
    for on_day in &room.bays {
        assert_eq!(on_day.detail.is_none(), on_day.bay != bay);
        let cells = on_day
            .trays()
            .iter()
            .flat_map(|t| &t.parts)
            .any(|p| p.cells.is_some());
        assert!(!cells || on_day.bay == bay);
    }
    let bay = room.bays.iter().find(|b| b.bay == bay).unwrap();
    let fit = bay
        .detail
        .as_ref()
        .unwrap()
        .fits
        .iter()
        .find(|f| f.deck.format == "pots-18")
        .unwrap();
    // Two of four spots are taken on 9 April.
    assert_eq!((fit.deck.most, fit.free, bay.trays().len()), (4, 2, 2));
    // Lamps at 230 mm over pots of 90 mm with domes of 150 mm.
    assert!((fit.over_rim_mm - 140.0).abs() < 1e-9);
    assert!((fit.over_dome_mm.unwrap() + 10.0).abs() < 1e-9);
}

#[test]
fn headroom_is_what_stays_over_the_tallest_leaves() {
    let plan = kettle_fen(|_| ());
    let room = &on_9_april(&plan, Detail::Outline).room[0];
    for bay in room.bays.iter().filter(|b| !b.trays().is_empty()) {
        let light = bay.light.as_ref();
        // Where lamps hang over seedlings alone, it is the gap to the leaves.
        if let Some(light) = light.filter(|_| bay.trays().iter().all(|t| t.dome_mm.is_none())) {
            assert!(
                (bay.headroom_mm.unwrap() - light.gap_mm).abs() < 1e-9,
                "{}",
                bay.name
            );
        }
    }
    let empty = room.bays.iter().find(|b| b.trays().is_empty()).unwrap();
    assert_eq!(empty.headroom_mm, None);
}

#[test]
fn a_loaded_place_has_its_centre_where_the_lever_rule_puts_it() {
    // One pot tray of 7.2 kg, 9.09 kg while watered, on tier 2 (deck 500 mm) of a rack of 22 kg
    // and 1900 mm: (22 * 950 + 9.09 * 545) / 31.09 = 831.6 mm; atan(305 / 831.6) = 20.1 degrees.
    let plan = kettle_fen(|plan| plan.trays.retain(|tray| tray.id == "tc1"));
    let room = &on_9_april(&plan, Detail::Outline).room[0];
    let load = &room.places[0].load;
    assert!((load.watered_kg - 9.09).abs() < 0.01 || (load.watered_kg - 7.29).abs() < 0.01);
    let tray = load.watered_kg;
    let format = plan
        .tray_formats
        .iter()
        .find(|f| f.id == plan.trays[0].format)
        .unwrap();
    let centre = (22.0 * 950.0 + tray * (500.0 + format.height_mm / 2.0)) / (22.0 + tray);
    assert!((load.centre_mm - centre).abs() < 1e-9);
    assert!((load.tips_at_deg - (305.0 / centre).atan().to_degrees()).abs() < 1e-9);
    assert!((load.slenderness - 1900.0 / 610.0).abs() < 1e-9);
}

#[test]
fn every_kind_on_the_shelf_is_sound_and_can_be_put_to_use() {
    let kinds = shelf::library();
    let plan = kettle_fen(|plan| {
        plan.trays.clear();
        plan.places = kinds.places.clone();
        plan.tray_formats = kinds.containers.clone();
    });
    assert!(plan.places.len() >= 10 && plan.tray_formats.len() >= 20);
    for wanted in [
        "rack",
        "wall_shelf",
        "closet",
        "bench",
        "chamber",
        "window",
        "cold_frame",
        "surface",
    ] {
        let is = |place: &Place| match &place.kind {
            Kind::Rack(_) => wanted == "rack",
            Kind::WallShelf(_) => wanted == "wall_shelf",
            Kind::Closet(_) => wanted == "closet",
            Kind::Bench(_) => wanted == "bench",
            Kind::Chamber(_) => wanted == "chamber",
            Kind::Window(_) => wanted == "window",
            Kind::ColdFrame(_) => wanted == "cold_frame",
            Kind::Surface(_) => wanted == "surface",
        };
        assert!(plan.places.iter().any(is), "{wanted}");
    }
    let day = on_9_april(&plan, Detail::All);
    for bay in &day.room[0].bays {
        assert_eq!(
            bay.detail.as_ref().unwrap().fits.len(),
            plan.tray_formats.len()
        );
    }
}

#[test]
fn many_days_at_once_leave_the_trays_out_and_judge_all_the_same() {
    let plan = kettle_fen(|plan| {
        let cabinet = plan.places.iter_mut().find(|p| p.id == "cabinet").unwrap();
        cabinet.tiers[0].mats[0].thermostat_c = Some(31.0);
    });
    let dates = sunrise_core::season::dates(&plan);
    let lettuce = dates.iter().find(|d| d.sowing == "lettuce").unwrap();
    let on = |detail| assess(&plan, DateSpan::day(lettuce.sow), detail);
    let (days, whole) = (on(Detail::Days), on(Detail::Outline));
    for (bare, full) in days.room[0].bays.iter().zip(&whole.room[0].bays) {
        assert!(bare.trays.is_none() && bare.roots.is_none());
        assert!(full.trays.is_some() && full.roots.is_some());
    }
    // But for how the lamps would hang, which was not asked for either.
    let of_hanging = ["hang_lamps", "tray_elsewhere"];
    let codes = |a: &Assessment| {
        let codes = a.findings.iter().map(|f| f.code);
        codes
            .filter(|code| !of_hanging.contains(code))
            .collect::<Vec<_>>()
    };
    assert_eq!(codes(&days), codes(&whole));
    assert!(codes(&days).contains(&"root_zone_wrong"));
}
