//! Stages by date, where trays stand in them, and what fits.

use jiff::civil::{Date, date};
use sunrise_core::basis::dates::{DateSpan, days_between, plus_days};
use sunrise_core::day::detail::Detail;
use sunrise_core::day::standing::{days_here, standing_in};
use sunrise_core::day::view::Looker;
use sunrise_core::plan::{Plan, SoundPlan, Stage, Stand};
use sunrise_core::power::Power;
use sunrise_core::room;
use sunrise_core::room::BayRef;
use sunrise_core::season::SowingDates;
use sunrise_core::season::jobs::EventKind;
use sunrise_core::season::moments::TrayMoments;
use sunrise_core::season::stays::clashes;
use sunrise_core::testing::{
    KETTLE_FEN, bay, dates_of, kettle_fen, read, reckoned, sowing, tier, tray as tray_of,
};

#[test]
fn stages_follow_each_other_without_gap_or_overlap() {
    let plan = kettle_fen(|_| ());
    for dates in reckoned(&plan).dates.iter() {
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
    let plan = kettle_fen(|_| ());
    let all = reckoned(&plan);
    let tomato = dates_of(&all, "tomato");
    assert_eq!(tomato.out, date(2027, 5, 20));
    assert_eq!(tomato.sow, date(2027, 3, 31));
    assert_eq!(tomato.emerge, Some(date(2027, 4, 8)));
    assert_eq!(days_between(tomato.harden, tomato.out), 10);
    // Lettuce is hardy: out three weeks before the last frost.
    let lettuce = dates_of(&all, "lettuce");
    assert_eq!(lettuce.out, date(2027, 4, 15));
}

#[test]
fn without_a_measured_root_zone_the_place_it_germinates_in_decides() {
    let with = |night_c: f64, place: &str, tier: &str| {
        let plan = kettle_fen(|plan| {
            plan.site.air.night_c = night_c;
            let tray = plan.trays.iter_mut().find(|t| t.id == "le1").unwrap();
            tray.stands[0].bay = room::BayRef {
                place: place.into(),
                tier: tier.into(),
            };
        });
        let all = reckoned(&plan);
        let by = |id: &str| dates_of(&all, id).clone();
        (by("lettuce"), by("tomato"))
    };
    let days = |dates: &SowingDates| dates.emergence_days.unwrap();
    let (cabinet, tomato) = with(15.0, "cabinet", "t3");
    // About 21 °C there: 2.6 days at 20 °C and 2.2 at 25 by the handbook.
    assert!((2.2..=2.7).contains(&days(&cabinet)), "{}", days(&cabinet));
    let (bench, _) = with(15.0, "bench", "t1");
    assert!(days(&bench) > days(&cabinet) + 0.5, "a cool room delays it");
    let (cold_bench, same_tomato) = with(5.0, "bench", "t1");
    assert!(days(&cold_bench) > days(&bench), "cold nights delay it");
    assert_eq!(
        days(&tomato),
        days(&same_tomato),
        "tomatoes have a thermometer in the mix"
    );
    // The first, half and the last of them, in that order.
    let (first, half, last) = (
        bench.first.unwrap(),
        bench.emerge.unwrap(),
        bench.last.unwrap(),
    );
    assert!(bench.sow < first && first <= half && half < last);
}

#[test]
fn a_tray_moves_when_a_later_stage_names_another_bay() {
    let plan = kettle_fen(|_| ());
    let all = reckoned(&plan);
    let cucumber = dates_of(&all, "cucumber");
    let where_on = |day: Date| {
        room::bays(&plan.places)
            .find(|bay| {
                standing_in(&all, bay, day)
                    .iter()
                    .any(|s| s.tray.id == "cu1")
            })
            .map(|bay| bay.name())
    };
    let up = cucumber.emerge.unwrap();
    let in_cabinet = all.days_in("cu1", "cabinet").expect("it germinates there");
    assert_eq!(in_cabinet.from, cucumber.sow);
    assert_eq!(
        where_on(in_cabinet.to).as_deref(),
        Some("Proving cabinet, Shelf 5")
    );
    assert_ne!(
        where_on(plus_days(in_cabinet.to, 1)).as_deref(),
        Some("Proving cabinet, Shelf 5")
    );
    assert_eq!(all.days_in("cu1", "window"), None);
    assert_eq!(where_on(plus_days(cucumber.sow, -1)), None);
    assert_eq!(
        where_on(plus_days(up, -1)).as_deref(),
        Some("Proving cabinet, Shelf 5")
    );
    assert_eq!(where_on(up).as_deref(), Some("Door rack, Tier 2"));
    assert_eq!(where_on(cucumber.harden).as_deref(), Some("Cold frame"));
    assert_eq!(where_on(cucumber.out), None);
    // Until when: up to the move, then up to hardening off.
    for (day, until) in [
        (cucumber.sow, plus_days(up, -1)),
        (up, plus_days(cucumber.harden, -1)),
        (cucumber.harden, plus_days(cucumber.out, -1)),
    ] {
        let standing: Vec<_> = room::bays(&plan.places)
            .flat_map(|bay| standing_in(&all, &bay, day))
            .filter(|s| s.tray.id == "cu1")
            .collect();
        assert_eq!(days_here(&standing[0], day).to, until);
    }
}

#[test]
fn trays_clash_only_while_both_stand_there() {
    let melon_at = |x_mm: Option<f64>| {
        kettle_fen(|plan| {
            let tray = |id: &str| plan.trays.iter().position(|t| t.id == id).unwrap();
            let (melon, tomato) = (tray("me1"), tray("to1"));
            let grows = |stand: &&Stand| stand.stage == Stage::Grow;
            let mut spot = plan.trays[tomato]
                .stands
                .iter()
                .find(grows)
                .unwrap()
                .clone();
            plan.trays.retain(|t| t.id == "me1" || t.id == "to1");
            spot.x_mm = x_mm.unwrap_or(spot.x_mm);
            let melon = if melon < tomato { 0 } else { 1 };
            let stands = &mut plan.trays[melon].stands;
            stands.retain(|stand| stand.stage != Stage::Grow);
            stands.push(spot);
        })
    };
    let plan = melon_at(None);
    let all = reckoned(&plan);
    let clash = clashes(&all.stays);
    let [clash] = &clash[..] else {
        panic!("one clash, not {clash:?}")
    };
    let days = |tray| {
        TrayMoments::of(&plan, tray, &all.dates)
            .days_of(Stage::Grow)
            .unwrap()
    };
    let (first, second) = (days(clash.first), days(clash.second));
    assert_eq!(clash.days.from, first.from.max(second.from));
    assert_eq!(clash.days.to, first.to.min(second.to));
    // Rim to rim is no clash.
    let beside = melon_at(Some(clash_free_x(&plan)));
    assert_eq!(clashes(&reckoned(&beside).stays), []);
}

/// Just right of the tomato's tray, which stands crosswise.
fn clash_free_x(plan: &SoundPlan) -> f64 {
    let tomato = plan.trays.iter().find(|t| t.id == "to1").unwrap();
    let stand = tomato.stand_in(Stage::Grow).unwrap();
    stand.footprint(plan.format(tomato)).x_mm[1]
}

#[test]
fn a_tray_of_two_sowings_moves_as_one() {
    let plan = kettle_fen(|_| ());
    let all = reckoned(&plan);
    let tray = plan.trays.iter().find(|t| t.id == "lx1").unwrap();
    assert_eq!(tray.parts.len(), 2);
    let day = TrayMoments::of(&plan, tray, &all.dates).moves;
    let standing: Vec<_> = room::bays(&plan.places)
        .flat_map(|bay| standing_in(&all, &bay, day))
        .filter(|s| s.tray.id == "lx1")
        .collect();
    let [standing] = &standing[..] else {
        panic!("it stands in one bay")
    };
    // Each half has half of the cells, side by side.
    let [left, right] = &standing.parts[..] else {
        panic!("it has two parts")
    };
    assert_eq!(left.grid, right.grid);
    assert_eq!(left.grid.0 * left.grid.1, 36);
    assert!(!left.footprint.overlaps(&right.footprint));
    // It leaves the chamber with the first half that wants light, and wants warmth until both are up.
    let mut late = all.dates.to_vec();
    let slow = late.iter_mut().find(|d| d.sowing == "lettuce-cos").unwrap();
    for day in [&mut slow.emerge, &mut slow.last, &mut slow.into_light] {
        *day = day.map(|day| plus_days(day, 9));
    }
    let last = slow.last.unwrap();
    let moments = TrayMoments::of(&plan, tray, &late);
    assert_eq!(moments.stage_on(plus_days(day, -1)), Some(Stage::Germinate));
    assert_eq!(moments.stage_on(day), Some(Stage::Grow));
    assert!(moments.coming_up(plus_days(last, -1)) && !moments.coming_up(last));
    // On a lit rack it stays where it is until all is up.
    let plan = kettle_fen(|plan| tray_of(plan, "lx1").stands[0].bay = bay("door", "t4"));
    let tray = plan.trays.iter().find(|t| t.id == "lx1").unwrap();
    let moments = TrayMoments::of(&plan, tray, &late);
    assert_eq!((moments.moves, moments.all_up), (last, last));
}

#[test]
fn clear_heights_end_under_the_deck_above_or_at_the_posts_end() {
    let plan = kettle_fen(|_| ());
    let heights: Vec<f64> = room::bays(&plan.places[..1])
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
    let plan = kettle_fen(|_| ());
    let all = reckoned(&plan);
    let on = |day: Date| {
        let views = Looker::new(&all, Detail::Outline).look(0, day);
        let bay = &views[1].computed;
        (bay.burning, bay.power)
    };
    assert_eq!(on(date(2027, 4, 6)), (false, Power::default()));
    // 4 x 45 W for 15 h from 06:00: 2.7 kWh, of them 0.18 before 07:00 at 0.19 and the rest at
    // 0.29 a kWh; 180 W / 230 V.
    let (burning, power) = on(date(2027, 4, 7));
    assert!(burning);
    assert!((power.kwh_per_day - 2.7).abs() < 1e-12);
    assert!((power.cost_per_day - 0.765).abs() < 1e-12);
    assert!((power.amps - 180.0 / 230.0).abs() < 1e-12);
}

#[test]
fn seed_that_wants_light_has_its_lamps_on_from_the_first_day() {
    let burns = |crop: &str, day: fn(&SowingDates) -> Date| {
        // One tray under the lamps of tier 4 from sowing on.
        let plan = kettle_fen(|plan| {
            plan.trays.retain(|tray| tray.id == "on1");
            let only = tray_of(plan, "on1");
            only.parts[0].sowing = crop.into();
            only.stands.retain(|stand| stand.stage == Stage::Germinate);
            only.stands[0].bay = bay("door", "t4");
        });
        let all = reckoned(&plan);
        let day = day(dates_of(&all, crop));
        let views = Looker::new(&all, Detail::Outline).look(0, day);
        assert_eq!(views[3].standing.len(), 1);
        views[3].computed.burning
    };
    assert!(burns("lettuce", |d| d.sow));
    assert!(!burns("onion", |d| d.sow));
    assert!(burns("onion", |d| d.emerge.unwrap()));
}

fn of(plan: &SoundPlan, sowing: &str) -> SowingDates {
    dates_of(&reckoned(plan), sowing).clone()
}

#[test]
fn weaker_lamps_and_cooler_rooms_move_the_day_to_sow_forward() {
    let usual = of(&kettle_fen(|_| ()), "onion");
    let dim = of(
        &kettle_fen(|plan| {
            // Onions grow on tier 4 of the door rack.
            for lamp in &mut tier(plan, "door", "t4").lamps {
                lamp.flux_lm /= 3.0;
            }
        }),
        "onion",
    );
    assert!(dim.sow < usual.sow, "{} {}", dim.sow, usual.sow);
    assert!(dim.pace.unwrap().rate < usual.pace.unwrap().rate);
    assert!(dim.pace.unwrap().lost_days > 3.0);
    let cool = of(&kettle_fen(|plan| plan.site.air.day_c = 14.0), "onion");
    assert!(cool.sow < usual.sow);
    // Planting out hangs on the last frost alone.
    assert_eq!((dim.out, cool.out), (usual.out, usual.out));
    // Who goes by the packet counts its weeks and nothing else.
    let packet = |dark: bool| {
        of(
            &kettle_fen(|plan| {
                sowing(plan, "onion").packet_weeks = Some(10.0);
                if dark {
                    tier(plan, "door", "t4").photoperiod_h = 5.0;
                }
            }),
            "onion",
        )
    };
    assert_eq!(packet(true).sow, packet(false).sow);
    assert_eq!(days_between(packet(false).sow, packet(false).out), 70);
}

#[test]
fn a_shift_moves_every_date_and_stock_that_passes_through_keeps_its_own() {
    let usual = of(&kettle_fen(|_| ()), "cabbage");
    let later = of(&kettle_fen(|plan| shift(plan, "cabbage", 9)), "cabbage");
    for (a, b) in [
        (usual.sow, later.sow),
        (usual.harden, later.harden),
        (usual.out, later.out),
    ] {
        assert_eq!(days_between(a, b), 9);
    }
    let (from, to) = (date(2027, 2, 1), date(2027, 4, 20));
    let stays = of(
        &kettle_fen(|plan| {
            sowing(plan, "cabbage").stays = Some(DateSpan { from, to });
        }),
        "cabbage",
    );
    assert_eq!((stays.sow, stays.out), (from, plus_days(to, 1)));
    assert_eq!(stays.stage_on(from), Some(Stage::Grow));
}

fn shift(plan: &mut Plan, id: &str, days: i32) {
    sowing(plan, id).shift_days = days;
}

#[test]
fn crops_of_ones_own_count_before_the_librarys() {
    let usual = of(&kettle_fen(|_| ()), "cabbage");
    let own = of(
        &kettle_fen(|plan| {
            let library = sunrise_core::crops::library();
            let mut cabbage = library.get("cabbage").unwrap().clone();
            cabbage.weeks_indoors += 2.0;
            plan.crops.push(cabbage);
        }),
        "cabbage",
    );
    assert_eq!(days_between(own.sow, usual.sow), 14);
    let mut broken = read(KETTLE_FEN);
    let mut crop = sunrise_core::crops::library()
        .get("cabbage")
        .unwrap()
        .clone();
    crop.losses = 3.0;
    broken.crops.push(crop);
    assert_eq!(broken.check().unwrap_err()[0].path, "/crops/0/losses");
}

#[test]
fn a_mixed_tray_has_one_vent_and_one_dome_off_and_a_dry_one_has_its_mat_off() {
    let jobs = |change: fn(&mut Plan)| {
        let plan = kettle_fen(change);
        sunrise_core::season::jobs::all(&reckoned(&plan))
    };
    // Two lettuces in one tray under a dome, on a mat.
    let mixed = jobs(|plan| {
        let stand = &mut tray_of(plan, "lx1").stands[0];
        (stand.bay, stand.x_mm, stand.y_mm) = (bay("door", "t3"), 40.0, 35.0);
        tray_of(plan, "lx1").format = "cells-72".into();
    });
    for kind in [EventKind::Vent, EventKind::Uncover] {
        let own = mixed
            .iter()
            .filter(|job| job.what == kind && job.tray.as_deref() == Some("lx1"));
        let own: Vec<_> = own.collect();
        assert_eq!(own.len(), 1, "{kind:?}");
        assert!(own[0].name.contains(" + "), "{}", own[0].name);
    }
    // Peppers on their mat, with no dome to take off.
    let dry = jobs(|plan| {
        for format in &mut plan.tray_formats {
            format.dome_height_mm = None;
        }
    });
    let pepper: Vec<_> = dry.iter().filter(|job| job.sowing == "pepper").collect();
    assert!(pepper.iter().any(|job| job.what == EventKind::MatOff));
    assert!(pepper.iter().all(|job| job.what != EventKind::Uncover));
}

#[test]
fn every_job_has_a_day_and_a_note() {
    let plan = kettle_fen(|_| ());
    let all = reckoned(&plan);
    let events = sunrise_core::season::jobs::all(&all);
    assert!(events.is_sorted_by_key(|event| event.date));
    for sowing in &plan.sowings {
        let own = events.iter().filter(|event| event.sowing == sowing.id);
        assert!(own.clone().count() >= 4, "{}", sowing.id);
        for event in own {
            assert!(!event.note.to_string().is_empty());
        }
    }
}
