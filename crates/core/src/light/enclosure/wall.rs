//! The faces of a box.

use crate::light::facing::Facing;

/// One value for each face of a box.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Faces<T> {
    /// The deck.
    pub floor: T,
    /// The underside of the deck above.
    pub ceiling: T,
    /// The left side.
    pub left: T,
    /// The right side.
    pub right: T,
    /// The front.
    pub front: T,
    /// The back.
    pub back: T,
}

impl<T: Copy> Faces<T> {
    /// As [`LOOKS`] has them.
    pub(super) fn in_order(&self) -> [T; 6] {
        LOOKS.map(|looks| self.of(looks))
    }

    /// That of the face which looks so: into the box.
    pub(super) fn of(&self, looks: Facing) -> T {
        match looks {
            Facing::Up => self.floor,
            Facing::Down => self.ceiling,
            Facing::Right => self.left,
            Facing::Left => self.right,
            Facing::Back => self.front,
            Facing::Front => self.back,
        }
    }
}

/// The way each face looks, in the order of their patches.
pub(super) const LOOKS: [Facing; 6] = [
    Facing::Up,
    Facing::Down,
    Facing::Right,
    Facing::Left,
    Facing::Back,
    Facing::Front,
];

/// A face that reflects or glows, and where its patches stand in the lists of all patches.
#[derive(Debug, Clone)]
pub(super) struct Wall {
    pub(super) looks: Facing,
    /// The axes that it spans, the lower first.
    pub(super) axes: [usize; 2],
    /// Where it lies along its normal.
    pub(super) plane_mm: f64,
    pub(super) reflectance: f64,
    pub(super) first: usize,
}

impl Wall {
    pub(super) fn normal(&self) -> usize {
        self.looks.normal().0
    }

    /// Whether it lies at the far end of its normal's axis.
    pub(super) fn far(&self) -> bool {
        self.looks.normal().1 < 0.0
    }
}

/// The axes that a face across `normal` spans, the lower first.
pub(super) fn across(normal: usize) -> [usize; 2] {
    match normal {
        0 => [1, 2],
        1 => [0, 2],
        _ => [0, 1],
    }
}
