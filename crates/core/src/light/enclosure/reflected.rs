//! Reading the light that comes back.

use std::f64::consts::TAU;

use fearless_simd::{Level, Simd, dispatch, f32x8, prelude::*};

use crate::light::angle::angles;
use crate::light::enclosure::corners::{CornerWeights, Eight, LANES};
use crate::light::enclosure::wall::Wall;
use crate::light::facing::Facing;

/// The light that the faces of an enclosure send back, over each of `N` floors.
#[derive(Debug, Clone)]
pub struct Reflected<'a, const N: usize> {
    pub(super) walls: &'a [Wall],
    /// Area of each patch in mm².
    pub(super) area: &'a [f64],
    /// What each patch sends out over each floor, in flux units per m².
    pub(super) radiosity: [Vec<f64>; N],
    /// What is seen of each face.
    pub(super) faces: Vec<Seen<N>>,
    /// Whether it is its own image in a mirror across x, and across y.
    pub(crate) image: [bool; 2],
}

/// What is seen of a face.
#[derive(Debug, Clone)]
pub(super) struct Seen<const N: usize> {
    /// Its lines along its two axes, filled up with the last to whole vectors.
    lines: [Vec<Eight>; 2],
    /// What it sends out, as weights of their crossings.
    weights: CornerWeights<N>,
}

impl<const N: usize> Reflected<'_, N> {
    /// What reaches a level surface that faces up at `point` (mm) over each floor, in flux units per m². What
    /// the point sees of the faces is worked out once for all of them.
    pub fn irradiance_up(&self, point: [f64; 3]) -> [f64; N] {
        dispatch!(Level::new(), simd => self.up(simd, point))
    }

    /// In vectors of single precision: the same bits on every processor, the more at once the newer it is.
    #[inline(always)]
    fn up<S: Simd>(&self, simd: S, point: [f64; 3]) -> [f64; N] {
        let mut sums = [0.0; N];
        for (wall, seen) in self.walls.iter().zip(&self.faces) {
            let (normal, sign) = wall.looks.normal();
            let away = sign * (point[normal] - wall.plane_mm);
            if wall.looks == Facing::Up || away < 0.0 {
                continue;
            }
            // On the wall itself the limit just off it is meant.
            let away = away.max(1e-3) as f32;
            let from = wall.axes.map(|axis| point[axis] as f32);
            let own = if normal == 2 {
                seen.reaching_under(simd, from, away)
            } else {
                seen.reaching_beside(simd, from, away)
            };
            for (sum, own) in sums.iter_mut().zip(own) {
                *sum += f64::from(own);
            }
        }
        sums.map(|sum| sum / TAU)
    }

    /// The mean of what falls on a face that reflects, over each floor, in flux units per m²; 0 for others.
    pub fn mean_on(&self, looks: Facing) -> [f64; N] {
        let wall = self.walls.iter().position(|w| w.looks == looks);
        let Some(i) = wall else { return [0.0; N] };
        let next = self.walls.get(i + 1);
        let end = next.map_or(self.area.len(), |next| next.first);
        let patches = self.walls[i].first..end;
        let area = &self.area[patches.clone()];
        self.radiosity.each_ref().map(|radiosity| {
            let each = radiosity[patches.clone()].iter().zip(area);
            let sent: f64 = each.map(|(sent, area)| sent * area).sum();
            sent / area.iter().sum::<f64>() / self.walls[i].reflectance
        })
    }
}

impl<const N: usize> Seen<N> {
    /// A face with `lines` along its two axes, each of whose cells sends out over each floor as `sent` tells.
    pub(super) fn of(lines: [&[f64]; 2], sent: impl Fn(usize, usize) -> [f64; N]) -> Self {
        let [nu, nv] = lines.map(|lines| lines.len() - 1);
        Self {
            lines: lines.map(eights),
            weights: CornerWeights::of(nu, nv, sent),
        }
    }

    /// What an element `away` under the face gets of it: x/sx atan(y/sx) + y/sy atan(x/sy) at each corner.
    #[inline(always)]
    fn reaching_under<S: Simd>(&self, simd: S, from: [f32; 2], away: f32) -> [f32; N] {
        let [us, vs] = &self.lines;
        let mut sums = [f32x8::splat(simd, 0.0); N];
        let away2 = f32x8::splat(simd, away * away);
        for (j, v) in vs.iter().enumerate() {
            let y = f32x8::load_array_ref(simd, v) - f32x8::splat(simd, from[1]);
            let sy = (y * y + away2).sqrt();
            let of_y = y / sy;
            for (u, weights) in us.as_flattened().iter().zip(self.weights.at(j)) {
                let x = f32x8::splat(simd, u - from[0]);
                let sx = (x * x + away2).sqrt();
                let corner = x / sx * angles(simd, y, sx) + of_y * angles(simd, x, sy);
                add(simd, &mut sums, weights, corner);
            }
        }
        sums.map(total)
    }

    /// What an element `away` beside the face, which stands upright, gets of it: -a/s atan(y/s) at each corner,
    /// s from a and the height. What lies below the element's level is not seen: as if all of it were there.
    #[inline(always)]
    fn reaching_beside<S: Simd>(&self, simd: S, from: [f32; 2], away: f32) -> [f32; N] {
        let [us, vs] = &self.lines;
        let none = f32x8::splat(simd, 0.0);
        let mut sums = [none; N];
        let (a, away2) = (f32x8::splat(simd, -away), f32x8::splat(simd, away * away));
        // Whole vectors of lines that all lie below are summed up beforehand.
        let below = vs.partition_point(|v| v[LANES - 1] <= from[1]);
        let first = below.min(vs.len() - 1);
        if first > 0 {
            for (u, before) in us.iter().zip(self.weights.before(first)) {
                let y = f32x8::load_array_ref(simd, u) - f32x8::splat(simd, from[0]);
                let corner = none - angles(simd, y, none - a);
                add(simd, &mut sums, before, corner);
            }
        }
        for (j, v) in vs.iter().enumerate().skip(first) {
            let up = f32x8::load_array_ref(simd, v) - f32x8::splat(simd, from[1]);
            let up = up.max(none);
            let s = (up * up + away2).sqrt();
            let share = a / s;
            for (u, weights) in us.as_flattened().iter().zip(self.weights.at(j)) {
                let y = f32x8::splat(simd, u - from[0]);
                add(simd, &mut sums, weights, share * angles(simd, y, s));
            }
        }
        sums.map(total)
    }
}

/// Adds `weights` times `corner` to the `sums` of each floor.
#[inline(always)]
fn add<S: Simd, const N: usize>(
    simd: S,
    sums: &mut [f32x8<S>; N],
    weights: &[Eight; N],
    corner: f32x8<S>,
) {
    for (sum, weight) in sums.iter_mut().zip(weights) {
        *sum += f32x8::load_array_ref(simd, weight) * corner;
    }
}

#[inline(always)]
fn total<S: Simd>(sum: f32x8<S>) -> f32 {
    sum.to_array().iter().sum()
}

/// `lines` in whole vectors, the last of which repeats the last line.
fn eights(lines: &[f64]) -> Vec<Eight> {
    let each = lines.chunks(LANES).map(|lines| {
        let last = lines[lines.len() - 1];
        std::array::from_fn(|i| *lines.get(i).unwrap_or(&last) as f32)
    });
    each.collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_face_gives_what_its_cells_give_one_by_one() {
        let under = |[x, y]: [f64; 2], a: f64| {
            let [sx, sy] = [x, y].map(|d| d.hypot(a));
            x / sx * (y / sx).atan() + y / sy * (x / sy).atan()
        };
        let beside = |[x, up]: [f64; 2], a: f64| {
            let s = up.max(0.0).hypot(a);
            -a / s * (x / s).atan()
        };
        // Fewer lines than a vector holds, as many as two hold, and some more.
        for cells in [[5, 4], [11, 15], [9, 20]] {
            let line = |i: usize| (3 * i * i + 20 * i) as f64;
            let lines = cells.map(|n: usize| (0..=n).map(line).collect::<Vec<f64>>());
            let sent = |u: usize, v: usize| [10.0 + ((7 * u + 3 * v) % 11) as f64, 1.0];
            let seen = Seen::of([&lines[0], &lines[1]], sent);
            let cell = |[u, v]: [usize; 2], from: [f64; 2], corner: &dyn Fn([f64; 2]) -> f64| {
                let at = |i, j| corner([lines[0][u + i] - from[0], lines[1][v + j] - from[1]]);
                at(1, 1) - at(0, 1) - at(1, 0) + at(0, 0)
            };
            // Below its lowest line, among them, and over the highest.
            for from in [[35.0, -40.0], [120.0, 130.0], [-9.0, 333.0], [60.0, 1e4]] {
                for away in [0.5, 80.0, 400.0] {
                    let near = from.map(|at| at as f32);
                    let read: [[f32; 2]; 2] = dispatch!(Level::new(), simd => [
                        seen.reaching_under(simd, near, away as f32),
                        seen.reaching_beside(simd, near, away as f32),
                    ]);
                    let corners: [&dyn Fn([f64; 2], f64) -> f64; 2] = [&under, &beside];
                    for (read, corner) in read.iter().zip(corners) {
                        let mut exact = [0.0; 2];
                        for u in 0..cells[0] {
                            for v in 0..cells[1] {
                                let share = cell([u, v], from, &|at| corner(at, away));
                                for (sum, sent) in exact.iter_mut().zip(sent(u, v)) {
                                    *sum += sent * share;
                                }
                            }
                        }
                        for (read, exact) in read.iter().zip(exact) {
                            let off = (f64::from(*read) - exact).abs();
                            assert!(off < 2e-4, "{cells:?} {from:?} {away}: {read}, {exact}");
                        }
                    }
                }
            }
        }
    }
}
