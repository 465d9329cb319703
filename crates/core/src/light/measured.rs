//! What a face of measured distribution gives, summed over its points.

use crate::light::facing::Facing;
use crate::light::photometry::{Hemisphere, Photometry};
use crate::light::quadrature::{Closeness, nearest, pieces};

/// Points of a face along one axis, and what each counts for.
struct Points {
    n: usize,
    at: [f64; Self::MOST],
    weight: [f64; Self::MOST],
}

impl Default for Points {
    fn default() -> Self {
        Self {
            n: 0,
            at: [0.0; Self::MOST],
            weight: [0.0; Self::MOST],
        }
    }
}

impl Points {
    const MOST: usize = 24;

    fn push(&mut self, at: f64, weight: f64) {
        self.at[self.n] = at;
        self.weight[self.n] = weight;
        self.n += 1;
    }

    fn is_full(&self) -> bool {
        self.n == Self::MOST
    }

    /// What arrives from these points along x, each with all those `across`, `h` over a surface
    /// that faces `facing`.
    fn light(&self, across: &Self, h: f64, facing: Facing, half: &Hemisphere) -> f64 {
        let (axis, sign) = facing.normal();
        let mut sum = 0.0;
        let (mut falls, mut scale) = ([0.0; Self::MOST], [0.0; Self::MOST]);
        for (&py, &py_weight) in across.at[..across.n].iter().zip(&across.weight) {
            let beyond = py * py + h * h;
            let level = [py.abs(), h.abs()].iter().sum::<f64>();
            for i in 0..self.n {
                let px = self.at[i];
                let r2 = (px * px + beyond).max(1.0);
                let ahead = match axis {
                    0 => sign * px,
                    1 => sign * py,
                    _ => sign * h,
                };
                falls[i] = self.weight[i] * ahead.max(0.0) / (r2 * r2.sqrt());
                scale[i] = Hemisphere::scale(px.abs() + level);
            }
            let mut along = 0.0;
            for i in 0..self.n {
                along += falls[i] * half.share(-self.at[i] * scale[i], -py * scale[i]);
            }
            sum += py_weight * along;
        }
        sum
    }
}

/// What lies nearer to a measured face than this is summed up no closer, where it is averaged over
/// a wall.
pub(super) const LOOSE_NEAREST_MM: f64 = 30.0;

/// Summed over points of the face, close enough together for their distance.
pub(super) fn measured_light(
    photometry: &Photometry,
    [x, y]: [[f64; 2]; 2],
    h: f64,
    facing: Facing,
    closeness: Closeness,
) -> f64 {
    // Light that goes down meets what lies below the face.
    let Some(half) = photometry.towards(h < 0.0) else {
        return 0.0;
    };
    let area = (x[1] - x[0]) * (y[1] - y[0]);
    // Of a face that reaches behind an upright surface only what is before it is seen.
    let (axis, sign) = facing.normal();
    let seen = |side: [f64; 2], own: usize| match (axis == own, sign > 0.0) {
        (false, _) => side,
        (true, true) => side.map(|edge| edge.max(0.0)),
        (true, false) => side.map(|edge| edge.min(0.0)),
    };
    let (x, y) = (seen(x, 0), seen(y, 1));
    if x[0] >= x[1] || y[0] >= y[1] {
        return 0.0;
    }
    let nearest_mm = match closeness {
        Closeness::Close => 10.0,
        Closeness::Loose => LOOSE_NEAREST_MM,
    };
    let away = |a: f64, b: f64| (a * a + b * b + h * h).sqrt().max(nearest_mm);
    let beside = [nearest(x), nearest(y)];
    let mut across = Points::default();
    let mut sum = 0.0;
    // Across the face, then along it for each: rows of points, so that all but reading the
    // table goes through vector instructions.
    let along_all = |across: &Points| {
        let mut along = Points::default();
        let mut sum = 0.0;
        pieces(
            x,
            closeness,
            |piece| away(nearest(piece), beside[1]),
            |px, weight| {
                along.push(px, weight);
                if along.is_full() {
                    sum += along.light(across, h, facing, half);
                    along = Points::default();
                }
            },
        );
        sum + along.light(across, h, facing, half)
    };
    pieces(
        y,
        closeness,
        |piece| away(beside[0], nearest(piece)),
        |py, weight| {
            across.push(py, weight);
            if across.is_full() {
                sum += along_all(&across);
                across = Points::default();
            }
        },
    );
    sum += along_all(&across);
    sum / area
}
