//! Ways to make room where a season does not fit: each is a plan of its own, with all its trays placed anew,
//! so that what is promised was found, not hoped for.

mod change;
mod in_the_room;
mod of_sowings;
mod tried;
mod way;

pub use way::{Overflow, Trying, WayToFit};

use crate::compare::making_room::change::Change;
use crate::compare::making_room::tried::{Standing, Tried};
use crate::light::fields::Fields;
use crate::placement::{Crowding, crowding};
use crate::plan::SoundPlan;
use crate::season::Reckoned;

/// So many ways are offered.
const MOST_WAYS: usize = 8;
/// So many of them about one sowing or place.
const MOST_ALIKE: usize = 3;
/// So many changes are tried in one round.
const MOST_TRIED: u32 = 48;
/// So many changes one after another, where one alone does not do.
const MOST_STEPS: usize = 3;

/// What `plan` has no room for, and ways to make room. `tell` hears how far it is, and stops it by `false`:
/// then what was found so far is the answer. `fields` remembers light.
pub fn make_room(
    plan: &SoundPlan,
    fields: &Fields,
    tell: &mut dyn FnMut(Trying) -> bool,
) -> Overflow {
    let reckoned = Reckoned::of(plan, fields);
    let short = crowding(&reckoned, &mut |_| true);
    let mut search = Search {
        fields,
        before: Standing::of(&reckoned),
        ways: Vec::new(),
        tried: 0,
        stopped: false,
    };
    if !short.without.is_empty() {
        search.round(&reckoned, &short, None, tell);
        let mut steps = 1;
        // One change alone does not do: more on top of the best.
        while !search.stopped && !search.ways.iter().any(|way| way.left == 0) && steps < MOST_STEPS
        {
            let Some(best) = search.best().cloned() else {
                break;
            };
            let Ok(next) = plan.changed_to(best.edited.plan.clone()) else {
                break;
            };
            let reckoned = Reckoned::of(&next, fields);
            let short = crowding(&reckoned, &mut |_| true);
            search.round(&reckoned, &short, Some(&best), tell);
            steps += 1;
        }
    }
    let mut ways = search.ways;
    ways.sort_by_key(|way| (way.left, way.harm));
    let least = ways.first().map_or(0, |way| way.left);
    // What leaves trays standing is worth a look only where nothing does better.
    ways.retain(|way| way.left == least || least > 0);
    let mut kept: Vec<Tried> = Vec::new();
    for way in ways {
        let alike = kept.iter().filter(|other| other.about == way.about).count();
        if kept.len() < MOST_WAYS && alike < MOST_ALIKE {
            kept.push(way);
        }
    }
    Overflow {
        crowding: short,
        ways: kept.into_iter().map(Tried::into_way).collect(),
        all_tried: !search.stopped,
    }
}

struct Search<'s> {
    fields: &'s Fields,
    before: Standing,
    ways: Vec<Tried>,
    tried: u32,
    stopped: bool,
}

impl Search<'_> {
    /// Tries each change of `reckoned` that could ease what is short, on top of `first` where that is given.
    fn round(
        &mut self,
        reckoned: &Reckoned<'_>,
        short: &Crowding,
        first: Option<&Tried>,
        tell: &mut dyn FnMut(Trying) -> bool,
    ) {
        let mut changes: Vec<Change> = of_sowings::changes(reckoned, short);
        changes.extend(in_the_room::changes(reckoned, short));
        changes.sort_by_key(|change| change.harm);
        let (all, before) = (changes.len().max(1), self.tried);
        for (i, change) in changes.into_iter().enumerate() {
            let found = self.ways.iter().filter(|way| way.left == 0).count();
            let trying = Trying {
                done: i as f64 / all as f64,
                tried: self.tried,
                found: found as u32,
            };
            if found >= 2 * MOST_WAYS || self.tried - before >= MOST_TRIED {
                return;
            }
            if !tell(trying) {
                self.stopped = true;
                return;
            }
            if !change.more_spots && !tried::eases(reckoned, short, &change, self.fields) {
                continue;
            }
            self.tried += 1;
            let Some(tried) = Tried::of(reckoned.plan, change, first, &self.before, self.fields)
            else {
                continue;
            };
            let least = first.map_or(self.before.without, |first| first.left);
            if tried.left < least {
                self.ways.push(tried);
            }
        }
    }

    fn best(&self) -> Option<&Tried> {
        self.ways.iter().min_by_key(|way| (way.left, way.harm))
    }
}
