//! Trays of one size on a free deck: the recursion over five blocks, and the bounds that prove it.

use crate::basis::work::go_on;
use crate::space::packing::search::Search;
use crate::space::packing::tenths::{Kind, Spot, Tenths, sums};
use rustc_hash::FxHashMap;

/// Trays of one size up to which more than rows are tried.
const MOST_SEARCHED: Tenths = 150;

/// Blocks within blocks so deep are laid in rows: real trays never need a tenth of it.
const DEEPEST: u32 = 60;

/// How a rectangle is best divided.
#[derive(Debug, Clone, Copy)]
enum Division {
    /// Rows of trays that lie lengthwise, or crosswise.
    Rows { lengthwise: bool },
    /// A pinwheel of four blocks around a fifth; blocks may be empty.
    Pinwheel { x: [Tenths; 2], y: [Tenths; 2] },
}

/// The recursion over blocks for trays of one size.
pub(super) struct Blocks {
    l: Tenths,
    s: Tenths,
    known: FxHashMap<[Tenths; 2], (u32, Division)>,
    /// Every sum of trays' sides up to the deck's longer side, in order.
    sums: Vec<Tenths>,
    /// Divisions still to try: pots by the hundred would keep it busy for minutes.
    budget: u32,
}

impl Blocks {
    pub(super) fn new(l: Tenths, s: Tenths) -> Self {
        Self {
            l,
            s,
            known: FxHashMap::default(),
            sums: Vec::new(),
            budget: 100_000,
        }
    }

    pub(super) fn most(&mut self, w: Tenths, d: Tenths) -> (Vec<Spot>, bool) {
        if w <= 0 || d <= 0 {
            return (Vec::new(), true);
        }
        // Pots by the hundred stand in rows.
        if w * d / (self.l * self.s).max(1) > MOST_SEARCHED {
            self.budget = 0;
        }
        self.sums = sums(&[0], &[self.l, self.s], w.max(d))
            .into_iter()
            .collect();
        let count = self.solve(w, d, 0);
        let mut spots = Vec::with_capacity(count as usize);
        self.lay(w, d, [0, 0], &mut spots);
        // Squares in rows are best: each covers a point of a lattice that all others miss.
        let mut proven = self.l == self.s || count == self.bound(w, d);
        if !proven && self.budget > 0 {
            let kinds = [Kind::new(self.l, self.s, None)];
            let (found, complete) = Search::new(w, d, &[], &kinds).at_least(count).run();
            proven = complete;
            if found.len() > spots.len() {
                spots = found;
            }
        }
        (spots, proven)
    }

    /// The rectangle with the margins taken off that no tray can reach.
    fn reduced(&self, w: Tenths, d: Tenths) -> [Tenths; 2] {
        [w, d].map(|side| self.sums_up_to(side).last().copied().unwrap_or(0))
    }

    fn sums_up_to(&self, side: Tenths) -> &[Tenths] {
        &self.sums[..self.sums.partition_point(|&sum| sum <= side)]
    }

    fn rows(&self, w: Tenths, d: Tenths, lengthwise: bool) -> [u32; 2] {
        let (x, y) = if lengthwise {
            (self.l, self.s)
        } else {
            (self.s, self.l)
        };
        [(w / x) as u32, (d / y) as u32]
    }

    fn solve(&mut self, w: Tenths, d: Tenths, depth: u32) -> u32 {
        let [w, d] = self.reduced(w, d);
        if w < self.s || d < self.s || (w < self.l && d < self.l) {
            return 0;
        }
        if let Some((count, _)) = self.known.get(&[w, d]) {
            return *count;
        }
        let mut best = [true, false]
            .map(|lengthwise| {
                let [columns, rows] = self.rows(w, d, lengthwise);
                (columns * rows, Division::Rows { lengthwise })
            })
            .into_iter()
            .max_by_key(|(count, _)| *count)
            .expect("there are two ways");
        let bound = self.bound(w, d);
        if best.0 < bound && self.l != self.s && depth < DEEPEST {
            self.pinwheels([w, d], depth, bound, &mut best);
        }
        self.known.insert([w, d], best);
        best.0
    }

    fn pinwheels(
        &mut self,
        [w, d]: [Tenths; 2],
        depth: u32,
        bound: u32,
        best: &mut (u32, Division),
    ) {
        let [xs, ys] = [w, d].map(|side| self.sums_up_to(side).to_vec());
        for (i, &x1) in xs.iter().enumerate() {
            for &x2 in &xs[i..] {
                for (j, &y1) in ys.iter().enumerate() {
                    for &y2 in &ys[j..] {
                        let blocks = pinwheel([w, d], [x1, x2], [y1, y2]);
                        // One block that is the whole says nothing new.
                        if blocks.iter().any(|b| b[2] == w && b[3] == d) {
                            continue;
                        }
                        if self.budget == 0 {
                            return;
                        }
                        self.budget -= 1;
                        go_on();
                        let area = self.l * self.s;
                        let hope: Tenths = blocks.iter().map(|b| b[2] * b[3] / area).sum();
                        if hope <= Tenths::from(best.0) {
                            continue;
                        }
                        let count = blocks
                            .iter()
                            .map(|b| self.solve(b[2], b[3], depth + 1))
                            .sum();
                        if count > best.0 {
                            let division = Division::Pinwheel {
                                x: [x1, x2],
                                y: [y1, y2],
                            };
                            *best = (count, division);
                            if count == bound {
                                return;
                            }
                        }
                    }
                }
            }
        }
    }

    fn lay(&self, w: Tenths, d: Tenths, [x0, y0]: [Tenths; 2], spots: &mut Vec<Spot>) {
        let [w, d] = self.reduced(w, d);
        let Some((_, division)) = self.known.get(&[w, d]) else {
            return;
        };
        match *division {
            Division::Rows { lengthwise } => {
                let [columns, rows] = self.rows(w, d, lengthwise);
                let (x, y) = if lengthwise {
                    (self.l, self.s)
                } else {
                    (self.s, self.l)
                };
                for row in 0..Tenths::from(rows) {
                    for column in 0..Tenths::from(columns) {
                        spots.push(Spot {
                            kind: 0,
                            x: x0 + column * x,
                            y: y0 + row * y,
                            lengthwise,
                        });
                    }
                }
            }
            Division::Pinwheel { x, y } => {
                for [bx, by, bw, bd] in pinwheel([w, d], x, y) {
                    self.lay(bw, bd, [x0 + bx, y0 + by], spots);
                }
            }
        }
    }

    /// More than this never fit.
    fn bound(&self, w: Tenths, d: Tenths) -> u32 {
        let [w, d] = self.reduced(w, d);
        if w == 0 || d == 0 {
            return 0;
        }
        // A function of the side that keeps "what fits beside one another sums to at most 1":
        // the share of the side itself, or steps of 1/k.
        let scaled = |part: Tenths, side: Tenths, k: Tenths| {
            if k == 0 || ((k + 1) * part) % side == 0 {
                part as f64 / side as f64
            } else {
                ((k + 1) * part / side) as f64 / k as f64
            }
        };
        let mut bound = u32::MAX;
        for kx in 0..=12 {
            for ky in 0..=12 {
                let area = |x: Tenths, y: Tenths| {
                    // A tray that does not lie this way at all asks for more than there is.
                    if x > w || y > d {
                        return f64::INFINITY;
                    }
                    scaled(x, w, kx) * scaled(y, d, ky)
                };
                let least = area(self.l, self.s).min(area(self.s, self.l));
                if least > 0.0 {
                    bound = bound.min((1.0 / least + 1e-9).floor() as u32);
                }
            }
        }
        bound
    }
}

/// Corner, width and depth of the five blocks.
fn pinwheel([w, d]: [Tenths; 2], [x1, x2]: [Tenths; 2], [y1, y2]: [Tenths; 2]) -> [[Tenths; 4]; 5] {
    [
        [0, 0, x1, y2],
        [x1, 0, w - x1, y1],
        [x2, y1, w - x2, d - y1],
        [0, y2, x2, d - y2],
        [x1, y1, x2 - x1, y2 - y1],
    ]
}
