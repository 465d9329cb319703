//! How a file of daily minima is to be understood.

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::range::Ranges;
use crate::basis::units::Quantity;
use crate::site::frost::Caution;
use crate::site::frost::LAST_FROST_SD_DAYS;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// How the file is to be understood.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields, default)]
pub struct Understanding {
    /// What the record is to be called.
    pub name: String,
    /// Its unit.
    pub unit: DegreeUnit,
    /// A day whose minimum is at or below this is one of frost, in °C.
    pub threshold_c: f64,
    /// How cautious one is.
    pub caution: Caution,
    /// How far the last frost strays from year to year, as a standard deviation in days: counts
    /// where the file is of one typical year, which gives no odds of its own.
    pub spread_days: f64,
    /// Latitude of the place in degrees, north positive: it decides when summer is.
    pub latitude_deg: f64,
    /// The year for which dates are wanted.
    pub year: i16,
}

impl Default for Understanding {
    fn default() -> Self {
        Self {
            name: "daily minima".into(),
            unit: DegreeUnit::C,
            threshold_c: 0.0,
            caution: Caution::Even,
            spread_days: LAST_FROST_SD_DAYS,
            latitude_deg: 50.0,
            year: 2027,
        }
    }
}

impl Understanding {
    /// # Errors
    /// Every figure out of range, by its path.
    pub(super) fn check(&self) -> Result<(), Vec<Fault>> {
        let mut faults = Faults::default();
        self.look_over(&mut faults);
        faults.verdict()
    }

    /// The ranges of its figures.
    pub(crate) fn ranges(&self) -> Ranges {
        let mut faults = Faults::with_ranges();
        self.look_over(&mut faults);
        faults.into_ranges()
    }

    fn look_over(&self, faults: &mut Faults) {
        let root = Pointer::default();
        faults.name(&root.at("name"), &self.name);
        for (name, value, range, quantity) in [
            (
                "threshold_c",
                self.threshold_c,
                -15.0..=5.0,
                Quantity::TemperatureC,
            ),
            ("spread_days", self.spread_days, 1.0..=60.0, Quantity::Days),
            (
                "latitude_deg",
                self.latitude_deg,
                -90.0..=90.0,
                Quantity::AngleDeg,
            ),
            (
                "year",
                f64::from(self.year),
                1900.0..=2200.0,
                Quantity::Count,
            ),
        ] {
            faults.number(&root.at(name), value, range, quantity);
        }
    }
}

/// A unit of temperature.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DegreeUnit {
    /// °C.
    #[default]
    C,
    /// °F.
    F,
}
