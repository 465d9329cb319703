//! Light in a few figures.

use serde::Serialize;
use utoipa::ToSchema;

use crate::light::falloff::Spread;

/// A range of light: daily, in mol/m²/d, or PPFD, in µmol/m²/s.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Band {
    /// Less than this stretches.
    pub low: f64,
    /// More than this is wasted or scorches.
    pub high: f64,
}

/// One value each for all cells together, the worst and the best.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Measures {
    /// Mean of all cells.
    pub mean: f64,
    /// The darkest cell.
    pub worst: f64,
    /// The brightest cell.
    pub best: f64,
}

impl From<Spread> for Measures {
    fn from(s: Spread) -> Self {
        Self {
            mean: s.mean,
            worst: s.least,
            best: s.most,
        }
    }
}

/// A cell of a tray, and where it lies on the deck.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Cell {
    /// The tray.
    pub tray: String,
    /// Its centre along the shelf.
    pub x_mm: f64,
    /// Its centre from the front.
    pub y_mm: f64,
}
