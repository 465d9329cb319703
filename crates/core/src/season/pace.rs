//! How fast seedlings grow where they stand, against the weeks that the trade counts with.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::{DAYS_PER_WEEK, dli_mol_m2_d};
use crate::crops::Crop;
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
const RATES: [f64; 2] = [0.6, 1.25];
/// Leaves of half-grown seedlings over the rim.
const HALF_GROWN_MM: f64 = 40.0;

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

fn dli_where_it_grows(plan: &SoundPlan, sowing: &Sowing, fields: &Fields) -> Option<f64> {
    let tray = plan.trays_of(&sowing.id).next()?;
    let stand = tray.stand_in(Stage::Grow)?;
    let bay: Bay<'_> = plan.bay(&stand.bay)?;
    if bay.tier.lamps.is_empty() {
        return None;
    }
    let format = plan.format(tray);
    // As if all lamps hung at their mean height: a lamp that is dragged then asks for nothing new.
    let lamps = &bay.tier.lamps;
    let height_mm = lamps.iter().map(|lamp| lamp.height_mm).sum::<f64>() / lamps.len() as f64;
    let mut level = bay.tier.clone();
    level
        .lamps
        .iter_mut()
        .for_each(|lamp| lamp.height_mm = height_mm);
    let field = BayField::new(
        &Bay {
            tier: &level,
            ..bay
        },
        Cover::default(),
        fields,
    );
    let cells = field.cells(stand.footprint(format).cells(4, 3));
    let canopy_mm =
        bay.tier.lift_mm() + stand.box_mm.unwrap_or(0.0) + format.height_mm + HALF_GROWN_MM;
    // Lamps are kept over the leaves, whatever they hang at today.
    const LEAST_GAP_MM: f64 = 20.0;
    let canopy_mm = canopy_mm.min(height_mm - LEAST_GAP_MM).max(0.0);
    let ppfd = field.hung(&cells, canopy_mm, height_mm);
    let mean = ppfd.iter().sum::<f64>() / ppfd.len().max(1) as f64;
    Some(dli_mol_m2_d(mean, bay.tier.photoperiod_h))
}
