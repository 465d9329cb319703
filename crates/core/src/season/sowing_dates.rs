//! The dates of one sowing.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::days_between;
use crate::basis::words::Why;
use crate::plan::Tray;
use crate::season::in_the_bed::InTheBed;
use crate::season::pace::Pace;
use crate::season::past::Seen;

/// The dates of one sowing. Each stage runs from its own date up to the day before the next.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SowingDates {
    /// The sowing.
    pub sowing: String,
    /// Crop and variety in words.
    pub name: String,
    /// The crop's name.
    pub crop: String,
    /// The variety; empty where nobody minds, or a number that tells several apart.
    pub variety: String,
    /// Day on which its seed goes cold and moist; `None` when it needs no cold.
    pub chill: Option<Date>,
    /// Day to sow.
    pub sow: Date,
    /// Day on which the first tenth of the seedlings show; `None` when none come up.
    pub first: Option<Date>,
    /// Day on which a quarter show: the dome is vented; `None` when none come up.
    pub quarter: Option<Date>,
    /// Day on which half of the seedlings show; `None` when none come up.
    pub emerge: Option<Date>,
    /// Day on which nine tenths show; `None` when none come up, or not in time.
    pub last: Option<Date>,
    /// Day from which its lamps are to burn; `None` when none come up.
    pub lamps_on: Option<Date>,
    /// Day on which it has to leave a dark place; `None` when none come up in time.
    pub into_light: Option<Date>,
    /// Day to thin or to prick out: the first true leaves are there; `None` when none come up in
    /// time.
    pub thin: Option<Date>,
    /// Day to pot on the first of it; `None` when it stays where it was sown.
    pub pot_on: Option<Date>,
    /// Each day on which plants of it go into pots, in order.
    pub potting: Vec<PottingDay>,
    /// Day on which hardening off begins.
    pub harden: Date,
    /// Day to plant out.
    pub out: Date,
    /// Chance of a frost on or after the day to plant out, 0 to 1.
    pub frost_risk_out: f64,
    /// The share of good seeds that come up where it germinates, 0 to 1.
    pub comes_up: f64,
    /// Mean temperature of the mix while it germinates, in °C.
    pub root_zone_c: f64,
    /// Days that it takes longer to come up there than where it does best.
    pub late_days: f64,
    /// Whether it takes so long that it wants warmth, and is not to be sown any earlier for it.
    pub needs_warmth: bool,
    /// Whether it has a spot to germinate in: without one its days are reckoned as if in the room's air.
    pub stands: bool,
    /// How fast it grows where it stands; `None` where it stands nowhere, and for stock that only
    /// passes through.
    pub pace: Option<Pace>,
    /// The same crop sown in the bed in a usual year; `None` where it never gets so far there.
    pub in_the_bed: Option<InTheBed>,
    /// Whether its crop is one that is raised for the autumn, too.
    pub raised_for_autumn: bool,
    /// Mean days to emergence at the root-zone temperature here; `None` when none come up.
    pub emergence_days: Option<f64>,
    /// Whether the day it was sown is in the log: nothing in the plan moves it then.
    pub sown_logged: bool,
    /// What was counted last; `None` when nobody counted.
    pub seen: Option<Seen>,
    /// Days later than reckoned that half of it showed, by what was counted; negative when sooner.
    pub behind_days: i32,
    /// The rule behind each date.
    pub why: DatesWhy,
}

/// A day on which plants of a sowing go into pots.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct PottingDay {
    /// The day.
    pub on: Date,
    /// The trays of cells that they leave, and those of pots that they come into, in the order of their
    /// identifiers.
    pub trays: Vec<String>,
}

/// The days on which a sowing shows.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct Shows {
    /// It was sown.
    pub sow: Date,
    /// The first tenth.
    pub first: Date,
    /// Half.
    pub half: Date,
    /// Nine tenths.
    pub last: Date,
}

/// Why each date of a sowing is as it is.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct DatesWhy {
    /// The day to sow.
    pub sow: Why,
    /// The day it shows.
    pub emerge: Why,
    /// The day to plant out.
    pub out: Why,
}

impl SowingDates {
    /// The days on which it shows; `None` when none come up in time.
    pub fn shows(&self) -> Option<Shows> {
        let half = self.emerge?;
        Some(Shows {
            sow: self.sow,
            first: self.first.unwrap_or(half),
            half,
            last: self.last.unwrap_or(half),
        })
    }

    /// Days since emergence on `date`, `None` before it.
    pub fn days_up(&self, date: Date) -> Option<i32> {
        let days = days_between(self.emerge?, date);
        (days >= 0).then_some(days)
    }

    /// The day on which plants of it leave `tray` for pots, or come into `tray` where that is pots;
    /// `None` where they do not.
    pub fn pot_on_of(&self, tray: &Tray) -> Option<Date> {
        let of_it = |day: &&PottingDay| day.trays.binary_search(&tray.id).is_ok();
        self.potting.iter().find(of_it).map(|day| day.on)
    }
}
