//! Loads, limits, tariffs, hours and costs against sums by hand and against brute force.

use fastrand::Rng;
use jiff::civil::{Date, date};
use jiff::tz::TimeZone;
use serde_json::{Value, json};
use sunrise_core::ask::calc::{LoadSetUp, WindowAsk};
use sunrise_core::ask::{Electricity, Fields, power};
use sunrise_core::plan::SoundPlan;
use sunrise_core::site::tariff::HourPrices;
use sunrise_core::site::{CheapHours, Site};
use sunrise_core::testing::{kettle_fen, sound, tier};

fn set_up(mains_v: f64, feeds: Value, draws: Value) -> LoadSetUp {
    let wiring = json!({ "feeds": feeds });
    let set_up = json!({ "mains_v": mains_v, "wiring": wiring, "draws": draws });
    serde_json::from_value(set_up).unwrap()
}

fn circuit(breaker_a: f64) -> Value {
    json!({"id": "c", "name": "c", "kind": {"circuit": {"breaker_a": breaker_a}}})
}

fn socket(fuse_a: Option<f64>) -> Value {
    let mut socket = json!({"outlets": 2});
    if let Some(amps) = fuse_a {
        socket["fuse_a"] = json!(amps);
    }
    json!({"id": "s", "name": "s", "into": "c", "kind": {"socket": socket}})
}

fn lamp(id: usize, watts: f64, plugged: &str, from_h: f64, to_h: f64) -> Value {
    json!({"what": "lamp", "id": format!("l{id}"), "name": "lamp", "watts": watts, "plugged": plugged,
        "hours": {"from_h": from_h, "to_h": to_h}})
}

/// By hand from NFPA 70 (NEC) 210.20(A), from memory: a 15 A breaker at 120 V passes 1,800 W. What is on
/// for three hours or more counts at 125 %: 1,500 W x 1.25 = 1,875 W is too much, 1,440 W x 1.25 = 1,800 W
/// just passes, and 600 W for hours with 1,050 W for two of them is 750 + 1,050 = 1,800 W.
#[test]
fn continuous_loads_count_at_125_percent() {
    let over = |draws: Value| {
        let feeds = json!([circuit(15.0), socket(None)]);
        let day = set_up(120.0, feeds, draws).day().unwrap();
        let limit = day.feeds[0].limits[0];
        (limit.carries_va, limit.over)
    };
    assert_eq!(
        over(json!([lamp(1, 1500.0, "s", 6.0, 22.0)])),
        (1875.0, true)
    );
    assert_eq!(
        over(json!([lamp(1, 1440.0, "s", 6.0, 22.0)])),
        (1800.0, false)
    );
    let mixed = json!([
        lamp(1, 600.0, "s", 6.0, 22.0),
        lamp(2, 1050.0, "s", 8.0, 10.0)
    ]);
    assert_eq!(over(mixed), (1800.0, false));
    // Not at the same time: no more than the greater of both.
    let apart = json!([
        lamp(1, 1000.0, "s", 0.0, 8.0),
        lamp(2, 1000.0, "s", 8.0, 16.0)
    ]);
    assert_eq!(over(apart), (1250.0, false));
}

/// By hand from BS 1363, from memory: a fuse of 13 A at 230 V passes 2,990 W. It guards the plug, not the
/// socket: two strips in one socket have a fuse each.
#[test]
fn a_fused_plug_is_limited_by_its_fuse() {
    let strip = |id: &str| json!({"id": id, "name": id, "into": "s", "kind": {"strip": {"rating_w": 3680, "outlets": 6}}});
    let feeds = json!([circuit(32.0), socket(Some(13.0)), strip("a"), strip("b")]);
    let draws = json!([
        lamp(1, 2500.0, "a", 8.0, 20.0),
        lamp(2, 2300.0, "b", 8.0, 20.0)
    ]);
    let day = set_up(230.0, feeds, draws).day().unwrap();
    let of = |feed: usize| {
        let limits = &day.feeds[feed].limits;
        limits
            .iter()
            .map(|limit| (limit.most_va, limit.carries_va, limit.over))
            .collect::<Vec<_>>()
    };
    assert_eq!(of(2), [(3680.0, 2500.0, false), (2990.0, 3125.0, true)]);
    assert_eq!(of(3), [(3680.0, 2300.0, false), (2990.0, 2875.0, false)]);
    assert!(of(1).is_empty());
    assert_eq!(of(0), [(7360.0, 6000.0, false)]);
    // 12 h of 4.8 kW.
    assert!((day.all.kwh - 57.6).abs() < 1e-9);
    assert_eq!((day.all.peak_w, day.all.peak_h), (4800.0, 8.0));
}

/// A power factor of 0.5 doubles the current.
#[test]
fn current_goes_by_volt_amperes_and_energy_by_watts() {
    let mut tube = lamp(1, 115.0, "s", 0.0, 12.0);
    tube["power_factor"] = json!(0.5);
    let day = set_up(230.0, json!([circuit(16.0), socket(None)]), json!([tube]))
        .day()
        .unwrap();
    assert!((day.feeds[0].load.peak_a - 1.0).abs() < 1e-12);
    assert!((day.feeds[0].load.kwh - 1.38).abs() < 1e-12);
}

#[test]
fn a_circle_of_strips_is_refused_with_its_place() {
    let strip = |id: &str, into: &str| json!({"id": id, "name": id, "into": into, "kind": {"strip": {"rating_w": 2300, "outlets": 6}}});
    let faults = set_up(230.0, json!([strip("a", "b"), strip("b", "a")]), json!([])).day();
    assert_eq!(faults.unwrap_err()[0].path, "/wiring/feeds/0/into");
}

fn site(zone: &str) -> Site {
    let mut site = kettle_fen(|_| ()).site.clone();
    site.time_zone = zone.into();
    site
}

/// The clock in `zone` at `minute` of real time after the midnight that `day` begins with.
fn clock(day: Date, zone: &TimeZone, minute: i64) -> jiff::civil::DateTime {
    let midnight = day.to_zoned(zone.clone()).unwrap().timestamp();
    let at = jiff::Timestamp::from_second(midnight.as_second() + minute * 60).unwrap();
    zone.to_datetime(at)
}

/// A thousand questions at random, over midnight and on the days on which clocks change, each against all
/// starts tried minute by minute.
#[test]
fn the_best_window_is_that_of_brute_force() {
    let mut rng = Rng::with_seed(18);
    let zones = [
        "Europe/London",
        "America/Chicago",
        "Australia/Lord_Howe",
        "UTC",
        "Asia/Kolkata",
    ];
    let days = [
        date(2027, 3, 28),
        date(2027, 10, 31),
        date(2027, 3, 14),
        date(2027, 11, 7),
        date(2027, 4, 4),
        date(2027, 10, 3),
        date(2027, 3, 27),
        date(2027, 4, 9),
    ];
    for case in 0..1000 {
        let mut site = site(rng.choice(zones).unwrap());
        let hour = |rng: &mut Rng| f64::from(rng.u32(0..96)) / 4.0;
        site.quiet = rng.bool().then(|| {
            let from_h = hour(&mut rng);
            let to_h = (from_h + f64::from(rng.u32(1..40)) / 4.0) % 24.0;
            sunrise_core::basis::clock::ClockSpan { from_h, to_h }
        });
        site.price_per_kwh = f64::from(rng.u32(1..50)) / 100.0;
        site.cheap = rng.bool().then(|| {
            let from_h = hour(&mut rng);
            let to_h = (from_h + f64::from(rng.u32(1..40)) / 4.0) % 24.0;
            CheapHours {
                hours: sunrise_core::basis::clock::ClockSpan { from_h, to_h },
                price_per_kwh: f64::from(rng.u32(1..30)) / 100.0,
            }
        });
        if rng.bool() {
            let day = |rng: &mut Rng| {
                (0..24)
                    .map(|_| f64::from(rng.i32(-5..60)) / 100.0)
                    .collect()
            };
            site.by_hour = Some(HourPrices {
                workday: day(&mut rng),
                weekend: rng.bool().then(|| day(&mut rng)),
            });
        }
        let ask = WindowAsk {
            date: *rng.choice(&days).unwrap(),
            hours: f64::from(rng.u32(0..97)) / 4.0,
            watts: f64::from(rng.u32(1..2000)),
            step_min: *rng.choice(&[15, 30, 60, 5]).unwrap(),
            site,
        };
        let found = ask.windows().unwrap();
        let zone = jiff::tz::TimeZoneDatabase::bundled()
            .get(&ask.site.time_zone)
            .unwrap();
        let minutes: Vec<(bool, f64)> = (0..2 * 25 * 60)
            .map(|minute| {
                let at = clock(ask.date, &zone, minute);
                let h = f64::from(at.hour()) + (f64::from(at.minute()) + 0.5) / 60.0;
                let quiet = ask.site.quiet.is_some_and(|q| {
                    (h - q.from_h).rem_euclid(24.0) < (q.to_h - q.from_h).rem_euclid(24.0)
                });
                let weekend = sunrise_core::site::tariff::is_weekend(at.date());
                (quiet, ask.site.price_at(weekend, h))
            })
            .collect();
        let of_day = (0..)
            .find(|minute| clock(ask.date, &zone, *minute).date() != ask.date)
            .unwrap();
        let long = (ask.hours * 60.0).round() as usize;
        let mut best: Option<(u32, f64)> = None;
        let mut at = 0;
        while at < of_day as usize {
            let window = &minutes[at..at + long];
            let quiet = window.iter().filter(|(quiet, _)| *quiet).count() as u32;
            let cost: f64 = window
                .iter()
                .map(|(_, price)| price * ask.watts / 60_000.0)
                .sum();
            let less = best.is_none_or(|(q, c)| quiet < q || quiet == q && cost < c - 1e-9);
            if less {
                best = Some((quiet, cost));
            }
            at += ask.step_min as usize;
        }
        let (quiet, cost) = best.unwrap();
        assert_eq!(found.best.quiet_min, quiet, "case {case}: {ask:?}");
        assert!(
            (found.best.cost - cost).abs() < 1e-6,
            "case {case}: {} and {cost}",
            found.best.cost
        );
    }
}

fn asked(plan: &SoundPlan, day: Date) -> Electricity {
    power(plan, day, &Fields::default())
}

#[test]
fn the_season_is_the_sum_of_its_hours() {
    let plan = kettle_fen(|_| ());
    let whole = asked(&plan, date(2027, 4, 9)).running;
    let mut summed = 0.0;
    for day in plan.season.days() {
        let of_day = whole.days.iter().find(|one| one.date == day).unwrap();
        // The household's own things are in the load, and not in what the stand costs.
        let all = asked_load(&plan, day);
        assert!(
            (all - of_day.kwh).abs() < 1e-6,
            "{day}: {all} and {}",
            of_day.kwh
        );
        summed += all;
    }
    assert!((summed - whole.kwh).abs() < 0.001 * whole.kwh);
    let lines = |get: fn(&sunrise_core::cost::running::EnergyLine) -> f64| -> f64 {
        whole.lines.iter().map(get).sum()
    };
    assert!((lines(|line| line.kwh) - whole.kwh).abs() < 1e-6);
    assert!((lines(|line| line.cost) - whole.cost).abs() < 1e-6);
    assert_eq!(whole.lines.len(), 4, "lamps, mats, fans and the chamber");
}

/// The energy of a day, summed hour by hour over what draws on it; without the household.
fn asked_load(plan: &SoundPlan, day: Date) -> f64 {
    let fields = sunrise_core::testing::fields();
    let reckoned = sunrise_core::season::Reckoned::of(plan, fields);
    let mut looker =
        sunrise_core::day::view::Looker::new(&reckoned, sunrise_core::ask::Detail::Outline);
    let mut draws = Vec::new();
    for place in 0..plan.places.len() {
        draws.extend(
            looker
                .look(place, day)
                .into_iter()
                .flat_map(|view| view.computed.draws),
        );
    }
    let day = sunrise_core::power::load::day_load(&plan.wiring, plan.site.mains_v, &draws);
    day.all.summed_kwh()
}

/// A mat of 100 W that is on for a share of the day takes that share of 2.4 kWh: it was free once.
#[test]
fn mats_fans_and_chamber_heat_are_in_every_total() {
    let plan = kettle_fen(|_| ());
    let day = date(2027, 4, 9);
    let answer = asked(&plan, day);
    let kwh: f64 = answer
        .draws
        .iter()
        .filter(|one| !one.at.is_empty())
        .map(|one| one.kwh)
        .sum();
    let room = sunrise_core::ask::assess(
        &plan,
        sunrise_core::ask::DateSpan::day(day),
        sunrise_core::ask::Detail::Outline,
    );
    assert!((room.room[0].power.kwh_per_day - kwh).abs() < 1e-9);
    let kinds: std::collections::BTreeSet<_> =
        answer.draws.iter().map(|one| one.draw.what).collect();
    assert!(kinds.len() >= 3, "{kinds:?}");
    for one in &answer.draws {
        let hours = one.draw.burning().hours;
        assert!((one.kwh - one.draw.watts * one.draw.duty * hours / 1000.0).abs() < 1e-12);
    }
}

#[test]
fn the_table_of_costs_sums_to_what_is_shown() {
    let plan = kettle_fen(|_| ());
    let answer = asked(&plan, date(2027, 4, 9));
    let mut reader = csv::Reader::from_reader(answer.table_csv.as_bytes());
    let rows: Vec<Vec<String>> = reader
        .records()
        .map(|row| row.unwrap().iter().map(str::to_owned).collect())
        .collect();
    let (all, sowings) = rows.split_last().unwrap();
    let column = |at: usize| {
        sowings
            .iter()
            .map(|row| row[at].parse::<f64>().unwrap())
            .sum::<f64>()
    };
    for (at, shown) in all.iter().enumerate().take(8).skip(2) {
        let shown: f64 = shown.parse().unwrap();
        assert!(
            (column(at) - shown).abs() < 0.01,
            "column {at}: {} and {shown}",
            column(at)
        );
    }
    // What is drawn is paid by some sowing: nothing is lost on the way.
    let current: f64 = all[5].parse().unwrap();
    assert!((current - answer.running.cost).abs() < 0.02 * answer.running.cost);
    assert!(
        (answer.plants.all.total() / f64::from(answer.plants.plants)
            - answer.plants.per_plant.unwrap())
        .abs()
            < 1e-9
    );
}

#[test]
fn a_newcomers_gear_is_plugged_in_within_every_limit() {
    let mut plan = (*kettle_fen(|_| ())).clone();
    plan.wiring = Default::default();
    for tier in plan.places.iter_mut().flat_map(|place| &mut place.tiers) {
        tier.lamps.iter_mut().for_each(|lamp| lamp.plugged = None);
        tier.mats.iter_mut().for_each(|mat| mat.plugged = None);
        tier.fans.iter_mut().for_each(|fan| fan.plugged = None);
    }
    let edited =
        sunrise_core::edit::apply(&sound(plan), &sunrise_core::edit::Edit::ProposeWiring).unwrap();
    let plan = sound(edited.plan);
    let answer = asked(&plan, date(2027, 4, 9));
    assert!(answer.load.loose.is_none());
    for feed in &answer.load.feeds {
        assert!(feed.limits.iter().all(|limit| !limit.over), "{feed:?}");
        assert!(
            feed.outlets.is_none_or(|outlets| feed.plugs <= outlets),
            "{feed:?}"
        );
    }
    let timers = plan
        .wiring
        .feeds
        .iter()
        .filter(|feed| feed.id.starts_with("timer"))
        .count();
    assert!(timers >= 3, "{timers}");
}

#[test]
fn a_feed_that_is_taken_out_leaves_nothing_hanging_in_the_air() {
    let plan = kettle_fen(|plan| tier(plan, "door", "t2").photoperiod_h = 15.0);
    let feed = "strip-door".to_owned();
    let edit = sunrise_core::edit::Edit::RemoveFeed { feed: feed.clone() };
    let after = sound(sunrise_core::edit::apply(&plan, &edit).unwrap().plan);
    assert!(after.wiring.feed(&feed).is_none());
    let lamps = &after.places[0].tiers[3].lamps;
    assert_eq!(lamps[0].plugged.as_deref(), Some("socket-door"));
}
