//! What is told of the season as a whole.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::units::DAYS_PER_WEEK;
use crate::day::fits::Capacity;
use crate::placement::spots_by_sort;
use crate::plan::SoundPlan;
use crate::season::jobs::Event;
use crate::season::moves::{Moves, moves};
use crate::season::{Demand, Reckoned, SeasonDay, days as days_of_season, jobs};
use crate::site::FirstFrost;

/// The season in outline.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Season {
    /// Every day.
    pub days: Vec<SeasonDay>,
    /// The first frost after summer.
    pub first_frost: FirstFrost,
    /// What the tiers indoors hold.
    pub capacity: Capacity,
    /// What the room has of each sort of spot, for trays of the size that most have.
    pub spots: Demand,
    /// Which trays are carried where, in order; in an outline on the days asked for and in the week from
    /// each.
    pub moves: Vec<Moves>,
    /// The first day on which most trays stand in the room.
    pub fullest: Date,
    /// What happens on which day, in order; in an outline on the days asked for and in the week
    /// from each.
    pub events: Vec<Event>,
}

impl Season {
    /// The whole of what is `reckoned`, of a room of that `capacity`.
    pub(super) fn of(reckoned: &Reckoned<'_>, capacity: Capacity) -> Self {
        let plan = reckoned.plan;
        let season_days = days_of_season(reckoned, plan.season);
        Self {
            first_frost: plan.site.first_frost_day(),
            capacity,
            spots: spots_by_sort(plan),
            moves: moves(reckoned),
            fullest: fullest(plan, &season_days),
            events: jobs::all(reckoned),
            days: season_days,
        }
    }

    /// The `whole`, or its events and moves in an outline on `days` and in the week from each.
    pub(super) fn told(&self, days: DateSpan, whole: bool) -> Self {
        let week = days.from..=plus_days(days.to, DAYS_PER_WEEK as i32 - 1);
        let told = |date: &Date| whole || week.contains(date);
        let events = self.events.iter().filter(|event| told(&event.date));
        let moves = self.moves.iter().filter(|moved| told(&moved.date));
        Self {
            days: self.days.clone(),
            first_frost: self.first_frost,
            capacity: self.capacity.clone(),
            spots: self.spots,
            moves: moves.cloned().collect(),
            fullest: self.fullest,
            events: events.cloned().collect(),
        }
    }
}

/// The first of `days` on which most trays stand in the room.
fn fullest(plan: &SoundPlan, days: &[SeasonDay]) -> Date {
    let most = days.iter().map(|day| day.trays).max();
    let mut fullest = days.iter().filter(|day| Some(day.trays) == most);
    fullest.next().map_or(plan.season.from, |day| day.date)
}
