//! How the light on a set of points falls off with the gap to the lamps above them.

use std::sync::{Arc, OnceLock};

use fearless_simd::{Level, Simd, dispatch};

use crate::basis::work::go_on;
use crate::light::emitter::Emitter;
use crate::light::exponential::exponential;
use crate::light::facing::Facing;

/// Mean, least and greatest light over a set of points.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Spread {
    /// Mean of all points.
    pub mean: f64,
    /// The darkest point.
    pub least: f64,
    /// The brightest point.
    pub most: f64,
}

impl Spread {
    /// The spread of `values`; zeros when there are none.
    pub fn of(values: &[f64]) -> Self {
        if values.is_empty() {
            return Self {
                mean: 0.0,
                least: 0.0,
                most: 0.0,
            };
        }
        Self {
            mean: values.iter().sum::<f64>() / values.len() as f64,
            least: values.iter().copied().fold(f64::INFINITY, f64::min),
            most: values.iter().copied().fold(0.0, f64::max),
        }
    }
}

/// Direct light at a point from all emitters together.
pub fn light_at(emitters: &[Emitter], (x_mm, y_mm): (f64, f64), z_mm: f64) -> f64 {
    emitters
        .iter()
        .map(|emitter| emitter.irradiance([x_mm, y_mm, z_mm], Facing::Up))
        .sum()
}

/// The direct light at fixed points as a function of the gap, tabled once somebody asks for a gap and
/// read often: a search over heights and a season of growing plants ask for hundreds of gaps.
#[derive(Debug)]
pub struct Falloff {
    lamps: Arc<[Emitter]>,
    points: Vec<(f64, f64)>,
    /// For each gap of the table, the logarithm of the light at each point.
    nodes: Vec<OnceLock<Vec<f32>>>,
}

/// Smallest gap in the table, in mm; nearer than this a leaf counts as touching.
const LEAST_GAP_MM: f64 = 8.0;
/// Each gap of the table is this much larger than the one before: parabolas through their
/// logarithms stay within 0.3 % of the exact field.
const STEP: f64 = 1.2;
/// Stands for no light at all among the logarithms.
const DARK: f64 = 1e-12;

impl Falloff {
    /// The light of `lamps`, whose faces all lie in one plane, for gaps up to `most_gap_mm`.
    pub fn new(
        lamps: impl Into<Arc<[Emitter]>>,
        points: Vec<(f64, f64)>,
        most_gap_mm: f64,
    ) -> Self {
        let steps = ((most_gap_mm / LEAST_GAP_MM).ln() / STEP.ln())
            .ceil()
            .max(2.0) as usize;
        Self {
            lamps: lamps.into(),
            points,
            nodes: (0..=steps).map(|_| OnceLock::new()).collect(),
        }
    }

    /// Where the light falls.
    pub fn points(&self) -> &[(f64, f64)] {
        &self.points
    }

    /// What it takes in memory with the light of every gap.
    pub(super) fn bytes(&self) -> usize {
        size_of_val(&self.points[..]) + self.nodes.len() * self.points.len() * size_of::<f32>()
    }

    /// The logarithms at one gap of the table.
    fn node(&self, index: usize) -> &[f32] {
        self.nodes[index].get_or_init(|| {
            go_on();
            let gap_mm = LEAST_GAP_MM * STEP.powi(index as i32);
            let light = light_under(&self.lamps, &self.points, gap_mm);
            let log = |light: f64| light.max(DARK).ln() as f32;
            light.into_iter().map(log).collect()
        })
    }

    /// The light at each point under a gap of `gap_mm`; dark when they reach into the lamps.
    pub fn at(&self, gap_mm: f64) -> Vec<f64> {
        if gap_mm <= 0.0 {
            return vec![0.0; self.points.len()];
        }
        let last = self.nodes.len() - 1;
        let place = ((gap_mm / LEAST_GAP_MM).ln() / STEP.ln()).clamp(0.0, last as f64);
        let middle = (place.round() as usize).clamp(1, last - 1);
        let t = place - middle as f64;
        let [before, here, after] = [-1, 0, 1].map(|i| self.node(middle.saturating_add_signed(i)));
        dispatch!(Level::new(), simd => between(simd, [before, here, after], t))
    }
}

/// The light at each point `t` of a step past the middle one of three gaps, of which the logarithms are known.
#[inline(always)]
fn between<S: Simd>(_: S, [before, here, after]: [&[f32]; 3], t: f64) -> Vec<f64> {
    let each = before.iter().zip(here).zip(after);
    each.map(|((&a, &b), &c)| {
        let [a, b, c] = [a, b, c].map(f64::from);
        exponential(b + t * (c - a) / 2.0 + t * t * (a + c - 2.0 * b) / 2.0)
    })
    .collect()
}

/// Direct light at each of `points` from all of `lamps` together, `gap_mm` under their plane.
fn light_under(lamps: &[Emitter], points: &[(f64, f64)], gap_mm: f64) -> Vec<f64> {
    let mut light = vec![0.0; points.len()];
    for lamp in lamps {
        dispatch!(Level::new(), simd => lamp.add_level(simd, points, gap_mm, &mut light));
    }
    light
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::basis::plane::Axis;
    use crate::light::beam::Beam;
    use crate::light::emitter::Optics;

    #[test]
    fn the_table_follows_the_exact_field() {
        let lamps: Vec<Emitter> = [150.0, 450.0]
            .into_iter()
            .map(|y: f64| Emitter {
                x_mm: [35.0, 1185.0],
                y_mm: [y - 20.0, y + 20.0],
                z_mm: 300.0,
                flux: 57.0,
                optics: Optics::Beam(Beam::new(1.0)),
            })
            .collect();
        let points: Vec<(f64, f64)> = (0..72)
            .map(|i| {
                (
                    30.0 + 20.0 * f64::from(i % 12),
                    40.0 + 45.0 * f64::from(i / 12),
                )
            })
            .collect();
        let falloff = Falloff::new(lamps.clone(), points.clone(), 400.0);
        for gap in [9.0, 11.0, 27.0, 63.0, 140.0, 290.0] {
            for (&point, tabled) in points.iter().zip(falloff.at(gap)) {
                let exact = light_at(&lamps, point, 300.0 - gap);
                let off = tabled / exact - 1.0;
                assert!(off.abs() < 4e-3, "gap {gap}: {exact} against {tabled}");
            }
        }
        assert_eq!(falloff.at(0.0)[0], 0.0);
    }

    #[test]
    fn many_points_at_once_get_what_each_gets_alone() {
        let optics = [
            Optics::Beam(Beam::new(1.0)),
            Optics::Beam(Beam::new(2.5)),
            Optics::Tube(Axis::X),
        ];
        // The last point lies beside the bay.
        let points = [(30.0, 40.0), (600.0, 150.0), (1190.0, 300.0), (-60.0, 20.0)];
        for optics in optics {
            let lamp = Emitter {
                x_mm: [35.0, 1185.0],
                y_mm: [130.0, 170.0],
                z_mm: 300.0,
                flux: 57.0,
                optics,
            };
            for gap in [9.0, 80.0, 300.0] {
                let lamps = [lamp.clone(), lamp.clone()];
                for (&point, light) in points.iter().zip(light_under(&lamps, &points, gap)) {
                    let alone = light_at(&lamps, point, 300.0 - gap);
                    let off = (light - alone).abs();
                    assert!(
                        off <= 1e-9 * alone,
                        "{point:?} under {gap}: {light}, {alone}"
                    );
                }
            }
        }
    }
}
