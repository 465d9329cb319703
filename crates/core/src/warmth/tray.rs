//! Trays and chambers of a room as the solvers take them.

use crate::air::USUAL_HUMIDITY;
use crate::air::fan::over_deck_m_s;
use crate::basis::units::area_m2;
use crate::room::container::TrayFormat;
use crate::room::{Mat, MatProbe, Material, Place};
use crate::site::air::Air;
use crate::warmth::chamber::ShelfDay;
use crate::warmth::remembered::Remembered;
use crate::warmth::root_zone::{
    HeatMat, Light, Mix, ProbeSpot, RoomAir, RootZone, RootZoneDay, Thermostat, TrayBox,
};
use crate::warmth::transfer::Layer;

/// Conducts so much, in W/(m·K).
///
/// Source: ISO 10456, tabulated design values (from memory), rounded.
fn conductivity_w_mk(material: Material) -> f64 {
    match material {
        Material::Wire | Material::Metal => 50.0,
        Material::Chipboard | Material::SealedChipboard | Material::Wood => 0.13,
        Material::Plastic => 0.2,
        Material::Stone => 1.5,
    }
}

/// A tray where it stands.
#[derive(Debug, Clone, Copy)]
pub struct TrayHere<'a> {
    /// Its kind.
    pub format: &'a TrayFormat,
    /// The mat under it that is on, and the share of the tray that it lies under.
    pub mat: Option<(&'a Mat, f64)>,
    /// The share of its sides that no other stands against.
    pub free_sides: f64,
    /// Whether its dome is on.
    pub domed: bool,
    /// PPFD on it while the lamps burn, in µmol/m²/s; 0 in the dark.
    pub ppfd: f64,
    /// The share of it that leaves cover.
    pub leaves: f64,
}

/// What leaves add to a mix's wetness when they cover all of it: they evaporate as a wet surface of
/// so much more (our own estimate).
const WETTER_BY_LEAVES: f64 = 0.4;

/// Nobody leaves seedlings in more wind than this, in m/s.
const MOST_M_S: f64 = 2.0;

/// Foam under a mat conducts so much, in W/(m·K).
///
/// Source: ISO 10456, expanded polystyrene (from memory: 0.035 to 0.04).
const FOAM_W_MK: f64 = 0.035;
/// From switching on to switching off where nobody measured it (common practice, no source).
pub(super) const USUAL_HYSTERESIS_K: f64 = 1.0;

/// The root zone of a tray on tier `tier` of `place`, in the `air` around that or in the closed air of
/// `shelf`.
pub fn root_zone(
    air: &Air,
    place: &Place,
    tier: usize,
    tray: TrayHere<'_>,
    shelf: Option<&ShelfDay>,
) -> RootZone {
    // Closed air swings as its own day does.
    let (day_c, night_c) = shelf.map_or((air.day_c, air.night_c), |s| (s.most_c, s.least_c));
    let mat = tray.mat.map(|(mat, _)| mat);
    let layer = |thickness_mm, conductivity_w_mk| Layer {
        thickness_mm,
        conductivity_w_mk,
    };
    let material = place.deck.material;
    let deck = (!material.is_open()).then(|| {
        let thickness_mm = place.deck.thickness_mm.max(0.01);
        layer(thickness_mm, conductivity_w_mk(material))
    });
    let pad = mat.and_then(|mat| mat.pad_mm);
    let pad = pad.map(|mm| layer(mm, FOAM_W_MK));
    let burning = place.tiers[tier].burning();
    let filling = tray.format.mix.figures();
    RootZone {
        air: RoomAir {
            day_c,
            night_c,
            humidity: match shelf {
                Some(shelf) => shelf.mean_humidity,
                None => air.humidity.unwrap_or(USUAL_HUMIDITY),
            },
        },
        tray: TrayBox {
            length_mm: tray.format.length_mm,
            width_mm: tray.format.width_mm,
            free_sides: tray.free_sides,
        },
        mix: Mix {
            depth_mm: tray.format.cell_depth_mm.max(5.0),
            wetness: wetness(tray.leaves),
            conductivity_w_mk: filling.conductivity_w_mk,
            heat_capacity_mj_m3k: filling.heat_capacity_mj_m3k,
        },
        under: pad.into_iter().chain(deck).collect(),
        warm_surface_c: None,
        mat: tray.mat.map(|(mat, cover)| HeatMat {
            watts: mat.warming_w(),
            length_mm: mat.length_mm,
            width_mm: mat.width_mm,
            cover: cover.min(1.0),
        }),
        thermostat: mat
            .and_then(|mat| Some((mat, mat.thermostat_c?)))
            .map(|(mat, set_c)| Thermostat {
                set_c,
                hysteresis_k: mat.hysteresis_k.unwrap_or(USUAL_HYSTERESIS_K),
                probe: match mat.probe {
                    None | Some(MatProbe::Mix) => ProbeSpot::Mix,
                    Some(MatProbe::Mat) => ProbeSpot::Mat,
                    Some(MatProbe::Air) => ProbeSpot::Air,
                },
                dial_error_k: mat.dial_error_k.unwrap_or(0.0),
            }),
        dome: tray.domed,
        air_m_s: in_steps(over_deck_m_s(place, tier)),
        light: (tray.ppfd > 0.0).then_some(Light {
            ppfd: tray.ppfd,
            from_h: burning.from_h,
            hours: burning.hours,
        }),
    }
}

/// Speeds as coarse as drying minds.
fn in_steps(air_m_s: f64) -> f64 {
    const STEP_M_S: f64 = 0.05;
    (air_m_s.min(MOST_M_S) / STEP_M_S).round() * STEP_M_S
}

/// The wet surface by which an open tray of `format` gives off water, in m², with leaves over so much of it.
pub fn wet_m2(format: &TrayFormat, leaves: f64) -> f64 {
    area_m2(format.length_mm, format.width_mm) * wetness(leaves)
}

/// How wet mix with leaves over so much of it is, 0 to 1.
fn wetness(leaves: f64) -> f64 {
    Mix::default().wetness + WETTER_BY_LEAVES * leaves
}

impl RootZone {
    /// The same with its mat switched by a thermostat elsewhere, which has it on for the share
    /// `duty` of the day: so a second tray on a mat fares, and one in a chamber.
    #[must_use]
    pub fn switched_elsewhere(mut self, duty: f64) -> Self {
        self.thermostat = None;
        if let Some(mat) = &mut self.mat {
            mat.watts *= duty;
        }
        self
    }
}

/// The day of a root zone; `None` where its figures are none that physics allows.
pub fn zone_day(zone: RootZone) -> Option<RootZoneDay> {
    static KNOWN: Remembered<RootZone, Option<RootZoneDay>> = Remembered::new();
    KNOWN.ask(zone, |zone| zone.day().ok())
}
