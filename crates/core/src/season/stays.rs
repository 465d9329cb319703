//! Where every tray stands and when, and which want the same spot.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::plane::Footprint;
use crate::basis::work::go_on;
use crate::plan::{SoundPlan, Stage, Stand, Tray};
use crate::room::BayRef;
use crate::season::moments::TrayMoments;
use crate::season::sowing_dates::SowingDates;

/// Two trays that want the same spot.
#[derive(Debug, Clone, PartialEq)]
pub struct Clash<'a> {
    /// The tray named first in the plan.
    pub first: &'a Tray,
    /// The other.
    pub second: &'a Tray,
    /// The bay.
    pub bay: &'a BayRef,
    /// The days on which both would stand there.
    pub days: DateSpan,
}

/// Every pair of trays that want the same spot, with the days.
pub fn clashes<'a>(stays: &[Stay<'a>]) -> Vec<Clash<'a>> {
    let mut by_bay: BTreeMap<(&str, &str), Vec<&Stay<'a>>> = BTreeMap::new();
    for stay in stays {
        let bay = (stay.bay.place.as_str(), stay.bay.tier.as_str());
        by_bay.entry(bay).or_default().push(stay);
    }
    let mut clashes = Vec::new();
    let pairs = by_bay.values().flat_map(|stays| {
        let pairs = stays.iter().enumerate();
        pairs.flat_map(move |(i, first)| stays[i + 1..].iter().map(move |second| (first, second)))
    });
    for (first, second) in pairs {
        go_on();
        let days = DateSpan {
            from: first.days.from.max(second.days.from),
            to: first.days.to.min(second.days.to),
        };
        if days.from <= days.to
            && first.stacked == second.stacked
            && !std::ptr::eq(first.tray, second.tray)
            && first.footprint.overlaps(&second.footprint)
        {
            clashes.push(Clash {
                first: first.tray,
                second: second.tray,
                bay: first.bay,
                days,
            });
        }
    }
    clashes
}

/// A tray at one spot, with the days.
#[derive(Debug, Clone)]
pub struct Stay<'a> {
    /// The tray.
    pub tray: &'a Tray,
    /// The bay.
    pub bay: &'a BayRef,
    /// Its outline on the deck.
    pub footprint: Footprint,
    /// Whether it is stacked on others.
    pub stacked: bool,
    /// The days.
    pub days: DateSpan,
}

impl Stay<'_> {
    /// Whether it is in `bay` on any of `days`.
    pub fn is_in(&self, bay: &BayRef, days: &[DateSpan]) -> bool {
        self.bay == bay && days.iter().any(|days| self.days.meets(*days))
    }
}

/// Where every tray stands and when. A tray that stays put stands there once, not once a stage.
pub fn stays<'a>(plan: &'a SoundPlan, moments: &[TrayMoments]) -> Vec<Stay<'a>> {
    let of_tray = |(tray, moments): (&'a Tray, &TrayMoments)| {
        let spots = spots(tray, moments);
        spots.into_iter().map(move |(stand, days)| Stay {
            tray,
            bay: &stand.bay,
            footprint: stand.footprint(plan.format(tray)),
            stacked: stand.stacked,
            days,
        })
    };
    plan.trays.iter().zip(moments).flat_map(of_tray).collect()
}

/// The days on which `tray` stands as `stand` says, which is one of its own.
pub fn days_at(
    plan: &SoundPlan,
    dates: &[SowingDates],
    tray: &Tray,
    stand: &Stand,
) -> Vec<DateSpan> {
    let all = spots(tray, &TrayMoments::of(plan, tray, dates)).into_iter();
    let here = all.filter(|(spot, _)| *spot == stand);
    here.map(|(_, days)| days).collect()
}

/// The spots of a tray one after another, with the days of each; none where it stands nowhere.
pub fn spots<'a>(tray: &'a Tray, moments: &TrayMoments) -> Vec<(&'a Stand, DateSpan)> {
    let mut spots: Vec<(&Stand, DateSpan)> = Vec::new();
    for stage in [Stage::Germinate, Stage::Grow, Stage::Harden] {
        let Some(days) = moments.days_of(stage) else {
            continue;
        };
        let mut next = Some(days.from);
        while let Some(from) = next {
            next = next_start(tray, stage, from).filter(|start| *start <= days.to);
            let to = next.map_or(days.to, |start| plus_days(start, -1));
            let Some(stand) = tray.stand_on(stage, from) else {
                continue;
            };
            match spots.last_mut() {
                Some((last, span)) if last.same_spot(stand) && plus_days(span.to, 1) == from => {
                    span.to = to;
                }
                _ => spots.push((stand, DateSpan { from, to })),
            }
        }
    }
    spots
}

/// The first day after `from` on which `tray` is to stand elsewhere in `stage`.
fn next_start(tray: &Tray, stage: Stage, from: Date) -> Option<Date> {
    let own = tray.stands.iter().filter(|stand| stand.stage == stage);
    own.filter_map(|stand| stand.from)
        .filter(|start| *start > from)
        .min()
}
