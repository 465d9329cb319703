//! View factors between the patches of two faces of a box, tabled.

use crate::basis::work::go_on;
use crate::light::enclosure::wall::across;
use crate::light::view::{parallel_corner, perpendicular_corner};

/// Values by four indices: a page for the first two.
pub(super) struct Table {
    pages: usize,
    page: usize,
    values: Vec<f64>,
}

impl Table {
    pub(super) fn page(&self, a: usize, b: usize) -> &[f64] {
        let first = (a * self.pages + b) * self.page;
        &self.values[first..first + self.page]
    }
}

/// Between the two faces across `normal`: by pieces along the lower axis of one and the other, then
/// along the higher.
pub(super) fn opposite(lines: &[Vec<f64>; 3], normal: usize) -> Table {
    let [u, v] = across(normal).map(|axis| &lines[axis]);
    let far = lines[normal].last().copied().unwrap_or_default();
    let along_v = |du: f64| second_differences(v, |dv| parallel_corner(du, dv, far));
    // One table for each pair of lines along u; it depends on their distance alone, and the grid
    // is its own mirror image.
    let last = u.len() - 1;
    let mut tables: Vec<Option<Vec<f64>>> = vec![None; u.len() * u.len()];
    let named = |i: usize, k: usize| {
        let (a, b) = (i.max(k), i.min(k));
        if a + b > last {
            (last - b, last - a)
        } else {
            (a, b)
        }
    };
    for i in 0..u.len() {
        for k in 0..=i {
            let (a, b) = named(i, k);
            if tables[a * u.len() + b].is_none() {
                go_on();
                tables[a * u.len() + b] = Some(along_v(u[a] - u[b]));
            }
        }
    }
    let empty = Vec::new();
    let table = |i: usize, k: usize| {
        let (a, b) = named(i, k);
        tables[a * u.len() + b].as_ref().unwrap_or(&empty)
    };
    let (nu, nv) = (u.len() - 1, v.len() - 1);
    // Only the near eighth asks.
    let mut values = Vec::with_capacity(nu.div_ceil(2) * nu * nv * nv);
    for i in 0..nu.div_ceil(2) {
        for k in 0..nu {
            let corners = [
                table(i + 1, k + 1),
                table(i, k + 1),
                table(i + 1, k),
                table(i, k),
            ];
            values.extend(differences(corners));
        }
    }
    Table {
        pages: nu,
        page: nv * nv,
        values,
    }
}

/// Between the near faces across `p` and across `q`, which meet at a right angle: by pieces away
/// from their edge on one and the other, then along it.
pub(super) fn adjoining(lines: &[Vec<f64>; 3], p: usize, q: usize) -> Table {
    let along = &lines[3 - p - q];
    // The first face runs away from the edge along q, the second along p.
    let (out, up) = (&lines[q], &lines[p]);
    let tables: Vec<Vec<Vec<f64>>> = out
        .iter()
        .map(|&x| {
            go_on();
            up.iter()
                .map(|&z| second_differences(along, |dy| perpendicular_corner(x, z, dy)))
                .collect()
        })
        .collect();
    let [n_along, n_out, n_up] = [along.len() - 1, out.len() - 1, up.len() - 1];
    let mut values = Vec::with_capacity(n_out * n_up * n_along * n_along);
    for i in 0..n_out {
        for k in 0..n_up {
            let corners = [
                &tables[i + 1][k + 1],
                &tables[i][k + 1],
                &tables[i + 1][k],
                &tables[i][k],
            ];
            values.extend(differences(corners));
        }
    }
    Table {
        pages: n_up,
        page: n_along * n_along,
        values,
    }
}

/// Differences over both ends of a pair of pieces, of tables that hold the same along another axis.
fn differences([a, b, c, d]: [&Vec<f64>; 4]) -> impl Iterator<Item = f64> {
    let first = a.iter().zip(b).map(|(a, b)| a - b);
    let second = c.iter().zip(d).map(|(c, d)| c - d);
    // Which way the faces look is in the order of the corners, and no pair sees less than nothing.
    first
        .zip(second)
        .map(|(first, second)| (first - second).abs())
}

/// Differences of an even function over both ends of a pair of pieces of `lines`, row by row.
fn second_differences(lines: &[f64], corner: impl Fn(f64) -> f64) -> Vec<f64> {
    let n = lines.len();
    let mut values = vec![0.0; n * n];
    for i in 0..n {
        for j in 0..=i {
            // The lines are their own mirror image, and so are the distances between them.
            if i + j < n {
                let value = corner(lines[i] - lines[j]);
                let (a, b) = (n - 1 - i, n - 1 - j);
                for at in [i * n + j, j * n + i, a * n + b, b * n + a] {
                    values[at] = value;
                }
            }
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
