//! Every tray of a plan placed: its stages asked of the solver, and the answer laid on the decks.

use crate::basis::work::go_on;
use crate::light::fields::Fields;
use crate::placement::asked::Asked;
use crate::placement::hosts::Hosts;
use crate::placement::laid::laid;
use crate::placement::solver::{Effort, Progress, place_with};
use crate::plan::{SoundPlan, Stage, Tray};
use crate::season::Reckoned;
use crate::season::stays::clashes;
use crate::season::suits::Needs;

/// How trays are placed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct How {
    /// As if none stood anywhere yet; else what stands stays, but for what has to make room.
    pub afresh: bool,
    /// How long it may take.
    pub effort: Effort,
}

/// So many times the days are reckoned again: they move with the warmth and light of the spots.
const ROUNDS: usize = 3;

/// The trays of `plan`, placed: each with all its spots, or as it was where none was found. `fields`
/// remembers light; `tell` hears how far it is.
pub fn place_all(
    plan: &SoundPlan,
    how: How,
    fields: &Fields,
    tell: &mut dyn FnMut(Progress) -> bool,
) -> Vec<Tray> {
    let mut trays = plan.trays.clone();
    let mut now = plan.clone();
    // Where nothing stands there is nothing to keep.
    let afresh = how.afresh || plan.trays.iter().all(|tray| tray.stands.is_empty());
    for round in 0..ROUNDS {
        go_on();
        let reckoned = Reckoned::of(&now, fields);
        if round > 0 && clashes(&reckoned.stays).is_empty() {
            break;
        }
        let keep = round > 0 || !afresh;
        let effort = if round == 0 {
            how.effort
        } else {
            Effort::Little
        };
        let Some(placed) = solved(&reckoned, keep, effort, tell) else {
            break;
        };
        let mut next = (*now).clone();
        next.trays.clone_from(&placed);
        match plan.changed_to(next) {
            Ok(sound) => (trays, now) = (placed, sound),
            Err(_) => break,
        }
    }
    apart(plan, &now, fields, trays)
}

/// The same without the spots of trays that still clash: they go back to where they stood in `plan`, if
/// anywhere.
fn apart(plan: &SoundPlan, now: &SoundPlan, fields: &Fields, mut trays: Vec<Tray>) -> Vec<Tray> {
    let reckoned = Reckoned::of(now, fields);
    for clash in clashes(&reckoned.stays) {
        for tray in [clash.second, clash.first] {
            let index = plan.tray_index(&tray.id);
            let before = index.map(|i| (i, &plan.trays[i]));
            if let Some((i, before)) = before.filter(|(_, before)| **before != *tray) {
                trays[i].stands.clone_from(&before.stands);
                break;
            }
        }
    }
    trays
}

/// The trays as the solver places them; a few times where it begins from nothing, since what stands
/// together is known only then.
fn solved(
    reckoned: &Reckoned<'_>,
    keep: bool,
    effort: Effort,
    tell: &mut dyn FnMut(Progress) -> bool,
) -> Option<Vec<Tray>> {
    let mut hosts = if keep {
        Hosts::of(reckoned)
    } else {
        Hosts::default()
    };
    let turns = if keep { 1 } else { 3 };
    let mut placed = None;
    for turn in 1..=turns {
        let effort = if turn == turns {
            effort
        } else {
            Effort::Little
        };
        let asked = Asked::of(reckoned, keep, &hosts)?;
        let answer = place_with(&asked.instance, effort, tell).ok()?;
        hosts = asked.hosts(reckoned, &answer);
        placed = Some(laid(&asked, reckoned, &answer));
    }
    placed
}

/// How well a room serves its trays.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Served {
    /// Trays that stand nowhere in some stage.
    pub without: u32,
    /// Trays that germinate cooler than they want.
    pub cool: u32,
}

/// How well the room of `plan` serves its trays, placed as if none stood anywhere yet, with little effort.
/// Trays of odd sizes are not looked at.
pub fn served(plan: &SoundPlan, fields: &Fields) -> Served {
    let reckoned = Reckoned::of(plan, fields);
    let mut served = Served {
        without: 0,
        cool: 0,
    };
    let Some(asked) = Asked::of(&reckoned, false, &Hosts::default()) else {
        served.without = plan.trays.len() as u32;
        return served;
    };
    let Ok(answer) = place_with(&asked.instance, Effort::Little, &mut |_| true) else {
        return served;
    };
    for tray in &plan.trays {
        let (Some(stages), Some(places)) =
            (asked.stages.get(&tray.id), answer.assignment.get(&tray.id))
        else {
            continue;
        };
        served.without += u32::from(places.iter().any(Option::is_none));
        let wants = Needs::of(plan, tray, &reckoned.dates).wants_warmth();
        let cool = stages.iter().zip(places).any(|((stage, _), place)| {
            let mut own = asked.positions.iter();
            let own = own.find(|own| Some(&own.id) == place.as_ref());
            let warm = own.is_some_and(|own| own.heated || own.bay.place.keeps_damp_in());
            *stage == Stage::Germinate && place.is_some() && !warm
        });
        served.cool += u32::from(wants && cool);
    }
    served
}
