//! A lesson: a figure as measured beside the figure as reckoned, and the correction.

use std::ops::RangeInclusive;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::learned::Learned;
use crate::basis::units::Quantity;
use crate::basis::words::Statement;
use crate::learning::estimate::Estimate;
use crate::plan::patch::Fix;

/// What the readings and counts of one thing teach.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Lesson {
    /// Its name, which stays: `lamps/door/t2`.
    pub id: String,
    /// What is corrected.
    pub kind: LessonKind,
    /// What it is about, in words.
    pub about: String,
    /// What the correction is: a share of what is stated, or a difference of air in K.
    pub quantity: Quantity,
    /// The correction that the plan has.
    pub now: f64,
    /// The correction by what was measured; `None` where that does not tell yet.
    pub learned: Option<Learned>,
    /// What was found.
    pub verdict: Statement,
    /// What to look at before it is accepted, or what to measure to be surer.
    pub first: Statement,
    /// What it rests on, the latest first.
    pub readings: Vec<LessonReading>,
    /// Takes the correction into the plan; `None` where there is nothing to correct, or it is not sure enough.
    pub fix: Option<Fix>,
}

/// What is corrected.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LessonKind {
    /// The light of a bay's lamps.
    Lamps,
    /// The warmth of a mat.
    Mat,
    /// The air around a place by day.
    AirByDay,
    /// The air around a place by night.
    AirByNight,
    /// The share of a packet that is alive.
    Packet,
    /// How fast a crop comes up.
    ComesUp,
    /// How tall a crop grows.
    Height,
}

/// A reading or a count beside what was reckoned.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LessonReading {
    /// The entry of the log.
    pub entry: String,
    /// The day.
    pub on: Date,
    /// Where, in words.
    pub at: String,
    /// As measured.
    pub measured: f64,
    /// As reckoned, by the plan as it is.
    pub reckoned: f64,
    /// What both are.
    pub quantity: Quantity,
    /// Why it does not count; `None` where it does.
    pub left_out: Option<Statement>,
    /// Whether it can be put in all the same.
    pub can_be_put_in: bool,
}

/// What an estimate says of the correction that the plan has.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Said {
    /// It is as the plan has it.
    Agrees,
    /// It is otherwise.
    Corrects,
    /// It seems to be otherwise, but may not be.
    Unsure,
    /// It is so far off that something else is wrong.
    Unbelievable,
}

impl Said {
    /// Of `estimate`, where less than `least` matters to nobody.
    pub(super) fn of(
        estimate: &Estimate,
        now: f64,
        least: f64,
        believable: RangeInclusive<f64>,
    ) -> Self {
        let off = (estimate.value - now).abs();
        if !believable.contains(&estimate.value) {
            Self::Unbelievable
        } else if off < least {
            Self::Agrees
        } else if estimate.holds(now) {
            Self::Unsure
        } else {
            Self::Corrects
        }
    }
}
