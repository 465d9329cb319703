//! Trays that stand nowhere though they hold what is sown and not yet hardened off.

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, plus_days};
use crate::plan::{SoundPlan, Stage, Tray};
use crate::season::moments::TrayMoments;
use crate::season::stays::spots;

/// A tray that stands nowhere, with the days.
#[derive(Debug, Clone)]
pub struct Unplaced<'a> {
    /// The tray.
    pub tray: &'a Tray,
    /// The days without a spot.
    pub days: DateSpan,
}

impl Unplaced<'_> {
    /// Whether it stands nowhere on `date`.
    pub fn on(&self, date: Date) -> bool {
        (self.days.from..=self.days.to).contains(&date)
    }
}

/// Every tray that stands nowhere while it germinates or grows. Hardening off has no need of a spot:
/// trays may be carried out and in.
pub fn unplaced<'a>(plan: &'a SoundPlan, moments: &[TrayMoments]) -> Vec<Unplaced<'a>> {
    let lacks = |(tray, moments): (&'a Tray, &TrayMoments)| {
        let stages = [Stage::Germinate, Stage::Grow].into_iter();
        let mut all = stages.filter_map(|stage| moments.days_of(stage));
        let first = all.next()?;
        // Once it has a spot it keeps one.
        let stands = spots(tray, moments);
        let last = all.next_back().map_or(first.to, |days| days.to);
        let to = stands
            .first()
            .map_or(last, |(_, days)| last.min(plus_days(days.from, -1)));
        (first.from <= to).then_some(Unplaced {
            tray,
            days: DateSpan {
                from: first.from,
                to,
            },
        })
    };
    plan.trays.iter().zip(moments).filter_map(lacks).collect()
}
