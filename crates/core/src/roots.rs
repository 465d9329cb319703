//! The root zones of the trays in a bay and the air of chambers, as they stand in the plan.

use serde::Serialize;
use utoipa::ToSchema;

use crate::crops::library;
use crate::crops::showing::Outcome;
use crate::placement::Standing;
use crate::plan::{SoundPlan, Stage};
use crate::room::{Bay, Mat, Place};
use crate::say;
use crate::units::Quantity;
use crate::warmth::chamber::ChamberDay;
use crate::warmth::placed::{self, Inside, TrayHere, cover, mat_under};
use crate::warmth::root_zone::RootZoneDay;
use crate::words::{OWN_ESTIMATE, Why};

/// The root zone of a tray on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrayRoots {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// The heat mat that warms it; `None` when none does, or it is off.
    pub mat: Option<String>,
    /// What its thermostat is set to, in °C.
    pub set_c: Option<f64>,
    /// Its temperatures.
    pub day: RootZoneDay,
    /// What is sown in it and comes up at these temperatures.
    pub sown: Vec<SownRoots>,
}

/// A sowing in the root zone that its tray has.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SownRoots {
    /// The sowing.
    pub sowing: String,
    /// Crop and variety in words.
    pub name: String,
    /// What suits it, in °C.
    pub wants_c: f64,
    /// When and how many show if the root zone stays so.
    pub outcome: Outcome,
}

/// A chamber on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ChamberAir {
    /// Its air, shelf by shelf.
    pub day: ChamberDay,
    /// Where its thermostat's probe is taken to hang over its floor; `None` without one.
    pub probe_mm: Option<f64>,
    /// For each shelf, from the lowest up, the plan's crops that come up best there.
    pub suits: Vec<Vec<String>>,
    /// How it is reckoned.
    pub why: Why,
}

/// Trays with less than this between them keep one another's sides warm.
const SIDE_BY_SIDE_MM: f64 = 25.0;

/// The share of a tray's sides that no other stands against.
fn free_sides(own: &Standing<'_>, standing: &[Standing<'_>]) -> f64 {
    let f = &own.footprint;
    let (w, d) = (f.x_mm[1] - f.x_mm[0], f.y_mm[1] - f.y_mm[0]);
    let along = |a: [f64; 2], b: [f64; 2]| (a[1].min(b[1]) - a[0].max(b[0])).max(0.0);
    let beside = |near: f64, far: f64| (near - far).abs() < SIDE_BY_SIDE_MM;
    let mut against = 0.0;
    for other in standing.iter().filter(|s| s.tray.id != own.tray.id) {
        let g = &other.footprint;
        if beside(f.x_mm[0], g.x_mm[1]) || beside(f.x_mm[1], g.x_mm[0]) {
            against += along(f.y_mm, g.y_mm);
        }
        if beside(f.y_mm[0], g.y_mm[1]) || beside(f.y_mm[1], g.y_mm[0]) {
            against += along(f.x_mm, g.x_mm);
        }
    }
    (1.0 - against / (2.0 * (w + d))).clamp(0.0, 1.0)
}

/// Whether a mat is plugged in: something on it germinates. Seedlings that are up need none
/// (common practice, no source).
fn plugged_in(mat: &Mat, standing: &[Standing<'_>]) -> bool {
    standing
        .iter()
        .any(|s| s.stage == Stage::Germinate && cover(mat, &s.footprint) > 0.0)
}

/// The root zones of the trays in a bay, with `ppfd` on each while its lamps burn (0 while they
/// are off); none outdoors.
pub fn of_bay(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    standing: &[Standing<'_>],
    ppfd: &[f64],
    chamber: Option<&ChamberDay>,
) -> Vec<TrayRoots> {
    if bay.place.outdoors() {
        return Vec::new();
    }
    let each = standing.iter().enumerate().filter_map(|(i, s)| {
        let light = ppfd.get(i).copied().unwrap_or(0.0);
        of_tray(plan, bay, s, standing, light, chamber)
    });
    each.collect()
}

fn of_tray(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    own: &Standing<'_>,
    standing: &[Standing<'_>],
    ppfd: f64,
    chamber: Option<&ChamberDay>,
) -> Option<TrayRoots> {
    let mat = mat_under(bay.tier, &own.footprint)
        .filter(|(mat, _)| chamber.is_none() && plugged_in(mat, standing));
    let here = TrayHere {
        format: own.format,
        mat,
        free_sides: free_sides(own, standing),
        domed: own.domed,
        ppfd,
    };
    let set_up = placed::root_zone(&plan.site, bay.place, bay.tier_index, here, chamber);
    // A plan may hold what no thermostat or mat is like; then there is nothing to show.
    let day = set_up.day().ok()?;
    let sown = own.parts.iter().map(|part| {
        let crop = plan.crop(part.sowing);
        SownRoots {
            sowing: part.sowing.id.clone(),
            name: part.dates.name.clone(),
            wants_c: crop.root_zone_c,
            outcome: Outcome::of(crop, library().curve(crop), &day.root_zone_c),
        }
    });
    Some(TrayRoots {
        tray: own.tray.id.clone(),
        label: own.tray.name.clone(),
        mat: mat.map(|(mat, _)| mat.name.clone()),
        set_c: set_up.thermostat.map(|thermostat| thermostat.set_c),
        sown: sown.collect(),
        day,
    })
}

/// The air of a chamber with what stands on its shelves; `None` for other places.
pub fn chamber_air(
    plan: &SoundPlan,
    place: &Place,
    standing: &[Vec<Standing<'_>>],
) -> Option<ChamberAir> {
    let all = || standing.iter().flatten();
    let inside = Inside {
        lit: standing
            .iter()
            .map(|here| here.iter().any(|s| s.wants_light(plan)))
            .collect(),
        heated: all().any(|s| s.stage == Stage::Germinate),
        wet_kg: all().map(|s| s.format.wet_kg).sum(),
    };
    let set_up = placed::chamber(&plan.site, place, &inside)?;
    let day = set_up.day().ok()?;
    let crops: Vec<_> = {
        let mut ids: Vec<&str> = plan.sowings.iter().map(|s| s.crop.as_str()).collect();
        ids.sort_unstable();
        ids.dedup();
        ids.into_iter().filter_map(|id| library().get(id)).collect()
    };
    // A crop suits the shelf whose mean comes nearest to what it wants.
    let mut suits = vec![Vec::new(); day.shelves.len()];
    for crop in crops {
        let off = |i: &usize| (day.shelves[*i].mean_c - crop.root_zone_c).abs();
        if let Some(shelf) = (0..day.shelves.len()).min_by(|a, b| off(a).total_cmp(&off(b))) {
            suits[shelf].push(crop.name.clone());
        }
    }
    Some(ChamberAir {
        probe_mm: set_up.thermostat.map(|thermostat| thermostat.probe_at_mm),
        suits,
        why: Why {
            rule: say!(
                "walls let {walls} W through for each degree (ISO 6946), vents draw by the stack effect, plumes from mats and lamps carry their heat to the top; the thermostat's probe is taken to hang half way up",
                walls = Quantity::Plain.of(day.walls_w_k),
            ),
            source: OWN_ESTIMATE,
        },
        day,
    })
}
