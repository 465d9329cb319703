//! Other ways beside the one that is there, and readings beside what was reckoned.

use jiff::civil::Date;

use crate::basis::fault::Fault;
use crate::compare;
use crate::compare::chamber::ChamberWay;
use crate::compare::frontier::Frontier;
use crate::compare::least_gear::{LeastGear, Lessening};
use crate::compare::making_room::{Overflow, Trying};
use crate::compare::savings::Savings;
use crate::compare::warmth::WarmWays;
use crate::compare::{SetUp, chamber, warmth};
use crate::day::frost_night::FrostNight;
use crate::light::fields::Fields;
use crate::plan::SoundPlan;
use crate::readings::lux_meter;
use crate::readings::lux_meter::{Probe, Probed};
use crate::room::BayRef;
use crate::season::Reckoned;
use crate::season::mats::MatSeason;

/// Other set-ups of a bay on `date`; see [`compare::set_ups`].
pub fn set_ups(plan: &SoundPlan, bay: &BayRef, date: Date, fields: &Fields) -> Vec<SetUp> {
    compare::set_ups(&Reckoned::of(plan, fields), bay, date)
}

/// What the lamps cost on `date`, and what gives the same light for less; see [`compare::savings`].
pub fn savings(
    plan: &SoundPlan,
    date: Date,
    fields: &Fields,
    tell: &mut dyn FnMut(Lessening) -> bool,
) -> Savings {
    compare::savings::savings(&Reckoned::of(plan, fields), date, tell)
}

/// Set-ups of a bay, or of every lit shelf together, by cost and by what they raise; see [`compare::frontier`].
pub fn frontier(
    plan: &SoundPlan,
    bay: Option<&BayRef>,
    date: Date,
    fields: &Fields,
    tell: &mut dyn FnMut(Lessening) -> bool,
) -> Option<Frontier> {
    compare::frontier::frontier(&Reckoned::of(plan, fields), bay, date, tell)
}

/// Other ways to warm what germinates in a bay on `date`; see [`warmth::warm_ways`].
pub fn warm_ways(plan: &SoundPlan, bay: &BayRef, date: Date, fields: &Fields) -> Option<WarmWays> {
    warmth::warm_ways(&Reckoned::of(plan, fields), bay, date)
}

/// Other ways to set up a chamber on `date`; see [`chamber::chamber_ways`].
pub fn chamber_ways(
    plan: &SoundPlan,
    bay: &BayRef,
    date: Date,
    fields: &Fields,
) -> Vec<ChamberWay> {
    chamber::chamber_ways(&Reckoned::of(plan, fields), bay, date)
}

/// Which sowings deserve a mat, and how few mats serve the season.
pub fn mat_season(plan: &SoundPlan, fields: &Fields) -> MatSeason {
    MatSeason::of(&Reckoned::of(plan, fields))
}

/// What `plan` has no room for, and ways to make room; see [`compare::making_room`].
pub fn make_room(
    plan: &SoundPlan,
    fields: &Fields,
    tell: &mut dyn FnMut(Trying) -> bool,
) -> Overflow {
    compare::making_room::make_room(plan, fields, tell)
}

/// How few lit shelves and racks serve the season; see [`compare::least_gear`].
pub fn least_gear(
    plan: &SoundPlan,
    fields: &Fields,
    tell: &mut dyn FnMut(Lessening) -> bool,
) -> LeastGear {
    compare::least_gear::least_gear(plan, fields, tell)
}

/// Where everything that is outside on `date` goes for a night of frost; `None` where nothing is.
pub fn frost_night(plan: &SoundPlan, date: Date, fields: &Fields) -> Option<FrostNight> {
    FrostNight::on(&Reckoned::of(plan, fields), date)
}

/// A meter held over a deck; see [`lux_meter::probe`].
///
/// # Errors
/// The fields of `asked` that cannot be.
pub fn probe(plan: &SoundPlan, asked: &Probe, fields: &Fields) -> Result<Probed, Vec<Fault>> {
    lux_meter::probe(&Reckoned::of(plan, fields), asked)
}
