//! The season day by day.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::DateSpan;
use crate::light::daylight::cloudless_mol_m2_d;
use crate::plan::{Stage, Tray};
use crate::room::Place;
use crate::season::reckoned::Reckoned;
use crate::season::suits::Needs;

/// The season day by day, as the ribbon shows it.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SeasonDay {
    /// The day.
    pub date: Date,
    /// Hours from sunrise to sunset.
    pub day_length_h: f64,
    /// Daily light outdoors on an average day, in mol/m²/d: what hardening off leads to.
    pub outdoors_mol_m2_d: f64,
    /// Chance that a frost still comes, 0 to 1.
    pub frost_risk: f64,
    /// Trays that stand in the room.
    pub trays: u32,
    /// Trays that stand nowhere though they germinate or grow.
    pub unplaced: u32,
    /// What all trays ask for on the day, wherever they stand.
    pub demand: Demand,
}

/// Trays by what they ask of a spot.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, ToSchema)]
pub struct Demand {
    /// They germinate, and want it warmer than a room is.
    pub warm: u32,
    /// They grow, and want light.
    pub light: u32,
    /// They harden off.
    pub outdoors: u32,
}

/// Every day of `span` with the trays indoors on it.
pub fn days(reckoned: &Reckoned<'_>, span: DateSpan) -> Vec<SeasonDay> {
    let plan = reckoned.plan;
    let outdoors = |place: &str| plan.place(place).is_some_and(Place::outdoors);
    let indoors = reckoned
        .stays
        .iter()
        .filter(|stay| !outdoors(&stay.bay.place));
    let trays = span.counts(indoors.map(|stay| stay.days));
    let asking: Vec<Asking> = plan.trays.iter().map(|t| Asking::of(reckoned, t)).collect();
    let count = |of: fn(&Asking) -> Option<DateSpan>| span.counts(asking.iter().filter_map(of));
    let warm = count(|asking| asking.warm);
    let light = count(|asking| asking.light);
    let hardening = count(|asking| asking.outdoors);
    let days = span.days().enumerate();
    days.map(|(i, date)| SeasonDay {
        demand: Demand {
            warm: warm[i],
            light: light[i],
            outdoors: hardening[i],
        },
        date,
        day_length_h: plan.site.day_length_h(date),
        outdoors_mol_m2_d: cloudless_mol_m2_d(plan.site.latitude_deg, date)
            * plan.site.average_of_cloudless(),
        frost_risk: plan.site.frost_risk(date),
        trays: trays[i],
        unplaced: reckoned
            .unplaced
            .iter()
            .filter(|tray| tray.on(date))
            .count() as u32,
    })
    .collect()
}

/// The days on which a tray asks for a spot of each sort.
struct Asking {
    warm: Option<DateSpan>,
    light: Option<DateSpan>,
    outdoors: Option<DateSpan>,
}

impl Asking {
    fn of(reckoned: &Reckoned<'_>, tray: &Tray) -> Self {
        let plan = reckoned.plan;
        let moments = reckoned.moments_of(tray);
        let warm = Needs::of(plan, tray, &reckoned.dates).wants_warmth();
        Self {
            warm: moments.days_of(Stage::Germinate).filter(|_| warm),
            light: moments.days_of(Stage::Grow),
            outdoors: moments.days_of(Stage::Harden),
        }
    }
}
