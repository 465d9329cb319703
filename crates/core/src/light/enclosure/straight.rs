//! What falls straight on the faces of a box from what shines in it.

use crate::basis::work::go_on;
use crate::light::emitter::Emitter;
use crate::light::enclosure::cells::{Cuts, received};
use crate::light::enclosure::image::its_own_image;
use crate::light::enclosure::wall::{Faces, Wall};
use crate::light::facing::Facing;

/// What falls straight on the faces of a box.
pub(super) struct Straight {
    /// On each patch, in flux units times mm² / m².
    pub(super) source: Vec<f64>,
    /// The cells of each wall, and what falls on each, in flux units per m².
    pub(super) cells: Vec<([Cuts; 2], Vec<f64>)>,
    /// Whether the box with what shines in it is its own image in a mirror across x, and across y.
    pub(super) image: [bool; 2],
}

impl Straight {
    /// Of `emitters` on `walls`, which the grid `lines` along x, y and z cut into patches, on the cells that
    /// those are cut into; some faces may `glow` besides.
    pub(super) fn of(
        lines: &[Vec<f64>; 3],
        walls: &[Wall],
        emitters: &[Emitter],
        glow: Faces<f64>,
    ) -> Self {
        let size_mm = [0, 1].map(|axis: usize| lines[axis].last().copied().unwrap_or(0.0));
        let image = its_own_image(size_mm, walls, emitters, glow);
        let cells = walls.iter().map(|wall| {
            let upright = wall.normal() != 2;
            let cuts = |axis: usize| Cuts::new(&lines[axis], axis, upright, emitters);
            let cuts = wall.axes.map(cuts);
            let direct = on_cells(wall, &cuts, emitters, image);
            (cuts, direct)
        });
        let cells: Vec<_> = cells.collect();
        let mut source = Vec::new();
        for (wall, (cuts, direct)) in walls.iter().zip(&cells) {
            source.resize(wall.first + cuts[0].patches * cuts[1].patches, 0.0);
            let [us, vs] = cuts;
            let each = (0..us.patch.len()).flat_map(|u| (0..vs.patch.len()).map(move |v| (u, v)));
            for ((u, v), light) in each.zip(direct) {
                source[wall.first + us.patch[u] * vs.patches + vs.patch[v]] +=
                    light * us.length_mm(u) * vs.length_mm(v);
            }
        }
        Self {
            source,
            cells,
            image,
        }
    }
}

/// What falls on each cell of `wall`, in flux units per m²; where the box is its own `image`, one half tells
/// the other.
fn on_cells(wall: &Wall, cuts: &[Cuts; 2], emitters: &[Emitter], image: [bool; 2]) -> Vec<f64> {
    let [us, vs] = cuts;
    let (nu, nv) = (us.patch.len(), vs.patch.len());
    let mirrored = wall.axes.map(|axis| axis < 2 && image[axis]);
    let mut direct = Vec::with_capacity(nu * nv);
    go_on();
    for u in 0..nu {
        for v in 0..nv {
            let (far_u, far_v) = (nu - 1 - u, nv - 1 - v);
            let known = match mirrored {
                [true, _] if far_u < u => Some(direct[far_u * nv + v]),
                [_, true] if far_v < v => Some(direct[u * nv + far_v]),
                _ => None,
            };
            let light = known.unwrap_or_else(|| {
                let sides = [
                    [us.lines[u], us.lines[u + 1]],
                    [vs.lines[v], vs.lines[v + 1]],
                ];
                let shines = |e: &&Emitter| wall.looks != Facing::Down || e.shines_up();
                let shining = emitters.iter().filter(shines);
                let flux: f64 = shining.map(|e| received(e, wall, sides, 0)).sum();
                flux / (us.length_mm(u) * vs.length_mm(v))
            });
            direct.push(light);
        }
    }
    direct
}
