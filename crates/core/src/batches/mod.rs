//! Two batches beside each other: what differs, whether chance explains it, and what probably does.

pub mod batch;
pub mod comparison;
pub mod differs;
pub mod figures;
mod reason;
