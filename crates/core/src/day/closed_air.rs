//! The closed air of the plan: germination chambers, closets that are kept shut, and bays that
//! film, cloth or board closes on all sides.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, Why, say};
use crate::day::standing::{Standing, want_light};
use crate::plan::SoundPlan;
use crate::room::Place;
use crate::site::air::Air;
use crate::warmth::chamber::{ChamberDay, ChamberSetUp, ShelfDay};
use crate::warmth::closed_space::{ClosedSpace, Inside};
use crate::warmth::mat::mat_under;
use crate::warmth::tray;
use crate::warmth::tray::TrayHere;

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

    /// The air that tier `index` of `place` is in, with what stands on each tier of the place and the air
    /// `around` that; `None` in the open.
    pub fn around(
        plan: &SoundPlan,
        place: &Place,
        index: usize,
        standing: &[Vec<Standing<'_>>],
        around: Air,
    ) -> Option<Self> {
        let space = ClosedSpace::around(place, index)?;
        let tiers = space.tiers();
        let here = &standing[tiers.clone()];
        let all = || here.iter().flatten();
        let coming_up = |s: &&Standing<'_>| s.coming_up;
        let inside = Inside {
            lit: here.iter().map(|on| want_light(on)).collect(),
            heat: f64::from(u8::from(all().any(|s| coming_up(&s)))),
            grown: all().any(|s| s.is_up()),
            wet_kg: all().map(|s| s.format.wet_kg).sum(),
            wet_m2: wet_m2(all()),
            around,
        };
        let on_mat = tiers.clone().find_map(|tier| {
            standing[tier].iter().filter(coming_up).find_map(|s| {
                let tray = TrayHere {
                    format: s.format,
                    mat: Some(mat_under(&place.tiers[tier], &s.footprint)?),
                    free_sides: 1.0,
                    domed: s.domed,
                    ppfd: 0.0,
                    leaves: 0.0,
                };
                Some((tier, tray))
            })
        });
        let (set_up, day) = space.day(&plan.site, &inside, on_mat)?;
        Some(Self {
            first_tier: tiers.start,
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

/// The wet surface by which what stands there gives off water, in m²: none under domes.
pub(crate) fn wet_m2<'s>(standing: impl Iterator<Item = &'s Standing<'s>>) -> f64 {
    let open = standing.filter(|s| !s.domed);
    open.map(|s| tray::wet_m2(s.format, s.leaf_cover())).sum()
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
