//! Where trays stand: from a stage or a date on, turned, swapped, or nowhere.

use jiff::civil::{Date, date};
use sunrise_core::ask::assess;
use sunrise_core::basis::dates::{DateSpan, plus_days};
use sunrise_core::basis::plane::Axis;
use sunrise_core::day::detail::Detail;
use sunrise_core::edit::{Edit, apply};
use sunrise_core::plan::{SoundPlan, Stage, Stand};
use sunrise_core::room::BayRef;
use sunrise_core::season::jobs::EventKind;
use sunrise_core::season::{days, jobs};
use sunrise_core::testing::{
    KETTLE_FEN_V2, bay, dates_of, done, kettle_fen, read, reckoned, refused, tray,
};

/// The bays in which the tray called `id` stands, one after another, with its first day in each.
fn spots(plan: &SoundPlan, id: &str) -> Vec<(BayRef, Date)> {
    let all = reckoned(plan);
    let own = all.stays.iter().filter(|stay| stay.tray.id == id);
    own.map(|stay| (stay.bay.clone(), stay.days.from)).collect()
}

fn move_tray(id: &str, stage: Stage, from: Option<Date>, to: BayRef) -> Edit {
    Edit::StandTrays {
        trays: vec![id.into()],
        stage,
        from,
        bay: to,
        onto: None,
    }
}

fn stand_of(plan: &SoundPlan, id: &str, stage: Stage) -> Stand {
    let tray = plan.trays.iter().find(|tray| tray.id == id).unwrap();
    tray.stand_in(stage).unwrap().clone()
}

#[test]
fn a_tray_moves_in_the_middle_of_growing_and_its_figures_follow() {
    let plan = kettle_fen(|_| ());
    let day = date(2027, 4, 20);
    let before = spots(&plan, "tc1");
    let edit = move_tray("tc1", Stage::Grow, Some(day), bay("door", "t4"));
    let moved = done(&plan, &edit);
    let after = spots(&moved, "tc1");
    assert_eq!(after.len(), before.len() + 1);
    assert!(after.contains(&(bay("door", "t4"), day)), "{after:?}");
    let stands_on = |plan: &SoundPlan, day: Date| -> String {
        let room = assess(plan, DateSpan::day(day), Detail::Outline)
            .room
            .remove(0);
        let bays = room.bays.into_iter();
        let holds =
            |b: &sunrise_core::day::bay::BayOnDay| b.trays().iter().any(|t| t.tray == "tc1");
        let found: Vec<_> = bays.filter(holds).collect();
        assert_eq!(found.len(), 1, "it stands in one bay");
        found[0].bay.tier.clone()
    };
    assert_ne!(stands_on(&moved, plus_days(day, -1)), "t4");
    assert_eq!(stands_on(&moved, day), "t4");
    // It is a job, and what the room holds is the same.
    let all = reckoned(&moved);
    let jobs = jobs::all(&all);
    let moves = |job: &&jobs::Event| job.what == EventKind::Move && job.date == day;
    let job = jobs.iter().find(moves).unwrap();
    assert_eq!((job.date, job.tray.as_deref()), (day, Some("tc1")));
    let counts = |plan: &SoundPlan| -> Vec<u32> {
        let days = days(&reckoned(plan), plan.season);
        days.iter().map(|day| day.trays).collect()
    };
    assert_eq!(counts(&plan), counts(&moved));
    // The same move once more changes its bay, not its number of moves.
    let again = move_tray("tc1", Stage::Grow, Some(day), bay("coat", "t1"));
    if let Ok(edited) = apply(&moved, &again) {
        let again = edited.plan.check().unwrap();
        assert_eq!(spots(&again, "tc1").len(), after.len());
    }
}

#[test]
fn a_move_after_its_stage_or_into_a_full_bay_is_refused_with_the_reason() {
    let plan = kettle_fen(|_| ());
    let late = move_tray(
        "tc1",
        Stage::Grow,
        Some(date(2027, 6, 20)),
        bay("door", "t4"),
    );
    assert_eq!(refused(&plan, &late).path, "/from");
    let nobody = move_tray("nobody", Stage::Grow, None, bay("door", "t4"));
    assert_eq!(refused(&plan, &nobody).path, "/trays");
}

#[test]
fn two_trays_change_places_and_a_tray_is_turned_only_where_it_fits() {
    let plan = kettle_fen(|_| ());
    let day = date(2027, 4, 9);
    let swapped = done(
        &plan,
        &Edit::SwapTrays {
            tray: "tc1".into(),
            with: "tc2".into(),
            on: day,
        },
    );
    let [one, two] = ["tc1", "tc2"].map(|id| stand_of(&plan, id, Stage::Grow));
    assert!(stand_of(&swapped, "tc1", Stage::Grow).same_spot(&two));
    assert!(stand_of(&swapped, "tc2", Stage::Grow).same_spot(&one));

    let turn = Edit::TurnTray {
        tray: "tc1".into(),
        on: day,
    };
    // Its neighbour is in the way.
    assert_eq!(refused(&plan, &turn).path, "/tray");
    let alone = kettle_fen(|plan| plan.trays.retain(|tray| tray.id == "tc1"));
    let along = |plan: &SoundPlan| stand_of(plan, "tc1", Stage::Grow).along;
    let turned = done(&alone, &turn);
    assert_eq!([along(&alone), along(&turned)], [Axis::Y, Axis::X]);
    let winter = Edit::TurnTray {
        tray: "tc1".into(),
        on: date(2027, 1, 20),
    };
    assert_eq!(refused(&plan, &winter).path, "/on");
}

#[test]
fn what_stands_nowhere_is_counted_and_nothing_is_praised_of_it() {
    let plan = kettle_fen(|plan| {
        tray(plan, "pa1").stands.clear();
    });
    let all = reckoned(&plan);
    let parsley = dates_of(&all, "parsley");
    assert!(!parsley.stands);
    assert_eq!(parsley.pace, None);
    assert!(
        parsley
            .why
            .emerge
            .rule
            .to_string()
            .contains("no tray has a spot")
    );
    let there = |day: Date| {
        let days = days(&all, DateSpan::day(day));
        let room = assess(&plan, DateSpan::day(day), Detail::Outline)
            .room
            .remove(0);
        assert_eq!(days[0].unplaced as usize, room.unplaced.len());
        room.unplaced
    };
    let sown = there(parsley.sow);
    assert!(sown.iter().any(|tray| tray.tray == "pa1"), "{sown:?}");
    assert_eq!(sown[0].stage, Stage::Germinate);
    assert!(there(parsley.harden).is_empty());
    // From its first stage on it stands for all of its growing.
    let grew_in = stand_of(&kettle_fen(|_| ()), "pa1", Stage::Grow).bay;
    let edit = move_tray("pa1", Stage::Germinate, None, grew_in);
    let placed = done(&plan, &edit);
    assert_eq!(spots(&placed, "pa1").len(), 1);
    assert!(dates_of(&reckoned(&placed), "parsley").pace.is_some());
}

#[test]
fn plans_of_version_2_mean_the_same_today() {
    let old: serde_json::Value = serde_json::from_str(KETTLE_FEN_V2).unwrap();
    assert_eq!(old["schema_version"], 2);
    let plan = read(KETTLE_FEN_V2).check().unwrap();
    // Nothing is in it but its version that was not there before, and nothing is lost.
    let mut new = serde_json::to_value(&*plan).unwrap();
    new["schema_version"] = 2.into();
    assert_eq!(as_numbers(new), as_numbers(old));
    // Days as they were when it was written.
    let all = reckoned(&plan);
    for (sowing, sow, emerge) in [
        ("onion", date(2027, 1, 26), date(2027, 1, 31)),
        ("pepper", date(2027, 3, 18), date(2027, 3, 27)),
        ("parsley", date(2027, 2, 18), date(2027, 3, 4)),
        ("tomato", date(2027, 3, 31), date(2027, 4, 8)),
    ] {
        let dates = dates_of(&all, sowing);
        assert_eq!((dates.sow, dates.emerge), (sow, Some(emerge)), "{sowing}");
    }
    let day = days(&all, DateSpan::day(date(2027, 4, 9)));
    assert_eq!((day[0].trays, day[0].unplaced), (18, 0));
}

/// `document` with every number as a float: 2 and 2.0 are the same.
fn as_numbers(document: serde_json::Value) -> serde_json::Value {
    use serde_json::Value;
    match document {
        Value::Number(n) => n.as_f64().unwrap().into(),
        Value::Array(list) => list.into_iter().map(as_numbers).collect(),
        Value::Object(map) => map.into_iter().map(|(k, v)| (k, as_numbers(v))).collect(),
        other => other,
    }
}
