//! What is raised for the autumn: counted back from the first frost, wherever the garden lies.

use jiff::civil::{Date, date};
use sunrise_core::ask::{CropStart, when};
use sunrise_core::basis::dates::{days_between, plus_days};
use sunrise_core::crops::library;
use sunrise_core::plan::usual_days::{bears_frost, ready_days};
use sunrise_core::plan::{Plan, SoundPlan, Sowing};
use sunrise_core::site::FirstFrostBy;
use sunrise_core::site::frost::FrostRecord;
use sunrise_core::testing::{dates_of, fields, kettle_fen, reckoned};

/// The demo with `crops` raised for the autumn, whose first frost is on 12 October.
fn for_autumn(crops: &[&str]) -> SoundPlan {
    kettle_fen(|plan| {
        plan.season.to = date(2027, 11, 30);
        plan.site.first_frost = Some(date(2027, 10, 12));
        plan.sowings.extend(crops.iter().map(|crop| {
            let mut own = Sowing::plain(&format!("late-{crop}"), crop, "", 6);
            own.autumn = true;
            own
        }));
    })
}

#[test]
fn every_kind_that_is_raised_for_it_is_ready_in_time() {
    let crops = library().crops.iter().filter(|crop| crop.ready_weeks > 0.0);
    let crops: Vec<_> = crops.collect();
    assert!(crops.len() >= 30);
    let ids: Vec<&str> = crops.iter().map(|crop| crop.id.as_str()).collect();
    let plan = for_autumn(&ids);
    let all = reckoned(&plan);
    for crop in crops {
        let dates = dates_of(&all, &format!("late-{}", crop.id));
        let ready = plus_days(dates.out, ready_days(crop));
        assert_eq!(ready, plan.ready_by(crop), "{}", crop.id);
        assert!(ready <= date(2027, 10, 12), "{}", crop.id);
        let tender_days = days_between(ready, date(2027, 10, 12));
        assert_eq!(tender_days > 0, !bears_frost(crop), "{}", crop.id);
        // Nobody sows for the autumn before the spring is over, nor in it.
        assert!(dates.sow > date(2027, 4, 1), "{}: {}", crop.id, dates.sow);
        assert!(dates.sow < date(2027, 9, 20), "{}: {}", crop.id, dates.sow);
        assert!(dates.raised_for_autumn && dates.in_the_bed.is_none());
        let why = dates.why.out.rule.to_string();
        assert!(why.contains("first frost"), "{why}");
    }
}

#[test]
fn moved_and_fixed_days_win_over_the_frost() {
    let shifted = {
        let mut plan = for_autumn(&["kale"]).into_inner();
        plan.sowings.last_mut().unwrap().shift_days = 10;
        plan.check().unwrap()
    };
    let usual = for_autumn(&["kale"]);
    let out = |plan: &SoundPlan| dates_of(&reckoned(plan), "late-kale").out;
    assert_eq!(days_between(out(&usual), out(&shifted)), 10);
    let fixed = {
        let mut plan = for_autumn(&["kale"]).into_inner();
        plan.sowings.last_mut().unwrap().out_on = Some(date(2027, 9, 1));
        plan.check().unwrap()
    };
    assert_eq!(out(&fixed), date(2027, 9, 1));
}

#[test]
fn the_first_frost_is_typed_else_on_record_else_estimated() {
    let plan = kettle_fen(|_| ());
    let estimated = plan.site.first_frost_day();
    assert_eq!(estimated.by, FirstFrostBy::Estimate);
    assert!(estimated.day > date(2027, 9, 15) && estimated.day < date(2027, 11, 20));
    let record = |plan: &mut Plan| {
        let years = (2015..2025).map(|year| {
            serde_json::json!({
                "year": year, "last": format!("{year}-05-02"), "first": format!("{year}-10-20")
            })
        });
        let record = serde_json::json!({
            "name": "station", "threshold_c": 0.0, "caution": "even",
            "years": years.collect::<Vec<_>>()
        });
        plan.site.frost = Some(serde_json::from_value::<FrostRecord>(record).unwrap());
    };
    let recorded = kettle_fen(record).site.first_frost_day();
    assert_eq!(recorded.by, FirstFrostBy::Record);
    assert!(days_between(recorded.day, date(2027, 10, 20)).abs() <= 1);
    let typed = kettle_fen(|plan| {
        record(plan);
        plan.site.first_frost = Some(date(2027, 10, 1));
    });
    let typed = typed.site.first_frost_day();
    assert_eq!(
        (typed.day, typed.by),
        (date(2027, 10, 1), FirstFrostBy::Typed)
    );
}

#[test]
fn an_estimate_follows_the_spring_and_lies_in_the_autumn_of_either_half_of_the_earth() {
    let first = |latitude_deg: f64, last_frost: Date| {
        let plan = kettle_fen(|plan| {
            plan.site.latitude_deg = latitude_deg;
            plan.site.last_frost = last_frost;
            plan.season.from = plus_days(last_frost, -100);
            plan.season.to = plus_days(last_frost, 50);
            plan.sowings.clear();
            plan.trays.clear();
            plan.away.clear();
        });
        plan.site.first_frost_day().day
    };
    // The later frosts end, the sooner they come back.
    let (early, late) = (
        first(48.0, date(2027, 4, 10)),
        first(48.0, date(2027, 5, 25)),
    );
    assert!(late < early, "{late} {early}");
    assert!(early < date(2028, 1, 1) && late > date(2027, 8, 20));
    let south = first(-42.0, date(2027, 10, 20));
    assert!(
        south > date(2028, 3, 1) && south < date(2028, 7, 1),
        "{south}"
    );
}

#[test]
fn the_chance_of_frost_fades_in_spring_and_comes_back_in_autumn() {
    let plan = kettle_fen(|plan| plan.site.first_frost = Some(date(2027, 10, 12)));
    let risk = |day: Date| plan.site.frost_risk(day);
    assert!((risk(plan.site.last_frost) - 0.5).abs() < 1e-9);
    assert!((risk(date(2027, 10, 12)) - 0.5).abs() < 1e-9);
    assert!(risk(date(2027, 7, 20)) < 0.01);
    let days = |from: Date, to: Date| (0..days_between(from, to)).map(move |n| plus_days(from, n));
    let falls = days(date(2027, 3, 1), date(2027, 7, 15)).map(risk);
    let falls: Vec<f64> = falls.collect();
    assert!(falls.windows(2).all(|pair| pair[1] <= pair[0] + 1e-12));
    let rises: Vec<f64> = days(date(2027, 8, 1), date(2027, 12, 1))
        .map(risk)
        .collect();
    assert!(rises.windows(2).all(|pair| pair[1] >= pair[0] - 1e-12));
    assert!(rises.last().unwrap() > &0.99);
}

#[test]
fn the_next_year_has_the_same_autumn() {
    let next = for_autumn(&["kale"]).into_inner().next_year();
    assert_eq!(next.site.first_frost, Some(date(2028, 10, 12)));
    assert!(next.sowings.last().unwrap().autumn);
    let next = next.check().unwrap();
    let this = for_autumn(&["kale"]);
    let out = |plan: &SoundPlan| dates_of(&reckoned(plan), "late-kale").out;
    let days = days_between(out(&this), out(&next));
    assert!((365..=367).contains(&days), "{days}");
}

#[test]
fn who_chooses_a_crop_sees_both_its_seasons() {
    let starts = when(&kettle_fen(|_| ()), date(2027, 2, 20), fields());
    let of = |id: &str| -> &CropStart { starts.iter().find(|start| start.crop == id).unwrap() };
    for id in ["lettuce", "kale", "leek", "fennel"] {
        let start = of(id);
        let autumn = start.autumn.unwrap_or_else(|| panic!("{id}"));
        assert!(autumn.sow > start.sow, "{id}");
        assert!(autumn.sow < autumn.out && autumn.out < autumn.ready, "{id}");
    }
    for id in ["pepper", "aubergine", "onion"] {
        assert_eq!(of(id).autumn, None, "{id}");
    }
}
