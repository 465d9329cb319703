//! What physics and the trade rule out of a root zone.

use crate::basis::clock::DAY_H;
use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::{Quantity, area_m2};
use crate::basis::words::say;
use crate::warmth::root_zone::set_up::RootZone;

impl RootZone {
    pub(super) fn check(&self) -> Result<(), Vec<Fault>> {
        let mut faults = Faults::default();
        let root = Pointer::default();
        let celsius = Quantity::TemperatureC;
        let mm = Quantity::LengthMm;
        let air = root.at("air");
        faults.number(&air.at("day_c"), self.air.day_c, -20.0..=50.0, celsius);
        faults.number(&air.at("night_c"), self.air.night_c, -20.0..=50.0, celsius);
        let share = |faults: &mut Faults, at: Pointer, value| {
            faults.number(&at, value, 0.0..=1.0, Quantity::Share);
        };
        share(&mut faults, air.at("humidity"), self.air.humidity);
        let tray = root.at("tray");
        let sized = faults.number(
            &tray.at("length_mm"),
            self.tray.length_mm,
            20.0..=2000.0,
            mm,
        ) & faults.number(&tray.at("width_mm"), self.tray.width_mm, 20.0..=2000.0, mm);
        share(&mut faults, tray.at("free_sides"), self.tray.free_sides);
        let mix = root.at("mix");
        faults.number(&mix.at("depth_mm"), self.mix.depth_mm, 5.0..=400.0, mm);
        faults.number(
            &mix.at("conductivity_w_mk"),
            self.mix.conductivity_w_mk,
            0.05..=1.5,
            Quantity::ConductivityWMk,
        );
        faults.number(
            &mix.at("heat_capacity_mj_m3k"),
            self.mix.heat_capacity_mj_m3k,
            0.2..=4.2,
            Quantity::Plain,
        );
        share(&mut faults, mix.at("wetness"), self.mix.wetness);
        for (i, layer) in faults.list(&root.at("under"), &self.under, 0..=10) {
            layer.check(&root.at("under").at(i), &mut faults);
        }
        faults.number(
            &root.at("air_m_s"),
            self.air_m_s,
            0.0..=20.0,
            Quantity::SpeedMS,
        );
        if let Some(c) = self.warm_surface_c {
            faults.number(&root.at("warm_surface_c"), c, -20.0..=80.0, celsius);
        }
        if let Some(mat) = &self.mat {
            let at = root.at("mat");
            let sound = faults.number(&at.at("length_mm"), mat.length_mm, 20.0..=3000.0, mm)
                & faults.number(&at.at("width_mm"), mat.width_mm, 20.0..=3000.0, mm)
                & sized;
            share(&mut faults, at.at("cover"), mat.cover);
            // A m² of heat mat has 100 to 250 W; more than 1000 is a hotplate.
            const MOST_W_M2: f64 = 1000.0;
            let most = if sound {
                MOST_W_M2 * area_m2(mat.length_mm, mat.width_mm)
            } else {
                f64::INFINITY
            };
            if !(0.0..=most).contains(&mat.watts) {
                faults.add(
                    &at.at("watts"),
                    mat.watts,
                    say!(
                        "{watts} under a mat of this size would burn it",
                        watts = Quantity::PowerW.of(mat.watts)
                    ),
                    say!(
                        "give {most} at the most: heat mats have 100 to 250 W a m²",
                        most = Quantity::PowerW.of(most)
                    ),
                );
            }
        }
        if let Some(thermostat) = &self.thermostat {
            let at = root.at("thermostat");
            faults.number(&at.at("set_c"), thermostat.set_c, 0.0..=45.0, celsius);
            let kelvin = Quantity::DifferenceK;
            let range = 0.1..=10.0;
            faults.number(
                &at.at("hysteresis_k"),
                thermostat.hysteresis_k,
                range,
                kelvin,
            );
            let range = -15.0..=15.0;
            faults.number(
                &at.at("dial_error_k"),
                thermostat.dial_error_k,
                range,
                kelvin,
            );
            if self.mat.is_none() {
                faults.add(
                    &root.at("mat"),
                    serde_json::Value::Null,
                    say!("a thermostat without a mat switches nothing"),
                    say!("give the mat, or leave the thermostat out"),
                );
            }
        }
        if let Some(light) = &self.light {
            let at = root.at("light");
            let range = 0.0..=3000.0;
            faults.number(&at.at("ppfd"), light.ppfd, range, Quantity::PpfdUmolM2S);
            faults.number(
                &at.at("from_h"),
                light.from_h,
                0.0..=DAY_H,
                Quantity::ClockH,
            );
            faults.number(&at.at("hours"), light.hours, 0.0..=DAY_H, Quantity::Hours);
        }
        faults.verdict()
    }
}
