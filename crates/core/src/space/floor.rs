//! The floor of the room: outlines, and where one stands to work.

use crate::room::{Faces, Place, Room};
use serde::Serialize;
use utoipa::ToSchema;

/// Free floor that one needs to stand and work in front of a place, in mm (common practice, no
/// source).
pub const STANDING_ROOM_MM: f64 = 600.0;

/// How far over a deck one reaches from one side, in mm (common practice, no source).
pub const REACH_MM: f64 = 650.0;

/// The highest deck that one waters without a step, in mm (common practice, no source).
pub const HIGHEST_REACH_MM: f64 = 1600.0;

/// A rectangle on the floor of the room, seen from above.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct FloorArea {
    /// Left and right edge.
    pub x_mm: [f64; 2],
    /// Near and far edge.
    pub y_mm: [f64; 2],
}

impl FloorArea {
    /// Its middle, from the left and from the near wall.
    pub fn middle_mm(&self) -> [f64; 2] {
        [self.x_mm, self.y_mm].map(|[from, to]| (from + to) / 2.0)
    }

    /// Whether the straight way from one spot to another leads over it.
    pub fn is_crossed_by(&self, from_mm: [f64; 2], to_mm: [f64; 2]) -> bool {
        // The part of the way, 0 to 1, that lies within it on both axes.
        let (mut enters, mut leaves) = (0.0_f64, 1.0_f64);
        for (axis, [low, high]) in [self.x_mm, self.y_mm].into_iter().enumerate() {
            let along = to_mm[axis] - from_mm[axis];
            if along.abs() < 1e-9 {
                if !(low..high).contains(&from_mm[axis]) {
                    return false;
                }
                continue;
            }
            let [a, b] = [low, high].map(|edge| (edge - from_mm[axis]) / along);
            (enters, leaves) = (enters.max(a.min(b)), leaves.min(a.max(b)));
        }
        enters < leaves
    }

    /// How wide the overlap of two is where it is narrower; 0 without one.
    pub fn overlap_mm(&self, other: &Self) -> f64 {
        let over = |a: [f64; 2], b: [f64; 2]| a[1].min(b[1]) - a[0].max(b[0]);
        over(self.x_mm, other.x_mm)
            .min(over(self.y_mm, other.y_mm))
            .max(0.0)
    }
}

/// The outline of `place` on the floor; `None` when it has no spot there.
pub fn outline(place: &Place) -> Option<FloorArea> {
    let spot = place.spot_here()?;
    let [w, d, _] = place.outer_mm();
    let [x, y] = spot.faces.front_along().lay(w, d);
    Some(FloorArea {
        x_mm: [spot.x_mm, spot.x_mm + x],
        y_mm: [spot.y_mm, spot.y_mm + y],
    })
}

/// The floor in front of `place` that one stands on; `None` when it has no spot.
pub fn standing_area(place: &Place) -> Option<FloorArea> {
    let FloorArea { x_mm, y_mm } = outline(place)?;
    let deep = STANDING_ROOM_MM;
    Some(match place.spot_here()?.faces {
        Faces::Near => FloorArea {
            x_mm,
            y_mm: [y_mm[0] - deep, y_mm[0]],
        },
        Faces::Far => FloorArea {
            x_mm,
            y_mm: [y_mm[1], y_mm[1] + deep],
        },
        Faces::Left => FloorArea {
            x_mm: [x_mm[0] - deep, x_mm[0]],
            y_mm,
        },
        Faces::Right => FloorArea {
            x_mm: [x_mm[1], x_mm[1] + deep],
            y_mm,
        },
    })
}

/// How deep the free floor in front of `place` is: up to the wall or the next place.
pub fn free_in_front_mm(place: &Place, room: &Room, others: &[Place]) -> Option<f64> {
    free_mm(place, place.spot_here()?.faces, room, others)
}

/// The same behind it: one walks round an island.
pub fn free_behind_mm(place: &Place, room: &Room, others: &[Place]) -> Option<f64> {
    let behind = match place.spot_here()?.faces {
        Faces::Near => Faces::Far,
        Faces::Far => Faces::Near,
        Faces::Left => Faces::Right,
        Faces::Right => Faces::Left,
    };
    free_mm(place, behind, room, others)
}

fn free_mm(place: &Place, faces: Faces, room: &Room, others: &[Place]) -> Option<f64> {
    let area = outline(place)?;
    let (i, away) = match faces {
        Faces::Near => (1, false),
        Faces::Far => (1, true),
        Faces::Left => (0, false),
        Faces::Right => (0, true),
    };
    let side = |a: &FloorArea| if i == 1 { a.y_mm } else { a.x_mm };
    let across = |a: &FloorArea| if i == 1 { a.x_mm } else { a.y_mm };
    let wall = if i == 1 { room.depth_mm } else { room.width_mm };
    let own = side(&area);
    let mut free = if away { wall - own[1] } else { own[0] };
    for other in others.iter().filter(|other| other.id != place.id) {
        let Some(there) = outline(other) else {
            continue;
        };
        let (mine, its) = (across(&area), across(&there));
        if mine[0].max(its[0]) + 1.0 >= mine[1].min(its[1]) {
            continue;
        }
        let edges = side(&there);
        let gap = if away {
            edges[0] - own[1]
        } else {
            own[0] - edges[1]
        };
        if gap >= -1.0 {
            free = free.min(gap.max(0.0));
        }
    }
    Some(free.max(0.0))
}
