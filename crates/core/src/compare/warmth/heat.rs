//! Heat under a tray and in the room.

use crate::basis::plane::Axis;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::compare::warmth::way::{WarmWay, Ways};
use crate::plan::patch::PatchStep;
use crate::room::{Mat, shelf};
use crate::site::air::Air;
use crate::warmth::chamber::ShelfDay;
use crate::warmth::root_zone::{RootZone, RootZoneDay};
use crate::warmth::tray::{root_zone, zone_day};

/// The top of a refrigerator, a boiler or a router's cupboard (our own estimate).
const APPLIANCE_C: f64 = 28.0;

/// A room is heated by so much more without its owners' noticing (our own estimate).
pub(super) const WARMER_K: f64 = 3.0;

impl Ways<'_> {
    /// A mat for one tray, with a thermostat, under so much of it.
    pub(super) fn mat(&self, set_c: f64, share: f64) -> Option<WarmWay> {
        if self.bay.place.shares_air(self.bay.tier_index).is_some() {
            return None;
        }
        let generic = shelf::library().mats.iter().find(|m| m.id == "mat-small")?;
        let footprint = &self.tray.footprint;
        let mut mat = Mat {
            id: "mat-to-warm".into(),
            thermostat_c: Some(set_c),
            along: if footprint.x_mm[1] - footprint.x_mm[0] >= footprint.y_mm[1] - footprint.y_mm[0]
            {
                Axis::X
            } else {
                Axis::Y
            },
            ..generic.clone()
        };
        let [w, d] = mat.size_mm();
        let deck = [self.bay.place.width_mm, self.bay.place.depth_mm];
        mat.x_mm = footprint.x_mm[0].clamp(0.0, (deck[0] - w).max(0.0));
        mat.y_mm = footprint.y_mm[0].clamp(0.0, (deck[1] - d).max(0.0));
        let whole = crate::warmth::mat::cover(&mat, footprint);
        let day = zone_day(self.zone(Some((&mat, whole * share)), None))?;
        let whole_tray = share > 0.9;
        let mut way = self.drawing(
            if whole_tray {
                self.way(
                    "mat",
                    say!(
                        "A {mat} with a thermostat at {set}",
                        mat = &mat.name,
                        set = Quantity::TemperatureC.of(set_c)
                    ),
                    &day,
                )
            } else {
                self.way(
                    "half_mat",
                    say!("The same mat shared by two trays, half of each on it"),
                    &day,
                )
            },
            Some(day.kwh_per_day),
        );
        if whole_tray && self.bay.tier.mats.is_empty() {
            let mut tier = self.bay.tier.clone();
            tier.mats.push(mat);
            way.patch = PatchStep::between(&self.bay.pointer(), self.bay.tier, &tier);
        }
        Some(way)
    }

    pub(super) fn appliance(&self) -> Option<WarmWay> {
        let zone = RootZone {
            warm_surface_c: Some(APPLIANCE_C),
            under: Vec::new(),
            ..self.zone(None, None)
        };
        Some(WarmWay {
            caution: Some(say!(
                "Keep water off the appliance: use a tray without holes and leave the vents clear"
            )),
            ..self.way(
                "appliance",
                say!(
                    "On the warm top of an appliance, at {at}",
                    at = Quantity::TemperatureC.of(APPLIANCE_C)
                ),
                &zone_day(zone)?,
            )
        })
    }

    pub(super) fn run(&self, air: &Air, shelf: Option<&ShelfDay>) -> Option<RootZoneDay> {
        let (place, tier) = (self.bay.place, self.bay.tier_index);
        zone_day(root_zone(air, place, tier, self.here(None), shelf))
    }

    pub(super) fn warmer_room(&self) -> Option<WarmWay> {
        if self.bay.place.outdoors() {
            return None;
        }
        let mut air = self.around.clone();
        air.day_c += WARMER_K;
        air.night_c += WARMER_K;
        let day = self.run(&air, None)?;
        let way = self.way(
            "warmer_room",
            say!(
                "The room heated to {night} by night and {day} by day",
                night = Quantity::TemperatureC.of(air.night_c),
                day = Quantity::TemperatureC.of(air.day_c)
            ),
            &day,
        );
        Some(self.drawing(way, None))
    }
}
