//! The places as they fill: what stands where, on which days each is full, and where light burns.

use crate::placement::solver::problem::{CHANGE, MOVE, Placed, Problem, Stage, StageAt};

/// A penalty and a cost: the first counts first.
pub(super) type Score = (i64, i64);

/// The places with what stands in them.
pub(super) struct Filling<'p> {
    pub(super) problem: &'p Problem,
    /// Words of 64 days.
    words: usize,
    /// Trays in each place on each day.
    count: Vec<u32>,
    /// Those of them that need light.
    lights: Vec<u32>,
    /// Bits of the days on which each place is full.
    full: Vec<u64>,
    /// Bits of the days on which no light burns in it.
    dark: Vec<u64>,
    placed: Placed,
    /// The stages in each place.
    inside: Vec<Vec<StageAt>>,
    unplaced: i64,
    cost: i64,
}

impl<'p> Filling<'p> {
    /// With nothing but what is pinned.
    pub(super) fn of(problem: &'p Problem) -> Self {
        let (words, places) = (problem.days.div_ceil(64), problem.capacity.len());
        let full = problem.capacity.iter();
        let full = full.flat_map(|c| vec![if *c == 0 { u64::MAX } else { 0 }; words]);
        let mut filling = Self {
            problem,
            words,
            count: vec![0; places * problem.days],
            lights: vec![0; places * problem.days],
            full: full.collect(),
            dark: vec![u64::MAX; places * words],
            placed: problem
                .trays
                .iter()
                .map(|tray| vec![None; tray.len()])
                .collect(),
            inside: vec![Vec::new(); places],
            unplaced: problem.stages().map(|(_, stage)| stage.penalty).sum(),
            cost: 0,
        };
        let pinned = problem.stages().filter(|(_, stage)| stage.pinned);
        pinned.for_each(|(at, stage)| filling.put(at, stage.options[0].0));
        filling
    }

    pub(super) fn score(&self) -> Score {
        (self.unplaced, self.cost)
    }

    pub(super) fn placed(&self) -> &Placed {
        &self.placed
    }

    /// Where a stage stands.
    pub(super) fn place_of(&self, (tray, stage): StageAt) -> Option<usize> {
        self.placed[tray][stage]
    }

    /// The stages in `place`.
    pub(super) fn inside(&self, place: usize) -> &[StageAt] {
        &self.inside[place]
    }

    /// The stages that have no place, and could have one.
    pub(super) fn without(&self) -> Vec<StageAt> {
        let stages = self.problem.stages();
        let without =
            stages.filter(|(at, stage)| self.place_of(*at).is_none() && !stage.options.is_empty());
        without.map(|(at, _)| at).collect()
    }

    /// Calls `look` with each word of days of `stage`.
    fn bits(stage: &Stage, mut look: impl FnMut(usize, u64)) {
        let (first, last) = (stage.from / 64, (stage.to - 1) / 64);
        for word in first..=last {
            let mut mask = u64::MAX;
            if word == first {
                mask &= u64::MAX << (stage.from % 64);
            }
            if word == last {
                mask &= u64::MAX >> (63 - (stage.to - 1) % 64);
            }
            look(word, mask);
        }
    }

    /// Whether `stage` fits into `place` as it is filled.
    pub(super) fn fits(&self, place: usize, stage: &Stage) -> bool {
        let mut taken = 0;
        Self::bits(stage, |word, mask| {
            taken |= self.full[place * self.words + word] & mask
        });
        taken == 0
    }

    /// What it costs to have `stage` in `place`, but for moves: misfit, a change, and the days on which
    /// light burns there for nothing else.
    pub(super) fn cost_there(&self, place: usize, misfit: i64, stage: &Stage) -> i64 {
        let change = stage.was.is_some_and(|was| was != place);
        let mut lit = 0;
        if stage.light {
            Self::bits(stage, |word, mask| {
                lit += (self.dark[place * self.words + word] & mask).count_ones();
            });
        }
        misfit + i64::from(lit) + if change { CHANGE } else { 0 }
    }

    fn cost_of(&self, place: usize, stage: &Stage) -> i64 {
        let option = stage.options.iter().find(|(at, _)| *at == place);
        self.cost_there(place, option.map_or(0, |(_, misfit)| *misfit), stage)
    }

    fn moves(&self, tray: usize) -> i64 {
        let pairs = self.placed[tray].windows(2);
        let moved = pairs.filter(|pair| matches!(pair, [Some(a), Some(b)] if a != b));
        MOVE * moved.count() as i64
    }

    /// Counts a stage in `place`, or no longer.
    fn count(&mut self, at: StageAt, place: usize, by: i32) {
        let problem = self.problem;
        let stage = problem.stage(at);
        for day in stage.from..stage.to {
            let (here, bit) = (place * problem.days + day, 1u64 << (day % 64));
            let word = place * self.words + day / 64;
            let set = |bits: &mut u64, on: bool| if on { *bits |= bit } else { *bits &= !bit };
            self.count[here] = self.count[here].wrapping_add_signed(by);
            let full = self.count[here] >= problem.capacity[place];
            set(&mut self.full[word], full);
            if stage.light {
                self.lights[here] = self.lights[here].wrapping_add_signed(by);
                set(&mut self.dark[word], self.lights[here] == 0);
            }
        }
    }

    /// Puts a stage that has no place into `place`, where it fits.
    pub(super) fn put(&mut self, at: StageAt, place: usize) {
        let stage = self.problem.stage(at);
        self.cost += self.cost_of(place, stage) - self.moves(at.0);
        self.count(at, place, 1);
        self.inside[place].push(at);
        self.unplaced -= stage.penalty;
        self.placed[at.0][at.1] = Some(place);
        self.cost += self.moves(at.0);
    }

    /// Takes a stage out of its place; what is pinned stays.
    pub(super) fn take(&mut self, at: StageAt) {
        let stage = self.problem.stage(at);
        let Some(place) = self.place_of(at).filter(|_| !stage.pinned) else {
            return;
        };
        self.cost -= self.moves(at.0);
        self.placed[at.0][at.1] = None;
        self.count(at, place, -1);
        let inside = &mut self.inside[place];
        if let Some(i) = inside.iter().position(|other| *other == at) {
            inside.swap_remove(i);
        }
        self.unplaced += stage.penalty;
        self.cost += self.moves(at.0) - self.cost_of(place, stage);
    }

    /// Takes a whole tray out, but for what is pinned.
    pub(super) fn take_tray(&mut self, tray: usize) {
        (0..self.problem.trays[tray].len()).for_each(|stage| self.take((tray, stage)));
    }

    /// Puts a tray that was taken out where `places` says.
    pub(super) fn put_tray(&mut self, tray: usize, places: &[Option<usize>]) {
        for (stage, place) in places.iter().enumerate() {
            let at = (tray, stage);
            if let Some(place) = place.filter(|_| self.place_of(at).is_none()) {
                self.put(at, place);
            }
        }
    }

    /// As `placed` says, whatever it was.
    pub(super) fn restore(&mut self, placed: &Placed) {
        (0..placed.len()).for_each(|tray| self.take_tray(tray));
        for (tray, places) in placed.iter().enumerate() {
            self.put_tray(tray, places);
        }
    }
}
