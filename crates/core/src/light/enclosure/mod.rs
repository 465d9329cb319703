//! Light that comes back from what surrounds a bay: diffuse radiosity in a box.
//!
//! Each of the six faces is cut into patches, finer towards its edges. Every patch sends out
//! what it reflects of the lamps' light and of all others' light, evenly to all sides; the
//! balance of all patches is solved at once. Faces that reflect nothing are not there at all.
//! Trays, plants and lamps neither block nor reflect. Model: classical radiosity (Goral et al.,
//! Modeling the Interaction of Light Between Diffuse Surfaces, 1984, from memory) with exact
//! view factors between patches ([`crate::light::view`]).

mod cells;
mod corners;
mod exchange;
mod image;
mod radiosity;
mod reflected;
mod straight;
mod tables;
mod wall;

pub use radiosity::{Enclosure, Fineness};
pub use reflected::Reflected;
pub use wall::Faces;
