//! How fast seedlings grow where they stand, against the weeks that the trade counts with.

use std::rc::Rc;

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::DAYS_PER_WEEK;
use crate::crops::Crop;
use crate::lamps::adjust;
use crate::lamps::adjust::Reach;
use crate::lamps::bands::LightBand;
use crate::lamps::choice::{Setting, Want, dli_at};
use crate::lamps::chooser::best_anyhow;
use crate::lamps::hours::HourLimits;
use crate::light::bay::BayField;
use crate::light::fields::Fields;
use crate::light::surfaces::Cover;
use crate::plan::{SoundPlan, Sowing, Stage};
use crate::room::Bay;

/// How fast a sowing grows where it stands.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Pace {
    /// Mean daily light on it under its lamps, in mol/m²/d; `None` without lamps, where it is not
    /// reckoned with.
    pub dli: Option<f64>,
    /// Mean of the room's air, in °C.
    pub air_c: f64,
    /// Growth against what the weeks of the trade take for granted: 1 is that, less is slower.
    pub rate: f64,
    /// Days that growing on takes longer for it; negative when it is faster.
    pub lost_days: f64,
}

/// The weeks of the trade are those of a room at 18 °C by day and 15 °C by night (our own
/// estimate).
const USUAL_AIR_C: f64 = 16.5;
/// A degree more makes it faster by so much (our own estimate).
const PER_KELVIN: f64 = 0.05;
/// Too little light slows it: with the third root of what it has of what it wants (our own
/// estimate).
const BY_LIGHT: f64 = 1.0 / 3.0;
/// Slower or faster than this the estimates carry no further.
/// A warm room hardly shortens them: the trade counts its weeks for ordinary rooms too.
const RATES: [f64; 2] = [0.7, 1.05];
/// Leaves of half-grown seedlings over the rim.
const HALF_GROWN_MM: f64 = 40.0;
/// Old enough not to bleach as the youngest do.
const SETTLED_DAYS: i32 = 21;
/// As coarse as the mean light minds.
const HEIGHT_STEP_MM: f64 = 20.0;

impl Pace {
    /// The pace of `sowing` where the first tray of it grows on.
    pub(super) fn of(plan: &SoundPlan, sowing: &Sowing, fields: &Fields) -> Self {
        let crop = plan.crop(sowing);
        let air_c = (plan.site.air.day_c + plan.site.air.night_c) / 2.0;
        let dli = dli_where_it_grows(plan, sowing, fields);
        let by_light = dli.map_or(1.0, |dli| {
            (dli / crop.dli_low_mol_m2_d.max(0.1))
                .powf(BY_LIGHT)
                .min(1.0)
        });
        let by_warmth = 1.0 + PER_KELVIN * (air_c - USUAL_AIR_C);
        let rate = (by_light * by_warmth).clamp(RATES[0], RATES[1]);
        Self {
            dli,
            air_c,
            rate,
            lost_days: growing_days(crop) * (1.0 / rate - 1.0),
        }
    }
}

/// Days from emergence to hardening off that the crop's weeks indoors leave.
fn growing_days(crop: &Crop) -> f64 {
    let germinating = crop.curve().days(crop.root_zone_c).unwrap_or(0.0);
    let weeks = crop.weeks_indoors * DAYS_PER_WEEK;
    (weeks - germinating - f64::from(crop.hardening_days)).max(0.0)
}

/// The mean daily light on the first tray of `sowing` where it grows, half grown, with the lamps there
/// set as advised for it: where they hang today moves no date.
fn dli_where_it_grows(plan: &SoundPlan, sowing: &Sowing, fields: &Fields) -> Option<f64> {
    /// A few cells tell the mean of all.
    const GRID: (u32, u32) = (4, 3);
    let tray = plan.trays_of(&sowing.id).next()?;
    let stand = tray.stand_in(Stage::Grow)?;
    let bay: Bay<'_> = plan.bay(&stand.bay)?;
    if bay.tier.lamps.is_empty() {
        return None;
    }
    let (format, crop) = (plan.format(tray), plan.crop(sowing));
    let field = BayField::new(&bay, Cover::default(), fields);
    let cells = field.cells(stand.footprint(format).cells(GRID.0, GRID.1));
    let lift_mm = bay.tier.lift_mm() + stand.box_mm.unwrap_or(0.0);
    let over_feet = stand.box_mm.unwrap_or(0.0) + format.height_mm + HALF_GROWN_MM;
    let want = Want {
        light: Rc::new(|height_mm, lift_mm| field.hung(&cells, over_feet + lift_mm, height_mm)),
        besides: Vec::new(),
        band: LightBand::of(crop, SETTLED_DAYS),
    };
    let reach = Reach {
        leaves_mm: over_feet,
        tops_mm: over_feet,
        least_gap_mm: bay.least_gap_mm(),
    };
    let limits = HourLimits::new(
        crop.photoperiod_most_h,
        plan.site.free_hours(),
        bay.place.has_daylight(),
    );
    let wants = [want];
    let best = best_anyhow(
        &wants,
        &adjust::choices(&bay, reach, HEIGHT_STEP_MM),
        limits,
    );
    let setting = best.unwrap_or(Setting {
        // Nothing fits under: as near as the lamps come.
        height_mm: bay.highest_face_mm().max(over_feet + lift_mm),
        ..adjust::now(&bay)
    });
    Some(dli_at(&wants, setting).mean)
}
