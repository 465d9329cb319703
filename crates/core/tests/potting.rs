//! Potting on: the plants of cells go into pots, which stand of their own from that day on.

use jiff::civil::Date;
use sunrise_core::ask::{BayOnDay, Detail, Edit, apply, assess};
use sunrise_core::basis::dates::{DateSpan, plus_days};
use sunrise_core::plan::{Plan, SoundPlan, Stage, Tray};
use sunrise_core::season::jobs;
use sunrise_core::season::jobs::EventKind;
use sunrise_core::season::moments::TrayMoments;
use sunrise_core::season::outline;
use sunrise_core::testing::{bay, dates_of, kettle_fen, reckoned};

/// The room with tomatoes sown in one tray of small cells, To1, instead of in pots.
fn in_cells(change: impl FnOnce(&mut Plan)) -> SoundPlan {
    kettle_fen(|plan| {
        // The plum tomatoes beside them stay in the pots they are sown in.
        plan.trays
            .retain(|tray| !["to2", "tp2", "tp3"].contains(&tray.id.as_str()));
        let plum = plan
            .sowings
            .iter_mut()
            .find(|s| s.id == "tomato-plum")
            .unwrap();
        plum.pots_on = Some(false);
        let tray = plan.trays.iter_mut().find(|t| t.id == "to1").unwrap();
        tray.format = "cells-50".into();
        change(plan);
    })
}

fn potted(plan: &SoundPlan) -> SoundPlan {
    let edit = Edit::PotOn {
        sowing: "tomato".into(),
        format: None,
    };
    let edited = apply(plan, &edit).unwrap();
    edited.plan.check().unwrap()
}

fn stood(plan: &SoundPlan, trays: &[&str]) -> SoundPlan {
    let edit = Edit::StandTrays {
        trays: trays.iter().map(|id| (*id).to_owned()).collect(),
        stage: Stage::Grow,
        from: None,
        bay: bay("coat", "t1"),
        onto: None,
    };
    apply(plan, &edit).unwrap().plan.check().unwrap()
}

fn bay_on(plan: &SoundPlan, day: Date) -> BayOnDay {
    let room = assess(plan, DateSpan::day(day), Detail::All).room.remove(0);
    let is = |b: &BayOnDay| b.bay == bay("coat", "t1");
    room.bays.into_iter().find(is).unwrap()
}

fn pots(plan: &SoundPlan) -> Vec<String> {
    plan.potted_into("tomato")
        .map(|tray| tray.id.clone())
        .collect()
}

#[test]
fn pots_take_over_on_the_day_and_every_figure_follows() {
    let plan = potted(&in_cells(|_| ()));
    let pots = pots(&plan);
    // 30 tomatoes in trays of eighteen.
    assert_eq!(pots.len(), 2);
    let ids: Vec<&str> = pots.iter().map(String::as_str).collect();
    let plan = stood(&plan, &ids);
    let all = reckoned(&plan);
    let tomato = dates_of(&all, "tomato");
    let day = tomato.pot_on.expect("it is potted on");
    assert!(tomato.emerge.unwrap() < day && day < tomato.harden);

    let labels = |day: Date| -> Vec<String> {
        let bay = bay_on(&plan, day);
        bay.trays().iter().map(|t| t.tray.clone()).collect()
    };
    let before = labels(plus_days(day, -1));
    assert!(before.contains(&"to1".to_owned()) && !before.contains(&pots[0]));
    let after = labels(day);
    assert!(!after.contains(&"to1".to_owned()));
    assert!(pots.iter().all(|id| after.contains(id)), "{after:?}");

    // Two trays of pots for one of cells: heavier, more water, the same height of leaves.
    let (cells, potted) = (bay_on(&plan, plus_days(day, -1)), bay_on(&plan, day));
    assert!(potted.load.drained_kg > cells.load.drained_kg + 2.0);
    assert_eq!(potted.trays().len(), cells.trays().len() + 1);
    let of = |bay: &BayOnDay, id: &str| bay.trays().iter().find(|t| t.tray == id).unwrap().clone();
    let (cell, pot) = (of(&cells, "to1"), of(&potted, &pots[0]));
    assert!((pot.parts[0].plant_height_mm - cell.parts[0].plant_height_mm).abs() < 15.0);
    assert_eq!(pot.stage, Stage::Grow);
    assert!(pot.parts[0].cells.as_ref().unwrap().ppfd.len() == 18);
    assert!(potted.roots().iter().any(|roots| roots.tray == pots[0]));
    // The ribbon counts two trays where one of cells would stand on.
    let counted = |plan: &SoundPlan| outline::days(&reckoned(plan), DateSpan::day(day))[0].trays;
    assert_eq!(counted(&plan), counted(&in_cells(|_| ())) + 1);

    let jobs = jobs::all(&all);
    let job = |what: EventKind| {
        let mut jobs = jobs.iter();
        jobs.find(|job| job.what == what && job.sowing == "tomato")
            .unwrap()
    };
    assert_eq!(job(EventKind::PotOn).date, day);
    assert!(job(EventKind::PotOn).note.to_string().contains("30 pots"));
    // Pots wear no dome and lie on no mat.
    let of_pots = |job: &&jobs::Event| job.tray.as_ref().is_some_and(|id| pots.contains(id));
    assert_eq!(jobs.iter().filter(of_pots).count(), 0);
}

#[test]
fn pots_stand_nowhere_until_they_are_stood() {
    let plan = potted(&in_cells(|_| ()));
    let all = reckoned(&plan);
    let day = dates_of(&all, "tomato").pot_on.unwrap();
    let of_tomato = |tray: &Tray| tray.parts[0].sowing == "tomato";
    let without: Vec<_> = all
        .unplaced
        .iter()
        .filter(|one| of_tomato(one.tray))
        .collect();
    assert_eq!(without.len(), 2);
    assert!(without.iter().all(|one| one.days.from == day));
    let room = assess(&plan, DateSpan::day(day), Detail::Outline)
        .room
        .remove(0);
    assert!(room.unplaced.iter().all(|tray| tray.stage == Stage::Grow));
}

#[test]
fn the_cells_germinate_and_the_pots_do_not_count_for_that() {
    let cells = in_cells(|_| ());
    let plan = potted(&cells);
    let dates = |plan: &SoundPlan| {
        let all = reckoned(plan);
        let dates = dates_of(&all, "tomato").clone();
        (dates.sow, dates.emerge, dates.pot_on, dates.out)
    };
    assert_eq!(dates(&cells), dates(&plan));
    let of = |plan: &SoundPlan| reckoned(plan).cells_of("tomato").unwrap().clone();
    let (before, after) = (of(&cells), of(&plan));
    assert_eq!((before.cells_there, after.cells_there), (50, 50));
    assert_eq!((before.pots_there, after.pots_there), (0, 36));
    assert_eq!(after.pots, Some(30));
}

#[test]
fn who_wants_final_pots_has_pots_that_are_never_filled() {
    let plan = potted(&in_cells(|_| ()));
    let mut never = (*plan).clone();
    let tomato = never.sowings.iter_mut().find(|s| s.id == "tomato").unwrap();
    tomato.pots_on = Some(false);
    let plan = never.check().unwrap();
    let all = reckoned(&plan);
    let pot = plan.potted_into("tomato").next().unwrap();
    let moments = TrayMoments::of(&plan, pot, &all.dates);
    for stage in [Stage::Germinate, Stage::Grow, Stage::Harden] {
        assert_eq!(moments.days_of(stage), None);
    }
    assert!(
        all.unplaced
            .iter()
            .all(|one| one.tray.parts[0].sowing != "tomato")
    );
    // The cells keep them until they go out.
    let cells = plan.trays.iter().find(|tray| tray.id == "to1").unwrap();
    let tomato = dates_of(&all, "tomato");
    assert_eq!(TrayMoments::of(&plan, cells, &all.dates).out, tomato.out);
}

/// The same tomatoes in a second tray, of cells of `ml`.
fn with_larger_cells(plan: &mut Plan, ml: f64) {
    let mut larger = plan
        .tray_formats
        .iter()
        .find(|f| f.id == "cells-50")
        .unwrap()
        .clone();
    larger.id = "larger".into();
    larger.cell_ml = ml;
    plan.tray_formats.push(larger);
    let mut tray = plan.trays.iter().find(|t| t.id == "to1").unwrap().clone();
    tray.id = "to9".into();
    tray.name = "To9".into();
    tray.format = "larger".into();
    tray.stands.clear();
    plan.trays.push(tray);
}

#[test]
fn each_tray_is_potted_on_when_its_own_cells_are_full_and_pots_take_the_first_first() {
    let cells = in_cells(|plan| with_larger_cells(plan, 160.0));
    let plan = potted(&cells);
    let all = reckoned(&plan);
    let tomato = dates_of(&all, "tomato");
    let day = |id: &str| tomato.pot_on_of(plan.trays.iter().find(|t| t.id == id).unwrap());
    let (small, large) = (day("to1").unwrap(), day("to9").unwrap());
    assert_eq!(tomato.pot_on, Some(small));
    assert!(large > plus_days(small, 4), "{small} {large}");
    // Half of the plants come from each: the first tray of pots is filled from the small cells.
    let pots = pots(&plan);
    assert_eq!(pots.len(), 2);
    assert_eq!((day(&pots[0]), day(&pots[1])), (Some(small), Some(large)));
    let at = |id: &str| {
        let tray = plan.trays.iter().find(|t| t.id == id).unwrap();
        TrayMoments::of(&plan, tray, &all.dates)
    };
    assert_eq!((at("to1").out, at("to9").out), (small, large));
    assert_eq!((at(&pots[0]).sow, at(&pots[1]).sow), (small, large));
    // Pots go on from the plants of the cells that came into them.
    let plant = |id: &str, day: Date| {
        let tray = plan.trays.iter().find(|t| t.id == id).unwrap();
        *all.growing.of_tray(&plan, tray)[0].on(day).unwrap()
    };
    assert_eq!(plant(&pots[1], large), plant("to9", plus_days(large, -1)));
    let jobs = jobs::all(&all);
    let own = jobs
        .iter()
        .filter(|job| job.what == EventKind::PotOn && job.sowing == "tomato");
    let own: Vec<(Date, Option<&str>)> = own.map(|job| (job.date, job.tray.as_deref())).collect();
    assert_eq!(own, [(small, Some("to1")), (large, Some("to9"))]);
}

#[test]
fn what_stands_in_cells_as_large_as_its_pots_stays_there() {
    let plan = in_cells(|plan| with_larger_cells(plan, 400.0));
    let all = reckoned(&plan);
    let tomato = dates_of(&all, "tomato");
    let leaving: Vec<&str> = tomato
        .potting
        .iter()
        .flat_map(|day| &day.trays)
        .map(String::as_str)
        .collect();
    assert_eq!(leaving, ["to1"]);
    // 30 plants, half of them in cells that they stay in.
    assert_eq!(all.cells_of("tomato").unwrap().pots, Some(15));
}
