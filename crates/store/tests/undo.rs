//! Whatever is done to a plan, undoing it all gives the first document back, byte for byte.

use jiff::civil::date;
use jiff::{Timestamp, ToSpan};
use serde_json::{Value, json};
use sunrise_core::edit::{Edit, GearList, GearRef, Onto, Share, Thing, apply};
use sunrise_core::plan::divide::By;
use sunrise_core::plan::{Plan, SoundPlan, Stage};
use sunrise_core::room::{BayRef, shelf};
use sunrise_store::{Step, Store};

fn pick<'a, T>(rng: &mut fastrand::Rng, list: &'a [T]) -> &'a T {
    &list[rng.usize(..list.len())]
}

fn any_bay(rng: &mut fastrand::Rng, plan: &Plan) -> BayRef {
    let place = pick(rng, &plan.places);
    BayRef {
        place: place.id.clone(),
        tier: pick(rng, &place.tiers).id.clone(),
    }
}

fn any_thing(rng: &mut fastrand::Rng, plan: &Plan) -> Thing {
    let place = pick(rng, &plan.places);
    let tier = pick(rng, &place.tiers);
    let gear: Vec<GearRef> = tier
        .lamps
        .iter()
        .map(|lamp| (GearList::Lamps, &lamp.id))
        .chain(tier.mats.iter().map(|mat| (GearList::Mats, &mat.id)))
        .chain(tier.fans.iter().map(|fan| (GearList::Fans, &fan.id)))
        .map(|(list, id)| GearRef {
            list,
            id: id.clone(),
        })
        .collect();
    let depth = rng.u32(0..6);
    Thing {
        place: place.id.clone(),
        tier: (depth > 0).then(|| tier.id.clone()),
        gear: (depth > 2 && !gear.is_empty()).then(|| pick(rng, &gear).clone()),
    }
}

fn any_edit(rng: &mut fastrand::Rng, plan: &Plan) -> Edit {
    let kinds = shelf::library();
    let things =
        |rng: &mut fastrand::Rng| (0..rng.usize(1..3)).map(|_| any_thing(rng, plan)).collect();
    let day = |rng: &mut fastrand::Rng| date(2027, 2, 1) + rng.i32(0..110).days();
    match rng.u32(0..20) {
        0 => Edit::AddPlace {
            kind: pick(rng, &kinds.places).id.clone(),
        },
        1 => Edit::AddTier {
            place: pick(rng, &plan.places).id.clone(),
        },
        2 => Edit::AddLamp {
            bay: any_bay(rng, plan),
            kind: pick(rng, &kinds.lamps).id.clone(),
        },
        3 => Edit::AddMat {
            bay: any_bay(rng, plan),
            kind: pick(rng, &kinds.mats).id.clone(),
        },
        4 => Edit::AddFan {
            bay: any_bay(rng, plan),
            kind: pick(rng, &kinds.fans).id.clone(),
        },
        5 => Edit::AddFormat {
            kind: pick(rng, &kinds.containers).id.clone(),
        },
        6 => Edit::Again {
            things: things(rng),
        },
        7 => Edit::Remove {
            things: things(rng),
        },
        8 => Edit::MovePlace {
            place: pick(rng, &plan.places).id.clone(),
            to: rng.usize(0..8),
        },
        9 => Edit::TurnTray {
            tray: pick(rng, &plan.trays).id.clone(),
            on: day(rng),
        },
        10 => Edit::SwapTrays {
            tray: pick(rng, &plan.trays).id.clone(),
            with: pick(rng, &plan.trays).id.clone(),
            on: day(rng),
        },
        11 => Edit::BoxUnder {
            tray: pick(rng, &plan.trays).id.clone(),
            on: day(rng),
            box_mm: rng.bool().then(|| f64::from(rng.u32(10..120))),
        },
        12 => Edit::PotOn {
            sowing: pick(rng, &plan.sowings).id.clone(),
            format: rng.bool().then(|| pick(rng, &plan.tray_formats).id.clone()),
        },
        13 => Edit::SetFormat {
            tray: pick(rng, &plan.trays).id.clone(),
            format: pick(rng, &plan.tray_formats).id.clone(),
        },
        14 => Edit::ShareFlat(Share {
            sowings: (0..rng.usize(1..7))
                .map(|_| pick(rng, &plan.sowings).id.clone())
                .collect(),
            tray: rng.bool().then(|| pick(rng, &plan.trays).id.clone()),
            format: rng.bool().then(|| pick(rng, &plan.tray_formats).id.clone()),
            by: *pick(rng, &[By::Rows, By::Packs]),
            even: rng.bool(),
        }),
        _ => Edit::StandTrays {
            trays: (0..rng.usize(1..4))
                .map(|_| pick(rng, &plan.trays).id.clone())
                .collect(),
            stage: *pick(rng, &[Stage::Germinate, Stage::Grow, Stage::Harden]),
            from: rng.bool().then(|| day(rng)),
            bay: any_bay(rng, plan),
            onto: rng.bool().then(|| Onto {
                x_mm: rng.bool().then(|| f64::from(rng.u32(0..1500))),
                stacked: rng.u32(0..4) == 0,
                ..Onto::default()
            }),
        },
    }
}

/// A figure of the document, dragged or typed anew.
fn figure_changed(rng: &mut fastrand::Rng, plan: &Plan) -> Option<SoundPlan> {
    let mut document = serde_json::to_value(plan).unwrap();
    let bay = any_bay(rng, plan);
    let place = plan.places.iter().position(|p| p.id == bay.place)?;
    let tiers = &plan.places[place].tiers;
    let tier = tiers.iter().position(|t| t.id == bay.tier)?;
    let place = format!("/places/{place}");
    let (at, value) = match rng.u32(0..6) {
        0 => (
            format!("{place}/tiers/{tier}/deck_height_mm"),
            json!(rng.u32(0..90) * 20),
        ),
        1 => (
            format!("{place}/tiers/{tier}/lamps/0/height_mm"),
            json!(rng.u32(10..400)),
        ),
        2 => (format!("{place}/width_mm"), json!(rng.u32(400..2000))),
        3 => (format!("{place}/height_mm"), json!(rng.u32(400..2400))),
        4 => (
            format!("{place}/name"),
            json!(format!("place {}", rng.u32(0..1000))),
        ),
        _ => (format!("{place}/tiers/{tier}/liner"), json!(rng.bool())),
    };
    let field: &mut Value = document.pointer_mut(&at)?;
    *field = value;
    serde_json::from_value::<Plan>(document).ok()?.check().ok()
}

#[test]
fn any_200_edits_undone_give_the_first_document_back() {
    let dir = tempfile::tempdir().unwrap();
    let mut store = Store::open(&dir.path().join("plans.db")).unwrap();
    let demo: Plan = serde_json::from_str(include_str!("../../../demo/kettle-fen.json")).unwrap();
    let bytes = |plan: &Plan| serde_json::to_string(plan).unwrap();
    for seed in 0..1 {
        let mut rng = fastrand::Rng::with_seed(seed);
        let mut here = store
            .create(
                &demo.clone().check().unwrap(),
                "began",
                Timestamp::UNIX_EPOCH,
            )
            .unwrap();
        let mut documents = vec![bytes(&here.plan)];
        let mut kinds_done = std::collections::BTreeMap::new();
        while documents.len() <= 200 {
            let sound = here.plan.clone().check().unwrap();
            let next = if rng.u32(0..3) == 0 {
                figure_changed(&mut rng, &sound).map(|plan| ("figure".to_owned(), plan))
            } else {
                let edit = any_edit(&mut rng, &sound);
                let name = format!("{edit:?}");
                let name = name.split([' ', '{']).next().unwrap().to_owned();
                let edited = apply(&sound, &edit).ok();
                edited.map(|edited| (name, edited.plan.check().unwrap()))
            };
            let Some((name, plan)) = next else { continue };
            // The room must not grow without end, nor run empty.
            if bytes(&plan) == documents[documents.len() - 1]
                || !(2..=14).contains(&plan.places.len())
            {
                continue;
            }
            *kinds_done.entry(name).or_insert(0) += 1;
            here = store
                .save(
                    here.id,
                    here.revision,
                    &plan,
                    "edited",
                    Timestamp::UNIX_EPOCH,
                )
                .unwrap();
            documents.push(bytes(&here.plan));
        }
        assert!(kinds_done.len() >= 10, "{kinds_done:?}");
        while let Some(document) = documents.pop() {
            assert_eq!(
                bytes(&here.plan),
                document,
                "seed {seed}, {} edits in",
                documents.len()
            );
            if !documents.is_empty() {
                here = store.step(here.id, here.revision, Step::Undo).unwrap();
            }
        }
        assert_eq!(bytes(&here.plan), bytes(&demo));
    }
}
