//! Closed air of the plan: chambers, closets kept shut, bays behind film; and mats that trays share.

use jiff::civil::{Date, date};
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::bay::{BayDetail, BayOnDay};
use sunrise_core::day::detail::Detail;
use sunrise_core::plan::{Plan, Stage};
use sunrise_core::room::{BayRef, Kind, Side, shelf};
use sunrise_core::testing::{self, kettle_fen, place, tier};

const DAY: (i16, i8, i8) = (2027, 3, 20);

fn day() -> Date {
    date(DAY.0, DAY.1, DAY.2)
}

/// The bay on 20 March with all its figures, when peppers germinate on tier 3 of the door rack.
fn bay(place: &str, tier: &str, change: impl FnOnce(&mut Plan)) -> BayOnDay {
    let plan = kettle_fen(change);
    let wanted = testing::bay(place, tier);
    let mut assessed =
        sunrise_core::ask::assess(&plan, DateSpan::day(day()), Detail::Bay(wanted.clone()));
    let bays = assessed.room.remove(0).bays.into_iter();
    bays.into_iter().find(|bay| bay.bay == wanted).unwrap()
}

/// What the sheet of a bay shows besides.
fn detail(bay: &BayOnDay) -> &BayDetail {
    bay.detail.as_ref().expect("it was asked for")
}

fn film(plan: &mut Plan) {
    let sides = &mut tier(plan, "door", "t3").sides;
    for side in [
        &mut sides.left,
        &mut sides.right,
        &mut sides.back,
        &mut sides.front,
    ] {
        *side = Side::Foil;
    }
}

fn mean(bay: &BayOnDay, tray: &str) -> f64 {
    let roots = bay.roots().iter().find(|roots| roots.tray == tray);
    roots.unwrap_or_else(|| panic!("no {tray}")).day.mean_c
}

#[test]
fn an_open_rack_has_no_air_of_its_own_and_film_gives_it_some() {
    assert!(detail(&bay("door", "t3", |_| ())).chamber.is_none());
    let closed = bay("door", "t3", film);
    let air = detail(&closed).chamber.as_ref().expect("closed air");
    assert_eq!((air.first_tier, air.day.shelves.len()), (2, 1));
    // Mats warm it over the room, whose mean is 16.5 °C.
    assert!(air.day.shelves[0].mean_c > 17.5, "{:?}", air.day.shelves[0]);
    // Under domes trays damp no air, and warmth dries it.
    let humidity = |bay: &BayOnDay| detail(bay).air.as_ref().unwrap().humidity;
    assert!(humidity(&closed) < 0.45);
    let undomed = bay("door", "t3", |plan| {
        film(plan);
        let formats = plan.tray_formats.iter_mut();
        formats.for_each(|format| format.dome_height_mm = None);
    });
    assert!(humidity(&undomed) > humidity(&closed) + 0.2);
    // One side open, and it is the room's again.
    let open = bay("door", "t3", |plan| {
        film(plan);
        tier(plan, "door", "t3").sides.front = Side::Open;
    });
    assert!(detail(&open).chamber.is_none());
}

#[test]
fn mats_under_a_thermostat_in_the_mix_do_not_overheat_a_film_bay_and_spare_power() {
    let with = |closed: bool| {
        bay("door", "t3", |plan| {
            if closed {
                film(plan);
            }
        })
    };
    let (open, closed) = (with(false), with(true));
    assert!(!detail(&closed).chamber.as_ref().unwrap().day.overheats);
    let kwh = |bay: &BayOnDay| bay.roots().iter().map(|r| r.day.kwh_per_day).sum::<f64>();
    assert!(kwh(&closed) < kwh(&open), "{} {}", kwh(&closed), kwh(&open));
    // The tray with the probe is held at its setting.
    let probed = &closed.roots()[0];
    assert!(
        (probed.day.mean_c - 26.0).abs() < 1.0,
        "{}",
        probed.day.mean_c
    );
}

#[test]
fn a_mat_without_a_thermostat_makes_an_oven_of_film() {
    let oven = bay("door", "t3", |plan| {
        film(plan);
        for mat in &mut tier(plan, "door", "t3").mats {
            mat.thermostat_c = None;
            mat.watts = 250.0;
        }
    });
    let air = detail(&oven).chamber.clone().unwrap();
    assert!(air.day.overheats && !air.day.helps.is_empty());
    assert!(air.day.shelves[0].most_c > air.limit_c);
}

#[test]
fn trays_on_one_mat_get_what_the_tray_with_the_probe_asks_for() {
    let shared = bay("door", "t3", |_| ());
    let duties: Vec<f64> = shared.roots().iter().map(|r| r.day.duty).collect();
    assert!(duties.len() >= 4);
    // The probe's own tray switches it; for the others it is on at a part of its power all day.
    let drawn: Vec<f64> = shared.roots().iter().map(|r| r.day.kwh_per_day).collect();
    let (least, most) = (
        drawn.iter().copied().fold(f64::INFINITY, f64::min),
        drawn.iter().copied().fold(0.0, f64::max),
    );
    assert!(most - least < 0.15 * most, "{drawn:?}");
    // Trays that stand free on the shelf's ends are cooler than those between.
    assert!(mean(&shared, "pe2") > mean(&shared, "pe1"));
}

#[test]
fn pad_hysteresis_and_dial_error_of_a_mat_count() {
    // In a warm room the mat has power to spare, and the thermostat rules.
    let with = |change: fn(&mut sunrise_core::room::Mat)| {
        bay("door", "t3", |plan| {
            plan.site.air.day_c = 20.0;
            plan.site.air.night_c = 19.0;
            for sowing in &mut plan.sowings {
                sowing.shift_days = match sowing.crop.as_str() {
                    // A warm room hurries them; they are to germinate on the day looked at.
                    "pepper" => -8,
                    _ => 0,
                };
            }
            tier(plan, "door", "t3").mats.iter_mut().for_each(change);
        })
    };
    let usual = with(|_| ());
    assert!(
        usual.roots().iter().any(|r| r.mat.is_some()),
        "nothing germinates"
    );
    let hot = with(|mat| mat.dial_error_k = Some(2.0));
    let first = |bay: &BayOnDay| bay.roots()[0].day.clone();
    let lift = first(&hot).mean_c - first(&usual).mean_c;
    assert!((lift - 2.0).abs() < 0.3, "{lift}");
    let padded = with(|mat| mat.pad_mm = Some(30.0));
    assert!(first(&padded).kwh_per_day < first(&usual).kwh_per_day);
    let slack = with(|mat| mat.hysteresis_k = Some(4.0));
    let swing = |day: &sunrise_core::warmth::root_zone::RootZoneDay| day.most_c - day.least_c;
    assert!(swing(&first(&slack)) > swing(&first(&usual)) + 1.0);
}

#[test]
fn the_probe_of_a_chamber_is_where_the_plan_hangs_it_and_its_limit_is_its_own() {
    let shelves = |probe_mm: Option<f64>, limit_c: Option<f64>| {
        let seen = bay("cabinet", "t2", |plan| {
            let Kind::Chamber(chamber) = &mut place(plan, "cabinet").kind else {
                panic!("the third place is the cabinet");
            };
            chamber.probe_mm = probe_mm;
            chamber.limit_c = limit_c;
        });
        detail(&seen).chamber.clone().unwrap()
    };
    let usual = shelves(None, None);
    assert_eq!(usual.limit_c, 30.0);
    let high = shelves(Some(1500.0), None);
    assert_eq!(high.probe_mm, Some(1500.0));
    // Hung where it is warmest, the rest stays cooler.
    assert!(high.day.shelves[0].mean_c < usual.day.shelves[0].mean_c);
    let strict = shelves(None, Some(18.0));
    assert!(strict.day.overheats && !usual.day.overheats);
}

#[test]
fn a_closet_that_is_kept_shut_is_warmed_by_its_lamps() {
    let closet = |shut: bool| {
        bay("closet", "t1", |plan| {
            let kind = shelf::library();
            let generic = kind.places.iter();
            let mut place = generic
                .clone()
                .find(|place| matches!(place.kind, Kind::Closet(_)))
                .unwrap()
                .clone();
            place.id = "closet".into();
            place.spot = None;
            if let Kind::Closet(closet) = &mut place.kind {
                closet.shut = shut;
            }
            place.tiers[0].id = "t1".into();
            place.tiers[0].storage = false;
            // A lamp as wide as the closet lets it be.
            let mut lamp = tier(plan, "cabinet", "t5").lamps[0].clone();
            lamp.id = "closet-lamp".into();
            lamp.x_mm = place.width_mm / 2.0;
            lamp.y_mm = place.depth_mm / 2.0;
            lamp.watts = 60.0;
            place.tiers[0].lamps = vec![lamp];
            let tray = plan.trays.iter_mut().find(|t| t.id == "ce1").unwrap();
            for stand in &mut tray.stands {
                if stand.stage == Stage::Grow || stand.stage == Stage::Germinate {
                    stand.bay = BayRef {
                        place: "closet".into(),
                        tier: "t1".into(),
                    };
                    (stand.x_mm, stand.y_mm) = (0.0, 0.0);
                }
            }
            plan.places.push(place);
        })
    };
    let (open, shut) = (closet(false), closet(true));
    assert!(detail(&open).chamber.is_none());
    let air = detail(&shut).chamber.as_ref().expect("closed air");
    assert!(
        air.day.shelves[0].mean_c > 17.0,
        "{}",
        air.day.shelves[0].mean_c
    );
    assert!(mean(&shut, "ce1") > mean(&open, "ce1"));
    assert!(
        detail(&shut).air.as_ref().unwrap().humidity > detail(&open).air.as_ref().unwrap().humidity
    );
}
