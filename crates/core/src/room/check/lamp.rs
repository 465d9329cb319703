//! Lamps without a fault.

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::room::fan::MOST_OVERHANG_MM;
use crate::room::lamp::{Dimmer, Distribution, LOWEST_FACE_MM, Lamp, LampFamily, PhotometricType};
use crate::room::place::Place;

impl Lamp {
    pub(super) fn check(
        &self,
        at: &Pointer,
        place: &Place,
        clear_mm: Option<f64>,
        faults: &mut Faults,
    ) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        let mut number = |name: &str, value, range, quantity| {
            faults.number(&at.at(name), value, range, quantity)
        };
        number(
            "cct_k",
            self.cct_k,
            1500.0..=20_000.0,
            Quantity::ColourTemperatureK,
        );
        number("flux_lm", self.flux_lm, 0.0..=200_000.0, Quantity::FluxLm);
        if let Some(ppf) = self.ppf_umol_s {
            number("ppf_umol_s", ppf, 0.0..=5000.0, Quantity::PpfUmolS);
        }
        if self.family == LampFamily::RedBlueLed && self.ppf_umol_s.is_none() {
            faults.add(
                &at.at("ppf_umol_s"),
                serde_json::Value::Null,
                say!("the lumens of purple light do not tell its photons"),
                say!("give the photons per second (PPF) that the maker states"),
            );
        }
        if let Some(dimmer) = &self.dimmer {
            dimmer.check(&at.at("dimmer"), faults);
        }
        if let Some(age) = self.ageing {
            let at = at.at("ageing");
            for (name, hours, range) in [
                ("burnt_h", age.burnt_h, 0.0..=500_000.0),
                ("l70_h", age.l70_h, 1000.0..=500_000.0),
            ] {
                faults.number(&at.at(name), hours, range, Quantity::Hours);
            }
        }
        if let Some(measured) = self.measured {
            measured.check(&at.at("measured"), 0.05..=5.0, Quantity::Share, faults);
        }
        if let Some(distribution) = &self.distribution {
            distribution.check(&at.at("distribution"), faults);
        }
        let mut number = |name: &str, value, range, quantity| {
            faults.number(&at.at(name), value, range, quantity)
        };
        number("watts", self.watts, 0.0..=2000.0, Quantity::PowerW);
        if let Some(factor) = self.power_factor {
            number("power_factor", factor, 0.1..=1.0, Quantity::Plain);
        }
        if let Some(amps) = self.inrush_a {
            number("inrush_a", amps, 0.0..=500.0, Quantity::CurrentA);
        }
        number("beam_deg", self.beam_deg, 15.0..=160.0, Quantity::AngleDeg);
        let over = MOST_OVERHANG_MM;
        let (x, y) = (place.width_mm, place.depth_mm);
        number(
            "x_mm",
            self.x_mm,
            -over..=x.max(0.0) + over,
            Quantity::LengthMm,
        );
        number(
            "y_mm",
            self.y_mm,
            -over..=y.max(0.0) + over,
            Quantity::LengthMm,
        );
        number(
            "least_gap_mm",
            self.least_gap_mm,
            0.0..=2000.0,
            Quantity::LengthMm,
        );
        let body = number(
            "body_height_mm",
            self.body_height_mm,
            0.0..=500.0,
            Quantity::LengthMm,
        );
        if place.is_closed() && self.emitters.iter().all(|f| f.length_mm.is_finite()) {
            self.check_walls(at, place, faults);
        }
        let height = at.at("height_mm");
        match clear_mm {
            Some(clear_mm) if body => {
                let highest = clear_mm - self.body_height_mm;
                if highest < LOWEST_FACE_MM {
                    faults.add(
                        &at.at("body_height_mm"),
                        self.body_height_mm,
                        say!(
                            "a lamp {body} high is too tall for a shelf with {clear} clear",
                            body = Quantity::LengthMm.of(self.body_height_mm),
                            clear = Quantity::LengthMm.of(clear_mm)
                        ),
                        say!("take a flatter lamp or a taller shelf"),
                    );
                } else if self.height_mm > highest {
                    faults.add(
                        &height,
                        self.height_mm,
                        say!(
                            "a lamp at {height} would stick through the shelf above, which is {clear} up",
                            height = Quantity::LengthMm.of(self.height_mm),
                            clear = Quantity::LengthMm.of(clear_mm)
                        ),
                        say!(
                            "hang its emitting face at {highest} or lower",
                            highest = Quantity::LengthMm.of(highest)
                        ),
                    );
                } else {
                    faults.number(
                        &height,
                        self.height_mm,
                        LOWEST_FACE_MM..=highest,
                        Quantity::LengthMm,
                    );
                }
            }
            _ => {
                faults.number(
                    &height,
                    self.height_mm,
                    LOWEST_FACE_MM..=3500.0,
                    Quantity::LengthMm,
                );
            }
        }
        let emitters = at.at("emitters");
        for (i, face) in faults.list(&emitters, &self.emitters, 1..=16) {
            let at = emitters.at(i);
            for (name, mm, range) in [
                ("length_mm", face.length_mm, 1.0..=5000.0),
                ("width_mm", face.width_mm, 1.0..=2000.0),
                ("across_mm", face.across_mm, -1000.0..=1000.0),
            ] {
                faults.number(&at.at(name), mm, range, Quantity::LengthMm);
            }
        }
    }
}

impl Lamp {
    /// Notes a lamp that would reach through a wall of a closed place.
    fn check_walls(&self, at: &Pointer, place: &Place, faults: &mut Faults) {
        let sides = [("x_mm", place.width_mm), ("y_mm", place.depth_mm)];
        for ((name, side_mm), [from, to]) in sides.into_iter().zip(self.extent_mm()) {
            let through_mm = (-from).max(to - side_mm);
            if through_mm <= 1.0 {
                continue;
            }
            let length = |mm: f64| Quantity::LengthMm.of(mm);
            faults.add(
                &at.at(name),
                if name == "x_mm" { self.x_mm } else { self.y_mm },
                say!(
                    "{lamp} would reach {through} through a wall of {place}",
                    lamp = &self.name,
                    through = length(through_mm),
                    place = &place.name
                ),
                if to - from > side_mm {
                    say!(
                        "turn it, or take one of at most {side}",
                        side = length(side_mm)
                    )
                } else {
                    say!(
                        "hang its middle from {least} to {most}",
                        least = length((to - from) / 2.0),
                        most = length(side_mm - (to - from) / 2.0)
                    )
                },
            );
        }
    }
}

impl Dimmer {
    fn check(&self, at: &Pointer, faults: &mut Faults) {
        let steps = at.at("steps");
        if !faults.count(&steps, self.steps.len(), 1..=100) {
            return;
        }
        for (i, &share) in self.steps.iter().enumerate() {
            faults.number(&steps.at(i), share, 0.01..=1.0, Quantity::Share);
        }
        let last = self.steps.len() - 1;
        let range = 0.0..=last as f64;
        faults.number(&at.at("at"), self.at as f64, range, Quantity::Count);
    }
}

impl Distribution {
    /// The most intensities that one may hold.
    pub const MOST: usize = 100_000;

    fn check(&self, at: &Pointer, faults: &mut Faults) {
        let around = if self.kind == PhotometricType::C {
            [0.0..=180.0, 0.0..=360.0]
        } else {
            [-90.0..=90.0, -90.0..=90.0]
        };
        let lists = [
            ("vertical_deg", &self.vertical_deg, 2),
            ("horizontal_deg", &self.horizontal_deg, 1),
        ];
        for ((name, angles, least), range) in lists.into_iter().zip(around) {
            let at = at.at(name);
            for (i, &angle) in faults.list(&at, angles, least..=1000) {
                faults.number(&at.at(i), angle, range.clone(), Quantity::AngleDeg);
            }
            if let Some(i) = angles.windows(2).position(|pair| pair[1] <= pair[0]) {
                faults.add(
                    &at.at(i + 1),
                    angles[i + 1],
                    say!("the angles do not rise"),
                    say!("list each angle once, from the smallest up"),
                );
            }
        }
        let (wide, tall) = (self.horizontal_deg.len(), self.vertical_deg.len());
        let candela = at.at("candela");
        let most = Self::MOST / tall.max(1);
        if wide > most || !faults.count(&candela, self.candela.len(), wide..=wide) {
            faults.count(&candela, wide, 1..=most.max(1));
            return;
        }
        for (i, column) in self.candela.iter().enumerate() {
            let at = candela.at(i);
            for (j, &cd) in faults.list(&at, column, tall..=tall) {
                faults.number(&at.at(j), cd, 0.0..=1e9, Quantity::Plain);
            }
        }
        if self.candela.iter().flatten().all(|&cd| cd <= 0.0) {
            faults.add(
                &candela,
                0.0,
                say!("no direction has any light"),
                say!("give the measured intensities"),
            );
        }
    }
}
