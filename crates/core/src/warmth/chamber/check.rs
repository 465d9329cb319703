//! What physics and the trade rule out of a chamber.

use crate::basis::clock::DAY_H;
use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::warmth::chamber::set_up::ChamberSetUp;

impl ChamberSetUp {
    pub(super) fn check(&self) -> Result<(), Vec<Fault>> {
        let mut faults = Faults::default();
        let root = Pointer::default();
        let mm = Quantity::LengthMm;
        let celsius = Quantity::TemperatureC;
        let mut tall = true;
        for (name, value) in [
            ("width_mm", self.width_mm),
            ("depth_mm", self.depth_mm),
            ("height_mm", self.height_mm),
        ] {
            tall &= faults.number(&root.at(name), value, 50.0..=5000.0, mm);
        }
        let inside = 0.0..=if tall { self.height_mm } else { 5000.0 };
        for (i, layer) in faults.list(&root.at("walls"), &self.walls, 1..=10) {
            layer.check(&root.at("walls").at(i), &mut faults);
        }
        for (i, vent) in faults.list(&root.at("vents"), &self.vents, 0..=20) {
            let at = root.at("vents").at(i);
            faults.number(&at.at("width_mm"), vent.width_mm, 0.0..=5000.0, mm);
            faults.number(&at.at("height_mm"), vent.height_mm, 0.0..=5000.0, mm);
            faults.number(&at.at("at_mm"), vent.at_mm, inside.clone(), mm);
        }
        if let Some(door) = &self.door {
            let at = root.at("door");
            let slot = at.at("slot");
            faults.number(&slot.at("width_mm"), door.slot.width_mm, 0.0..=5000.0, mm);
            faults.number(&slot.at("height_mm"), door.slot.height_mm, 0.0..=5000.0, mm);
            faults.number(&slot.at("at_mm"), door.slot.at_mm, inside.clone(), mm);
            faults.number(&at.at("from_h"), door.from_h, 0.0..=DAY_H, Quantity::ClockH);
            faults.number(&at.at("hours"), door.hours, 0.0..=DAY_H, Quantity::Hours);
            if let Some(c) = door.over_c {
                faults.number(&at.at("over_c"), c, 0.0..=50.0, celsius);
            }
        }
        let shelves = root.at("shelves_mm");
        for (i, &at_mm) in faults.list(&shelves, &self.shelves_mm, 1..=20) {
            let least = i
                .checked_sub(1)
                .map_or(0.0, |below| self.shelves_mm[below] + 10.0);
            faults.number(&shelves.at(i), at_mm, least..=*inside.end(), mm);
        }
        for (name, c) in [("day_c", self.day_c), ("night_c", self.night_c)] {
            faults.number(&root.at(name), c, -20.0..=50.0, celsius);
        }
        let share = Quantity::Share;
        faults.number(&root.at("humidity"), self.humidity, 0.05..=1.0, share);
        faults.number(&root.at("wet_m2"), self.wet_m2, 0.0..=50.0, Quantity::Plain);
        // A chamber of a cubic metre needs some 50 W; a m³ with more than 2000 is an oven.
        const MOST_W_M3: f64 = 2000.0;
        let volume_m3 = self.width_mm * self.depth_mm * self.height_mm * 1e-9;
        let most_w = if tall {
            MOST_W_M3 * volume_m3
        } else {
            f64::INFINITY
        };
        let watts = |faults: &mut Faults, at: Pointer, watts: f64| {
            if !(0.0..=most_w).contains(&watts) {
                faults.add(
                    &at,
                    watts,
                    say!(
                        "{watts} in a chamber of this size would set it on fire",
                        watts = Quantity::PowerW.of(watts)
                    ),
                    say!(
                        "give {most} at the most",
                        most = Quantity::PowerW.of(most_w)
                    ),
                );
            }
        };
        for (i, heater) in faults.list(&root.at("heaters"), &self.heaters, 0..=20) {
            let at = root.at("heaters").at(i);
            watts(&mut faults, at.at("watts"), heater.watts);
            faults.number(&at.at("at_mm"), heater.at_mm, inside.clone(), mm);
        }
        for (i, lamp) in faults.list(&root.at("lamps"), &self.lamps, 0..=40) {
            let at = root.at("lamps").at(i);
            watts(&mut faults, at.at("watts"), lamp.watts);
            faults.number(&at.at("at_mm"), lamp.at_mm, inside.clone(), mm);
            faults.number(&at.at("from_h"), lamp.from_h, 0.0..=DAY_H, Quantity::ClockH);
            faults.number(&at.at("hours"), lamp.hours, 0.0..=DAY_H, Quantity::Hours);
        }
        if let Some(thermostat) = &self.thermostat {
            let at = root.at("thermostat");
            faults.number(&at.at("set_c"), thermostat.set_c, 0.0..=45.0, celsius);
            let range = 0.1..=10.0;
            let k = Quantity::DifferenceK;
            faults.number(&at.at("hysteresis_k"), thermostat.hysteresis_k, range, k);
            faults.number(&at.at("probe_at_mm"), thermostat.probe_at_mm, inside, mm);
        }
        let flow = 0.0..=5000.0;
        faults.number(&root.at("fan_m3_h"), self.fan_m3_h, flow, Quantity::FlowM3H);
        faults.number(
            &root.at("wet_kg"),
            self.wet_kg,
            0.0..=2000.0,
            Quantity::MassKg,
        );
        faults.number(&root.at("limit_c"), self.limit_c, 10.0..=60.0, celsius);
        let money = Quantity::Money;
        faults.number(
            &root.at("price_per_kwh"),
            self.price_per_kwh,
            0.0..=10_000.0,
            money,
        );
        faults.verdict()
    }
}
