//! The calculator: a deck, and the trays to lay on it.

use serde::Deserialize;
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::Quantity;
use crate::space::packing::lay::{Packing, Size, beside, corners_mm, most};

/// A deck and the trays to lay on it.
#[derive(Debug, Clone, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Ask {
    /// The deck.
    pub deck: AskedDeck,
    /// The sizes of tray; of several, those are laid that cover the most together.
    pub sizes: Vec<Size>,
}

/// A deck to lay trays on.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AskedDeck {
    /// Along the front.
    pub width_mm: f64,
    /// From front to back.
    pub depth_mm: f64,
    /// Thickness of posts that take its corners.
    #[serde(default)]
    pub post_mm: f64,
}

impl Ask {
    /// Lays the trays.
    ///
    /// # Errors
    /// Every figure out of range, by its path.
    pub fn lay(&self) -> Result<Packing, Vec<Fault>> {
        let mut faults = Faults::default();
        let root = Pointer::default();
        let deck = root.at("deck");
        let mm = Quantity::LengthMm;
        for (name, value, range) in [
            ("width_mm", self.deck.width_mm, 10.0..=5000.0),
            ("depth_mm", self.deck.depth_mm, 10.0..=5000.0),
            ("post_mm", self.deck.post_mm, 0.0..=100.0),
        ] {
            faults.number(&deck.at(name), value, range, mm);
        }
        let sizes = root.at("sizes");
        for (i, size) in faults.list(&sizes, &self.sizes, 1..=12) {
            for (name, value) in [("length_mm", size.length_mm), ("width_mm", size.width_mm)] {
                faults.number(&sizes.at(i).at(name), value, 10.0..=2000.0, mm);
            }
        }
        faults.verdict()?;
        let AskedDeck {
            width_mm,
            depth_mm,
            post_mm,
        } = self.deck;
        if let [size @ Size { most: None, .. }] = self.sizes[..] {
            return Ok(most([width_mm, depth_mm], post_mm, size));
        }
        Ok(beside(
            [width_mm, depth_mm],
            &corners_mm([width_mm, depth_mm], post_mm),
            &self.sizes,
        ))
    }
}
