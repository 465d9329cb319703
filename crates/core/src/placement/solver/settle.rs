//! The best places for one tray, as everything else stands.

use crate::placement::solver::filling::Filling;
use crate::placement::solver::problem::{MOVE, Stage};

/// The way to stand somewhere in a stage: the penalty and cost so far, and how it stood before.
#[derive(Debug, Clone, Copy)]
struct Way {
    penalty: i64,
    cost: i64,
    before: usize,
}

impl Way {
    const NONE: Self = Self {
        penalty: i64::MAX,
        cost: i64::MAX,
        before: 0,
    };

    fn is_better(&self, other: &Self) -> bool {
        (self.penalty, self.cost) < (other.penalty, other.cost)
    }
}

/// The work room of [`settle`], kept from one tray to the next.
#[derive(Debug, Default)]
pub(super) struct Ways(Vec<Vec<Way>>);

/// Puts `tray`, which was taken out, where it stands best. `bias` may forbid a place, or make each day
/// there cost more or less.
pub(super) fn settle(
    filling: &mut Filling<'_>,
    tray: usize,
    ways: &mut Ways,
    mut bias: impl FnMut(usize) -> Option<i64>,
) {
    let problem = filling.problem;
    let stages = &problem.trays[tray];
    if ways.0.len() < stages.len() {
        ways.0.resize_with(stages.len(), Vec::new);
    }
    for (i, stage) in stages.iter().enumerate() {
        let (before, own) = ways.0.split_at_mut(i);
        let before = before.last().map(|last| (last, &stages[i - 1]));
        let own = &mut own[0];
        own.clear();
        let cheapest = before.map(|(last, _)| {
            let all = 0..last.len();
            all.min_by_key(|&k| (last[k].penalty, last[k].cost))
                .unwrap_or(0)
        });
        // To be left out is the last resort, and always possible unless it is pinned.
        own.push(if stage.pinned {
            Way::NONE
        } else {
            let k = cheapest.unwrap_or(0);
            let way = before.map_or((0, 0), |(last, _)| (last[k].penalty, last[k].cost));
            Way {
                penalty: way.0 + stage.penalty,
                cost: way.1,
                before: k,
            }
        });
        for (&(place, misfit), stay) in stage.options.iter().zip(&stage.stays) {
            let there = match stage.pinned {
                true => Some(0),
                false if filling.fits(place, stage) => bias(place).map(|bias| {
                    bias * stage.days() as i64 + filling.cost_there(place, misfit, stage)
                }),
                false => None,
            };
            own.push(match there {
                None => Way::NONE,
                Some(there) => {
                    let from = cheapest_to(place, before, cheapest, *stay);
                    Way {
                        cost: from.cost + there,
                        ..from
                    }
                }
            });
        }
    }
    let Some(last) = stages.len().checked_sub(1) else {
        return;
    };
    let ends = &ways.0[last];
    let end = (0..ends.len()).min_by_key(|&k| (ends[k].penalty, ends[k].cost));
    let mut at = end.unwrap_or(0);
    for i in (0..=last).rev() {
        if let Some(place) = place_at(&stages[i], at).filter(|_| !stages[i].pinned) {
            filling.put((tray, i), place);
        }
        at = ways.0[i][at].before;
    }
}

/// Nothing, or one of the options.
fn place_at(stage: &Stage, way: usize) -> Option<usize> {
    way.checked_sub(1).map(|k| stage.options[k].0)
}

/// The cheapest way to `place`: by a move from where it stood cheapest, from no place, or by staying.
fn cheapest_to(
    place: usize,
    before: Option<(&Vec<Way>, &Stage)>,
    cheapest: Option<usize>,
    stay: Option<usize>,
) -> Way {
    let (Some((last, stage)), Some(k)) = (before, cheapest) else {
        return Way {
            penalty: 0,
            cost: 0,
            before: 0,
        };
    };
    let by = |k: usize, moves: i64| Way {
        cost: last[k].cost.saturating_add(moves),
        penalty: last[k].penalty,
        before: k,
    };
    let moved = place_at(stage, k).is_some_and(|was| was != place);
    let others = [Some(by(0, 0)), stay.map(|k| by(k + 1, 0))];
    let others = others.into_iter().flatten();
    others.fold(by(k, if moved { MOVE } else { 0 }), |best, way| {
        if way.is_better(&best) { way } else { best }
    })
}
