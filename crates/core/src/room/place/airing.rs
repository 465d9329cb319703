//! How a closed place is aired: how far it is opened, and when.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::clock::DAY_H;
use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;

/// How a chamber, a shut closet or a shelf behind film is aired: a door ajar, a flap turned back.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Airing {
    /// How wide the gap is, over the whole height.
    pub gap_mm: f64,
    /// When it is opened, in hours after midnight.
    pub from_h: f64,
    /// How long it stays open: 24 for the whole day, 0 for never.
    pub hours: f64,
    /// Only while the air in it is warmer than this, in °C; whatever the air is when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub over_c: Option<f64>,
}

impl Airing {
    pub(crate) fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.number(
            &at.at("gap_mm"),
            self.gap_mm,
            1.0..=2000.0,
            Quantity::LengthMm,
        );
        faults.number(&at.at("from_h"), self.from_h, 0.0..=DAY_H, Quantity::ClockH);
        faults.number(&at.at("hours"), self.hours, 0.0..=DAY_H, Quantity::Hours);
        if let Some(c) = self.over_c {
            faults.number(&at.at("over_c"), c, 0.0..=50.0, Quantity::TemperatureC);
        }
    }
}
