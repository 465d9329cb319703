//! The demo plans, assessed as wholes.

use jiff::civil::{Date, date};
use sunrise_core::ask::{Assessment, Lately, assess, opening_day};
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::detail::Detail;
use sunrise_core::light::fields::Fields;
use sunrise_core::plan::SoundPlan;
use sunrise_core::room;
use sunrise_core::testing::{alder_bluff, kettle_fen, tier};

fn on(plan: &SoundPlan, day: Date) -> Assessment {
    assess(plan, DateSpan::day(day), Detail::All)
}

#[test]
fn alder_bluff_stands_and_lights_its_overhanging_trays() {
    let plan = alder_bluff(|_| ());
    let room = &on(&plan, date(2027, 4, 20)).room[0];
    assert_eq!(room.bays[0].trays().len(), 4);
    assert!(room.bays[0].light.is_some());
    assert!((room.bays[0].power.amps - 80.0 / 120.0).abs() < 1e-9);
}

#[test]
fn lamps_are_advised_in_steps_that_a_hand_hangs() {
    let day = date(2027, 4, 12);
    for (plan, step_mm) in [(kettle_fen(|_| ()), 10.0), (alder_bluff(|_| ()), 12.7)] {
        let hung: Vec<f64> = on(&plan, day).room[0]
            .bays
            .iter()
            .filter_map(|bay| Some(bay.hang.as_ref()?.setting.height_mm / step_mm))
            .collect();
        assert!(!hung.is_empty());
        assert!(
            hung.iter()
                .all(|steps| (steps - steps.round()).abs() < 1e-9),
            "{hung:?}"
        );
    }
}

#[test]
fn a_later_frost_moves_every_date_by_as_much() {
    let before = on(&kettle_fen(|_| ()), date(2027, 4, 9)).sowings;
    let later = kettle_fen(|plan| plan.site.last_frost = date(2027, 5, 16));
    let after = on(&later, date(2027, 4, 9)).sowings;
    let plus = |day: Date| day.saturating_add(jiff::Span::new().days(10));
    for (before, after) in before.iter().zip(&after) {
        assert_eq!(after.sow, plus(before.sow), "{}", before.name);
        assert_eq!(after.emerge, before.emerge.map(plus), "{}", before.name);
        assert_eq!(after.out, plus(before.out), "{}", before.name);
    }
}

#[test]
fn a_cold_corner_sows_earlier_for_the_same_planting_out() {
    let dates = |c| {
        let plan = kettle_fen(|plan| {
            let tomato = plan.sowings.iter_mut().find(|s| s.crop == "tomato");
            tomato.unwrap().root_zone_c = Some(c);
        });
        let sowings = on(&plan, date(2027, 4, 9)).sowings;
        sowings.into_iter().find(|s| s.sowing == "tomato").unwrap()
    };
    let (warm, cold) = (dates(24.0), dates(15.0));
    assert_eq!(warm.out, cold.out);
    // 13.6 days at 15 °C by the handbook against about 6.4 at 24.
    assert_eq!(cold.sow, warm.sow.saturating_sub(jiff::Span::new().days(7)));
}

#[test]
fn empty_bays_burn_nothing() {
    let assessment = on(&kettle_fen(|_| ()), date(2027, 1, 20));
    assert_eq!(assessment.room[0].power.watts, 0.0);
    assert!(assessment.room[0].bays.iter().all(|bay| !bay.burning));
}

#[test]
fn one_lamp_leaves_the_middle_short_where_two_do() {
    // Common practice, no source: two 5,000 lm lamps over a 1.2 m tier are enough for seedlings,
    // one leaves part of the tier short.
    let with = |positions: &[f64]| {
        let plan = kettle_fen(|plan| {
            let tier = tier(plan, "door", "t1");
            let mut lamp = rack_lamp(tier);
            tier.photoperiod_h = 16.0;
            tier.lamps = positions
                .iter()
                .enumerate()
                .map(|(i, &y_mm)| {
                    lamp.id = format!("l{i}");
                    lamp.y_mm = y_mm;
                    lamp.clone()
                })
                .collect();
        });
        let bay = on(&plan, date(2027, 4, 9)).room[0].bays[0].clone();
        bay.light.unwrap().dli
    };
    let two = with(&[170.0, 440.0]);
    let one = with(&[305.0]);
    assert!(two.mean > 6.0, "two: {two:?}");
    assert!(
        one.mean < 0.6 * two.mean && one.worst < 0.6 * two.worst,
        "one: {one:?}"
    );
}

fn rack_lamp(tier: &room::Tier) -> room::Lamp {
    let mut lamp = tier.lamps[0].clone();
    lamp.family = room::LampFamily::WhiteLed;
    lamp.flux_lm = 5000.0;
    lamp
}

#[test]
fn opens_today_within_the_season_and_on_the_fullest_day_outside() {
    let plan = kettle_fen(|_| ());
    assert_eq!(
        opening_day(
            &plan,
            date(2027, 3, 3),
            &Fields::default(),
            &Lately::default()
        ),
        date(2027, 3, 3)
    );
    let fullest = opening_day(
        &plan,
        date(2026, 11, 23),
        &Fields::default(),
        &Lately::default(),
    );
    let season = on(&plan, fullest).season;
    let trays = |day| season.days.iter().find(|d| d.date == day).unwrap().trays;
    assert!(season.days.iter().all(|d| d.trays <= trays(fullest)));
}

#[test]
fn frost_risk_is_even_on_the_last_frost_and_fades() {
    let plan = kettle_fen(|_| ());
    assert!((plan.site.frost_risk(date(2027, 5, 6)) - 0.5).abs() < 1e-12);
    assert!(plan.site.frost_risk(date(2027, 2, 1)) > 0.99);
    assert!(plan.site.frost_risk(date(2027, 6, 10)) < 0.01);
}
