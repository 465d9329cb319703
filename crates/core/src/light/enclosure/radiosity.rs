//! The balance of the light that all patches send one another.

use std::ops::Range;

use crate::basis::work::go_on;
use crate::light::emitter::Emitter;
use crate::light::enclosure::cells::grid_lines;
use crate::light::enclosure::exchange::Exchange;
use crate::light::enclosure::reflected::{Reflected, Seen};
use crate::light::enclosure::straight::Straight;
use crate::light::enclosure::wall::{Faces, LOOKS, Wall, across};
use crate::light::facing::Facing;

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
    exchange: Exchange,
}

/// How finely the faces of a box are cut.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Fineness {
    /// For a bay while someone drags its lamps: within 2 % at every point.
    Quick,
    /// For one scene: within 1.35 %, and nearly everywhere within 0.2 %.
    Careful,
}

impl Fineness {
    /// About as many patches as there are when all faces reflect.
    fn patches(self) -> f64 {
        match self {
            Self::Quick => 200.0,
            Self::Careful => 1500.0,
        }
    }
}

/// The light of all patches in balance.
struct Balance {
    /// What share of its light each patch sends back.
    reflectance: Vec<f64>,
    /// What each sends out of its own and of what falls straight on it, by that share, times mm².
    source: Vec<f64>,
    /// What each sends out in all, in flux units per m².
    radiosity: Vec<f64>,
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
            let axes = across(normal);
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
        Self {
            exchange: Exchange::new(&lines, &walls),
            lines,
            walls,
            area,
            reflectance: each,
        }
    }

    /// What it takes in memory, all but a few lists.
    pub(crate) fn bytes(&self) -> usize {
        self.exchange.bytes()
    }

    /// Whether anything at the sides sends light back.
    fn has_sides(&self) -> bool {
        self.walls.iter().any(|wall| wall.normal() != 2)
    }

    /// How many nodes along x and y follow the light that comes back: it is smooth where only
    /// the deck above returns any.
    pub(crate) fn nodes_across(&self) -> [usize; 2] {
        if self.has_sides() { [9, 8] } else { [6, 5] }
    }

    /// How many heights of the lamps do: what comes back changes slowly with them.
    pub(crate) fn height_nodes(&self) -> usize {
        if self.has_sides() { 3 } else { 2 }
    }

    /// What the faces send back of the light of `emitters` (their coordinates in this box), and
    /// of faces that send out `glow` of their own, in flux units per m².
    ///
    /// Classical radiosity: Goral, C. M., K. E. Torrance, D. P. Greenberg and B. Battaile: Modeling the
    /// Interaction of Light Between Diffuse Surfaces, SIGGRAPH 1984 (from memory).
    pub fn lit(&self, emitters: &[Emitter], glow: Faces<f64>) -> Reflected<'_, 1> {
        let straight = Straight::of(&self.lines, &self.walls, emitters, glow);
        let balance = self.balanced(&straight, glow, self.reflectance.clone(), None);
        self.sent_back(&straight, glow, [balance])
    }

    /// The same for each of `floors`, the shares that the floor sends back; it must send back some in this
    /// box. What falls straight on the faces is reckoned once for all of them.
    pub fn lit_over<const N: usize>(
        &self,
        emitters: &[Emitter],
        glow: Faces<f64>,
        floors: &[f64; N],
    ) -> Reflected<'_, N> {
        let straight = Straight::of(&self.lines, &self.walls, emitters, glow);
        let floor = self.walls.iter().find(|wall| wall.looks == Facing::Up);
        let mut last: Option<Vec<f64>> = None;
        let each = floors.map(|share| {
            let mut reflectance = self.reflectance.clone();
            if let Some(floor) = floor {
                let patches = self.patches(floor);
                reflectance[patches].fill(share.max(LEAST_REFLECTANCE));
            }
            let balance = self.balanced(&straight, glow, reflectance, last.as_deref());
            last = Some(balance.radiosity.clone());
            balance
        });
        self.sent_back(&straight, glow, each)
    }

    /// The patches of `wall` in the lists of all.
    fn patches(&self, wall: &Wall) -> Range<usize> {
        let [nu, nv] = wall.axes.map(|axis| self.lines[axis].len() - 1);
        wall.first..wall.first + nu * nv
    }

    /// What each patch sends out when each sends back its `reflectance` of all light; sooner found by a good
    /// `guess`.
    fn balanced(
        &self,
        straight: &Straight,
        glow: Faces<f64>,
        reflectance: Vec<f64>,
        guess: Option<&[f64]>,
    ) -> Balance {
        let mut source = straight.source.clone();
        for wall in &self.walls {
            let own = glow.of(wall.looks) / reflectance[wall.first];
            let patches = self.patches(wall);
            for (source, area) in source[patches.clone()].iter_mut().zip(&self.area[patches]) {
                *source += own * area;
            }
        }
        Balance {
            radiosity: self.balance(&source, &reflectance, straight.image, guess),
            reflectance,
            source,
        }
    }

    /// What faces send back that are in `balance` over each floor.
    fn sent_back<const N: usize>(
        &self,
        straight: &Straight,
        glow: Faces<f64>,
        balance: [Balance; N],
    ) -> Reflected<'_, N> {
        let faces = self.walls.iter().zip(&straight.cells);
        let faces = faces.map(|(wall, (cuts, direct))| {
            // A cell sends on its own straight light, and all else as it runs from patch to patch.
            let [us, vs] = cuts;
            let all_else = balance.each_ref().map(|balance| {
                let share = balance.reflectance[wall.first];
                let each = self.patches(wall).map(|patch| {
                    balance.radiosity[patch] - share * balance.source[patch] / self.area[patch]
                });
                (share, each.collect::<Vec<f64>>())
            });
            let own = glow.of(wall.looks);
            let sent = |u: usize, v: usize| {
                let (u0, u1, tu) = us.between[u];
                let (v0, v1, tv) = vs.between[v];
                let at = [(u0, v0), (u0, v1), (u1, v0), (u1, v1)].map(|(u, v)| u * vs.patches + v);
                let [none, of_v, of_u, both] = [
                    (1.0 - tu) * (1.0 - tv),
                    (1.0 - tu) * tv,
                    tu * (1.0 - tv),
                    tu * tv,
                ];
                let direct = direct[u * vs.patch.len() + v];
                all_else.each_ref().map(|(share, each)| {
                    let [a, b, c, d] = at.map(|patch| each[patch]);
                    share * direct + none * a + of_v * b + of_u * c + both * d + own
                })
            };
            Seen::of([&us.lines, &vs.lines], sent)
        });
        Reflected {
            walls: &self.walls,
            area: &self.area,
            faces: faces.collect(),
            radiosity: balance.map(|balance| balance.radiosity),
            image: straight.image,
        }
    }

    /// Solves (A/ρ) b - A F b = `source` by conjugate gradients: the matrix is symmetric by
    /// reciprocity and positive as long as some face absorbs or is open.
    fn balance(
        &self,
        source: &[f64],
        reflectance: &[f64],
        image: [bool; 2],
        guess: Option<&[f64]>,
    ) -> Vec<f64> {
        let n = self.area.len();
        let own: Vec<f64> = self
            .area
            .iter()
            .zip(reflectance)
            .map(|(area, share)| area / share)
            .collect();
        let dot = |a: &[f64], b: &[f64]| a.iter().zip(b).map(|(a, b)| a * b).sum::<f64>();
        let scaled = |r: &[f64]| -> Vec<f64> { r.iter().zip(&own).map(|(r, o)| r / o).collect() };
        let mut b = guess.map_or_else(|| scaled(source), <[f64]>::to_vec);
        let apply = |x: &[f64]| -> Vec<f64> {
            let received = self.exchange.received(x, image);
            let each = own.iter().zip(x).zip(received);
            each.map(|((own, x), received)| own * x - received)
                .collect()
        };
        let mut r: Vec<f64> = source.iter().zip(apply(&b)).map(|(s, a)| s - a).collect();
        let mut z = scaled(&r);
        let mut p = z.clone();
        let mut rz = dot(&r, &z);
        let enough = 1e-7 * dot(source, &scaled(source));
        for _ in 0..200 {
            go_on();
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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::light::beam::Beam;
    use crate::light::emitter::Optics;

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
        // Odd and even numbers of patches along the axes: those on a middle are their own image.
        let seen = closed
            .exchange
            .received(&vec![1.0; closed.area.len()], [false; 2]);
        for (i, (seen, area)) in seen.iter().zip(&closed.area).enumerate() {
            assert!((seen / area - 1.0).abs() < 3e-6, "patch {i}: {seen}");
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
                    let [back] = reflected.irradiance_up([x, y, 0.0]);
                    sum += back;
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
        let [middle] = light.irradiance_up([500.0, 500.0, 0.0]);
        assert!((middle - 23.95).abs() < 0.05, "{middle}");
        let [mean] = light.mean_on(Facing::Down);
        assert!((mean * LEAST_REFLECTANCE - 100.0).abs() < 1e-6);
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
        assert_eq!(light.irradiance_up([600.0, 200.0, 0.0]), [0.0]);
    }
}
