//! A bay's lamps as emitters of photons, a tray's cells as points, and the light on them.

use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

use super::ambient::{Ambient, Nodes, Places};
use super::emitter::{Beam, Emitter, Optics, beam_exponent};
use super::enclosure::{Enclosure, Faces, Fineness};
use super::falloff::{Falloff, light_at};
use super::memory::{Memory, Used};
use super::photometry::Photometry;
use super::photons::umol_per_s_per_klm;
use super::surfaces::{self, Cover};
use crate::room::{Axis, Bay, Distribution, LOWEST_FACE_MM, Lamp, Tier};
use crate::units::area_m2;
use crate::work::go_on;

/// Photons per second that a lamp emits when new and undimmed, in µmol/s: the maker's figure, or
/// lumens x k.
pub fn full_ppf_umol_s(lamp: &Lamp) -> f64 {
    lamp.ppf_umol_s
        .unwrap_or_else(|| lamp.flux_lm / 1000.0 * umol_per_s_per_klm(lamp.family, lamp.cct_k))
}

/// Photons per second that a lamp emits as it is, dimmed and aged, in µmol/s.
pub fn ppf_umol_s(lamp: &Lamp) -> f64 {
    full_ppf_umol_s(lamp) * lamp.dimmed() * lamp.maintained()
}

/// What a lux meter shows for a µmol/m²/s of `lamps` together; 0 without light.
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
    emitters: Vec<Emitter>,
    level: Arc<Level>,
    /// The height that all lamps share; `None` while they hang at different ones.
    level_mm: Option<f64>,
    /// What comes back with the lamps where they hang, when their heights differ.
    uneven: Option<Ambient>,
}

/// What [`Level`] depends on.
#[derive(Debug, Clone, PartialEq)]
struct Key {
    /// Their heights left out, and their distributions told by [`fingerprint`].
    lamps: Vec<Lamp>,
    distributions: Vec<Option<u64>>,
    box_: BoxKey,
    highest_face_mm: f64,
}

/// What an [`Enclosure`] depends on.
#[derive(Debug, Clone, Copy, PartialEq)]
struct BoxKey {
    size_mm: [f64; 3],
    reflectance: Faces<f64>,
    wires_above: bool,
}

impl BoxKey {
    fn enclosure(&self) -> Enclosure {
        let glows = Faces {
            ceiling: self.wires_above,
            ..Faces::default()
        };
        Enclosure::new(self.size_mm, self.reflectance, glows, Fineness::Quick)
    }
}

/// A number that tells a distribution from others.
fn fingerprint(data: &Distribution) -> u64 {
    let mut hasher = DefaultHasher::new();
    (data.kind as u8).hash(&mut hasher);
    let angles = data.vertical_deg.iter().chain(&data.horizontal_deg);
    for value in angles.chain(data.candela.iter().flatten()) {
        value.to_bits().hash(&mut hasher);
    }
    hasher.finish()
}

/// A bay's light with all lamps at one height, whichever it is.
#[derive(Debug)]
struct Level {
    size_mm: [f64; 3],
    emitters: Vec<Emitter>,
    sent_back: Ambient,
    /// What reaches a level surface of each unit that the deck above sends down; `None` where
    /// it lets nothing through.
    let_down: Option<Ambient>,
    cells: Mutex<Memory<Vec<(f64, f64)>, CellField>>,
}

/// A part of a tray in a [`BayField`].
#[derive(Debug)]
pub struct CellField {
    points: Vec<(f64, f64)>,
    places: Places,
    falloff: Falloff,
}

/// Light that was reckoned before, by what it depends on: while a lamp is dragged, all but its
/// own bay stays as it was, and even there much does. One for all who ask, and bounded.
#[derive(Debug)]
pub struct Fields {
    levels: Mutex<Memory<Key, Level>>,
    enclosures: Mutex<Memory<BoxKey, Enclosure>>,
    photometries: Mutex<Memory<(u64, Axis), Photometry>>,
    /// What all parts of trays in all levels take.
    cells: Arc<Used>,
}

/// What is remembered at the most, in bytes: of boxes, measured lamps, and parts of trays.
const MOST_ENCLOSURES: usize = 8 << 20;
const MOST_PHOTOMETRIES: usize = 8 << 20;
const MOST_CELLS: usize = 20 << 20;
/// How many bays' light.
const MOST_LEVELS: usize = 400;

impl Default for Fields {
    fn default() -> Self {
        let of_its_own = || Arc::new(Used::up_to(usize::MAX));
        Self {
            levels: Mutex::new(Memory::new(MOST_LEVELS, of_its_own())),
            enclosures: Mutex::new(Memory::new(
                usize::MAX,
                Arc::new(Used::up_to(MOST_ENCLOSURES)),
            )),
            photometries: Mutex::new(Memory::new(
                usize::MAX,
                Arc::new(Used::up_to(MOST_PHOTOMETRIES)),
            )),
            cells: Arc::new(Used::up_to(MOST_CELLS)),
        }
    }
}

/// What a lock guards; a thread that panicked while it only read or pushed leaves it sound.
fn open<T>(lock: &Mutex<T>) -> MutexGuard<'_, T> {
    lock.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Fields {
    fn level(&self, key: Key, emitters: &[Emitter]) -> Arc<Level> {
        if let Some(level) = open(&self.levels).get(&key) {
            return level;
        }
        // Not under the lock: others may look something else up meanwhile.
        let level = Level::new(&key, emitters, self);
        let mut levels = open(&self.levels);
        // The parts of trays of bays that nobody asked for lately make room for new ones.
        while self.cells.is_full() && levels.forget_oldest() {}
        levels.keep(key, level, 0)
    }

    fn enclosure(&self, key: BoxKey) -> Arc<Enclosure> {
        if let Some(enclosure) = open(&self.enclosures).get(&key) {
            return enclosure;
        }
        let enclosure = key.enclosure();
        let bytes = enclosure.bytes();
        open(&self.enclosures).keep(key, enclosure, bytes)
    }

    fn photometry(&self, data: &Distribution, along: Axis) -> Arc<Photometry> {
        let key = (fingerprint(data), along);
        if let Some(photometry) = open(&self.photometries).get(&key) {
            return photometry;
        }
        let photometry = Photometry::new(data, along);
        let bytes = photometry.bytes();
        open(&self.photometries).keep(key, photometry, bytes)
    }
}

/// The emitters with all faces at `height_mm`.
fn at_height(emitters: &[Emitter], height_mm: f64) -> Vec<Emitter> {
    let at = |e: &Emitter| Emitter {
        z_mm: height_mm,
        ..e.clone()
    };
    emitters.iter().map(at).collect()
}

impl Level {
    fn new(key: &Key, emitters: &[Emitter], fields: &Fields) -> Self {
        go_on();
        let size_mm = key.box_.size_mm;
        let enclosure = fields.enclosure(key.box_);
        let none = Faces::default();
        let heights = Nodes::new(
            LOWEST_FACE_MM,
            key.highest_face_mm,
            enclosure.height_nodes(),
        );
        let hung = |height_mm| at_height(emitters, height_mm);
        let sent_back = Ambient::new(&enclosure, size_mm, heights, hung, none);
        let let_down = key.box_.wires_above.then(|| {
            let unit = Faces {
                ceiling: 1.0,
                ..none
            };
            let top = Nodes::new(size_mm[2], size_mm[2], 1);
            Ambient::new(&enclosure, size_mm, top, |_| Vec::new(), unit)
        });
        Self {
            size_mm,
            emitters: emitters.to_vec(),
            sent_back,
            let_down,
            cells: Mutex::new(Memory::new(usize::MAX, Arc::clone(&fields.cells))),
        }
    }
}

impl CellField {
    /// What it takes in memory, its name included.
    fn bytes(&self) -> usize {
        2 * size_of_val(&self.points[..]) + self.places.bytes() + self.falloff.bytes()
    }
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
            box_,
            highest_face_mm: bay.highest_face_mm(),
        };
        let level = fields.level(key, &emitters);
        let first = emitters.first().map(|e| e.z_mm);
        let level_mm = first.filter(|z| emitters.iter().all(|e| (e.z_mm - z).abs() < 0.5));
        let lowest_mm = emitters.iter().map(|e| e.z_mm).reduce(f64::min);
        let uneven = lowest_mm.filter(|_| level_mm.is_none()).map(|lowest| {
            let one = Nodes::new(lowest, lowest, 1);
            let as_hung = |_| emitters.clone();
            let none = Faces::default();
            Ambient::new(&fields.enclosure(box_), level.size_mm, one, as_hung, none)
        });
        Self {
            emitters,
            level,
            level_mm,
            uneven,
        }
    }

    /// The cells of a part whose middles are `points`.
    pub fn cells(&self, points: Vec<(f64, f64)>) -> Arc<CellField> {
        let level = &self.level;
        if let Some(cells) = open(&level.cells).get(&points) {
            return cells;
        }
        go_on();
        let cells = CellField {
            places: level.sent_back.places(&points),
            falloff: Falloff::new(&level.emitters, &points, level.size_mm[2]),
            points,
        };
        let bytes = cells.bytes();
        open(&level.cells).keep(cells.points.clone(), cells, bytes)
    }

    /// PPFD on each cell at `canopy_mm` with all lamps at `height_mm`, in µmol/m²/s.
    pub fn hung(&self, cells: &CellField, canopy_mm: f64, height_mm: f64) -> Vec<f64> {
        let mut light = cells.falloff.at(height_mm - canopy_mm);
        if height_mm > canopy_mm {
            let sent_back = &self.level.sent_back;
            let back = sent_back.at(&cells.places, canopy_mm, height_mm);
            light
                .iter_mut()
                .zip(back)
                .for_each(|(sum, part)| *sum += part);
        }
        light
    }

    /// PPFD on each cell at `canopy_mm` with the lamps where they hang, and the part of it that
    /// walls and decks send back, in µmol/m²/s.
    pub fn now(&self, cells: &CellField, canopy_mm: f64) -> (Vec<f64>, Vec<f64>) {
        let (ambient, height_mm) = self.as_hung();
        let back = ambient.at(&cells.places, canopy_mm.min(height_mm), height_mm);
        let sum =
            |(&point, back): (&(f64, f64), &f64)| light_at(&self.emitters, point, canopy_mm) + back;
        let light = cells.points.iter().zip(&back).map(sum).collect();
        (light, back)
    }

    fn as_hung(&self) -> (&Ambient, f64) {
        let faces = self.emitters.iter().map(|e| e.z_mm);
        let lowest = faces.fold(self.level.size_mm[2], f64::min);
        match (&self.uneven, self.level_mm) {
            (Some(uneven), _) => (uneven, lowest),
            (None, level_mm) => (&self.level.sent_back, level_mm.unwrap_or(lowest)),
        }
    }

    /// The mean of the light on the deck, in µmol/m²/s: what a wire deck may let down.
    pub fn mean_on_deck(&self) -> f64 {
        const GRID: [u32; 2] = [8, 5];
        let deck = Footprint {
            x_mm: [0.0, self.level.size_mm[0]],
            y_mm: [0.0, self.level.size_mm[1]],
        };
        let points = deck.cells(GRID[0], GRID[1]);
        let (ambient, height_mm) = self.as_hung();
        let back = ambient.at(&ambient.places(&points), 0.0, height_mm);
        let direct = points
            .iter()
            .map(|&point| light_at(&self.emitters, point, 0.0));
        (direct.sum::<f64>() + back.iter().sum::<f64>()) / points.len() as f64
    }

    /// PPFD on each cell at `canopy_mm` of `exitance` µmol/m²/s that the deck above sends down.
    pub fn let_down(&self, cells: &CellField, canopy_mm: f64, exitance: f64) -> Vec<f64> {
        let top = self.level.size_mm[2];
        let unit = self.level.let_down.as_ref();
        unit.map_or_else(Vec::new, |unit| {
            let light = unit.at(&cells.places, canopy_mm.min(top), top);
            light.into_iter().map(|value| value * exitance).collect()
        })
    }
}

/// A tray's outline on the deck.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Footprint {
    /// Left and right edge.
    pub x_mm: [f64; 2],
    /// Front and back edge.
    pub y_mm: [f64; 2],
}

impl Footprint {
    /// Whether two trays cannot both stand: more than a rim's width of each lies in the other.
    pub fn overlaps(&self, other: &Self) -> bool {
        const RIM_MM: f64 = 2.0;
        let over = |a: [f64; 2], b: [f64; 2]| a[1].min(b[1]) - a[0].max(b[0]) > RIM_MM;
        over(self.x_mm, other.x_mm) && over(self.y_mm, other.y_mm)
    }

    /// The centres of `columns` x `rows` cells, row by row from the front left.
    pub fn cells(&self, columns: u32, rows: u32) -> Vec<(f64, f64)> {
        let centre = |edge: [f64; 2], i: u32, n: u32| {
            edge[0] + (edge[1] - edge[0]) * (f64::from(i) + 0.5) / f64::from(n)
        };
        (0..rows)
            .flat_map(|row| (0..columns).map(move |column| (column, row)))
            .map(|(column, row)| {
                (
                    centre(self.x_mm, column, columns),
                    centre(self.y_mm, row, rows),
                )
            })
            .collect()
    }
}
