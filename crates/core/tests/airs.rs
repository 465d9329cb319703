//! The air where a tray really is: other rooms, later dates, outdoors and under covers.

use jiff::civil::{Date, date};
use sunrise_core::ask::{assess, outdoors, warm_ways};
use sunrise_core::basis::dates::{DateSpan, days_between, plus_days};
use sunrise_core::day::bay::BayOnDay;
use sunrise_core::day::detail::Detail;
use sunrise_core::plan::{Plan, SoundPlan, Stage};
use sunrise_core::room::{BayRef, Cover, CoverShape, Glazing, Kind, Opens};
use sunrise_core::season::SowingDates;
use sunrise_core::site::air::{Air, AirFrom};
use sunrise_core::site::outdoors::MonthAir;
use sunrise_core::site::room_size::{Envelope, RoomSize, RoomWalls};
use sunrise_core::testing::{self, dates_of, kettle_fen, place, read, reckoned, sowing, tray};
use sunrise_core::warmth::around::air_around;
use sunrise_core::warmth::under_cover::{Weather, day_under, under_cover};

fn air(day_c: f64, night_c: f64) -> Air {
    Air {
        day_c,
        night_c,
        humidity: None,
    }
}

fn attic(plan: &mut Plan) {
    let attic = serde_json::json!({ "id": "attic", "name": "Attic", "air": air(12.0, 8.0) });
    plan.site.rooms = vec![serde_json::from_value(attic).expect("a room")];
}

/// The tray with the first lettuce germinates on the ground of the cold frame, sown on `sown`.
fn lettuce_in_the_frame(plan: &mut Plan, sown: Date) {
    sowing(plan, "lettuce").sow_on = Some(sown);
    let first = plan
        .trays
        .iter_mut()
        .find(|tray| tray.parts[0].sowing == "lettuce" && !tray.potted)
        .expect("a tray of lettuce");
    first.sown_together = false;
    for stand in &mut first.stands {
        stand.bay = testing::bay("frame", "t1");
        (stand.x_mm, stand.y_mm) = (700.0, 300.0);
    }
}

fn lettuce(plan: &SoundPlan) -> SowingDates {
    dates_of(&reckoned(plan), "lettuce").clone()
}

fn days_to_half(dates: &SowingDates) -> i32 {
    days_between(dates.sow, dates.emerge.expect("it comes up"))
}

fn bay_on(plan: &SoundPlan, bay: &BayRef, day: Date) -> BayOnDay {
    let mut assessed = assess(plan, DateSpan::day(day), Detail::Bay(bay.clone()));
    let bays = assessed.room.remove(0).bays.into_iter();
    bays.into_iter()
        .find(|own| own.bay == *bay)
        .expect("the bay")
}

#[test]
fn lettuce_in_a_cold_frame_in_february_takes_weeks_and_in_may_days() {
    let on = |month| kettle_fen(|plan| lettuce_in_the_frame(plan, date(2027, month, 10)));
    let (winter, spring) = (lettuce(&on(2)), lettuce(&on(5)));
    assert!(days_to_half(&winter) > 10, "{}", days_to_half(&winter));
    assert!(days_to_half(&spring) < 8, "{}", days_to_half(&spring));
    assert!(winter.root_zone_c < 9.0 && spring.root_zone_c > winter.root_zone_c + 4.0);
    assert!(winter.stands, "it has a spot");
}

#[test]
fn what_grows_in_the_frame_waits_for_spring() {
    // Sown on the same day, one stays on its rack and one is taken to the frame when it is up.
    let size = |frame: bool| {
        let plan = kettle_fen(|plan| {
            sowing(plan, "lettuce").sow_on = Some(date(2027, 2, 10));
            let trays = plan.trays.iter_mut();
            for tray in trays.filter(|tray| tray.parts[0].sowing == "lettuce") {
                let grows = tray.stands.iter_mut();
                for stand in grows.filter(|stand| frame && stand.stage == Stage::Grow) {
                    stand.bay = testing::bay("frame", "t1");
                }
            }
        });
        let all = reckoned(&plan);
        let tray = plan.sown_in("lettuce").next().expect("a tray");
        let grown = &all.growing.of_tray(&plan, tray)[0];
        let plant = grown.on(date(2027, 3, 12)).expect("it is up by then");
        plant.size(plan.crop(&plan.sowings[plan.sowing_index("lettuce")]))
    };
    let (indoors, outdoors) = (size(false), size(true));
    assert!(outdoors < 0.8 * indoors, "{outdoors} for {indoors}");
}

#[test]
fn a_place_in_a_cold_attic_is_as_cold_as_the_attic() {
    let bay = testing::bay("door", "t3");
    let day = date(2027, 3, 20);
    let there = |change: fn(&mut Plan)| bay_on(&kettle_fen(change), &bay, day);
    let mean = |bay: &BayOnDay| {
        bay.roots()
            .iter()
            .map(|roots| roots.day.mean_c)
            .sum::<f64>()
    };
    let (room, cold) = (
        there(|_| ()),
        there(|plan| {
            attic(plan);
            place(plan, "door").in_room = Some("attic".into());
        }),
    );
    let n = room.roots().len() as f64;
    assert!(mean(&cold) / n < mean(&room) / n - 0.3);
    let detail = |bay: &BayOnDay| bay.detail.clone().and_then(|detail| detail.air).unwrap();
    assert_eq!((detail(&room).day_c, detail(&cold).day_c), (18.0, 12.0));
    // The ways to warm a tray begin from that air, too.
    let plan = kettle_fen(|plan| {
        attic(plan);
        place(plan, "door").in_room = Some("attic".into());
    });
    let peppers = dates_of(&reckoned(&plan), "pepper").sow;
    let day = plus_days(peppers, 3);
    let ways = warm_ways(&plan, &bay, day, testing::fields()).expect("peppers germinate");
    let of = |code: &str| ways.ways.iter().find(|way| way.code == code).unwrap();
    assert!(of("no_heat").mean_c < 13.0);
    assert!((of("warmer_room").mean_c - of("no_heat").mean_c - 3.0).abs() < 0.4);
}

#[test]
fn what_stands_in_another_room_is_in_nobodys_way_here() {
    let said = |room: Option<&str>| {
        let plan = kettle_fen(|plan| {
            attic(plan);
            let door = place(plan, "door").spot;
            let coat = place(plan, "coat");
            (coat.spot, coat.in_room) = (door, room.map(str::to_owned));
        });
        let assessed = assess(&plan, DateSpan::day(date(2027, 3, 20)), Detail::Outline);
        let mut found = assessed.findings.iter();
        found.any(|finding| finding.code == "places_overlap")
    };
    assert!(said(None) && !said(Some("attic")));
}

#[test]
fn when_the_heating_goes_off_what_is_sown_after_comes_up_later() {
    let sow = date(2027, 3, 10);
    let cold_from = |from: Option<Date>| {
        let plan = kettle_fen(|plan| {
            sowing(plan, "lettuce").sow_on = Some(sow);
            plan.site.air_from = from
                .into_iter()
                .map(|from| AirFrom {
                    from,
                    air: air(11.0, 8.0),
                })
                .collect();
            // No mat hides it.
            for tier in plan.places.iter_mut().flat_map(|place| &mut place.tiers) {
                tier.mats.clear();
            }
        });
        days_to_half(&lettuce(&plan))
    };
    let (never, long_before, later) = (
        cold_from(None),
        cold_from(Some(plus_days(sow, -30))),
        cold_from(Some(plus_days(sow, 40))),
    );
    assert!(long_before > never + 2, "{long_before} for {never}");
    // What stands beside it may be sown on another day for it.
    assert!((later - never).abs() <= 1, "{later} for {never}");
    // In the middle of it, it lies in both.
    let half = cold_from(Some(plus_days(sow, 1)));
    assert!(never <= half && half <= long_before, "{half}");
}

#[test]
fn covers_keep_off_the_cold_as_growers_say() {
    let under = |cover: Cover, day: Date, weather: Weather| {
        let plan = kettle_fen(|plan| {
            let Kind::ColdFrame(frame) = &mut place(plan, "frame").kind else {
                panic!("a frame");
            };
            frame.cover = Some(cover);
        });
        let frame = plan.places.iter().find(|p| p.id == "frame").unwrap();
        let out = plan.site.year_outdoors().on(day);
        let air = under_cover(&plan.site, frame, day, weather).expect("it is covered");
        (air.least_c - out.night_c, air)
    };
    let night = |cover: Cover| under(cover, date(2027, 3, 15), Weather::Usual);
    let usual = Cover::USUAL;
    let (frame, under_glass) = night(usual);
    // Common practice, no source: a closed frame adds 2 to 4 K by night.
    // A usual night, and boards that leak, are at its lower end.
    assert!((0.8..4.0).contains(&frame), "{frame}");
    assert!(under_glass.most_c > under_glass.mean_c && under_glass.humidity > 0.6);
    let mat = night(Cover {
        night_mat: true,
        ..usual
    });
    assert!(mat.0 > frame + 0.5, "{} for {frame}", mat.0);
    let jugs = night(Cover {
        shape: CoverShape::Jugs,
        glazing: Glazing::Film,
        opens: Opens::Never,
        ..usual
    });
    assert!(jugs.0 < frame, "jugs cool out: {} for {frame}", jugs.0);
    let water = night(Cover {
        water_l: 300.0,
        ..usual
    });
    assert!(water.0 > frame + 0.5);
    let may = date(2027, 5, 15);
    let in_the_sun = |cover| under(cover, may, Weather::Clear).1.most_c;
    let shut = in_the_sun(Cover {
        opens: Opens::Never,
        ..usual
    });
    assert!(shut > 33.0 && in_the_sun(usual) < shut - 5.0, "{shut}");
    let clear = under(usual, may, Weather::Clear).1;
    assert!(clear.least_c < under(usual, may, Weather::Usual).1.least_c);
    let frost = under(usual, may, Weather::Frost).1.least_c;
    assert!((-1.0..clear.least_c).contains(&frost), "{frost}");
    let heated = night(Cover {
        heated_c: Some(8.0),
        ..usual
    });
    assert!(heated.1.least_c > 7.0 && heated.1.heating_kwh > 0.5);
    assert_eq!(under_glass.heating_kwh, 0.0);
}

#[test]
fn between_the_middles_of_months_air_under_glass_runs_straight() {
    let plan = kettle_fen(|_| ());
    let frame = plan.places.iter().find(|p| p.id == "frame").unwrap();
    let least = |day| {
        under_cover(&plan.site, frame, day, Weather::Usual)
            .unwrap()
            .least_c
    };
    let middle = day_under(&plan.site, frame, date(2027, 3, 15), Weather::Usual).unwrap();
    assert!((least(date(2027, 3, 15)) - middle.least_c).abs() < 1e-9);
    let days = [date(2027, 3, 15), date(2027, 3, 30), date(2027, 4, 15)].map(least);
    assert!(days[0] < days[1] && days[1] < days[2]);
    // The year turns: January comes after December.
    assert!(least(date(2027, 12, 31)) <= least(date(2027, 12, 15)) + 0.5);
}

#[test]
fn in_the_open_it_is_as_outdoors_and_indoors_as_in_the_room() {
    let mut plan = read(testing::KETTLE_FEN);
    let Kind::ColdFrame(frame) = &mut place(&mut plan, "frame").kind else {
        panic!("a frame");
    };
    frame.glazed = false;
    plan.site.months = (0..12)
        .map(|month| MonthAir {
            minimum_c: f64::from(month),
            maximum_c: f64::from(month) + 8.0,
            humidity: Some(0.6),
            sun_kwh_m2: None,
        })
        .collect();
    let plan = testing::sound(plan);
    let day = date(2027, 7, 15);
    let at = |id: &str| {
        let place = plan.places.iter().find(|place| place.id == id).unwrap();
        air_around(&plan.site, place, day)
    };
    let year = plan.site.year_outdoors().on(day);
    let open = at("frame");
    assert_eq!((open.day_c, open.night_c), (year.day_c, year.night_c));
    assert!((open.humidity.unwrap() - 0.6).abs() < 1e-9);
    assert_eq!(at("door").day_c, plan.site.air.day_c);
    let told = outdoors(&plan);
    assert_eq!((told.months.len(), told.covered.len()), (12, 0));
    assert!(told.source.to_string().contains("typed"));
}

#[test]
fn what_cannot_be_of_airs_is_refused_by_name() {
    let refused = |change: fn(&mut Plan)| -> Vec<String> {
        let mut plan = read(testing::KETTLE_FEN);
        change(&mut plan);
        let faults = plan.check().expect_err("it is refused");
        faults.into_iter().map(|fault| fault.path).collect()
    };
    let nowhere = refused(|plan| place(plan, "door").in_room = Some("cellar".into()));
    assert!(nowhere[0].ends_with("/in_room"), "{nowhere:?}");
    let twice = refused(|plan| {
        attic(plan);
        let again = plan.site.rooms[0].clone();
        plan.site.rooms.push(again);
    });
    assert_eq!(twice, ["/site/rooms/1/id"]);
    let hot = refused(|plan| {
        plan.site.air_from = vec![AirFrom {
            from: date(2027, 4, 1),
            air: air(80.0, f64::NAN),
        }];
    });
    assert_eq!(
        hot,
        ["/site/air_from/0/air/day_c", "/site/air_from/0/air/night_c"]
    );
    let eleven = refused(|plan| {
        let month = MonthAir {
            minimum_c: 1.0,
            maximum_c: 8.0,
            humidity: None,
            sun_kwh_m2: Some(99.0),
        };
        plan.site.months = vec![month; 11];
    });
    assert!(eleven.contains(&"/site/months".to_owned()), "{eleven:?}");
    let kept_hot = refused(|plan| {
        if let Kind::ColdFrame(frame) = &mut place(plan, "frame").kind {
            frame.cover = Some(Cover {
                heated_c: Some(99.0),
                ..Cover::USUAL
            });
        }
    });
    assert!(
        kept_hot[0].ends_with("/cold_frame/cover/heated_c"),
        "{kept_hot:?}"
    );
    // A tray of the demo is where it was: nothing of this touched the rest.
    let mut plan = read(testing::KETTLE_FEN);
    attic(&mut plan);
    assert!(!tray(&mut plan, "cf1").stands.is_empty());
    assert!(plan.check().is_ok());
}

/// The demo's room with these walls.
fn walled(walls: RoomWalls, heated: bool) -> SoundPlan {
    kettle_fen(|plan| {
        plan.site.envelope = Some(Envelope {
            walls,
            heated,
            humidified: None,
        })
    })
}

#[test]
fn a_room_is_warmed_by_the_lamps_that_burn_in_it() {
    let cold = walled(RoomWalls::Usual, false);
    let list = cold.lit_room(None);
    let most = list
        .iter()
        .max_by(|a, b| a.watts.total_cmp(&b.watts))
        .unwrap();
    let rise_k = most.air.mean_c() - most.dark.mean_c();
    // Watts over what the walls lose, by hand: all lamps for 14 hours or so of 24.
    let size = cold.room_size(None).unwrap();
    let by_hand_k = most.watts * 14.0 / 24.0 / size.loses_w_k();
    assert!(
        (rise_k / by_hand_k - 1.0).abs() < 0.25,
        "{rise_k} for {by_hand_k}"
    );
    // Whoever asks for the room's air has them in it.
    let place = &cold.places[0];
    assert_eq!(air_around(&cold.site, place, most.from), most.air);
    // By night they are off, and what the walls hold is still there.
    assert!(most.air.day_c - most.dark.day_c > most.air.night_c - most.dark.night_c);
    assert!(most.air.night_c > most.dark.night_c + 0.5);
    // Warmer air of the same vapour is drier.
    assert!(most.air.humidity < most.dark.humidity.or(Some(0.5)));
    // Before the first seedlings are up nothing burns.
    assert!(list[0].watts <= 0.0 && (list[0].air.mean_c() - list[0].dark.mean_c()).abs() < 0.1);
}

#[test]
fn a_humidifier_makes_up_what_the_lamps_dry_and_its_water_is_told() {
    let held = |humidified| {
        let plan = kettle_fen(|plan| {
            plan.site.air.humidity = Some(0.3);
            let (walls, heated) = (RoomWalls::Usual, false);
            plan.site.envelope = Some(Envelope {
                walls,
                heated,
                humidified,
            });
        });
        let list = plan.lit_room(None);
        let lit = list.into_iter().max_by(|a, b| a.watts.total_cmp(&b.watts));
        (lit.unwrap(), plan)
    };
    let ((dry, _), (damp, plan)) = (held(None), held(Some(0.5)));
    assert!(dry.air.humidity < Some(0.3) && dry.humidify_l_d == 0.0);
    assert_eq!(damp.air.humidity, Some(0.5));
    // By hand: fresh air takes out the vapour that is added, some 17 g/m³ at saturation near 20 °C.
    let size = plan.room_size(None).unwrap();
    let lacks = 0.5 - dry.air.humidity.unwrap();
    let by_hand = lacks * 0.0173 * size.leak_m3_h() * 24.0;
    let t = damp.air.mean_c();
    let near = damp.humidify_l_d / by_hand;
    assert!(
        (0.6..1.7).contains(&near),
        "{} {by_hand} at {t}",
        damp.humidify_l_d
    );
    assert!(held(Some(0.1)).0.humidify_l_d == 0.0);
}

#[test]
fn summer_makes_a_room_as_warm_as_it_is_outdoors_unless_somebody_typed_it() {
    let hot = |plan: &mut Plan| {
        plan.season.to = date(2027, 9, 30);
        let month = |minimum_c: f64, maximum_c: f64| {
            serde_json::json!({
                "minimum_c": minimum_c, "maximum_c": maximum_c
            })
        };
        let year = [
            2.0, 3.0, 6.0, 9.0, 14.0, 18.0, 21.0, 21.0, 16.0, 11.0, 6.0, 3.0,
        ];
        plan.site.months = year
            .iter()
            .map(|c| serde_json::from_value(month(*c, c + 11.0)).unwrap())
            .collect();
    };
    let plan = kettle_fen(hot);
    let (march, august) = (date(2027, 3, 10), date(2027, 8, 5));
    let air = |plan: &SoundPlan, day| plan.site.room_air(None, day).clone();
    assert_eq!(air(&plan, march), plan.site.air);
    assert!(air(&plan, august).day_c > 25.0 && air(&plan, august).night_c > 22.0);
    // A cellar stays cool: who typed it knows.
    let cellar = kettle_fen(|plan| {
        hot(plan);
        plan.site.air_from.push(
            serde_json::from_value(serde_json::json!({
                "from": "2027-06-01", "air": { "day_c": 19.0, "night_c": 18.0 }
            }))
            .unwrap(),
        );
    });
    assert!(air(&cellar, august).day_c < 20.0);
}

#[test]
fn lamps_save_heating_first_and_thin_walls_hold_little() {
    let rise = |walls, heated| {
        let plan = walled(walls, heated);
        let each = plan.lit_room(None).into_iter();
        let each = each.map(|lit| lit.air.mean_c() - lit.dark.mean_c());
        each.fold(0.0, f64::max)
    };
    let usual = rise(RoomWalls::Usual, false);
    assert!(rise(RoomWalls::Usual, true) < usual);
    assert!(rise(RoomWalls::Thin, false) < 0.6 * usual);
    assert!(rise(RoomWalls::Insulated, false) > 1.3 * usual);
}

#[test]
fn what_grows_in_a_room_that_its_lamps_warm_is_sown_later() {
    let days = |plan: &SoundPlan| dates_of(&reckoned(plan), "pepper").pace.expect("it grows");
    let (dark, lit) = (kettle_fen(|_| ()), walled(RoomWalls::Insulated, false));
    assert!(days(&lit).air_c > days(&dark).air_c + 0.5);
    // What is kept is what was typed: the lamps are reckoned anew each time.
    let kept = serde_json::to_value(&*lit).unwrap();
    assert_eq!(
        kept["site"]["air"],
        serde_json::to_value(&*dark).unwrap()["site"]["air"]
    );
    assert!(kept["site"].get("lit").is_none());
}

#[test]
fn a_room_that_nobody_measured_keeps_the_air_that_was_typed() {
    let plan = kettle_fen(attic);
    assert!(plan.lit_room(None).is_empty() && plan.lit_room(Some("attic")).is_empty());
    let faults = {
        let mut plan = read(testing::KETTLE_FEN);
        let envelope = Envelope {
            walls: RoomWalls::Thin,
            heated: false,
            humidified: Some(1.4),
        };
        attic(&mut plan);
        plan.site.rooms[0].size = Some(RoomSize {
            width_mm: 4000.0,
            depth_mm: 3000.0,
            height_mm: 24.0,
            envelope,
        });
        plan.check().unwrap_err()
    };
    assert_eq!(faults[0].path, "/site/rooms/0/size/height_mm");
}
