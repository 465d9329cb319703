//! Edits of the plan's form: what they make, and what they refuse.

use sunrise_core::basis::fault::Fault;
use sunrise_core::edit::{Edit, Edited, GearList, GearRef, Thing, apply};
use sunrise_core::plan::upgrade::upgraded;
use sunrise_core::plan::{Plan, SoundPlan, Stage};
use sunrise_core::room::{MixKind, Place, Tier, find_bay, shelf};
use sunrise_core::season::stays::clashes;
use sunrise_core::testing::{ONE_RACK, bay, kettle_fen, reckoned};

fn done(plan: &SoundPlan, edit: Edit) -> Edited {
    apply(plan, &edit).unwrap_or_else(|faults| panic!("{edit:?}: {faults:?}"))
}

fn refused(plan: &SoundPlan, edit: Edit) -> Fault {
    apply(plan, &edit).expect_err("it cannot be done").remove(0)
}

fn place_at<'p>(plan: &'p Plan, id: &str) -> &'p Place {
    plan.places.iter().find(|place| place.id == id).expect(id)
}

fn tier_at<'p>(plan: &'p Plan, place: &str, id: &str) -> &'p Tier {
    let mut tiers = place_at(plan, place).tiers.iter();
    tiers.find(|tier| tier.id == id).expect(id)
}

fn tier(place: &str, tier: &str) -> Thing {
    Thing {
        place: place.into(),
        tier: Some(tier.into()),
        gear: None,
    }
}

fn place(id: &str) -> Thing {
    Thing {
        place: id.into(),
        tier: None,
        gear: None,
    }
}

fn unplugged(tiers: &[Tier]) -> Vec<Tier> {
    let mut tiers = tiers.to_vec();
    for tier in &mut tiers {
        tier.lamps.iter_mut().for_each(|lamp| lamp.plugged = None);
        tier.mats.iter_mut().for_each(|mat| mat.plugged = None);
        tier.fans.iter_mut().for_each(|fan| fan.plugged = None);
    }
    tiers
}

#[test]
fn every_kind_of_the_shelf_can_be_added_where_it_goes() {
    let plan = kettle_fen(|_| ());
    let kinds = shelf::library();
    for kind in &kinds.places {
        let edited = done(
            &plan,
            Edit::AddPlace {
                kind: kind.id.clone(),
            },
        );
        assert_eq!(edited.plan.places.len(), plan.places.len() + 1);
        assert_eq!(edited.made.len(), 1);
    }
    for lamp in &kinds.lamps {
        // The bench alone is tall enough for every lamp.
        let edit = Edit::AddLamp {
            bay: bay("bench", "t1"),
            kind: lamp.id.clone(),
        };
        let edited = done(&plan, edit);
        assert_eq!(tier_at(&edited.plan, "bench", "t1").lamps.len(), 2);
    }
    for mat in &kinds.mats {
        let edit = Edit::AddMat {
            bay: bay("coat", "t3"),
            kind: mat.id.clone(),
        };
        assert_eq!(tier_at(&done(&plan, edit).plan, "coat", "t3").mats.len(), 1);
    }
    for fan in kinds.fans.iter().filter(|fan| fan.diameter_mm < 300.0) {
        let edit = Edit::AddFan {
            bay: bay("coat", "t2"),
            kind: fan.id.clone(),
        };
        assert_eq!(tier_at(&done(&plan, edit).plan, "coat", "t2").fans.len(), 1);
    }
    for container in &kinds.containers {
        let edited = done(
            &plan,
            Edit::AddFormat {
                kind: container.id.clone(),
            },
        );
        assert_eq!(edited.plan.tray_formats.len(), plan.tray_formats.len() + 1);
    }
}

#[test]
fn what_does_not_go_in_is_refused_with_a_way_out() {
    let plan = kettle_fen(|_| ());
    let cases = [
        (
            Edit::AddPlace {
                kind: "attic".into(),
            },
            "/kind",
        ),
        (
            Edit::AddTier {
                place: "attic".into(),
            },
            "/place",
        ),
        (
            Edit::AddTier {
                place: "window".into(),
            },
            "/place",
        ),
        (
            Edit::AddLamp {
                bay: bay("door", "t9"),
                kind: "shop-led-36".into(),
            },
            "/tier",
        ),
        (
            // A mat of 1200 mm in a cabinet of 620.
            Edit::AddMat {
                bay: bay("cabinet", "t2"),
                kind: "mat-large".into(),
            },
            "/kind",
        ),
        (
            // A lamp of 1150 mm in a cabinet of 620 by 570.
            Edit::AddLamp {
                bay: bay("cabinet", "t2"),
                kind: "shop-led-36".into(),
            },
            "/places/2/tiers/1/lamps/0/y_mm",
        ),
        (
            Edit::AddFan {
                bay: bay("cabinet", "t2"),
                kind: "fan-room".into(),
            },
            "/places/2/tiers/1/fans/0/diameter_mm",
        ),
        (Edit::Again { things: vec![] }, "/things"),
        (Edit::Remove { things: vec![] }, "/things"),
        (
            Edit::Remove {
                things: vec![tier("bench", "t1")],
            },
            "/things",
        ),
        (
            Edit::StandTrays {
                trays: vec!["ghost".into()],
                stage: Stage::Grow,
                from: None,
                bay: bay("door", "t4"),
                onto: None,
            },
            "/trays",
        ),
        (
            // Four tomato trays fill it.
            Edit::StandTrays {
                trays: vec!["cu1".into()],
                stage: Stage::Grow,
                from: None,
                bay: bay("coat", "t1"),
                onto: None,
            },
            "/bay",
        ),
    ];
    for (edit, path) in cases {
        let fault = refused(&plan, edit.clone());
        assert_eq!(fault.path, path, "{edit:?}: {fault}");
        assert!(!fault.remedy.to_string().is_empty());
    }
}

#[test]
fn a_second_lamp_hangs_level_in_the_widest_gap() {
    let plan = kettle_fen(|_| ());
    let edit = Edit::AddLamp {
        bay: bay("door", "t4"),
        kind: "bar-led-14".into(),
    };
    let edited = done(&plan, edit);
    let lamps = &tier_at(&edited.plan, "door", "t4").lamps;
    let [a, b, new] = &lamps[..] else {
        panic!("three lamps")
    };
    assert!((new.height_mm - a.height_mm).abs() < 1e-9);
    // Between 170 and 440 mm.
    assert!((new.y_mm - f64::midpoint(a.y_mm, b.y_mm)).abs() < 1e-9);
    assert!(!lamps[..2].iter().any(|lamp| lamp.id == new.id));
}

#[test]
fn the_same_again_copies_places_tiers_and_gear_without_trays() {
    let plan = kettle_fen(|_| ());
    let edited = done(
        &plan,
        Edit::Again {
            things: vec![
                place("coat"),
                Thing {
                    gear: Some(GearRef {
                        list: GearList::Lamps,
                        id: "a".into(),
                    }),
                    ..tier("bench", "t1")
                },
            ],
        },
    );
    let after = &edited.plan;
    assert_eq!(after.places.len(), plan.places.len() + 1);
    let (coat, copy) = (place_at(&plan, "coat"), place_at(after, "coat-2"));
    assert_eq!(copy.name, "Coat rack 2");
    // What is copied is plugged in nowhere yet.
    assert_eq!(copy.tiers, unplugged(&coat.tiers));
    assert_eq!(after.trays, plan.trays);
    assert_ne!(copy.spot, coat.spot);
    assert_eq!(edited.made.len(), 2);
    assert_eq!(tier_at(after, "bench", "t1").lamps.len(), 2);
    // And once more: numbers go on.
    let again = done(
        &after.clone().check().unwrap(),
        Edit::Again {
            things: vec![place("coat-2")],
        },
    );
    assert!(
        again
            .plan
            .places
            .iter()
            .any(|p| p.id == "coat-3" && p.name == "Coat rack 3")
    );
}

#[test]
fn a_tier_again_finds_room_with_all_that_hangs_in_it() {
    // The store on top of the wire rack is 220 mm high: too low for another tier with lamps.
    let plan = kettle_fen(|_| ());
    let fault = refused(
        &plan,
        Edit::Again {
            things: vec![tier("door", "t2")],
        },
    );
    assert_eq!(fault.path, "/place");
    let mut taller = plan.into_inner();
    taller.places[0].height_mm = 2300.0;
    let taller = taller.check().unwrap();
    let edited = done(
        &taller,
        Edit::Again {
            things: vec![tier("door", "t2")],
        },
    );
    let tiers = &place_at(&edited.plan, "door").tiers;
    assert_eq!(tiers.len(), 6);
    let new = tiers.iter().find(|t| t.id == "t2-2").unwrap();
    let whole = unplugged(std::slice::from_ref(tier_at(&taller, "door", "t2")));
    assert_eq!(new.lamps, whole[0].lamps);
    assert!((new.deck_height_mm % 10.0).abs() < 1e-9, "on the pitch");
    let heights: Vec<f64> = tiers.iter().map(|t| t.deck_height_mm).collect();
    assert!(heights.is_sorted());
}

#[test]
fn taking_a_place_out_takes_its_stands_and_keeps_its_trays() {
    let plan = kettle_fen(|_| ());
    let standing = |plan: &Plan, place: &str| {
        let stands = plan.trays.iter().flat_map(|t| &t.stands);
        stands.filter(|s| s.bay.place == place).count()
    };
    assert!(standing(&plan, "coat") > 0);
    let edited = done(
        &plan,
        Edit::Remove {
            // Picked together with something of its own: that goes with it.
            things: vec![place("coat"), tier("coat", "t1")],
        },
    );
    assert_eq!(edited.plan.places.len(), plan.places.len() - 1);
    assert_eq!(edited.plan.trays.len(), plan.trays.len());
    assert_eq!(standing(&edited.plan, "coat"), 0);
    assert!(
        edited.word.to_string().contains("without a spot"),
        "{}",
        edited.word
    );
}

#[test]
fn a_place_moves_along_and_a_tray_into_another_bay() {
    let plan = kettle_fen(|_| ());
    let edited = done(
        &plan,
        Edit::MovePlace {
            place: "door".into(),
            to: 99,
        },
    );
    assert_eq!(edited.plan.places.last().unwrap().id, "door");
    let edited = done(
        &plan,
        Edit::StandTrays {
            trays: vec!["cu1".into()],
            stage: Stage::Grow,
            from: None,
            bay: bay("door", "t4"),
            onto: None,
        },
    );
    let tray = edited.plan.trays.iter().find(|t| t.id == "cu1").unwrap();
    let stand = tray.stand_in(Stage::Grow).unwrap();
    assert_eq!(stand.bay, bay("door", "t4"));
    assert!(find_bay(&edited.plan.places, &stand.bay).is_some());
    // It clashes with nobody there.
    let plan = edited.plan.check().unwrap();
    assert_eq!(clashes(&reckoned(&plan).stays), []);
}

#[test]
fn a_plan_of_version_1_is_read_as_one_of_today() {
    let old: serde_json::Value = serde_json::from_str(ONE_RACK).unwrap();
    let new = upgraded(old.clone());
    let plan: Plan = serde_json::from_value(new.clone()).unwrap();
    let plan = plan.check().unwrap();
    assert_eq!(place_at(&plan, "door").tiers.len(), 5);
    assert_eq!(tier_at(&plan, "door", "t2").lamps.len(), 4);
    let sown = plan.trays.iter().map(|tray| tray.parts[0].sowing.as_str());
    let before = old["trays"].as_array().unwrap().iter();
    let before = before.map(|tray| tray["sowing"].as_str().unwrap());
    assert_eq!(sown.collect::<Vec<_>>(), before.collect::<Vec<_>>());
    // Today's own are left alone, and so is what is no plan at all.
    assert_eq!(upgraded(new.clone()), new);
    for other in [
        "7",
        "[]",
        "{\"schema_version\": 1, \"places\": [3, {\"rack\": 4}]}",
    ] {
        upgraded(serde_json::from_str(other).unwrap());
    }
}

#[test]
fn a_sowing_brings_the_trays_it_takes_and_takes_them_out_again() {
    let plan = kettle_fen(|_| ());
    let sowed = apply(
        &plan,
        &Edit::AddSowing {
            crop: "basil".into(),
            variety: "Lamp Green".into(),
            wanted: 30,
            pots: false,
            autumn: false,
        },
    )
    .unwrap()
    .plan;
    let of = |plan: &Plan, id: &str| {
        let holds = |tray: &&sunrise_core::plan::Tray| tray.parts.iter().any(|p| p.sowing == id);
        plan.trays.iter().filter(holds).count()
    };
    assert!(of(&sowed, "basil") >= 1);
    let sound = sowed.clone().check().unwrap();
    let again = apply(
        &sound,
        &Edit::RepeatSowing {
            sowing: "basil".into(),
            times: 2,
            every_days: 14,
        },
    )
    .unwrap()
    .plan;
    let shifts: Vec<i32> = again
        .sowings
        .iter()
        .filter(|s| s.crop == "basil")
        .map(|s| s.shift_days)
        .collect();
    assert_eq!(shifts, [0, 14, 28]);
    // Days that were fixed move along, and what is sown again is yet to be sown.
    let mut fixed = sowed.clone();
    let basil = fixed
        .sowings
        .iter_mut()
        .find(|s| s.crop == "basil")
        .unwrap();
    (basil.sow_on, basil.sown) = (Some("2027-04-01".parse().unwrap()), true);
    let once_more = Edit::RepeatSowing {
        sowing: basil.id.clone(),
        times: 1,
        every_days: 14,
    };
    let later = apply(&fixed.check().unwrap(), &once_more).unwrap().plan;
    let last = later.sowings.last().unwrap();
    assert_eq!(last.sow_on, Some("2027-04-15".parse().unwrap()));
    assert!(!last.sown);
    let again = again.check().unwrap();
    let out = apply(
        &again,
        &Edit::RemoveSowing {
            sowing: "basil".into(),
        },
    )
    .unwrap()
    .plan;
    assert_eq!(of(&out, "basil"), 0);
    assert_eq!(out.sowings.len(), again.sowings.len() - 1);
    for (edit, field) in [
        (
            Edit::AddSowing {
                crop: "triffid".into(),
                variety: "x".into(),
                wanted: 3,
                pots: false,
                autumn: false,
            },
            "/crop",
        ),
        (
            Edit::RepeatSowing {
                sowing: "basil".into(),
                times: 0,
                every_days: 7,
            },
            "/times",
        ),
    ] {
        let faults = apply(&again, &edit).unwrap_err();
        assert_eq!(faults[0].path, field);
    }
}

#[test]
fn a_container_filled_otherwise_changes_its_mass_and_can_be_filled_back() {
    let plan = kettle_fen(|_| ());
    let before = plan.tray_formats[0].clone();
    let fill = |plan: &SoundPlan, mix| {
        let format = before.id.clone();
        let edited = apply(plan, &Edit::FillWith { format, mix }).unwrap();
        assert!(edited.word.to_string().starts_with("filled "));
        edited.plan.check().unwrap()
    };
    let compost = fill(&plan, MixKind::Compost);
    assert_eq!(compost.tray_formats[0].mix, MixKind::Compost);
    assert!(compost.tray_formats[0].wet_kg > before.wet_kg);
    // Nothing else changes.
    assert_eq!(compost.tray_formats[1..], plan.tray_formats[1..]);
    assert_eq!(compost.trays, plan.trays);
    let back = fill(&compost, MixKind::Peat);
    assert!((back.tray_formats[0].wet_kg - before.wet_kg).abs() < 0.02);
    let nowhere = Edit::FillWith {
        format: "bathtub".into(),
        mix: MixKind::Bark,
    };
    assert_eq!(apply(&plan, &nowhere).unwrap_err()[0].path, "/format");
}

/// The demo with the fan of the door rack's third shelf carried to the second by turns.
fn with_a_fan_by_turns() -> SoundPlan {
    kettle_fen(|plan| {
        let fan = &mut plan.places[0].tiers[2].fans[0];
        fan.by_turns = vec!["t2".into()];
    })
}

#[test]
fn a_fan_forgets_a_shelf_that_is_taken_out_and_stays_where_it_is_copied_to() {
    let plan = with_a_fan_by_turns();
    let gone = Edit::Remove {
        things: vec![Thing {
            place: "door".into(),
            tier: Some("t2".into()),
            gear: None,
        }],
    };
    let after = apply(&plan, &gone).unwrap().plan.check().unwrap();
    let of = |plan: &SoundPlan, place: &str| {
        let place = plan.places.iter().find(|own| own.id == place).unwrap();
        let fans = place.tiers.iter().flat_map(|tier| tier.fans.clone());
        fans.collect::<Vec<_>>()
    };
    assert!(of(&after, "door").iter().all(|fan| fan.by_turns.is_empty()));
    let fan = plan.places[0].tiers[2].fans[0].id.clone();
    let again = Edit::Again {
        things: vec![Thing {
            place: "door".into(),
            tier: Some("t3".into()),
            gear: Some(GearRef {
                list: GearList::Fans,
                id: fan,
            }),
        }],
    };
    let after = apply(&plan, &again).unwrap().plan.check().unwrap();
    let fans = &after.places[0].tiers[2].fans;
    assert_eq!(fans.len(), plan.places[0].tiers[2].fans.len() + 1);
    assert!(fans.last().unwrap().by_turns.is_empty());
    // A whole rack keeps its ways: its shelves have the same names.
    let whole = Edit::Again {
        things: vec![Thing {
            place: "door".into(),
            tier: None,
            gear: None,
        }],
    };
    let after = apply(&plan, &whole).unwrap().plan.check().unwrap();
    assert!(after.places.len() > plan.places.len());
}

#[test]
fn what_is_sown_for_the_autumn_stretches_the_season_and_what_nobody_picks_is_refused() {
    let plan = kettle_fen(|_| ());
    let sow = |crop: &str, autumn| Edit::AddSowing {
        crop: crop.into(),
        variety: String::new(),
        wanted: 12,
        pots: false,
        autumn,
    };
    let late = apply(&plan, &sow("kale", true)).unwrap().plan;
    assert!(late.season.to > plan.season.to);
    assert_eq!(late.season.from, plan.season.from);
    let own = late.sowings.last().unwrap();
    assert!(own.autumn);
    let sound = late.check().unwrap();
    let all = reckoned(&sound);
    let dates = all.dates.last().unwrap();
    assert!(dates.sow > plan.season.to && dates.out <= sound.season.to);
    // Undone by hand, it is a sowing of spring again.
    let spring = kettle_fen(|plan| {
        let mut own = sound.sowings.last().unwrap().clone();
        own.autumn = false;
        plan.sowings.push(own);
    });
    assert!(reckoned(&spring).dates.last().unwrap().sow < plan.season.to);
    let same = apply(&plan, &sow("kale", false)).unwrap().plan;
    assert_eq!(same.season, plan.season);
    let faults = apply(&plan, &sow("tomato", true)).unwrap_err();
    assert_eq!(faults[0].path, "/autumn");
}
