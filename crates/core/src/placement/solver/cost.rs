//! The least cost with no more left out: a few trays at a time are taken out and each is put back where
//! it stands best.

use fastrand::Rng;

use crate::placement::solver::filling::{Filling, Score};
use crate::placement::solver::problem::{Placed, Problem};
use crate::placement::solver::settle::{Ways, settle};
use crate::placement::solver::watch::Watch;

/// So much more does a unit of penalty count: who is left out in one place must not pay in another.
const PENALTY: f64 = 30.0;
/// What is worse by this is often kept at first, and by this at the end (our own choice by trial).
const HEAT: [f64; 2] = [30.0, 0.7];
/// The most trays that are taken out for one another.
const MOST_OUT: usize = 6;

fn worse(after: Score, before: Score) -> f64 {
    PENALTY * (after.0 - before.0) as f64 + (after.1 - before.1) as f64
}

/// Lowers the cost within `work`; only the trays that are `free` move.
pub(super) fn lower(
    filling: &mut Filling<'_>,
    free: &[usize],
    random: &mut Rng,
    work: u64,
    watch: &mut Watch<'_>,
) {
    let problem = filling.problem;
    if free.is_empty() || problem.capacity.is_empty() {
        return;
    }
    let mut hand = Hand::of(problem, free);
    let mut best: (Score, Placed) = (filling.score(), filling.placed().clone());
    let mut done = 0;
    while done < work && best.0 != (0, 0) {
        if !watch.goes_on(best.0) {
            break;
        }
        let heat = HEAT[0] * (HEAT[1] / HEAT[0]).powf(done as f64 / work as f64);
        let before = filling.score();
        hand.take_some(filling, random);
        hand.put_back(filling, random);
        done += hand.work;
        let by = worse(filling.score(), before);
        if by > 0.0 && random.f64() >= (-by / heat).exp() {
            hand.undo(filling);
        } else if filling.score() < best.0 {
            best = (filling.score(), filling.placed().clone());
        }
    }
    filling.restore(&best.1);
}

/// The trays that are out.
struct Hand<'p> {
    problem: &'p Problem,
    free: &'p [usize],
    is_free: Vec<bool>,
    /// All penalties of a tray, and all its days.
    weight: Vec<(i64, usize)>,
    out: Vec<usize>,
    were: Vec<Vec<Option<usize>>>,
    ways: Ways,
    /// What the last turn cost.
    work: u64,
}

impl<'p> Hand<'p> {
    fn of(problem: &'p Problem, free: &'p [usize]) -> Self {
        let mut is_free = vec![false; problem.trays.len()];
        free.iter().for_each(|tray| is_free[*tray] = true);
        let weight = problem.trays.iter().map(|stages| {
            let penalty = stages.iter().map(|stage| stage.penalty).sum();
            (penalty, stages.iter().map(|stage| stage.days()).sum())
        });
        Self {
            problem,
            free,
            is_free,
            weight: weight.collect(),
            out: Vec::new(),
            were: Vec::new(),
            ways: Ways::default(),
            work: 0,
        }
    }

    fn take(&mut self, filling: &mut Filling<'_>, tray: usize) {
        if self.is_free[tray] && !self.out.contains(&tray) {
            self.out.push(tray);
            self.were.push(filling.placed()[tray].clone());
            filling.take_tray(tray);
        }
    }

    fn any(&self, random: &mut Rng) -> usize {
        self.free[random.usize(0..self.free.len())]
    }

    /// Takes out trays that have to do with each other.
    fn take_some(&mut self, filling: &mut Filling<'_>, random: &mut Rng) {
        self.out.clear();
        self.were.clear();
        self.work = 60;
        let many = 2 + random.usize(0..MOST_OUT.min(self.free.len()));
        let kind = random.u8(0..10);
        match kind {
            // Those that stand where one could stand; sooner for one that stands nowhere.
            0..5 => {
                let mut tray = self.any(random);
                if kind < 3 {
                    let without = self.free.iter().filter(|tray| {
                        let at = filling.placed()[**tray].iter();
                        at.zip(&self.problem.trays[**tray])
                            .any(|(at, stage)| at.is_none() && !stage.options.is_empty())
                    });
                    let without: Vec<usize> = without.copied().collect();
                    if !without.is_empty() {
                        tray = without[random.usize(0..without.len())];
                    }
                }
                self.take(filling, tray);
                let stages = &self.problem.trays[tray];
                if stages.is_empty() {
                    return;
                }
                let stage = &stages[random.usize(0..stages.len())];
                for _ in 0..1 + random.usize(0..2) {
                    if stage.options.is_empty() {
                        break;
                    }
                    let (place, _) = stage.options[random.usize(0..stage.options.len())];
                    let near = filling.inside(place).iter();
                    let near = near.filter(|at| self.problem.stage(**at).meets(stage));
                    let mut near: Vec<usize> = near.map(|at| at.0).collect();
                    self.work += filling.inside(place).len() as u64;
                    random.shuffle(&mut near);
                    for other in near {
                        if self.out.len() > many {
                            break;
                        }
                        self.take(filling, other);
                    }
                }
            }
            // Those that are there on the same days.
            5..8 => {
                let tray = self.any(random);
                self.take(filling, tray);
                let stages = &self.problem.trays[tray];
                if stages.is_empty() {
                    return;
                }
                let stage = &stages[random.usize(0..stages.len())];
                for _ in 0..4 * many {
                    let other = self.any(random);
                    if self.out.len() > many {
                        break;
                    }
                    if self.problem.trays[other].iter().any(|own| own.meets(stage)) {
                        self.take(filling, other);
                    }
                }
            }
            // All that stand in two places.
            8 => {
                for _ in 0..2 {
                    let place = random.usize(0..self.problem.capacity.len());
                    let mut all: Vec<usize> = filling.inside(place).iter().map(|at| at.0).collect();
                    random.shuffle(&mut all);
                    all.truncate(MOST_OUT);
                    all.into_iter().for_each(|tray| self.take(filling, tray));
                }
            }
            _ => (0..many).for_each(|_| {
                let tray = self.any(random);
                self.take(filling, tray);
            }),
        }
    }

    /// Puts each back where it stands best, in one order or another; now and then a place is shut, or
    /// liked better than it is.
    fn put_back(&mut self, filling: &mut Filling<'_>, random: &mut Rng) {
        let mut order: Vec<usize> = self.out.clone();
        match random.u8(0..4) {
            0 => random.shuffle(&mut order),
            1 => order.sort_by_key(|tray| std::cmp::Reverse(self.weight[*tray].0)),
            2 => order.sort_by_key(|tray| std::cmp::Reverse(self.weight[*tray].1)),
            _ => order.sort_by_key(|tray| self.problem.trays[*tray].first().map(|s| s.from)),
        }
        let places = self.problem.capacity.len();
        let shut = (random.u8(0..10) < 2).then(|| random.usize(0..places));
        let liked = (random.u8(0..10) < 3).then(|| random.usize(0..places));
        for tray in order {
            let stages = self.problem.trays[tray].iter();
            self.work += stages
                .map(|stage| 4 + stage.options.len() as u64)
                .sum::<u64>();
            settle(filling, tray, &mut self.ways, |place| {
                let left_out = shut == Some(place) || random.u8(0..100) == 0;
                (!left_out).then_some(if liked == Some(place) { -2 } else { 0 })
            });
        }
    }

    fn undo(&mut self, filling: &mut Filling<'_>) {
        self.out.iter().for_each(|tray| filling.take_tray(*tray));
        for (tray, were) in self.out.iter().zip(&self.were) {
            filling.put_tray(*tray, were);
        }
    }
}
