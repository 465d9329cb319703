//! The search over all positions, for what rows and blocks cannot settle.

use crate::basis::work::go_on;
use crate::space::packing::tenths::{Kind, Spot, Tenths, sums};

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

/// Where the search goes next, with so much area neither covered nor given up, and so much covered.
#[derive(Clone, Copy)]
struct Next {
    row: usize,
    free: Tenths,
    covered: Tenths,
}

/// A cell that is neither taken nor given up, and what is being tried with it.
struct Node {
    row: usize,
    column: usize,
    free: Tenths,
    covered: Tenths,
    /// The next of the things that can be done with it.
    way: usize,
    tried: Tried,
}

enum Tried {
    Nothing,
    Tray {
        kind: usize,
        rows: usize,
        bits: u128,
    },
    GivenUp,
}

enum Entered {
    OutOfSteps,
    /// Nothing better can come from here.
    Hopeless,
    Node(Node),
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
        let complete = self.try_all(free);
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

    /// Tries everything from `free` area on; false when the steps are used up.
    ///
    /// The nodes under way stand in a list of their own, not on the thread's stack: how many there
    /// are follows the deck, which anyone may make as large as they like.
    fn try_all(&mut self, free: Tenths) -> bool {
        let mut under_way: Vec<Node> = Vec::new();
        let mut next = Next {
            row: 0,
            free,
            covered: 0,
        };
        loop {
            match self.enter(next) {
                Entered::OutOfSteps => return false,
                Entered::Hopeless => {}
                Entered::Node(node) => under_way.push(node),
            }
            next = loop {
                let Some(node) = under_way.last_mut() else {
                    return true;
                };
                self.take_back(node);
                match self.choose(node) {
                    Some(next) => break next,
                    None => under_way.pop(),
                };
            };
        }
    }

    /// Looks at what is left from `next` on.
    fn enter(
        &mut self,
        Next {
            mut row,
            free,
            covered,
        }: Next,
    ) -> Entered {
        if self.steps == 0 {
            return Entered::OutOfSteps;
        }
        self.steps -= 1;
        go_on();
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
            return Entered::Hopeless;
        }
        let full = (1u128 << (self.xs.len() - 1)) - 1;
        while row < self.taken.len() && self.taken[row] == full {
            row += 1;
        }
        if row == self.taken.len() {
            return Entered::Hopeless;
        }
        Entered::Node(Node {
            row,
            column: (!self.taken[row]).trailing_zeros() as usize,
            free,
            covered,
            way: 0,
            tried: Tried::Nothing,
        })
    }

    /// Does the next thing that can be done with the node's cell; `None` when all was tried.
    fn choose(&mut self, node: &mut Node) -> Option<Next> {
        let &mut Node {
            row,
            column,
            free,
            covered,
            ..
        } = node;
        // Each kind lengthwise and crosswise, and last to give the cell up.
        while node.way < 2 * self.kinds.len() {
            let (kind, lengthwise) = (node.way / 2, node.way.is_multiple_of(2));
            node.way += 1;
            let Kind { l, s, .. } = self.kinds[kind];
            if self.left[kind] == 0 || (!lengthwise && l == s) {
                continue;
            }
            let (w, d) = if lengthwise { (l, s) } else { (s, l) };
            let Some(rows) = self.fits(row, column, w, d) else {
                continue;
            };
            let (x, y) = (self.xs[column], self.ys[row]);
            let bits = self.columns(x, x + w);
            self.taken[row..rows].iter_mut().for_each(|t| *t |= bits);
            self.left[kind] -= 1;
            self.spots.push(Spot {
                kind,
                x,
                y,
                lengthwise,
            });
            node.tried = Tried::Tray { kind, rows, bits };
            return Some(Next {
                row,
                free: free - l * s,
                covered: covered + l * s,
            });
        }
        if node.way > 2 * self.kinds.len() {
            return None;
        }
        node.way += 1;
        self.taken[row] |= 1 << column;
        node.tried = Tried::GivenUp;
        Some(Next {
            row,
            free: free - self.cell(row, column),
            covered,
        })
    }

    /// Takes back what was last done with the node's cell.
    fn take_back(&mut self, node: &mut Node) {
        match std::mem::replace(&mut node.tried, Tried::Nothing) {
            Tried::Nothing => {}
            Tried::Tray { kind, rows, bits } => {
                self.spots.pop();
                self.left[kind] += 1;
                self.taken[node.row..rows]
                    .iter_mut()
                    .for_each(|t| *t &= !bits);
            }
            Tried::GivenUp => self.taken[node.row] &= !(1 << node.column),
        }
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
