//! What a fact changes in the plan: lamps that were set hang so from then on, a tray that was carried
//! elsewhere than planned stands there.

use crate::basis::fault::Fault;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::basis::work::go_on;
use crate::edit::apply::apply;
use crate::edit::change::{Edit, Edited};
use crate::lamps::choice::Setting;
use crate::light::fields::Fields;
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::plan::{Plan, SoundPlan, Stage, Tray};
use crate::room::{BayRef, find_bay};
use crate::season::Reckoned;
use crate::season::moments::TrayMoments;

/// The plan that follows what `entries` tell, in their order, and why some could not be followed; `None`
/// where nothing in it changes. Light that `fields` remembers is not reckoned anew.
pub fn follow(
    plan: &SoundPlan,
    entries: &[Entry],
    fields: &Fields,
) -> (Option<Edited>, Vec<Fault>) {
    let (mut now, mut words, mut faults) = (plan.clone(), Vec::new(), Vec::new());
    let mut left = entries.iter();
    // What is reckoned of a plan serves until an entry changes it.
    loop {
        let reckoned = Reckoned::of(&now, fields);
        let changed = left.find_map(|entry| {
            go_on();
            let followed = follow_one(&reckoned, entry).and_then(|followed| {
                let followed = followed.map(|(plan, word)| Ok((now.changed_to(plan)?, word)));
                followed.transpose()
            });
            followed.unwrap_or_else(|found| {
                faults.extend(found);
                None
            })
        });
        let Some((plan, word)) = changed else { break };
        now = plan;
        words.push(word);
    }
    let edited = words.pop().map(|last| Edited {
        word: match words.len() {
            0 => last,
            more => say!(
                "as logged: {n} changes in the room",
                n = Quantity::Count.of((more + 1) as f64)
            ),
        },
        plan: now.into_inner(),
        made: Vec::new(),
    });
    (edited, faults)
}

type Followed = Result<Option<(Plan, Statement)>, Vec<Fault>>;

fn follow_one(reckoned: &Reckoned<'_>, entry: &Entry) -> Followed {
    let plan = reckoned.plan;
    match &entry.fact {
        Some(Fact::LampSet {
            bay,
            height_mm,
            hours_h,
            from_h,
            lift_mm,
            brightness,
        }) => {
            let found = find_bay(&plan.places, bay);
            // What was set since hangs otherwise by now.
            let set = plan.happened().bay(bay).lamps_set;
            let Some(found) = found.filter(|_| set.is_none_or(|day| day <= entry.on)) else {
                return Ok(None);
            };
            let (place, tier) = (found.place_index, found.tier_index);
            let name = found.name();
            let mut changed = (**plan).clone();
            let own = &mut changed.places[place].tiers[tier];
            let setting = Setting {
                height_mm: *height_mm,
                lift_mm: lift_mm.unwrap_or(own.lift_mm()),
                brightness: brightness.unwrap_or(1.0),
                hours_h: *hours_h,
            };
            setting.set(own);
            own.lights_on_h = from_h.or(own.lights_on_h);
            if changed == **plan {
                return Ok(None);
            }
            let word = say!("as logged: lamps of {bay} set", bay = name);
            Ok(Some((changed, word)))
        }
        Some(Fact::Moved { tray, bay }) => {
            let index = plan.tray_index(tray);
            let Some(own) = index.map(|i| &plan.trays[i]) else {
                return Ok(None);
            };
            let moments = reckoned.moments_of(own);
            let stage = moments.stage_on(entry.on);
            let stage = stage.filter(|stage| *stage != Stage::Out);
            let Some(stage) = stage.filter(|_| !is_planned(own, bay, &moments, entry)) else {
                return Ok(None);
            };
            let begins = moments.days_of(stage).map(|days| days.from);
            let edit = Edit::StandTrays {
                trays: vec![tray.clone()],
                stage,
                from: (begins != Some(entry.on)).then_some(entry.on),
                bay: bay.clone(),
                onto: None,
            };
            let edited = apply(plan, &edit)?;
            let word = say!("as logged: {tray} moved", tray = &own.name);
            Ok(Some((edited.plan, word)))
        }
        _ => Ok(None),
    }
}

/// Whether the plan has the tray in that bay on that day, or lets it grow there next.
fn is_planned(tray: &Tray, bay: &BayRef, moments: &TrayMoments, entry: &Entry) -> bool {
    let stage = moments.stage_on(entry.on);
    let here = stage.and_then(|stage| tray.stand_on(stage, entry.on));
    let next = tray
        .stand_in(Stage::Grow)
        .filter(|_| stage == Some(Stage::Germinate));
    here.is_some_and(|stand| stand.bay == *bay) || next.is_some_and(|stand| stand.bay == *bay)
}
