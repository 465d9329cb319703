//! Light that was reckoned before, by what it depends on.

use crate::basis::plane::Axis;
use crate::basis::work::go_on;
use crate::light::ambient::{Ambient, Nodes, Places};
use crate::light::emitter::Emitter;
use crate::light::enclosure::{Enclosure, Faces, Fineness};
use crate::light::falloff::Falloff;
use crate::light::memory::{Memory, Used};
use crate::light::photometry::Photometry;
use crate::room::{Distribution, LOWEST_FACE_MM, Lamp};
use std::hash::{DefaultHasher, Hash, Hasher};
use std::sync::{Arc, Mutex, MutexGuard, PoisonError};

/// What [`Level`] depends on.
#[derive(Debug, Clone, PartialEq)]
pub(super) struct Key {
    /// Their heights left out, and their distributions told by [`fingerprint`].
    pub(super) lamps: Vec<Lamp>,
    pub(super) distributions: Vec<Option<u64>>,
    pub(super) box_: BoxKey,
    pub(super) highest_face_mm: f64,
}

/// What an [`Enclosure`] depends on.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct BoxKey {
    pub(super) size_mm: [f64; 3],
    pub(super) reflectance: Faces<f64>,
    pub(super) wires_above: bool,
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
pub(super) fn fingerprint(data: &Distribution) -> u64 {
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
pub(super) struct Level {
    pub(super) size_mm: [f64; 3],
    pub(super) emitters: Vec<Emitter>,
    pub(super) sent_back: Ambient,
    /// What reaches a level surface of each unit that the deck above sends down; `None` where
    /// it lets nothing through.
    pub(super) let_down: Option<Ambient>,
    pub(super) cells: Mutex<Memory<Vec<(f64, f64)>, CellField>>,
}

/// A part of a tray in a [`BayField`].
#[derive(Debug)]
pub struct CellField {
    pub(super) points: Vec<(f64, f64)>,
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
    pub(super) fn bytes(&self) -> usize {
        2 * size_of_val(&self.points[..]) + self.places.bytes() + self.falloff.bytes()
    }
}
