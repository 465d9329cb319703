//! The season day by day.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::DateSpan;
use crate::light::daylight::cloudless_mol_m2_d;
use crate::room::Place;
use crate::season::reckoned::Reckoned;

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
}

/// Every day of `span` with the trays indoors on it.
pub fn days(reckoned: &Reckoned<'_>, span: DateSpan) -> Vec<SeasonDay> {
    let plan = reckoned.plan;
    let outdoors = |place: &str| plan.place(place).is_some_and(Place::outdoors);
    let indoors = reckoned
        .stays
        .iter()
        .filter(|stay| !outdoors(&stay.bay.place));
    let stays: Vec<DateSpan> = indoors.map(|stay| stay.days).collect();
    span.days()
        .map(|date| SeasonDay {
            date,
            day_length_h: plan.site.day_length_h(date),
            outdoors_mol_m2_d: cloudless_mol_m2_d(plan.site.latitude_deg, date)
                * plan.site.average_of_cloudless(),
            frost_risk: plan.site.frost_risk(date),
            trays: stays
                .iter()
                .filter(|days| (days.from..=days.to).contains(&date))
                .count() as u32,
            unplaced: reckoned
                .unplaced
                .iter()
                .filter(|tray| tray.on(date))
                .count() as u32,
        })
        .collect()
}
