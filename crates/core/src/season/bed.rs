//! What seed lies in while it germinates: the root zone that its tray will have there.

use std::collections::HashMap;

use crate::plan::{SoundPlan, Sowing, Stage};
use crate::room::{Kind, find_bay};
use crate::warmth::chamber::ChamberDay;
use crate::warmth::placed::{self, Inside, TrayHere, mat_under};
use crate::warmth::transfer::air_through_day;

/// Root zones of a plan's sowings, each chamber reckoned once.
pub(super) struct Beds<'a> {
    plan: &'a SoundPlan,
    chambers: HashMap<usize, Option<ChamberDay>>,
}

/// How much of a tray's sides stand free among neighbours that come and go (our own estimate).
const FREE_SIDES: f64 = 0.5;
/// How many of the trays that ever germinate in a chamber are there at once (our own estimate).
const AT_ONCE: f64 = 0.4;

impl<'a> Beds<'a> {
    pub(super) fn new(plan: &'a SoundPlan) -> Self {
        Self {
            plan,
            chambers: HashMap::new(),
        }
    }

    /// The root zone of the first tray with `sowing` in it, hour by hour while it germinates, in
    /// °C; the room's air where it stands nowhere indoors.
    pub(super) fn root_zone_c(&mut self, sowing: &Sowing) -> Vec<f64> {
        let air = &self.plan.site.air;
        self.computed(sowing)
            .unwrap_or_else(|| air_through_day(air.day_c, air.night_c).to_vec())
    }

    fn computed(&mut self, sowing: &Sowing) -> Option<Vec<f64>> {
        let plan = self.plan;
        let holds = |tray: &&crate::plan::Tray| tray.parts.iter().any(|p| p.sowing == sowing.id);
        let tray = plan.trays.iter().find(holds)?;
        let stand = tray.stand_in(Stage::Germinate)?;
        let bay = find_bay(&plan.places, &stand.bay)?;
        if bay.place.outdoors() {
            return None;
        }
        let format = plan.format(tray);
        let closed = matches!(bay.place.kind, Kind::Chamber(_));
        let here = TrayHere {
            format,
            mat: mat_under(bay.tier, &stand.footprint(format)),
            free_sides: FREE_SIDES,
            domed: format.dome_height_mm.is_some() && !closed,
            ppfd: 0.0,
            leaves: 0.0,
        };
        let chamber = self.chamber(bay.place_index);
        let set_up = placed::root_zone(&plan.site, bay.place, bay.tier_index, here, chamber);
        Some(placed::zone_day(set_up)?.root_zone_c)
    }

    /// A chamber with its mats on and its lamps off.
    fn chamber(&mut self, place_index: usize) -> Option<&ChamberDay> {
        let plan = self.plan;
        let reckon = || {
            let place = &plan.places[place_index];
            let here = |tray: &&crate::plan::Tray| {
                let stand = tray.stand_in(Stage::Germinate);
                stand.is_some_and(|stand| stand.bay.place == place.id)
            };
            let trays = plan.trays.iter().filter(here);
            let inside = Inside {
                lit: Vec::new(),
                heated: true,
                wet_kg: AT_ONCE * trays.map(|tray| plan.format(tray).wet_kg).sum::<f64>(),
            };
            placed::chamber_day(placed::chamber(&plan.site, place, &inside)?)
        };
        self.chambers
            .entry(place_index)
            .or_insert_with(reckon)
            .as_ref()
    }
}
