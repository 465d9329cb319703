//! How the light on a set of points falls off with the gap to the lamps above them.

use super::emitter::Emitter;

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

    fn map2(self, other: Self, f: impl Fn(f64, f64) -> f64) -> Self {
        Self {
            mean: f(self.mean, other.mean),
            least: f(self.least, other.least),
            most: f(self.most, other.most),
        }
    }
}

/// Light at a point from all emitters together.
pub fn light_at(emitters: &[Emitter], (x_mm, y_mm): (f64, f64), z_mm: f64) -> f64 {
    emitters
        .iter()
        .map(|emitter| emitter.irradiance(x_mm, y_mm, z_mm))
        .sum()
}

/// The spread of light over fixed points as a function of the gap, tabled once and read often:
/// a search over heights and a season of growing plants ask for hundreds of gaps.
#[derive(Debug, Clone)]
pub struct Falloff {
    nodes: Vec<Spread>,
}

/// Smallest gap in the table, in mm; nearer than this a leaf counts as touching.
const LEAST_GAP_MM: f64 = 5.0;
/// Each gap of the table is this much larger than the one before: log-log lines between them stay
/// within 0.2 % of the exact field.
const STEP: f64 = 1.08;

impl Falloff {
    /// Tables the light of `emitters`, taken to hang in one plane, for gaps up to `most_gap_mm`.
    pub fn new(emitters: &[Emitter], points: &[(f64, f64)], most_gap_mm: f64) -> Self {
        let steps = ((most_gap_mm / LEAST_GAP_MM).ln() / STEP.ln())
            .ceil()
            .max(1.0) as i32;
        let level: Vec<Emitter> = emitters
            .iter()
            .map(|emitter| Emitter {
                z_mm: 0.0,
                ..*emitter
            })
            .collect();
        let nodes = (0..=steps)
            .map(|i| {
                let gap_mm = LEAST_GAP_MM * STEP.powi(i);
                let light: Vec<f64> = points
                    .iter()
                    .map(|&point| light_at(&level, point, -gap_mm))
                    .collect();
                Spread::of(&light)
            })
            .collect();
        Self { nodes }
    }

    /// The spread at `gap_mm`; dark when the points reach into the lamps.
    pub fn at(&self, gap_mm: f64) -> Spread {
        if gap_mm <= 0.0 {
            return Spread {
                mean: 0.0,
                least: 0.0,
                most: 0.0,
            };
        }
        let place =
            ((gap_mm / LEAST_GAP_MM).ln() / STEP.ln()).clamp(0.0, (self.nodes.len() - 1) as f64);
        let i = (place as usize).min(self.nodes.len().saturating_sub(2));
        let t = place - i as f64;
        self.nodes[i].map2(self.nodes[(i + 1).min(self.nodes.len() - 1)], |a, b| {
            if a > 0.0 && b > 0.0 {
                (a.ln() + t * (b.ln() - a.ln())).exp()
            } else {
                a + t * (b - a)
            }
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_table_follows_the_exact_field() {
        let lamps: Vec<Emitter> = [150.0, 450.0]
            .into_iter()
            .map(|y: f64| Emitter {
                x_mm: [35.0, 1185.0],
                y_mm: [y - 20.0, y + 20.0],
                z_mm: 300.0,
                flux: 57.0,
                beam_exponent: 1.0,
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
        let falloff = Falloff::new(&lamps, &points, 400.0);
        for gap in [6.0, 11.0, 27.0, 63.0, 140.0, 290.0] {
            let exact: Vec<f64> = points
                .iter()
                .map(|&p| light_at(&lamps, p, 300.0 - gap))
                .collect();
            let exact = Spread::of(&exact);
            let tabled = falloff.at(gap);
            for (e, t) in [
                (exact.mean, tabled.mean),
                (exact.least, tabled.least),
                (exact.most, tabled.most),
            ] {
                assert!((t / e - 1.0).abs() < 2e-3, "gap {gap}: {e} against {t}");
            }
        }
        assert_eq!(falloff.at(0.0).mean, 0.0);
    }
}
