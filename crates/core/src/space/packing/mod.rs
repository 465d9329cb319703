//! How many rectangles go into a rectangle: exact packing, square to the edges.
//!
//! Trays of one size are laid by recursion over five blocks (after Morabito and Morales, "A simple
//! and effective recursive procedure for the manufacturer's pallet loading problem", J. Oper. Res.
//! Soc. 49, 1998; from memory), and the count is proven by bounds from dual feasible functions
//! (Fekete and Schepers, 2004; from memory). Where bound and count differ, and for mixed sizes
//! or decks that are partly taken, a search over all left- and front-most positions decides.

mod ask;
mod blocks;
mod lay;
mod search;
mod tenths;

pub use ask::{Ask, AskedDeck};
pub use lay::{Laid, Packing, Size, beside, corners_mm, most};
