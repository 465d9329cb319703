//! Laying trays on a deck.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::plane::{Axis, Footprint};
use crate::space::packing::blocks::Blocks;
use crate::space::packing::search::{FEW_STEPS, Search};
use crate::space::packing::tenths::{Kind, Spot, Tenths, deck_tenths, mm, tenths};

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
