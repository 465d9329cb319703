//! From an empty plan to a season that stands in the room.

use jiff::civil::date;
use sunrise_core::ask::{DateSpan, Detail, Finding, UnitSystem, assess};
use sunrise_core::edit::{Edit, Equipment, GearList, GearRef, Thing, apply};
use sunrise_core::plan::{Plan, SoundPlan, Stage, Tray};
use sunrise_core::room::BayRef;

const TODAY: jiff::civil::Date = date(2026, 11, 27);

/// A dozen kinds, and the plants wanted of each.
const WANTED: [(&str, u32); 12] = [
    ("tomato", 12),
    ("pepper", 8),
    ("aubergine", 6),
    ("lettuce", 24),
    ("cabbage", 12),
    ("leek", 40),
    ("celeriac", 12),
    ("basil", 12),
    ("sweet-pea", 20),
    ("cosmos", 12),
    ("courgette", 4),
    ("pea", 60),
];

fn edited(plan: &SoundPlan, edit: &Edit) -> SoundPlan {
    let edited = apply(plan, edit).unwrap_or_else(|faults| panic!("{edit:?}: {faults:?}"));
    edited.plan.check().unwrap()
}

/// A narrow wire rack with six lamps, two mats and a thermostat, and a south window.
fn room(home: &str) -> SoundPlan {
    let mut plan = Plan::blank(TODAY, None).check().unwrap();
    let edits = [
        Edit::LiveAt {
            home: home.into(),
            today: TODAY,
        },
        Edit::AddPlace {
            kind: "narrow-wire-rack".into(),
        },
        Edit::Equip {
            place: "narrow-wire-rack".into(),
            with: Equipment {
                lamp: Some("shop-led-36".into()),
                lamps: 6,
                mat: Some("mat-small".into()),
                mats: 2,
                thermostats: 1,
            },
        },
        Edit::AddPlace {
            kind: "window-sill".into(),
        },
    ];
    for edit in &edits {
        plan = edited(&plan, edit);
    }
    plan
}

fn sown(mut plan: SoundPlan) -> SoundPlan {
    for (crop, wanted) in WANTED {
        let edit = Edit::AddSowing {
            crop: crop.into(),
            variety: String::new(),
            wanted,
            pots: true,
            autumn: false,
        };
        plan = edited(&plan, &edit);
    }
    plan
}

fn bay(tier: &str) -> BayRef {
    BayRef {
        place: "narrow-wire-rack".into(),
        tier: tier.into(),
    }
}

#[test]
fn lamps_are_spread_in_pairs_and_mats_share_a_thermostat() {
    let plan = room("Europe/Vienna");
    let rack = &plan.places[0];
    let lamps: Vec<usize> = rack.tiers.iter().map(|tier| tier.lamps.len()).collect();
    assert_eq!(lamps, [2, 2, 2, 0, 0]);
    for tier in &rack.tiers[..3] {
        let from_front: f64 = tier.lamps.iter().map(|lamp| lamp.y_mm).sum();
        assert!((from_front - rack.depth_mm).abs() < 1e-9, "symmetrical");
    }
    let mats = &rack.tiers[0].mats;
    assert_eq!(mats.len(), 2);
    assert_eq!(mats[1].switched_with.as_ref(), Some(&mats[0].id));
    assert_eq!(mats[1].thermostat_c, mats[0].thermostat_c);
    // Who turns the dial turns it for both.
    let mut document = plan.clone().into_inner();
    document.places[0].tiers[0].mats[0].thermostat_c = Some(21.0);
    let plan = document.check().unwrap();
    assert_eq!(plan.places[0].tiers[0].mats[1].thermostat_c, Some(21.0));
}

#[test]
fn a_set_of_gear_is_copied_to_other_shelves() {
    let plan = room("Europe/Vienna");
    let copy = Edit::CopyGear {
        from: bay("t1"),
        to: vec![bay("t3"), bay("t4")],
    };
    let plan = edited(&plan, &copy);
    let tiers = &plan.places[0].tiers;
    for tier in [&tiers[2], &tiers[3]] {
        assert_eq!((tier.lamps.len(), tier.mats.len()), (2, 2), "{}", tier.name);
        assert_eq!(tier.mats[1].switched_with.as_ref(), Some(&tier.mats[0].id));
    }
    assert_eq!(tiers[1].lamps.len(), 2, "others keep theirs");
}

#[test]
fn mats_go_on_sharing_a_thermostat_when_they_are_copied_or_one_is_taken_away() {
    let mut document = room("Europe/Vienna").into_inner();
    let mats = &mut document.places[0].tiers[0].mats;
    (mats[0].id, mats[1].id) = ("left".into(), "right".into());
    mats[1].switched_with = Some("left".into());
    let plan = document.check().unwrap();
    let copy = Edit::CopyGear {
        from: bay("t1"),
        to: vec![bay("t2")],
    };
    let plan = edited(&plan, &copy);
    let copied = &plan.places[0].tiers[1].mats;
    assert_eq!(copied[1].switched_with.as_deref(), Some("left"));
    let removed = Edit::Remove {
        things: vec![Thing {
            place: "narrow-wire-rack".into(),
            tier: Some("t2".into()),
            gear: Some(GearRef {
                list: GearList::Mats,
                id: "left".into(),
            }),
        }],
    };
    let plan = edited(&plan, &removed);
    let [left_over] = &plan.places[0].tiers[1].mats[..] else {
        panic!("one mat");
    };
    // It has the thermostat now: none is left on for good.
    assert_eq!(left_over.switched_with, None);
    assert!(left_over.thermostat_c.is_some());
}

#[test]
fn more_mats_than_lie_flat_are_refused_and_named() {
    let plan = room("Europe/Vienna");
    let faults = apply(
        &plan,
        &Edit::Equip {
            place: "narrow-wire-rack".into(),
            with: Equipment {
                lamp: None,
                lamps: 0,
                mat: Some("mat-small".into()),
                mats: 50,
                thermostats: 0,
            },
        },
    )
    .unwrap_err();
    assert_eq!(faults[0].path, "/mats");
}

#[test]
fn a_rack_in_inches_is_48_by_18() {
    let plan = room("America/Chicago");
    let rack = &plan.places[0];
    let inches = |mm: f64| (mm / 25.4 * 1e6).round() / 1e6;
    assert_eq!((inches(rack.width_mm), inches(rack.depth_mm)), (48.0, 18.0));
    assert!(rack.tiers[0].lamps[0].name.contains("4 ft"));
    assert_eq!(plan.site.mains_v, 120.0);
    assert_eq!(plan.site.units, UnitSystem::Us);
}

#[test]
fn few_plants_do_not_take_a_whole_tray_and_more_get_more() {
    let sow = |wanted| Edit::AddSowing {
        crop: "aubergine".into(),
        variety: String::new(),
        wanted,
        pots: false,
        autumn: false,
    };
    let plan = edited(&room("Europe/Vienna"), &sow(4));
    let area = |plan: &SoundPlan| -> f64 {
        let of = plan.trays.iter().map(|tray| plan.format(tray));
        of.map(|format| format.length_mm * format.width_mm).sum()
    };
    // A standard tray is 540 x 280 mm.
    assert!(area(&plan) < 0.25 * 540.0 * 280.0, "{}", area(&plan));
    let want = Edit::Want {
        sowing: "aubergine".into(),
        wanted: 40,
    };
    let more = edited(&plan, &want);
    let cells: u32 = more.trays.iter().map(|t| more.format(t).cells()).sum();
    assert!(cells >= 40, "{cells}");
    // A second sowing of the kind has a name of its own.
    let twice = edited(&plan, &sow(4));
    let names: Vec<String> = (twice.sowings.iter())
        .map(|sowing| sowing.called("Aubergine"))
        .collect();
    assert_eq!(names, ["Aubergine", "Aubergine 2"]);
}

#[test]
fn every_tray_stands_on_a_spot_of_its_own() {
    for home in ["Europe/Vienna", "America/Chicago"] {
        let plan = edited(&sown(room(home)), &Edit::PlaceAll { afresh: false });
        let lit = |tray: &&Tray| {
            let stand = tray.stand_in(Stage::Grow).unwrap();
            let bay = plan.bay(&stand.bay).unwrap();
            !bay.tier.lamps.is_empty() || bay.place.has_daylight()
        };
        assert!(plan.trays.iter().all(|tray| lit(&tray)), "{home}");
        let day = DateSpan::day(plan.site.last_frost);
        let found = assess(&plan, day, Detail::Outline).findings;
        let bad = ["stands_nowhere", "trays_clash", "too_few_pots"];
        let bad: Vec<_> = found.iter().filter(|f| bad.contains(&f.code)).collect();
        assert_eq!(bad, Vec::<&Finding>::new(), "{home}");
        // What wants warmth lies on the mats.
        let warm = plan.sown_in("pepper").next().unwrap();
        assert_eq!(warm.stand_in(Stage::Germinate).unwrap().bay, bay("t1"));
        let again = apply(&plan, &Edit::PlaceAll { afresh: false }).unwrap_err();
        assert!(again[0].problem.text.contains("has a spot already"));
    }
}

#[test]
fn what_finds_no_spot_is_named() {
    let mut plan = room("Europe/Vienna");
    for _ in 0..3 {
        let edit = Edit::AddSowing {
            crop: "tomato".into(),
            variety: String::new(),
            wanted: 60,
            pots: true,
            autumn: false,
        };
        plan = edited(&plan, &edit);
    }
    let edited = apply(&plan, &Edit::PlaceAll { afresh: false }).unwrap();
    assert!(edited.word.text.contains("found no spot"));
    let plan = edited.plan.check().unwrap();
    let day = DateSpan::day(plan.site.last_frost);
    let found = assess(&plan, day, Detail::Outline).findings;
    let named: Vec<&String> = (found.iter())
        .filter(|f| f.code == "stands_nowhere")
        .flat_map(|f| &f.trays)
        .collect();
    for tray in plan.trays.iter().filter(|tray| tray.stands.is_empty()) {
        assert!(named.contains(&&tray.id), "{}", tray.name);
    }
    assert!(!named.is_empty());
}
