//! The craft of raising seedlings indoors, as plain data in and plain data out.
//!
//! No I/O, no clock, no async and no interface code lives here: a [`Plan`](plan::Plan) goes in,
//! [`ask::assess()`] gives an [`Assessment`](ask::Assessment) back. Lengths are in millimetres,
//! temperatures in degrees Celsius, times in hours or days; the names say which.
//!
//! The rooms stand in the order of the work; a lower one never imports a higher one.

pub mod basis;
pub mod site;
pub mod crops;
pub mod seeds;
pub mod room;
pub mod space;
pub mod light;
pub mod air;
pub mod warmth;
pub mod growth;
pub mod power;
pub mod lamps;
pub mod plan;
pub mod log;
pub mod season;
pub mod day;
pub mod cost;
pub mod placement;
pub mod readings;
pub mod learning;
pub mod batches;
pub mod diagnosis;
pub mod advice;
pub mod today;
pub mod edit;
pub mod compare;
pub mod ask;

#[cfg(any(test, feature = "testing"))]
#[doc(hidden)]
pub mod testing;
