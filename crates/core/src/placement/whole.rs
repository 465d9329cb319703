//! Every tray of a plan placed: its stages asked of the solver, and the answer laid on the decks.

use crate::basis::work::go_on;
use crate::light::fields::Fields;
use crate::placement::asked::Asked;
use crate::placement::hosts::Hosts;
use crate::placement::laid::laid;
use crate::placement::solver::{Effort, Progress, place_with};
use crate::plan::{SoundPlan, Tray};
use crate::season::Reckoned;
use crate::season::stays::clashes;

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
        match next.check() {
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
