//! Tiers without a fault.

use crate::basis::clock::DAY_H;
use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::room::place::Place;
use crate::room::tier::{Adjust, Tier};
use crate::room::vent::check_vents;

impl Tier {
    pub(super) fn check(
        &self,
        at: &Pointer,
        place: &Place,
        clear_mm: Option<f64>,
        faults: &mut Faults,
    ) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        check_vents(&self.vents, &at.at("vents"), faults);
        faults.number(
            &at.at("photoperiod_h"),
            self.photoperiod_h,
            0.0..=24.0,
            Quantity::Hours,
        );
        if let Some(hour) = self.lights_on_h {
            let at = at.at("lights_on_h");
            faults.number(&at, hour, 0.0..=DAY_H, Quantity::ClockH);
        }
        match &self.adjust {
            Some(Adjust::Chain(chain)) => {
                let at = at.at("adjust").at("chain").at("link_mm");
                faults.number(&at, chain.link_mm, 2.0..=200.0, Quantity::LengthMm);
            }
            Some(Adjust::Boxes(boxes)) => {
                let at = at.at("adjust").at("boxes");
                let heights = at.at("heights_mm");
                faults.count(&heights, boxes.heights_mm.len(), 1..=6);
                for (i, &mm) in boxes.heights_mm.iter().enumerate() {
                    faults.number(&heights.at(i), mm, 5.0..=1000.0, Quantity::LengthMm);
                }
                let most = clear_mm.unwrap_or(3500.0).max(0.0);
                let stacked = at.at("stacked_mm");
                faults.number(&stacked, boxes.stacked_mm, 0.0..=most, Quantity::LengthMm);
            }
            Some(Adjust::Fixed) | None => {}
        }
        let lamps = at.at("lamps");
        faults.unique(&lamps, self.lamps.iter().map(|lamp| lamp.id.as_str()));
        for (i, lamp) in faults.list(&lamps, &self.lamps, 0..=24) {
            lamp.check(&lamps.at(i), place, clear_mm, faults);
        }
        let mats = at.at("mats");
        faults.unique(&mats, self.mats.iter().map(|mat| mat.id.as_str()));
        for (i, mat) in faults.list(&mats, &self.mats, 0..=12) {
            mat.check(&mats.at(i), place, self, faults);
        }
        let fans = at.at("fans");
        faults.unique(&fans, self.fans.iter().map(|fan| fan.id.as_str()));
        for (i, fan) in faults.list(&fans, &self.fans, 0..=8) {
            fan.check(&fans.at(i), place, clear_mm, faults);
        }
    }
}
