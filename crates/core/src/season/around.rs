//! What plants have around them where they stand, day by day.

use jiff::civil::Date;
use rustc_hash::FxHashMap;

use crate::crops::Crop;
use crate::growth::Conditions;
use crate::plan::{SoundPlan, Stage, Stand, Tray};
use crate::season::airs::Airs;
use crate::season::spot_light::{Spot, SpotLights};

/// What plants have around them where they stand.
pub(super) struct Around<'a> {
    plan: &'a SoundPlan,
    airs: Airs<'a>,
    lights: SpotLights<'a>,
    /// The lamps' daily light on a part of a tray at one of its spots.
    by_lamps: FxHashMap<((usize, usize), usize), f64>,
}

/// The plants of a part of a tray.
#[derive(Clone, Copy)]
pub(super) struct Plants<'p> {
    pub(super) tray: &'p Tray,
    /// The tray in the plan, and the part in the tray.
    pub(super) index: (usize, usize),
    pub(super) crop: &'p Crop,
    /// The day they begin to be hardened off.
    pub(super) harden: Date,
}

impl<'a> Around<'a> {
    pub(super) fn new(plan: &'a SoundPlan, airs: Airs<'a>, lights: SpotLights<'a>) -> Self {
        Self {
            plan,
            airs,
            lights,
            by_lamps: FxHashMap::default(),
        }
    }

    /// The day of `plants` at `spot`, and which of their tray's it is; standing nowhere they have the
    /// room's air, and the light that they want.
    pub(super) fn day(
        &mut self,
        plants: Plants<'_>,
        spot: Option<(usize, &Stand)>,
        date: Date,
    ) -> Conditions {
        let (plan, tray, crop) = (self.plan, plants.tray, plants.crop);
        let format = plan.format(tray);
        let across = format.length_mm / f64::from(format.columns.max(1));
        let deep = format.width_mm / f64::from(format.rows.max(1));
        let base = Conditions {
            cell_ml: format.cell_ml,
            pitch_mm: across.min(deep),
            air: self.airs.of_room(date),
            ..Conditions::usual(crop)
        };
        if date >= plants.harden {
            let frame = spot.map(|(_, stand)| &stand.bay).filter(|bay| {
                let place = plan.place(&bay.place);
                place.is_some_and(|place| place.outdoors())
            });
            // Out by day; by night in a frame, or back in the room.
            return Conditions {
                dli: self.lights.outdoors(date),
                air: match frame {
                    Some(bay) => self.airs.there(bay, date),
                    None => self.airs.carried_out(date),
                },
                ..base
            };
        }
        let Some((index, stand)) = spot else {
            return base;
        };
        let Some(bay) = plan.bay_on(&stand.bay, date) else {
            return base;
        };
        let part = &tray.parts[plants.index.1];
        let (outline, _) = stand.block(format, part.block(format));
        let rim_mm = bay.tier.lift_mm() + stand.box_mm.unwrap_or(0.0) + format.height_mm;
        let daylight = self.lights.by_day(&bay, &outline, rim_mm, date);
        let lights = &mut self.lights;
        let by_lamps = self.by_lamps.entry((plants.index, index));
        let by_lamps = by_lamps.or_insert_with(|| {
            let spot = Spot {
                crop,
                format,
                stand,
                outline,
            };
            lights.by_lamps(spot, &bay, daylight)
        });
        // Under a tray that is stacked on it, it is dark.
        let covered = stand.stage == Stage::Germinate && plan.is_covered(tray);
        Conditions {
            dli: if covered { 0.0 } else { *by_lamps + daylight },
            air: self.airs.there(&stand.bay, date),
            ..base
        }
    }
}
