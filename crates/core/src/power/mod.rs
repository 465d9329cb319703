//! What every device draws, uses and costs, and what the cords that it hangs on may carry.

pub mod draw;
pub mod limits;
pub mod load;
pub mod spread;
pub mod window;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::power::draw::Draw;
use crate::room::{Lamp, Tier};
use crate::site::Site;

/// Power, energy and cost of a bay or of the whole room on a day: lamps, mats and fans.
#[derive(Debug, Clone, Copy, Default, PartialEq, Serialize, ToSchema)]
pub struct Power {
    /// Power of all that is used that day, on at once, in W.
    pub watts: f64,
    /// Current of that in A, at the site's mains voltage and each device's power factor.
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
    /// What `draws` come to on `date` at the mains and the prices of `site`.
    pub fn of(draws: &[Draw], site: &Site, date: Date) -> Self {
        let each = draws.iter().map(|draw| Self {
            watts: draw.watts,
            amps: draw.volt_amps() / site.mains_v,
            kwh_per_day: draw.kwh(),
            cost_per_day: draw.cost(site, date),
        });
        each.sum()
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
