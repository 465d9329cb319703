//! Where every tray stands and when, and which want the same spot.

use std::collections::BTreeMap;

use crate::basis::dates::DateSpan;
use crate::basis::plane::Footprint;
use crate::basis::work::go_on;
use crate::plan::{SoundPlan, Stage, Tray};
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
    /// The days.
    pub days: DateSpan,
}

/// Where every tray stands and when. A tray that stays put stands there once, not once a stage.
pub fn stays<'a>(plan: &'a SoundPlan, dates: &[SowingDates]) -> Vec<Stay<'a>> {
    let mut stays: Vec<Stay<'_>> = Vec::new();
    for tray in &plan.trays {
        let format = plan.format(tray);
        let moments = TrayMoments::of(plan, tray, dates);
        for stage in [Stage::Germinate, Stage::Grow, Stage::Harden] {
            let (Some(stand), Some(days)) = (tray.stand_in(stage), moments.days_of(stage)) else {
                continue;
            };
            let footprint = stand.footprint(format);
            match stays.last_mut() {
                Some(last)
                    if std::ptr::eq(last.tray, tray)
                        && last.bay == &stand.bay
                        && last.footprint == footprint =>
                {
                    last.days.to = days.to;
                }
                _ => stays.push(Stay {
                    tray,
                    bay: &stand.bay,
                    footprint,
                    days,
                }),
            }
        }
    }
    stays
}
