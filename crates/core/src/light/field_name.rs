//! What tells the light of a bay from that of others.

use std::sync::atomic::{AtomicU64, Ordering};

/// What tells the light of a bay from that of others: two of one name are lit alike wherever their lamps hang.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct FieldName {
    /// Which of all that were ever reckoned, whatever lies on the deck.
    pub(super) level: u64,
    /// What the deck sends back.
    pub(super) floor: f64,
}

impl FieldName {
    /// What nothing was called before.
    pub(super) fn next_level() -> u64 {
        static NEXT: AtomicU64 = AtomicU64::new(0);
        NEXT.fetch_add(1, Ordering::Relaxed)
    }

    /// All of it in figures.
    pub(crate) fn figures(&self) -> [f64; 2] {
        [f64::from_bits(self.level), self.floor]
    }

    /// One that nothing else has.
    #[cfg(test)]
    pub(crate) fn of_its_own() -> Self {
        Self {
            level: Self::next_level(),
            floor: 0.1,
        }
    }
}
