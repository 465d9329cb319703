//! The root zones of the trays in a bay and the air of chambers, as they stand in the plan.

use serde::Serialize;
use utoipa::ToSchema;

use crate::air::mould::{MouldRisk, OverTrays, risk};
use crate::air::{dew_point_c, fan, vpd_kpa};
use crate::crops::library;
use crate::crops::showing::Outcome;
use crate::placement::Standing;
use crate::plan::{SoundPlan, Stage};
use crate::room::{Bay, Fan, Mat, Place};
use crate::say;
use crate::units::Quantity;
use crate::warmth::chamber::ChamberDay;
use crate::warmth::placed::{self, Inside, TrayHere, cover, mat_under};
use crate::warmth::root_zone::RootZoneDay;
use crate::water::TrayWater;
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
    /// What it drinks.
    pub water: TrayWater,
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

/// Whose root zones are wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Whose {
    /// Every tray's.
    All,
    /// Those of trays that germinate: there they matter most.
    Germinating,
}

/// Leaves count in steps of a tenth of a tray.
const LEAF_STEP: f64 = 0.1;
/// Light counts in steps of this many µmol/m²/s: it warms by a hundredth of a degree for each.
const LIGHT_STEP: f64 = 25.0;

/// The root zones of the trays in a bay, with `ppfd` on each while its lamps burn (0 while they
/// are off); none outdoors.
pub fn of_bay(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    standing: &[Standing<'_>],
    ppfd: &[f64],
    chamber: Option<&ChamberDay>,
    whose: Whose,
) -> Vec<TrayRoots> {
    if bay.place.outdoors() {
        return Vec::new();
    }
    let wanted = |s: &Standing<'_>| whose == Whose::All || s.stage == Stage::Germinate;
    let each = standing.iter().enumerate().filter(|(_, s)| wanted(s));
    each.filter_map(|(i, s)| {
        let light = ppfd.get(i).copied().unwrap_or(0.0);
        let light = (light / LIGHT_STEP).round() * LIGHT_STEP;
        let mut roots = of_tray(plan, bay, s, standing, light, chamber)?;
        if whose == Whose::Germinating {
            // Its hours are for its own sheet: every bay's would swell the answer.
            let day = &mut roots.day;
            for hours in [&mut day.root_zone_c, &mut day.surface_c, &mut day.mat_c] {
                hours.clear();
            }
        }
        Some(roots)
    })
    .collect()
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
    let leaves = own.leaf_cover();
    let here = TrayHere {
        format: own.format,
        mat,
        free_sides: free_sides(own, standing),
        domed: own.domed,
        ppfd,
        leaves: (leaves / LEAF_STEP).round() * LEAF_STEP,
    };
    let set_up = placed::root_zone(&plan.site, bay.place, bay.tier_index, here, chamber);
    // A plan may hold what no thermostat or mat is like; then there is nothing to show.
    let set_c = set_up.thermostat.map(|thermostat| thermostat.set_c);
    let day = placed::zone_day(set_up)?;
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
        set_c,
        sown: sown.collect(),
        water: TrayWater::of(own.format, day.evaporation_kg_m2_d),
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
    let probe_mm = set_up.thermostat.map(|thermostat| thermostat.probe_at_mm);
    let day = placed::chamber_day(set_up)?;
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
        probe_mm,
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

/// The air over the trays of a bay.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct BayAir {
    /// Its temperature by day.
    pub day_c: f64,
    /// Relative humidity, 0 to 1.
    pub humidity: f64,
    /// Vapour pressure deficit by day, in kPa.
    pub vpd_kpa: f64,
    /// The temperature at which dew falls.
    pub dew_point_c: Option<f64>,
    /// The speed of the air at the end of the shelf that is farthest from its fan, in m/s; 0 without
    /// one.
    pub far_end_m_s: f64,
    /// How likely mould and damping-off are there.
    pub mould: MouldRisk,
}

/// Mix and leaves are wet for so much of the day when they are watered from below (our own
/// estimate).
const WET: f64 = 0.3;

/// The air over the trays of `bay`: the room's, or the chamber's.
pub fn bay_air(plan: &SoundPlan, bay: &Bay<'_>, chamber: Option<&ChamberDay>) -> BayAir {
    let shelf = chamber.and_then(|day| day.shelves.get(bay.tier_index));
    let (day_c, humidity) = match shelf {
        Some(shelf) => (shelf.mean_c, placed::CHAMBER_HUMIDITY),
        None => {
            let air = &plan.site.air;
            (air.day_c, air.humidity.unwrap_or(placed::USUAL_HUMIDITY))
        }
    };
    let far = |fan: &Fan| {
        let farthest = fan.x_mm.max(bay.place.width_mm - fan.x_mm);
        fan::speed_m_s(fan.diameter_mm, fan.flow_m3_h, farthest)
    };
    let far_end_m_s = bay.tier.fans.iter().map(far).fold(0.0, f64::max);
    let over = OverTrays {
        t_c: day_c,
        humidity,
        speed_m_s: far_end_m_s,
        wet: WET,
    };
    BayAir {
        day_c,
        humidity,
        vpd_kpa: vpd_kpa(day_c, humidity),
        dew_point_c: dew_point_c(day_c, humidity),
        far_end_m_s,
        mould: risk(over),
    }
}
