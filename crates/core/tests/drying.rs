//! What dries a tray: its mix, moving air, leaves and light; and how closed places are aired.

use jiff::civil::{Date, date};
use sunrise_core::ask::{assess, water_ahead};
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::bay::BayOnDay;
use sunrise_core::day::detail::Detail;
use sunrise_core::plan::{Plan, SoundPlan};
use sunrise_core::room::place::PlaceSetting;
use sunrise_core::room::{Airing, Fan, MixKind, shelf};
use sunrise_core::testing::{self, fields, kettle_fen, place, tier};

const DAY: Date = date(2027, 4, 9);

fn bay(plan: &SoundPlan, of: &str, id: &str, day: Date) -> BayOnDay {
    let wanted = testing::bay(of, id);
    let mut assessed = assess(plan, DateSpan::day(day), Detail::Bay(wanted.clone()));
    let bays = assessed.room.remove(0).bays;
    bays.into_iter().find(|bay| bay.bay == wanted).unwrap()
}

/// What the trays of the coat rack's third shelf drink in a day, in ml.
fn drink(plan: &SoundPlan) -> f64 {
    let bay = bay(plan, "coat", "t3", DAY);
    bay.roots().iter().map(|roots| roots.water.uses_ml_d).sum()
}

/// The demo with these fans on the coat rack's third shelf.
fn fanned(change: impl Fn(&mut Fan)) -> SoundPlan {
    kettle_fen(|plan| {
        let mut fan = shelf::library().fans[0].clone();
        fan.id = "own".into();
        change(&mut fan);
        tier(plan, "coat", "t3").fans = vec![fan];
    })
}

#[test]
fn the_more_air_moves_over_trays_the_more_they_drink() {
    let still = drink(&kettle_fen(|plan| tier(plan, "coat", "t3").fans.clear()));
    let by_flow = |flow: f64| drink(&fanned(|fan| fan.flow_m3_h = flow));
    let (weak, strong) = (by_flow(60.0), by_flow(400.0));
    assert!(
        still > 0.0 && still < weak && weak < strong,
        "{still} {weak} {strong}"
    );
    // A fan does not multiply what evaporates: under a gale it is two to three times as much.
    assert!(strong < 3.5 * still, "{strong} {still}");
    // One that is carried to another shelf every other day dries half as much more.
    let carried = drink(&fanned(|fan| {
        fan.flow_m3_h = 400.0;
        fan.by_turns = vec!["t1".into()];
    }));
    assert!(
        carried > still && carried < strong,
        "{still} {carried} {strong}"
    );
}

#[test]
fn a_fan_that_is_carried_round_reaches_each_of_its_shelves() {
    let plan = kettle_fen(|plan| {
        let mut fan = shelf::library().fans[0].clone();
        (fan.id, fan.flow_m3_h) = ("own".into(), 300.0);
        fan.by_turns = vec!["t1".into()];
        for id in ["t1", "t3"] {
            tier(plan, "coat", id).fans.clear();
        }
        tier(plan, "coat", "t3").fans = vec![fan];
    });
    let speed = |id: &str| {
        let bay = bay(&plan, "coat", id, DAY);
        let air = bay.detail.and_then(|detail| detail.air);
        air.expect("it was asked for").far_end_m_s
    };
    assert!(speed("t1") > 0.0);
    assert!((speed("t1") - speed("t3")).abs() < 1e-9);
    // A shelf that it does not go to stays as it was.
    assert!(speed("t2") < speed("t1"));
}

#[test]
fn leaves_under_a_fan_are_cooler_than_in_still_air() {
    let mean = |plan: &SoundPlan| {
        let bay = bay(plan, "coat", "t3", DAY);
        let all: Vec<f64> = bay.roots().iter().map(|roots| roots.day.mean_c).collect();
        all.iter().sum::<f64>() / all.len() as f64
    };
    let still = mean(&kettle_fen(|plan| tier(plan, "coat", "t3").fans.clear()));
    let blown = mean(&fanned(|fan| fan.flow_m3_h = 400.0));
    assert!(blown < still && still - blown < 5.0, "{still} {blown}");
}

#[test]
fn what_a_mix_holds_says_how_long_a_tray_lasts_and_what_it_weighs_then() {
    let of = |mix: MixKind| {
        let plan = kettle_fen(|plan| {
            for format in &mut plan.tray_formats {
                *format = format.clone().filled_with(mix);
            }
        });
        let ahead = water_ahead(&plan, DAY, fields());
        let tray = ahead.trays.into_iter().find(|own| own.tray == "cf1");
        tray.expect("it stands there")
    };
    let all = [
        MixKind::Peat,
        MixKind::Coir,
        MixKind::Compost,
        MixKind::Bark,
    ];
    let lasts: Vec<f64> = all.iter().map(|mix| of(*mix).lasts_days.unwrap()).collect();
    // Peat holds out longest, bark shortest.
    assert!(lasts.windows(2).all(|pair| pair[1] < pair[0]), "{lasts:?}");
    for mix in all {
        let own = of(mix);
        assert_eq!(own.mix, mix);
        let drunk_l = own.wet_kg - own.light_kg;
        let by_days = own.uses_ml_d * own.lasts_days.unwrap() / 1000.0;
        assert!(
            (drunk_l - by_days).abs() < 0.02,
            "{mix:?}: {drunk_l} {by_days}"
        );
        let figures = mix.figures();
        assert!(figures.easy < figures.holds && figures.holds < 1.0);
    }
    assert!(of(MixKind::Compost).wet_kg > of(MixKind::Bark).wet_kg);
}

#[test]
fn a_reservoir_adds_its_days_and_a_domed_tray_needs_none() {
    let lasts = |reservoir_ml: Option<f64>| {
        let plan = kettle_fen(|plan| {
            let formats = plan.tray_formats.iter_mut();
            formats.for_each(|format| format.reservoir_ml = reservoir_ml);
        });
        let ahead = water_ahead(&plan, DAY, fields());
        let tray = ahead.trays.into_iter().find(|own| own.tray == "cf1");
        let tray = tray.expect("it stands there");
        (tray.lasts_days.unwrap(), tray.uses_ml_d)
    };
    let ((bare, uses), (wicked, _)) = (lasts(None), lasts(Some(1000.0)));
    assert!(
        (wicked - bare - 1000.0 / uses).abs() < 0.01,
        "{bare} {wicked} {uses}"
    );
    let domed = kettle_fen(|plan| {
        let tiers = plan.places.iter_mut().flat_map(|place| &mut place.tiers);
        tiers.for_each(|tier| tier.domes_growing = true);
    });
    let ahead = water_ahead(&domed, DAY, fields());
    let covered: Vec<_> = ahead
        .trays
        .iter()
        .filter(|own| own.uses_ml_d == 0.0)
        .collect();
    assert!(covered.len() > 3);
    assert!(
        covered
            .iter()
            .all(|own| own.lasts_days.is_none() && own.due.is_none())
    );
}

/// The cabinet with its mats on for good, aired so.
fn hot_cabinet(airing: Option<Airing>, settings: Vec<PlaceSetting>) -> SoundPlan {
    kettle_fen(|plan: &mut Plan| {
        let cabinet = place(plan, "cabinet");
        (cabinet.airing, cabinet.settings) = (airing, settings);
        let mats = cabinet.tiers.iter_mut().flat_map(|tier| &mut tier.mats);
        mats.for_each(|mat| mat.thermostat_c = None);
    })
}

fn warmest(plan: &SoundPlan, day: Date) -> f64 {
    let bay = bay(plan, "cabinet", "t1", day);
    let chamber = bay.detail.and_then(|detail| detail.chamber);
    let chamber = chamber.expect("it is closed");
    let most = chamber.day.shelves.iter().map(|shelf| shelf.most_c);
    most.fold(f64::NEG_INFINITY, f64::max)
}

const MARCH: Date = date(2027, 3, 20);

#[test]
fn a_cabinet_is_aired_by_the_clock_by_its_warmth_or_from_a_date_on() {
    let airing = |hours: f64, over_c: Option<f64>| Airing {
        gap_mm: 50.0,
        from_h: 8.0,
        hours,
        over_c,
    };
    let shut = warmest(&hot_cabinet(None, Vec::new()), MARCH);
    let all_day = warmest(&hot_cabinet(Some(airing(24.0, None)), Vec::new()), MARCH);
    let half = warmest(&hot_cabinet(Some(airing(12.0, None)), Vec::new()), MARCH);
    assert!(all_day < shut - 1.0, "{all_day} {shut}");
    assert!(half > all_day && half <= shut + 0.01, "{half}");
    // Never is never, and so is what stays under its mark.
    let never = warmest(&hot_cabinet(Some(airing(0.0, None)), Vec::new()), MARCH);
    assert!((never - shut).abs() < 1e-9);
    let high = warmest(
        &hot_cabinet(Some(airing(24.0, Some(shut + 2.0))), Vec::new()),
        MARCH,
    );
    assert!((high - shut).abs() < 0.05);
    let low = warmest(
        &hot_cabinet(Some(airing(24.0, Some(all_day))), Vec::new()),
        MARCH,
    );
    assert!(low >= all_day - 0.05 && low < shut, "{low}");
    // From a date on.
    let from = |from: Date| PlaceSetting {
        from,
        tier: None,
        lamps_germinating: None,
        mats_growing: None,
        domes_growing: None,
        shut: None,
        airing: Some(airing(24.0, None)),
    };
    let later = hot_cabinet(None, vec![from(date(2027, 3, 25))]);
    assert!((warmest(&later, MARCH) - shut).abs() < 1e-9);
    let sooner = hot_cabinet(None, vec![from(date(2027, 3, 1))]);
    assert!((warmest(&sooner, MARCH) - all_day).abs() < 1e-9);
    let ended = PlaceSetting {
        airing: Some(airing(0.0, None)),
        ..from(date(2027, 3, 10))
    };
    let over = hot_cabinet(None, vec![from(date(2027, 3, 1)), ended]);
    // What came up in the cooler days before stands there still.
    let over = warmest(&over, MARCH);
    assert!((over - shut).abs() < 0.5, "{over} {shut}");
}
