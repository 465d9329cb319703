//! Edits that change the plan's form: adding, copying, moving and removing what the room holds.
//! Each gives a new document; the one it began with is left as it was.

mod add;
mod again;
mod relocate;
mod remove;
mod sow;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::fault::{Fault, Faults, Pointer};
use crate::plan::{Plan, SoundPlan, Stage};
use crate::room::{BayRef, Tier, find_bay};
use crate::say;
use crate::words::Statement;

/// What to do with the plan's form.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Edit {
    /// Adds a place of a generic kind at the right.
    AddPlace {
        /// The kind, as the shelf of kinds names it.
        kind: String,
    },
    /// Adds a tier where the place has most room for one.
    AddTier {
        /// The place.
        place: String,
    },
    /// Hangs a lamp of a generic kind in a bay.
    AddLamp {
        /// The bay.
        bay: BayRef,
        /// The kind.
        kind: String,
    },
    /// Lays a heat mat of a generic kind on a deck.
    AddMat {
        /// The bay.
        bay: BayRef,
        /// The kind.
        kind: String,
    },
    /// Puts a fan of a generic kind into a bay.
    AddFan {
        /// The bay.
        bay: BayRef,
        /// The kind.
        kind: String,
    },
    /// Takes a generic container into the plan's own formats.
    AddFormat {
        /// The kind.
        kind: String,
    },
    /// The same again: copies places, tiers and gear, without the trays.
    Again {
        /// What to copy.
        things: Vec<Thing>,
    },
    /// Takes things out of the plan. Trays that stood there stay in the plan without a spot.
    Remove {
        /// What to take out.
        things: Vec<Thing>,
    },
    /// Moves a place along the row.
    MovePlace {
        /// The place.
        place: String,
        /// Its new index, from the left.
        to: usize,
    },
    /// Finds a tray a spot in another bay, from a stage on.
    MoveTray {
        /// The tray.
        tray: String,
        /// From this stage on.
        stage: Stage,
        /// The bay to stand in.
        bay: BayRef,
    },
    /// Sows another crop, in as many trays as it takes.
    AddSowing {
        /// The crop.
        crop: String,
        /// The variety.
        variety: String,
        /// Plants wanted.
        wanted: u32,
    },
    /// Sows the same again every so many days.
    RepeatSowing {
        /// The sowing.
        sowing: String,
        /// How many more.
        times: u32,
        /// Days from one to the next.
        every_days: u32,
    },
    /// Takes a sowing out, and the trays that hold nothing else.
    RemoveSowing {
        /// The sowing.
        sowing: String,
    },
}

/// Something in the room that can be picked.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Thing {
    /// The place it is, or is in.
    pub place: String,
    /// The tier it is, or is in; left out for a whole place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tier: Option<String>,
    /// The lamp, mat or fan it is; left out for a tier or a place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gear: Option<GearRef>,
}

/// Names a lamp, mat or fan within its tier.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GearRef {
    /// Which list it stands in.
    pub list: GearList,
    /// Its identifier there.
    pub id: String,
}

/// The lists of gear that a tier has.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GearList {
    /// Its lamps.
    Lamps,
    /// Its heat mats.
    Mats,
    /// Its fans.
    Fans,
}

/// A plan after an edit.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Edited {
    /// The new document.
    pub plan: Plan,
    /// What was done, for the history.
    pub word: Statement,
    /// What the edit made, to be picked next.
    pub made: Vec<Thing>,
}

/// The plan that `edit` makes of `plan`.
///
/// # Errors
/// What the edit names and the plan lacks, by its path within the edit; or no room for what it
/// adds.
pub fn apply(plan: &SoundPlan, edit: &Edit) -> Result<Edited, Vec<Fault>> {
    let mut editor = Editor {
        plan: (**plan).clone(),
        made: Vec::new(),
    };
    let word = match edit {
        Edit::AddPlace { kind } => editor.add_place(kind),
        Edit::AddTier { place } => editor.add_tier(place),
        Edit::AddLamp { bay, kind } => editor.add_lamp(bay, kind),
        Edit::AddMat { bay, kind } => editor.add_mat(bay, kind),
        Edit::AddFan { bay, kind } => editor.add_fan(bay, kind),
        Edit::AddFormat { kind } => editor.add_format(kind),
        Edit::Again { things } => editor.again(things),
        Edit::Remove { things } => editor.remove(things),
        Edit::MovePlace { place, to } => editor.move_place(place, *to),
        Edit::MoveTray { tray, stage, bay } => editor.move_tray(plan, tray, *stage, bay),
        Edit::AddSowing {
            crop,
            variety,
            wanted,
        } => editor.add_sowing(crop, variety, *wanted),
        Edit::RepeatSowing {
            sowing,
            times,
            every_days,
        } => editor.repeat_sowing(sowing, *times, *every_days),
        Edit::RemoveSowing { sowing } => editor.remove_sowing(sowing),
    }?;
    let Editor { plan, made } = editor;
    let plan = plan.check()?.into_inner();
    Ok(Edited { plan, word, made })
}

type Word = Result<Statement, Vec<Fault>>;

struct Editor {
    plan: Plan,
    made: Vec<Thing>,
}

fn fault(field: &str, value: impl Serialize, problem: Statement, remedy: Statement) -> Vec<Fault> {
    let mut faults = Faults::default();
    faults.add(&Pointer::default().at(field), value, problem, remedy);
    faults.verdict().expect_err("a fault was added")
}

fn unknown(field: &str, id: &str, known: impl IntoIterator<Item = String>) -> Vec<Fault> {
    let mut faults = Faults::default();
    faults.unknown(&Pointer::default().at(field), id, known);
    faults.verdict().expect_err("a fault was added")
}

/// The kind called `id` on one list of the shelf.
fn kind_of<'a, T>(list: &'a [T], id_of: fn(&T) -> &String, id: &str) -> Result<&'a T, Vec<Fault>> {
    list.iter()
        .find(|kind| id_of(kind) == id)
        .ok_or_else(|| unknown("kind", id, list.iter().map(|kind| id_of(kind).clone())))
}

/// `id`, with a number behind it when it is taken already.
fn free_id<'a>(id: &str, taken: impl Iterator<Item = &'a String> + Clone) -> String {
    // A copy of a copy counts on from the first.
    let base = match id.rsplit_once('-') {
        Some((base, n)) if !base.is_empty() && n.parse::<u32>().is_ok() => base,
        _ => id,
    };
    let base: String = base.chars().take(34).collect();
    let is_taken = |id: &str| taken.clone().any(|other| other == id);
    if !is_taken(id) {
        return id.to_owned();
    }
    (2..)
        .map(|n| format!("{base}-{n}"))
        .find(|id| !is_taken(id))
        .expect("a plan's lists are short")
}

/// `name`, with a number behind it when it is taken already.
fn free_name<'a>(name: &str, taken: impl Iterator<Item = &'a String> + Clone) -> String {
    let base = match name.rsplit_once(' ') {
        Some((base, n)) if n.parse::<u32>().is_ok() => base,
        _ => name,
    };
    let base: String = base.chars().take(110).collect();
    let is_taken = |name: &str| taken.clone().any(|other| other == name);
    if !is_taken(name) {
        return name.to_owned();
    }
    (2..)
        .map(|n| format!("{base} {n}"))
        .find(|name| !is_taken(name))
        .expect("a plan's lists are short")
}

impl Editor {
    fn place_index(&self, id: &str) -> Result<usize, Vec<Fault>> {
        let places = &self.plan.places;
        places
            .iter()
            .position(|place| place.id == id)
            .ok_or_else(|| unknown("place", id, places.iter().map(|p| p.id.clone())))
    }

    fn tier_at(&self, bay: &BayRef) -> Result<[usize; 2], Vec<Fault>> {
        let place = self.place_index(&bay.place)?;
        let tiers = &self.plan.places[place].tiers;
        let tier = tiers
            .iter()
            .position(|tier| tier.id == bay.tier)
            .ok_or_else(|| unknown("tier", &bay.tier, tiers.iter().map(|t| t.id.clone())))?;
        Ok([place, tier])
    }

    fn tier(&mut self, [place, tier]: [usize; 2]) -> &mut Tier {
        &mut self.plan.places[place].tiers[tier]
    }

    fn bay_name(&self, bay: &BayRef) -> String {
        find_bay(&self.plan.places, bay).map_or_else(String::new, |bay| bay.name())
    }

    fn made_gear(&mut self, bay: &BayRef, list: GearList, id: &str) {
        self.made.push(Thing {
            place: bay.place.clone(),
            tier: Some(bay.tier.clone()),
            gear: Some(GearRef {
                list,
                id: id.to_owned(),
            }),
        });
    }

    /// Refuses an edit of more things than a hand picks.
    fn not_too_many(&self, things: &[Thing]) -> Result<(), Vec<Fault>> {
        const MOST: usize = 200;
        let mut faults = Faults::default();
        faults.count(&Pointer::default().at("things"), things.len(), 0..=MOST);
        faults.verdict()
    }

    /// Refuses an edit of nothing.
    fn some_things(&self, names: &[String]) -> Result<(), Vec<Fault>> {
        if names.is_empty() {
            return Err(fault(
                "things",
                Vec::<Thing>::new(),
                say!("nothing is picked"),
                say!("name at least one place, tier, lamp, mat or fan"),
            ));
        }
        Ok(())
    }
}

fn whole(place: &str) -> Thing {
    Thing {
        place: place.to_owned(),
        tier: None,
        gear: None,
    }
}

/// Up to three names, and how many more.
fn listed(names: &[String]) -> String {
    match names.len() {
        0..=3 => names.join("; "),
        n => format!("{} and {} more", names[..3].join("; "), n - 3),
    }
}
