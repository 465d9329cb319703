//! What the lamps draw, use and cost.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::energy_kwh;
use crate::room::{Lamp, Tier};
use crate::site::Site;

/// Power, energy and cost of a bay or of the whole room on a day.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, ToSchema)]
pub struct Power {
    /// Power while burning, in W.
    pub watts: f64,
    /// Current while burning, in A, at the site's mains voltage and a power factor of 1.
    pub amps: f64,
    /// Energy a day in kWh.
    pub kwh_per_day: f64,
    /// Cost a day in the site's currency.
    pub cost_per_day: f64,
}

/// What all lamps of a tier draw together while they burn, in W.
pub fn drawn_w(tier: &Tier) -> f64 {
    tier.lamps.iter().map(Lamp::drawn_w).sum()
}

impl Power {
    /// The lamps of `tier`, burning for its photoperiod when `burning`, else off.
    pub fn of_lamps(tier: &Tier, burning: bool, site: &Site) -> Self {
        if !burning {
            return Self::default();
        }
        let watts = drawn_w(tier);
        let kwh_per_day = energy_kwh(watts, tier.photoperiod_h);
        Self {
            watts,
            amps: watts / site.mains_v,
            kwh_per_day,
            cost_per_day: site.cost_per_day(watts, tier.burning()),
        }
    }
}

impl std::iter::Sum for Power {
    fn sum<I: Iterator<Item = Self>>(parts: I) -> Self {
        parts.fold(Self::default(), |a, b| Self {
            watts: a.watts + b.watts,
            amps: a.amps + b.amps,
            kwh_per_day: a.kwh_per_day + b.kwh_per_day,
            cost_per_day: a.cost_per_day + b.cost_per_day,
        })
    }
}

/// What to mind where lamps hang over wet trays.
pub const CAUTION: &str = "Keep plugs and strips above splash height, leave a drip loop in every \
    cord and use a residual-current (RCD, GFCI) socket. Load a circuit to no more than 80 % of \
    its breaker for lamps that burn all day. Your local electrical code and a licensed \
    electrician decide.";
