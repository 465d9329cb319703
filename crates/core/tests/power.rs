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

fn with_hours(workday: Vec<f64>, weekend: Option<Vec<f64>>) -> Site {
    let mut site = site("UTC");
    site.by_hour = Some(HourPrices { workday, weekend });
    site
}

/// By hand: 1 kW from 22:00 for 4 hours, at 0.10 up to midnight and 0.30 from then on, is 0.80; at 0.50
/// all weekend it is 2.00; the mean of a week (5 and 2 days) is 8/7.
#[test]
fn a_tariff_by_the_hour_counts_each_hour_at_its_price() {
    use sunrise_core::basis::clock::Burning;
    let workday: Vec<f64> = (0..24)
        .map(|hour| if hour >= 12 { 0.1 } else { 0.3 })
        .collect();
    let site = with_hours(workday, Some(vec![0.5; 24]));
    let burning = Burning::new(22.0, 4.0);
    let on = |date: Option<Date>| site.cost_on(date, 1000.0, burning);
    assert!((on(Some(date(2027, 4, 9))) - 0.8).abs() < 1e-12);
    assert!((on(Some(date(2027, 4, 10))) - 2.0).abs() < 1e-12);
    assert!((on(None) - 8.0 / 7.0).abs() < 1e-12);
    assert_eq!(
        (site.price_at(false, 11.9), site.price_at(false, 12.0)),
        (0.3, 0.1)
    );
    // Half of 06:30 to 07:30 is cheap by two rates.
    let mut two_rates = self::site("UTC");
    two_rates.price_per_kwh = 0.4;
    let span = sunrise_core::basis::clock::ClockSpan {
        from_h: 23.0,
        to_h: 7.0,
    };
    two_rates.cheap = Some(CheapHours {
        hours: span,
        price_per_kwh: 0.2,
    });
    let cost = two_rates.cost_on(None, 1000.0, Burning::new(6.5, 1.0));
    assert!((cost - 0.3).abs() < 1e-12);
    assert_eq!(
        (
            two_rates.price_at(false, 6.9),
            two_rates.price_at(false, 7.0)
        ),
        (0.2, 0.4)
    );
}

#[test]
fn a_tariff_of_the_wrong_length_is_refused_by_its_list() {
    let mut plan = (*kettle_fen(|_| ())).clone();
    plan.site.by_hour = Some(HourPrices {
        workday: vec![0.2; 23],
        weekend: Some(vec![f64::NAN; 24]),
    });
    let faults = plan.check().unwrap_err();
    let paths: Vec<&str> = faults.iter().map(|fault| fault.path.as_str()).collect();
    assert!(paths.contains(&"/site/by_hour/workday"), "{paths:?}");
    assert!(paths.contains(&"/site/by_hour/weekend/0"), "{paths:?}");
}

/// London goes from 01:00 to 02:00 on 28 March 2027: 2 h from 00:30 end at 03:30 by the clock, and the day
/// has 23 starts an hour apart.
#[test]
fn a_day_with_an_hour_less_has_a_start_less() {
    let ask = |day: Date| WindowAsk {
        site: site("Europe/London"),
        date: day,
        hours: 2.0,
        watts: 100.0,
        step_min: 30,
    };
    let spring = ask(date(2027, 3, 28)).windows().unwrap();
    assert_eq!(spring.all.len(), 46);
    assert_eq!((spring.all[1].from_h, spring.all[1].to_h), (0.5, 3.5));
    assert_eq!(ask(date(2027, 10, 31)).windows().unwrap().all.len(), 50);
    assert_eq!(ask(date(2027, 4, 9)).windows().unwrap().all.len(), 48);
}

#[test]
fn nonsense_is_refused_by_the_calculators() {
    let ask = WindowAsk {
        site: site("UTC"),
        date: date(2027, 4, 9),
        hours: 25.0,
        watts: f64::INFINITY,
        step_min: 0,
    };
    let faults = ask.windows().unwrap_err();
    let paths: Vec<&str> = faults.iter().map(|fault| fault.path.as_str()).collect();
    assert_eq!(paths, ["/hours", "/watts", "/step_min"]);
    let mut lamp = lamp(1, 100.0, "gone", 6.0, 22.0);
    lamp["duty"] = json!(2);
    lamp["power_factor"] = json!(0);
    let faults = set_up(0.0, json!([circuit(15.0)]), json!([lamp]))
        .day()
        .unwrap_err();
    let paths: Vec<&str> = faults.iter().map(|fault| fault.path.as_str()).collect();
    let expected = [
        "/mains_v",
        "/draws/0/duty",
        "/draws/0/power_factor",
        "/draws/0/plugged",
    ];
    assert_eq!(paths, expected);
}

#[test]
fn labels_count_everything_whenever_it_is_on() {
    let plan = kettle_fen(|_| ());
    let answer = asked(&plan, date(2027, 1, 20));
    // Nothing burns in January, and the labels stay what they are.
    let of = |id: &str| {
        let at = plan
            .wiring
            .feeds
            .iter()
            .position(|feed| feed.id == id)
            .unwrap();
        (answer.load.feeds[at].load.peak_w, answer.labels_w[at])
    };
    // 2 fixtures of 64 W, and two chains of three lamps of 36 W.
    assert_eq!(of("timer-1"), (0.0, 344.0));
    // The household's radiator is on all winter.
    assert_eq!(of("socket-hall-2"), (1500.0, 1500.0));
}

#[test]
fn what_is_there_is_not_bought_again_and_what_has_no_price_says_so() {
    let plan = kettle_fen(|plan| {
        let goods = &mut plan.prices.goods;
        goods.retain(|good| !good.name.contains("panel"));
        goods[0].owned = 50;
    });
    let answer = asked(&plan, date(2027, 4, 9));
    let line = |name: &str| {
        answer
            .shopping
            .iter()
            .find(|line| line.name.contains(name))
            .unwrap()
    };
    let shop_lights = line("1200 mm, 36 W");
    assert_eq!(
        (shop_lights.needed, shop_lights.owned, shop_lights.to_buy),
        (11, 9, 2)
    );
    assert_eq!(
        (shop_lights.cost, shop_lights.worth),
        (Some(42.0), Some(231.0))
    );
    let panel = line("strong flat LED panel");
    assert_eq!((panel.to_buy, panel.cost), (1, None));
    assert!(answer.plants.unpriced.contains(&"gear and trays"));
    // More there than needed: nothing is sold.
    assert_eq!(line("Door rack").to_buy, 0);
    let summed: f64 = answer.shopping.iter().filter_map(|line| line.cost).sum();
    assert!((summed - answer.to_buy_cost).abs() < 1e-9);
}

#[test]
fn without_prices_a_plant_costs_its_current_and_says_what_is_left_out() {
    let plan = kettle_fen(|plan| plan.prices = Default::default());
    let plants = asked(&plan, date(2027, 4, 9)).plants;
    assert_eq!(
        (plants.all.seed, plants.all.mix, plants.all.stand),
        (0.0, 0.0, 0.0)
    );
    assert!(plants.all.current > 100.0);
    assert_eq!(plants.unpriced, ["gear and trays", "seed", "mix", "water"]);
    assert_eq!((plants.bought, plants.pays_back_seasons), (None, None));
    let empty = kettle_fen(|plan| {
        plan.sowings.clear();
        plan.trays.clear();
    });
    let plants = asked(&empty, date(2027, 4, 9)).plants;
    assert_eq!((plants.plants, plants.per_plant), (0, None));
}

#[test]
fn a_shelf_says_when_it_had_better_begin_and_its_timer_can_do_it() {
    let plan = kettle_fen(|plan| {
        plan.site.quiet = None;
        plan.site.cheap = None;
        let mut prices = vec![0.3; 24];
        prices[12..].fill(0.1);
        plan.site.by_hour = Some(HourPrices {
            workday: prices,
            weekend: None,
        });
    });
    let answer = asked(&plan, date(2027, 4, 9));
    let shelf = answer
        .shelves
        .iter()
        .find(|shelf| shelf.name.ends_with("Tier 2"))
        .unwrap();
    assert!(shelf.burning && shelf.better);
    assert!(shelf.best.cost_per_day < shelf.now.cost_per_day);
    assert_eq!(
        (shelf.step_min, (shelf.best.from_h * 4.0).fract()),
        (15, 0.0)
    );
    // Twelve of its fifteen hours are cheap wherever it begins from 09:00 to 12:00: the least change is taken.
    assert_eq!(shelf.best.from_h, 9.0);
    let dark = answer.shelves.iter().find(|shelf| !shelf.burning).unwrap();
    assert!(!dark.better);
}

#[test]
fn a_copied_shelf_is_plugged_in_nowhere() {
    use sunrise_core::edit::{Edit, apply};
    let plan = kettle_fen(|_| ());
    let from = sunrise_core::testing::bay("door", "t2");
    let to = vec![sunrise_core::testing::bay("coat", "t1")];
    let copied = apply(&plan, &Edit::CopyGear { from, to }).unwrap().plan;
    let lamps = &copied.places[1].tiers[0].lamps;
    assert!(!lamps.is_empty() && lamps.iter().all(|lamp| lamp.plugged.is_none()));
}

#[test]
fn plans_keep_their_wiring_and_prices_through_a_file() {
    let plan = kettle_fen(|_| ());
    let text = serde_json::to_string(&*plan).unwrap();
    let again: sunrise_core::plan::Plan = serde_json::from_str(&text).unwrap();
    assert_eq!(again, *plan);
    assert_eq!(again.wiring.feeds.len(), plan.wiring.feeds.len());
    let mut wrong: Value = serde_json::from_str(&text).unwrap();
    wrong["places"][0]["tiers"][0]["lamps"][0]["plugged"] = json!("nothing-like-it");
    wrong["prices"]["goods"][0]["price"] = json!(-1);
    let wrong: sunrise_core::plan::Plan = serde_json::from_value(wrong).unwrap();
    let faults = wrong.check().unwrap_err();
    let paths: Vec<&str> = faults.iter().map(|fault| fault.path.as_str()).collect();
    assert_eq!(
        paths,
        ["/places/0/tiers/0/lamps/0/plugged", "/prices/goods/0/price"]
    );
}
