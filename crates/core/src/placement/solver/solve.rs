//! Placing, from the question to the answer.

use std::collections::BTreeMap;

use fastrand::Rng;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::fault::Fault;
use crate::placement::solver::filling::{Filling, Score};
use crate::placement::solver::instance::Instance;
use crate::placement::solver::problem::{Placed, Problem};
use crate::placement::solver::settle::{Ways, settle};
use crate::placement::solver::watch::{Progress, Watch};
use crate::placement::solver::{cost, penalty, prices};

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

/// Looks at an option of a stage, more or less, for each part of the work: a few seconds in all.
const WORK: u64 = 30_000_000;
/// The same where trays stay where they were: a tenth of a second or two.
const LITTLE_WORK: u64 = 2_400_000;

/// How long placing may take: the same effort finds the same answer.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Effort {
    /// A few tenths of a second.
    Little,
    /// A few seconds.
    Full,
}

impl Effort {
    fn work(self) -> u64 {
        match self {
            Self::Little => LITTLE_WORK,
            Self::Full => WORK,
        }
    }
}

/// Places the trays with full effort; see [`place_with`].
///
/// # Errors
/// Every fault of the instance, with its path.
pub fn place(
    instance: &Instance,
    tell: &mut dyn FnMut(Progress) -> bool,
) -> Result<Answer, Vec<Fault>> {
    place_with(instance, Effort::Full, tell)
}

/// Places the trays: with as little unplaced as it finds, and at the least cost that it finds with that.
/// The same question has the same answer. `tell` hears how far it is, and stops it by `false`: then the
/// best so far is the answer.
///
/// # Errors
/// Every fault of the instance, with its path.
pub fn place_with(
    instance: &Instance,
    effort: Effort,
    tell: &mut dyn FnMut(Progress) -> bool,
) -> Result<Answer, Vec<Fault>> {
    instance.check()?;
    let problem = Problem::of(instance);
    let mut watch = Watch::new(tell);
    let mut filling = Filling::of(&problem);
    let mut random = Rng::with_seed(1);
    let bounds = match instance.keep {
        true => keep(&mut filling, &mut random, &mut watch),
        false => afresh(&mut filling, &mut random, effort.work(), &mut watch),
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
        stopped: watch.is_stopped(),
    })
}

/// From nothing: first the least penalty, then the least cost with it.
fn afresh(filling: &mut Filling<'_>, random: &mut Rng, work: u64, watch: &mut Watch<'_>) -> Score {
    let problem = filling.problem;
    let all: Vec<usize> = (0..problem.trays.len()).collect();
    settle_all(filling, &all);
    let proof = penalty::least(filling, random, work * 4 / 3, watch);
    cost::lower(filling, &all, random, 2 * work, watch);
    let rounds = penalty::rounds(problem, work);
    let cost_bound = prices::cost_bound(problem, &proof.prices, filling.score(), rounds, watch);
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
