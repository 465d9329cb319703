//! What one device draws on a day.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::clock::{Burning, ClockSpan, DAY_H};
use crate::basis::units::energy_kwh;
use crate::room::BayRef;
use crate::site::Site;

/// What kind of thing draws.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Drawer {
    /// A lamp.
    Lamp,
    /// A heat mat in the open.
    Mat,
    /// A heat mat that warms a chamber.
    Chamber,
    /// A fan.
    Fan,
    /// Something else of the household.
    Appliance,
}

/// A device that draws on a day.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Draw {
    /// What kind of thing it is.
    pub what: Drawer,
    /// The bay that it hangs or lies in; left out for what is elsewhere.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub bay: Option<BayRef>,
    /// Its identifier.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// Power at the plug while it is on, in W.
    pub watts: f64,
    /// Watts over volt-amperes; 1 when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub power_factor: Option<f64>,
    /// The feed that it is plugged into; left out where nobody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub plugged: Option<String>,
    /// The hours in which it may be on; all day when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hours: Option<ClockSpan>,
    /// The share of those hours in which it is on, 0 to 1: a thermostat's.
    #[serde(default = "always")]
    pub duty: f64,
}

fn always() -> f64 {
    1.0
}

impl Draw {
    /// Power on average while it may be on, in W.
    pub fn mean_w(&self) -> f64 {
        self.watts * self.duty
    }

    /// Apparent power while it is on, in VA.
    pub fn volt_amps(&self) -> f64 {
        self.watts / self.power_factor.unwrap_or(1.0)
    }

    /// The hours in which it may be on.
    pub fn burning(&self) -> Burning {
        match self.hours {
            // A span that ends when it begins is never on.
            Some(span) => Burning::new(span.from_h, span.hours()),
            None => Burning::new(0.0, DAY_H),
        }
    }

    /// Energy a day in kWh.
    pub fn kwh(&self) -> f64 {
        energy_kwh(self.mean_w(), self.burning().hours)
    }

    /// What it costs on `date` in the currency of `site`.
    pub fn cost(&self, site: &Site, date: Date) -> f64 {
        site.cost_on(Some(date), self.mean_w(), self.burning())
    }
}
