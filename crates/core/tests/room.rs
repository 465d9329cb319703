//! The room's own geometry: what decks, walls, mats and lamps leave each other.

use jiff::civil::date;
use serde_json::{Value, json};
use sunrise_core::ask::assess;
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::detail::Detail;
use sunrise_core::plan::{Plan, SoundPlan};
use sunrise_core::room::{bays, place_pointer};
use sunrise_core::space::floor::{free_in_front_mm, outline, standing_area};
use sunrise_core::testing::kettle_fen;

/// The demo with one value changed, if that is sound.
fn changed(path: &str, value: Value) -> Option<SoundPlan> {
    let mut document = serde_json::to_value(&*kettle_fen(|_| ())).unwrap();
    *document.pointer_mut(path).unwrap() = value;
    serde_json::from_value::<Plan>(document)
        .unwrap()
        .check()
        .ok()
}

#[test]
fn a_deck_moves_as_far_as_its_range_says_and_no_further() {
    let plan = kettle_fen(|_| ());
    for (p, place) in plan.places.iter().enumerate() {
        for t in 0..place.tiers.len() {
            let at = format!("{}/tiers/{t}/deck_height_mm", place_pointer(p));
            let [least, most] = place.deck_range_mm(t);
            assert!(least <= most, "{at}");
            for inside in [least, most] {
                assert!(changed(&at, json!(inside)).is_some(), "{at} = {inside}");
            }
            assert!(
                changed(&at, json!(least - 1.0)).is_none(),
                "{at} under {least}"
            );
            // A deck right at the top, as a lid, is odd but no fault.
            if t + 1 < place.tiers.len() {
                assert!(
                    changed(&at, json!(most + 1.0)).is_none(),
                    "{at} over {most}"
                );
            }
        }
    }
}

#[test]
fn a_place_shrinks_as_far_as_it_says_and_keeps_everything_in_it() {
    let plan = kettle_fen(|_| ());
    let day = DateSpan::day(date(2027, 4, 9));
    let room = &assess(&plan, day, Detail::Outline).room[0];
    for (p, on_day) in room.places.iter().enumerate() {
        for (i, field) in ["width_mm", "depth_mm", "height_mm"].iter().enumerate() {
            let at = format!("{}/{field}", place_pointer(p));
            let least = on_day.least_mm[i];
            // Chambers' lamps are held by the walls, which the walls' own fault says.
            if on_day.place != "cabinet" && least > 160.0 {
                assert!(changed(&at, json!(least)).is_some(), "{at} = {least}");
                let lower = changed(&at, json!(least - 2.0));
                assert!(
                    *field == "height_mm" || lower.is_none(),
                    "{at} below {least}"
                );
            }
        }
    }
}

#[test]
fn decks_snap_to_the_pitch_and_stay_where_there_is_none() {
    let plan = kettle_fen(|_| ());
    let [door, _, cabinet, bench, ..] = &plan.places[..] else {
        panic!("the demo has six places")
    };
    assert!((door.snapped_mm(503.0) - 500.0).abs() < 1e-9);
    assert!((cabinet.snapped_mm(111.0) - 120.0).abs() < 1e-9);
    assert!((bench.snapped_mm(843.0) - 843.0).abs() < 1e-9);
    assert_eq!(bench.pitch_mm(), None);
}

#[test]
fn walls_stand_outside_the_decks() {
    let plan = kettle_fen(|_| ());
    let cabinet = plan.place("cabinet").unwrap();
    assert!((cabinet.wall_mm() - 45.0).abs() < 1e-9);
    let [w, d, h] = cabinet.outer_mm();
    assert!((w - 710.0).abs() < 1e-9 && (d - 660.0).abs() < 1e-9 && (h - 1735.0).abs() < 1e-9);
    assert_eq!(
        plan.place("door").unwrap().outer_mm(),
        [1220.0, 610.0, 1900.0]
    );
}

#[test]
fn a_place_with_one_tier_goes_by_its_own_name() {
    let plan = kettle_fen(|_| ());
    let names: Vec<String> = bays(&plan.places).map(|bay| bay.name()).collect();
    assert!(names.contains(&"Door rack, Tier 2".to_owned()));
    assert!(names.contains(&"South bench".to_owned()));
}

#[test]
fn free_floor_ends_at_the_wall_or_at_what_stands_opposite() {
    let plan = kettle_fen(|_| ());
    let at = |id: &str| plan.place(id).expect(id);
    let free = |id: &str| free_in_front_mm(at(id), &plan.room, &plan.places).unwrap();
    // The wire rack looks at the near wall; the coat rack at the bench, 600 mm deep.
    assert!((free("door") - 1590.0).abs() < 1e-9);
    assert!((free("coat") - 990.0).abs() < 1e-9);
    assert!((free("bench") - 940.0).abs() < 1e-9, "up to the cabinet");
    // A window has no outline on the floor, a cold frame none in the room.
    assert!(outline(at("window")).is_none() && outline(at("frame")).is_none());
    let area = standing_area(at("door")).unwrap();
    assert!((area.y_mm[1] - 1590.0).abs() < 1e-9);
}

#[test]
fn a_mat_lies_whole_on_its_deck_and_a_lamp_stays_within_walls() {
    let mat = "/places/0/tiers/2/mats/0";
    assert!(changed(&format!("{mat}/x_mm"), json!(20)).is_some());
    assert!(changed(&format!("{mat}/x_mm"), json!(21)).is_none());
    assert!(changed(&format!("{mat}/along"), json!("y")).is_none());
    let lamp = "/places/2/tiers/4/lamps/0";
    // 540 mm between walls 620 mm apart: its middle from 270 to 350.
    assert!(changed(&format!("{lamp}/x_mm"), json!(270)).is_some());
    assert!(changed(&format!("{lamp}/x_mm"), json!(260)).is_none());
    assert!(changed(&format!("{lamp}/along"), json!("y")).is_none());
}
