//! A way to warm a tray, and what it is measured against.

use crate::basis::words::Statement;
use crate::crops::showing::Outcome;
use crate::day::standing::{Standing, occupants};
use crate::plan::SoundPlan;
use crate::plan::patch::PatchStep;
use crate::room::{Bay, Mat};
use crate::site::air::Air;
use crate::warmth::bed::free_sides;
use crate::warmth::chamber::ShelfDay;
use crate::warmth::root_zone::{RootZone, RootZoneDay};
use crate::warmth::tray::{TrayHere, root_zone};
use serde::Serialize;
use utoipa::ToSchema;

/// The ways to warm the tray of a bay that lacks most.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WarmWays {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// Crop and variety in words.
    pub name: String,
    /// What suits it, in °C.
    pub wants_c: f64,
    /// The ways: what is there, then the others, what comes nearest to that first.
    pub ways: Vec<WarmWay>,
}

/// A way to warm a tray.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WarmWay {
    /// Stable name.
    pub code: &'static str,
    /// What it is.
    pub name: Statement,
    /// Mean of the root zone, in °C.
    pub mean_c: f64,
    /// Coolest of the day.
    pub least_c: f64,
    /// Warmest of the day.
    pub most_c: f64,
    /// Mean over what the room alone gives.
    pub gain_k: f64,
    /// Days until half show; `None` when none come up.
    pub half_days: Option<f64>,
    /// The share of good seeds that come up.
    pub share: f64,
    /// What it draws for this tray beyond what burns already, in kWh a day; `None` where it hangs
    /// on the room or is shared with much else.
    pub kwh_per_day: Option<f64>,
    /// What that costs a day.
    pub cost_per_day: Option<f64>,
    /// What to mind with it.
    pub caution: Option<Statement>,
    /// How the plan becomes so; empty for what is there, and where the plan cannot hold it.
    pub patch: Vec<PatchStep>,
}

/// A tray that is to be warmed, where it stands.
#[derive(Clone, Copy)]
pub(super) struct Ways<'a> {
    pub(super) plan: &'a SoundPlan,
    pub(super) bay: Bay<'a>,
    pub(super) tray: &'a Standing<'a>,
    pub(super) standing: &'a [Vec<Standing<'a>>],
    pub(super) sowing: &'a str,
    /// The air around its place.
    pub(super) around: &'a Air,
    /// The light on its mix while lamps burn there, in µmol/m²/s; 0 while they do not.
    pub(super) ppfd: f64,
    /// The same once they burn.
    pub(super) lit_ppfd: f64,
    /// Mean of its root zone with no heat but the room's.
    pub(super) bare_c: f64,
}

impl Ways<'_> {
    pub(super) fn here<'m>(&'m self, mat: Option<(&'m Mat, f64)>) -> TrayHere<'m> {
        let neighbours = occupants(&self.standing[self.bay.tier_index]);
        TrayHere {
            format: self.tray.format,
            mat,
            free_sides: free_sides(&self.tray.occupant(), &neighbours),
            domed: self.tray.domed,
            ppfd: self.ppfd,
            leaves: 0.0,
        }
    }

    pub(super) fn zone(&self, mat: Option<(&Mat, f64)>, shelf: Option<&ShelfDay>) -> RootZone {
        let (place, tier) = (self.bay.place, self.bay.tier_index);
        root_zone(self.around, place, tier, self.here(mat), shelf)
    }

    pub(super) fn way(&self, code: &'static str, name: Statement, day: &RootZoneDay) -> WarmWay {
        let sowing = &self.plan.sowings[self.plan.sowing_index(self.sowing)];
        let crop = self.plan.crop(sowing);
        let outcome = Outcome::of(crop, &crop.curve(), day.root_zone_c());
        WarmWay {
            code,
            name,
            mean_c: day.mean_c,
            least_c: day.least_c,
            most_c: day.most_c,
            gain_k: day.mean_c - self.bare_c,
            half_days: outcome.half_days,
            share: outcome.share,
            kwh_per_day: Some(0.0),
            cost_per_day: Some(0.0),
            caution: None,
            patch: Vec::new(),
        }
    }

    pub(super) fn drawing(&self, way: WarmWay, kwh: Option<f64>) -> WarmWay {
        WarmWay {
            kwh_per_day: kwh,
            cost_per_day: kwh.map(|kwh| kwh * self.plan.site.price_per_kwh),
            ..way
        }
    }
}
