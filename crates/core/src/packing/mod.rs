//! How many rectangles go into a rectangle: exact packing, square to the edges.
//!
//! Trays of one size are laid by recursion over five blocks (after Morabito and Morales, "A simple
//! and effective recursive procedure for the manufacturer's pallet loading problem", J. Oper. Res.
//! Soc. 49, 1998; from memory), and the count is proven by bounds from dual feasible functions
//! (Fekete and Schepers, 2004; from memory). Where bound and count differ, and for mixed sizes
//! or decks that are partly taken, a search over all left- and front-most positions decides.

mod blocks;
mod search;

use std::collections::BTreeSet;

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::fault::{Fault, Faults, Pointer};
use crate::light::bay::Footprint;
use crate::room::Axis;
use crate::units::Quantity;
use blocks::Blocks;
use search::{FEW_STEPS, Search};

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
