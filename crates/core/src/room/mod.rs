//! The room as it is built: its places, their tiers, and what hangs and lies in them.
//!
//! Coordinates of a bay (the space above a tier's deck): x along the shelf from the left, y from
//! the front to the back, z up from the top of the deck, all in mm.

mod bay;
mod check;
pub mod container;
mod fan;
mod lamp;
mod mat;
mod mix;
pub mod place;
pub mod shelf;
pub mod tier;
mod vent;
mod walls;
pub mod wiring;

pub use bay::{Bay, BayRef, bays, find_bay, place_pointer};
pub(crate) use check::check;
pub use fan::{Fan, MOST_OVERHANG_MM};
pub use lamp::{
    Ageing, Dimmer, Distribution, Face, LOWEST_FACE_MM, Lamp, LampFamily, PhotometricType,
};
pub use mat::{Mat, MatProbe};
pub use mix::{MixFigures, MixKind};
pub use place::{
    Airing, Cover, CoverShape, Deck, Faces, Feet, Glazing, Kind, Material, Opens, Place, Spot,
    WallLayer, Window,
};
pub use tier::{Adjust, Boxes, Chain, Side, Sides, Tier};
pub use vent::Vent;
pub use walls::{Door, Room};
