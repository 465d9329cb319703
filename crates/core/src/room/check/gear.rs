//! Mats and fans without a fault.

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::room::fan::{Fan, MOST_OVERHANG_MM};
use crate::room::mat::Mat;
use crate::room::place::Place;
use crate::room::tier::Tier;

impl Mat {
    pub(super) fn check(&self, at: &Pointer, place: &Place, tier: &Tier, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        for (name, mm) in [("length_mm", self.length_mm), ("width_mm", self.width_mm)] {
            faults.number(&at.at(name), mm, 50.0..=3000.0, Quantity::LengthMm);
        }
        faults.number(&at.at("watts"), self.watts, 0.0..=1000.0, Quantity::PowerW);
        if let Some(c) = self.thermostat_c {
            faults.number(
                &at.at("thermostat_c"),
                c,
                5.0..=45.0,
                Quantity::TemperatureC,
            );
        }
        for (name, k, range) in [
            ("hysteresis_k", self.hysteresis_k, 0.1..=10.0),
            ("dial_error_k", self.dial_error_k, -10.0..=10.0),
        ] {
            if let Some(k) = k {
                faults.number(&at.at(name), k, range, Quantity::DifferenceK);
            }
        }
        if let Some(measured) = self.measured {
            measured.check(&at.at("measured"), 0.05..=5.0, Quantity::Share, faults);
        }
        if let Some(mm) = self.pad_mm {
            faults.number(&at.at("pad_mm"), mm, 1.0..=100.0, Quantity::LengthMm);
        }
        if let Some(id) = &self.switched_with {
            let lead = tier.mats.iter().find(|lead| lead.id == *id);
            if !lead.is_some_and(|lead| lead.switched_with.is_none() && lead.id != self.id) {
                faults.add(
                    &at.at("switched_with"),
                    id,
                    say!(
                        "no mat on this shelf called \"{id}\" has a thermostat of its own",
                        id = id
                    ),
                    say!("name another mat on the same shelf, or leave it out"),
                );
            }
        }
        let size = self.size_mm();
        let deck = [place.width_mm, place.depth_mm];
        for (i, (name, mm)) in [("x_mm", self.x_mm), ("y_mm", self.y_mm)]
            .into_iter()
            .enumerate()
        {
            let most = (deck[i] - size[i]).max(0.0);
            // A mat that hangs over an edge is bent: it lies whole on the deck.
            if size[i] > deck[i] {
                faults.add(
                    &at.at(name),
                    mm,
                    say!(
                        "a mat of {size} does not lie flat on a shelf of {deck}",
                        size = Quantity::LengthMm.of(size[i]),
                        deck = Quantity::LengthMm.of(deck[i])
                    ),
                    say!("turn it, or take a smaller one"),
                );
            } else {
                faults.number(&at.at(name), mm, 0.0..=most, Quantity::LengthMm);
            }
        }
    }
}

impl Fan {
    pub(super) fn check(
        &self,
        at: &Pointer,
        place: &Place,
        clear_mm: Option<f64>,
        faults: &mut Faults,
    ) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        let over = MOST_OVERHANG_MM;
        let clear_mm = clear_mm.unwrap_or(3500.0).max(0.0);
        let across = faults.number(
            &at.at("diameter_mm"),
            self.diameter_mm,
            20.0..=600.0,
            Quantity::LengthMm,
        );
        let half = if across { self.diameter_mm / 2.0 } else { 10.0 };
        if 2.0 * half > clear_mm {
            faults.add(
                &at.at("diameter_mm"),
                self.diameter_mm,
                say!(
                    "a fan of {across} is too big for a shelf with {clear} clear",
                    across = Quantity::LengthMm.of(self.diameter_mm),
                    clear = Quantity::LengthMm.of(clear_mm)
                ),
                say!("take a smaller fan or a taller shelf"),
            );
        } else {
            faults.number(
                &at.at("height_mm"),
                self.height_mm,
                half..=clear_mm - half,
                Quantity::LengthMm,
            );
        }
        for (i, &flow) in faults.list(&at.at("speeds_m3_h"), &self.speeds_m3_h, 0..=8) {
            let at = at.at("speeds_m3_h").at(i);
            faults.number(&at, flow, 0.0..=5000.0, Quantity::FlowM3H);
        }
        let known = || place.tiers.iter().map(|tier| tier.id.clone());
        for (i, tier) in faults.list(&at.at("by_turns"), &self.by_turns, 0..=20) {
            if !known().any(|id| id == *tier) {
                faults.unknown(&at.at("by_turns").at(i), tier, known());
            }
        }
        for (name, value, range, quantity) in [
            ("flow_m3_h", self.flow_m3_h, 0.0..=5000.0, Quantity::FlowM3H),
            ("watts", self.watts, 0.0..=500.0, Quantity::PowerW),
            (
                "x_mm",
                self.x_mm,
                -over..=place.width_mm.max(0.0) + over,
                Quantity::LengthMm,
            ),
            (
                "y_mm",
                self.y_mm,
                -over..=place.depth_mm.max(0.0) + over,
                Quantity::LengthMm,
            ),
        ] {
            faults.number(&at.at(name), value, range, quantity);
        }
    }
}
