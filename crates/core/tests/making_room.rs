//! A season that does not fit: what is short, and ways to make room, each looked at anew.

use jiff::civil::date;
use sunrise_core::ask::{Edit, Fields, Held, apply, least_gear, make_room, spots};
use sunrise_core::placement::solver::{Instance, place, short};
use sunrise_core::placement::{crowding, served};
use sunrise_core::plan::{Plan, SoundPlan, Stage};
use sunrise_core::season::stays::clashes;
use sunrise_core::testing::{kettle_fen, reckoned};

fn shortages(text: &str) -> Vec<(u32, u32, Vec<String>, u32, u32)> {
    let instance: Instance = serde_json::from_str(text).expect("an instance");
    let answer = place(&instance, &mut |_| true).expect("it is sound");
    let all = short(&instance, &answer).into_iter();
    all.map(|own| {
        let places = own.places.into_iter().collect();
        (own.from, own.to, places, own.wanted, own.held)
    })
    .collect()
}

#[test]
fn what_is_short_is_the_fewest_places_that_leave_no_way_out() {
    // The third tray may only use a; one of those that may use a or b is there, and b is full as well.
    let found = shortages(
        r#"{"days": 10, "places": [{"id": "a", "capacity": 1}, {"id": "b", "capacity": 1}, {"id": "c", "capacity": 5}],
        "trays": [
        {"id": "s", "weight": 9, "stages": [{"from": 0, "to": 9, "needs_light": false, "places": {"a": 0, "b": 0}}]},
        {"id": "t", "weight": 9, "stages": [{"from": 2, "to": 6, "needs_light": false, "places": {"b": 0}}]},
        {"id": "u", "weight": 1, "stages": [{"from": 4, "to": 8, "needs_light": false, "places": {"a": 0}}]},
        {"id": "v", "weight": 1, "stages": [{"from": 4, "to": 8, "needs_light": false, "places": {"c": 0}}]}]}"#,
    );
    let both = || vec!["a".to_owned(), "b".to_owned()];
    assert_eq!(found, [(4, 6, both(), 3, 2)]);
}

#[test]
fn a_place_that_is_free_on_each_day_but_never_for_long_is_said_to_be_broken_up() {
    let found = shortages(
        r#"{"days": 8, "places": [{"id": "a", "capacity": 1}, {"id": "b", "capacity": 1}],
        "trays": [
        {"id": "s", "weight": 9, "stages": [{"from": 0, "to": 4, "needs_light": false, "places": {"a": 0}}]},
        {"id": "t", "weight": 9, "stages": [{"from": 4, "to": 8, "needs_light": false, "places": {"b": 0}}]},
        {"id": "u", "weight": 1, "stages": [{"from": 2, "to": 6, "needs_light": false, "places": {"a": 0, "b": 0}}]}]}"#,
    );
    assert_eq!(found.len(), 1);
    let (from, to, _, wanted, held) = &found[0];
    assert_eq!((*from, *to, *wanted), (2, 6, 0));
    assert!(wanted <= held);
}

#[test]
fn a_tray_that_suits_no_place_is_short_of_all_of_them() {
    let found = shortages(
        r#"{"days": 8, "places": [{"id": "a", "capacity": 1}],
        "trays": [{"id": "u", "weight": 1, "stages": [{"from": 2, "to": 6, "needs_light": false, "places": {}}]}]}"#,
    );
    assert_eq!(found, [(2, 6, vec![], 1, 0)]);
}

fn nowhere(plan: &Plan) -> (usize, usize) {
    let sound = plan.clone().check().unwrap();
    let all = reckoned(&sound);
    (all.unplaced.len(), clashes(&all.stays).len())
}

#[test]
fn the_demo_has_one_tray_too_many_and_every_way_out_holds() {
    let plan = kettle_fen(|_| ());
    let fields = Fields::default();
    let mut heard = 0;
    let overflow = make_room(&plan, &fields, &mut |_| {
        heard += 1;
        true
    });
    assert_eq!(overflow.crowding.without.len(), 1);
    let [shortage] = &overflow.crowding.shortages[..] else {
        panic!("{:?}", overflow.crowding)
    };
    assert_eq!(shortage.stage, Stage::Grow);
    assert_eq!((shortage.wanted, shortage.held), (3, 2));
    assert!(shortage.days.from > date(2027, 5, 1) && shortage.days.to < date(2027, 6, 1));
    assert_eq!(shortage.bays.len(), 1);
    let nearly = shortage.nearly.as_ref().expect("the bench nearly does");
    assert!(
        nearly.to_string().starts_with("South bench comes next"),
        "{nearly}"
    );
    // Counted by hand: three trays are potted, and the sill holds two.
    assert!(heard > 5 && overflow.all_tried);
    assert!(overflow.ways.len() >= 2);
    for way in &overflow.ways {
        assert_eq!(way.left, 0);
        assert_eq!(nowhere(&way.edited.plan), (0, 0), "{:?}", way.steps);
    }
    let words: Vec<String> = overflow
        .ways
        .iter()
        .map(|way| way.steps[0].to_string())
        .collect();
    assert!(
        words
            .iter()
            .any(|step| step.contains("in place of 3 trays")),
        "{words:?}"
    );
    assert!(
        words.iter().any(|step| step.starts_with("Raise 16")),
        "{words:?}"
    );
}

#[test]
fn who_stops_it_has_what_was_found_so_far() {
    let plan = kettle_fen(|_| ());
    let mut left = 3;
    let overflow = make_room(&plan, &Fields::default(), &mut |_| {
        left -= 1;
        left > 0
    });
    assert!(!overflow.all_tried);
    assert_eq!(overflow.crowding.shortages.len(), 1);
}

#[test]
fn a_room_without_light_is_said_to_have_none_and_where_all_fit_nothing_is_short() {
    let dark = kettle_fen(|plan| {
        plan.places.retain(|place| place.id != "window");
        for tier in plan.places.iter_mut().flat_map(|place| &mut place.tiers) {
            tier.lamps.clear();
        }
        plan.trays.iter_mut().for_each(|tray| tray.stands.clear());
    });
    let found = crowding(&reckoned(&dark), &mut |_| true);
    assert!(found.without.len() > 20);
    assert!(found.shortages.iter().any(|own| own.bays.is_empty()));
    let fits = kettle_fen(|plan| plan.trays.retain(|tray| tray.id != "tt4"));
    let found = make_room(&fits, &Fields::default(), &mut |_| true);
    assert_eq!(found.crowding.shortages, []);
    assert_eq!((found.crowding.without.len(), found.ways.len()), (0, 0));
}

#[test]
fn two_trays_too_many_are_made_room_for_by_more_than_one_change() {
    let plan = kettle_fen(|plan| {
        let last = plan
            .trays
            .iter()
            .find(|tray| tray.id == "tt4")
            .unwrap()
            .clone();
        for n in 5..9 {
            let mut more = last.clone();
            more.id = format!("tt{n}");
            more.name = format!("Tt{n}");
            plan.trays.push(more);
        }
        // No other pots to choose from.
        let sowing = plan
            .sowings
            .iter_mut()
            .find(|s| s.id == "tomato-tall")
            .unwrap();
        sowing.wanted = 56;
    });
    let overflow = make_room(&plan, &Fields::default(), &mut |_| true);
    let best = overflow.ways.first().expect("something helps");
    assert!(best.left < overflow.crowding.without.len() as u32);
    assert_eq!(nowhere(&best.edited.plan).0 as u32, best.left);
}

#[test]
fn the_gear_that_could_be_left_out_is_not_missed_and_one_fewer_would_be() {
    let plan = kettle_fen(|_| ());
    let fields = Fields::default();
    let all = served(&plan, &fields);
    let least = least_gear(&plan, &fields, &mut |_| true);
    assert_eq!(least.without, all.without);
    assert!(least.all_tried);
    assert!(0 < least.lit_shelves.need && least.lit_shelves.need < least.lit_shelves.have);
    assert!(0 < least.places.need && least.places.need <= least.places.have);
    // Without any lamps nothing grows.
    let dark = kettle_fen(|plan| {
        for tier in plan.places.iter_mut().flat_map(|place| &mut place.tiers) {
            tier.lamps.clear();
        }
    });
    assert!(served(&dark, &fields).without > all.without);
    assert_eq!(
        least_gear(&dark, &fields, &mut |_| true).lit_shelves.have,
        0
    );
}

#[test]
fn a_pinned_tray_stays_where_all_others_are_placed_afresh() {
    let pinned = ["le1", "to1"];
    let plan: SoundPlan = kettle_fen(|plan| {
        for tray in &mut plan.trays {
            tray.pinned = pinned.contains(&&*tray.id);
        }
    });
    let placed = apply(&plan, &Edit::PlaceAll { afresh: true }).unwrap().plan;
    let mut moved = 0;
    for (before, after) in plan.trays.iter().zip(&placed.trays) {
        if before.pinned {
            assert_eq!(before.stands, after.stands, "{}", before.name);
        }
        moved += usize::from(before.stands != after.stands);
    }
    assert!(moved > 5, "{moved}");
}

#[test]
fn a_shelf_that_plants_outgrow_says_from_when_on() {
    let plan = kettle_fen(|_| ());
    let held = Held {
        tray: "tt4".into(),
        stage: Stage::Grow,
        from: None,
        stacked: false,
    };
    let all = spots(&plan, &held, &Fields::default()).unwrap();
    let bench = all.iter().find(|own| own.bay.place == "bench").unwrap();
    let against = bench
        .against
        .as_ref()
        .expect("it is too low in the end")
        .to_string();
    assert!(against.starts_with("too low from 2027-05-"), "{against}");
    let window = all.iter().find(|own| own.bay.place == "window").unwrap();
    let against = window.against.as_ref().map(ToString::to_string);
    assert!(against.is_none_or(|against| !against.contains("too low")));
}

#[test]
fn where_shelves_are_few_trays_are_stacked_until_they_come_up() {
    let plan = kettle_fen(|plan| {
        plan.trays
            .retain(|tray| ["to1", "to2", "tp1"].contains(&&*tray.id));
        for tray in &mut plan.trays {
            tray.parts[0].sowing = "tomato".into();
            tray.format = "pots-18".into();
            tray.stands.clear();
        }
        // Under domes they go on no rack, and a single shelf of the cabinet holds two.
        let pots = plan
            .tray_formats
            .iter_mut()
            .find(|f| f.id == "pots-18")
            .unwrap();
        pots.dome_height_mm = Some(290.0);
        plan.places
            .retain(|place| ["door", "cabinet"].contains(&&*place.id));
        for place in &mut plan.places {
            if place.id == "cabinet" {
                place.tiers.retain(|tier| tier.id == "t1");
            }
        }
    });
    let placed = apply(&plan, &Edit::PlaceAll { afresh: true }).unwrap().plan;
    assert_eq!(nowhere(&placed), (0, 0));
    let stacked = |tray: &&sunrise_core::plan::Tray| tray.stands.iter().any(|own| own.stacked);
    assert_eq!(placed.trays.iter().filter(stacked).count(), 1);
    for tray in placed.trays.iter().filter(stacked) {
        let grows = tray.stand_in(Stage::Grow).expect("it comes down to grow");
        assert!(!grows.stacked);
    }
}
