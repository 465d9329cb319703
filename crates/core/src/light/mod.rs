//! Light: from lumens to photons, from emitters to the cells of a tray, and the height and hours
//! that give a crop what it needs.
//!
//! The lamp's description ([`room::Lamp`](crate::room::Lamp)), the emitters ([`emitter`]) and
//! the searches that run over them ([`falloff`], [`hang`]) are three things: the last two take
//! rectangles and numbers, never plans.

pub mod ambient;
mod angle;
pub mod bay;
pub mod colour;
pub mod daylight;
pub mod emitter;
pub mod enclosure;
pub mod eulumdat;
pub mod falloff;
pub mod hang;
pub mod ies;
pub mod luminaire;
mod memory;
pub mod photometry;
pub mod photons;
mod quadrature;
pub mod scene;
pub mod start;
pub mod surfaces;
mod view;
