//! The search over all positions, for what rows and blocks cannot settle.

use super::{Kind, Spot, Tenths, sums};

/// Tries all positions that trays pushed to the left and to the front can have. The deck is cut
/// into cells at those positions; the first cell that is neither taken nor given up is the corner
/// of some tray, or is given up.
pub(super) struct Search<'a> {
    kinds: &'a [Kind],
    xs: Vec<Tenths>,
    ys: Vec<Tenths>,
    /// Cells taken, a bit a column, for each row.
    taken: Vec<u128>,
    left: Vec<u32>,
    spots: Vec<Spot>,
    best: Vec<Spot>,
    best_area: Tenths,
    /// An upper bound on what all wanted trays cover.
    wanted_area: Tenths,
    smallest: Tenths,
    /// Steps still to go.
    pub(super) steps: u32,
}

/// Columns that the bits of a row can hold.
const MOST_COLUMNS: usize = 127;
/// Steps after which the search for one size on a free deck stops with the best so far.
const MANY_STEPS: u32 = 50_000;
/// The same beside trays that stand there already: asked anew with every move of a hand.
pub(super) const FEW_STEPS: u32 = 6000;

impl<'a> Search<'a> {
    pub(super) fn new(w: Tenths, d: Tenths, obstacles: &[[Tenths; 4]], kinds: &'a [Kind]) -> Self {
        let sides: Vec<Tenths> = kinds.iter().flat_map(|k| [k.l, k.s]).collect();
        let cuts = |low: usize, side: Tenths| {
            let mut starts = vec![0];
            starts.extend(obstacles.iter().map(|o| o[low + 2].max(0)));
            let mut cuts = sums(&starts, &sides, side);
            // Edges of what is taken, so that a cell is taken whole or not at all.
            cuts.extend(obstacles.iter().map(|o| o[low].clamp(0, side)));
            cuts.insert(side);
            cuts.into_iter().collect::<Vec<_>>()
        };
        let (xs, ys) = (cuts(0, w), cuts(1, d));
        let mut search = Self {
            left: kinds.iter().map(|k| k.most).collect(),
            wanted_area: kinds.iter().fold(0, |sum: Tenths, k| {
                sum.saturating_add(k.area().saturating_mul(Tenths::from(k.most)))
            }),
            smallest: kinds.iter().map(|k| k.area()).min().unwrap_or(1).max(1),
            taken: vec![0; ys.len().saturating_sub(1)],
            spots: Vec::new(),
            best: Vec::new(),
            best_area: 0,
            steps: MANY_STEPS,
            kinds,
            xs,
            ys,
        };
        if search.xs.len() <= MOST_COLUMNS {
            for &[x0, y0, x1, y1] in obstacles {
                let bits = search.columns(x0.max(0), x1.min(w));
                for (row, y) in search.ys.windows(2).enumerate() {
                    if y[0] < y1 && y[1] > y0 {
                        search.taken[row] |= bits;
                    }
                }
            }
        }
        search
    }

    /// Looks only for more than `count` trays of the one size.
    pub(super) fn at_least(mut self, count: u32) -> Self {
        self.best_area = Tenths::from(count) * self.kinds[0].area();
        self
    }

    /// The best that was found, and whether all was tried.
    pub(super) fn run(mut self) -> (Vec<Spot>, bool) {
        if self.xs.len() > MOST_COLUMNS || self.xs.len() < 2 || self.ys.len() < 2 {
            return (Vec::new(), self.xs.len() <= MOST_COLUMNS);
        }
        let mut free = 0;
        for row in 0..self.taken.len() {
            for column in 0..self.xs.len() - 1 {
                if self.taken[row] >> column & 1 == 0 {
                    free += self.cell(row, column);
                }
            }
        }
        let complete = self.go(0, free, 0);
        (self.best, complete)
    }

    fn cell(&self, row: usize, column: usize) -> Tenths {
        (self.xs[column + 1] - self.xs[column]) * (self.ys[row + 1] - self.ys[row])
    }

    /// The columns between two cuts, as bits.
    fn columns(&self, from: Tenths, to: Tenths) -> u128 {
        let at = |x: Tenths| self.xs.partition_point(|&cut| cut < x);
        let (from, to) = (at(from), at(to));
        if from >= to {
            return 0;
        }
        ((1u128 << (to - from)) - 1) << from
    }

    /// Goes on from `row` with `free` area neither covered nor given up and `covered` covered;
    /// false when the steps are used up.
    fn go(&mut self, mut row: usize, free: Tenths, covered: Tenths) -> bool {
        if self.steps == 0 {
            return false;
        }
        self.steps -= 1;
        if covered > self.best_area {
            self.best_area = covered;
            self.best.clone_from(&self.spots);
        }
        // Whole trays only: a rest smaller than the smallest is no hope.
        let rest = if self.kinds.len() == 1 {
            free / self.smallest * self.smallest
        } else {
            free
        };
        if (covered + rest).min(self.wanted_area) <= self.best_area || free < self.smallest {
            return true;
        }
        let full = (1u128 << (self.xs.len() - 1)) - 1;
        while row < self.taken.len() && self.taken[row] == full {
            row += 1;
        }
        if row == self.taken.len() {
            return true;
        }
        let column = (!self.taken[row]).trailing_zeros() as usize;
        let (x, y) = (self.xs[column], self.ys[row]);
        for kind in 0..self.kinds.len() {
            let Kind { l, s, .. } = self.kinds[kind];
            for lengthwise in [true, false] {
                if self.left[kind] == 0 || (!lengthwise && l == s) {
                    continue;
                }
                let (w, d) = if lengthwise { (l, s) } else { (s, l) };
                let Some(rows) = self.fits(row, column, w, d) else {
                    continue;
                };
                let bits = self.columns(x, x + w);
                for taken in &mut self.taken[row..rows] {
                    *taken |= bits;
                }
                self.left[kind] -= 1;
                self.spots.push(Spot {
                    kind,
                    x,
                    y,
                    lengthwise,
                });
                let complete = self.go(row, free - l * s, covered + l * s);
                self.spots.pop();
                self.left[kind] += 1;
                for taken in &mut self.taken[row..rows] {
                    *taken &= !bits;
                }
                if !complete {
                    return false;
                }
            }
        }
        self.taken[row] |= 1 << column;
        let cell = self.cell(row, column);
        let complete = self.go(row, free - cell, covered);
        self.taken[row] &= !(1 << column);
        complete
    }

    /// The row after the last that a tray with its corner at this cell covers, if it fits there.
    fn fits(&self, row: usize, column: usize, w: Tenths, d: Tenths) -> Option<usize> {
        let (right, back) = (self.xs[column] + w, self.ys[row] + d);
        if right > *self.xs.last()? || back > *self.ys.last()? {
            return None;
        }
        // A corner that no pushed tray can have has no cut at its far side.
        self.xs.binary_search(&right).ok()?;
        let rows = self.ys.binary_search(&back).ok()?;
        let bits = self.columns(self.xs[column], right);
        self.taken[row..rows]
            .iter()
            .all(|taken| taken & bits == 0)
            .then_some(rows)
    }
}
