//! Lamps: what they emit, how far they are dimmed and aged, and where they hang.

use std::sync::Arc;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use super::gear::{Axis, MOST_OVERHANG_MM};
use super::place::Place;
use crate::fault::{Faults, Pointer};
use crate::say;
use crate::units::Quantity;

/// How a lamp's white is made.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LampFamily {
    /// Blue-pumped phosphor LED.
    WhiteLed,
    /// Three-band fluorescent tube, as sold in the last decades.
    FluorescentTriBand,
    /// Standard (halophosphate) fluorescent tube, found in old fixtures.
    FluorescentStandard,
    /// Red and blue LEDs without white: purple light, whose lumens say next to nothing.
    RedBlueLed,
}

/// A lamp: one or more flat emitters that face down from one body.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Lamp {
    /// Identifier, unique in the tier.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// How its white is made, which decides the photons in a lumen.
    pub family: LampFamily,
    /// Correlated colour temperature.
    pub cct_k: f64,
    /// Luminous flux of all its emitters together when new and undimmed; all of it downwards,
    /// but for bare tubes and measured distributions.
    pub flux_lm: f64,
    /// Photons per second as the maker states them; wins over the lumens' conversion.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ppf_umol_s: Option<f64>,
    /// Power drawn at the plug.
    pub watts: f64,
    /// Full angle at which the intensity has fallen to half; 120 for a bare Lambertian strip.
    pub beam_deg: f64,
    /// Which way the emitters' length runs.
    pub along: Axis,
    /// Centre of the lamp along the shelf.
    pub x_mm: f64,
    /// Centre of the lamp from the front.
    pub y_mm: f64,
    /// The emitting face above the deck.
    pub height_mm: f64,
    /// How far the body reaches up from the emitting face.
    pub body_height_mm: f64,
    /// Least gap to the leaves by the lamp's heat.
    pub least_gap_mm: f64,
    /// The emitting rectangles, which share the flux by area.
    pub emitters: Vec<Face>,
    /// Whether its emitters are bare tubes that shine all round, without a reflector above.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub bare_tube: bool,
    /// Its measured distribution, which wins over `beam_deg` and `bare_tube`. Shared, since it may
    /// hold a hundred thousand figures and plans are copied to be compared.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub distribution: Option<Arc<Distribution>>,
    /// Its brightness steps; left out when it only goes on and off.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub dimmer: Option<Dimmer>,
    /// How far it has aged; left out for a new lamp.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ageing: Option<Ageing>,
}

/// The brightness steps of a lamp.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Dimmer {
    /// The share of its full light at each step, the least first; watts follow it.
    pub steps: Vec<f64>,
    /// The step it stands on, counted from 0.
    pub at: usize,
}

/// How far a lamp's light has fallen off with use.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Ageing {
    /// Hours that it has burnt.
    pub burnt_h: f64,
    /// Hours after which 70 % of its light is left, by the maker (L70).
    pub l70_h: f64,
}

/// How a luminaire's intensity was measured, by direction.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Distribution {
    /// What its angles count.
    pub kind: PhotometricType,
    /// The vertical angles in degrees, rising.
    pub vertical_deg: Vec<f64>,
    /// The horizontal angles in degrees, rising.
    pub horizontal_deg: Vec<f64>,
    /// The intensity in cd: a list over the vertical angles for each horizontal one.
    pub candela: Vec<Vec<f64>>,
}

/// The system of angles of a [`Distribution`], as ANSI/IES LM-63 names them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PhotometricType {
    /// Polar axis straight down: indoor luminaires.
    C,
    /// Polar axis along the luminaire: floodlights.
    B,
    /// Polar axis level, across the luminaire: searchlights.
    A,
}

/// An emitting rectangle of a lamp.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Face {
    /// Its length, along the lamp.
    pub length_mm: f64,
    /// Its width, across the lamp.
    pub width_mm: f64,
    /// How far its centre lies across from the lamp's centre.
    pub across_mm: f64,
}

impl Lamp {
    /// The share of its full light that its dimmer lets through.
    pub fn dimmed(&self) -> f64 {
        let step = self.dimmer.as_ref().and_then(|d| d.steps.get(d.at));
        step.copied().unwrap_or(1.0)
    }

    /// The share of a new lamp's light that age has left: an exponential through 70 % at L70.
    ///
    /// Source: the model of IES TM-21 for LED packages (from memory), taken for every family.
    pub fn maintained(&self) -> f64 {
        self.ageing
            .map_or(1.0, |age| 0.7f64.powf(age.burnt_h / age.l70_h))
    }

    /// Power at the plug with the dimmer as it stands.
    pub fn drawn_w(&self) -> f64 {
        self.watts * self.dimmed()
    }

    /// From where to where its emitting faces reach along x and along y, in mm.
    pub fn extent_mm(&self) -> [[f64; 2]; 2] {
        let long = self.emitters.iter().map(|face| face.length_mm / 2.0);
        let long = long.fold(0.0, f64::max);
        let across = |sign: f64| {
            let edges = self
                .emitters
                .iter()
                .map(|face| sign * face.across_mm + face.width_mm / 2.0);
            edges.fold(0.0, f64::max)
        };
        let (along, over) = ([-long, long], [-across(-1.0), across(1.0)]);
        let [x, y] = match self.along {
            Axis::X => [along, over],
            Axis::Y => [over, along],
        };
        [
            x.map(|edge| self.x_mm + edge),
            y.map(|edge| self.y_mm + edge),
        ]
    }

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
        if let Some(distribution) = &self.distribution {
            distribution.check(&at.at("distribution"), faults);
        }
        let mut number = |name: &str, value, range, quantity| {
            faults.number(&at.at(name), value, range, quantity)
        };
        number("watts", self.watts, 0.0..=2000.0, Quantity::PowerW);
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
                            "a lamp body of {body} does not go into a bay of {clear}",
                            body = Quantity::LengthMm.of(self.body_height_mm),
                            clear = Quantity::LengthMm.of(clear_mm)
                        ),
                        say!("take a flatter lamp or a taller bay"),
                    );
                } else if self.height_mm > highest {
                    faults.add(
                        &height,
                        self.height_mm,
                        say!(
                            "the lamp at {height} would stick through the deck above, {clear} over this one",
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

/// The lowest an emitting face can hang over the deck.
pub const LOWEST_FACE_MM: f64 = 10.0;
