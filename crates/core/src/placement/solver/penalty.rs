//! The least that can be left without a place, whatever the rest costs: stages count one by one here,
//! since moves are free.

use fastrand::Rng;

use crate::placement::solver::filling::Filling;
use crate::placement::solver::flow::{Interval, worth_most};
use crate::placement::solver::prices::{self, Prices};
use crate::placement::solver::problem::{Placed, Problem, StageAt};
use crate::placement::solver::watch::Watch;

/// Worth more than all that could be put in its stead: what is pinned.
const PINNED: i64 = 1 << 40;
/// Between whole penalties there is room for a little chance.
const FINE: i64 = 16;

/// The stages that compete with each other.
pub(super) struct Rivals {
    /// Stages that may stand in one place only, where nothing stands that could stand elsewhere: by
    /// place. The flow finds their best at once.
    alone: Vec<(usize, Vec<StageAt>)>,
    /// The others.
    pub(super) open: Vec<StageAt>,
}

impl Rivals {
    pub(super) fn of(problem: &Problem) -> Self {
        let mut shared = vec![false; problem.capacity.len()];
        let mut single: Vec<Vec<StageAt>> = vec![Vec::new(); problem.capacity.len()];
        for (_, stage) in problem.stages() {
            if let [_, _, ..] = &stage.options[..] {
                stage
                    .options
                    .iter()
                    .for_each(|(place, _)| shared[*place] = true);
            }
        }
        let mut open = Vec::new();
        for (at, stage) in problem.stages().filter(|(_, stage)| !stage.pinned) {
            match &stage.options[..] {
                [] => {}
                [(place, _)] if !shared[*place] => single[*place].push(at),
                _ => open.push(at),
            }
        }
        let alone = single.into_iter().enumerate();
        Self {
            alone: alone.filter(|(_, stages)| !stages.is_empty()).collect(),
            open,
        }
    }
}

/// So many rounds of prices are `work`: each looks at every option, and at every place on every day.
pub(super) fn rounds(problem: &Problem, work: u64) -> u32 {
    let look = problem.size() + (problem.capacity.len() * problem.days) as u64;
    (work / look.max(1)).clamp(50, 1000) as u32
}

/// What was found: how much must at least be left out, and the prices that prove it.
pub(super) struct Proof {
    pub(super) bound: i64,
    pub(super) prices: Prices,
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
    let prices = prices::of_penalty(problem, rounds(problem, work));
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

/// Takes out what stands where a stage without a place could stand, and puts it back in another order:
/// what is worse is kept for a while, at first more of it (simulated annealing).
fn ruin(
    filling: &mut Filling<'_>,
    proof: &Proof,
    random: &mut Rng,
    work: u64,
    watch: &mut Watch<'_>,
) {
    let problem = filling.problem;
    let rivals = Rivals::of(problem).open;
    let shelf: Shelf<'_> = Shelf::of(problem, &rivals, &proof.prices);
    let mean = rivals.iter().map(|at| problem.stage(*at).penalty as f64);
    let mean = mean.sum::<f64>() / rivals.len().max(1) as f64;
    let mut without: Vec<StageAt> = filling.without();
    without.retain(|at| shelf.may(*at).is_some_and(|may| !may.is_empty()));
    let mut best: (i64, Placed) = (filling.score().0, filling.placed().clone());
    let mut done = 0;
    while done < work && !without.is_empty() && best.0 > proof.bound {
        let heat = 0.05 * mean * 0.02f64.powf(done as f64 / work as f64);
        if !watch.goes_on((best.0, filling.score().1)) {
            break;
        }
        let at = without[random.usize(0..without.len())];
        let before = filling.score().0;
        let (out, looked) = shelf.clear_for(filling, at, random);
        let (put, looked_more) = shelf.put_back(filling, at, &out, &without, random);
        done += 40 + looked + looked_more;
        let worse = (filling.score().0 - before) as f64;
        if worse > 0.0 && random.f64() >= (-worse / heat).exp() {
            put.iter().for_each(|at| filling.take(*at));
            out.iter().for_each(|(at, place)| filling.put(*at, *place));
            continue;
        }
        without.retain(|at| filling.place_of(*at).is_none());
        for (at, _) in &out {
            if filling.place_of(*at).is_none() && !without.contains(at) {
                without.push(*at);
            }
        }
        if filling.score().0 < best.0 {
            best = (filling.score().0, filling.placed().clone());
        }
    }
    filling.restore(&best.1);
}

/// Places to try, and what a stage pays in each.
type Tries = Vec<(usize, f64)>;

/// The stages that compete, with the places worth a try and what they pay there.
struct Shelf<'p> {
    problem: &'p Problem,
    may: Vec<Vec<Option<Tries>>>,
}

impl<'p> Shelf<'p> {
    fn of(problem: &'p Problem, rivals: &[StageAt], prices: &Prices) -> Self {
        let none =
            |stages: &Vec<crate::placement::solver::problem::Stage>| vec![None; stages.len()];
        let mut may: Vec<Vec<Option<Tries>>> = problem.trays.iter().map(none).collect();
        for at in rivals {
            let stage = problem.stage(*at);
            let pays = stage
                .options
                .iter()
                .map(|(place, _)| (*place, prices.of(*place, stage)));
            let pays: Tries = pays.collect();
            may[at.0][at.1] = Some(pays);
        }
        Self { problem, may }
    }

    fn may(&self, at: StageAt) -> Option<&[(usize, f64)]> {
        self.may[at.0][at.1].as_deref()
    }

    /// Takes out some of what stands in a few of the places of the stage at `at` around its days.
    fn clear_for(
        &self,
        filling: &mut Filling<'_>,
        at: StageAt,
        random: &mut Rng,
    ) -> (Vec<(StageAt, usize)>, u64) {
        const MOST_OUT: usize = 14;
        let may = self.may(at).unwrap_or_default();
        let stage = self.problem.stage(at);
        let from = stage.from.saturating_sub(random.usize(0..8));
        let to = stage.to + random.usize(0..8);
        let mut out: Vec<(StageAt, usize)> = Vec::new();
        let mut looked = 0;
        for _ in 0..1 + random.usize(0..may.len().clamp(1, 3)) {
            let (place, _) = may[random.usize(0..may.len())];
            let all = random.u8(0..4) == 0;
            looked += filling.inside(place).len() as u64;
            let near = filling.inside(place).iter().filter(|other| {
                let other = self.problem.stage(**other);
                other.from < to && from < other.to && !other.pinned
            });
            let mut near: Vec<StageAt> = near.copied().collect();
            near.retain(|_| all || random.u8(0..4) > 0);
            random.shuffle(&mut near);
            near.truncate(MOST_OUT);
            for at in near {
                filling.take(at);
                out.push((at, place));
            }
        }
        (out, looked)
    }

    /// Puts the stage at `at`, what was taken out, and a few more of those `without` a place into the
    /// cheapest places that have room, the dearest to leave out first.
    fn put_back(
        &self,
        filling: &mut Filling<'_>,
        at: StageAt,
        out: &[(StageAt, usize)],
        without: &[StageAt],
        random: &mut Rng,
    ) -> (Vec<StageAt>, u64) {
        let by = random.u8(0..3);
        let stage = self.problem.stage(at);
        let mut queue: Vec<(f64, StageAt)> = Vec::new();
        let mut add = |at: StageAt, random: &mut Rng| {
            let stage = self.problem.stage(at);
            let penalty = stage.penalty as f64;
            let pays = self
                .may(at)
                .unwrap_or_default()
                .iter()
                .map(|(_, pays)| *pays);
            let dear = match by {
                0 => penalty,
                1 => penalty / stage.days() as f64,
                _ => penalty - pays.fold(f64::MAX, f64::min),
            };
            if !queue.iter().any(|(_, other)| *other == at) {
                queue.push((dear * (0.8 + 0.4 * random.f64()), at));
            }
        };
        add(at, random);
        out.iter().for_each(|(at, _)| add(*at, random));
        for _ in 0..4 {
            let other = without[random.usize(0..without.len())];
            if self.problem.stage(other).meets(stage) {
                add(other, random);
            }
        }
        queue.sort_by(|a, b| b.0.total_cmp(&a.0));
        let (mut put, mut looked) = (Vec::new(), 0);
        for (_, at) in queue {
            let stage = self.problem.stage(at);
            let may = self.may(at).unwrap_or_default();
            looked += may.len() as u64;
            let fits = may.iter().filter(|(place, _)| filling.fits(*place, stage));
            let tried =
                fits.map(|(place, pays)| ((1.0 + pays) * (0.7 + 0.6 * random.f64()), *place));
            if let Some((_, place)) = tried.min_by(|a, b| a.0.total_cmp(&b.0)) {
                filling.put(at, place);
                put.push(at);
            }
        }
        (put, looked)
    }
}
