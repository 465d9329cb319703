//! Why something stands nowhere: places that are full of trays which have no others to go to.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use crate::basis::work::go_on;
use crate::placement::solver::instance::{Instance, StageOf};
use crate::placement::solver::solve::Answer;

/// Places that hold too few on some days.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Short {
    /// The first of the days.
    pub from: u32,
    /// The day after the last.
    pub to: u32,
    /// The places.
    pub places: BTreeSet<String>,
    /// Trays that they hold together.
    pub held: u32,
    /// Trays that may stand in those places and nowhere else, on the day with most of them. Where that is
    /// no more than they hold, some place is free on each day and none on all.
    pub wanted: u32,
    /// Those of them that stand nowhere: the tray, and which of its stages.
    pub without: BTreeSet<(String, usize)>,
}

impl Short {
    /// Whether there is room on each single day, and in no place for as long as it is wanted.
    pub fn is_broken_up(&self) -> bool {
        self.wanted <= self.held
    }
}

/// The shortest reasons why trays stand nowhere in `answer`, by their first day: for each of their days
/// the fewest places whose trays leave no way out (by Hall's theorem, no arrangement has them all).
pub fn short(instance: &Instance, answer: &Answer) -> Vec<Short> {
    let room = Room::of(instance, answer);
    let mut found: Vec<Short> = Vec::new();
    for at in room.without() {
        let (tray, stage) = (&instance.trays[at.0], room.stage(at));
        let mut full_days = 0;
        for day in stage.from..stage.to {
            go_on();
            let Some(places) = room.closed(at, day) else {
                continue;
            };
            full_days += 1;
            add(&mut found, room.shortage(places, day, (&tray.id, at.1)));
        }
        if full_days == 0 {
            found.push(Short {
                from: stage.from,
                to: stage.to,
                places: stage.places.keys().cloned().collect(),
                held: room.held(stage.places.keys()),
                wanted: 0,
                without: BTreeSet::from([(tray.id.clone(), at.1)]),
            });
        }
    }
    found.sort_by_key(|own| (own.from, own.to));
    found
}

/// Adds a day's shortage to what was found of the same places on the days beside it.
fn add(found: &mut Vec<Short>, day: Short) {
    let same = |other: &&mut Short| {
        other.places == day.places && other.from <= day.to && day.from <= other.to
    };
    match found.iter_mut().find(same) {
        Some(other) => {
            other.from = other.from.min(day.from);
            other.to = other.to.max(day.to);
            other.wanted = other.wanted.max(day.wanted);
            other.without.extend(day.without);
        }
        None => found.push(day),
    }
}

type StageAt = (usize, usize);

/// Who stands where by an answer.
struct Room<'i> {
    instance: &'i Instance,
    capacity: HashMap<&'i str, u32>,
    /// The stages in each place.
    there: HashMap<&'i str, Vec<StageAt>>,
    placed: BTreeMap<StageAt, &'i str>,
}

impl<'i> Room<'i> {
    fn of(instance: &'i Instance, answer: &'i Answer) -> Self {
        let places = instance.places.iter();
        let mut room = Self {
            instance,
            capacity: places.map(|own| (own.id.as_str(), own.capacity)).collect(),
            there: HashMap::new(),
            placed: BTreeMap::new(),
        };
        for (t, tray) in instance.trays.iter().enumerate() {
            let places = answer.assignment.get(&tray.id).into_iter().flatten();
            for (s, place) in places.enumerate() {
                if let Some(place) = place {
                    room.there.entry(place).or_default().push((t, s));
                    room.placed.insert((t, s), place);
                }
            }
        }
        room
    }

    fn stage(&self, (tray, stage): StageAt) -> &'i StageOf {
        &self.instance.trays[tray].stages[stage]
    }

    /// All stages without a place.
    fn without(&self) -> Vec<StageAt> {
        let trays = self.instance.trays.iter().enumerate();
        let stages = trays.flat_map(|(t, tray)| (0..tray.stages.len()).map(move |s| (t, s)));
        stages.filter(|at| !self.placed.contains_key(at)).collect()
    }

    fn options(stage: &StageOf) -> impl Iterator<Item = &String> {
        let may = |place: &&String| stage.pinned.as_ref().is_none_or(|pin| pin == *place);
        stage.places.keys().filter(may)
    }

    /// The places that a stage may use on `day`, and those that the trays there could move to, and so on:
    /// `None` where one of them has room.
    fn closed(&self, at: StageAt, day: u32) -> Option<BTreeSet<&'i str>> {
        let mut places: BTreeSet<&'i str> = BTreeSet::new();
        let mut look: Vec<&'i String> = Self::options(self.stage(at)).collect();
        while let Some(place) = look.pop() {
            if !places.insert(place) {
                continue;
            }
            let there = self.on(place, day);
            if (there.len() as u32) < self.capacity[place.as_str()] {
                return None;
            }
            for at in there {
                look.extend(Self::options(self.stage(at)));
            }
        }
        Some(places)
    }

    fn on(&self, place: &str, day: u32) -> Vec<StageAt> {
        let there = self.there.get(place).into_iter().flatten().copied();
        let is_there = |at: &StageAt| {
            let stage = self.stage(*at);
            (stage.from..stage.to).contains(&day)
        };
        there.filter(is_there).collect()
    }

    fn held<'p>(&self, places: impl Iterator<Item = &'p String>) -> u32 {
        places.map(|place| self.capacity[place.as_str()]).sum()
    }

    fn shortage(&self, places: BTreeSet<&str>, day: u32, without: (&str, usize)) -> Short {
        let stages = self.instance.trays.iter().flat_map(|tray| &tray.stages);
        let wanted = stages.filter(|stage| {
            let only_there = Self::options(stage).all(|place| places.contains(place.as_str()));
            (stage.from..stage.to).contains(&day) && only_there
        });
        let wanted = wanted.count() as u32;
        let places: BTreeSet<String> = places.into_iter().map(str::to_owned).collect();
        Short {
            from: day,
            to: day + 1,
            held: self.held(places.iter()),
            wanted,
            places,
            without: BTreeSet::from([(without.0.to_owned(), without.1)]),
        }
    }
}
