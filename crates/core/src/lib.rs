//! The craft of raising seedlings indoors, as plain data in and plain data out.
//!
//! No I/O, no clock, no async and no interface code lives here: a [`Plan`](plan::Plan) goes in,
//! [`assess()`] gives an [`Assessment`](assess::Assessment) back. Lengths are in millimetres,
//! temperatures in degrees Celsius, times in hours or days; the names say which.
//!
//! The modules stand in the order of the work; a lower one never imports a higher one.

pub mod work;
pub mod units;
pub mod words;
pub mod fault;
pub mod daytime;
pub mod site;
pub mod crops;
pub mod seeds;
pub mod room;
pub mod containers;
pub mod kinds;
pub mod light;
pub mod packing;
pub mod growth;
pub mod air;
pub mod warmth;
pub mod plan;
pub mod season;
pub mod to_sow;
pub mod events;
pub mod placement;
pub mod water;
pub mod chambers;
pub mod roots;
pub mod over_trays;
pub mod space;
pub mod load;
pub mod power;
pub mod bays;
pub mod away;
pub mod places;
pub mod advice;
pub mod assess;
pub mod compare;
pub mod calibrate;
pub mod edit;
pub mod upgrade;

pub use assess::{assess, assess_again};
