//! What is to be done on a day, from plan and log: every kind of job comes when it should, and goes when what
//! it notes is in the log.

use jiff::civil::{Date, date};
use serde_json::json;
use sunrise_core::ask::{Today, follow, today, water_ahead};
use sunrise_core::basis::dates::{days_between, plus_days};
use sunrise_core::log::detail::Dome;
use sunrise_core::log::entry::Entry;
use sunrise_core::log::fact::Fact;
use sunrise_core::plan::{Plan, SoundPlan};
use sunrise_core::room::MixKind;
use sunrise_core::room::container::TrayFormat;
use sunrise_core::season::SowingDates;
use sunrise_core::testing::{after, dates_of, fields, kettle_fen, noted, reckoned};
use sunrise_core::today::{Asks, Job, JobKind, Pressing};

fn on(plan: &SoundPlan, date: Date) -> Today {
    today(plan, date, fields())
}

fn jobs(today: &Today) -> impl Iterator<Item = &Job> {
    let stops = today.stops.iter();
    stops.flat_map(|stop| stop.jobs.iter().chain(&stop.waiting))
}

fn found<'t>(today: &'t Today, what: JobKind, about: &str) -> Option<&'t Job> {
    let about_it = |job: &&Job| {
        let trays = job.notes.iter().filter_map(|note| note.tray.as_deref());
        job.id.contains(about) || trays.into_iter().any(|tray| tray == about)
    };
    jobs(today).filter(|job| job.what == what).find(about_it)
}

fn dates(plan: &SoundPlan, sowing: &str) -> SowingDates {
    dates_of(&reckoned(plan), sowing).clone()
}

fn tray_of(plan: &SoundPlan, sowing: &str) -> String {
    plan.sown_in(sowing).next().expect(sowing).id.clone()
}

/// The trays of `sowing` as they would be at the end of a normal stretch of days: sown as planned.
fn sown(plan: &SoundPlan, sowing: &str) -> Vec<Entry> {
    let day = dates(plan, sowing).sow;
    let trays = plan.sown_in(sowing);
    trays
        .map(|tray| {
            let tray = tray.id.clone();
            noted(day, Fact::Sown { tray })
        })
        .collect()
}

/// Whether `what` is to be done about a tray or a sowing on `day`, and is not any more once all that it notes is
/// in the log besides `before`.
fn comes_and_goes(
    plan: &SoundPlan,
    before: &[Entry],
    what: JobKind,
    about: &str,
    day: Date,
) -> Job {
    let now = after(plan.clone(), before.to_vec());
    let walk = on(&now, day);
    let job = found(&walk, what, about);
    let job = job
        .unwrap_or_else(|| panic!("no {what:?} of {about} on {day}"))
        .clone();
    let facts = job.notes.iter().map(|note| noted(day, note.fact.clone()));
    let all: Vec<Entry> = before.iter().cloned().chain(facts).collect();
    let then = after(plan.clone(), all);
    assert_eq!(
        found(&on(&then, day), what, about),
        None,
        "{what:?} of {about}"
    );
    job
}

#[test]
fn what_a_sowing_brings_comes_on_its_day_and_goes_when_it_is_noted() {
    let plan = kettle_fen(|_| ());
    let tomato = dates(&plan, "tomato-cherry");
    let job = comes_and_goes(&plan, &[], JobKind::Sow, "tomato-cherry", tomato.sow);
    assert_eq!(job.pressing, Pressing::Due);
    let recipe = job.recipe.expect("a sowing has a recipe");
    assert!(
        recipe.mix_l > 0.5 && recipe.trays >= 1 && recipe.labels.len() == recipe.trays as usize
    );
    assert!(recipe.seeds.unwrap() >= recipe.seeds_per_cell.unwrap());
    let before = sown(&plan, "tomato-cherry");
    // Three days before it can be done early, four days before it is not spoken of.
    let early = on(&plan, plus_days(tomato.sow, -3));
    let early = found(&early, JobKind::Sow, "tomato-cherry").expect("early");
    assert_eq!(early.pressing, Pressing::Early(3));
    let sooner = on(&plan, plus_days(tomato.sow, -4));
    assert_eq!(found(&sooner, JobKind::Sow, "tomato-cherry"), None);
    let tray = tray_of(&plan, "tomato-cherry");
    let thin = comes_and_goes(&plan, &before, JobKind::Thin, &tray, tomato.thin.unwrap());
    assert_eq!(thin.asks, Some(Asks::Plants));
    let feed = comes_and_goes(&plan, &before, JobKind::Feed, &tray, tomato.thin.unwrap());
    assert!(feed.recurring);
    let out = comes_and_goes(&plan, &before, JobKind::PlantOut, &tray, tomato.out);
    assert_eq!(out.asks, Some(Asks::Plants));
}

#[test]
fn out_of_the_chamber_into_the_light_is_carried_to_where_the_plan_has_it() {
    let plan = kettle_fen(|_| ());
    let (celery, tray) = (dates(&plan, "celery"), tray_of(&plan, "celery"));
    let before = sown(&plan, "celery");
    let day = celery.into_light.unwrap();
    let job = comes_and_goes(&plan, &before, JobKind::IntoLight, &tray, day);
    assert_eq!(
        job.bay.as_ref().map(|bay| bay.place.as_str()),
        Some("cabinet")
    );
    let note = &job.notes[0];
    assert!(matches!(&note.fact, Fact::Moved { bay, .. } if bay.place == "door"));
    assert!(note.to.is_some());
    // Three days late it says so.
    let late = on(&after(plan.clone(), before), plus_days(day, 3));
    let late = found(&late, JobKind::IntoLight, &tray).expect("still to do");
    assert_eq!(late.pressing, Pressing::Overdue(3));
}

#[test]
fn domes_are_vented_and_mats_go_on_to_the_next_tray() {
    let plan = kettle_fen(|_| ());
    let (pepper, own) = (dates(&plan, "pepper"), tray_of(&plan, "pepper"));
    let before = sown(&plan, "pepper");
    let day = pepper.quarter.unwrap();
    comes_and_goes(&plan, &before, JobKind::Vent, &own, day);
    // Whoever counted a first one has not vented yet.
    let one = Fact::Shown {
        tray: own.clone(),
        sowing: None,
        count: 1,
        of: 18,
    };
    let mut counted = before.clone();
    counted.push(noted(pepper.first.unwrap(), one));
    let seen = after(plan.clone(), counted);
    let day = dates(&seen, "pepper").quarter.unwrap();
    assert!(found(&on(&seen, day), JobKind::Vent, &own).is_some());
    let day = pepper.last.unwrap();
    let off = comes_and_goes(&plan, &before, JobKind::LiftDome, &own, day);
    let lifted = |fact: &Fact| {
        let off = Dome::Off;
        matches!(fact, Fact::Dome { dome, .. } if *dome == off)
    };
    assert!(off.notes.iter().any(|note| lifted(&note.fact)));
    // Without domes it is the mat alone.
    let bare = kettle_fen(|plan| {
        plan.tray_formats
            .iter_mut()
            .for_each(|format| format.dome_height_mm = None);
    });
    let (pepper, before) = (dates(&bare, "pepper"), sown(&bare, "pepper"));
    comes_and_goes(
        &bare,
        &before,
        JobKind::MatOff,
        "mat-off/pepper",
        pepper.last.unwrap(),
    );
}

#[test]
fn counts_are_asked_for_every_other_day_until_no_more_come() {
    let plan = kettle_fen(|_| ());
    let (tomato, tray) = (dates(&plan, "tomato"), tray_of(&plan, "tomato"));
    let before = sown(&plan, "tomato");
    let first = tomato.first.unwrap();
    let count = |day: i32, count: u32| {
        let (tray, sowing) = (tray.clone(), None);
        let of = 50;
        let fact = Fact::Shown {
            tray,
            sowing,
            count,
            of,
        };
        noted(plus_days(first, day), fact)
    };
    let asked = |entries: Vec<Entry>, day: i32| {
        let all: Vec<Entry> = before.iter().cloned().chain(entries).collect();
        let walk = on(&after(plan.clone(), all), plus_days(first, day));
        found(&walk, JobKind::Count, &tray).map(|job| job.pressing)
    };
    assert_eq!(asked(vec![], 0), Some(Pressing::Due));
    assert_eq!(asked(vec![count(0, 5)], 0), None);
    assert_eq!(asked(vec![count(0, 5)], 2), Some(Pressing::Due));
    assert_eq!(asked(vec![count(0, 40), count(5, 40)], 7), None);
    assert_eq!(asked(vec![count(0, 50)], 2), None);
}

#[test]
fn cells_go_into_their_pots_and_the_plants_are_counted() {
    let plan = kettle_fen(|_| ());
    let (aubergine, tray) = (dates(&plan, "aubergine"), tray_of(&plan, "aubergine"));
    let before = sown(&plan, "aubergine");
    let day = aubergine.pot_on.unwrap();
    let walk = on(&after(plan.clone(), before), day);
    let job = found(&walk, JobKind::PotOn, &tray).expect("roots fill the cells");
    let pots: u32 = plan
        .potted_into("aubergine")
        .map(|pots| plan.cells_in(pots, "aubergine"))
        .sum();
    let going = job.notes.iter().map(|note| match &note.fact {
        Fact::PottedOn { plants, .. } => *plants,
        other => panic!("{other:?}"),
    });
    assert_eq!(going.sum::<u32>(), pots);
}

#[test]
fn cold_seed_cut_tops_and_moves_are_jobs_too() {
    let chilled = kettle_fen(|plan| {
        let mut own = plan.find_crop("cabbage").unwrap().clone();
        own.cold_weeks = 3.0;
        plan.crops.push(own);
    });
    let day = dates(&chilled, "cabbage-red").chill.unwrap();
    comes_and_goes(&chilled, &[], JobKind::Chill, "chill/cabbage-red", day);
    let plan = kettle_fen(|_| ());
    let mut cut = (0..90).map(|n| plus_days(date(2027, 2, 1), n));
    let day = cut.find(|day| found(&on(&plan, *day), JobKind::CutBack, "onion").is_some());
    comes_and_goes(
        &plan,
        &[],
        JobKind::CutBack,
        "onion",
        day.expect("tops flop"),
    );
    // The demo carries a tray in the middle of its growth.
    let moved = plan.trays.iter().find_map(|tray| {
        let stand = tray.stands.iter().find(|stand| stand.from.is_some())?;
        Some((tray.id.clone(), stand.from.unwrap()))
    });
    let (tray, day) = moved.expect("a tray moves");
    comes_and_goes(&plan, &[], JobKind::Move, &tray, day);
}

#[test]
fn hardening_off_goes_by_the_air_of_the_day_and_by_what_the_crop_stands() {
    let reason = |sowing: &str, day: i32, night_c: Option<f64>| {
        let plan = kettle_fen(|plan| {
            // Nobody else hardens off with them.
            plan.trays
                .retain(|tray| tray.parts.iter().all(|part| part.sowing == sowing));
            for tray in &mut plan.trays {
                tray.stands.retain(|stand| stand.bay.place != "frame");
            }
            plan.site.months = night_c.map_or_else(Vec::new, |minimum_c| {
                let month = json!({ "minimum_c": minimum_c, "maximum_c": minimum_c + 8.0 });
                vec![serde_json::from_value(month).expect("a month"); 12]
            });
        });
        let (own, tray) = (dates(&plan, sowing), tray_of(&plan, sowing));
        let job = comes_and_goes(
            &plan,
            &sown(&plan, sowing),
            JobKind::Harden,
            &tray,
            plus_days(own.harden, day),
        );
        let own = job
            .notes
            .iter()
            .find(|note| note.tray.as_ref() == Some(&tray));
        let hours = own.unwrap().to.as_ref().unwrap().to_string();
        (job.reason.to_string(), hours)
    };
    // Two hours round three in the afternoon, when it is warmest.
    let (first, hours) = reason("cabbage", 0, None);
    assert!(
        first.contains("from 14:00 to 16:00") && first.contains("less than 0 °C"),
        "{first}"
    );
    assert_eq!(hours, "2 h");
    // Peppers are not put out into 8 °C at all, nor for longer than it is warm enough.
    let (cold, hours) = reason("pepper", 0, Some(0.0));
    assert!(cold.contains("wait for a milder one"), "{cold}");
    assert_eq!(hours, "in, until a milder day");
    let (mild, hours) = reason("pepper", 4, Some(5.0));
    assert!(mild.contains("less than 12 °C is forecast"), "{mild}");
    assert!(
        hours
            .strip_suffix(" h")
            .and_then(|n| n.parse::<f64>().ok())
            .unwrap()
            <= 6.0,
        "{hours}"
    );
    let (last, hours) = reason("cabbage", 9, None);
    assert!(last.starts_with("Day and night now"), "{last}");
    assert_eq!(hours, "day and night");
}

#[test]
fn hardening_off_is_a_job_of_every_day_and_a_frost_brings_all_in() {
    // In still, damp air a tray lasts for days.
    let plan = kettle_fen(|plan| {
        plan.site.air.humidity = Some(0.75);
        let tiers = plan.places.iter_mut().flat_map(|place| &mut place.tiers);
        tiers.for_each(|tier| tier.fans.clear());
    });
    let (cabbage, tray) = (dates(&plan, "cabbage"), tray_of(&plan, "cabbage"));
    let before = sown(&plan, "cabbage");
    let hours = |day: i32| {
        let job = comes_and_goes(
            &plan,
            &before,
            JobKind::Harden,
            &tray,
            plus_days(cabbage.harden, day),
        );
        let own = job
            .notes
            .iter()
            .find(|note| note.tray.as_ref() == Some(&tray));
        own.unwrap().to.as_ref().unwrap().to_string()
    };
    assert_eq!([hours(0), hours(3)], ["2 h", "5 h"]);
    assert_eq!(hours(9), "day and night");
    let frosty = on(&plan, plus_days(cabbage.harden, 2));
    let job = found(&frosty, JobKind::FrostNight, "frost").expect("frost still comes in April");
    assert!(job.notes.iter().all(|note| note.to.is_some()) && !job.notes.is_empty());
    // In June no frost is spoken of.
    assert_eq!(
        found(&on(&plan, date(2027, 6, 10)), JobKind::FrostNight, "frost"),
        None
    );
    // What is carried out by hand comes in again at dusk.
    let bare = kettle_fen(|plan| {
        for tray in &mut plan.trays {
            tray.stands.retain(|stand| stand.bay.place != "frame");
        }
    });
    let day = dates(&bare, "cabbage").harden;
    let outdoors = true;
    let mut out = sown(&bare, "cabbage");
    out.push(noted(
        day,
        Fact::Hardening {
            tray: tray.clone(),
            outdoors,
        },
    ));
    comes_and_goes(&bare, &out, JobKind::BackIn, &tray, day);
}

#[test]
fn water_comes_by_what_was_poured_and_a_little_lasts_a_little() {
    let plan = kettle_fen(|_| ());
    let (cabbage, tray) = (dates(&plan, "cabbage"), tray_of(&plan, "cabbage"));
    let poured = plus_days(cabbage.emerge.unwrap(), 5);
    let due = |ml: Option<f64>| {
        let mut all = sown(&plan, "cabbage");
        let fact = Fact::Watered {
            tray: tray.clone(),
            water_ml: ml,
        };
        all.push(noted(poured, fact));
        let plan = after(plan.clone(), all);
        let ahead = water_ahead(&plan, plus_days(poured, 1), fields());
        let own = ahead.trays.into_iter().find(|own| own.tray == tray);
        let due = own.and_then(|own| own.due).expect("it dries");
        let walk = on(&plan, due);
        assert!(found(&walk, JobKind::Water, &tray).is_some_and(|job| !job.recurring));
        due
    };
    let (little, well) = (due(Some(100.0)), due(None));
    assert!(little < well, "{little} {well}");
    // Nobody is late with what nobody ever logged.
    let walk = on(&plan, plus_days(poured, 3));
    let job = found(&walk, JobKind::Water, &tray).expect("lift it");
    assert!(job.recurring && job.headline.text.starts_with("Lift"));
}

#[test]
fn the_walk_and_the_weeks_ahead_know_one_thirst() {
    let plan = kettle_fen(|_| ());
    let tray = tray_of(&plan, "tomato");
    let day = dates(&plan, "tomato").emerge.unwrap();
    let watered = |on: Date| {
        let fact = Fact::Watered {
            tray: tray.clone(),
            water_ml: None,
        };
        noted(on, fact)
    };
    let mut log = sown(&plan, "tomato");
    log.push(watered(day));
    let plan = after(plan, log);
    let ahead = water_ahead(&plan, day, fields());
    let own = ahead.trays.iter().find(|own| own.tray == tray).unwrap();
    assert_eq!(own.last, Some(day));
    let due = own.due.expect("it dries within a month");
    assert_eq!(
        due,
        plus_days(day, (own.lasts_days.unwrap().floor() as i32).max(1))
    );
    // The first to want water come first, and their weight in the hand tells.
    let days: Vec<_> = ahead.trays.iter().filter_map(|own| own.due).collect();
    assert!(days.is_sorted());
    assert!(ahead.trays.iter().all(|own| own.light_kg < own.wet_kg));
    // On that day, or a day later as it grows, the walk asks for it.
    let asked = |on_day: Date| found(&on(&plan, on_day), JobKind::Water, &tray).is_some();
    assert!(!asked(plus_days(day, 1)) || days_between(day, due) <= 2);
    assert!(asked(due) || asked(plus_days(due, 1)), "{due}");
    // A week's litres are what its trays drink.
    let week = ahead.weeks[0];
    let ml_d: f64 = ahead.trays.iter().map(|own| own.uses_ml_d).sum();
    assert!(
        (week.litres / (ml_d * 7.0 / 1000.0) - 1.0).abs() < 0.3,
        "{week:?} {ml_d}"
    );
    assert!(ahead.weeks.len() > 4 && ahead.weeks.windows(2).all(|w| w[0].from < w[1].from));
    // Leaves and lamps drink: the fullest week takes more than the first.
    let most = ahead
        .weeks
        .iter()
        .map(|week| week.litres)
        .fold(0.0, f64::max);
    assert!(most > week.litres);
}

#[test]
fn a_reservoir_lasts_longer_and_bark_less_long_than_peat() {
    let day = dates(&kettle_fen(|_| ()), "tomato").emerge.unwrap();
    let lasts = |change: fn(&mut TrayFormat)| {
        let plan = kettle_fen(|plan| plan.tray_formats.iter_mut().for_each(change));
        let tray = tray_of(&plan, "tomato");
        let ahead = water_ahead(&plan, day, fields());
        let own = ahead.trays.iter().find(|own| own.tray == tray).unwrap();
        own.lasts_days.unwrap_or(99.0)
    };
    let peat = lasts(|_| ());
    let bark = lasts(|format| *format = format.clone().filled_with(MixKind::Bark));
    let wick = lasts(|format| format.reservoir_ml = Some(1500.0));
    assert!(
        bark < 0.75 * peat && wick > peat + 2.0,
        "{bark} {peat} {wick}"
    );
    // The walk fills the reservoir, not the mix.
    let plan = kettle_fen(|plan| {
        plan.tray_formats
            .iter_mut()
            .for_each(|format| format.reservoir_ml = Some(800.0));
    });
    let log = sown(&plan, "tomato");
    let plan = after(plan, log);
    let walk = on(&plan, plus_days(day, 20));
    let fill = jobs(&walk).find(|job| job.what == JobKind::Water && job.bay.is_some());
    let said = fill.expect("somebody is thirsty").headline.to_string();
    assert!(
        said.contains("reservoir") || said.starts_with("Lift"),
        "{said}"
    );
}

#[test]
fn lamps_are_set_as_advised_and_the_plan_follows() {
    let plan = kettle_fen(|_| ());
    let day = date(2027, 4, 9);
    let walk = on(&plan, day);
    let job = jobs(&walk)
        .find(|job| job.what == JobKind::Lamps)
        .expect("lamps to set");
    let entries: Vec<Entry> = job
        .notes
        .iter()
        .map(|n| noted(day, n.fact.clone()))
        .collect();
    let (edited, faults) = follow(&plan, &entries, fields());
    assert!(faults.is_empty(), "{faults:?}");
    let then: Plan = edited.expect("lamps hang otherwise").plan;
    let then = plan.changed_to(then).unwrap();
    assert!(jobs(&on(&then, day)).all(|other| other.id != job.id));
    // What was set since is not set back by what comes late.
    let since = noted(plus_days(day, 2), entries[0].fact.clone().unwrap());
    let since = after(plan.clone(), [since]);
    assert!(follow(&since, &entries, fields()).0.is_none());
    // Once more changes nothing.
    assert!(follow(&then, &entries, fields()).0.is_none());
}

#[test]
fn a_tray_that_was_carried_elsewhere_stands_there_in_the_plan() {
    let plan = kettle_fen(|_| ());
    let (celery, tray) = (dates(&plan, "celery"), tray_of(&plan, "celery"));
    let day = plus_days(celery.emerge.unwrap(), 6);
    let bay = sunrise_core::testing::bay("coat", "t2");
    let moved = noted(
        day,
        Fact::Moved {
            tray: tray.clone(),
            bay: bay.clone(),
        },
    );
    let (edited, faults) = follow(&plan, std::slice::from_ref(&moved), fields());
    assert!(faults.is_empty(), "{faults:?}");
    let then = plan
        .changed_to(edited.expect("it stands elsewhere").plan)
        .unwrap();
    let then = after(then, [moved]);
    let stays = reckoned(&then);
    let here = stays
        .stays
        .iter()
        .find(|stay| stay.tray.id == tray && stay.days.contains(day));
    assert_eq!(here.map(|stay| stay.bay), Some(&bay));
    // A shelf without room is told, and nothing changes.
    let full = noted(
        day,
        Fact::Moved {
            tray,
            bay: sunrise_core::testing::bay("door", "t3"),
        },
    );
    let (edited, faults) = follow(&plan, &[full], fields());
    assert!(edited.is_some() || !faults.is_empty());
}

#[test]
fn upkeep_recurs_after_its_days_and_never_presses_at_once() {
    let plan = kettle_fen(|_| ());
    let day = date(2027, 4, 9);
    for (what, about) in [(JobKind::Turn, "turn/coat"), (JobKind::Gnats, "gnats/room")] {
        let job = comes_and_goes(&plan, &[], what, about, day);
        assert!(job.recurring);
        let done = noted(
            day,
            Fact::Done {
                job: job.id.clone(),
            },
        );
        let week = on(&after(plan.clone(), [done]), plus_days(day, 7));
        assert!(found(&week, what, &job.id).is_some(), "{}", job.id);
    }
    let tray = tray_of(&plan, "cabbage");
    let out = noted(day, Fact::PlantedOut { tray, plants: 20 });
    comes_and_goes(
        &plan,
        &[out],
        JobKind::Clean,
        "clean/room",
        plus_days(day, 1),
    );
}

#[test]
fn what_is_put_off_comes_back_and_what_is_skipped_does_not() {
    let plan = kettle_fen(|_| ());
    let day = dates(&plan, "tomato").sow;
    let walk = on(&plan, day);
    let id = found(&walk, JobKind::Sow, "tomato").unwrap().id.clone();
    let until = plus_days(day, 3);
    let put_off = noted(
        day,
        Fact::PutOff {
            job: id.clone(),
            until,
        },
    );
    let later = after(plan.clone(), [put_off]);
    let is_there = |plan: &SoundPlan, day| jobs(&on(plan, day)).any(|job| job.id == id);
    assert!(
        !is_there(&later, day) && !is_there(&later, plus_days(day, 2)) && is_there(&later, until)
    );
    let skipped = after(
        plan.clone(),
        [noted(day, Fact::Skipped { job: id.clone() })],
    );
    assert!(!is_there(&skipped, day) && !is_there(&skipped, plus_days(day, 9)));
}

#[test]
fn nobody_gets_forty_lines_and_what_was_never_logged_is_noted_in_one_go() {
    let plan = kettle_fen(|_| ());
    for day in (0..20).map(|n| plus_days(date(2027, 1, 20), 7 * n)) {
        let walk = on(&plan, day);
        let shown: usize = walk.stops.iter().map(|stop| stop.jobs.len()).sum();
        assert_eq!(shown, walk.open as usize);
        assert!(shown <= 16, "{day}: {shown}");
    }
    let day = date(2027, 4, 9);
    let gone = on(&plan, day).unlogged.expect("nothing was ever logged");
    assert!(gone.jobs > 20 && gone.from < gone.to && gone.to < day);
    let facts = gone.facts.iter().map(|own| noted(own.on, own.fact.clone()));
    let caught_up = after(plan.clone(), facts.collect::<Vec<_>>());
    let left = on(&caught_up, day).unlogged.map_or(0, |gone| gone.jobs);
    assert!(left * 10 <= gone.jobs, "{left} of {}", gone.jobs);
}

#[test]
fn the_walk_begins_at_the_table_and_ends_outdoors_with_chambers_first() {
    let plan = kettle_fen(|_| ());
    for day in [date(2027, 3, 18), date(2027, 4, 9), date(2027, 5, 10)] {
        let walk = on(&plan, day);
        let rank = |place: &Option<String>| match place.as_deref() {
            Some("cabinet") => 1,
            Some("frame") => 3,
            Some(_) => 2,
            None => 0,
        };
        let inside = walk.stops.iter().filter(|stop| stop.name.text != "Outside");
        assert!(inside.map(|stop| rank(&stop.place)).is_sorted(), "{day}");
    }
}

#[test]
fn an_empty_plan_has_nothing_to_do_and_says_when_something_is() {
    let blank = Plan::blank(date(2026, 11, 27), None).check().unwrap();
    let walk = on(&blank, date(2027, 4, 9));
    assert!(walk.stops.is_empty() && walk.next.is_none() && walk.unlogged.is_none());
    let plan = kettle_fen(|_| ());
    let winter = on(&plan, date(2027, 1, 16));
    assert!(winter.next.is_some_and(|next| next > winter.date));
    // Years away from the season nothing is reckoned that is not there.
    assert!(on(&plan, date(2199, 1, 1)).stops.len() < 3);
}

#[test]
fn only_trays_that_are_sown_go_on_and_a_skipped_sowing_asks_for_nothing_more() {
    let plan = kettle_fen(|_| ());
    let (pepper, all) = (dates(&plan, "pepper"), sown(&plan, "pepper"));
    let trays: Vec<&str> = plan.sown_in("pepper").map(|t| t.id.as_str()).collect();
    assert!(trays.len() > 1);
    // One of two is sown: its dome is vented, and the other is still to be sown.
    let day = pepper.quarter.unwrap();
    let one = after(plan.clone(), all[..1].to_vec());
    let walk = on(&one, day);
    let about = |what| found(&walk, what, "pepper").map(trays_of);
    assert_eq!(about(JobKind::Vent), Some(vec![trays[0].to_owned()]));
    assert_eq!(about(JobKind::Sow), Some(vec![trays[1].to_owned()]));
    // One that is not to be sown at all is neither vented, counted nor watered.
    let job = "sow/pepper".to_owned();
    let skipped = noted(pepper.sow, Fact::Skipped { job });
    let skipped = after(plan.clone(), [skipped]);
    for later in [day, plus_days(day, 30)] {
        let walk = on(&skipped, later);
        let left = jobs(&walk).filter(|job| {
            let about_it = |tray: &String| trays.contains(&tray.as_str());
            trays_of(job).iter().any(about_it)
        });
        let left: Vec<JobKind> = left.map(|job| job.what).collect();
        assert_eq!(left, [], "{later}");
    }
    // Skipped is not done: nothing says so.
    let events = sunrise_core::ask::jobs(&skipped, fields());
    let sow = events.iter().find(|event| event.id == "sow/pepper");
    assert_eq!(sow.expect("it was planned").done, None);
}

fn trays_of(job: &Job) -> Vec<String> {
    let trays = job.notes.iter().filter_map(|note| note.tray.clone());
    trays.collect()
}
