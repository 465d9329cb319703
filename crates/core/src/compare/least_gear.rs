//! How many lit shelves and racks a season needs: one fewer is taken away, and all trays placed afresh, until
//! they no longer fit. How few mats do is told by `season::mats`.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::edit;
use crate::edit::{Edit, GearList, GearRef, Thing};
use crate::light::fields::Fields;
use crate::placement::{Served, served};
use crate::plan::SoundPlan;
use crate::room::{Bay, BayRef, bays};
use crate::season::Reckoned;

/// What a season needs of what is there.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LeastGear {
    /// Trays that stand nowhere even with all of it.
    pub without: u32,
    /// Trays that germinate cooler than they want even with all of it.
    pub cool: u32,
    /// Shelves with lamps.
    pub lit_shelves: Needed,
    /// Racks and other places that stand in the room.
    pub places: Needed,
    /// Whether everything was tried; not where somebody stopped it.
    pub all_tried: bool,
}

/// How many of a kind are needed.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Needed {
    /// So many are there.
    pub have: u32,
    /// So many are needed.
    pub need: u32,
    /// What could be left out, and what that means.
    pub verdict: Statement,
}

/// How far the search is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Lessening {
    /// The share of it that is done.
    pub done: f64,
    /// Arrangements that were tried.
    pub tried: u32,
}

/// Something that could be left out.
struct Spare {
    /// How much it is used, in days of trays: what is used least goes first.
    used: i32,
    name: String,
    edit: Edit,
}

/// How many lit shelves and places the season of `plan` needs. `tell` hears how far it is, and stops it
/// by `false`. `fields` remembers light.
pub fn least_gear(
    plan: &SoundPlan,
    fields: &Fields,
    tell: &mut dyn FnMut(Lessening) -> bool,
) -> LeastGear {
    let all = served(plan, fields);
    let kinds = [lit_shelves as Kind, places];
    let steps: usize = kinds.iter().map(|kind| kind(plan, fields).len()).sum();
    let mut search = Search {
        fields,
        all,
        steps: steps.max(1),
        tried: 0,
        stopped: false,
        tell,
    };
    let [lit_shelves, places] = [
        (
            lit_shelves as Kind,
            "shelves with lamps",
            "shelf with lamps",
        ),
        (
            places,
            "racks, tables and chambers",
            "rack, table or chamber",
        ),
    ]
    .map(|(kind, names, name)| search.needed(plan, kind, [name, names]));
    LeastGear {
        without: all.without,
        cool: all.cool,
        lit_shelves,
        places,
        all_tried: !search.stopped,
    }
}

type Kind = fn(&SoundPlan, &Fields) -> Vec<Spare>;

struct Search<'s> {
    fields: &'s Fields,
    all: Served,
    steps: usize,
    tried: usize,
    stopped: bool,
    tell: &'s mut dyn FnMut(Lessening) -> bool,
}

impl Search<'_> {
    fn needed(&mut self, plan: &SoundPlan, kind: Kind, [name, names]: [&'static str; 2]) -> Needed {
        let have = kind(plan, self.fields).len();
        let mut now = plan.clone();
        let mut left_out: Vec<String> = Vec::new();
        'fewer: while !self.stopped {
            for spare in kind(&now, self.fields) {
                self.tried += 1;
                let progress = Lessening {
                    done: (self.tried as f64 / (self.tried + self.steps) as f64).min(1.0),
                    tried: self.tried as u32,
                };
                if !(self.tell)(progress) {
                    self.stopped = true;
                    break 'fewer;
                }
                let Ok(without) = edit::apply(&now, &spare.edit) else {
                    continue;
                };
                let Ok(without) = now.changed_to(without.plan) else {
                    continue;
                };
                let served = served(&without, self.fields);
                if served.without <= self.all.without && served.cool <= self.all.cool {
                    left_out.push(spare.name);
                    now = without;
                    continue 'fewer;
                }
            }
            break;
        }
        let count = |n: usize| Quantity::Count.of(n as f64);
        let need = have - left_out.len();
        Needed {
            have: have as u32,
            need: need as u32,
            verdict: match (have, left_out.len()) {
                (0, _) => say!("there are no {names}", names = names),
                (_, 0) if have == 1 => say!("the one {name} is needed", name = name),
                (_, 0) => say!(
                    "all {have} {names} are needed",
                    have = count(have),
                    names = names
                ),
                _ => say!(
                    "{need} of {have} {names} do; {left_out} could be left out",
                    need = count(need),
                    have = count(have),
                    names = names,
                    left_out = left_out.join(", ")
                ),
            },
        }
    }
}

/// Days that trays stand where `is_there`.
fn used(reckoned: &Reckoned<'_>, is_there: impl Fn(&BayRef) -> bool) -> i32 {
    let stays = reckoned.stays.iter().filter(|stay| is_there(stay.bay));
    stays.map(|stay| stay.days.count()).sum()
}

fn in_order(mut spare: Vec<Spare>) -> Vec<Spare> {
    spare.sort_by_key(|own| own.used);
    spare
}

fn indoors(plan: &SoundPlan) -> impl Iterator<Item = Bay<'_>> {
    bays(&plan.places).filter(|bay| !bay.place.outdoors() && !bay.tier.storage)
}

fn lamp(bay: &Bay<'_>, id: &str) -> Thing {
    Thing {
        place: bay.place.id.clone(),
        tier: Some(bay.tier.id.clone()),
        gear: Some(GearRef {
            list: GearList::Lamps,
            id: id.to_owned(),
        }),
    }
}

/// Shelves with their lamps: all of a shelf's at once.
fn lit_shelves(plan: &SoundPlan, fields: &Fields) -> Vec<Spare> {
    let reckoned = Reckoned::of(plan, fields);
    let lit = indoors(plan).filter(|bay| !bay.tier.lamps.is_empty());
    let each = lit.map(|bay| {
        let lamps = bay.tier.lamps.iter();
        Spare {
            used: used(&reckoned, |at| *at == bay.reference()),
            name: bay.name(),
            edit: Edit::Remove {
                things: lamps.map(|own| lamp(&bay, &own.id)).collect(),
            },
        }
    });
    in_order(each.collect())
}

/// Racks, tables and chambers, whole.
fn places(plan: &SoundPlan, fields: &Fields) -> Vec<Spare> {
    let reckoned = Reckoned::of(plan, fields);
    let whole = plan.places.iter().filter(|place| place.is_furniture());
    let each = whole.map(|place| Spare {
        used: used(&reckoned, |at| at.place == place.id),
        name: place.name.clone(),
        edit: Edit::Remove {
            things: vec![Thing {
                place: place.id.clone(),
                tier: None,
                gear: None,
            }],
        },
    });
    in_order(each.collect())
}
