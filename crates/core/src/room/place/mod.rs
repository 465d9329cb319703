//! Places that hold trays: racks, shelves, closets, benches, chambers, windows and cold frames.

mod body;
mod cover;
pub mod kinds;
mod setting;
mod stretches;
mod traits;

pub use body::{Deck, Faces, Material, Place, Spot};
pub use cover::{Cover, CoverShape, Glazing, Opens};
pub use kinds::{
    Bench, Chamber, Closet, ColdFrame, Feet, Fittings, Kind, Rack, Surface, Vent, WallLayer, Window,
};
pub use setting::PlaceSetting;
