//! Containers: trays, pots, soil blocks, boxes and jars, by format.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::{Quantity, litres};
use crate::room::mix::MixKind;

/// A kind of tray: outer size, cells and mass.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrayFormat {
    /// Identifier that trays name.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// Outer length.
    pub length_mm: f64,
    /// Outer width.
    pub width_mm: f64,
    /// Height of the rim, and of the mix's surface.
    pub height_mm: f64,
    /// Cells along its length.
    pub columns: u32,
    /// Cells across its width.
    pub rows: u32,
    /// Mix, or water, that a cell holds, in ml.
    pub cell_ml: f64,
    /// Depth that roots have.
    pub cell_depth_mm: f64,
    /// Mass filled, sown and watered through, then drained.
    pub wet_kg: f64,
    /// Whether it has no holes, so that water can stand in it.
    pub holds_water: bool,
    /// What it is filled with; a peat mix when left out.
    #[serde(default, skip_serializing_if = "MixKind::is_usual")]
    pub mix: MixKind,
    /// Water in a reservoir under it that a wick or a mat of felt lifts into the mix; left out where there is
    /// none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reservoir_ml: Option<f64>,
    /// How far its dome reaches over the rim; left out when it has none.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dome_height_mm: Option<f64>,
}

/// Depth of water that a tray is given from below and that is poured off again, in mm (common
/// practice, no source).
pub const WATER_FROM_BELOW_MM: f64 = 25.0;

impl TrayFormat {
    /// The one of `formats` with cells nearest to `cell_ml`; `None` when none has half or twice as
    /// much, which still does.
    pub fn nearest(formats: &[Self], cell_ml: f64) -> Option<&Self> {
        let off = |format: &Self| (format.cell_ml / cell_ml).ln().abs();
        Self::like(formats, cell_ml).min_by(|a, b| off(a).total_cmp(&off(b)))
    }

    /// Those of `formats` with several cells of half to twice `cell_ml`, which still do.
    pub fn like(formats: &[Self], cell_ml: f64) -> impl Iterator<Item = &Self> {
        let off = move |format: &Self| (format.cell_ml / cell_ml).ln().abs();
        let trays = formats.iter().filter(|format| format.cells() > 1);
        trays.filter(move |format| off(format) < 2.0_f64.ln())
    }

    /// What it takes to fill it, in litres.
    pub fn mix_l(&self) -> f64 {
        self.cell_ml * f64::from(self.cells()) / 1000.0
    }

    /// The same filled with `mix`, and as heavy as that makes it.
    #[must_use]
    pub fn filled_with(mut self, mix: MixKind) -> Self {
        let change_kg_l = mix.figures().wet_kg_l() - self.mix.figures().wet_kg_l();
        // To ten grams: nobody weighs more finely.
        let kg = self.wet_kg + change_kg_l * self.mix_l();
        self.wet_kg = (kg * 100.0).round().max(1.0) / 100.0;
        self.mix = mix;
        self
    }

    /// How many cells it has.
    pub fn cells(&self) -> u32 {
        self.columns * self.rows
    }

    /// Mass while it is watered from below: drained, plus the water that stands in it.
    pub fn watered_kg(&self) -> f64 {
        if !self.holds_water {
            return self.wet_kg;
        }
        // A litre of water is a kilogram; the cells in it displace about half of it.
        const SHARE_OF_WATER: f64 = 0.5;
        let depth_mm = WATER_FROM_BELOW_MM.min(self.height_mm);
        self.wet_kg + SHARE_OF_WATER * litres(self.length_mm, self.width_mm, depth_mm)
    }

    pub(crate) fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        for (name, mm) in [
            ("length_mm", self.length_mm),
            ("width_mm", self.width_mm),
            ("height_mm", self.height_mm),
        ] {
            faults.number(&at.at(name), mm, 10.0..=2000.0, Quantity::LengthMm);
        }
        faults.number(
            &at.at("cell_depth_mm"),
            self.cell_depth_mm,
            0.0..=2000.0,
            Quantity::LengthMm,
        );
        if let Some(mm) = self.dome_height_mm {
            faults.number(
                &at.at("dome_height_mm"),
                mm,
                0.0..=1000.0,
                Quantity::LengthMm,
            );
        }
        if let Some(ml) = self.reservoir_ml {
            let at = at.at("reservoir_ml");
            faults.number(&at, ml, 10.0..=100_000.0, Quantity::VolumeMl);
        }
        for (name, cells) in [("columns", self.columns), ("rows", self.rows)] {
            faults.number(&at.at(name), f64::from(cells), 1.0..=40.0, Quantity::Count);
        }
        faults.number(
            &at.at("cell_ml"),
            self.cell_ml,
            0.0..=100_000.0,
            Quantity::VolumeMl,
        );
        faults.number(&at.at("wet_kg"), self.wet_kg, 0.0..=200.0, Quantity::MassKg);
    }
}

#[cfg(test)]
mod tests {
    #[test]
    fn another_mix_makes_a_tray_lighter_or_heavier_and_the_first_one_brings_its_mass_back() {
        use super::MixKind;
        let kinds = crate::room::shelf::library();
        let tray = kinds.containers.iter().find(|c| c.id == "cells-72");
        let tray = tray.unwrap().clone();
        let compost = tray.clone().filled_with(MixKind::Compost);
        assert!(compost.wet_kg > tray.wet_kg + 0.15 * tray.mix_l());
        let bark = compost.filled_with(MixKind::Bark);
        assert!(bark.wet_kg < tray.wet_kg);
        assert!((bark.filled_with(MixKind::Peat).wet_kg - tray.wet_kg).abs() < 0.02);
    }

    #[test]
    fn a_standard_tray_weighs_about_two_litres_more_while_it_is_watered() {
        let kinds = crate::room::shelf::library();
        let tray = kinds
            .containers
            .iter()
            .find(|c| c.id == "cells-72")
            .unwrap();
        let water = tray.watered_kg() - tray.wet_kg;
        // 540 x 280 x 25 mm are 3.78 litres, half of it taken up by the cells.
        assert!((water - 1.89).abs() < 0.01, "{water}");
        let pot = kinds.containers.iter().find(|c| c.id == "pot-9").unwrap();
        assert_eq!(pot.watered_kg(), pot.wet_kg);
    }
}
