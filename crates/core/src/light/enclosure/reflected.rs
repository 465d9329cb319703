//! Reading the light that comes back.

use std::f64::consts::TAU;

use crate::light::angle::angle;
use crate::light::enclosure::cells::{CornerWeights, LANES};
use crate::light::enclosure::wall::Wall;
use crate::light::facing::Facing;

/// The light that the faces of an enclosure send back.
#[derive(Debug, Clone)]
pub struct Reflected<'a> {
    pub(super) walls: &'a [Wall],
    /// Area of each patch in mm².
    pub(super) area: &'a [f64],
    /// What each patch sends out, in flux units per m².
    pub(super) radiosity: Vec<f64>,
    /// What is seen of each face.
    pub(super) faces: Vec<Seen>,
    /// Whether it is its own image in a mirror across x, and across y.
    pub(crate) image: [bool; 2],
}

/// What is seen of a face.
#[derive(Debug, Clone)]
pub(super) struct Seen {
    /// Its lines along its two axes.
    pub(super) lines: [Vec<f64>; 2],
    /// What it sends out, as weights of their crossings.
    pub(super) weights: CornerWeights,
}

impl Reflected<'_> {
    /// What reaches a level surface that faces up at `point` (mm), in flux units per m².
    pub fn irradiance_up(&self, point: [f64; 3]) -> f64 {
        let mut sum = [0.0];
        Self::irradiance_up_each(std::slice::from_ref(self), point, &mut sum);
        sum[0]
    }

    /// The same for several that differ in what they send back alone: one `sum` each. What the point sees of
    /// the faces is worked out once.
    pub fn irradiance_up_each(all: &[Self], point: [f64; 3], sums: &mut [f64]) {
        sums.fill(0.0);
        let Some(first) = all.first() else { return };
        let mut row = Vec::new();
        for (face, (wall, Seen { lines: [u, v], .. })) in
            first.walls.iter().zip(&first.faces).enumerate()
        {
            let (normal, sign) = wall.looks.normal();
            let away = sign * (point[normal] - wall.plane_mm);
            if wall.looks == Facing::Up || away < 0.0 {
                continue;
            }
            // On the wall itself the limit just off it is meant.
            let away = away.max(1e-3);
            let from = [point[wall.axes[0]], point[wall.axes[1]]];
            let distance = |d: f64| (d * d + away * away).sqrt();
            // Rows are filled first and summed up after, in single precision: that goes through vector
            // instructions, four corners at once.
            let add = |u: usize, before: (usize, f32), row: &[f32], sums: &mut [f64]| {
                for (own, sum) in all.iter().zip(sums) {
                    *sum += f64::from(own.faces[face].weights.sum(u, before, row));
                }
            };
            let long = CornerWeights::row(v.len());
            if normal == 2 {
                // An element under a level face: x/sx atan(y/sx) + y/sy atan(x/sy) at a corner.
                let along = |v: &f64| {
                    let (y, sy) = (v - from[1], distance(v - from[1]));
                    [y as f32, sy as f32, (y / sy) as f32]
                };
                let filled = std::iter::repeat([1.0; 3]);
                let dv: Vec<[f32; 3]> = v.iter().map(along).chain(filled).take(long).collect();
                row.resize(long, 0.0);
                for (i, u) in u.iter().enumerate() {
                    let x = u - from[0];
                    let sx = distance(x);
                    let [x, sx, of_x] = [x, sx, x / sx].map(|own| own as f32);
                    for (at, &[y, sy, of_y]) in row.iter_mut().zip(&dv) {
                        *at = of_x * angle(y, sx) + of_y * angle(x, sy);
                    }
                    add(i, (0, 0.0), &row, sums);
                }
            } else {
                // Beside an upright face at distance a: -a/s atan(y/s), s from a and the height;
                // what lies below the point's level is not seen: as if all of it were there.
                let up = |v: &f64| {
                    let s = distance((v - from[1]).max(0.0));
                    [s as f32, (-away / s) as f32]
                };
                let below = v.partition_point(|v| *v <= from[1]);
                let unseen = below / LANES * LANES;
                let filled = std::iter::repeat([1.0; 2]);
                let dv = v[unseen..].iter().map(up).chain(filled);
                let dv: Vec<[f32; 2]> = dv.take(long - unseen).collect();
                row.resize(long - unseen, 0.0);
                for (i, u) in u.iter().enumerate() {
                    let y = (u - from[0]) as f32;
                    for (at, &[s, share]) in row.iter_mut().zip(&dv) {
                        *at = share * angle(y, s);
                    }
                    add(i, (unseen, -angle(y, away as f32)), &row, sums);
                }
            }
        }
        sums.iter_mut().for_each(|sum| *sum /= TAU);
    }

    /// The mean of what falls on a face that reflects, in flux units per m²; 0 for others.
    pub fn mean_on(&self, looks: Facing) -> f64 {
        let wall = self.walls.iter().position(|w| w.looks == looks);
        let Some(i) = wall else { return 0.0 };
        let end = self
            .walls
            .get(i + 1)
            .map_or(self.area.len(), |next| next.first);
        let (mut sent, mut area) = (0.0, 0.0);
        for patch in self.walls[i].first..end {
            sent += self.radiosity[patch] * self.area[patch];
            area += self.area[patch];
        }
        sent / area / self.walls[i].reflectance
    }
}
