//! The light that a bay sends back as a smooth function of place and of the lamps' height:
//! reckoned at a few nodes, read everywhere between.

use std::f64::consts::PI;

use crate::basis::plane::Footprint;
use crate::light::emitter::Emitter;
use crate::light::enclosure::{Enclosure, Faces, Reflected};
use crate::light::quadrature::product;

/// Nodes on an interval for a polynomial through them; they crowd towards both ends, where the
/// light changes fastest.
///
/// Source: Berrut & Trefethen, Barycentric Lagrange Interpolation, SIAM Review 2004 (from memory).
#[derive(Debug, Clone, PartialEq)]
pub struct Nodes {
    pub(super) at: Vec<f64>,
    /// Each node's barycentric weight.
    weight: Vec<f64>,
}

impl Nodes {
    /// `n` nodes from `from` to `to`; one in the middle when they are the same.
    pub fn new(from: f64, to: f64, n: usize) -> Self {
        if n < 2 || to - from < 1e-6 {
            return Self {
                at: vec![(from + to) / 2.0],
                weight: vec![1.0],
            };
        }
        // Where the ith node stands on the half circle over the interval.
        let turn = |i: usize| PI * (2 * i + 1) as f64 / (2 * n) as f64;
        let at = |i: usize| (1.0 - turn(i).cos()) / 2.0;
        let sign = |i: usize| if i.is_multiple_of(2) { 1.0 } else { -1.0 };
        Self {
            at: (0..n).map(|i| from + (to - from) * at(i)).collect(),
            weight: (0..n).map(|i| sign(i) * turn(i).sin()).collect(),
        }
    }

    /// What each node counts for at `x`, which lies in the interval.
    pub(super) fn weights(&self, x: f64) -> Vec<f64> {
        let n = self.at.len();
        if let Some(hit) = self.at.iter().position(|node| (node - x).abs() < 1e-9) {
            return (0..n).map(|i| if i == hit { 1.0 } else { 0.0 }).collect();
        }
        let each = self.at.iter().zip(&self.weight);
        let mut raw: Vec<f64> = each.map(|(node, weight)| weight / (x - node)).collect();
        let sum: f64 = raw.iter().sum();
        raw.iter_mut().for_each(|w| *w /= sum);
        raw
    }
}

/// The light that a bay sends back to level surfaces in it.
#[derive(Debug, Clone, PartialEq)]
pub struct Ambient {
    size_mm: [f64; 2],
    x: Nodes,
    y: Nodes,
    /// Heights as shares of the lamps' own: above them the light is another.
    levels: Nodes,
    lamps: Nodes,
    /// For each lamp height, for each level, for each x, for each y.
    values: Vec<f64>,
}

/// Nodes from the deck up to the lamps.
const LEVELS: usize = 3;

impl Ambient {
    /// Reckons what `enclosure` of `size_mm` sends back below lamps that hang at each of the heights `lamps`
    /// as `hung` tells, and with faces that glow: for each of `floors`, the shares that its floor sends back.
    pub fn over_floors<const N: usize>(
        enclosure: &Enclosure,
        size_mm: [f64; 3],
        lamps: &Nodes,
        hung: impl Fn(f64) -> Vec<Emitter>,
        glow: Faces<f64>,
        floors: &[f64; N],
    ) -> Vec<Self> {
        let levels = Nodes::new(0.0, 1.0, LEVELS);
        let dark = glow == Faces::default();
        let grid = Grid::of(enclosure, size_mm, levels, lamps.clone());
        grid.reckon(|height| {
            let emitters = hung(height);
            let shines = !emitters.is_empty() || !dark;
            shines.then(|| enclosure.lit_over(&emitters, glow, floors))
        })
    }

    /// The same for the enclosure as it is, one level and the lamps as they hang, at `[z_mm, lamps_mm]`.
    pub fn at_one_height(
        enclosure: &Enclosure,
        size_mm: [f64; 3],
        [z_mm, lamps_mm]: [f64; 2],
        emitters: &[Emitter],
    ) -> Self {
        let one = |at| Nodes::new(at, at, 1);
        let grid = Grid::of(enclosure, size_mm, one(z_mm / lamps_mm), one(lamps_mm));
        let shines = !emitters.is_empty();
        let lit = |_| shines.then(|| enclosure.lit(emitters, Faces::default()));
        grid.reckon(lit).remove(0)
    }

    /// What several that have the same nodes come to, each taken so many times; there must be one.
    pub fn of_several(all: &[Self], times: &[f64]) -> Self {
        let mut values = vec![0.0; all[0].values.len()];
        for (own, times) in all.iter().zip(times) {
            let each = values.iter_mut().zip(&own.values);
            each.for_each(|(sum, value)| *sum += times * value);
        }
        Self {
            values,
            ..all[0].clone()
        }
    }

    /// What the cells of a part of that `outline`, so many along and across, count for, to be used again for
    /// any height.
    pub fn places(&self, outline: &Footprint, grid: (u32, u32)) -> Places {
        let [columns, rows] = outline.lines(grid.0, grid.1);
        // A tray that sticks out of the bay is lit there as at the bay's edge.
        let along = |nodes: &Nodes, at: &f64, side_mm: f64| nodes.weights(at.clamp(0.0, side_mm));
        let [width_mm, depth_mm] = self.size_mm;
        let columns = columns.iter().flat_map(|x| along(&self.x, x, width_mm));
        let rows = rows.iter().flat_map(|y| along(&self.y, y, depth_mm));
        Places {
            columns: columns.collect(),
            rows: rows.collect(),
        }
    }

    /// How many nodes a level has.
    fn across(&self) -> usize {
        self.x.at.len() * self.y.at.len()
    }

    /// The light at each of `places` at height `z_mm` with the lamps at `lamps_mm`.
    pub fn at(&self, places: &Places, z_mm: f64, lamps_mm: f64) -> Vec<f64> {
        let level = self.level(z_mm, lamps_mm);
        let (nx, ny) = (self.x.at.len(), self.y.at.len());
        let columns = places.columns.chunks_exact(nx);
        let mut row = vec![0.0; nx];
        let mut light = Vec::with_capacity(columns.len() * places.rows.len() / ny);
        for of_y in places.rows.chunks_exact(ny) {
            // At each node along x first.
            for (at, nodes) in row.iter_mut().zip(level.chunks_exact(ny)) {
                *at = product::<4, f64>(of_y, nodes);
            }
            let columns = columns.clone();
            light.extend(columns.map(|of_x| product::<4, f64>(of_x, &row).max(0.0)));
        }
        light
    }

    /// The same for lamps that hang at `lamps_mm` alone: quicker to read.
    pub fn under(&self, lamps_mm: f64) -> Self {
        let one = self.levels.at.len() * self.across();
        let mut values = vec![0.0; one];
        let heights = self.lamps.weights(lamps_mm);
        for (weight, own) in heights.into_iter().zip(self.values.chunks_exact(one)) {
            let each = values.iter_mut().zip(own);
            each.for_each(|(sum, value)| *sum += weight * value);
        }
        Self {
            size_mm: self.size_mm,
            x: self.x.clone(),
            y: self.y.clone(),
            levels: self.levels.clone(),
            lamps: Nodes::new(lamps_mm, lamps_mm, 1),
            values,
        }
    }

    /// The nodes of one level.
    fn level(&self, z_mm: f64, lamps_mm: f64) -> Vec<f64> {
        let across = self.across();
        let z = self.levels.weights(z_mm / lamps_mm);
        let lamps = self.lamps.weights(lamps_mm);
        let mut level = vec![0.0; across];
        for (i, of_lamps) in lamps.iter().enumerate() {
            for (j, of_z) in z.iter().enumerate() {
                let first = (i * z.len() + j) * across;
                let weight = of_lamps * of_z;
                for (sum, value) in level.iter_mut().zip(&self.values[first..first + across]) {
                    *sum += weight * value;
                }
            }
        }
        level
    }
}

/// The nodes at which light is reckoned.
struct Grid {
    size_mm: [f64; 2],
    x: Nodes,
    y: Nodes,
    levels: Nodes,
    lamps: Nodes,
}

impl Grid {
    fn of(enclosure: &Enclosure, size_mm: [f64; 3], levels: Nodes, lamps: Nodes) -> Self {
        let [nx, ny] = enclosure.nodes_across();
        Self {
            size_mm: [size_mm[0], size_mm[1]],
            x: Nodes::new(0.0, size_mm[0], nx),
            y: Nodes::new(0.0, size_mm[1], ny),
            levels,
            lamps,
        }
    }

    /// Where in a level the image of the node at `[i, j]` stands, if it comes before it there, in a bay that is
    /// its own `image` across x, and across y.
    fn image_before(&self, [i, j]: [usize; 2], image: [bool; 2]) -> Option<usize> {
        let (nx, ny) = (self.x.at.len(), self.y.at.len());
        let [u, v] = [nx - 1 - i, ny - 1 - j];
        match image {
            [true, _] if u < i => Some(u * ny + j),
            [_, true] if v < j => Some(i * ny + v),
            _ => None,
        }
    }

    /// The light at all of them, over each floor, which `lit` gives for each height of the lamps; dark where it
    /// gives none.
    fn reckon<'e, const N: usize>(
        self,
        lit: impl Fn(f64) -> Option<Reflected<'e, N>>,
    ) -> Vec<Ambient> {
        let across = self.levels.at.len() * self.x.at.len() * self.y.at.len();
        let mut values = [(); N].map(|()| Vec::with_capacity(across * self.lamps.at.len()));
        for &height in &self.lamps.at {
            let Some(lit) = lit(height) else {
                values
                    .iter_mut()
                    .for_each(|own| own.resize(own.len() + across, 0.0));
                continue;
            };
            for z in self.levels.at.iter().map(|share| share * height) {
                let first = values[0].len();
                for (i, &x) in self.x.at.iter().enumerate() {
                    for (j, &y) in self.y.at.iter().enumerate() {
                        let light = match self.image_before([i, j], lit.image) {
                            Some(at) => values.each_ref().map(|own| own[first + at]),
                            None => lit.irradiance_up([x, y, z]),
                        };
                        for (own, light) in values.iter_mut().zip(light) {
                            own.push(light);
                        }
                    }
                }
            }
        }
        let each = values.map(|values| Ambient {
            size_mm: self.size_mm,
            x: self.x.clone(),
            y: self.y.clone(),
            levels: self.levels.clone(),
            lamps: self.lamps.clone(),
            values,
        });
        each.into()
    }
}

/// The cells of a part of a tray, by what each node along x counts for in each column, and each node along y in
/// each row.
#[derive(Debug, Clone, PartialEq)]
pub struct Places {
    columns: Vec<f64>,
    rows: Vec<f64>,
}

impl Places {
    /// What they take in memory.
    pub(super) fn bytes(&self) -> usize {
        size_of_val(&self.columns[..]) + size_of_val(&self.rows[..])
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::light::beam::Beam;
    use crate::light::emitter::Optics;
    use crate::light::enclosure::Fineness;

    #[test]
    fn between_the_nodes_it_follows_the_bay_itself() {
        let size = [1200.0, 600.0, 450.0];
        let walls = Faces {
            floor: 0.1,
            ceiling: 0.7,
            left: 0.9,
            right: 0.9,
            front: 0.8,
            back: 0.9,
        };
        let bay = Enclosure::new(size, walls, Faces::default(), Fineness::Quick);
        let hung = |z_mm: f64| -> Vec<Emitter> {
            [150.0, 450.0]
                .map(|y: f64| Emitter {
                    x_mm: [30.0, 1170.0],
                    y_mm: [y - 20.0, y + 20.0],
                    z_mm,
                    flux: 57.0,
                    optics: Optics::Beam(Beam::new(1.0)),
                })
                .to_vec()
        };
        let ambient = Ambient::over_floors(
            &bay,
            size,
            &Nodes::new(150.0, 400.0, bay.height_nodes()),
            hung,
            Faces::default(),
            &[walls.floor],
        )
        .remove(0);
        let outline = Footprint {
            x_mm: [10.0, 1190.0],
            y_mm: [5.0, 595.0],
        };
        let points = outline.cells(12, 12);
        let places = ambient.places(&outline, (12, 12));
        for (z, height) in [(60.0, 180.0), (60.0, 330.0), (140.0, 260.0)] {
            let exact = bay.lit(&hung(height), Faces::default());
            let read = ambient.at(&places, z, height);
            let lamps = hung(height);
            for (&(x, y), read) in points.iter().zip(read) {
                let direct = crate::light::falloff::light_at(&lamps, (x, y), z);
                let [sent_back] = exact.irradiance_up([x, y, z]);
                let off = (read - sent_back) / (direct + sent_back);
                assert!(
                    off.abs() < 0.02,
                    "at {x}, {y}, {z} under {height}: {read} for {sent_back}"
                );
            }
        }
    }
}
