//! Light that comes back from what surrounds a bay: diffuse radiosity in a box.
//!
//! Each of the six faces is cut into patches, finer towards its edges. Every patch sends out
//! what it reflects of the lamps' light and of all others' light, evenly to all sides; the
//! balance of all patches is solved at once. Faces that reflect nothing are not there at all.
//! Trays, plants and lamps neither block nor reflect. Model: classical radiosity (Goral et al.,
//! Modeling the Interaction of Light Between Diffuse Surfaces, 1984, from memory) with exact
//! view factors between patches ([`super::view`]).

use std::f64::consts::{PI, TAU};

use super::angle::angle;
use super::emitter::{Emitter, Facing, Optics};
use super::quadrature::{nearest, two};
use super::view::{parallel_corner, perpendicular_corner};

/// One value for each face of a box.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct Faces<T> {
    /// The deck.
    pub floor: T,
    /// The underside of the deck above.
    pub ceiling: T,
    /// The left side.
    pub left: T,
    /// The right side.
    pub right: T,
    /// The front.
    pub front: T,
    /// The back.
    pub back: T,
}

impl<T: Copy> Faces<T> {
    fn in_order(&self) -> [T; 6] {
        [
            self.floor,
            self.ceiling,
            self.left,
            self.right,
            self.front,
            self.back,
        ]
    }
}

/// The way each face looks, in the order of [`Faces::in_order`].
const LOOKS: [Facing; 6] = [
    Facing::Up,
    Facing::Down,
    Facing::Right,
    Facing::Left,
    Facing::Back,
    Facing::Front,
];

/// A face that reflects or glows, and where its patches stand in the lists of all patches.
#[derive(Debug, Clone)]
struct Wall {
    looks: Facing,
    /// The axes that it spans, the lower first.
    axes: [usize; 2],
    /// Where it lies along its normal.
    plane_mm: f64,
    reflectance: f64,
    first: usize,
}

impl Wall {
    fn normal(&self) -> usize {
        self.looks.normal().0
    }

    /// Whether it lies at the far end of its normal's axis.
    fn far(&self) -> bool {
        self.looks.normal().1 < 0.0
    }
}

/// A box with its patches and what each sees of the others.
#[derive(Debug, Clone)]
pub struct Enclosure {
    /// The grid lines along x, y and z.
    lines: [Vec<f64>; 3],
    walls: Vec<Wall>,
    /// Area of each patch in mm².
    area: Vec<f64>,
    /// Reflectance of each patch.
    reflectance: Vec<f64>,
    /// Area times view factor of each pair of patches, row by row.
    exchange: Vec<f64>,
}

/// How finely the faces of a box are cut.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Fineness {
    /// For a bay while someone drags its lamps: within 2 % at every point.
    Quick,
    /// For one scene: within 1 %.
    Careful,
}

impl Fineness {
    /// About as many patches as there are when all faces reflect.
    fn patches(self) -> f64 {
        match self {
            Self::Quick => 200.0,
            Self::Careful => 2000.0,
        }
    }
}

/// A face that glows or is all but black still needs some reflectance to stand in the balance.
const LEAST_REFLECTANCE: f64 = 1e-4;

impl Enclosure {
    /// A box from 0 to `size_mm` along x, y and z whose faces reflect these shares of the light
    /// that they get, each from 0 (open) to 1; not all of them 1, or the light never ends.
    ///
    /// `glowing` names the faces that will send out light of their own as well.
    pub fn new(
        size_mm: [f64; 3],
        reflectance: Faces<f64>,
        glowing: Faces<bool>,
        fineness: Fineness,
    ) -> Self {
        let [w, d, h] = size_mm;
        let patch_mm = (2.0 * (w * d + w * h + d * h) / fineness.patches()).sqrt();
        let lines = size_mm.map(|side| grid_lines(side, patch_mm));
        let mut walls = Vec::new();
        let mut area = Vec::new();
        let mut each = Vec::new();
        let faces = reflectance.in_order().into_iter().zip(glowing.in_order());
        for ((share, glows), looks) in faces.zip(LOOKS) {
            if share <= 0.0 && !glows {
                continue;
            }
            let (normal, sign) = looks.normal();
            let axes = match normal {
                0 => [1, 2],
                1 => [0, 2],
                _ => [0, 1],
            };
            let wall = Wall {
                looks,
                axes,
                plane_mm: if sign > 0.0 { 0.0 } else { size_mm[normal] },
                reflectance: share.max(LEAST_REFLECTANCE),
                first: area.len(),
            };
            for u in lines[axes[0]].windows(2) {
                for v in lines[axes[1]].windows(2) {
                    area.push((u[1] - u[0]) * (v[1] - v[0]));
                    each.push(wall.reflectance);
                }
            }
            walls.push(wall);
        }
        let mut enclosure = Self {
            exchange: vec![0.0; area.len() * area.len()],
            lines,
            walls,
            area,
            reflectance: each,
        };
        enclosure.fill_exchange();
        enclosure
    }

    /// Whether anything at the sides sends light back.
    fn has_sides(&self) -> bool {
        self.walls.iter().any(|wall| wall.normal() != 2)
    }

    /// How many nodes along x and y follow the light that comes back: it is smooth where only
    /// the deck above returns any.
    pub(super) fn nodes_across(&self) -> [usize; 2] {
        if self.has_sides() { [9, 7] } else { [6, 5] }
    }

    /// How many heights of the lamps do.
    pub(super) fn height_nodes(&self) -> usize {
        if self.has_sides() { 4 } else { 3 }
    }

    fn fill_exchange(&mut self) {
        let n = self.area.len();
        let mut blocks: Vec<(usize, usize, Vec<f64>)> = Vec::new();
        for a in 0..self.walls.len() {
            for b in a + 1..self.walls.len() {
                let (p, q) = (&self.walls[a], &self.walls[b]);
                let axes = (p.normal(), q.normal());
                if !blocks.iter().any(|(i, j, _)| (*i, *j) == axes) {
                    let block = if axes.0 == axes.1 {
                        self.opposite(axes.0)
                    } else {
                        self.adjoining(axes.0, axes.1)
                    };
                    blocks.push((axes.0, axes.1, block));
                }
            }
        }
        for a in 0..self.walls.len() {
            for b in a + 1..self.walls.len() {
                let (p, q) = (&self.walls[a], &self.walls[b]);
                let axes = (p.normal(), q.normal());
                let (_, _, block) = blocks
                    .iter()
                    .find(|(i, j, _)| (*i, *j) == axes)
                    .expect("every pair of axes has its block");
                // A block holds the pair of near faces; the grid is its own mirror image, so a
                // far face reads it from the other end.
                let from = self.patches(p, q.far().then(|| q.normal()));
                let to = self.patches(q, p.far().then(|| p.normal()));
                let wide = to.len();
                let (p_first, q_first) = (p.first, q.first);
                for (i, &row) in from.iter().enumerate() {
                    for (j, &column) in to.iter().enumerate() {
                        let value = block[row * wide + column];
                        self.exchange[(p_first + i) * n + q_first + j] = value;
                        self.exchange[(q_first + j) * n + p_first + i] = value;
                    }
                }
            }
        }
    }

    /// The patches of a wall in order, each by its place in a block; mirrored along one axis.
    fn patches(&self, wall: &Wall, mirrored: Option<usize>) -> Vec<usize> {
        let cells = |axis: usize| self.lines[axis].len() - 1;
        let [nu, nv] = wall.axes.map(cells);
        let at = |i: usize, n: usize, axis: usize| {
            if mirrored == Some(axis) { n - 1 - i } else { i }
        };
        (0..nu)
            .flat_map(|u| (0..nv).map(move |v| (u, v)))
            .map(|(u, v)| at(u, nu, wall.axes[0]) * nv + at(v, nv, wall.axes[1]))
            .collect()
    }

    /// Exchange of the two faces across `normal`.
    fn opposite(&self, normal: usize) -> Vec<f64> {
        let axes = match normal {
            0 => [1, 2],
            1 => [0, 2],
            _ => [0, 1],
        };
        let [u, v] = axes.map(|axis| &self.lines[axis]);
        let far = *self.lines[normal].last().expect("a grid has lines");
        let along_v =
            |du: f64| -> Vec<f64> { second_differences(v, |dv| parallel_corner(du, dv, far)) };
        let (nu, nv) = (u.len() - 1, v.len() - 1);
        // One table for each pair of lines along u; it depends on their distance alone.
        let tables: Vec<Vec<Vec<f64>>> = u
            .iter()
            .enumerate()
            .map(|(i, a)| u[..=i].iter().map(|b| along_v(a - b)).collect())
            .collect();
        let table = |i: usize, j: usize| &tables[i.max(j)][i.min(j)];
        let mut block = vec![0.0; nu * nv * nu * nv];
        for i in 0..nu {
            for k in 0..nu {
                let [a, b, c, d] = [
                    table(i + 1, k + 1),
                    table(i, k + 1),
                    table(i + 1, k),
                    table(i, k),
                ];
                for j in 0..nv {
                    for l in 0..nv {
                        let at = j * nv + l;
                        let value = a[at] - b[at] - c[at] + d[at];
                        block[(i * nv + j) * (nu * nv) + k * nv + l] = value.abs();
                    }
                }
            }
        }
        block
    }

    /// Exchange of the near faces across `p` and across `q`, which meet at a right angle.
    fn adjoining(&self, p: usize, q: usize) -> Vec<f64> {
        let shared = 3 - p - q;
        let along = &self.lines[shared];
        // The first face runs away from the edge along q, the second along p.
        let (out, up) = (&self.lines[q], &self.lines[p]);
        let tables: Vec<Vec<Vec<f64>>> = out
            .iter()
            .map(|&x| {
                up.iter()
                    .map(|&z| second_differences(along, |dy| perpendicular_corner(x, z, dy)))
                    .collect()
            })
            .collect();
        let [n_along, n_out, n_up] = [along.len() - 1, out.len() - 1, up.len() - 1];
        let index = |one: usize, one_axis: usize, own: usize, n_own: usize| {
            // Patches run along the lower axis first.
            if shared < one_axis {
                own * n_one(one_axis, q, n_out, n_up) + one
            } else {
                one * n_own + own
            }
        };
        fn n_one(axis: usize, q: usize, n_out: usize, n_up: usize) -> usize {
            if axis == q { n_out } else { n_up }
        }
        let wide = n_along * n_up;
        let mut block = vec![0.0; n_along * n_out * wide];
        for i in 0..n_out {
            for k in 0..n_up {
                let [a, b, c, d] = [
                    &tables[i + 1][k + 1],
                    &tables[i][k + 1],
                    &tables[i + 1][k],
                    &tables[i][k],
                ];
                for j in 0..n_along {
                    let row = index(i, q, j, n_along);
                    for l in 0..n_along {
                        let at = j * n_along + l;
                        let value = a[at] - b[at] - c[at] + d[at];
                        block[row * wide + index(k, p, l, n_along)] = value.abs();
                    }
                }
            }
        }
        block
    }

    /// What the faces send back of the light of `emitters` (their coordinates in this box), and
    /// of faces that send out `glow` of their own, in flux units per m².
    pub fn lit(&self, emitters: &[Emitter], glow: Faces<f64>) -> Reflected<'_> {
        let mut source = vec![0.0; self.area.len()];
        let glow = glow.in_order();
        let own = |wall: &Wall| glow[LOOKS.iter().position(|l| *l == wall.looks).unwrap_or(0)];
        // Straight light, on the cells that each wall's patches are cut into.
        let straight: Vec<([Cuts; 2], Vec<f64>)> = self
            .walls
            .iter()
            .map(|wall| {
                let upright = wall.normal() != 2;
                let cuts = wall
                    .axes
                    .map(|axis| Cuts::new(&self.lines[axis], axis, upright, emitters));
                let [us, vs] = &cuts;
                let mut direct = Vec::with_capacity(us.patch.len() * vs.patch.len());
                for (u, column) in us.lines.windows(2).zip(&us.patch) {
                    for (v, row) in vs.lines.windows(2).zip(&vs.patch) {
                        let sides = [[u[0], u[1]], [v[0], v[1]]];
                        let flux: f64 = emitters
                            .iter()
                            .filter(|emitter| wall.looks != Facing::Down || emitter.shines_up())
                            .map(|emitter| received(emitter, wall, sides, 0))
                            .sum();
                        source[wall.first + column * vs.patches + row] += flux;
                        direct.push(flux / ((u[1] - u[0]) * (v[1] - v[0])));
                    }
                }
                (cuts, direct)
            })
            .collect();
        for wall in &self.walls {
            let own = own(wall) / wall.reflectance;
            let patches = wall.first..wall.first + self.patches(wall, None).len();
            for (source, area) in source[patches.clone()].iter_mut().zip(&self.area[patches]) {
                *source += own * area;
            }
        }
        let radiosity = self.balance(&source);
        let faces = self.walls.iter().zip(straight);
        let faces = faces
            .map(|(wall, (cuts, direct))| {
                // A cell sends on its own straight light, and all else as it runs from patch to
                // patch.
                let [us, vs] = &cuts;
                let returned = |u: usize, v: usize| {
                    let patch = wall.first + u * vs.patches + v;
                    radiosity[patch] / wall.reflectance - source[patch] / self.area[patch]
                };
                let sent = |u: usize, v: usize| {
                    let (u0, u1, tu) = us.between[u];
                    let (v0, v1, tv) = vs.between[v];
                    let all_else = (1.0 - tu)
                        * ((1.0 - tv) * returned(u0, v0) + tv * returned(u0, v1))
                        + tu * ((1.0 - tv) * returned(u1, v0) + tv * returned(u1, v1));
                    wall.reflectance * (direct[u * vs.patch.len() + v] + all_else) + own(wall)
                };
                let weights = corner_weights(us.patch.len(), vs.patch.len(), sent);
                (cuts.map(|cuts| cuts.lines), weights)
            })
            .collect();
        Reflected {
            enclosure: self,
            radiosity,
            faces,
        }
    }

    /// Solves (A/ρ) b - A F b = `source` by conjugate gradients: the matrix is symmetric by
    /// reciprocity and positive as long as some face absorbs or is open.
    fn balance(&self, source: &[f64]) -> Vec<f64> {
        let n = self.area.len();
        let own: Vec<f64> = self
            .area
            .iter()
            .zip(&self.reflectance)
            .map(|(area, share)| area / share)
            .collect();
        let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        let scaled = |r: &[f64]| -> Vec<f64> { r.iter().zip(&own).map(|(r, o)| r / o).collect() };
        let mut b = scaled(source);
        let apply = |x: &[f64]| -> Vec<f64> {
            (0..n)
                .map(|i| own[i] * x[i] - product(&self.exchange[i * n..(i + 1) * n], x))
                .collect()
        };
        let mut r: Vec<f64> = source.iter().zip(apply(&b)).map(|(s, a)| s - a).collect();
        let mut z = scaled(&r);
        let mut p = z.clone();
        let mut rz = dot(&r, &z);
        let enough = 1e-7 * dot(source, &scaled(source));
        for _ in 0..200 {
            if rz <= enough {
                break;
            }
            let ap = apply(&p);
            let step = rz / dot(&p, &ap);
            for i in 0..n {
                b[i] += step * p[i];
                r[i] -= step * ap[i];
            }
            z = scaled(&r);
            let next = dot(&r, &z);
            let turn = next / rz;
            rz = next;
            for i in 0..n {
                p[i] = z[i] + turn * p[i];
            }
        }
        b
    }
}

/// The patches of a wall cut into smaller cells along one axis.
struct Cuts {
    /// Where the cells end.
    lines: Vec<f64>,
    /// The patch that each cell belongs to.
    patch: Vec<usize>,
    /// The two patches whose middles each cell lies between, and how far towards the second.
    between: Vec<(usize, usize, f64)>,
    /// How many patches there are along the axis.
    patches: usize,
}

impl Cuts {
    /// Each patch of an upright wall is halved: what comes back from elsewhere changes too much
    /// over the whole of it. A wall is dark above a face that shines down and bright soon below
    /// it: no even patch follows that, so it is cut there too.
    fn new(lines: &[f64], axis: usize, upright: bool, emitters: &[Emitter]) -> Self {
        const BELOW_MM: [f64; 5] = [0.0, 8.0, 20.0, 45.0, 90.0];
        const APART_MM: f64 = 4.0;
        let mut cut = lines.to_vec();
        let mut add = |at: f64| {
            let inside = at > 0.0 && at < lines[lines.len() - 1];
            if inside && cut.iter().all(|line| (line - at).abs() >= APART_MM) {
                cut.push(at);
            }
        };
        if axis == 2 {
            let mut faces: Vec<f64> = emitters.iter().map(|e| e.z_mm).collect();
            faces.sort_by(f64::total_cmp);
            faces.dedup_by(|a, b| (*a - *b).abs() < APART_MM);
            for below in BELOW_MM {
                faces.iter().for_each(|z| add(z - below));
            }
        }
        if upright {
            for patch in lines.windows(2) {
                add((patch[0] + patch[1]) / 2.0);
            }
        }
        cut.sort_by(f64::total_cmp);
        let patches = lines.len() - 1;
        let middle = |piece: &[f64]| (piece[0] + piece[1]) / 2.0;
        let middles: Vec<f64> = lines.windows(2).map(middle).collect();
        let patch = |strip: &[f64]| lines.partition_point(|&line| line < middle(strip)) - 1;
        let between = |strip: &[f64]| {
            let at = middle(strip);
            let next = middles.partition_point(|&m| m < at).clamp(1, patches - 1);
            let share = (at - middles[next - 1]) / (middles[next] - middles[next - 1]);
            (next - 1, next, share.clamp(0.0, 1.0))
        };
        Self {
            patch: cut.windows(2).map(patch).collect(),
            between: cut.windows(2).map(between).collect(),
            lines: cut,
            patches,
        }
    }
}

/// What the cells of a grid send out as weights of the grid's crossings, so that a sum over
/// cells of differences of a corner function becomes one sum over crossings.
fn corner_weights(nu: usize, nv: usize, sent: impl Fn(usize, usize) -> f64) -> Vec<f64> {
    let mut weights = vec![0.0; (nu + 1) * (nv + 1)];
    for u in 0..nu {
        for v in 0..nv {
            let value = sent(u, v);
            weights[u * (nv + 1) + v] += value;
            weights[(u + 1) * (nv + 1) + v + 1] += value;
            weights[u * (nv + 1) + v + 1] -= value;
            weights[(u + 1) * (nv + 1) + v] -= value;
        }
    }
    weights
}

/// A dot product in four lanes, which the compiler turns into vector instructions.
fn product(a: &[f64], b: &[f64]) -> f64 {
    let mut lanes = [0.0; 4];
    let (a4, b4) = (a.chunks_exact(4), b.chunks_exact(4));
    let rest: f64 = a4
        .remainder()
        .iter()
        .zip(b4.remainder())
        .map(|(a, b)| a * b)
        .sum();
    for (a, b) in a4.zip(b4) {
        for (lane, (a, b)) in lanes.iter_mut().zip(a.iter().zip(b)) {
            *lane += a * b;
        }
    }
    lanes.iter().sum::<f64>() + rest
}

/// Differences of an even function over both ends of a pair of pieces of `lines`, row by row.
fn second_differences(lines: &[f64], corner: impl Fn(f64) -> f64) -> Vec<f64> {
    let n = lines.len();
    let mut values = vec![0.0; n * n];
    for i in 0..n {
        for j in 0..=i {
            let value = corner(lines[i] - lines[j]);
            values[i * n + j] = value;
            values[j * n + i] = value;
        }
    }
    (0..n - 1)
        .flat_map(|i| (0..n - 1).map(move |j| (i, j)))
        .map(|(i, j)| {
            values[(i + 1) * n + j + 1] - values[i * n + j + 1] - values[(i + 1) * n + j]
                + values[i * n + j]
        })
        .collect()
}

/// Lines from 0 to `side`, about `patch_mm` apart in the middle and closer towards both ends,
/// where the light changes fastest.
fn grid_lines(side: f64, patch_mm: f64) -> Vec<f64> {
    const GRADING: f64 = 0.8;
    let n = ((side / patch_mm).ceil() as usize).clamp(5, 48) + 1;
    (0..=n)
        .map(|i| {
            let even = i as f64 / n as f64;
            let graded = (1.0 - (PI * even).cos()) / 2.0;
            side * ((1.0 - GRADING) * even + GRADING * graded)
        })
        .collect()
}

/// What a patch of a wall gets straight from an emitter, in flux units times mm² / m².
fn received(emitter: &Emitter, wall: &Wall, sides: [[f64; 2]; 2], depth: u32) -> f64 {
    let [u, v] = sides;
    let mut bounds = [[0.0; 2]; 3];
    bounds[wall.axes[0]] = u;
    bounds[wall.axes[1]] = v;
    bounds[wall.normal()] = [wall.plane_mm; 2];
    let lamp = [emitter.x_mm, emitter.y_mm, [emitter.z_mm; 2]];
    let away: f64 = (0..3)
        .map(|i| nearest([lamp[i][0] - bounds[i][1], lamp[i][1] - bounds[i][0]]).powi(2))
        .sum::<f64>()
        .sqrt();
    let sharp = match &emitter.optics {
        Optics::Beam(beam) => (4.0 / (beam.exponent() + 3.0)).sqrt(),
        Optics::Tube(_) | Optics::Measured(_) => 1.0,
    };
    let (lu, lv) = (u[1] - u[0], v[1] - v[0]);
    const DEEPEST: u32 = 8;
    if lu.max(lv) > 1.2 * sharp * away && depth < DEEPEST {
        let halves = |side: [f64; 2]| {
            let middle = (side[0] + side[1]) / 2.0;
            [[side[0], middle], [middle, side[1]]]
        };
        return if lu > lv {
            let part = |u| received(emitter, wall, [u, v], depth + 1);
            halves(u).into_iter().map(part).sum()
        } else {
            let part = |v| received(emitter, wall, [u, v], depth + 1);
            halves(v).into_iter().map(part).sum()
        };
    }
    let at = |a: f64, b: f64| {
        let mut point = [0.0; 3];
        point[wall.axes[0]] = a;
        point[wall.axes[1]] = b;
        point[wall.normal()] = wall.plane_mm;
        emitter.irradiance(point, wall.looks)
    };
    if lu.max(lv) < 0.4 * sharp * away {
        return lu * lv * at((u[0] + u[1]) / 2.0, (v[0] + v[1]) / 2.0);
    }
    two(u, |a| two(v, |b| at(a, b)))
}

/// The light that the faces of an enclosure send back.
#[derive(Debug, Clone)]
pub struct Reflected<'a> {
    enclosure: &'a Enclosure,
    /// What each patch sends out, in flux units per m².
    radiosity: Vec<f64>,
    /// The lines of each face along its two axes, and the weights of their crossings.
    faces: Vec<([Vec<f64>; 2], Vec<f64>)>,
}

impl Reflected<'_> {
    /// What reaches a level surface that faces up at `point` (mm), in flux units per m².
    pub fn irradiance_up(&self, point: [f64; 3]) -> f64 {
        let mut sum = 0.0;
        let mut row = Vec::new();
        for (wall, ([u, v], weights)) in self.enclosure.walls.iter().zip(&self.faces) {
            let (normal, sign) = wall.looks.normal();
            let away = sign * (point[normal] - wall.plane_mm);
            if wall.looks == Facing::Up || away < 0.0 {
                continue;
            }
            // On the wall itself the limit just off it is meant.
            let away = away.max(1e-3);
            let from = [point[wall.axes[0]], point[wall.axes[1]]];
            // Rows are filled first and summed up after: that goes through vector instructions.
            row.clear();
            row.resize(v.len(), 0.0);
            let distance = |d: f64| (d * d + away * away).sqrt();
            if normal == 2 {
                // An element under a level face: x/sx atan(y/sx) + y/sy atan(x/sy) at a corner.
                let dv: Vec<[f64; 2]> = v
                    .iter()
                    .map(|v| [v - from[1], distance(v - from[1])])
                    .collect();
                for (u, weights) in u.iter().zip(weights.chunks_exact(v.len())) {
                    let x = u - from[0];
                    let sx = distance(x);
                    let share = x / sx;
                    for (at, [y, sy]) in row.iter_mut().zip(&dv) {
                        *at = share * angle(*y, sx) + y / sy * angle(x, *sy);
                    }
                    sum += product(weights, &row);
                }
            } else {
                // Beside an upright face at distance a: -a/s atan(y/s), s from a and the height;
                // what lies below the point's level is not seen.
                let dv: Vec<[f64; 2]> = v
                    .iter()
                    .map(|v| distance((v - from[1]).max(0.0)))
                    .map(|s| [s, -away / s])
                    .collect();
                for (u, weights) in u.iter().zip(weights.chunks_exact(v.len())) {
                    let y = u - from[0];
                    for (at, [s, share]) in row.iter_mut().zip(&dv) {
                        *at = share * angle(y, *s);
                    }
                    sum += product(weights, &row);
                }
            }
        }
        sum / TAU
    }

    /// The mean of what falls on a face that reflects, in flux units per m²; 0 for others.
    pub fn mean_on(&self, looks: Facing) -> f64 {
        let enclosure = self.enclosure;
        let wall = enclosure.walls.iter().position(|w| w.looks == looks);
        let Some(i) = wall else { return 0.0 };
        let end = enclosure
            .walls
            .get(i + 1)
            .map_or(enclosure.area.len(), |next| next.first);
        let (mut sent, mut area) = (0.0, 0.0);
        for patch in enclosure.walls[i].first..end {
            sent += self.radiosity[patch] * enclosure.area[patch];
            area += enclosure.area[patch];
        }
        sent / area / enclosure.walls[i].reflectance
    }
}

#[cfg(test)]
mod tests {
    use super::super::emitter::Beam;
    use super::*;

    fn lamp(m: f64) -> Emitter {
        Emitter {
            x_mm: [30.0, 1170.0],
            y_mm: [180.0, 220.0],
            z_mm: 420.0,
            flux: 3000.0,
            optics: Optics::Beam(Beam::new(m)),
        }
    }

    fn all(share: f64) -> Faces<f64> {
        Faces {
            floor: share,
            ceiling: share,
            left: share,
            right: share,
            front: share,
            back: share,
        }
    }

    #[test]
    fn each_patch_of_a_closed_box_sees_nothing_but_the_box() {
        let closed = Enclosure::new(
            [1200.0, 450.0, 500.0],
            all(0.5),
            Faces::default(),
            Fineness::Quick,
        );
        let n = closed.area.len();
        for i in 0..n {
            let seen: f64 = closed.exchange[i * n..(i + 1) * n].iter().sum();
            assert!(
                (seen / closed.area[i] - 1.0).abs() < 1e-6,
                "patch {i}: {seen}"
            );
        }
    }

    #[test]
    fn a_floor_that_takes_all_gets_all_that_the_lamps_send_out() {
        let size = [1200.0, 450.0, 500.0];
        let faces = Faces {
            floor: 0.0,
            ..all(1.0)
        };
        let closed = Enclosure::new(size, faces, Faces::default(), Fineness::Quick);
        for m in [1.0, 3.0] {
            let lamps = [lamp(m)];
            let reflected = closed.lit(&lamps, Faces::default());
            let (nx, ny) = (120, 45);
            let mut sum = 0.0;
            for i in 0..nx {
                for j in 0..ny {
                    let x = size[0] * (f64::from(i) + 0.5) / f64::from(nx);
                    let y = size[1] * (f64::from(j) + 0.5) / f64::from(ny);
                    sum += lamps[0].irradiance([x, y, 0.0], Facing::Up);
                    sum += reflected.irradiance_up([x, y, 0.0]);
                }
            }
            let flux = sum / f64::from(nx * ny) * size[0] * size[1] / 1e6;
            assert!((flux / 3000.0 - 1.0).abs() < 5e-3, "m {m}: {flux} lm");
        }
    }

    #[test]
    fn a_glowing_ceiling_lights_the_floor_by_its_view_factor() {
        let glowing = Faces {
            ceiling: true,
            ..Faces::default()
        };
        let open = Enclosure::new(
            [1000.0, 1000.0, 1000.0],
            Faces::default(),
            glowing,
            Fineness::Quick,
        );
        let glow = Faces {
            ceiling: 100.0,
            ..Faces::default()
        };
        let light = open.lit(&[], glow);
        // The middle of a cube's floor sees 0.2395 of its ceiling (case B-3).
        let middle = light.irradiance_up([500.0, 500.0, 0.0]);
        assert!((middle - 23.95).abs() < 0.05, "{middle}");
        assert!((light.mean_on(Facing::Down) * LEAST_REFLECTANCE - 100.0).abs() < 1e-6);
    }

    #[test]
    fn an_open_box_sends_nothing_back() {
        let open = Enclosure::new(
            [1200.0, 450.0, 500.0],
            Faces::default(),
            Faces::default(),
            Fineness::Quick,
        );
        let light = open.lit(&[lamp(1.0)], Faces::default());
        assert_eq!(light.irradiance_up([600.0, 200.0, 0.0]), 0.0);
    }
}
