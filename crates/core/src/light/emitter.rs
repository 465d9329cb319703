//! Direct light from a flat rectangle that faces down.
//!
//! Intensity falls as I₀ cosᵐθ. For m = 1 (Lambertian) the irradiance has a closed form; for any
//! other m it is summed over the rectangle.

use std::f64::consts::{LN_2, TAU};

use crate::room::Axis;

/// A horizontal rectangle that emits downwards; lengths in mm.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Emitter {
    /// Left and right edge.
    pub x_mm: [f64; 2],
    /// Front and back edge.
    pub y_mm: [f64; 2],
    /// Height of the face.
    pub z_mm: f64,
    /// All that it emits, in lm, µmol/s or any unit; irradiance comes out in that unit per m².
    pub flux: f64,
    /// The exponent m of its beam.
    pub beam_exponent: f64,
}

/// The exponent m of a beam whose intensity has fallen to half at `beam_deg` / 2 off its axis.
///
/// m = ln 0.5 / ln cos(beam/2), from I₀ cosᵐθ = I₀/2.
///
/// ```
/// use sunrise_core::light::emitter::beam_exponent;
/// assert_eq!(beam_exponent(120.0), 1.0);
/// assert!((beam_exponent(90.0) - 2.0).abs() < 1e-9);
/// ```
pub fn beam_exponent(beam_deg: f64) -> f64 {
    let m = -LN_2 / (beam_deg / 2.0).to_radians().cos().ln();
    // 120° is Lambertian by definition; rounding must not cost it the closed form.
    if (m - 1.0).abs() < 1e-9 { 1.0 } else { m }
}

impl Emitter {
    /// A rectangle by its centre, with its length along one axis of the bay.
    pub fn centred(
        [x, y]: [f64; 2],
        length_mm: f64,
        width_mm: f64,
        along: Axis,
        z_mm: f64,
        flux: f64,
        beam_exponent: f64,
    ) -> Self {
        let (half_x, half_y) = match along {
            Axis::X => (length_mm / 2.0, width_mm / 2.0),
            Axis::Y => (width_mm / 2.0, length_mm / 2.0),
        };
        Self {
            x_mm: [x - half_x, x + half_x],
            y_mm: [y - half_y, y + half_y],
            z_mm,
            flux,
            beam_exponent,
        }
    }

    /// Irradiance on a horizontal surface at (`x_mm`, `y_mm`, `z_mm`), in flux units per m²;
    /// 0 at and above the emitter's own height.
    pub fn irradiance(&self, x_mm: f64, y_mm: f64, z_mm: f64) -> f64 {
        let h = self.z_mm - z_mm;
        if h <= 0.0 {
            return 0.0;
        }
        let x = self.x_mm.map(|edge| edge - x_mm);
        let y = self.y_mm.map(|edge| edge - y_mm);
        let area_m2 = crate::units::area_m2(x[1] - x[0], y[1] - y[0]);
        if self.beam_exponent == 1.0 {
            self.flux / area_m2 * configuration_factor(x, y, h)
        } else {
            // I₀ of flux Φ in the lower half space: Φ = 2π I₀ / (m + 1).
            let m = self.beam_exponent;
            self.flux / area_m2 * (m + 1.0) / TAU * beam_integral(x, y, h, m)
        }
    }
}

/// The configuration factor from a differential element to a parallel rectangle at distance `h`,
/// with edges at `x` and `y` from the foot of the element's normal.
///
/// Source: the standard closed form for an element opposite a rectangle's corner (Howell, A
/// Catalog of Radiation Heat Transfer Configuration Factors, case B-3), summed over the four
/// corners; each edge's two arc tangents are taken together.
fn configuration_factor(x: [f64; 2], y: [f64; 2], h: f64) -> f64 {
    let edge = |a: f64, b: [f64; 2]| {
        let s = (a * a + h * h).sqrt();
        a / s * (s * (b[1] - b[0])).atan2(s * s + b[0] * b[1])
    };
    (edge(x[1], y) - edge(x[0], y) + edge(y[1], x) - edge(y[0], x)) / TAU
}

/// Nodes and weights of Gauss-Legendre rules on [-1, 1].
const GAUSS_2: &[(f64, f64)] = &[
    (-0.577_350_269_189_625_8, 1.0),
    (0.577_350_269_189_625_8, 1.0),
];
const GAUSS_4: &[(f64, f64)] = &[
    (-0.861_136_311_594_052_6, 0.347_854_845_137_453_9),
    (-0.339_981_043_584_856_3, 0.652_145_154_862_546_1),
    (0.339_981_043_584_856_3, 0.652_145_154_862_546_1),
    (0.861_136_311_594_052_6, 0.347_854_845_137_453_9),
];

/// ∫ (h/r)^(m+1) / r² dA over the rectangle.
///
/// Pieces are halved until they are small against their distance (the smaller the narrower the
/// beam), then taken by Gauss-Legendre rules of 2 or 4 points a side; within 0.1 % of the exact value for
/// the beams of lamps (m up to about 10), 0.5 % for pencils of light.
fn beam_integral(x: [f64; 2], y: [f64; 2], h: f64, m: f64) -> f64 {
    let (lx, ly) = (x[1] - x[0], y[1] - y[0]);
    let nearest = |e: [f64; 2]| e[0].max(-e[1]).max(0.0);
    let distance2 = h * h + nearest(x).powi(2) + nearest(y).powi(2);
    // The kernel is about h / sqrt(m + 3) wide.
    let longest = lx.max(ly);
    // So far off the beam that a piece gives next to nothing, however coarsely it is taken.
    let faint = (h * h / distance2).powf((m + 1.0) / 2.0) * lx * ly / distance2 < 1e-12;
    if longest * longest * (m + 3.0) > 4.0 * distance2 && longest > 1e-3 && !faint {
        return if lx >= ly {
            let mid = (x[0] + x[1]) / 2.0;
            beam_integral([x[0], mid], y, h, m) + beam_integral([mid, x[1]], y, h, m)
        } else {
            let mid = (y[0] + y[1]) / 2.0;
            beam_integral(x, [y[0], mid], h, m) + beam_integral(x, [mid, y[1]], h, m)
        };
    }
    // A side that is short against the distance needs fewer nodes: strips are narrow.
    let rule = |side: f64| {
        if side * side * (m + 3.0) < 0.4 * distance2 {
            GAUSS_2
        } else {
            GAUSS_4
        }
    };
    let mut sum = 0.0;
    for &(tx, wx) in rule(lx) {
        let px = (x[0] + x[1] + tx * lx) / 2.0;
        for &(ty, wy) in rule(ly) {
            let py = (y[0] + y[1] + ty * ly) / 2.0;
            let r2 = px * px + py * py + h * h;
            sum += wx * wy * (h * h / r2).powf((m + 1.0) / 2.0) / r2;
        }
    }
    sum * lx * ly / 4.0
}

#[cfg(test)]
mod tests {
    use super::*;

    fn strip(beam_exponent: f64) -> Emitter {
        Emitter {
            x_mm: [0.0, 1150.0],
            y_mm: [-12.0, 13.0],
            z_mm: 25.0,
            flux: 1600.0,
            beam_exponent,
        }
    }

    #[test]
    fn quadrature_and_closed_form_agree_where_both_hold() {
        for (x, y) in [(575.0, 0.0), (-40.0, 60.0), (1149.0, 12.0), (300.0, 250.0)] {
            let closed = strip(1.0).irradiance(x, y, 0.0);
            // So near to 1 that only the way of computing differs.
            let summed = strip(1.0 + 1e-9).irradiance(x, y, 0.0);
            assert!((summed / closed - 1.0).abs() < 1e-3, "{closed} {summed}");
        }
    }

    #[test]
    fn close_under_a_large_face_it_is_the_faces_own_exitance() {
        let face = Emitter {
            x_mm: [-500.0, 500.0],
            y_mm: [-500.0, 500.0],
            z_mm: 1.0,
            flux: 1000.0,
            beam_exponent: 1.0,
        };
        assert!((face.irradiance(0.0, 0.0, 0.0) - 1000.0).abs() < 1.0);
    }

    #[test]
    fn far_away_it_is_a_point_source() {
        for m in [1.0, 2.5, 6.0] {
            let lamp = strip(m);
            let far = lamp.irradiance(575.0, 0.0, -50_000.0);
            let r_m = 50.025;
            let point = 1600.0 * (m + 1.0) / TAU / (r_m * r_m);
            assert!((far / point - 1.0).abs() < 1e-3, "m {m}: {far} {point}");
        }
    }

    #[test]
    fn nothing_above_its_own_face() {
        assert_eq!(strip(1.0).irradiance(575.0, 0.0, 25.0), 0.0);
        assert_eq!(strip(3.0).irradiance(575.0, 0.0, 90.0), 0.0);
    }
}
