//! The moments of a sowing and of a tray: the one owner of when something shows, when dome and mat are
//! on, when lamps burn, and when it goes into light.
//!
//! The first show at a tenth; at a quarter the dome is vented; at half it counts as up; at nine tenths
//! all are. Lamps burn from the first that shows, and from sowing for seed that germinates in light.
//! Dome and mat come off when all are up. Out of a dark place, and out of a chamber, a tray goes at
//! half up, sooner where its crop bears less darkness (common practice, no source).

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, plus_days};
use crate::crops::{Crop, GerminatesIn, GrownFrom};
use crate::plan::{SoundPlan, Stage, Tray};
use crate::season::sowing_dates::SowingDates;

/// The moments at which a sowing shows; each `None` where it does not come so far before it is
/// hardened off.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Moments {
    /// A tenth shows.
    pub first: Option<Date>,
    /// A quarter does: the dome is vented.
    pub quarter: Option<Date>,
    /// Half does: it is up.
    pub half: Option<Date>,
    /// Nine tenths do: all are up.
    pub all: Option<Date>,
    /// Its lamps burn from this day on.
    pub lamps_on: Option<Date>,
    /// Out of a dark place, or a chamber, on this day at the latest.
    pub into_light: Option<Date>,
}

impl Moments {
    /// The moments of `crop` whose shares of seedlings show on these days: a tenth, a quarter, half,
    /// nine tenths.
    pub(super) fn of(
        crop: &Crop,
        sow: Date,
        [first, quarter, half, all]: [Option<Date>; 4],
    ) -> Self {
        let bears = crop.dark_days.floor() as i32;
        let spoils = first.map(|first| plus_days(first, bears));
        Self {
            first,
            quarter,
            half,
            all,
            lamps_on: if in_light(crop) {
                Some(sow)
            } else {
                first.or(half)
            },
            into_light: half.map(|half| spoils.map_or(half, |day| day.min(half))),
        }
    }

    /// Of stock that is there from `day` on.
    pub(super) fn there_from(day: Date) -> Self {
        Self {
            first: Some(day),
            quarter: None,
            half: Some(day),
            all: Some(day),
            lamps_on: Some(day),
            into_light: Some(day),
        }
    }
}

/// Whether the lamps of `crop` burn from sowing on: cuttings stand in the light from the first day.
pub(super) fn in_light(crop: &Crop) -> bool {
    crop.germinates_in == GerminatesIn::Light || crop.grown_from != GrownFrom::Seed
}

impl SowingDates {
    /// The stage on `date`; `None` before sowing.
    pub fn stage_on(&self, date: Date) -> Option<Stage> {
        stage_on(
            date,
            self.sow,
            self.emerge.unwrap_or(self.harden),
            self.harden,
            self.out,
        )
    }

    /// Whether its lamps are to burn on `date`, where it has any.
    pub fn wants_lamps_on(&self, date: Date) -> bool {
        self.lamps_on
            .is_some_and(|on| (on..self.harden).contains(&date))
    }
}

fn stage_on(date: Date, sow: Date, grows: Date, harden: Date, out: Date) -> Option<Stage> {
    match date {
        _ if date < sow => None,
        _ if date >= out => Some(Stage::Out),
        _ if date >= harden => Some(Stage::Harden),
        _ if date >= grows => Some(Stage::Grow),
        _ => Some(Stage::Germinate),
    }
}

/// When a sowing is in a tray: from sowing or potting on, until it is potted on into another or
/// planted out.
#[derive(Debug, Clone, Copy)]
pub struct PartSpan<'a> {
    dates: &'a SowingDates,
    potted: bool,
    /// The day it comes into the tray.
    pub from: Date,
    /// The day hardening off begins, or it leaves the tray before.
    pub harden: Date,
    /// The day it leaves the tray.
    pub until: Date,
}

impl<'a> PartSpan<'a> {
    /// Of the sowing with `dates` in `tray`. Pots that nothing is ever potted on into have no days.
    pub fn of(plan: &SoundPlan, tray: &Tray, dates: &'a SowingDates) -> Self {
        let potted = tray.potted;
        let pots = plan.potted_into(&dates.sowing).next().is_some();
        let past = plan.happened().tray(&tray.id);
        let out = past.and_then(|past| past.planted_out).unwrap_or(dates.out);
        let (from, until) = match (potted, dates.pot_on_of(tray)) {
            (false, Some(day)) if pots => (dates.sow, day),
            (false, _) => (dates.sow, out.max(dates.sow)),
            (true, day) => {
                let from = day.unwrap_or(dates.out);
                (from, out.max(from))
            }
        };
        Self {
            dates,
            potted,
            from,
            harden: dates.harden.min(until).max(from),
            until,
        }
    }

    /// The stage of what is in the tray on `date`; `None` before it is there.
    pub fn stage_on(&self, date: Date) -> Option<Stage> {
        let up = self.dates.emerge.unwrap_or(self.harden);
        let grows = if self.potted { self.from } else { up };
        stage_on(date, self.from, grows, self.harden, self.until)
    }

    /// Whether it is in the tray on `date`.
    pub fn is_there(&self, date: Date) -> bool {
        (self.from..self.until).contains(&date)
    }
}

/// The moments of a tray: one of each, whatever grows in it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct TrayMoments {
    /// Day the first of it is sown, or potted on into it.
    pub sow: Date,
    /// Day its dome is vented: a quarter of the first of its sowings shows.
    pub vent: Option<Date>,
    /// Day all of it is up, and dome and mat come off; the day hardening begins when some of it
    /// never is.
    pub all_up: Date,
    /// Day it leaves the spot that it germinates in, if it has another to grow in.
    pub moves: Date,
    /// Whether it germinates in the dark, or in a chamber: it leaves at half up.
    pub shut_in: bool,
    /// Day hardening off begins.
    pub harden: Date,
    /// Day the last of it leaves: potted on or planted out.
    pub out: Date,
}

impl TrayMoments {
    /// The moments of all trays of `plan`, whose sowings have their `dates`, each in its order.
    pub(super) fn all(plan: &SoundPlan, dates: &[SowingDates]) -> Vec<Self> {
        let trays = plan.trays.iter();
        trays.map(|tray| Self::of(plan, tray, dates)).collect()
    }

    /// The moments of `tray`, whose sowings have their `dates` in the plan's order.
    pub fn of(plan: &SoundPlan, tray: &Tray, dates: &[SowingDates]) -> Self {
        let parts = || {
            let parts = tray.parts.iter();
            parts.map(|part| &dates[plan.sowing_index(&part.sowing)])
        };
        const PARTS: &str = "a sound plan's trays have parts";
        let spans = || parts().map(|dates| PartSpan::of(plan, tray, dates));
        let sow = spans().map(|span| span.from).min().expect(PARTS);
        let harden = spans().map(|span| span.harden).max().expect(PARTS);
        let out = spans().map(|span| span.until).max().expect(PARTS);
        if tray.potted {
            return Self {
                sow,
                vent: None,
                all_up: sow,
                moves: sow,
                shut_in: false,
                harden,
                out,
            };
        }
        let all_up = parts()
            .map(|d| d.last.unwrap_or(d.harden))
            .max()
            .expect(PARTS);
        let into_light = parts().filter_map(|d| d.into_light).min();
        let shut_in = tray.stand_in(Stage::Germinate).is_some_and(|stand| {
            let bay = plan.bay(&stand.bay);
            bay.is_some_and(|bay| bay.is_dark() || bay.place.keeps_damp_in())
        });
        let shut_in = shut_in || plan.is_covered(tray);
        Self {
            sow,
            vent: parts().filter_map(|d| d.quarter).min(),
            all_up,
            moves: carried_off(plan, tray)
                .or(into_light.filter(|_| shut_in))
                .unwrap_or(all_up),
            shut_in,
            harden,
            out,
        }
    }

    /// The stage on `date`; `None` before sowing.
    pub fn stage_on(&self, date: Date) -> Option<Stage> {
        stage_on(date, self.sow, self.moves, self.harden, self.out)
    }

    /// The days of `stage`, from its first up to and including its last; `None` when it has none.
    pub fn days_of(&self, stage: Stage) -> Option<DateSpan> {
        let (from, until) = match stage {
            Stage::Germinate => (self.sow, self.moves.min(self.harden)),
            Stage::Grow => (self.moves, self.harden),
            Stage::Harden => (self.harden, self.out),
            Stage::Out => return None,
        };
        (from < until).then(|| DateSpan {
            from,
            to: plus_days(until, -1),
        })
    }

    /// Whether it wants warmth and damp on `date`: not all of it is up yet.
    pub fn coming_up(&self, date: Date) -> bool {
        (self.sow..self.all_up.min(self.harden)).contains(&date)
    }

    /// The day `tray` is done with the mat it germinates on: when all is up, or when it goes
    /// elsewhere before.
    pub fn leaves_mat(&self, tray: &Tray) -> Date {
        let first = tray.stand_in(Stage::Germinate);
        let own = tray.stands.iter();
        let dated = own.filter(|stand| stand.stage == Stage::Germinate);
        let carried = dated.filter_map(|stand| stand.from).min();
        let grows = (tray.stand_in(Stage::Grow) != first).then_some(self.moves);
        let leaves = [carried, grows].into_iter().flatten();
        leaves.fold(self.all_up, Date::min)
    }
}

/// The day `tray` was carried from where it germinates to where it is to grow, as far as the log says.
fn carried_off(plan: &SoundPlan, tray: &Tray) -> Option<Date> {
    let past = plan.happened().tray(&tray.id)?;
    let first = &tray.stand_in(Stage::Germinate)?.bay;
    let grows = &tray.stand_in(Stage::Grow)?.bay;
    let moved = past.moved.iter();
    let mut moved = moved.filter(|(_, bay)| bay == grows && bay != first);
    moved.next().map(|(day, _)| *day)
}
