//! Prices of a place on a day, and the bounds that they prove.
//!
//! Whatever each place asks for each of its days: the least that every stage or tray can then pay, less
//! what full places take in, is never more than any answer costs (Lagrangian relaxation of the
//! capacities; Fisher, Management Science 27, 1981, from memory). The prices are raised where too much
//! wants to stand, and lowered where there is room, in smaller and smaller steps (the step rule of Kingma
//! & Ba, Adam, 2015, from memory).

use crate::basis::work::go_on;
use crate::placement::solver::filling::Score;
use crate::placement::solver::problem::{MOVE, Problem, Stage};
use crate::placement::solver::watch::Watch;

/// Prices, and what they prove.
#[derive(Debug, Clone)]
pub(super) struct Prices {
    days: usize,
    /// By place and day.
    price: Vec<f64>,
    /// No answer costs less.
    pub(super) bound: f64,
}

impl Prices {
    /// What `stage` pays in `place`.
    pub(super) fn of(&self, place: usize, stage: &Stage) -> f64 {
        let row = place * self.days;
        self.price[row + stage.from..row + stage.to].iter().sum()
    }
}

/// Prices as they move towards the best.
struct Steps<'p> {
    problem: &'p Problem,
    /// Trays that each place has room for on each day, besides those that are pinned.
    room: Vec<f64>,
    price: Vec<f64>,
    /// The prices up to each day.
    sums: Vec<f64>,
    /// What comes on each day, less what goes.
    comes: Vec<f64>,
    mean: Vec<f64>,
    square: Vec<f64>,
    round: i32,
}

impl<'p> Steps<'p> {
    fn new(problem: &'p Problem, price: Vec<f64>) -> Self {
        let (places, days) = (problem.capacity.len(), problem.days);
        let mut room: Vec<f64> = Vec::with_capacity(places * days);
        for capacity in &problem.capacity {
            room.resize(room.len() + days, f64::from(*capacity));
        }
        for (_, stage) in problem.stages().filter(|(_, stage)| stage.pinned) {
            let row = stage.options[0].0 * days;
            room[row + stage.from..row + stage.to]
                .iter_mut()
                .for_each(|room| *room -= 1.0);
        }
        Self {
            problem,
            room,
            price,
            sums: vec![0.0; places * (days + 1)],
            comes: vec![0.0; places * (days + 1)],
            mean: vec![0.0; places * days],
            square: vec![0.0; places * days],
            round: 0,
        }
    }

    fn begin(&mut self) {
        go_on();
        let days = self.problem.days;
        for place in 0..self.problem.capacity.len() {
            let mut sum = 0.0;
            for day in 0..days {
                sum += self.price[place * days + day];
                self.sums[place * (days + 1) + day + 1] = sum;
            }
        }
        self.comes.fill(0.0);
    }

    fn pays(&self, place: usize, stage: &Stage) -> f64 {
        let row = place * (self.problem.days + 1);
        self.sums[row + stage.to] - self.sums[row + stage.from]
    }

    fn stands(&mut self, place: usize, stage: &Stage, share: f64) {
        let row = place * (self.problem.days + 1);
        self.comes[row + stage.from] += share;
        self.comes[row + stage.to] -= share;
    }

    /// Moves each price by a `step`, and returns what full places would take in at the prices before.
    fn end(&mut self, step: f64) -> f64 {
        const KEEPS: [f64; 2] = [0.9, 0.99];
        let days = self.problem.days;
        let mut takes = 0.0;
        self.round += 1;
        let settled = 1.0 - KEEPS[1].powi(self.round);
        for place in 0..self.problem.capacity.len() {
            let mut there = 0.0;
            for day in 0..days {
                there += self.comes[place * (days + 1) + day];
                let i = place * days + day;
                takes += self.room[i] * self.price[i];
                let mut over = there - self.room[i];
                if self.price[i] <= 0.0 {
                    over = over.max(0.0);
                }
                self.mean[i] = KEEPS[0] * self.mean[i] + (1.0 - KEEPS[0]) * over;
                self.square[i] = KEEPS[1] * self.square[i] + (1.0 - KEEPS[1]) * over * over;
                let by = step * self.mean[i] / ((self.square[i] / settled).sqrt() + 1e-3);
                self.price[i] = (self.price[i] + by).max(0.0);
            }
        }
        takes
    }
}

/// Prices for the penalty alone, each stage wherever it likes, after so many `rounds`.
pub(super) fn of_penalty(
    problem: &Problem,
    rounds: u32,
    best_so_far: Score,
    watch: &mut Watch<'_>,
) -> Prices {
    let stages = problem.stages().map(|(_, stage)| stage);
    let stages: Vec<&Stage> = stages.filter(|stage| !stage.pinned).collect();
    let cells = problem.capacity.len() * problem.days;
    let n = stages.len().max(1) as f64;
    let penalty = |stage: &&Stage| stage.penalty as f64;
    let a_stage = stages.iter().map(penalty).sum::<f64>() / n;
    let a_day = stages
        .iter()
        .map(|s| penalty(s) / s.days() as f64)
        .sum::<f64>()
        / n;
    let mut steps = Steps::new(problem, vec![0.0; cells]);
    let mut best = Prices {
        days: problem.days,
        price: vec![0.0; cells],
        bound: 0.0,
    };
    let mut shares: Vec<f64> = Vec::new();
    for round in 0..rounds {
        if !watch.goes_on_now(best_so_far) {
            break;
        }
        let left = 1.0 - f64::from(round) / f64::from(rounds);
        // At first each stage stands a little everywhere that is cheap, at last where it is cheapest.
        let blur = 0.1 * a_stage * 0.002f64.powf(1.0 - left);
        steps.begin();
        let before = steps.price.clone();
        let mut value = 0.0;
        for stage in &stages {
            let pays = stage
                .options
                .iter()
                .map(|(place, _)| steps.pays(*place, stage));
            shares.clear();
            shares.extend(pays);
            let least = shares.iter().copied().fold(stage.penalty as f64, f64::min);
            value += least;
            let share = |pays: f64| {
                let far = (pays - least) / blur;
                if far > 20.0 { 0.0 } else { (-far).exp() }
            };
            shares.iter_mut().for_each(|pays| *pays = share(*pays));
            let all = shares.iter().sum::<f64>() + share(stage.penalty as f64);
            for ((place, _), share) in stage.options.iter().zip(&shares) {
                if *share > 0.0 {
                    steps.stands(*place, stage, share / all);
                }
            }
        }
        value -= steps.end(a_day * 0.003f64.powf(1.0 - left));
        if value > best.bound {
            best.bound = value;
            best.price = before;
        }
    }
    best
}

/// No answer with no more unplaced than was `found` costs less than this, after so many `rounds`
/// from `prices` on.
///
/// Light is counted too low: where a place is not full, its trays share what it burns.
pub(super) fn cost_bound(
    problem: &Problem,
    prices: &Prices,
    found: Score,
    rounds: u32,
    watch: &mut Watch<'_>,
) -> i64 {
    let mut steps = Steps::new(problem, prices.price.clone());
    let mut paths = Paths::of(problem);
    /// Prices are settled within so much of a cost by now.
    const STEP: f64 = 1.0;
    let mut best = f64::MIN;
    for round in 0..rounds {
        if !watch.goes_on_now(found) {
            break;
        }
        let left = 1.0 - f64::from(round) / f64::from(rounds);
        steps.begin();
        let mut value = paths.lit_by_pins;
        for tray in 0..problem.trays.len() {
            value += paths.cheapest(&mut steps, tray);
        }
        value -= steps.end(STEP * 0.01f64.powf(1.0 - left));
        best = best.max(value);
    }
    ((best - 1e-6).ceil() as i64).saturating_sub(found.0).max(0)
}

/// The cheapest way of each tray through its stages.
struct Paths<'p> {
    problem: &'p Problem,
    /// Place-days that are lit by what is pinned.
    lit_by_pins: f64,
    /// By place, the days up to each on which nothing pinned burns light.
    dark: Vec<f64>,
    ways: Vec<Vec<(f64, usize)>>,
}

impl<'p> Paths<'p> {
    fn of(problem: &'p Problem) -> Self {
        let (places, days) = (problem.capacity.len(), problem.days);
        let mut lit = vec![false; places * days];
        for (_, stage) in problem.stages().filter(|(_, s)| s.pinned && s.light) {
            let row = stage.options[0].0 * days;
            lit[row + stage.from..row + stage.to].fill(true);
        }
        let mut dark = vec![0.0; places * (days + 1)];
        for place in 0..places {
            for day in 0..days {
                let one = if lit[place * days + day] { 0.0 } else { 1.0 };
                let row = place * (days + 1) + day;
                dark[row + 1] = dark[row] + one;
            }
        }
        Self {
            problem,
            lit_by_pins: lit.iter().filter(|lit| **lit).count() as f64,
            dark,
            ways: Vec::new(),
        }
    }

    /// What `tray` pays at least, by penalty, cost and prices; and where it stands for that.
    fn cheapest(&mut self, steps: &mut Steps<'_>, tray: usize) -> f64 {
        let (problem, days) = (self.problem, self.problem.days);
        let stages = &problem.trays[tray];
        if self.ways.len() < stages.len() {
            self.ways.resize_with(stages.len(), Vec::new);
        }
        for (i, stage) in stages.iter().enumerate() {
            let (before, own) = self.ways.split_at_mut(i);
            let (before, own) = (before.last(), &mut own[0]);
            own.clear();
            let least = before
                .and_then(|ways| (0..ways.len()).min_by(|&a, &b| ways[a].0.total_cmp(&ways[b].0)));
            let from = |k: usize| before.map_or((0.0, k), |ways| (ways[k].0, k));
            let (value, k) = from(least.unwrap_or(0));
            let out = if stage.pinned {
                f64::INFINITY
            } else {
                stage.penalty as f64
            };
            own.push((value + out, k));
            for (option, &(place, misfit)) in stage.options.iter().enumerate() {
                let mut way = match least {
                    None => (0.0, 0),
                    Some(0) => from(0),
                    Some(k) => (from(k).0 + MOVE as f64, k),
                };
                if before.is_some() {
                    let stay = stage.stays[option].map(|k| from(k + 1));
                    for other in [Some(from(0)), stay].into_iter().flatten() {
                        way = if other.0 < way.0 { other } else { way };
                    }
                }
                let mut here = misfit as f64;
                if !stage.pinned {
                    here += steps.pays(place, stage);
                    if stage.light {
                        let row = place * (days + 1);
                        let dark = self.dark[row + stage.to] - self.dark[row + stage.from];
                        here += dark / f64::from(problem.capacity[place].max(1));
                    }
                }
                own.push((way.0 + here, way.1));
            }
        }
        let Some(ends) = stages.len().checked_sub(1).map(|last| &self.ways[last]) else {
            return 0.0;
        };
        let end = (0..ends.len()).min_by(|&a, &b| ends[a].0.total_cmp(&ends[b].0));
        let mut at = end.unwrap_or(0);
        let value = ends[at].0;
        for i in (0..stages.len()).rev() {
            if let Some(option) = at.checked_sub(1).filter(|_| !stages[i].pinned) {
                steps.stands(stages[i].options[option].0, &stages[i], 1.0);
            }
            at = self.ways[i][at].1;
        }
        value
    }
}
