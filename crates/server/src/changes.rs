//! An assessment as what differs from the one before: while something is dragged, most of a large
//! room stays as it was.

use std::collections::VecDeque;
use std::hash::{BuildHasher, DefaultHasher, Hash, Hasher, RandomState};
use std::sync::{Arc, Mutex, PoisonError};

use jiff::civil::Date;
use serde::{Serialize, Serializer};
use serde_json::value::{RawValue, to_raw_value};
use sunrise_core::ask::{
    Assessment, Away, BayOnDay, Finding, PlaceOnDay, Power, Season, SowingCells, SowingDates,
    UnplacedTray,
};
use sunrise_core::basis::work::go_on;
use utoipa::ToSchema;

/// An entry of a list: a number is the index of the same entry in that list of the answer before.
#[derive(Debug, Serialize, ToSchema)]
#[serde(untagged)]
// The server writes entries out as it compares them; this tells readers their form.
#[allow(dead_code)]
pub enum Part<T> {
    /// As entry so many of the answer before.
    Before(u32),
    /// New, or changed.
    New(T),
}

/// An assessment against an earlier answer.
#[derive(Debug, ToSchema)]
#[allow(dead_code)]
pub struct Changes {
    /// This answer's name: ask for what changes `since` it.
    id: String,
    /// The whole season, day by day; left out when it is as it was.
    season: Option<Season>,
    /// The dates of every sowing.
    sowings: Vec<Part<SowingDates>>,
    /// How much of each sowing to sow; left out when it was not asked for.
    to_sow: Option<Vec<Part<SowingCells>>>,
    /// The room on each day that was asked for.
    room: Vec<RoomChanges>,
    /// Findings, the gravest first.
    findings: Vec<Part<Finding>>,
    /// What to mind with mains and water.
    caution: &'static str,
    /// What to mind with loaded racks.
    load_caution: &'static str,
    /// What to mind where strong lamps hang close over leaves.
    light_caution: &'static str,
}

/// The room on a day, against an earlier answer.
#[derive(Debug, ToSchema)]
#[allow(dead_code)]
pub struct RoomChanges {
    /// The day.
    date: Date,
    /// Every place.
    places: Vec<Part<PlaceOnDay>>,
    /// Every bay, place by place from the lowest tier up.
    bays: Vec<Part<BayOnDay>>,
    /// Trays that stand nowhere.
    unplaced: Vec<UnplacedTray>,
    /// What all lamps together draw.
    power: Power,
    /// What dries first, on days away and shortly before.
    away: Option<Away>,
}

/// An entry, written out.
enum Written {
    Before(usize),
    New(Box<RawValue>),
}

impl Serialize for Written {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        match self {
            Self::Before(index) => index.serialize(serializer),
            Self::New(json) => json.serialize(serializer),
        }
    }
}

/// [`Changes`], written out.
#[derive(Serialize)]
pub struct WrittenChanges<'a> {
    id: String,
    #[serde(skip_serializing_if = "Option::is_none")]
    season: Option<&'a Season>,
    sowings: Vec<Written>,
    #[serde(skip_serializing_if = "Option::is_none")]
    to_sow: Option<Vec<Written>>,
    room: Vec<WrittenRoom<'a>>,
    findings: Vec<Written>,
    caution: &'static str,
    load_caution: &'static str,
    light_caution: &'static str,
}

#[derive(Serialize)]
struct WrittenRoom<'a> {
    date: Date,
    places: Vec<Written>,
    bays: Vec<Written>,
    unplaced: &'a [UnplacedTray],
    power: &'a Power,
    away: &'a Option<Away>,
}

/// What an answer held, each entry by its hash.
#[derive(Debug, Default)]
struct Held {
    season: u64,
    sowings: Vec<u64>,
    to_sow: Vec<u64>,
    room: Vec<[Vec<u64>; 2]>,
    findings: Vec<u64>,
}

/// The last answers, by name.
#[derive(Debug)]
pub struct Answers {
    /// Tells this process's names from those that an earlier one gave.
    process: u64,
    last: Mutex<Last>,
}

#[derive(Debug, Default)]
struct Last {
    /// How many names were given.
    given: u64,
    answers: VecDeque<(String, Arc<Held>)>,
}

impl Default for Answers {
    fn default() -> Self {
        Self {
            process: RandomState::new().hash_one(std::process::id()),
            last: Mutex::default(),
        }
    }
}

/// So many answers are remembered: one a page that is open, and some.
const REMEMBERED: usize = 32;

fn hash(json: &str) -> u64 {
    let mut hasher = DefaultHasher::new();
    json.hash(&mut hasher);
    hasher.finish()
}

/// Writes `list` out against the hashes of the list `before`; `now` takes its own.
fn write<T: Serialize>(
    list: &[T],
    before: &[u64],
    now: &mut Vec<u64>,
) -> Result<Vec<Written>, serde_json::Error> {
    let entries = list.iter().enumerate().map(|(i, entry)| {
        go_on();
        let json = to_raw_value(entry)?;
        let hash = hash(json.get());
        now.push(hash);
        // Most stay where they were.
        let same = if before.get(i) == Some(&hash) {
            Some(i)
        } else {
            before.iter().position(|other| *other == hash)
        };
        Ok(same.map_or(Written::New(json), Written::Before))
    });
    entries.collect()
}

impl Answers {
    fn named(&self, id: Option<&str>) -> Option<Arc<Held>> {
        let last = self.last.lock().unwrap_or_else(PoisonError::into_inner);
        let mut answers = last.answers.iter();
        let found = answers.find(|(known, _)| Some(known.as_str()) == id);
        found.map(|(_, held)| Arc::clone(held))
    }

    /// Keeps what an answer held, and gives it a name.
    fn remember(&self, held: Held) -> String {
        let mut last = self.last.lock().unwrap_or_else(PoisonError::into_inner);
        last.given += 1;
        let id = format!("{:x}-{:x}", self.process, last.given);
        if last.answers.len() >= REMEMBERED {
            last.answers.pop_front();
        }
        last.answers.push_back((id.clone(), Arc::new(held)));
        id
    }

    /// Writes `assessment` out against the answer called `since`; whole when that is not known.
    ///
    /// # Errors
    /// When it does not serialise.
    pub fn changes<'a>(
        &self,
        assessment: &'a Assessment,
        since: Option<&str>,
    ) -> Result<WrittenChanges<'a>, serde_json::Error> {
        let before = self.named(since).unwrap_or_default();
        let mut held = Held {
            season: hash(to_raw_value(&assessment.season)?.get()),
            ..Held::default()
        };
        let season = (held.season != before.season).then_some(&assessment.season);
        let sowings = write(&assessment.sowings, &before.sowings, &mut held.sowings)?;
        let to_sow = assessment.to_sow.as_ref();
        let to_sow = to_sow.map(|list| write(list, &before.to_sow, &mut held.to_sow));
        let to_sow = to_sow.transpose()?;
        let findings = write(&assessment.findings, &before.findings, &mut held.findings)?;
        let mut room = Vec::with_capacity(assessment.room.len());
        let none = [Vec::new(), Vec::new()];
        for (i, day) in assessment.room.iter().enumerate() {
            let [places_before, bays_before] = before.room.get(i).unwrap_or(&none);
            let mut now = [Vec::new(), Vec::new()];
            let [places, bays] = &mut now;
            room.push(WrittenRoom {
                date: day.date,
                places: write(&day.places, places_before, places)?,
                bays: write(&day.bays, bays_before, bays)?,
                unplaced: &day.unplaced,
                power: &day.power,
                away: &day.away,
            });
            held.room.push(now);
        }
        Ok(WrittenChanges {
            id: self.remember(held),
            season,
            sowings,
            to_sow,
            room,
            findings,
            caution: assessment.caution,
            load_caution: assessment.load_caution,
            light_caution: assessment.light_caution,
        })
    }
}
