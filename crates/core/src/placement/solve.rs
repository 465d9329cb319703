//! Placing, from the question to the answer.

use std::collections::BTreeMap;

use fastrand::Rng;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::fault::Fault;
use crate::basis::work::go_on;
use crate::placement::filling::{Filling, Score};
use crate::placement::instance::Instance;
use crate::placement::problem::{Placed, Problem};
use crate::placement::settle::{Ways, settle};
use crate::placement::{cost, penalty, prices};

/// Where every tray stands.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Answer {
    /// For each tray the place of each of its stages; `None` where it has none.
    pub assignment: BTreeMap<String, Vec<Option<String>>>,
    /// Weight times days of all that has no place.
    pub unplaced: i64,
    /// It can be no less.
    pub unplaced_bound: i64,
    /// Misfit, moves, places that are lit, and changes against where trays were.
    pub cost: i64,
    /// With no more unplaced it can be no less.
    pub cost_bound: i64,
    /// Whether it was stopped before its work was done.
    pub stopped: bool,
}

/// How far it is.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Progress {
    /// The share of the work that is done.
    pub done: f64,
    /// The least unplaced so far.
    pub unplaced: i64,
    /// It can be no less; 0 while nothing is proven.
    pub unplaced_bound: i64,
    /// Its cost.
    pub cost: i64,
}

/// Who looks on, and may stop it.
pub(super) struct Watch<'w> {
    tell: &'w mut dyn FnMut(Progress) -> bool,
    turns: u64,
    stopped: bool,
    bound: i64,
}

impl Watch<'_> {
    pub(super) fn bound(&mut self, bound: i64) {
        self.bound = bound;
    }

    /// Whether to go on; now and then the best so far is told.
    pub(super) fn goes_on(&mut self, best: Score) -> bool {
        const EVERY: u64 = 256;
        self.turns += 1;
        if self.turns % EVERY == 1 && !self.stopped {
            go_on();
            // How far is told by turns: a few tens of thousands in all.
            let turns = self.turns as f64;
            let progress = Progress {
                done: 1.0 - 1.0 / (1.0 + turns / 40_000.0),
                unplaced: best.0,
                unplaced_bound: self.bound,
                cost: best.1,
            };
            self.stopped = !(self.tell)(progress);
        }
        !self.stopped
    }
}

/// Looks at an option of a stage, more or less, for each part of the work: a few seconds in all.
const WORK: u64 = 30_000_000;
/// The same where trays stay where they were: a tenth of a second or two.
const LITTLE_WORK: u64 = 3_000_000;

/// Places the trays: with as little unplaced as it finds, and at the least cost that it finds with that.
/// The same question has the same answer. `tell` hears how far it is, and stops it by `false`: then the
/// best so far is the answer.
///
/// # Errors
/// Every fault of the instance, with its path.
pub fn place(
    instance: &Instance,
    tell: &mut dyn FnMut(Progress) -> bool,
) -> Result<Answer, Vec<Fault>> {
    instance.check()?;
    let problem = Problem::of(instance);
    let mut watch = Watch {
        tell,
        turns: 0,
        stopped: false,
        bound: 0,
    };
    let mut filling = Filling::of(&problem);
    let mut random = Rng::with_seed(1);
    let bounds = match instance.keep {
        true => keep(&mut filling, &mut random, &mut watch),
        false => afresh(&mut filling, &mut random, &mut watch),
    };
    let ids: Vec<&String> = instance.places.iter().map(|place| &place.id).collect();
    let places = |tray: usize| {
        let own = filling.placed()[tray].iter();
        own.map(|place| place.map(|place| ids[place].clone()))
            .collect()
    };
    let trays = instance.trays.iter().enumerate();
    let (unplaced, cost) = filling.score();
    Ok(Answer {
        assignment: trays
            .map(|(i, tray)| (tray.id.clone(), places(i)))
            .collect(),
        unplaced,
        unplaced_bound: bounds.0.min(unplaced),
        cost,
        cost_bound: bounds.1.min(cost),
        stopped: watch.stopped,
    })
}

/// From nothing: first the least penalty, then the least cost with it.
fn afresh(filling: &mut Filling<'_>, random: &mut Rng, watch: &mut Watch<'_>) -> Score {
    let problem = filling.problem;
    let all: Vec<usize> = (0..problem.trays.len()).collect();
    settle_all(filling, &all);
    let proof = penalty::least(filling, random, WORK * 4 / 3, watch);
    cost::lower(filling, &all, random, 2 * WORK, watch);
    let rounds = penalty::rounds(problem, WORK);
    let cost_bound = prices::cost_bound(problem, &proof.prices, filling.score().0, rounds);
    (proof.bound, cost_bound)
}

/// From where the trays were: what cannot stay looks for another place, and only if it finds none do
/// others make room.
fn keep(filling: &mut Filling<'_>, random: &mut Rng, watch: &mut Watch<'_>) -> Score {
    let problem = filling.problem;
    for (at, stage) in problem.stages() {
        let was = stage
            .was
            .filter(|was| stage.options.iter().any(|(place, _)| place == was));
        if let Some(was) = was.filter(|was| !stage.pinned && filling.fits(*was, stage)) {
            filling.put(at, was);
        }
    }
    let kept: Placed = filling.placed().clone();
    let moved = |filling: &Filling<'_>| -> Vec<usize> {
        let trays = kept.iter().zip(filling.placed()).enumerate();
        let moved = trays.filter(|(_, (was, is))| was != is);
        moved.map(|(tray, _)| tray).collect()
    };
    let must = filling.without().into_iter().map(|at| at.0);
    let mut must: Vec<usize> = must.collect();
    must.dedup();
    must.iter().for_each(|tray| filling.take_tray(*tray));
    settle_all(filling, &must);
    cost::lower(filling, &must, random, LITTLE_WORK, watch);
    if filling.score().0 == 0 {
        return (0, 0);
    }
    let proof = penalty::least(filling, random, LITTLE_WORK, watch);
    let free = moved(filling);
    cost::lower(filling, &free, random, LITTLE_WORK, watch);
    (proof.bound, 0)
}

/// Puts each of `trays` where it stands best, the dearest to leave out first.
fn settle_all(filling: &mut Filling<'_>, trays: &[usize]) {
    let problem = filling.problem;
    let weight = |tray: &usize| -> i64 {
        let stages = problem.trays[*tray].iter();
        stages.map(|stage| stage.penalty).sum()
    };
    let mut order = trays.to_vec();
    order.sort_by_key(|tray| std::cmp::Reverse(weight(tray)));
    let mut ways = Ways::default();
    for tray in order {
        settle(filling, tray, &mut ways, |_| Some(0));
    }
}
