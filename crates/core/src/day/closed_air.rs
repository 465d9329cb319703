//! The closed air of the plan: germination chambers, closets that are kept shut, and bays that
//! film, cloth or board closes on all sides.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, Why, say};
use crate::day::standing::{Standing, occupants};
use crate::plan::SoundPlan;
use crate::room::Place;
use crate::site::air::Air;
use crate::warmth::chamber::{ChamberDay, ChamberSetUp, ShelfDay};
use crate::warmth::closed_air::{Closed, InClosed};

/// Closed air on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ClosedAir {
    /// The index of its lowest tier in the place.
    pub first_tier: usize,
    /// It, shelf by shelf.
    pub day: ChamberDay,
    /// Where the thermostat's probe hangs in it, over its floor; `None` without one.
    pub probe_mm: Option<f64>,
    /// Above this it is too hot, in °C.
    pub limit_c: f64,
    /// For each shelf, from the lowest up, the plan's crops that come up best there.
    pub suits: Vec<Vec<String>>,
    /// How it is reckoned.
    pub why: Why,
    /// What was reckoned.
    #[serde(skip)]
    pub set_up: ChamberSetUp,
}

impl ClosedAir {
    /// The air of the place's tier `index`; `None` when that is not of it.
    pub fn shelf_of(&self, index: usize) -> Option<&ShelfDay> {
        self.day.shelves.get(index.checked_sub(self.first_tier)?)
    }

    /// What tier `index` of the place has of it.
    pub fn on_tier(&self, index: usize) -> InClosed<'_> {
        InClosed::of(&self.set_up, &self.day, self.first_tier, index)
    }

    /// The air that tier `index` of `place` is in, with what stands on each tier of the place and the air
    /// `around` that; `None` in the open.
    pub fn around(
        plan: &SoundPlan,
        place: &Place,
        index: usize,
        standing: &[Vec<Standing<'_>>],
        around: Air,
    ) -> Option<Self> {
        place.shares_air(index)?;
        let occupants: Vec<_> = standing.iter().map(|on| occupants(on)).collect();
        let Closed {
            first_tier,
            set_up,
            day,
        } = Closed::around(&plan.site, place, index, &occupants, around)?;
        Some(Self {
            first_tier,
            probe_mm: set_up.thermostat.map(|thermostat| thermostat.probe_at_mm),
            limit_c: set_up.limit_c,
            suits: suits(plan, &day),
            why: Why {
                rule: say!(
                    "walls let {walls} W through for each degree (ISO 6946), vents and gaps draw by the stack effect, plumes from mats and lamps carry their heat to the top",
                    walls = Quantity::Plain.of(day.walls_w_k),
                ),
                source: OWN_ESTIMATE,
            },
            day,
            set_up,
        })
    }
}

/// The plan's crops on the shelf whose mean comes nearest to what each wants.
fn suits(plan: &SoundPlan, day: &ChamberDay) -> Vec<Vec<String>> {
    let mut ids: Vec<&str> = plan.sowings.iter().map(|s| s.crop.as_str()).collect();
    ids.sort_unstable();
    ids.dedup();
    let mut suits = vec![Vec::new(); day.shelves.len()];
    for crop in ids.into_iter().filter_map(|id| plan.find_crop(id)) {
        let off = |i: &usize| (day.shelves[*i].mean_c - crop.root_zone_c).abs();
        if let Some(shelf) = (0..day.shelves.len()).min_by(|a, b| off(a).total_cmp(&off(b))) {
            suits[shelf].push(crop.name.clone());
        }
    }
    suits
}
