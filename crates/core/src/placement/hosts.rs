//! What grows in each bay: lamps hang at one height there and burn the same hours for all, so like stands
//! beside like.

use std::collections::HashMap;

use crate::basis::dates::{DateSpan, days_between};
use crate::plan::Stage;
use crate::room::BayRef;
use crate::season::Reckoned;
use crate::season::suits::Needs;

/// The mean of what grows in each bay, by days.
#[derive(Debug, Clone, Default)]
pub(super) struct Hosts(HashMap<BayRef, Host>);

#[derive(Debug, Clone, Copy, Default)]
struct Host {
    days: f64,
    dli: f64,
    tall_mm: f64,
}

/// Daily light that far apart no lamp gives to both, in mol/m²/d (our own estimate).
const UNLIKE_MOL_M2_D: f64 = 3.0;
/// So much taller stands in the lamps of the others, or shades them (our own estimate).
const UNLIKE_MM: f64 = 80.0;

impl Hosts {
    /// Of what grows where it stands now.
    pub(super) fn of(reckoned: &Reckoned<'_>) -> Self {
        let mut hosts = Self::default();
        for stay in &reckoned.stays {
            let moments = reckoned.moments_of(stay.tray);
            let Some(grows) = moments.days_of(Stage::Grow) else {
                continue;
            };
            let days = DateSpan {
                from: stay.days.from.max(grows.from),
                to: stay.days.to.min(grows.to),
            };
            if days.from <= days.to {
                let needs = Needs::of(reckoned.plan, stay.tray, &reckoned.dates);
                hosts.add(stay.bay.clone(), &needs, days);
            }
        }
        hosts
    }

    pub(super) fn add(&mut self, bay: BayRef, needs: &Needs, days: DateSpan) {
        let days = f64::from(days_between(days.from, days.to) + 1);
        let host = self.0.entry(bay).or_default();
        let share = days / (host.days + days);
        host.dli += share * (needs.dli_mol_m2_d() - host.dli);
        host.tall_mm += share * (needs.tall_mm() - host.tall_mm);
        host.days += days;
    }

    /// How badly a tray goes with what else grows in `bay`.
    pub(super) fn misfit(&self, bay: &BayRef, needs: &Needs) -> f64 {
        let Some(host) = self.0.get(bay) else {
            return 0.0;
        };
        let light = (needs.dli_mol_m2_d() - host.dli).abs() / UNLIKE_MOL_M2_D;
        let tall = (needs.tall_mm() - host.tall_mm).abs() / UNLIKE_MM;
        light.min(3.0) + tall.min(2.0)
    }
}
