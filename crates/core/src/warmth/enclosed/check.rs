//! What physics and the trade rule out of enclosed air.

use crate::basis::clock::DAY_H;
use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::Quantity;
use crate::warmth::enclosed::set_up::EnclosedAir;

impl EnclosedAir {
    pub(super) fn check(&self) -> Result<(), Vec<Fault>> {
        let mut faults = Faults::default();
        self.look_over(&mut faults);
        faults.verdict()
    }

    fn look_over(&self, faults: &mut Faults) {
        let root = Pointer::default();
        let (celsius, plain, share) = (Quantity::TemperatureC, Quantity::Plain, Quantity::Share);
        for (name, value, range, quantity) in [
            ("volume_m3", self.volume_m3, 0.005..=2000.0, plain),
            ("cover_w_k", self.cover_w_k, 0.01..=20_000.0, plain),
            ("sky_k", self.sky_k, 0.0..=20.0, plain),
            (
                "leak_m3_h",
                self.leak_m3_h,
                0.0..=50_000.0,
                Quantity::FlowM3H,
            ),
            ("ground_w_k", self.ground_w_k, 0.0..=20_000.0, plain),
            ("ground_c", self.ground_c, -30.0..=40.0, celsius),
            ("store_j_k", self.store_j_k, 100.0..=1e10, plain),
            ("store_w_k", self.store_w_k, 0.01..=50_000.0, plain),
            ("day_c", self.day_c, -60.0..=60.0, celsius),
            ("night_c", self.night_c, -60.0..=60.0, celsius),
            ("humidity", self.humidity, 0.05..=1.0, share),
            ("wet_m2", self.wet_m2, 0.0..=1000.0, plain),
            ("dew_m2", self.dew_m2, 0.0..=2000.0, plain),
            ("dew_share", self.dew_share, 0.0..=1.0, share),
        ] {
            faults.number(&root.at(name), value, range, quantity);
        }
        if let Some(cover) = self.night_cover {
            let at = root.at("night_cover");
            faults.number(&at.at("cover_w_k"), cover.cover_w_k, 0.01..=20_000.0, plain);
            times(&at, "from_h", cover.from_h, cover.hours, faults);
        }
        if let Some(opening) = self.opening {
            let at = root.at("opening");
            let flow = Quantity::FlowM3H;
            faults.number(&at.at("wide_m3_h"), opening.wide_m3_h, 0.0..=1e6, flow);
            faults.number(&at.at("from_c"), opening.from_c, -20.0..=50.0, celsius);
            faults.number(&at.at("over_k"), opening.over_k, 0.5..=30.0, plain);
            times(&at, "from_h", opening.from_h, opening.hours, faults);
        }
        if let Some(sun) = self.sun {
            let at = root.at("sun");
            faults.number(&at.at("kwh"), sun.kwh, 0.0..=10_000.0, Quantity::EnergyKwh);
            faults.number(&at.at("on_store"), sun.on_store, 0.0..=1.0, share);
            times(&at, "rises_h", sun.rises_h, sun.hours, faults);
        }
        for (i, lamp) in faults.list(&root.at("lamps"), &self.lamps, 0..=200) {
            let at = root.at("lamps").at(i);
            faults.number(
                &at.at("watts"),
                lamp.watts,
                0.0..=20_000.0,
                Quantity::PowerW,
            );
            times(&at, "from_h", lamp.from_h, lamp.hours, faults);
        }
        if let Some(heating) = self.heating {
            let at = root.at("heating");
            faults.number(&at.at("set_c"), heating.set_c, -20.0..=40.0, celsius);
            faults.number(&at.at("under_k"), heating.under_k, 0.1..=10.0, plain);
            faults.number(
                &at.at("most_w"),
                heating.most_w,
                0.0..=1e5,
                Quantity::PowerW,
            );
        }
    }
}

/// A time of the day, and how long something goes on from then.
fn times(at: &Pointer, name: &str, from_h: f64, hours: f64, faults: &mut Faults) {
    faults.number(&at.at(name), from_h, 0.0..=DAY_H, Quantity::ClockH);
    faults.number(&at.at("hours"), hours, 0.0..=DAY_H, Quantity::Hours);
}
