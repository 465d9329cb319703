//! What the faces of a bay do with light: how much they send back, and how much they let through.

use crate::light::enclosure::Faces;
use crate::room::{Bay, Material, Side};

/// The share of light that wet mix sends back, and that leaves do: 0.05 to 0.10 of PAR (from
/// memory of leaf optics).
const MIX: f64 = 0.05;
const LEAVES: f64 = 0.1;
/// The share that falls through a wire deck where nothing covers it (our own estimate: wires of
/// 2 to 6 mm, 25 mm apart).
const THROUGH_WIRES: f64 = 0.75;
/// The share that a clear dome lets through: it takes 8 to 12 % (our own estimate).
pub const THROUGH_DOME: f64 = 0.9;
/// A bare wall inside a cabinet or closet: sheet metal or painted board (our own estimate).
const BARE_WALL: f64 = 0.4;

/// The share of light that what closes a side sends back: white paint 0.8, reflecting film 0.9
/// (common practice, no source); cloth and clear sheets 0.3 (our own estimate).
fn of_side(side: Side, closed: bool) -> f64 {
    match side {
        Side::Open if closed => BARE_WALL,
        Side::Open => 0.0,
        Side::White => 0.8,
        Side::Foil => 0.9,
        Side::Curtain => 0.3,
    }
}

/// The share of light that a deck sends back, seen from above or below (our own estimates).
fn of_deck(material: Material) -> f64 {
    match material {
        Material::Wire => 0.15,
        Material::Chipboard | Material::SealedChipboard => 0.4,
        Material::Wood => 0.45,
        Material::Plastic => 0.6,
        Material::Metal => 0.5,
        Material::Stone => 0.3,
    }
}

/// What lies on a deck: shares of its area.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Cover {
    /// Under trays, their leaves included.
    pub trays: f64,
    /// Under leaves.
    pub leaves: f64,
}

/// Steps in which the floor's reflectance counts: plants grow every day, and finer ones change next to
/// nothing.
const FLOOR_STEP: f64 = 0.01;

/// What the faces of `bay` send back when `cover` lies on its deck.
///
/// Shares from 0 (open) to 1: common practice and our own estimates, named at each constant.
pub fn reflectance(bay: &Bay<'_>, cover: Cover) -> Faces<f64> {
    let sides = bay.tier.sides;
    let closed = bay.place.is_closed();
    let deck = of_deck(bay.place.deck.material);
    let ceiling = match (sides.top, bay.above()) {
        // Above the top deck of an open rack the room's ceiling is far off.
        (Side::Open, None) => of_side(Side::Open, closed),
        (Side::Open, Some(_)) => deck,
        (lining, _) => of_side(lining, closed),
    };
    let floor =
        cover.leaves * LEAVES + (cover.trays - cover.leaves) * MIX + (1.0 - cover.trays) * deck;
    Faces {
        floor: (floor / FLOOR_STEP).round() * FLOOR_STEP,
        ceiling,
        left: of_side(sides.left, closed),
        right: of_side(sides.right, closed),
        front: of_side(sides.front, closed),
        back: of_side(sides.back, closed),
    }
}

/// The share of the light on the deck of `bay` that falls through to the bay below, when
/// `cover` lies on it.
///
/// From 0 (a closed deck) to 0.75 (bare wires: our own estimate).
pub fn let_down(bay: &Bay<'_>, cover: Cover) -> f64 {
    let below = bay.tier_index.checked_sub(1);
    let lined = below.is_none_or(|i| !bay.place.tiers[i].sides.top.is_open());
    if bay.tier.liner || bay.tier.storage || lined || !bay.place.deck.material.is_open() {
        return 0.0;
    }
    THROUGH_WIRES * (1.0 - cover.trays)
}
