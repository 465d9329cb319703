//! Trays and chambers of a room as the solvers take them.

use super::chamber::{AirThermostat, ChamberDay, ChamberLamp, ChamberSetUp, Heater, VentSlot};
use super::remembered::Remembered;
use super::root_zone::{
    HeatMat, Light, Mix, ProbeSpot, RoomAir, RootZone, RootZoneDay, Thermostat, TrayBox,
};
use super::transfer::Layer;
use crate::containers::TrayFormat;
use crate::light::bay::Footprint;
use crate::room::place::Chamber;
use crate::room::{Kind, Mat, MatProbe, Material, Place, Tier};
use crate::site::Site;

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

/// The share of a tray's area that a mat lies under.
pub fn cover(mat: &Mat, tray: &Footprint) -> f64 {
    let [w, d] = mat.size_mm();
    let over =
        |a: [f64; 2], from: f64, size: f64| (a[1].min(from + size) - a[0].max(from)).max(0.0);
    let shared = over(tray.x_mm, mat.x_mm, w) * over(tray.y_mm, mat.y_mm, d);
    shared / ((tray.x_mm[1] - tray.x_mm[0]) * (tray.y_mm[1] - tray.y_mm[0]))
}

/// The mat that lies under most of a tray; `None` when none does.
pub fn mat_under<'a>(tier: &'a Tier, tray: &Footprint) -> Option<(&'a Mat, f64)> {
    const TOUCHES: f64 = 0.01;
    let under = tier.mats.iter().map(|mat| (mat, cover(mat, tray)));
    under
        .filter(|(_, cover)| *cover > TOUCHES)
        .max_by(|a, b| a.1.total_cmp(&b.1))
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

/// Air of a room where the site does not say (our own estimate).
pub const USUAL_HUMIDITY: f64 = 0.5;
/// Air among wet trays in a closed chamber (our own estimate).
pub const CHAMBER_HUMIDITY: f64 = 0.9;

/// The root zone of a tray on tier `tier` of `place`; in a chamber with the air of `chamber`,
/// which its mats warm already.
pub fn root_zone(
    site: &Site,
    place: &Place,
    tier: usize,
    tray: TrayHere<'_>,
    chamber: Option<&ChamberDay>,
) -> RootZone {
    let air = &site.air;
    // In a chamber its shelf's air, as it swings through the day.
    let shelf = chamber.and_then(|day| day.shelves.get(tier));
    let (day_c, night_c) = shelf.map_or((air.day_c, air.night_c), |s| (s.most_c, s.least_c));
    let mat = tray.mat.filter(|_| chamber.is_none());
    let material = place.deck.material;
    let deck = (!material.is_open()).then(|| Layer {
        thickness_mm: place.deck.thickness_mm.max(0.01),
        conductivity_w_mk: conductivity_w_mk(material),
    });
    let burning = place.tiers[tier].burning();
    RootZone {
        air: RoomAir {
            day_c,
            night_c,
            humidity: match chamber {
                Some(_) => CHAMBER_HUMIDITY,
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
            wetness: Mix::default().wetness + WETTER_BY_LEAVES * tray.leaves,
            ..Mix::default()
        },
        under: deck.into_iter().collect(),
        warm_surface_c: None,
        mat: mat.map(|(mat, cover)| HeatMat {
            watts: mat.watts,
            length_mm: mat.length_mm,
            width_mm: mat.width_mm,
            cover: cover.min(1.0),
        }),
        thermostat: mat
            .and_then(|(mat, _)| Some((mat.thermostat_c?, mat.probe)))
            .map(|(set_c, probe)| Thermostat {
                set_c,
                hysteresis_k: 1.0,
                probe: match probe {
                    None | Some(MatProbe::Mix) => ProbeSpot::Mix,
                    Some(MatProbe::Mat) => ProbeSpot::Mat,
                    Some(MatProbe::Air) => ProbeSpot::Air,
                },
                dial_error_k: 0.0,
            }),
        dome: tray.domed,
        light: (tray.ppfd > 0.0).then_some(Light {
            ppfd: tray.ppfd,
            from_h: burning.from_h,
            hours: burning.hours,
        }),
    }
}

/// The day of a root zone; `None` where its figures are none that physics allows.
pub fn zone_day(zone: RootZone) -> Option<RootZoneDay> {
    static KNOWN: Remembered<RootZone, Option<RootZoneDay>> = Remembered::new();
    KNOWN.ask(zone, |zone| zone.day().ok())
}

/// The day of a chamber; `None` where its figures are none that physics allows.
pub fn chamber_day(set_up: ChamberSetUp) -> Option<ChamberDay> {
    static KNOWN: Remembered<ChamberSetUp, Option<ChamberDay>> = Remembered::new();
    KNOWN.ask(set_up, |set_up| set_up.day().ok())
}

/// What goes on in a chamber.
#[derive(Debug, Clone, PartialEq)]
pub struct Inside {
    /// Whether the lamps of each tier burn, from the lowest up.
    pub lit: Vec<bool>,
    /// Whether its mats are on.
    pub heated: bool,
    /// What trays, mix and water in it weigh.
    pub wet_kg: f64,
}

/// The share of a fan's flow that goes from shelf to shelf (our own estimate).
const FROM_SHELF_TO_SHELF: f64 = 0.3;
/// More than this seedlings and mats do not bear for long (common practice, no source).
const LIMIT_C: f64 = 30.0;

/// A place as a chamber, with the probe of its thermostat half way up; `None` when it is none.
pub fn chamber(site: &Site, place: &Place, inside: &Inside) -> Option<ChamberSetUp> {
    let Kind::Chamber(Chamber { walls, vents, .. }) = &place.kind else {
        return None;
    };
    let mats = || {
        let each = |tier| move |mat| (tier, mat);
        place
            .tiers
            .iter()
            .flat_map(move |t: &Tier| t.mats.iter().map(each(t)))
    };
    let lit = |i: usize| inside.lit.get(i).copied().unwrap_or(false);
    Some(ChamberSetUp {
        width_mm: place.width_mm,
        depth_mm: place.depth_mm,
        height_mm: place.height_mm,
        walls: walls
            .iter()
            .map(|wall| Layer {
                thickness_mm: wall.thickness_mm,
                conductivity_w_mk: wall.conductivity_w_mk,
            })
            .collect(),
        vents: vents
            .iter()
            .map(|vent| VentSlot {
                width_mm: vent.width_mm,
                height_mm: vent.height_mm,
                at_mm: vent.at_mm.min(place.height_mm),
            })
            .collect(),
        shelves_mm: place.tiers.iter().map(|t| t.deck_height_mm).collect(),
        day_c: site.air.day_c,
        night_c: site.air.night_c,
        heaters: mats()
            .filter(|_| inside.heated)
            .map(|(tier, mat): (&Tier, &Mat)| Heater {
                watts: mat.watts,
                at_mm: tier.deck_height_mm,
            })
            .collect(),
        lamps: place
            .tiers
            .iter()
            .enumerate()
            .filter(|(i, _)| lit(*i))
            .flat_map(|(_, tier)| {
                let burning = tier.burning();
                tier.lamps.iter().map(move |lamp| ChamberLamp {
                    watts: lamp.drawn_w(),
                    at_mm: tier.deck_height_mm + lamp.height_mm,
                    from_h: burning.from_h,
                    hours: burning.hours,
                })
            })
            .collect(),
        thermostat: mats()
            .find_map(|(_, mat)| mat.thermostat_c)
            .map(|set_c| AirThermostat {
                set_c,
                hysteresis_k: 1.0,
                probe_at_mm: place.height_mm / 2.0,
            }),
        fan_m3_h: place
            .tiers
            .iter()
            .flat_map(|t| &t.fans)
            .map(|fan| fan.flow_m3_h * FROM_SHELF_TO_SHELF)
            .sum(),
        wet_kg: inside.wet_kg,
        limit_c: LIMIT_C,
        price_per_kwh: site.price_per_kwh,
    })
}
