//! What can be done about the room: use what is kept for storage, hang lamps where none are, put up one more
//! shelf or rack.

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::compare::making_room::change::Change;
use crate::edit;
use crate::edit::{Edit, Thing};
use crate::placement::Crowding;
use crate::plan::{Plan, SoundPlan, Stage};
use crate::room::{Bay, bays};
use crate::season::Reckoned;

/// So many bays are tried in each way.
const MOST: usize = 3;
const HARM_OF_STORAGE: u32 = 6;
const HARM_OF_LAMPS: u32 = 60;
const HARM_OF_A_SHELF: u32 = 75;
const HARM_OF_A_RACK: u32 = 100;

/// Every change of the room that gives more spots.
pub(super) fn changes(reckoned: &Reckoned<'_>, short: &Crowding) -> Vec<Change> {
    let plan = reckoned.plan;
    let light = short.shortages.is_empty()
        || short
            .shortages
            .iter()
            .any(|shortage| shortage.stage == Stage::Grow);
    let indoors = || bays(&plan.places).filter(|bay| !bay.place.outdoors());
    let lit = indoors().filter(|bay| !bay.tier.lamps.is_empty() && !bay.tier.storage);
    let Some(lit) = lit.max_by_key(|bay| bay.tier.lamps.len()) else {
        return Vec::new();
    };
    let mut changes = Vec::new();
    let storage = indoors().filter(|bay| bay.tier.storage).take(MOST);
    changes.extend(storage.filter_map(|bay| use_storage(plan, &bay, light && bay.is_dark(), &lit)));
    if light {
        let unlit = indoors().filter(|bay| bay.is_dark() && !bay.tier.storage);
        let unlit = unlit.filter(|bay| !bay.place.keeps_damp_in()).take(MOST);
        changes.extend(unlit.filter_map(|bay| lamps_in(plan, &bay, &lit)));
    }
    let racks = plan.places.iter().filter(|place| place.takes_more_decks());
    for place in racks.take(MOST) {
        let tier = place.tiers.iter().max_by_key(|tier| tier.lamps.len());
        if let Some(tier) = tier.filter(|tier| !tier.lamps.is_empty()) {
            let thing = Thing {
                place: place.id.clone(),
                tier: Some(tier.id.clone()),
                gear: None,
            };
            let step = say!("Put one more shelf into {rack}", rack = &place.name);
            let buys = say!(
                "a shelf board, and {n} × {lamp}",
                n = Quantity::Count.of(tier.lamps.len() as f64),
                lamp = &tier.lamps[0].name
            );
            changes.extend(again(plan, thing, (step, buys), HARM_OF_A_SHELF));
        }
    }
    let whole = Thing {
        place: lit.place.id.clone(),
        tier: None,
        gear: None,
    };
    let step = say!("Put up another {rack}", rack = &lit.place.name);
    let buys = say!("another {rack}, with all its lamps", rack = &lit.place.name);
    changes.extend(again(plan, whole, (step, buys), HARM_OF_A_RACK));
    changes
}

fn lamp_of<'a>(lit: &Bay<'a>) -> &'a str {
    lit.tier.lamps.first().map_or("lamps", |lamp| &lamp.name)
}

fn again(
    plan: &SoundPlan,
    thing: Thing,
    (step, buys): (Statement, Statement),
    harm: u32,
) -> Option<Change> {
    let about = thing.place.clone();
    let things = vec![thing];
    let edited = edit::apply(plan, &Edit::Again { things }).ok()?;
    // A rack that finds no place on the floor is no help.
    let stands = |plan: &Plan| {
        plan.places
            .iter()
            .filter(|place| place.spot.is_some())
            .count()
    };
    if edited.plan.places.len() > plan.places.len() && stands(&edited.plan) == stands(plan) {
        return None;
    }
    Some(Change {
        about,
        step,
        costs: Vec::new(),
        buys: Some(buys),
        more_spots: true,
        harm,
        plan: edited.plan,
    })
}

/// The lamps of `lit` in `bay` too.
fn lamps_in(plan: &SoundPlan, bay: &Bay<'_>, lit: &Bay<'_>) -> Option<Change> {
    let copy = Edit::CopyGear {
        from: lit.reference(),
        to: vec![bay.reference()],
    };
    let mut copied = edit::apply(plan, &copy).ok()?.plan;
    // What is copied is the light; mats stay where they are.
    let tier = &mut copied.places[bay.place_index].tiers[bay.tier_index];
    tier.mats.clone_from(&bay.tier.mats);
    tier.fans.clone_from(&bay.tier.fans);
    let lamps = tier.lamps.len();
    let n = Quantity::Count.of(lamps as f64);
    Some(Change {
        about: bay.place.id.clone(),
        step: say!("Hang {n} lamps in {bay}", n = n.clone(), bay = bay.name()),
        costs: Vec::new(),
        buys: Some(say!("{n} × {lamp}", n = n, lamp = lamp_of(lit))),
        more_spots: true,
        harm: HARM_OF_LAMPS,
        plan: copied,
    })
}

/// `bay` cleared of what is stored there, with the lamps of `lit` where it is dark and light is wanted.
fn use_storage(plan: &SoundPlan, bay: &Bay<'_>, dark: bool, lit: &Bay<'_>) -> Option<Change> {
    let mut cleared = (**plan).clone();
    cleared.places[bay.place_index].tiers[bay.tier_index].storage = false;
    let step = say!("Clear {bay} of what is stored there", bay = bay.name());
    let costs = vec![say!("what is stored there needs another place")];
    if !dark {
        return Some(Change {
            about: bay.place.id.clone(),
            step,
            costs,
            buys: None,
            more_spots: true,
            harm: HARM_OF_STORAGE,
            plan: cleared,
        });
    }
    let sound = plan.changed_to(cleared).ok()?;
    let lamps = lamps_in(&sound, &sound.bay(&bay.reference())?, lit)?;
    Some(Change {
        step: say!(
            "Clear {bay} of what is stored there, and hang lamps in it",
            bay = bay.name()
        ),
        costs,
        harm: HARM_OF_STORAGE + lamps.harm,
        ..lamps
    })
}
