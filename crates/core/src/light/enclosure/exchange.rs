//! What each patch of a box sees of the others.

use super::super::view::{parallel_corner, perpendicular_corner};
use super::{Enclosure, Wall};

impl Enclosure {
    pub(super) fn fill_exchange(&mut self) {
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
    pub(super) fn patches(&self, wall: &Wall, mirrored: Option<usize>) -> Vec<usize> {
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
