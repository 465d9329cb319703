//! Stages by date, where trays stand in them, and what fits.

use jiff::civil::{Date, date};
use sunrise_core::bays::Looker;
use sunrise_core::placement::{clashes, leaves_on, places_held, standing_in};
use sunrise_core::plan::{DateSpan, Plan, SoundPlan, Stage};
use sunrise_core::power::Power;
use sunrise_core::room::{self, BayRef};
use sunrise_core::season::dates;
use sunrise_core::site::{days_between, plus_days};

fn demo(change: impl FnOnce(&mut Plan)) -> SoundPlan {
    let mut plan: Plan =
        serde_json::from_str(include_str!("../../../demo/kettle-fen.json")).unwrap();
    change(&mut plan);
    plan.check().unwrap_or_else(|faults| panic!("{faults:#?}"))
}

fn rack(plan: &mut Plan) -> &mut room::Rack {
    let room::Place::Rack(rack) = &mut plan.places[0];
    rack
}

#[test]
fn stages_follow_each_other_without_gap_or_overlap() {
    let plan = demo(|_| ());
    for dates in dates(&plan) {
        assert_eq!(dates.stage_on(plus_days(dates.sow, -1)), None);
        let mut last = Stage::Germinate;
        for day in (DateSpan {
            from: dates.sow,
            to: dates.out,
        })
        .days()
        {
            let stage = dates.stage_on(day).unwrap();
            assert!(stage >= last, "{} on {day}", dates.name);
            last = stage;
        }
        assert_eq!(last, Stage::Out);
        assert_eq!(dates.stage_on(dates.sow), Some(Stage::Germinate));
        assert_eq!(dates.stage_on(dates.emerge.unwrap()), Some(Stage::Grow));
        assert_eq!(dates.stage_on(dates.harden), Some(Stage::Harden));
        assert_eq!(dates.days_up(dates.emerge.unwrap()), Some(0));
        assert_eq!(dates.days_up(plus_days(dates.emerge.unwrap(), -1)), None);
    }
}

#[test]
fn dates_count_back_from_the_last_frost_in_whole_weeks() {
    // Tomato: out two weeks after 6 May, seven weeks indoors, and one day more because it comes up
    // in 7.1 days at 22 °C (between 8.2 at 20 and 5.9 at 25) against 6.3 at 24.
    let plan = demo(|_| ());
    let all = dates(&plan);
    let tomato = all.iter().find(|d| d.sowing == "tomato").unwrap();
    assert_eq!(tomato.out, date(2027, 5, 20));
    assert_eq!(tomato.sow, date(2027, 3, 31));
    assert_eq!(tomato.emerge, Some(date(2027, 4, 8)));
    assert_eq!(days_between(tomato.harden, tomato.out), 10);
    // Lettuce is hardy: out three weeks before the last frost.
    let lettuce = all.iter().find(|d| d.sowing == "lettuce").unwrap();
    assert_eq!(lettuce.out, date(2027, 4, 15));
}

#[test]
fn without_a_measured_root_zone_the_rooms_air_decides() {
    let with = |day_c, night_c| {
        let plan = demo(|plan| {
            plan.site.air.day_c = day_c;
            plan.site.air.night_c = night_c;
        });
        let all = dates(&plan);
        let days = |id: &str| {
            all.iter()
                .find(|d| d.sowing == id)
                .unwrap()
                .emergence_days
                .unwrap()
        };
        (days("lettuce"), days("tomato"))
    };
    let (warm, cool) = (with(20.0, 20.0), with(20.0, 10.0));
    assert!(
        (warm.0 - 2.6).abs() < 1e-9,
        "lettuce at 20 °C by the handbook"
    );
    assert!(cool.0 > warm.0, "cold nights delay it");
    assert_eq!(cool.1, warm.1, "tomatoes have a thermometer in the mix");
}

#[test]
fn a_tray_moves_when_a_later_stage_names_another_bay() {
    let plan = demo(|_| ());
    let all = dates(&plan);
    let cucumber = all.iter().find(|d| d.sowing == "cucumber").unwrap();
    let where_on = |day: Date| {
        room::bays(&plan.places)
            .find(|bay| {
                standing_in(&plan, &all, bay, day)
                    .iter()
                    .any(|s| s.tray.id == "cu1")
            })
            .map(|bay| bay.tier.id.clone())
    };
    let up = cucumber.emerge.unwrap();
    assert_eq!(where_on(plus_days(cucumber.sow, -1)), None);
    assert_eq!(where_on(plus_days(up, -1)).as_deref(), Some("t3"));
    assert_eq!(where_on(up).as_deref(), Some("t2"));
    assert_eq!(where_on(cucumber.harden), None);
    // Until when: up to the move, then up to hardening off.
    for (day, until) in [
        (cucumber.sow, plus_days(up, -1)),
        (up, plus_days(cucumber.harden, -1)),
    ] {
        let standing: Vec<_> = room::bays(&plan.places)
            .flat_map(|bay| standing_in(&plan, &all, &bay, day))
            .filter(|s| s.tray.id == "cu1")
            .collect();
        assert_eq!(leaves_on(&standing[0]), until);
    }
}

#[test]
fn trays_clash_only_while_both_stand_there() {
    let plan = demo(|plan| {
        // Melon takes the tomatoes' spot: they go on 10 May, it comes on 29 April.
        let melon = plan.trays.iter_mut().find(|t| t.id == "me1").unwrap();
        melon.stands[0].x_mm = 20.0;
    });
    let all = dates(&plan);
    let clash = clashes(&plan, &all);
    assert_eq!(clash.len(), 1);
    assert_eq!(
        (clash[0].first.id.as_str(), clash[0].second.id.as_str()),
        ("to1", "me1")
    );
    let span = DateSpan {
        from: date(2027, 4, 29),
        to: date(2027, 5, 9),
    };
    assert_eq!(clash[0].days, span);
    let touching = demo(|plan| {
        // Rim to rim is no clash.
        let tray = plan.trays.iter_mut().find(|t| t.id == "to2").unwrap();
        tray.stands[0].x_mm = 300.0;
    });
    assert_eq!(clashes(&touching, &dates(&touching)), []);
}

#[test]
fn a_deck_of_1220_by_610_takes_four_standard_trays_either_way_round() {
    let mut plan = demo(|_| ()).into_inner();
    let rack = rack(&mut plan);
    assert_eq!(rack.trays_per_deck(540.0, 280.0), 4);
    assert_eq!(rack.trays_per_deck(280.0, 540.0), 4);
    rack.depth_mm = 457.0;
    assert_eq!(rack.trays_per_deck(540.0, 280.0), 2);
    assert_eq!(places_held(&demo(|_| ())), 16);
}

#[test]
fn clear_heights_end_under_the_deck_above_or_at_the_posts_end() {
    let plan = demo(|_| ());
    let heights: Vec<f64> = room::bays(&plan.places)
        .map(|bay| bay.clear_height_mm())
        .collect();
    assert_eq!(heights, [355.0, 435.0, 345.0, 325.0, 220.0]);
    let unknown = BayRef {
        place: "door".into(),
        tier: "t9".into(),
    };
    assert!(room::find_bay(&plan.places, &unknown).is_none());
}

#[test]
fn lamps_cost_what_they_draw_while_something_wants_light() {
    let plan = demo(|_| ());
    let bay = room::bays(&plan.places).nth(1).unwrap();
    // 4 x 45 W for 15 h: 2.7 kWh, at 0.29 a kWh 0.783 a day; 180 W / 230 V.
    let power = Power::of_lamps(bay.tier, true, &plan.site);
    assert!((power.kwh_per_day - 2.7).abs() < 1e-12);
    assert!((power.cost_per_day - 0.783).abs() < 1e-12);
    assert!((power.amps - 180.0 / 230.0).abs() < 1e-12);
    assert_eq!(
        Power::of_lamps(bay.tier, false, &plan.site),
        Power::default()
    );
    let all = dates(&plan);
    // Tomatoes germinate in the dark from 31 March; they are up on 8 April.
    let burns = |day| Looker::new(&plan, &all).look(bay, day).computed.burning;
    assert!(!burns(date(2027, 4, 7)));
    assert!(burns(date(2027, 4, 8)));
}

#[test]
fn seed_that_wants_light_has_its_lamps_on_from_the_first_day() {
    let plan = demo(|plan| plan.trays.retain(|tray| tray.sowing == "lettuce"));
    let all = dates(&plan);
    let bay = room::bays(&plan.places).nth(3).unwrap();
    assert!(
        Looker::new(&plan, &all)
            .look(bay, all[8].sow)
            .computed
            .burning
    );
}
