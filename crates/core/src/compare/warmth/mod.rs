//! Other ways to warm a tray than the one that is there, each with what it gains.

mod closed;
mod heat;
mod way;
mod ways;

pub use way::{WarmWay, WarmWays};
pub use ways::warm_ways;
