//! The six ways a surface can face.

/// A direction that a surface faces.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Facing {
    /// The ceiling's.
    Down,
    /// A tray's.
    Up,
    /// The left wall's, towards +x.
    Right,
    /// The right wall's, towards -x.
    Left,
    /// The front's, towards +y.
    Back,
    /// The back wall's, towards -y.
    Front,
}

impl Facing {
    /// The axis of its normal (0 x, 1 y, 2 z) and the normal's sign along it.
    pub fn normal(self) -> (usize, f64) {
        match self {
            Self::Right => (0, 1.0),
            Self::Left => (0, -1.0),
            Self::Back => (1, 1.0),
            Self::Front => (1, -1.0),
            Self::Up => (2, 1.0),
            Self::Down => (2, -1.0),
        }
    }
}
