//! Who looks on while trays are placed, and may stop it.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::work::go_on;
use crate::placement::solver::filling::Score;

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

impl<'w> Watch<'w> {
    pub(super) fn new(tell: &'w mut dyn FnMut(Progress) -> bool) -> Self {
        Self {
            tell,
            turns: 0,
            stopped: false,
            bound: 0,
        }
    }

    pub(super) fn is_stopped(&self) -> bool {
        self.stopped
    }

    pub(super) fn bound(&mut self, bound: i64) {
        self.bound = bound;
    }

    /// Whether to go on; now and then the best so far is told.
    pub(super) fn goes_on(&mut self, best: Score) -> bool {
        const EVERY: u64 = 256;
        self.turns += 1;
        if self.turns % EVERY == 1 {
            self.goes_on_now(best)
        } else {
            !self.stopped
        }
    }

    /// The same where each turn takes long: the best so far is told each time.
    pub(super) fn goes_on_now(&mut self, best: Score) -> bool {
        if !self.stopped {
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
