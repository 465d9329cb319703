//! Heat mats and fans, and which way things lie.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::place::Place;
use crate::fault::{Faults, Pointer};
use crate::say;
use crate::units::Quantity;

/// A direction in the deck's plane.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Axis {
    /// Along the front.
    X,
    /// From front to back.
    Y,
}

impl Axis {
    /// The extent along x and along y of something `length_mm` long this way and `width_mm` wide.
    pub fn lay(self, length_mm: f64, width_mm: f64) -> [f64; 2] {
        match self {
            Self::X => [length_mm, width_mm],
            Self::Y => [width_mm, length_mm],
        }
    }
}

/// A heat mat that lies on a deck.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Mat {
    /// Identifier, unique among the tier's mats.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// Its length.
    pub length_mm: f64,
    /// Its width.
    pub width_mm: f64,
    /// Power drawn at the plug.
    pub watts: f64,
    /// Left edge on the deck.
    pub x_mm: f64,
    /// Front edge on the deck.
    pub y_mm: f64,
    /// Which way its length runs.
    pub along: Axis,
    /// What its thermostat holds the root zone at, in °C; left out, the mat is always on.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thermostat_c: Option<f64>,
    /// Where its thermostat's probe is; in the mix when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub probe: Option<MatProbe>,
    /// From its thermostat's switching on to its switching off; 1 K when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub hysteresis_k: Option<f64>,
    /// How much warmer it really is than the thermostat's dial says when it switches; 0 when left
    /// out. A thermometer in the mix shows it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dial_error_k: Option<f64>,
    /// Thickness of the foam that it lies on; left out, it lies on the deck.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pad_mm: Option<f64>,
}

/// Where the probe of a mat's thermostat is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MatProbe {
    /// In the mix, at root depth.
    Mix,
    /// Between mat and tray.
    Mat,
    /// In the air of the room.
    Air,
}

impl Mat {
    /// Its extent along x and along y, in mm.
    pub fn size_mm(&self) -> [f64; 2] {
        self.along.lay(self.length_mm, self.width_mm)
    }

    pub(super) fn check(&self, at: &Pointer, place: &Place, faults: &mut Faults) {
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
        if let Some(mm) = self.pad_mm {
            faults.number(&at.at("pad_mm"), mm, 1.0..=100.0, Quantity::LengthMm);
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
                        "a mat of {size} does not lie flat on a deck of {deck}",
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

/// A fan in a bay.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Fan {
    /// Identifier, unique among the tier's fans.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// Diameter of the frame around the blades.
    pub diameter_mm: f64,
    /// Air moved at the speed in use, in m³/h.
    pub flow_m3_h: f64,
    /// Power drawn at the plug.
    pub watts: f64,
    /// Its middle along the shelf.
    pub x_mm: f64,
    /// Its middle from the front.
    pub y_mm: f64,
    /// Its middle above the deck.
    pub height_mm: f64,
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
                    "a fan of {across} does not go into a bay of {clear}",
                    across = Quantity::LengthMm.of(self.diameter_mm),
                    clear = Quantity::LengthMm.of(clear_mm)
                ),
                say!("take a smaller fan or a taller bay"),
            );
        } else {
            faults.number(
                &at.at("height_mm"),
                self.height_mm,
                half..=clear_mm - half,
                Quantity::LengthMm,
            );
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

/// How far a lamp or a tray may stick out over the edge of a deck.
pub const MOST_OVERHANG_MM: f64 = 120.0;
