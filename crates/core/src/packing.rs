//! How many rectangles go into a rectangle: exact packing, square to the edges.
//!
//! Trays of one size are laid by recursion over five blocks (after Morabito and Morales, "A simple
//! and effective recursive procedure for the manufacturer's pallet loading problem", J. Oper. Res.
//! Soc. 49, 1998; from memory), and the count is proven by bounds from dual feasible functions
//! (Fekete and Schepers, 2004; from memory). Where bound and count differ, and for mixed sizes
//! or decks that are partly taken, a search over all left- and front-most positions decides.

use std::collections::{BTreeSet, HashMap};

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::fault::{Fault, Faults, Pointer};
use crate::light::bay::Footprint;
use crate::room::Axis;
use crate::units::Quantity;

/// A size of tray to lay, and how many of it at the most.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Size {
    /// Outer length.
    pub length_mm: f64,
    /// Outer width.
    pub width_mm: f64,
    /// How many are wanted; as many as go when left out.
    #[serde(default)]
    pub most: Option<u32>,
}

/// A tray where it would lie.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Laid {
    /// Index of its size among those asked for.
    pub size: usize,
    /// Left edge on the deck.
    pub x_mm: f64,
    /// Front edge on the deck.
    pub y_mm: f64,
    /// Which way its length runs.
    pub along: Axis,
}

/// Trays laid on a deck.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Packing {
    /// Where each lies.
    pub laid: Vec<Laid>,
    /// Whether no other way holds more. The search for a proof has an end.
    pub proven: bool,
}

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
        faults.count(&sizes, self.sizes.len(), 1..=12);
        for (i, size) in self.sizes.iter().enumerate() {
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

/// The corners of a deck that posts take.
pub fn corners_mm([width_mm, depth_mm]: [f64; 2], post_mm: f64) -> Vec<Footprint> {
    if post_mm <= 0.0 {
        return Vec::new();
    }
    let ends = |side: f64| [[0.0, post_mm], [side - post_mm, side]];
    ends(width_mm)
        .into_iter()
        .flat_map(|x_mm| ends(depth_mm).map(|y_mm| Footprint { x_mm, y_mm }))
        .collect()
}

/// Tenths of a millimetre: whole numbers, so that sums of sizes meet exactly.
type Tenths = i64;

/// A tray, rounded up: it never comes out smaller than it is.
fn tenths(mm: f64) -> Tenths {
    (mm * 10.0 - 1e-6).ceil() as Tenths
}

/// A deck, rounded down.
fn deck_tenths(mm: f64) -> Tenths {
    (mm * 10.0 + 1e-6).floor() as Tenths
}

fn mm(tenths: Tenths) -> f64 {
    tenths as f64 / 10.0
}

/// The most trays of one size on a deck of `deck_mm` (width, depth) whose corners are taken up by
/// posts of `post_mm`.
pub fn most(deck_mm: [f64; 2], post_mm: f64, size: Size) -> Packing {
    let [w, d] = deck_mm.map(deck_tenths);
    let post = tenths(post_mm.max(0.0));
    let (l, s) = (tenths(size.length_mm), tenths(size.width_mm));
    let (free, proven) = Blocks::new(l, s).most(w, d);
    if post == 0 || free.is_empty() {
        return packing(&free, [0, 0], proven);
    }
    // Between the posts along the front, or from front to back: if either holds as many as the
    // bare rectangle, the posts cost nothing.
    let between_x = Blocks::new(l, s).most(w - 2 * post, d).0;
    let between_y = Blocks::new(l, s).most(w, d - 2 * post).0;
    for (laid, offset) in [(&between_x, [post, 0]), (&between_y, [0, post])] {
        if laid.len() == free.len() {
            return packing(laid, offset, proven);
        }
    }
    let corners = [
        [0, 0, post, post],
        [w - post, 0, w, post],
        [0, d - post, post, d],
        [w - post, d - post, w, d],
    ];
    let kinds = [Kind::new(l, s, None)];
    let (found, complete) = Search::new(w, d, &corners, &kinds).run();
    let best = [
        packing(&between_x, [post, 0], false),
        packing(&between_y, [0, post], false),
    ]
    .into_iter()
    .fold(packing(&found, [0, 0], complete), |best, other| {
        if other.laid.len() > best.laid.len() {
            other
        } else {
            best
        }
    });
    // A complete search is the proof, whoever found the count.
    Packing {
        proven: complete || best.proven,
        ..best
    }
}

/// Trays of several sizes on a deck, beside what is `taken` already: those that cover the most
/// together.
pub fn beside(deck_mm: [f64; 2], taken: &[Footprint], sizes: &[Size]) -> Packing {
    let [w, d] = deck_mm.map(deck_tenths);
    let taken: Vec<[Tenths; 4]> = taken
        .iter()
        .map(|t| [t.x_mm[0], t.y_mm[0], t.x_mm[1], t.y_mm[1]].map(tenths))
        .collect();
    let kinds: Vec<Kind> = sizes
        .iter()
        .map(|s| Kind::new(tenths(s.length_mm), tenths(s.width_mm), s.most))
        .collect();
    let mut search = Search::new(w, d, &taken, &kinds);
    search.steps = FEW_STEPS;
    let (found, complete) = search.run();
    packing(&found, [0, 0], complete)
}

/// A tray in whole numbers: index of its size, corner, whether its length runs along x.
#[derive(Debug, Clone, Copy)]
struct Spot {
    kind: usize,
    x: Tenths,
    y: Tenths,
    lengthwise: bool,
}

fn packing(spots: &[Spot], [dx, dy]: [Tenths; 2], proven: bool) -> Packing {
    let laid = spots.iter().map(|spot| Laid {
        size: spot.kind,
        x_mm: mm(spot.x + dx),
        y_mm: mm(spot.y + dy),
        along: if spot.lengthwise { Axis::X } else { Axis::Y },
    });
    Packing {
        laid: laid.collect(),
        proven,
    }
}

/// Sums of `parts` up to `most`, from each of `starts`: where a tray pushed to the left may begin.
fn sums(starts: &[Tenths], parts: &[Tenths], most: Tenths) -> BTreeSet<Tenths> {
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

/// How a rectangle is best divided.
#[derive(Debug, Clone, Copy)]
enum Division {
    /// Rows of trays that lie lengthwise, or crosswise.
    Rows { lengthwise: bool },
    /// A pinwheel of four blocks around a fifth; blocks may be empty.
    Pinwheel { x: [Tenths; 2], y: [Tenths; 2] },
}

/// The recursion over blocks for trays of one size.
struct Blocks {
    l: Tenths,
    s: Tenths,
    known: HashMap<[Tenths; 2], (u32, Division)>,
    /// Divisions still to try: pots by the hundred would keep it busy for minutes.
    budget: u32,
}

impl Blocks {
    fn new(l: Tenths, s: Tenths) -> Self {
        Self {
            l,
            s,
            known: HashMap::new(),
            budget: 100_000,
        }
    }

    fn most(&mut self, w: Tenths, d: Tenths) -> (Vec<Spot>, bool) {
        if w <= 0 || d <= 0 {
            return (Vec::new(), true);
        }
        // Pots by the hundred stand in rows.
        if w * d / (self.l * self.s).max(1) > MOST_SEARCHED {
            self.budget = 0;
        }
        let count = self.solve(w, d);
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
        [w, d].map(|side| *sums(&[0], &[self.l, self.s], side).last().unwrap_or(&0))
    }

    fn rows(&self, w: Tenths, d: Tenths, lengthwise: bool) -> [u32; 2] {
        let (x, y) = if lengthwise {
            (self.l, self.s)
        } else {
            (self.s, self.l)
        };
        [(w / x) as u32, (d / y) as u32]
    }

    fn solve(&mut self, w: Tenths, d: Tenths) -> u32 {
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
        if best.0 < bound && self.l != self.s {
            self.pinwheels(w, d, bound, &mut best);
        }
        self.known.insert([w, d], best);
        best.0
    }

    fn pinwheels(&mut self, w: Tenths, d: Tenths, bound: u32, best: &mut (u32, Division)) {
        let xs: Vec<Tenths> = sums(&[0], &[self.l, self.s], w).into_iter().collect();
        let ys: Vec<Tenths> = sums(&[0], &[self.l, self.s], d).into_iter().collect();
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
                        let area = self.l * self.s;
                        let hope: Tenths = blocks.iter().map(|b| b[2] * b[3] / area).sum();
                        if hope <= Tenths::from(best.0) {
                            continue;
                        }
                        let count = blocks.iter().map(|b| self.solve(b[2], b[3])).sum();
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

/// A size in whole numbers.
#[derive(Debug, Clone, Copy)]
struct Kind {
    l: Tenths,
    s: Tenths,
    most: u32,
}

impl Kind {
    fn new(l: Tenths, s: Tenths, most: Option<u32>) -> Self {
        Self {
            l,
            s,
            most: most.unwrap_or(u32::MAX),
        }
    }

    fn area(self) -> Tenths {
        self.l * self.s
    }
}

/// Tries all positions that trays pushed to the left and to the front can have. The deck is cut
/// into cells at those positions; the first cell that is neither taken nor given up is the corner
/// of some tray, or is given up.
struct Search<'a> {
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
    steps: u32,
}

/// Columns that the bits of a row can hold.
const MOST_COLUMNS: usize = 127;
/// Trays of one size up to which more than rows are tried.
const MOST_SEARCHED: Tenths = 150;
/// Steps after which the search for one size on a free deck stops with the best so far.
const MANY_STEPS: u32 = 50_000;
/// The same beside trays that stand there already: asked anew with every move of a hand.
const FEW_STEPS: u32 = 6000;

impl<'a> Search<'a> {
    fn new(w: Tenths, d: Tenths, obstacles: &[[Tenths; 4]], kinds: &'a [Kind]) -> Self {
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
    fn at_least(mut self, count: u32) -> Self {
        self.best_area = Tenths::from(count) * self.kinds[0].area();
        self
    }

    /// The best that was found, and whether all was tried.
    fn run(mut self) -> (Vec<Spot>, bool) {
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
