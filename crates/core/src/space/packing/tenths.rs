//! Lengths in whole tenths of a millimetre: their sums are exact.

use std::collections::BTreeSet;

/// Tenths of a millimetre: whole numbers, so that sums of sizes meet exactly.
pub(super) type Tenths = i64;

/// A tray, rounded up: it never comes out smaller than it is.
pub(super) fn tenths(mm: f64) -> Tenths {
    (mm * 10.0 - 1e-6).ceil() as Tenths
}

/// A deck, rounded down.
pub(super) fn deck_tenths(mm: f64) -> Tenths {
    (mm * 10.0 + 1e-6).floor() as Tenths
}

pub(super) fn mm(tenths: Tenths) -> f64 {
    tenths as f64 / 10.0
}

/// A tray in whole numbers: index of its size, corner, whether its length runs along x.
#[derive(Debug, Clone, Copy)]
pub(super) struct Spot {
    pub(super) kind: usize,
    pub(super) x: Tenths,
    pub(super) y: Tenths,
    pub(super) lengthwise: bool,
}

/// Sums of `parts` up to `most`, from each of `starts`: where a tray pushed to the left may begin.
pub(super) fn sums(starts: &[Tenths], parts: &[Tenths], most: Tenths) -> BTreeSet<Tenths> {
    let mut found: BTreeSet<Tenths> = starts.iter().copied().filter(|s| *s <= most).collect();
    let mut open: Vec<Tenths> = found.iter().copied().collect();
    while let Some(at) = open.pop() {
        for part in parts {
            let next = at + part;
            if *part > 0 && next <= most && found.insert(next) {
                open.push(next);
            }
        }
    }
    found
}

/// A size in whole numbers.
#[derive(Debug, Clone, Copy)]
pub(super) struct Kind {
    pub(super) l: Tenths,
    pub(super) s: Tenths,
    pub(super) most: u32,
}

impl Kind {
    pub(super) fn new(l: Tenths, s: Tenths, most: Option<u32>) -> Self {
        Self {
            l,
            s,
            most: most.unwrap_or(u32::MAX),
        }
    }

    pub(super) fn area(self) -> Tenths {
        self.l * self.s
    }
}
