//! The light that a bay sends back as a smooth function of place and of the lamps' height:
//! reckoned at a few nodes, read everywhere between.

use std::f64::consts::PI;

use crate::light::emitter::Emitter;
use crate::light::enclosure::{Enclosure, Faces};
use crate::light::quadrature::product;

/// Nodes on an interval for a polynomial through them; they crowd towards both ends, where the
/// light changes fastest.
///
/// Source: Berrut & Trefethen, Barycentric Lagrange Interpolation, SIAM Review 2004 (from memory).
#[derive(Debug, Clone, PartialEq)]
pub struct Nodes {
    at: Vec<f64>,
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
    fn weights(&self, x: f64) -> Vec<f64> {
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
    /// Reckons what `enclosure` of `size_mm` sends back below lamps that hang at each of the
    /// heights `lamps` as `hung` tells, and with faces that glow.
    pub fn new(
        enclosure: &Enclosure,
        size_mm: [f64; 3],
        lamps: Nodes,
        hung: impl Fn(f64) -> Vec<Emitter>,
        glow: Faces<f64>,
    ) -> Self {
        let levels = Nodes::new(0.0, 1.0, LEVELS);
        Self::reckon(enclosure, size_mm, levels, lamps, hung, glow)
    }

    /// The same for one level and the lamps as they hang, at `[z_mm, lamps_mm]`.
    pub fn at_one_height(
        enclosure: &Enclosure,
        size_mm: [f64; 3],
        [z_mm, lamps_mm]: [f64; 2],
        emitters: &[Emitter],
    ) -> Self {
        let one = |at| Nodes::new(at, at, 1);
        let hung = |_| emitters.to_vec();
        let none = Faces::default();
        let level = one(z_mm / lamps_mm);
        Self::reckon(enclosure, size_mm, level, one(lamps_mm), hung, none)
    }

    fn reckon(
        enclosure: &Enclosure,
        size_mm: [f64; 3],
        levels: Nodes,
        lamps: Nodes,
        hung: impl Fn(f64) -> Vec<Emitter>,
        glow: Faces<f64>,
    ) -> Self {
        let [nx, ny] = enclosure.nodes_across();
        let x = Nodes::new(0.0, size_mm[0], nx);
        let y = Nodes::new(0.0, size_mm[1], ny);
        let mut values = Vec::new();
        for &height in &lamps.at {
            let emitters = hung(height);
            if emitters.is_empty() && glow == Faces::default() {
                values.resize(values.len() + levels.at.len() * nx * ny, 0.0);
                continue;
            }
            let reflected = enclosure.lit(&emitters, glow);
            for z in levels.at.iter().map(|share| share * height) {
                for &x in &x.at {
                    for &y in &y.at {
                        values.push(reflected.irradiance_up([x, y, z]));
                    }
                }
            }
        }
        Self {
            size_mm: [size_mm[0], size_mm[1]],
            x,
            y,
            levels,
            lamps,
            values,
        }
    }

    /// What `points` count for, to be used again for any height.
    pub fn places(&self, points: &[(f64, f64)]) -> Places {
        let mut weights = Vec::with_capacity(points.len() * self.around());
        for &(x, y) in points {
            // A tray that sticks out of the bay is lit there as at the bay's edge.
            weights.extend(self.x.weights(x.clamp(0.0, self.size_mm[0])));
            weights.extend(self.y.weights(y.clamp(0.0, self.size_mm[1])));
        }
        Places(weights)
    }

    /// How many weights a point has: one for each node along x, and along y.
    fn around(&self) -> usize {
        self.x.at.len() + self.y.at.len()
    }

    /// How many nodes a level has.
    fn across(&self) -> usize {
        self.x.at.len() * self.y.at.len()
    }

    /// The light at each of `places` at height `z_mm` with the lamps at `lamps_mm`.
    pub fn at(&self, places: &Places, z_mm: f64, lamps_mm: f64) -> Vec<f64> {
        let level = self.level(z_mm, lamps_mm);
        let (nx, ny) = (self.x.at.len(), self.y.at.len());
        let each = places.0.chunks_exact(self.around());
        each.map(|weights| {
            let (of_x, of_y) = weights.split_at(nx);
            let columns = level.chunks_exact(ny);
            let along = of_x.iter().zip(columns);
            let light: f64 = along.map(|(w, column)| w * product(of_y, column)).sum();
            light.max(0.0)
        })
        .collect()
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

/// Points of a level, by what each node along x and along y counts for there: one point after the
/// other.
#[derive(Debug, Clone, PartialEq)]
pub struct Places(Vec<f64>);

impl Places {
    /// What they take in memory.
    pub(super) fn bytes(&self) -> usize {
        size_of_val(&self.0[..])
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
        let ambient = Ambient::new(
            &bay,
            size,
            Nodes::new(150.0, 400.0, bay.height_nodes()),
            hung,
            Faces::default(),
        );
        let points: Vec<(f64, f64)> = (0..144)
            .map(|i| {
                (
                    20.0 + 105.0 * f64::from(i % 12),
                    15.0 + 51.0 * f64::from(i / 12),
                )
            })
            .collect();
        let places = ambient.places(&points);
        for (z, height) in [(60.0, 180.0), (60.0, 330.0), (140.0, 260.0)] {
            let exact = bay.lit(&hung(height), Faces::default());
            let read = ambient.at(&places, z, height);
            let lamps = hung(height);
            for (&(x, y), read) in points.iter().zip(read) {
                let direct = crate::light::falloff::light_at(&lamps, (x, y), z);
                let sent_back = exact.irradiance_up([x, y, z]);
                let off = (read - sent_back) / (direct + sent_back);
                assert!(
                    off.abs() < 0.02,
                    "at {x}, {y}, {z} under {height}: {read} for {sent_back}"
                );
            }
        }
    }
}
