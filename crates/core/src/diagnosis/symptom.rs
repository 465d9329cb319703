//! What is seen in a tray.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// What is seen in a tray.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Symptom {
    /// Long thin stems.
    Leggy,
    /// Pale or yellow leaves.
    Pale,
    /// Purple leaves or stems.
    Purple,
    /// Brown or dry tips and edges.
    BurntTips,
    /// Fallen over, pinched at the soil line.
    Collapsed,
    /// Fuzzy mould on the mix.
    Mould,
    /// Tiny flies.
    Flies,
    /// Wilting though the mix is wet.
    WiltingWet,
    /// Nothing has come up.
    NothingUp,
    /// One side or row ahead of the other.
    Uneven,
}

impl Symptom {
    /// All of them.
    pub const ALL: [Self; 10] = [
        Self::Leggy,
        Self::Pale,
        Self::Purple,
        Self::BurntTips,
        Self::Collapsed,
        Self::Mould,
        Self::Flies,
        Self::WiltingWet,
        Self::NothingUp,
        Self::Uneven,
    ];
}
