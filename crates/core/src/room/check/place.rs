//! Places without a fault.

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::room::place::{Chamber, Kind, Place};
use crate::room::tier::LEAST_BAY_MM;
use crate::room::vent::check_vents;

impl Place {
    pub(super) fn check(&self, at: &Pointer, faults: &mut Faults) {
        faults.id(&at.at("id"), &self.id);
        faults.name(&at.at("name"), &self.name);
        self.kind.check(&at.at("kind"), faults);
        for (name, measured) in [
            ("air_day_k", self.air_day_k),
            ("air_night_k", self.air_night_k),
        ] {
            if let Some(measured) = measured {
                measured.check_difference(&at.at(name), faults);
            }
        }
        let deck = at.at("deck");
        let mut fine = true;
        for (at, mm, range) in [
            (at.at("width_mm"), self.width_mm, 100.0..=5000.0),
            (at.at("depth_mm"), self.depth_mm, 80.0..=2000.0),
            (at.at("height_mm"), self.height_mm, 150.0..=3500.0),
            (deck.at("thickness_mm"), self.deck.thickness_mm, 0.0..=100.0),
        ] {
            fine &= faults.number(&at, mm, range, Quantity::LengthMm);
        }
        faults.number(
            &at.at("empty_kg"),
            self.empty_kg,
            0.0..=2000.0,
            Quantity::MassKg,
        );
        for (at, rating) in [
            (at.at("rating_kg"), self.rating_kg),
            (deck.at("rating_kg"), self.deck.rating_kg),
        ] {
            if let Some(kg) = rating {
                faults.number(&at, kg, 0.5..=5000.0, Quantity::MassKg);
            }
        }
        if let Some(spot) = self.spot {
            for (name, mm) in [("x_mm", spot.x_mm), ("y_mm", spot.y_mm)] {
                faults.number(
                    &at.at("spot").at(name),
                    mm,
                    0.0..=30_000.0,
                    Quantity::LengthMm,
                );
            }
        }
        let tiers = at.at("tiers");
        faults.count(&tiers, self.tiers.len(), 1..=20);
        faults.unique(&tiers, self.tiers.iter().map(|tier| tier.id.as_str()));
        let mut lowest = 0.0;
        for (i, tier) in self.tiers.iter().enumerate() {
            let at = tiers.at(i);
            // Of two decks that clash the upper is named: it is the one to move up.
            if fine {
                fine &= faults.number(
                    &at.at("deck_height_mm"),
                    tier.deck_height_mm,
                    lowest..=self.height_mm,
                    Quantity::LengthMm,
                );
                lowest = tier.deck_height_mm + LEAST_BAY_MM + self.deck.thickness_mm;
            }
        }
        if let Some(airing) = &self.airing {
            airing.check(&at.at("airing"), faults);
        }
        let settings = at.at("settings");
        for (i, setting) in faults.list(&settings, &self.settings, 0..=20) {
            let known = || self.tiers.iter().map(|tier| tier.id.clone());
            if let Some(tier) = &setting.tier
                && !known().any(|id| id == *tier)
            {
                faults.unknown(&settings.at(i).at("tier"), tier, known());
            }
            if let Some(airing) = &setting.airing {
                airing.check(&settings.at(i).at("airing"), faults);
            }
        }
        for (i, tier) in self.tiers.iter().enumerate() {
            // Without sound decks there is no ceiling to hold the lamps against.
            let clear_mm = fine.then(|| self.clear_height_mm(i));
            tier.check(&tiers.at(i), self, clear_mm, faults);
        }
    }
}

impl Kind {
    fn check(&self, at: &Pointer, faults: &mut Faults) {
        let mm = |faults: &mut Faults, at: Pointer, value, range| {
            faults.number(&at, value, range, Quantity::LengthMm);
        };
        let pitch = 1.0..=500.0;
        match self {
            Self::Rack(rack) => {
                let at = at.at("rack");
                mm(faults, at.at("pitch_mm"), rack.pitch_mm, pitch);
                mm(faults, at.at("post_mm"), rack.post_mm, 0.0..=100.0);
            }
            Self::WallShelf(fittings) => {
                let at = at.at("wall_shelf");
                mm(faults, at.at("pitch_mm"), fittings.pitch_mm, pitch);
            }
            Self::Closet(closet) => {
                let at = at.at("closet");
                mm(faults, at.at("pitch_mm"), closet.pitch_mm, pitch);
                check_vents(&closet.vents, &at.at("vents"), faults);
            }
            Self::Bench(_) | Self::Surface(_) => {}
            Self::ColdFrame(frame) => {
                if let Some(cover) = &frame.cover {
                    let at = at.at("cold_frame").at("cover");
                    if let Some(c) = cover.heated_c {
                        let celsius = Quantity::TemperatureC;
                        faults.number(&at.at("heated_c"), c, -5.0..=30.0, celsius);
                    }
                    if let Some(share) = cover.sun_share {
                        faults.number(&at.at("sun_share"), share, 0.0..=1.0, Quantity::Share);
                    }
                    let litres = Quantity::Plain;
                    faults.number(&at.at("water_l"), cover.water_l, 0.0..=5000.0, litres);
                }
            }
            Self::Chamber(chamber) => {
                let at = at.at("chamber");
                mm(faults, at.at("pitch_mm"), chamber.pitch_mm, pitch);
                chamber.check(&at, faults);
            }
            Self::Window(window) => {
                let at = at.at("window");
                for (name, deg, range) in [
                    ("azimuth_deg", window.azimuth_deg, 0.0..=360.0),
                    ("obstruction_deg", window.obstruction_deg, 0.0..=89.0),
                ] {
                    faults.number(&at.at(name), deg, range, Quantity::AngleDeg);
                }
                for (name, value) in [
                    ("pane_width_mm", window.pane_width_mm),
                    ("pane_height_mm", window.pane_height_mm),
                ] {
                    mm(faults, at.at(name), value, 50.0..=6000.0);
                }
            }
        }
    }
}

impl Chamber {
    fn check(&self, at: &Pointer, faults: &mut Faults) {
        let walls = at.at("walls");
        for (i, wall) in faults.list(&walls, &self.walls, 1..=10) {
            let at = walls.at(i);
            faults.name(&at.at("name"), &wall.name);
            faults.number(
                &at.at("thickness_mm"),
                wall.thickness_mm,
                0.01..=300.0,
                Quantity::LengthMm,
            );
            faults.number(
                &at.at("conductivity_w_mk"),
                wall.conductivity_w_mk,
                0.005..=500.0,
                Quantity::ConductivityWMk,
            );
        }
        if let Some(mm) = self.probe_mm {
            let at = at.at("probe_mm");
            faults.number(&at, mm, 0.0..=3500.0, Quantity::LengthMm);
        }
        if let Some(c) = self.limit_c {
            let at = at.at("limit_c");
            faults.number(&at, c, 15.0..=60.0, Quantity::TemperatureC);
        }
        check_vents(&self.vents, &at.at("vents"), faults);
    }
}
