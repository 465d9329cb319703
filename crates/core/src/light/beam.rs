//! Beams that fall off as cosᵐθ, and what a face of such a beam gives.

use std::f64::consts::{FRAC_PI_2, LN_2, TAU};
use std::sync::Arc;

use crate::light::angle::{angle, angle_over};
use crate::light::quadrature::{four, graded, nearest};

/// A beam whose intensity falls as cosᵐθ.
#[derive(Debug, Clone, PartialEq)]
pub struct Beam {
    exponent: f64,
    /// ∫₀^φ cos^(m+1) at equal steps of φ up to π/2, and how much it grows in a step there; none for
    /// m = 1, which has a closed form.
    table: Option<Arc<[[f64; 2]]>>,
}

const BEAM_STEPS: usize = 128;

impl Beam {
    /// The beam of exponent `m`; 1 is Lambertian.
    pub fn new(m: f64) -> Self {
        let table = (m != 1.0).then(|| {
            let step = FRAC_PI_2 / BEAM_STEPS as f64;
            let mut sum = 0.0;
            let falls = |phi: f64| phi.cos().max(0.0).powf(m + 1.0);
            let nodes = (0..=BEAM_STEPS).map(|i| {
                let at = i as f64 * step;
                let node = [sum, falls(at) * step];
                sum += four([at, at + step], falls);
                node
            });
            nodes.collect()
        });
        Self { exponent: m, table }
    }

    /// The exponent m.
    pub fn exponent(&self) -> f64 {
        self.exponent
    }

    /// ∫ cos^(m+1) from 0 to atan(y / s), by cubic pieces whose slopes are exact.
    fn upper(&self, y: f64, s: f64) -> f64 {
        let Some(table) = &self.table else {
            let r2 = s * s + y * y;
            return (s * y / r2 + (y / s).atan()) / 2.0;
        };
        let step = FRAC_PI_2 / BEAM_STEPS as f64;
        let phi = (y.abs() / s).atan();
        let i = ((phi / step) as usize).min(BEAM_STEPS - 1);
        let t = phi / step - i as f64;
        let [[a, da], [b, db]] = [table[i], table[i + 1]];
        let (t2, t3) = (t * t, t * t * t);
        let value = a * (2.0 * t3 - 3.0 * t2 + 1.0)
            + b * (3.0 * t2 - 2.0 * t3)
            + da * (t3 - 2.0 * t2 + t)
            + db * (t3 - t2);
        value.copysign(y)
    }

    /// ∫ cos^(m-1) from 0 to atan(y / s), from [`Self::upper`] by the power rule.
    fn lower(&self, y: f64, s: f64) -> f64 {
        let m = self.exponent;
        if self.table.is_none() {
            return angle(y, s);
        }
        let r = (s * s + y * y).sqrt();
        ((m + 1.0) * self.upper(y, s) - raised(s / r, m) * y / r) / m
    }
}

/// The exponent m of a beam whose intensity has fallen to half at `beam_deg` / 2 off its axis.
///
/// m = ln 0.5 / ln cos(beam/2), from I₀ cosᵐθ = I₀/2.
///
/// ```
/// use sunrise_core::light::beam::beam_exponent;
/// assert_eq!(beam_exponent(120.0), 1.0);
/// assert!((beam_exponent(90.0) - 2.0).abs() < 1e-9);
/// ```
pub fn beam_exponent(beam_deg: f64) -> f64 {
    let m = -LN_2 / (beam_deg / 2.0).to_radians().cos().ln();
    // 120° is Lambertian by definition; rounding must not cost it the closed form.
    if (m - 1.0).abs() < 1e-9 { 1.0 } else { m }
}

/// `x` to the power `m`; whole and half powers, which many lamps have, are quick.
pub(super) fn raised(x: f64, m: f64) -> f64 {
    let halves = 2.0 * m;
    if halves.fract() == 0.0 && halves <= 64.0 {
        let whole = x.powi((halves / 2.0) as i32);
        if m.fract() == 0.0 {
            whole
        } else {
            whole * x.sqrt()
        }
    } else {
        x.powf(m)
    }
}

/// The configuration factor from a differential element to a parallel rectangle at distance `h`,
/// with edges at `x` and `y` from the foot of the element's normal.
///
/// Source: the standard closed form for an element opposite a rectangle's corner (Howell, A
/// Catalog of Radiation Heat Transfer Configuration Factors, case B-3), summed over the four
/// corners; each edge's two arc tangents are taken together.
#[inline(always)]
pub fn configuration_factor(x: [f64; 2], y: [f64; 2], h: f64) -> f64 {
    #[inline(always)]
    fn edge(a: f64, b: [f64; 2], h: f64) -> f64 {
        let s = (a * a + h * h).sqrt();
        a / s * angle_over(s * (b[1] - b[0]), s * s + b[0] * b[1])
    }
    // Far to its side the four edges all but cancel: what is left of rounding is no light.
    let across = edge(x[1], y, h) - edge(x[0], y, h);
    let along = edge(y[1], x, h) - edge(y[0], x, h);
    ((across + along) / TAU).max(0.0)
}

/// The same for a beam: (m + 1)/2π ∫ h^(m+1) / r^(m+3) dA, in closed form along the longer side
/// and by Gauss's rule across.
pub(super) fn beam_factor(beam: &Beam, x: [f64; 2], y: [f64; 2], h: f64) -> f64 {
    let m = beam.exponent;
    let (long, short) = if x[1] - x[0] > y[1] - y[0] {
        (x, y)
    } else {
        (y, x)
    };
    // The kernel is about h / sqrt(m + 3) wide under the face, and wider to its sides.
    let longest = |piece: [f64; 2]| 1.6 * nearest(piece).hypot(h) * (4.0 / (m + 3.0)).sqrt();
    let sum = graded(short, &longest, &mut |across| {
        let s = (across * across + h * h).sqrt();
        raised(h / s, m + 1.0) / s * (beam.upper(long[1], s) - beam.upper(long[0], s))
    });
    (m + 1.0) / TAU * sum
}

/// The factor of an upright element that faces along `ahead` towards a level rectangle `h` above
/// it: 1/2π hᵐ ∫∫ (m + 1) X / r^(m+3), closed along both sides.
pub(super) fn side_factor(beam: &Beam, ahead: [f64; 2], beside: [f64; 2], h: f64) -> f64 {
    let [near, far] = ahead.map(|edge| edge.max(0.0));
    if far <= 0.0 {
        return 0.0;
    }
    let m = beam.exponent;
    let upto = |edge: f64| {
        let s = (edge * edge + h * h).sqrt();
        let falls = raised(h / s, m);
        falls * (beam.lower(beside[1], s) - beam.lower(beside[0], s))
    };
    (upto(near) - upto(far)) / TAU
}

/// An interval seen in a mirror at 0.
pub(super) fn mirrored(span: [f64; 2]) -> [f64; 2] {
    [-span[1], -span[0]]
}
