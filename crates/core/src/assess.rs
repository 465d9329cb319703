//! The one entry point: a sound plan and the days to look at in, the assessment out.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::advice::{self, Finding};
use crate::away::Away;
use crate::bays::{BayOnDay, Detail, Looker};
use crate::events::{self, Event};
use crate::light::bay::Fields;
use crate::light::hang;
use crate::load;
use crate::places::{PlaceOnDay, PlaceView};
use crate::plan::{DateSpan, SoundPlan};
use crate::power::{self, Power};
use crate::season::{self, SeasonDay, SowingDates};
use crate::site::plus_days;
use crate::space::{Fits, places_held};
use crate::to_sow::{self, SowingCells};
use crate::units::DAYS_PER_WEEK;
use crate::work::go_on;

/// All that follows from a plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Assessment {
    /// The whole season, day by day.
    pub season: Season,
    /// The dates of every sowing.
    pub sowings: Vec<SowingDates>,
    /// How much of each sowing to sow, in the order of sowing; empty when it was not asked for.
    pub to_sow: Vec<SowingCells>,
    /// The room on each day that was asked for.
    pub room: Vec<RoomOnDay>,
    /// Findings on the plan, and on each bay on each day asked for; the gravest first.
    pub findings: Vec<Finding>,
    /// What to mind with mains and water.
    pub caution: &'static str,
    /// What to mind with loaded racks.
    pub load_caution: &'static str,
    /// What to mind where strong lamps hang close over leaves.
    pub light_caution: &'static str,
}

/// The season in outline.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Season {
    /// Every day.
    pub days: Vec<SeasonDay>,
    /// Standard trays that the tiers indoors hold that are not kept for storage.
    pub places_held: u32,
    /// The first day on which most trays stand in the room.
    pub fullest: Date,
    /// What happens on which day, in order; in an outline on the days asked for and in the week
    /// from each.
    pub events: Vec<Event>,
}

/// The room on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct RoomOnDay {
    /// The day.
    pub date: Date,
    /// Every place.
    pub places: Vec<PlaceOnDay>,
    /// Every bay, place by place from the lowest tier up.
    pub bays: Vec<BayOnDay>,
    /// What all lamps together draw.
    pub power: Power,
    /// What dries first, on days away and shortly before.
    pub away: Option<Away>,
}

/// Assesses `plan`: the season as a whole, and the room on each of `days`, with the lists of the
/// bays that `detail` names.
///
/// Days outside the season are looked at too; nothing but the plan's own trays stands there.
pub fn assess(plan: &SoundPlan, days: DateSpan, detail: Detail) -> Assessment {
    assess_again(plan, days, detail, &Fields::default())
}

/// The same as [`assess`] for somebody who asks again and again: light that `fields` remembers is
/// not reckoned anew, and what is new is remembered there.
pub fn assess_again(
    plan: &SoundPlan,
    days: DateSpan,
    detail: Detail,
    fields: &Fields,
) -> Assessment {
    let sowings = season::dates_again(plan, fields);
    let season_days = season::days(plan, &sowings, plan.season);
    let fullest = fullest(plan, &season_days);

    let to_sow = to_sow::all(plan, &sowings);
    let mut findings = advice::on_plan(plan, &sowings, &to_sow);
    let mut events = events::all(plan, &sowings, &to_sow);
    let whole = detail.wants_season();
    if !whole {
        let week = days.from..=plus_days(days.to, DAYS_PER_WEEK as i32 - 1);
        events.retain(|event| week.contains(&event.date));
    }
    let mut looker = Looker::new(plan, &sowings, detail, fields);
    let room = days
        .days()
        .map(|date| {
            go_on();
            let mut bays: Vec<BayOnDay> = Vec::new();
            let mut places = Vec::with_capacity(plan.places.len());
            for index in 0..plan.places.len() {
                let views = looker.look(index, date);
                findings.extend(views.iter().flat_map(advice::on_bay));
                let place = PlaceView::new(plan, index, date, &views);
                findings.extend(advice::on_place(&place));
                places.push(place.computed);
                bays.extend(views.into_iter().map(|view| view.computed));
            }
            RoomOnDay {
                date,
                power: bays.iter().map(|bay| bay.power).sum(),
                away: Away::on(plan, date, &bays),
                places,
                bays,
            }
        })
        .collect();
    findings.sort_by_key(|finding| finding.severity);
    advice::name_each(&mut findings);

    Assessment {
        season: Season {
            places_held: places_held(plan, &mut Fits::default()),
            fullest,
            events,
            days: season_days,
        },
        sowings,
        to_sow: if whole { to_sow } else { Vec::new() },
        room,
        findings,
        caution: power::CAUTION,
        load_caution: load::CAUTION,
        light_caution: hang::CAUTION,
    }
}

/// The day to open a plan on: today within the season, else the day on which the room is fullest.
pub fn opening_day(plan: &SoundPlan, today: Date, fields: &Fields) -> Date {
    if plan.season.contains(today) {
        today
    } else {
        fullest(
            plan,
            &season::days(plan, &season::dates_again(plan, fields), plan.season),
        )
    }
}

/// The first of `days` on which most trays stand in the room.
fn fullest(plan: &SoundPlan, days: &[SeasonDay]) -> Date {
    let most = days.iter().map(|day| day.trays).max();
    let mut fullest = days.iter().filter(|day| Some(day.trays) == most);
    fullest.next().map_or(plan.season.from, |day| day.date)
}
