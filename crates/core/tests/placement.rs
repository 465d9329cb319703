//! Placing, against proven answers and an independent look at every answer.
//!
//! The instances of 12 and 30 trays with their least penalty and cost were solved by HiGHS; see
//! `reference/placement.py`. The cost of the larger one was proven to be no less than 905.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use sunrise_core::ask::{Detail, Edit, apply, assess};
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::placement::solver::{Answer, Instance, StageOf, place};
use sunrise_core::plan::{SoundPlan, Stage, Tray};
use sunrise_core::season::stays::clashes;
use sunrise_core::testing::instances::crowded;
use sunrise_core::testing::{kettle_fen, reckoned};

/// What an answer costs, reckoned anew from the question alone; it panics where something stands where
/// it may not, or a place holds more than it can.
fn weighed(instance: &Instance, answer: &Answer) -> (i64, i64) {
    let capacity = instance
        .places
        .iter()
        .map(|place| (&*place.id, place.capacity));
    let capacity: HashMap<&str, u32> = capacity.collect();
    let mut there: HashMap<(&str, u32), u32> = HashMap::new();
    let mut lit: BTreeSet<(&str, u32)> = BTreeSet::new();
    let (mut unplaced, mut cost) = (0, 0);
    assert_eq!(answer.assignment.len(), instance.trays.len());
    for tray in &instance.trays {
        let places = &answer.assignment[&tray.id];
        assert_eq!(places.len(), tray.stages.len());
        for (stage, place) in tray.stages.iter().zip(places) {
            let days = i64::from(stage.to - stage.from);
            let Some(place) = place else {
                unplaced += i64::from(tray.weight) * days;
                assert!(stage.pinned.is_none());
                continue;
            };
            assert!(stage.pinned.as_ref().is_none_or(|pin| pin == place));
            cost += days * i64::from(stage.places[place]);
            cost += if stage.was.as_ref().is_some_and(|was| was != place) {
                5
            } else {
                0
            };
            for day in stage.from..stage.to {
                let there = there.entry((place, day)).or_default();
                *there += 1;
                assert!(*there <= capacity[&**place], "{place} on {day}");
                if stage.needs_light {
                    lit.insert((place, day));
                }
            }
        }
        let moved = places
            .windows(2)
            .filter(|two| matches!(two, [Some(a), Some(b)] if a != b));
        cost += 10 * moved.count() as i64;
    }
    (unplaced, cost + lit.len() as i64)
}

fn placed(instance: &Instance) -> Answer {
    let answer = place(instance, &mut |_| true).expect("it is sound");
    assert_eq!(weighed(instance, &answer), (answer.unplaced, answer.cost));
    assert!(answer.unplaced_bound <= answer.unplaced && answer.cost_bound <= answer.cost);
    answer
}

fn of(text: &str) -> Instance {
    serde_json::from_str(text).expect("an instance")
}

#[test]
fn the_least_penalty_is_found_and_the_cost_is_within_three_percent_of_the_best() {
    for (text, unplaced, cost, bound) in [
        (
            include_str!("reference/placement-12-trays.json"),
            324,
            451,
            451,
        ),
        (
            include_str!("reference/placement-30-trays.json"),
            1572,
            920,
            905,
        ),
    ] {
        let answer = placed(&of(text));
        assert_eq!(
            (answer.unplaced, answer.unplaced_bound),
            (unplaced, unplaced)
        );
        let dear = answer.cost as f64 / f64::from(cost);
        assert!(
            (f64::from(bound) / f64::from(cost)..=1.03).contains(&dear),
            "{}",
            answer.cost
        );
        // The own proof is weaker, and never wrong.
        assert!(
            answer.cost_bound <= i64::from(cost) && answer.cost_bound > i64::from(cost) * 9 / 10
        );
    }
}

#[test]
fn a_crowded_room_is_filled_to_within_a_few_percent_of_what_is_proven() {
    let answer = placed(&crowded(1, 4, 40, 130));
    let slack = answer.unplaced as f64 / answer.unplaced_bound.max(1) as f64;
    assert!(
        slack < 1.03,
        "{} {}",
        answer.unplaced,
        answer.unplaced_bound
    );
    assert!(answer.cost_bound > answer.cost / 2);
}

#[test]
fn the_same_question_has_the_same_answer() {
    let instance = crowded(2, 2, 12, 90);
    let json = || serde_json::to_string(&placed(&instance)).unwrap();
    let beside = std::thread::spawn({
        let instance = instance.clone();
        move || serde_json::to_string(&placed(&instance)).unwrap()
    });
    assert_eq!(json(), beside.join().unwrap());
}

#[test]
fn what_is_pinned_stays_and_the_rest_makes_room() {
    let mut instance = crowded(3, 2, 12, 90);
    let free = placed(&instance);
    let stage = &mut instance.trays[0].stages[1];
    let elsewhere = stage
        .places
        .keys()
        .find(|id| Some(*id) != free.assignment["t1.0"][1].as_ref());
    stage.pinned = elsewhere.cloned();
    let pinned = placed(&instance);
    assert_eq!(
        pinned.assignment["t1.0"][1],
        instance.trays[0].stages[1].pinned
    );
    assert!((pinned.unplaced, pinned.cost) >= (free.unplaced, free.cost));
}

/// The same, each stage where `answer` has it.
fn standing(instance: &Instance, answer: &Answer) -> Instance {
    let mut standing = instance.clone();
    standing.keep = true;
    for tray in &mut standing.trays {
        for (stage, place) in tray.stages.iter_mut().zip(&answer.assignment[&tray.id]) {
            stage.was.clone_from(place);
        }
    }
    standing
}

fn moved(before: &Answer, after: &Answer) -> Vec<String> {
    let trays = before.assignment.iter();
    let moved =
        trays.filter(|(id, places)| after.assignment.get(*id).is_some_and(|p| p != *places));
    moved.map(|(id, _)| id.clone()).collect()
}

#[test]
fn after_a_small_edit_only_what_must_moves() {
    // Roomy enough for all, so that nothing gains by anything else.
    let instance = crowded(4, 6, 16, 150);
    let before = placed(&instance);
    let kept = standing(&instance, &before);
    assert_eq!(placed(&kept).assignment, before.assignment);
    // One tray cannot stay where it grew.
    let mut edited = kept.clone();
    let tray = edited
        .trays
        .iter()
        .position(|tray| tray.stages.len() == 4)
        .unwrap();
    let id = edited.trays[tray].id.clone();
    let was = before.assignment[&id][1]
        .clone()
        .expect("it stood somewhere");
    edited.trays[tray].stages[1].places.remove(&was);
    let after = placed(&edited);
    assert_eq!(after.unplaced, before.unplaced);
    assert_eq!(moved(&before, &after), [id]);
}

#[test]
fn where_it_is_stopped_the_best_so_far_is_the_answer() {
    let instance = crowded(5, 4, 40, 130);
    let mut told = 0;
    let answer = place(&instance, &mut |progress| {
        told += 1;
        assert!((0.0..=1.0).contains(&progress.done));
        told < 3
    });
    let answer = answer.unwrap();
    assert!(answer.stopped && told == 3);
    assert_eq!(weighed(&instance, &answer), (answer.unplaced, answer.cost));
}

#[test]
fn what_makes_no_sense_is_refused_with_its_path() {
    let base = of(include_str!("reference/placement-12-trays.json"));
    let faults = |change: &dyn Fn(&mut Instance)| -> Vec<String> {
        let mut instance = base.clone();
        change(&mut instance);
        let faults = place(&instance, &mut |_| true).unwrap_err();
        faults.into_iter().map(|fault| fault.path).collect()
    };
    let stage = |i: &mut Instance, change: &dyn Fn(&mut StageOf)| change(&mut i.trays[0].stages[1]);
    let paths: [(&str, Vec<String>); 8] = [
        (
            "/trays/0/stages/1/to",
            faults(&|i| stage(i, &|s| s.to = s.from)),
        ),
        (
            "/trays/0/stages/1/from",
            faults(&|i| stage(i, &|s| s.from -= 3)),
        ),
        (
            "/trays/0/stages/1/places/attic",
            faults(&|i| stage(i, &|s| s.places = BTreeMap::from([("attic".into(), 0)]))),
        ),
        (
            "/trays/0/stages/1/pinned",
            faults(&|i| stage(i, &|s| s.pinned = Some("frame".into()))),
        ),
        (
            "/trays/1/id",
            faults(&|i| i.trays[1].id = i.trays[0].id.clone()),
        ),
        (
            "/places/3/capacity",
            faults(&|i| i.places[3].capacity = u32::MAX),
        ),
        ("/days", faults(&|i| i.days = 4_000_000)),
        (
            "/trays",
            faults(&|i| i.trays = vec![i.trays[0].clone(); 1_000_000]),
        ),
    ];
    for (path, found) in paths {
        assert!(found.iter().any(|p| p == path), "{path}: {found:?}");
    }
    // More pinned than a place holds.
    let crowd = faults(&|i| {
        for tray in i.trays.iter_mut().filter(|tray| tray.stages.len() == 2) {
            tray.stages[1].from = 100;
            tray.stages[1].to = 110;
            tray.stages[1].pinned = Some("frame".into());
        }
    });
    assert!(
        crowd.iter().all(|path| path.ends_with("pinned")) && !crowd.is_empty(),
        "{crowd:?}"
    );
}

#[test]
fn empty_rooms_and_trays_without_stages_are_no_trouble() {
    let nothing = of(r#"{"days": 1, "places": [], "trays": []}"#);
    assert_eq!(placed(&nothing).assignment, BTreeMap::new());
    let none = of(
        r#"{"days": 9, "places": [{"id": "a", "capacity": 0}], "trays": [
        {"id": "t", "weight": 2, "stages": [{"from": 1, "to": 4, "needs_light": true, "places": {"a": 0}}]},
        {"id": "u", "weight": 3, "stages": [{"from": 1, "to": 4, "needs_light": true, "places": {}}]},
        {"id": "v", "weight": 3, "stages": []}]}"#,
    );
    let answer = placed(&none);
    assert_eq!(
        (answer.unplaced, answer.unplaced_bound, answer.cost),
        (15, 15, 0)
    );
}

/// The demo with the trays `bare` taken off their spots.
fn without_spots(bare: &[&str]) -> SoundPlan {
    kettle_fen(|plan| {
        for tray in &mut plan.trays {
            if bare.contains(&tray.id.as_str()) {
                tray.stands.clear();
            }
        }
    })
}

fn all_placed(plan: &SoundPlan, afresh: bool) -> SoundPlan {
    let edited = apply(plan, &Edit::PlaceAll { afresh }).expect("it places them");
    let placed = edited.plan.check().unwrap();
    let all = reckoned(&placed);
    assert_eq!(clashes(&all.stays), []);
    // The demo has no room for one of the tall tomatoes.
    let without: Vec<&str> = all.unplaced.iter().map(|one| &*one.tray.id).collect();
    assert!(
        without.iter().all(|id| id.starts_with("tt")) && without.len() <= 1,
        "{without:?}"
    );
    for tray in &placed.trays {
        let Some(stand) = tray.stand_in(Stage::Grow) else {
            continue;
        };
        let bay = placed.bay(&stand.bay).unwrap();
        assert!(
            !bay.tier.lamps.is_empty() || bay.place.has_daylight(),
            "{}",
            tray.name
        );
    }
    placed
}

#[test]
fn trays_without_a_spot_find_theirs_and_the_others_stay() {
    let bare = ["to1", "ca2", "le1", "pe2"];
    let plan = without_spots(&bare);
    let placed = all_placed(&plan, false);
    for (before, after) in plan.trays.iter().zip(&placed.trays) {
        let grows = |tray: &Tray| {
            tray.stand_in(Stage::Grow)
                .map(|s| (s.bay.clone(), s.x_mm, s.y_mm))
        };
        assert!(
            bare.contains(&&*before.id) || grows(before) == grows(after),
            "{}",
            before.name
        );
    }
}

#[test]
fn a_whole_season_is_placed_afresh_with_like_beside_like() {
    let placed = all_placed(&without_spots(&[]), true);
    let day = DateSpan::day(jiff::civil::date(2027, 4, 9));
    let found = assess(&placed, day, Detail::Outline).findings;
    // No tray asks for a light that its neighbours cannot have.
    assert!(found.iter().all(|finding| finding.code != "tray_elsewhere"));
}
