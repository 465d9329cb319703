//! What a season brings on which day: the jobs of every sowing, with a note on each.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::crops::{Crop, GerminatesIn, GrownFrom};
use crate::plan::Stage;
use crate::season::dates::SowingDates;
use crate::season::how_many::SowingCells;
use crate::season::reckoned::Reckoned;

/// Something that a sowing's dates bring.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Event {
    /// The day.
    pub date: Date,
    /// What happens.
    pub what: EventKind,
    /// To which sowing.
    pub sowing: String,
    /// Crop and variety in words.
    pub name: String,
    /// In short: what to do.
    pub headline: Statement,
    /// How, and with how much.
    pub note: Statement,
}

/// What may happen to a sowing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum EventKind {
    /// Put its seed cold and moist.
    Chill,
    /// Sow it.
    Sow,
    /// A quarter shows: vent the dome.
    Vent,
    /// Half of it shows: into light.
    Emerge,
    /// The last shows: dome and mat off.
    Uncover,
    /// Thin it, or prick it out.
    Thin,
    /// Pot it on.
    PotOn,
    /// Begin to harden it off.
    Harden,
    /// Plant it out.
    PlantOut,
}

impl EventKind {
    /// All of them.
    pub const ALL: [Self; 9] = [
        Self::Chill,
        Self::Sow,
        Self::Vent,
        Self::Emerge,
        Self::Uncover,
        Self::Thin,
        Self::PotOn,
        Self::Harden,
        Self::PlantOut,
    ];

    /// The day it happens on.
    pub fn on(self, dates: &SowingDates) -> Option<Date> {
        match self {
            Self::Chill => dates.chill,
            Self::Sow => Some(dates.sow),
            Self::Vent => dates.quarter,
            Self::Emerge => dates.emerge,
            Self::Uncover => dates.last,
            Self::Thin => dates.thin,
            Self::PotOn => dates.pot_on,
            Self::Harden => Some(dates.harden),
            Self::PlantOut => Some(dates.out),
        }
    }
}

/// Every job of every sowing, in order.
pub fn all(reckoned: &Reckoned<'_>) -> Vec<Event> {
    let plan = reckoned.plan;
    let mut events = Vec::new();
    for (sowing, dates) in plan.sowings.iter().zip(&reckoned.dates) {
        // Stock that passes through has no jobs of its own.
        if sowing.stays.is_some() {
            continue;
        }
        let crop = plan.crop(sowing);
        let domed = plan.trays_of(&sowing.id).any(|tray| {
            let closed = tray.stand_in(Stage::Germinate).is_some_and(|stand| {
                let place = plan.place(&stand.bay.place);
                place.is_some_and(crate::room::Place::is_closed)
            });
            plan.format(tray).dome_height_mm.is_some() && !closed
        });
        let cells = reckoned
            .how_many
            .iter()
            .find(|cells| cells.sowing == sowing.id);
        for what in EventKind::ALL {
            let Some(date) = what.on(dates) else { continue };
            if matches!(what, EventKind::Vent | EventKind::Uncover) && !domed {
                continue;
            }
            let (headline, note) = words(what, crop, dates, cells);
            events.push(Event {
                date,
                what,
                sowing: sowing.id.clone(),
                name: dates.name.clone(),
                headline,
                note,
            });
        }
    }
    events.sort_by(|a, b| (a.date, a.what, &a.sowing).cmp(&(b.date, b.what, &b.sowing)));
    events
}

fn words(
    what: EventKind,
    crop: &Crop,
    dates: &SowingDates,
    cells: Option<&SowingCells>,
) -> (Statement, Statement) {
    let name = dates.name.as_str();
    let days = |n: f64| Quantity::Days.of(n);
    match what {
        EventKind::Chill => (
            say!("Put {name} cold and moist", name = name),
            say!(
                "In damp paper or mix in a refrigerator for {weeks}, then sow it warm",
                weeks = Quantity::Weeks.of(crop.cold_weeks)
            ),
        ),
        EventKind::Sow => (say!("Sow {name}", name = name), how_to_sow(crop, cells)),
        EventKind::Vent => (
            say!("Vent the dome of {name}", name = name),
            say!("A quarter of it should show"),
        ),
        EventKind::Emerge => (
            say!("{name} shows: into light", name = name),
            say!(
                "Half of it should be up; it bears {days} of darkness now",
                days = days(crop.dark_days)
            ),
        ),
        EventKind::Uncover => (
            say!("Dome off and mat off {name}", name = name),
            say!("All of it should be up; the mat is free for the next"),
        ),
        EventKind::Thin => (
            if crop.plants_per_cell > 1 {
                say!("Look over the clumps of {name}", name = name)
            } else {
                say!("Thin {name}, or prick it out", name = name)
            },
            match cells.and_then(|cells| cells.to_sow.as_ref()) {
                Some(sow) => say!(
                    "The first true leaves are there: keep the strongest; some {thinnings} come off. First very weak feed",
                    thinnings = Quantity::Count.of(sow.thinnings.round())
                ),
                None => say!("The first true leaves are there: keep the strongest"),
            },
        ),
        EventKind::PotOn => (
            say!("Pot {name} on", name = name),
            say!(
                "Into pots of {ml}, before roots circle; it takes more room from now on",
                ml = Quantity::VolumeMl.of(crop.pot_on_ml)
            ),
        ),
        EventKind::Harden => (
            say!("Begin to harden {name} off", name = name),
            say!(
                "Out by day and in by night for {days}; in again on a night of frost",
                days = days(f64::from(crop.hardening_days))
            ),
        ),
        EventKind::PlantOut => (
            say!("Plant {name} out", name = name),
            say!(
                "A frost still comes in {risk} of all years",
                risk = Quantity::Share.of(dates.frost_risk_out)
            ),
        ),
    }
}

fn how_to_sow(crop: &Crop, cells: Option<&SowingCells>) -> Statement {
    let how = match (crop.grown_from, crop.germinates_in) {
        (GrownFrom::Slips, _) => "set the root in water or damp mix, warm",
        (GrownFrom::Cuttings, _) => "stick them, warm and damp",
        (_, GerminatesIn::Light) => "on the surface, in light",
        (_, GerminatesIn::Dark) => "covered, in the dark",
        (_, GerminatesIn::Either) => "covered",
    };
    match cells.and_then(|cells| cells.to_sow.as_ref()) {
        Some(sow) => say!(
            "{cells} cells, {each} to a cell, {depth} deep, {how}, at {warm}",
            cells = Quantity::Count.of(f64::from(sow.cells)),
            each = Quantity::Count.of(f64::from(sow.seeds_per_cell)),
            depth = Quantity::LengthMm.of(crop.sow_depth_mm),
            how = how,
            warm = Quantity::TemperatureC.of(crop.root_zone_c),
        ),
        None => say!(
            "{depth} deep, {how}, at {warm}",
            depth = Quantity::LengthMm.of(crop.sow_depth_mm),
            how = how,
            warm = Quantity::TemperatureC.of(crop.root_zone_c),
        ),
    }
}
