//! What every room of core stands on: units, words, faults, days and rectangles.

pub mod clock;
pub mod dates;
pub mod fault;
pub mod ids;
pub mod learned;
pub mod manner;
pub mod plane;
pub mod range;
pub mod units;
pub mod words;
pub mod work;
