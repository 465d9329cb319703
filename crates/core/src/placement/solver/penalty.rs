//! The least that can be left without a place, whatever the rest costs: stages count one by one here,
//! since moves are free.

use fastrand::Rng;

use crate::placement::solver::filling::Filling;
use crate::placement::solver::flow::{Interval, worth_most};
use crate::placement::solver::prices;
use crate::placement::solver::problem::{Problem, StageAt};
use crate::placement::solver::rivals::{Proof, Rivals};
use crate::placement::solver::ruin::ruin;
use crate::placement::solver::watch::Watch;

/// Worth more than all that could be put in its stead: what is pinned.
const PINNED: i64 = 1 << 40;
/// Between whole penalties there is room for a little chance.
const FINE: i64 = 16;

/// So many rounds of prices are `work`: each looks at every option, and at every place on every day.
pub(super) fn rounds(problem: &Problem, work: u64) -> u32 {
    let look = problem.size() + (problem.capacity.len() * problem.days) as u64;
    (work / look.max(1)).clamp(50, 1000) as u32
}

/// The greatest number that divides all penalties: no sum of them lies between its multiples.
fn grain(problem: &Problem) -> i64 {
    let gcd = |mut a: i64, mut b: i64| {
        while b != 0 {
            (a, b) = (b, a % b);
        }
        a
    };
    problem
        .stages()
        .map(|(_, stage)| stage.penalty)
        .fold(0, gcd)
        .max(1)
}

/// Fills the places with as little left out as is found within `work`, and proves how little it can be.
pub(super) fn least(
    filling: &mut Filling<'_>,
    random: &mut Rng,
    work: u64,
    watch: &mut Watch<'_>,
) -> Proof {
    let problem = filling.problem;
    let rivals = Rivals::of(problem);
    for (place, stages) in &rivals.alone {
        refill(filling, *place, stages, |_, penalty| penalty);
    }
    let prices = prices::of_penalty(problem, rounds(problem, work), filling.score(), watch);
    let grain = grain(problem);
    let bound = ((prices.bound - 1e-6) / grain as f64).ceil() as i64 * grain;
    let proof = Proof {
        bound: bound.max(0),
        prices,
    };
    watch.bound(proof.bound);
    if filling.score().0 > proof.bound {
        // A sweep fills every place anew, which takes some millions of looks.
        let sweeps = (work / 2_000_000).clamp(2, 20) as usize;
        sweep(filling, &rivals, &proof, sweeps, random, watch);
    }
    if filling.score().0 > proof.bound {
        ruin(filling, &proof, random, work, watch);
    }
    proof
}

/// Puts into `place` those of `stages`, none of which stands elsewhere, that are worth most together.
/// Returns those that have to leave.
fn refill(
    filling: &mut Filling<'_>,
    place: usize,
    stages: &[StageAt],
    mut worth: impl FnMut(StageAt, i64) -> i64,
) -> Vec<StageAt> {
    let problem = filling.problem;
    let own: Vec<StageAt> = filling.inside(place).to_vec();
    let others = own.iter().filter(|at| !stages.contains(at));
    let all: Vec<StageAt> = stages.iter().chain(others).copied().collect();
    let interval = |at: &StageAt| {
        let stage = problem.stage(*at);
        let worth = match stages.contains(at) {
            true => worth(*at, stage.penalty),
            false => PINNED,
        };
        Interval {
            from: stage.from,
            to: stage.to,
            worth,
        }
    };
    let intervals: Vec<Interval> = all.iter().map(interval).collect();
    let keep = worth_most(&intervals, problem.capacity[place] as usize);
    own.iter().for_each(|at| filling.take(*at));
    for (at, _) in all.iter().zip(&keep).filter(|(_, keep)| **keep) {
        if filling.place_of(*at).is_none() {
            filling.put(*at, place);
        }
    }
    own.into_iter()
        .filter(|at| filling.place_of(*at).is_none())
        .collect()
}

/// Fills place after place exactly, with what is worth most there: at one time by the prices elsewhere,
/// at another by whether there is room elsewhere now.
fn sweep(
    filling: &mut Filling<'_>,
    rivals: &Rivals,
    proof: &Proof,
    sweeps: usize,
    random: &mut Rng,
    watch: &mut Watch<'_>,
) {
    let problem = filling.problem;
    let mut may: Vec<Vec<StageAt>> = vec![Vec::new(); problem.capacity.len()];
    for at in &rivals.open {
        let options = problem.stage(*at).options.iter();
        options.for_each(|(place, _)| may[*place].push(*at));
    }
    let mut order: Vec<usize> = (0..may.len()).filter(|&p| !may[p].is_empty()).collect();
    let mut best = (filling.score().0, filling.placed().clone());
    for sweep in 0..sweeps {
        let by_price = sweep % 2 == 0;
        random.shuffle(&mut order);
        for &place in &order {
            if !watch.goes_on(filling.score()) {
                break;
            }
            let here = |at: &&StageAt| filling.place_of(**at).is_none_or(|p| p == place);
            let stages: Vec<StageAt> = may[place].iter().filter(here).copied().collect();
            let waits = stages.iter().any(|at| filling.place_of(*at).is_none());
            if !waits || by_price && random.u8(0..3) == 0 {
                continue;
            }
            let before = filling.score().0;
            let was: Vec<StageAt> = filling.inside(place).to_vec();
            let worth: Vec<i64> = stages
                .iter()
                .map(|at| {
                    let stage = problem.stage(*at);
                    let others = stage.options.iter().filter(|(p, _)| *p != place);
                    if by_price {
                        let pays = others.map(|(p, _)| proof.prices.of(*p, stage));
                        let least = pays.fold(stage.penalty as f64, f64::min);
                        return (least * (0.97 + 0.06 * random.f64()) * FINE as f64) as i64 + 1;
                    }
                    let stands = filling.place_of(*at).is_some();
                    let mut others = others;
                    match stands && others.any(|(p, _)| filling.fits(*p, stage)) {
                        true => random.i64(1..3),
                        false => stage.penalty * FINE + random.i64(0..FINE),
                    }
                })
                .collect();
            let mut worth = worth.into_iter();
            let mut out = refill(filling, place, &stages, |_, _| worth.next().unwrap_or(1));
            out.sort_by_key(|at| std::cmp::Reverse(problem.stage(*at).penalty));
            for at in &out {
                put_anywhere(filling, *at, random);
            }
            if !by_price && filling.score().0 > before {
                out.iter().for_each(|at| filling.take(*at));
                for at in filling.inside(place).to_vec() {
                    filling.take(at);
                }
                for at in was.iter().filter(|at| !problem.stage(**at).pinned) {
                    filling.put(*at, place);
                }
            }
        }
        if filling.score().0 < best.0 {
            best = (filling.score().0, filling.placed().clone());
        }
        if best.0 <= proof.bound || !watch.goes_on(filling.score()) {
            break;
        }
    }
    filling.restore(&best.1);
}

fn put_anywhere(filling: &mut Filling<'_>, at: StageAt, random: &mut Rng) {
    let options = &filling.problem.stage(at).options;
    let first = random.usize(0..options.len().max(1));
    let turn = (0..options.len()).map(|k| options[(first + k) % options.len()].0);
    let stage = filling.problem.stage(at);
    if let Some(place) = turn.into_iter().find(|&place| filling.fits(place, stage)) {
        filling.put(at, place);
    }
}
