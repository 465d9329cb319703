//! Places that hold trays: racks, shelves, closets, benches, chambers, windows and cold frames.

pub mod airing;
mod body;
mod cover;
pub mod kinds;
mod setting;
mod stretches;
mod traits;

pub use airing::Airing;
pub use body::{Deck, Faces, Material, Place, Spot};
pub use cover::{Cover, CoverShape, Glazing, Opens};
pub use kinds::{
    Bench, Chamber, Closet, ColdFrame, Feet, Fittings, Kind, Rack, Surface, WallLayer, Window,
};
pub use setting::PlaceSetting;
