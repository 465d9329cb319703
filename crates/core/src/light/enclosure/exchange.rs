//! What each patch of a box sees of the others: area times view factor of each pair.
//!
//! A box with its grid of patches is its own mirror image along x, y and z. What each patch gets of
//! the others is therefore worked out in eight parts that do not touch one another: light that is
//! alike on both sides of each middle, or the opposite. Each part is a matrix over the patches of one
//! eighth of the box, so all together hold an eighth of what every pair of patches would.

use crate::basis::work::go_on;
use crate::light::enclosure::tables::{adjoining, opposite};
use crate::light::enclosure::wall::{Wall, across};
use crate::light::quadrature::product;

/// The mirrors: bit k turns axis k round. The same numbers name the parts: in part p light changes
/// its sign in mirror g when they share an odd number of bits.
const MIRRORS: usize = 8;

/// A patch of the near face across an axis, in the eighth of the box at the origin.
#[derive(Debug, Clone, Copy)]
struct Corner {
    /// Across which axis the face lies.
    normal: usize,
    /// Its place along the lower of the face's own axes, and along the higher.
    at: [usize; 2],
}

/// Area times view factor between all patches of a box.
#[derive(Debug, Clone)]
pub(super) struct Exchange {
    /// For each patch of the eighth, its image in each mirror; `None` on faces that are not there.
    images: Vec<[Option<usize>; MIRRORS]>,
    /// How much of itself a patch of the eighth is in each mirror: one on a middle is its own image.
    once: Vec<f64>,
    /// Where the patches of the face across each axis begin, and where the last end.
    begins: [usize; 4],
    /// A square matrix for each part, row by row: symmetrical, so only a face's exchange with itself
    /// in the mirrors and with the faces behind it is filled in.
    parts: [Box<[f32]>; MIRRORS],
}

impl Exchange {
    pub(super) fn new(lines: &[Vec<f64>; 3], walls: &[Wall]) -> Self {
        let cells = [0, 1, 2].map(|axis| lines[axis].len() - 1);
        let first_of = |normal: usize, far: bool| {
            let wall = walls
                .iter()
                .find(|w| w.normal() == normal && w.far() == far);
            wall.map(|wall| wall.first)
        };
        let faces = [0, 1, 2].map(|normal| [false, true].map(|far| first_of(normal, far)));
        let corners: Vec<Corner> = (0..3)
            .filter(|&normal| faces[normal].iter().any(Option::is_some))
            .flat_map(|normal| {
                let [nu, nv] = across(normal).map(|axis| cells[axis].div_ceil(2));
                let at = (0..nu).flat_map(move |i| (0..nv).map(move |j| [i, j]));
                at.map(move |at| Corner { normal, at })
            })
            .collect();
        let image = |corner: &Corner, mirror: usize| {
            let Corner { normal, at } = *corner;
            let [i, j] = mirrored(at, across(normal), mirror, cells);
            let first = faces[normal][mirror >> normal & 1]?;
            Some(first + i * cells[across(normal)[1]] + j)
        };
        let images = corners
            .iter()
            .map(|corner| std::array::from_fn(|mirror| image(corner, mirror)))
            .collect();
        let begins = [0, 1, 2, 3].map(|normal| {
            let before = corners.iter().filter(|corner| corner.normal < normal);
            before.count()
        });
        let there = |normal: usize| faces[normal].iter().any(Option::is_some);
        let mut sums = Sums {
            n: corners.len(),
            begins,
            cells,
            parts: [(); MIRRORS].map(|()| vec![0.0; corners.len() * corners.len()]),
        };
        for normal in [0, 1, 2].into_iter().filter(|normal| there(*normal)) {
            sums.add_opposite(lines, normal);
        }
        for [p, q] in [[0, 1], [0, 2], [1, 2]] {
            if there(p) && there(q) {
                sums.add_adjoining(lines, p, q);
            }
        }
        let own = |corner: &Corner| {
            let axes = across(corner.normal);
            let middles = (0..2).filter(|&k| 2 * corner.at[k] + 1 == cells[axes[k]]);
            1.0 / f64::from(1u32 << middles.count())
        };
        Self {
            images,
            once: corners.iter().map(own).collect(),
            begins,
            parts: sums.parts.map(Vec::into_boxed_slice),
        }
    }

    /// What it takes in memory.
    pub(super) fn bytes(&self) -> usize {
        let parts: usize = self.parts.iter().map(|part| size_of_val(&part[..])).sum();
        parts + size_of_val(&self.images[..])
    }

    /// What each patch gets when each sends out `sent` per area: area times view factor times
    /// `sent`, summed over all others; where that is its own `image` across x, and across y, only
    /// the parts that are alike there count.
    pub(super) fn received(&self, sent: &[f64], image: [bool; 2]) -> Vec<f64> {
        let counts = |part: usize| (0..2).all(|axis| !image[axis] || part >> axis & 1 == 0);
        let n = self.images.len();
        // One part after the other.
        let (mut parts, mut got) = (vec![0.0f32; MIRRORS * n], vec![0.0f32; MIRRORS * n]);
        for (i, images) in self.images.iter().enumerate() {
            let mut values = images.map(|image| image.map_or(0.0, |patch| sent[patch]));
            signed_sums(&mut values);
            let share = self.once[i] / MIRRORS as f64;
            for (part, value) in values.into_iter().enumerate() {
                parts[part * n + i] = (value * share) as f32;
            }
        }
        for part in (0..MIRRORS).filter(|part| counts(*part)) {
            let own = part * n..(part + 1) * n;
            self.part(part, &parts[own.clone()], &mut got[own]);
        }
        let mut received = vec![0.0; sent.len()];
        for (i, images) in self.images.iter().enumerate() {
            let mut values: [f64; MIRRORS] = std::array::from_fn(|p| f64::from(got[p * n + i]));
            signed_sums(&mut values);
            for (image, value) in images.iter().zip(values) {
                if let Some(patch) = image {
                    received[*patch] = value;
                }
            }
        }
        received
    }

    /// Adds one part's matrix times `sent` to what it `got`.
    fn part(&self, part: usize, sent: &[f32], got: &mut [f32]) {
        let n = self.images.len();
        for normal in 0..3 {
            let [from, behind] = [self.begins[normal], self.begins[normal + 1]];
            for row in from..behind {
                let values = &self.parts[part][row * n..(row + 1) * n];
                got[row] += product::<8, f32>(&values[from..], &sent[from..]);
                // The faces behind get as much of this one.
                let own = sent[row];
                let theirs = got[behind..].iter_mut().zip(&values[behind..]);
                theirs.for_each(|(got, value)| *got += own * value);
            }
        }
    }
}

/// The place of a patch in a mirror, along the face's own `axes`.
fn mirrored(at: [usize; 2], axes: [usize; 2], mirror: usize, cells: [usize; 3]) -> [usize; 2] {
    [0, 1].map(|k| {
        if mirror >> axes[k] & 1 == 1 {
            cells[axes[k]] - 1 - at[k]
        } else {
            at[k]
        }
    })
}

/// For each part the sum over all mirrors, each with the sign that the part has in it.
fn signed_sums(values: &mut [f64; MIRRORS]) {
    for step in [1, 2, 4] {
        for i in 0..MIRRORS {
            if i & step == 0 {
                let (a, b) = (values[i], values[i | step]);
                (values[i], values[i | step]) = (a + b, a - b);
            }
        }
    }
}

/// The parts while they are filled in: for each pair of patches of the eighth, the exchange of one
/// with all images of the other, signed.
struct Sums {
    /// How many patches the eighth has.
    n: usize,
    /// Where those of the face across each axis begin.
    begins: [usize; 4],
    cells: [usize; 3],
    parts: [Vec<f32>; MIRRORS],
}

impl Sums {
    /// Where a patch of the face across `normal` stands among those of the eighth, by its place
    /// along `axis` and along the face's other axis.
    fn index(&self, normal: usize, axis: usize, along: usize, other: usize) -> usize {
        let axes = across(normal);
        let [u, v] = if axes[0] == axis {
            [along, other]
        } else {
            [other, along]
        };
        self.begins[normal] + u * self.cells[axes[1]].div_ceil(2) + v
    }

    /// Notes the sums of two patches.
    fn set(&mut self, one: usize, other: usize, sums: [f64; MIRRORS]) {
        for (part, sum) in self.parts.iter_mut().zip(sums) {
            part[one * self.n + other] = sum as f32;
        }
    }

    fn add_opposite(&mut self, lines: &[Vec<f64>; 3], normal: usize) {
        let table = opposite(lines, normal);
        let [u, v] = across(normal);
        let (nu, nv) = (self.cells[u], self.cells[v]);
        for i in 0..nu.div_ceil(2) {
            go_on();
            for k in 0..nu.div_ceil(2) {
                let [here, there] = [k, nu - 1 - k].map(|k| table.page(i, k));
                for j in 0..nv.div_ceil(2) {
                    let [here, there] = [here, there].map(|page| &page[j * nv..(j + 1) * nv]);
                    for l in 0..nv.div_ceil(2) {
                        let mut sums = [0.0; MIRRORS];
                        // Only images on the far face are seen.
                        let far = 1 << normal;
                        sums[far] = here[l];
                        sums[far | 1 << u] = there[l];
                        sums[far | 1 << v] = here[nv - 1 - l];
                        sums[far | 1 << u | 1 << v] = there[nv - 1 - l];
                        signed_sums(&mut sums);
                        let one = self.index(normal, u, i, j);
                        let other = self.index(normal, u, k, l);
                        self.set(one, other, sums);
                    }
                }
            }
        }
    }

    fn add_adjoining(&mut self, lines: &[Vec<f64>; 3], p: usize, q: usize) {
        let table = adjoining(lines, p, q);
        let shared = 3 - p - q;
        let [n_out, n_up, n_along] = [q, p, shared].map(|axis| self.cells[axis]);
        for out in 0..n_out.div_ceil(2) {
            go_on();
            for up in 0..n_up.div_ceil(2) {
                // Seen from a far face the first patch lies at the other end, and so does the
                // second.
                let pages = [out, n_out - 1 - out]
                    .map(|out| [up, n_up - 1 - up].map(|up| table.page(out, up)));
                for j in 0..n_along.div_ceil(2) {
                    let rows =
                        pages.map(|pages| pages.map(|page| &page[j * n_along..(j + 1) * n_along]));
                    let one = self.index(p, q, out, j);
                    for l in 0..n_along.div_ceil(2) {
                        let mut sums = [0.0; MIRRORS];
                        for (far, rows) in rows.iter().enumerate() {
                            for (end, row) in rows.iter().enumerate() {
                                let mirror = far << q | end << p;
                                sums[mirror] = row[l];
                                sums[mirror | 1 << shared] = row[n_along - 1 - l];
                            }
                        }
                        signed_sums(&mut sums);
                        let other = self.index(q, p, up, l);
                        self.set(one, other, sums);
                    }
                }
            }
        }
    }
}
