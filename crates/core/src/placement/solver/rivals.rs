//! The stages that compete for places, and what is proven of them.

use crate::placement::solver::prices::Prices;
use crate::placement::solver::problem::{Problem, StageAt};

/// The stages that compete with each other.
pub(super) struct Rivals {
    /// Stages that may stand in one place only, where nothing stands that could stand elsewhere: by
    /// place. The flow finds their best at once.
    pub(super) alone: Vec<(usize, Vec<StageAt>)>,
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

/// What was found: how much must at least be left out, and the prices that prove it.
pub(super) struct Proof {
    pub(super) bound: i64,
    pub(super) prices: Prices,
}
