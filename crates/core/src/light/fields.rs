//! Light that was reckoned before, by what it depends on.

use crate::basis::plane::{Axis, Footprint};
use crate::basis::work::go_on;
use crate::light::ambient::{Ambient, Nodes, Places};
use crate::light::daylight::Sill;
use crate::light::emitter::Emitter;
use crate::light::enclosure::{Enclosure, Faces, Fineness};
use crate::light::falloff::Falloff;
use crate::light::field_name::FieldName;
use crate::light::memory::{Memory, Used};
use crate::light::photometry::Photometry;
use crate::light::sill_days::SillDays;
use crate::room::{Distribution, LOWEST_FACE_MM, Lamp};
use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::{Arc, LazyLock, Mutex, MutexGuard, PoisonError};

/// What [`Level`] depends on.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Key {
    /// Their heights left out, and their distributions told by [`fingerprint`].
    pub(super) lamps: Vec<Lamp>,
    pub(super) distributions: Vec<Option<u64>>,
    pub(super) box_: BoxKey,
    pub(super) highest_face_mm: f64,
}

/// What a [`CellField`] of a [`Level`] depends on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct CellKey {
    pub(super) outline: Footprint,
    /// How many cells it has along and across.
    pub(super) grid: (u32, u32),
}

/// What an [`Enclosure`] depends on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct BoxKey {
    pub(super) size_mm: [f64; 3],
    pub(super) reflectance: Faces<f64>,
    pub(super) wires_above: bool,
}

/// The floors over which light is reckoned, by [`to_and_fro`]; between them runs a polynomial, which is
/// within 0.3 % of the light between foil walls and 0.1 % in an open bay.
static TO_AND_FRO: LazyLock<Nodes> =
    LazyLock::new(|| Nodes::new(to_and_fro(FLOOR[0]), to_and_fro(FLOOR[1]), FLOORS));

/// How many floors.
const FLOORS: usize = 3;

/// The least and the most that a floor may send back.
const FLOOR: [f64; 2] = [0.04, 0.64];

/// How much of what a floor sends up comes down on it again, about: most between foil, little in the open.
const COMES_DOWN: f64 = 0.5;

/// What goes to and fro over a floor that sends back `share`: the light over it grows nearly evenly with
/// that.
fn to_and_fro(share: f64) -> f64 {
    share / (1.0 - COMES_DOWN * share)
}

/// The shares that the floors send back over which light is reckoned.
pub(super) fn floors() -> [f64; FLOORS] {
    std::array::from_fn(|i| {
        let t = TO_AND_FRO.at[i];
        t / (1.0 + COMES_DOWN * t)
    })
}

/// What comes back over a floor that sends back `share`, of what does over each of [`floors`].
pub(super) fn over(share: f64, all: &[Ambient]) -> Ambient {
    Ambient::of_several(all, &TO_AND_FRO.weights(to_and_fro(share)))
}

impl BoxKey {
    /// The same whatever the floor sends back.
    pub(super) fn any_floor(mut self) -> Self {
        self.reflectance.floor = FLOOR[0];
        self
    }

    fn enclosure(&self) -> Enclosure {
        let glows = Faces {
            ceiling: self.wires_above,
            ..Faces::default()
        };
        Enclosure::new(self.size_mm, self.reflectance, glows, Fineness::Quick)
    }
}

/// A number that tells a distribution from others.
pub(super) fn fingerprint(data: &Distribution) -> u64 {
    let mut hasher = DefaultHasher::new();
    (data.kind as u8).hash(&mut hasher);
    let angles = data.vertical_deg.iter().chain(&data.horizontal_deg);
    for value in angles.chain(data.candela.iter().flatten()) {
        value.to_bits().hash(&mut hasher);
    }
    hasher.finish()
}

/// A bay's light with all lamps at one height, whichever it is, and whatever lies on its deck.
#[derive(Debug)]
pub(super) struct Level {
    /// Which it is of all that were ever reckoned.
    pub(super) name: u64,
    pub(super) size_mm: [f64; 3],
    /// Its lamps, all in one plane.
    pub(super) emitters: Arc<[Emitter]>,
    /// What comes back over each of [`floors`].
    pub(super) sent_back: Vec<Ambient>,
    /// What reaches a level surface of each unit that the deck above sends down; empty where
    /// it lets nothing through.
    pub(super) let_down: Vec<Ambient>,
    pub(super) cells: Mutex<Memory<CellKey, CellField>>,
}

/// A part of a tray in a [`BayField`].
#[derive(Debug)]
pub struct CellField {
    pub(super) places: Places,
    pub(super) falloff: Falloff,
}

/// Light that was reckoned before, by what it depends on: while a lamp is dragged, all but its
/// own bay stays as it was, and even there much does. One for all who ask, and bounded.
#[derive(Debug)]
pub struct Fields {
    levels: Mutex<Memory<Key, Level>>,
    enclosures: Mutex<Memory<BoxKey, Enclosure>>,
    photometries: Mutex<Memory<(u64, Axis), Photometry>>,
    sills: Mutex<Memory<(Sill, i16), SillDays>>,
    /// What all parts of trays in all levels take.
    cells: Arc<Used>,
}

/// What is remembered at the most, in bytes: of boxes, measured lamps, and parts of trays.
const MOST_ENCLOSURES: usize = 8 << 20;

const MOST_PHOTOMETRIES: usize = 8 << 20;

const MOST_CELLS: usize = 20 << 20;

/// How many bays' light.
const MOST_LEVELS: usize = 400;

/// How many years of sills.
const MOST_SILLS: usize = 12;

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
            sills: Mutex::new(Memory::new(MOST_SILLS, of_its_own())),
            cells: Arc::new(Used::up_to(MOST_CELLS)),
        }
    }
}

/// What a lock guards; a thread that panicked while it only read or pushed leaves it sound.
pub(super) fn open<T>(lock: &Mutex<T>) -> MutexGuard<'_, T> {
    lock.lock().unwrap_or_else(PoisonError::into_inner)
}

impl Fields {
    pub(super) fn level(&self, key: Key, emitters: &[Emitter]) -> Arc<Level> {
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

    pub(super) fn enclosure(&self, key: BoxKey) -> Arc<Enclosure> {
        if let Some(enclosure) = open(&self.enclosures).get(&key) {
            return enclosure;
        }
        let enclosure = key.enclosure();
        let bytes = enclosure.bytes();
        open(&self.enclosures).keep(key, enclosure, bytes)
    }

    /// The days of `sill` in `year`.
    pub(crate) fn sill_days(&self, sill: Sill, year: i16) -> Arc<SillDays> {
        let key = (sill, year);
        let mut known = open(&self.sills);
        let days = known.get(&key);
        days.unwrap_or_else(|| known.keep(key, SillDays::new(sill, year), 0))
    }

    pub(super) fn photometry(&self, data: &Distribution, along: Axis) -> Arc<Photometry> {
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
        let floors = floors();
        let sent_back = Ambient::over_floors(&enclosure, size_mm, &heights, hung, none, &floors);
        let let_down = if key.box_.wires_above {
            let unit = Faces {
                ceiling: 1.0,
                ..none
            };
            let top = Nodes::new(size_mm[2], size_mm[2], 1);
            Ambient::over_floors(&enclosure, size_mm, &top, |_| Vec::new(), unit, &floors)
        } else {
            Vec::new()
        };
        Self {
            name: FieldName::next_level(),
            size_mm,
            emitters: at_height(emitters, 0.0).into(),
            sent_back,
            let_down,
            cells: Mutex::new(Memory::new(usize::MAX, Arc::clone(&fields.cells))),
        }
    }
}

impl CellField {
    /// What it takes in memory.
    pub(super) fn bytes(&self) -> usize {
        self.places.bytes() + self.falloff.bytes()
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::light::beam::Beam;
    use crate::light::emitter::Optics;
    use crate::light::falloff::light_at;

    #[test]
    fn between_the_floors_it_follows_a_floor_of_its_own() {
        let size_mm = [1200.0, 600.0, 400.0];
        let lamps = [150.0, 450.0].map(|y: f64| Emitter {
            x_mm: [30.0, 1170.0],
            y_mm: [y - 20.0, y + 20.0],
            z_mm: 300.0,
            flux: 57.0,
            optics: Optics::Beam(Beam::new(1.0)),
        });
        // Foil all round sends most back: there the floor counts most.
        for (side, within) in [(0.9, 0.003), (0.0, 0.001)] {
            let key = BoxKey {
                size_mm,
                reflectance: Faces {
                    floor: 0.1,
                    ceiling: 0.8,
                    left: side,
                    right: side,
                    front: side,
                    back: side,
                },
                wires_above: false,
            };
            let bay = key.enclosure();
            let one = Nodes::new(300.0, 300.0, 1);
            let hung = |_| lamps.to_vec();
            let none = Faces::default();
            let floors = floors();
            let each = Ambient::over_floors(&bay, size_mm, &one, hung, none, &floors);
            let mut worst: f64 = 0.0;
            for floor in [0.06, 0.1, 0.2, 0.3, 0.41, 0.55, 0.6] {
                let exact = Ambient::over_floors(&bay, size_mm, &one, hung, none, &[floor]);
                let read = over(floor, &each);
                let outline = Footprint {
                    x_mm: [0.0, 1200.0],
                    y_mm: [0.0, 600.0],
                };
                let points = outline.cells(6, 4);
                let places = read.places(&outline, (6, 4));
                let both = [&read, &exact[0]].map(|own| own.at(&places, 60.0, 300.0));
                for ((read, exact), point) in both[0].iter().zip(&both[1]).zip(points) {
                    let all = light_at(&lamps, point, 60.0) + exact;
                    worst = worst.max(((read - exact) / all).abs());
                }
            }
            assert!(worst < within, "sides {side}: {worst}");
        }
    }
}
