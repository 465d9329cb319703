//! What happened: facts as they were noted, never changed, corrected by a further entry.

pub mod entry;
pub mod fact;
pub mod told;
