//! Plans that were asked about lately: most questions are about a plan on another day, or about one of which
//! a lamp was hung otherwise.

use std::sync::{Arc, Mutex, MutexGuard, OnceLock, PoisonError};

use crate::advice;
use crate::advice::Finding;
use crate::ask::season::Season;
use crate::day::fits::Capacity;
use crate::light::fields::Fields;
use crate::plan::SoundPlan;
use crate::season::{HungOtherwise, Outcome, Reckoned};
use crate::space::decks::Fits;

/// So many plans are remembered.
const MOST: usize = 4;

/// Plans that were asked about lately, with all that follows from them whatever day is looked at. Whoever asks
/// gets what would be reckoned anew.
#[derive(Debug, Default)]
pub struct Lately(Mutex<Vec<Arc<Known>>>);

/// A plan that was asked about.
#[derive(Debug)]
struct Known {
    /// It without the heights of its lamps, and those, place by place.
    bare: SoundPlan,
    heights_mm: Vec<Vec<f64>>,
    outcome: Outcome,
    on_plan: Arc<OnPlan>,
}

/// What is told of a plan as a whole, each once somebody asks for it.
#[derive(Debug, Default)]
pub(super) struct OnPlan {
    findings: OnceLock<Vec<Finding>>,
    season: OnceLock<Season>,
    /// What the room holds, however its lamps hang.
    capacity: Arc<OnceLock<Capacity>>,
}

impl OnPlan {
    pub(super) fn findings(&self, reckoned: &Reckoned<'_>) -> &[Finding] {
        self.findings.get_or_init(|| advice::on_plan(reckoned))
    }

    pub(super) fn season(&self, reckoned: &Reckoned<'_>) -> &Season {
        self.season.get_or_init(|| {
            let fits = || Capacity::of(reckoned.plan, &mut Fits::default());
            Season::of(reckoned, self.capacity.get_or_init(fits).clone())
        })
    }
}

impl Lately {
    /// What is reckoned of `plan`, and what is told of it as a whole; `fields` are the same from one time to
    /// the next.
    pub(super) fn of<'a>(
        &self,
        plan: &'a SoundPlan,
        fields: &'a Fields,
    ) -> (Reckoned<'a>, Arc<OnPlan>) {
        let (bare, heights_mm) = plan.without_heights();
        let before = self.like(&bare, &heights_mm);
        if let Some(known) = &before
            && known.heights_mm == heights_mm
        {
            self.keep(Arc::clone(known));
            let reckoned = Reckoned::with(plan, fields, known.outcome.clone());
            return (reckoned, Arc::clone(&known.on_plan));
        }
        let same = |known: &Arc<Known>| {
            let both = known.heights_mm.iter().zip(&heights_mm);
            both.map(|(then, now)| then == now).collect::<Vec<_>>()
        };
        let same = before.as_ref().map(same);
        let hung = before.as_ref().zip(same.as_ref());
        let hung = hung.map(|(known, same)| HungOtherwise {
            outcome: &known.outcome,
            same,
        });
        let outcome = Outcome::of(plan, fields, hung);
        let capacity = before.map(|known| Arc::clone(&known.on_plan.capacity));
        let on_plan = Arc::new(OnPlan {
            capacity: capacity.unwrap_or_default(),
            ..OnPlan::default()
        });
        self.keep(Arc::new(Known {
            bare,
            heights_mm,
            outcome: outcome.clone(),
            on_plan: Arc::clone(&on_plan),
        }));
        (Reckoned::with(plan, fields, outcome), on_plan)
    }

    /// The plan that is like `bare` and of which most lamps hang at `heights_mm`, of the last asked about.
    fn like(&self, bare: &SoundPlan, heights_mm: &[Vec<f64>]) -> Option<Arc<Known>> {
        // Not under the lock: others may ask meanwhile.
        let all = self.open().clone();
        let like = all.into_iter().filter(|known| known.bare == *bare);
        let hang_so = |known: &Arc<Known>| {
            let both = known.heights_mm.iter().zip(heights_mm);
            both.filter(|(then, now)| then == now).count()
        };
        like.max_by_key(hang_so)
    }

    /// Keeps `known` as the last that was asked about, and forgets what was not for longest.
    fn keep(&self, known: Arc<Known>) {
        let mut all = self.open();
        all.retain(|other| !Arc::ptr_eq(other, &known));
        if all.len() >= MOST {
            all.remove(0);
        }
        all.push(known);
    }

    fn open(&self) -> MutexGuard<'_, Vec<Arc<Known>>> {
        // A thread that panicked while it only read or pushed leaves it sound.
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::date;

    use super::*;
    use crate::ask::{Detail, assess, assess_lately};
    use crate::basis::dates::DateSpan;
    use crate::plan::Plan;
    use crate::testing::kettle_fen;

    #[test]
    fn what_was_asked_before_shows_in_no_answer() {
        type Edit = fn(&mut Plan);
        // Lamps over what germinates and what grows, over a deck that lets light down and in a closed place;
        // and what is no lamp's height.
        let edits: [Edit; 9] = [
            |_| {},
            |plan| plan.places[0].tiers[1].lamps[0].height_mm += 10.0,
            |plan| plan.places[0].tiers[1].lamps[0].height_mm -= 20.0,
            |plan| plan.places[0].tiers[3].lamps[0].height_mm -= 60.0,
            |plan| plan.places[2].tiers[5].lamps[0].height_mm -= 30.0,
            |plan| plan.places[1].tiers[0].photoperiod_h -= 3.0,
            |plan| plan.trays[3].stands[0].x_mm += 4.0,
            |plan| plan.sowings[2].shift_days += 3,
            |plan| plan.places[0].tiers[1].lamps[0].height_mm += 35.0,
        ];
        let (fields, lately) = (Fields::default(), Lately::default());
        // One after the other, and each again on another day and when the one before it was asked about.
        for (n, on) in [date(2027, 4, 9), date(2027, 3, 1)].into_iter().enumerate() {
            for edit in edits.iter().skip(n).chain(&edits[..3]) {
                let (plan, day) = (kettle_fen(edit), DateSpan::day(on));
                let asked = assess_lately(&plan, day, Detail::All, &fields, &lately);
                assert_eq!(asked, assess(&plan, day, Detail::All));
            }
        }
        assert_eq!(lately.open().len(), MOST);
    }

    #[test]
    fn a_plan_that_is_asked_about_stays_while_others_are_forgotten() {
        let (fields, lately) = (Fields::default(), Lately::default());
        let hung = |mm: f64| kettle_fen(|plan| plan.places[0].tiers[1].lamps[0].height_mm += mm);
        let plan = hung(0.0);
        let (_, first) = lately.of(&plan, &fields);
        for mm in 1..=2 * MOST {
            lately.of(&hung(mm as f64), &fields);
            let (_, again) = lately.of(&plan, &fields);
            assert!(Arc::ptr_eq(&first, &again), "{mm}");
            assert!(lately.open().len() <= MOST);
        }
    }
}
