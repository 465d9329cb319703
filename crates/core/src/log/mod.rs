//! What happened: facts as they were noted, never changed, corrected by a further entry.

pub mod detail;
pub mod entry;
pub mod fact;
mod happened;
pub mod table;
pub mod told;
