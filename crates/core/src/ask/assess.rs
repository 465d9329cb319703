//! The one entry point: a sound plan and the days to look at in, the assessment out.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::advice::Finding;
use crate::ask::lately::Lately;
use crate::ask::season::Season;
use crate::basis::dates::DateSpan;
use crate::basis::work::{both, go_on, side_by_side_with};
use crate::day::bay::BayOnDay;
use crate::day::detail::Detail;
use crate::day::load;
use crate::day::place::PlaceViews;
use crate::day::room::{RoomOnDay, RoomView};
use crate::day::view::{BayView, Looker};
use crate::lamps::choice;
use crate::light::fields::Fields;
use crate::plan::SoundPlan;
use crate::season::how_many::SowingCells;
use crate::season::{Reckoned, SowingDates};
use crate::{advice, power};

/// All that follows from a plan.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Assessment {
    /// The whole season, day by day.
    pub season: Season,
    /// The dates of every sowing.
    pub sowings: Vec<SowingDates>,
    /// How much of each sowing to sow, in the order of sowing; `None` when it was not asked for.
    pub to_sow: Option<Vec<SowingCells>>,
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
    assess_lately(plan, days, detail, fields, &Lately::default())
}

/// The same as [`assess_again`] for somebody who mostly asks about a plan that was asked about `lately`.
pub fn assess_lately(
    plan: &SoundPlan,
    days: DateSpan,
    detail: Detail,
    fields: &Fields,
    lately: &Lately,
) -> Assessment {
    let (reckoned, on_plan) = lately.of(plan, fields);
    let whole = detail.wants_season();
    let season = || on_plan.season(&reckoned).told(days, whole);
    let looked = || rooms(&reckoned, days, &detail);
    let (mut findings, (season, looked)) = both(
        || on_plan.findings(&reckoned).to_vec(),
        || both(season, looked),
    );
    let mut room = Vec::with_capacity(looked.len());
    findings.reserve(looked.iter().map(|(_, found)| found.len()).sum());
    for (on_day, found) in looked {
        room.push(on_day);
        findings.extend(found);
    }
    findings.sort_by_key(|finding| finding.severity);
    advice::name_each(&mut findings);

    Assessment {
        season,
        to_sow: whole.then(|| reckoned.how_many.to_vec()),
        sowings: reckoned.dates.to_vec(),
        room,
        findings,
        caution: power::CAUTION,
        load_caution: load::CAUTION,
        light_caution: choice::CAUTION,
    }
}

/// The room on each of `days`, and what is found there.
fn rooms(
    reckoned: &Reckoned<'_>,
    days: DateSpan,
    detail: &Detail,
) -> Vec<(RoomOnDay, Vec<Finding>)> {
    let places: Vec<usize> = (0..reckoned.plan.places.len()).collect();
    let days: Vec<Date> = days.days().collect();
    let looker = || Looker::new(reckoned, detail.clone());
    if let [day] = days[..] {
        // One day alone: its places are shared out.
        let views = side_by_side_with(&places, looker, |looker, &index| look(looker, index, day));
        let own = &mut PlaceViews::default();
        return vec![room_on((reckoned, own), day, views, detail)];
    }
    let begin = || (looker(), PlaceViews::default());
    side_by_side_with(&days, begin, |(looker, own), &day| {
        let views = places.iter().map(|&index| look(looker, index, day));
        room_on((reckoned, own), day, views.collect(), detail)
    })
}

/// The bays of the place at `index` on `day`.
fn look<'a>(looker: &mut Looker<'a>, index: usize, day: Date) -> Vec<BayView<'a>> {
    go_on();
    looker.look(index, day)
}

/// The room on `day`, and what is found in it, from the bays of each of its places.
fn room_on(
    (reckoned, of_places): (&Reckoned<'_>, &mut PlaceViews),
    day: Date,
    views: Vec<Vec<BayView<'_>>>,
    detail: &Detail,
) -> (RoomOnDay, Vec<Finding>) {
    let mut findings = Vec::new();
    let mut bays: Vec<BayOnDay> = Vec::with_capacity(views.iter().map(Vec::len).sum());
    let mut places = Vec::with_capacity(views.len());
    for (index, views) in views.into_iter().enumerate() {
        findings.extend(views.iter().flat_map(advice::on_bay));
        let place = of_places.of(reckoned.plan, index, day, &views);
        findings.extend(advice::on_place(&place));
        places.push(place.computed);
        bays.extend(views.into_iter().map(|view| view.computed));
    }
    let mut room = RoomView::new(reckoned, day, places, bays);
    findings.extend(advice::on_room(&room));
    room.computed.keep_asked_for(detail);
    (room.computed, findings)
}

/// The day to open a plan on: today within the season, else the day on which the room is fullest.
pub fn opening_day(plan: &SoundPlan, today: Date, fields: &Fields, lately: &Lately) -> Date {
    if plan.season.contains(today) {
        today
    } else {
        let (reckoned, on_plan) = lately.of(plan, fields);
        on_plan.season(&reckoned).fullest
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::testing::kettle_fen;

    #[test]
    fn a_day_is_the_same_alone_and_among_all_days_of_the_season() {
        let plan = kettle_fen(|_| {});
        let season = assess(&plan, plan.season, Detail::Days);
        assert_eq!(season.room.len(), plan.season.days().count());
        for (on_day, date) in season.room.iter().zip(plan.season.days()).step_by(30) {
            let alone = assess(&plan, DateSpan::day(date), Detail::Days);
            assert_eq!(alone.room, std::slice::from_ref(on_day), "{date}");
        }
    }
}
