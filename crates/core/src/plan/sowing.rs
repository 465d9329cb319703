//! A batch of one variety, and what is wanted of it.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::dates::{DateSpan, days_between};
use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::plan::differs::Differs;

/// A batch of one variety, sown on one day.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sowing {
    /// Identifier that trays name.
    pub id: String,
    /// The kind, from the crop library.
    pub crop: String,
    /// The variety, as the packet calls it; empty, or a number to tell several of a crop apart, where
    /// nobody minds.
    pub variety: String,
    /// Plants wanted in the end.
    pub wanted: u32,
    /// Root-zone temperature while it germinates, as a thermometer in the mix shows it; left out,
    /// the room's air decides.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub root_zone_c: Option<f64>,
    /// Why it is started indoors.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reason: Option<Reason>,
    /// Whether it is raised for the autumn: its dates are counted back from the first frost.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub autumn: bool,
    /// Days by which all its dates are moved from where the frosts put them, later positive.
    #[serde(default, skip_serializing_if = "is_zero")]
    pub shift_days: i32,
    /// The day it is sown, where the gardener has fixed it: nothing moves it then.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sow_on: Option<Date>,
    /// Whether it has been sown, on that day.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub sown: bool,
    /// The day it is planted out, where the gardener has fixed it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub out_on: Option<Date>,
    /// Planted out, it is kept under cover until this day: frost does it no harm before.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub covered_until: Option<Date>,
    /// Weeks indoors as its packet says; left out, the crop's own, lengthened by what emergence and
    /// growth take longer here.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub packet_weeks: Option<f64>,
    /// Stock that only passes through, such as overwintering pots: it is there on these days, and
    /// nothing germinates.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stays: Option<DateSpan>,
    /// The packet that it is sown from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub packet: Option<String>,
    /// Plants to raise over those wanted, as a share of them.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spare: Option<f64>,
    /// How sure one wants to be of the plants wanted, 0.5 to 0.9999; 0.95 when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sure: Option<f64>,
    /// Seeds in each cell; left out, as many as keep cells from staying empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seeds_per_cell: Option<u32>,
    /// Whether seed is few or dear: one to a cell, or a clump's worth, and none to spare.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub fewest_seeds: bool,
    /// In what the variety differs from its kind.
    #[serde(default, skip_serializing_if = "Differs::is_none")]
    pub differs: Differs,
    /// Whether it is potted on as the crop usually is; left out, yes. No means its final pot from
    /// the start.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pots_on: Option<bool>,
    /// Days that it is potted on after its roots fill their cells, for want of room.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pot_on_later_days: Option<i32>,
}

impl Sowing {
    /// `wanted` plants of a crop, as it usually is raised.
    pub fn plain(id: &str, crop: &str, variety: &str, wanted: u32) -> Self {
        Self {
            id: id.to_owned(),
            crop: crop.to_owned(),
            variety: variety.to_owned(),
            wanted,
            root_zone_c: None,
            reason: None,
            autumn: false,
            shift_days: 0,
            sow_on: None,
            sown: false,
            out_on: None,
            covered_until: None,
            packet_weeks: None,
            stays: None,
            packet: None,
            spare: None,
            sure: None,
            seeds_per_cell: None,
            fewest_seeds: false,
            differs: Differs::default(),
            pots_on: None,
            pot_on_later_days: None,
        }
    }

    /// What it is called in words, of the crop that is called `crop`: with its variety, or the number
    /// that stands in for one.
    pub fn called(&self, crop: &str) -> String {
        match self.variety.as_str() {
            "" => crop.to_owned(),
            n if n.bytes().all(|b| b.is_ascii_digit()) => format!("{crop} {n}"),
            variety => format!("{crop} ‘{variety}’"),
        }
    }
}

fn is_zero(days: &i32) -> bool {
    *days == 0
}

/// Why a sowing is started indoors.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Reason {
    /// For an earlier crop.
    Earlier,
    /// No bed is free yet.
    NoFreeBed,
    /// Out of the way of slugs, mice and birds.
    Pests,
    /// Its seed needs cold first.
    ColdFirst,
    /// To sell.
    ToSell,
    /// Another.
    Other,
}

impl Sowing {
    pub(super) fn check_more(&self, at: &Pointer, faults: &mut Faults) {
        let shift = f64::from(self.shift_days);
        faults.number(&at.at("shift_days"), shift, -200.0..=300.0, Quantity::Days);
        if self.sown && self.sow_on.is_none() {
            faults.add(
                &at.at("sown"),
                true,
                say!("it is marked as sown, and no day is given"),
                say!("give the day it was sown in sow_on"),
            );
        }
        if let (Some(sow), Some(out)) = (self.sow_on, self.out_on)
            && !(1..=400).contains(&days_between(sow, out))
        {
            faults.add(
                &at.at("out_on"),
                out,
                say!(
                    "sown on {sow}, it would go out on {out}",
                    sow = sow,
                    out = out
                ),
                say!("give a day to plant out 1 to 400 days after sowing"),
            );
        }
        if let (Some(out), Some(until)) = (self.out_on, self.covered_until)
            && until < out
        {
            faults.add(
                &at.at("covered_until"),
                until,
                say!(
                    "the cover would come off on {until}, before it goes out on {out}",
                    until = until,
                    out = out
                ),
                say!("give a day on or after planting out"),
            );
        }
        if let Some(weeks) = self.packet_weeks {
            let at = at.at("packet_weeks");
            faults.number(&at, weeks, 0.5..=60.0, Quantity::Weeks);
        }
        if let Some(DateSpan { from, to }) = self.stays
            && !(0..=400).contains(&days_between(from, to))
        {
            faults.add(
                &at.at("stays").at("to"),
                to,
                say!("it stays from {from} to {to}", from = from, to = to),
                say!("give a last day on or after the first, 400 days later at the most"),
            );
        }
        if let Some(spare) = self.spare {
            faults.number(&at.at("spare"), spare, 0.0..=5.0, Quantity::Share);
        }
        if let Some(sure) = self.sure {
            faults.number(&at.at("sure"), sure, 0.5..=0.9999, Quantity::Share);
        }
        if let Some(days) = self.pot_on_later_days {
            let at = at.at("pot_on_later_days");
            faults.number(&at, f64::from(days), 0.0..=28.0, Quantity::Days);
        }
        if let Some(seeds) = self.seeds_per_cell {
            let at = at.at("seeds_per_cell");
            faults.number(&at, f64::from(seeds), 1.0..=50.0, Quantity::Count);
        }
    }
}
