//! The moments of a sowing and of a tray.

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, plus_days};
use crate::plan::{SoundPlan, Stage, Tray};
use crate::season::dates::SowingDates;

/// When a tray moves from stage to stage: as one, whatever grows in it. It germinates until all
/// its sowings are up (its dome stays on so long), and stays indoors until the last may harden.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct TrayDates {
    /// Day the first of it is sown.
    pub sow: Date,
    /// Day all of it is up; the day hardening begins when some of it never is.
    pub up: Date,
    /// Day hardening off begins.
    pub harden: Date,
    /// Day the last of it is planted out.
    pub out: Date,
}

impl TrayDates {
    /// The dates of `tray` among those of all sowings, in the plan's order.
    pub fn of(plan: &SoundPlan, tray: &Tray, dates: &[SowingDates]) -> Self {
        let parts = tray
            .parts
            .iter()
            .map(|part| &dates[plan.sowing_index(&part.sowing)]);
        parts
            .map(Self::from)
            .reduce(|a, b| Self {
                sow: a.sow.min(b.sow),
                up: a.up.max(b.up),
                harden: a.harden.max(b.harden),
                out: a.out.max(b.out),
            })
            .expect("a sound plan's trays have parts")
    }

    /// The stage on `date`; `None` before sowing.
    pub fn stage_on(&self, date: Date) -> Option<Stage> {
        if date < self.sow {
            None
        } else if date >= self.out {
            Some(Stage::Out)
        } else if date >= self.harden {
            Some(Stage::Harden)
        } else if date >= self.up {
            Some(Stage::Grow)
        } else {
            Some(Stage::Germinate)
        }
    }

    /// The days of `stage`, from its first up to and including its last; `None` when it has none.
    pub fn days_of(&self, stage: Stage) -> Option<DateSpan> {
        let (from, until) = match stage {
            Stage::Germinate => (self.sow, self.up.min(self.harden)),
            Stage::Grow => (self.up, self.harden),
            Stage::Harden => (self.harden, self.out),
            Stage::Out => return None,
        };
        (from < until).then(|| DateSpan {
            from,
            to: plus_days(until, -1),
        })
    }
}

impl From<&SowingDates> for TrayDates {
    /// A tray with this sowing alone.
    fn from(dates: &SowingDates) -> Self {
        Self {
            sow: dates.sow,
            up: dates.emerge.unwrap_or(dates.harden),
            harden: dates.harden,
            out: dates.out,
        }
    }
}

impl SowingDates {
    /// The stage on `date`; `None` before sowing.
    pub fn stage_on(&self, date: Date) -> Option<Stage> {
        TrayDates::from(self).stage_on(date)
    }
}
