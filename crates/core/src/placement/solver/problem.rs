//! An instance as the search works on it: names are numbers.

use std::collections::HashMap;

use crate::placement::solver::instance::{Instance, StageOf};

/// What a move from one place to another costs.
pub(super) const MOVE: i64 = 10;
/// What another place than in the saved plan costs.
pub(super) const CHANGE: i64 = 5;

/// A stage of a tray.
#[derive(Debug, Clone)]
pub(super) struct Stage {
    pub(super) from: usize,
    /// The day after its last.
    pub(super) to: usize,
    pub(super) light: bool,
    /// Where it may stand, and what that costs over all its days; the cheapest first.
    pub(super) options: Vec<(usize, i64)>,
    /// For each of them the same place among the options of the stage before.
    pub(super) stays: Vec<Option<usize>>,
    /// What it costs to leave it without a place.
    pub(super) penalty: i64,
    /// Where it stood.
    pub(super) was: Option<usize>,
    /// Whether it is pinned to its only place.
    pub(super) pinned: bool,
}

impl Stage {
    pub(super) fn days(&self) -> usize {
        self.to - self.from
    }

    /// Whether both are there on any day.
    pub(super) fn meets(&self, other: &Self) -> bool {
        self.from < other.to && other.from < self.to
    }
}

fn with_stays(mut stages: Vec<Stage>) -> Vec<Stage> {
    for i in 0..stages.len() {
        let before = i.checked_sub(1).map_or(&[][..], |i| &stages[i].options[..]);
        let stay = |(place, _): &(usize, i64)| before.iter().position(|(at, _)| at == place);
        stages[i].stays = stages[i].options.iter().map(stay).collect();
    }
    stages
}

/// What is to be placed.
#[derive(Debug)]
pub(super) struct Problem {
    pub(super) days: usize,
    /// Trays that each place holds.
    pub(super) capacity: Vec<u32>,
    /// The stages of each tray.
    pub(super) trays: Vec<Vec<Stage>>,
}

/// A stage: which tray's, and which of its stages.
pub(super) type StageAt = (usize, usize);
/// A place for each stage of each tray, or none.
pub(super) type Placed = Vec<Vec<Option<usize>>>;

impl Problem {
    /// Of an instance that was checked.
    pub(super) fn of(instance: &Instance) -> Self {
        let places = instance.places.iter().enumerate();
        let index: HashMap<&str, usize> = places.map(|(i, place)| (&*place.id, i)).collect();
        let stage = |weight: u32, stage: &StageOf| {
            let days = i64::from(stage.to - stage.from);
            let may = |place: &String| stage.pinned.as_ref().is_none_or(|pin| pin == place);
            let options = stage.places.iter().filter(|(place, _)| may(place));
            let options =
                options.map(|(place, misfit)| (index[&**place], i64::from(*misfit) * days));
            let mut options: Vec<(usize, i64)> = options.collect();
            options.sort_by_key(|(place, cost)| (*cost, *place));
            Stage {
                from: stage.from as usize,
                to: stage.to as usize,
                light: stage.needs_light,
                options,
                stays: Vec::new(),
                penalty: i64::from(weight) * days,
                was: stage.was.as_ref().map(|was| index[&**was]),
                pinned: stage.pinned.is_some(),
            }
        };
        let trays = instance.trays.iter();
        Self {
            days: instance.days as usize,
            capacity: instance.places.iter().map(|p| p.capacity).collect(),
            trays: trays
                .map(|tray| {
                    let stages = tray.stages.iter().map(|s| stage(tray.weight, s));
                    with_stays(stages.collect())
                })
                .collect(),
        }
    }

    pub(super) fn stage(&self, (tray, stage): StageAt) -> &Stage {
        &self.trays[tray][stage]
    }

    /// All stages.
    pub(super) fn stages(&self) -> impl Iterator<Item = (StageAt, &Stage)> {
        let trays = self.trays.iter().enumerate();
        trays.flat_map(|(t, stages)| stages.iter().enumerate().map(move |(i, s)| ((t, i), s)))
    }

    /// All that can be chosen: how long a look at everything takes.
    pub(super) fn size(&self) -> u64 {
        self.stages()
            .map(|(_, stage)| 4 + stage.options.len() as u64)
            .sum()
    }
}
