//! Light: from lumens to photons, and from emitters to the cells of a tray.
//!
//! The lamp's description ([`room::Lamp`](crate::room::Lamp)), the emitters ([`emitter`]) and
//! the searches that run over them ([`falloff`], [`choice`](crate::lamps::choice)) are three things: the last two take
//! rectangles and numbers, never plans.

pub mod ambient;
mod angle;
pub mod bay;
pub mod beam;
pub mod colour;
pub mod daylight;
pub mod emitter;
pub mod enclosure;
pub mod eulumdat;
mod exponential;
pub mod facing;
pub mod falloff;
pub mod field_name;
pub mod fields;
pub mod ies;
pub mod luminaire;
mod measured;
mod memory;
pub mod pane;
pub mod photometric_file;
pub mod photometry;
pub mod photons;
mod quadrature;
pub mod scene;
pub mod sill_days;
pub mod surfaces;
mod view;
