//! A bay's lamps as emitters of photons, a tray's cells as points, and the light on them.

use crate::basis::learned::Learned;
use crate::basis::plane::Footprint;
use crate::light::fields::{
    BoxKey, CellField, CellKey, Fields, Key, Level, fingerprint, floors, open, over,
};
use std::sync::Arc;

use crate::basis::plane::Axis;
use crate::basis::units::area_m2;
use crate::basis::work::go_on;
use crate::light::ambient::{Ambient, Nodes};
use crate::light::beam::{Beam, beam_exponent};
use crate::light::emitter::{Emitter, Optics};
use crate::light::enclosure::Faces;
use crate::light::falloff::{Falloff, light_at};
use crate::light::field_name::FieldName;
use crate::light::photons::umol_per_s_per_klm;
use crate::light::surfaces;
use crate::light::surfaces::Cover;
use crate::room::{Bay, Lamp, Tier};

/// Photons per second that a lamp emits when new and undimmed, in µmol/s: the maker's figure, or
/// lumens x k.
pub fn full_ppf_umol_s(lamp: &Lamp) -> f64 {
    lamp.ppf_umol_s
        .unwrap_or_else(|| lamp.flux_lm / 1000.0 * umol_per_s_per_klm(lamp.family, lamp.cct_k))
}

/// Photons per second that a lamp emits as it is, dimmed, aged and as measured, in µmol/s.
pub fn ppf_umol_s(lamp: &Lamp) -> f64 {
    full_ppf_umol_s(lamp) * lamp.dimmed() * lamp.maintained() * Learned::share(lamp.measured)
}

/// What a lux meter shows for a µmol/m²/s of `lamps` together; 0 without light.
///
/// From the photons per lumen of each family; see [`umol_per_s_per_klm`].
pub fn lux_per_umol_m2_s(lamps: &[Lamp]) -> f64 {
    let (mut klux, mut photons) = (0.0, 0.0);
    for lamp in lamps {
        let ppf = ppf_umol_s(lamp);
        klux += ppf / umol_per_s_per_klm(lamp.family, lamp.cct_k);
        photons += ppf;
    }
    if photons > 0.0 {
        1000.0 * klux / photons
    } else {
        0.0
    }
}

/// The emitters of all lamps of a tier, with flux in µmol/s, so that irradiance is PPFD; measured
/// distributions that `fields` remembers are not summed up again.
pub fn emitters(tier: &Tier, fields: &Fields) -> Vec<Emitter> {
    tier.lamps
        .iter()
        .flat_map(|lamp| {
            let ppf = ppf_umol_s(lamp);
            let area = |f: &crate::room::Face| area_m2(f.length_mm, f.width_mm);
            let total: f64 = lamp.emitters.iter().map(area).sum();
            let optics = match &lamp.distribution {
                Some(data) => Optics::Measured(fields.photometry(data, lamp.along)),
                None if lamp.bare_tube => Optics::Tube(lamp.along),
                None => Optics::Beam(Beam::new(beam_exponent(lamp.beam_deg))),
            };
            lamp.emitters.iter().map(move |face| {
                let centre = match lamp.along {
                    Axis::X => [lamp.x_mm, lamp.y_mm + face.across_mm],
                    Axis::Y => [lamp.x_mm + face.across_mm, lamp.y_mm],
                };
                Emitter::centred(
                    centre,
                    face.length_mm,
                    face.width_mm,
                    lamp.along,
                    lamp.height_mm,
                    ppf * area(face) / total,
                    optics.clone(),
                )
            })
        })
        .collect()
}

/// The light of a bay's lamps, straight and sent back, wherever they hang and whatever stands
/// under them.
#[derive(Debug)]
pub struct BayField {
    lamps: Arc<Lamps>,
    name: FieldName,
    /// What comes back with what lies on the deck.
    sent_back: Ambient,
    /// The same of each unit that the deck above sends down; `None` where it lets nothing through.
    from_above: Option<Ambient>,
    /// The same with the lamps where they hang, and the height of the lowest.
    as_hung: (Ambient, f64),
}

/// A bay's lamps as they hang, whatever lies on its deck.
#[derive(Debug)]
struct Lamps {
    emitters: Vec<Emitter>,
    level: Arc<Level>,
    /// The height that all lamps share; `None` while they hang at different ones.
    level_mm: Option<f64>,
    /// What comes back over each of [`floors`] with the lamps where they hang, when their heights differ.
    uneven: Option<Vec<Ambient>>,
}

impl BayField {
    /// The field of `bay` when `cover` lies on its deck; what `fields` remembers is not reckoned
    /// again.
    pub fn new(bay: &Bay<'_>, cover: Cover, fields: &Fields) -> Self {
        let emitters = emitters(bay.tier, fields);
        let in_general = |lamp: &Lamp| Lamp {
            height_mm: 0.0,
            distribution: None,
            ..lamp.clone()
        };
        let lamps = &bay.tier.lamps;
        let box_ = BoxKey {
            size_mm: [
                bay.place.width_mm,
                bay.place.depth_mm,
                bay.clear_height_mm(),
            ],
            reflectance: surfaces::reflectance(bay, cover),
            wires_above: bay
                .above()
                .is_some_and(|above| surfaces::let_down(&above, Cover::default()) > 0.0),
        };
        let key = Key {
            lamps: lamps.iter().map(in_general).collect(),
            distributions: lamps
                .iter()
                .map(|lamp| lamp.distribution.as_deref().map(fingerprint))
                .collect(),
            box_: box_.any_floor(),
            highest_face_mm: bay.highest_face_mm(),
        };
        let floor = box_.reflectance.floor;
        let level = fields.level(key, &emitters);
        let first = emitters.first().map(|e| e.z_mm);
        let level_mm = first.filter(|z| emitters.iter().all(|e| (e.z_mm - z).abs() < 0.5));
        let lowest_mm = emitters.iter().map(|e| e.z_mm).reduce(f64::min);
        let uneven = lowest_mm.filter(|_| level_mm.is_none()).map(|lowest| {
            let one = Nodes::new(lowest, lowest, 1);
            let as_hung = |_| emitters.clone();
            let none = Faces::default();
            let enclosure = fields.enclosure(box_.any_floor());
            Ambient::over_floors(&enclosure, level.size_mm, &one, as_hung, none, &floors())
        });
        let lamps = Arc::new(Lamps {
            emitters,
            level,
            level_mm,
            uneven,
        });
        Self::over(lamps, floor)
    }

    /// The field of the same `bay` when `cover` lies on its deck.
    pub fn covered(&self, bay: &Bay<'_>, cover: Cover) -> Self {
        let floor = surfaces::reflectance(bay, cover).floor;
        Self::over(Arc::clone(&self.lamps), floor)
    }

    /// The field of `lamps` over a deck that sends back `floor` of its light.
    fn over(lamps: Arc<Lamps>, floor: f64) -> Self {
        let level = &lamps.level;
        let sent_back = over(floor, &level.sent_back);
        let faces = lamps.emitters.iter().map(|e| e.z_mm);
        let lowest = faces.fold(level.size_mm[2], f64::min);
        let as_hung = match (&lamps.uneven, lamps.level_mm) {
            (Some(uneven), _) => (over(floor, uneven), lowest),
            (None, level_mm) => {
                let height_mm = level_mm.unwrap_or(lowest);
                (sent_back.under(height_mm), height_mm)
            }
        };
        Self {
            sent_back,
            as_hung,
            from_above: (!level.let_down.is_empty()).then(|| over(floor, &level.let_down)),
            name: FieldName {
                level: level.name,
                floor,
            },
            lamps,
        }
    }

    /// The share of its light that the deck sends back.
    pub fn floor(&self) -> f64 {
        self.name.floor
    }

    /// What tells it from the light of others.
    pub fn name(&self) -> FieldName {
        self.name
    }

    /// The cells of a part of that `outline`, so many along and across.
    pub fn cells(&self, outline: Footprint, grid: (u32, u32)) -> Arc<CellField> {
        let level = &self.lamps.level;
        let key = CellKey { outline, grid };
        if let Some(cells) = open(&level.cells).get(&key) {
            return cells;
        }
        go_on();
        let points = outline.cells(grid.0, grid.1);
        let cells = CellField {
            places: self.sent_back.places(&outline, grid),
            falloff: Falloff::new(Arc::clone(&level.emitters), points, level.size_mm[2]),
        };
        let bytes = cells.bytes();
        open(&level.cells).keep(key, cells, bytes)
    }

    /// PPFD on each cell at `canopy_mm` with all lamps at `height_mm`, in µmol/m²/s.
    pub fn hung(&self, cells: &CellField, canopy_mm: f64, height_mm: f64) -> Vec<f64> {
        let mut light = cells.falloff.at(height_mm - canopy_mm);
        if height_mm > canopy_mm {
            let back = self.sent_back.at(&cells.places, canopy_mm, height_mm);
            light
                .iter_mut()
                .zip(back)
                .for_each(|(sum, part)| *sum += part);
        }
        light
    }

    /// PPFD on each cell at `canopy_mm` with the lamps where they hang, and what of the sum of all walls and
    /// decks send back, in µmol/m²/s.
    pub fn now(&self, cells: &CellField, canopy_mm: f64) -> (Vec<f64>, f64) {
        let (ambient, height_mm) = &self.as_hung;
        let back = ambient.at(&cells.places, canopy_mm.min(*height_mm), *height_mm);
        let mut light = match self.lamps.level_mm {
            Some(height_mm) => cells.falloff.at(height_mm - canopy_mm),
            None => {
                let points = cells.falloff.points().iter();
                let direct = |&point| light_at(&self.lamps.emitters, point, canopy_mm);
                points.map(direct).collect()
            }
        };
        for (sum, back) in light.iter_mut().zip(&back) {
            *sum += back;
        }
        (light, back.iter().sum())
    }

    /// The mean of the light on the deck, in µmol/m²/s: what a wire deck may let down.
    pub fn mean_on_deck(&self) -> f64 {
        const GRID: (u32, u32) = (8, 5);
        let deck = Footprint {
            x_mm: [0.0, self.lamps.level.size_mm[0]],
            y_mm: [0.0, self.lamps.level.size_mm[1]],
        };
        let points = deck.cells(GRID.0, GRID.1);
        let (ambient, height_mm) = &self.as_hung;
        let back = ambient.at(&ambient.places(&deck, GRID), 0.0, *height_mm);
        let direct = points
            .iter()
            .map(|&point| light_at(&self.lamps.emitters, point, 0.0));
        (direct.sum::<f64>() + back.iter().sum::<f64>()) / points.len() as f64
    }

    /// PPFD on each cell at `canopy_mm` of `exitance` µmol/m²/s that the deck above sends down.
    pub fn let_down(&self, cells: &CellField, canopy_mm: f64, exitance: f64) -> Vec<f64> {
        let top = self.lamps.level.size_mm[2];
        let unit = self.from_above.as_ref();
        unit.map_or_else(Vec::new, |unit| {
            let light = unit.at(&cells.places, canopy_mm.min(top), top);
            light.into_iter().map(|value| value * exitance).collect()
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::testing::kettle_fen;

    #[test]
    fn under_another_cover_it_is_as_if_made_for_it() {
        let part = Footprint {
            x_mm: [40.0, 320.0],
            y_mm: [35.0, 575.0],
        };
        // Lamps all at one height, and one lower than the others.
        for lower_mm in [0.0, 60.0] {
            let plan = kettle_fen(|plan| {
                plan.places[0].tiers[1].lamps[0].height_mm -= lower_mm;
            });
            let bay = plan.places[0].bays(0).nth(1).expect("it has a second tier");
            let cover = Cover {
                trays: 0.8,
                leaves: 0.5,
            };
            let light = |field: BayField| field.now(&field.cells(part, (4, 8)), 120.0);
            let fields = Fields::default();
            let empty = BayField::new(&bay, Cover::default(), &fields);
            let covered = light(empty.covered(&bay, cover));
            assert_eq!(covered, light(BayField::new(&bay, cover, &fields)));
            assert_ne!(covered, light(empty));
        }
    }
}
