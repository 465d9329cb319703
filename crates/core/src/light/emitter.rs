//! Direct light from a lamp's emitting face: a flat rectangle that faces down, a bare tube, or a
//! rectangle with a measured distribution.

use std::f64::consts::PI;
use std::sync::Arc;

use fearless_simd::Simd;

use crate::basis::plane::Axis;
use crate::light::beam::{Beam, beam_factor, configuration_factor, mirrored, side_factor};
use crate::light::facing::Facing;
use crate::light::measured::measured_light;
use crate::light::photometry::Photometry;
use crate::light::quadrature::Closeness;

/// An emitting face; lengths in mm.
#[derive(Debug, Clone, PartialEq)]
pub struct Emitter {
    /// Left and right edge.
    pub x_mm: [f64; 2],
    /// Front and back edge.
    pub y_mm: [f64; 2],
    /// Height of the face.
    pub z_mm: f64,
    /// All that it emits, in lm, µmol/s or any unit; irradiance comes out in that unit per m².
    pub flux: f64,
    /// Where it sends it.
    pub optics: Optics,
}

/// Where an emitting face sends its light.
#[derive(Debug, Clone, PartialEq)]
pub enum Optics {
    /// Downwards, as I₀ cosᵐθ.
    Beam(Beam),
    /// All round a tube whose length runs along an axis, as cosψ of the elevation off its normal.
    Tube(Axis),
    /// As measured.
    Measured(Arc<Photometry>),
}

/// The thickness of a tube, nearer than which nothing is reckoned.
const TUBE_RADIUS_MM: f64 = 13.0;

impl Emitter {
    /// A rectangle by its centre, with its length along one axis of the bay.
    pub fn centred(
        [x, y]: [f64; 2],
        length_mm: f64,
        width_mm: f64,
        along: Axis,
        z_mm: f64,
        flux: f64,
        optics: Optics,
    ) -> Self {
        let [half_x, half_y] = along.lay(length_mm, width_mm).map(|mm| mm / 2.0);
        Self {
            x_mm: [x - half_x, x + half_x],
            y_mm: [y - half_y, y + half_y],
            z_mm,
            flux,
            optics,
        }
    }

    /// Whether light of it goes up too.
    pub fn shines_up(&self) -> bool {
        match &self.optics {
            Optics::Beam(_) => false,
            Optics::Tube(_) => true,
            Optics::Measured(photometry) => photometry.shines_up(),
        }
    }

    /// Irradiance at `point` (x, y, z in mm) on a surface that faces `facing`, in flux units per m².
    ///
    /// A face of beam exponent 1 and a tube have closed forms ([`configuration_factor`]; a line source of
    /// cosine intensity by its integral); other beams are summed across one side, and measured faces over
    /// points of both, within 0.5 %. `flux` in lm gives lux, in µmol/s PPFD.
    pub fn irradiance(&self, point: [f64; 3], facing: Facing) -> f64 {
        self.arriving(point, facing, Closeness::Close)
    }

    /// The same, no closer than what is averaged over a wall needs.
    pub(super) fn irradiance_of_wall(&self, point: [f64; 3], facing: Facing) -> f64 {
        self.arriving(point, facing, Closeness::Loose)
    }

    /// Adds the light on level surfaces at `points`, `gap_mm` under the face, to what is at each of them.
    #[inline(always)]
    pub(super) fn add_level<S: Simd>(
        &self,
        _: S,
        points: &[(f64, f64)],
        gap_mm: f64,
        light: &mut [f64],
    ) {
        let each = points.iter().zip(light);
        if let Optics::Beam(beam) = &self.optics
            && beam.exponent() == 1.0
            && gap_mm > 0.0
        {
            let ([x, y], exitance) = ([self.x_mm, self.y_mm], self.exitance());
            // As in `beam_light`, without a branch within, so that it goes through vector instructions.
            for (&(px, py), sum) in each {
                let (x, y) = ([x[0] - px, x[1] - px], [y[0] - py, y[1] - py]);
                *sum += exitance * configuration_factor(x, y, gap_mm) * 1e6;
            }
            return;
        }
        let z_mm = self.z_mm - gap_mm;
        for (&(px, py), sum) in each {
            *sum += self.irradiance([px, py, z_mm], Facing::Up);
        }
    }

    fn arriving(&self, point: [f64; 3], facing: Facing, closeness: Closeness) -> f64 {
        let x = self.x_mm.map(|edge| edge - point[0]);
        let y = self.y_mm.map(|edge| edge - point[1]);
        let h = self.z_mm - point[2];
        let per_mm2 = match &self.optics {
            Optics::Beam(beam) => self.beam_light(beam, x, y, h, facing),
            Optics::Tube(along) => self.tube_light(*along, x, y, h, facing),
            Optics::Measured(photometry) => {
                self.flux * measured_light(photometry, [x, y], h, facing, closeness)
            }
        };
        per_mm2 * 1e6
    }

    /// What each mm² of it sends out.
    fn exitance(&self) -> f64 {
        let [x, y] = [self.x_mm, self.y_mm].map(|edges| edges[1] - edges[0]);
        self.flux / (x * y)
    }

    fn beam_light(&self, beam: &Beam, x: [f64; 2], y: [f64; 2], h: f64, facing: Facing) -> f64 {
        if h <= 0.0 {
            return 0.0;
        }
        let exitance = self.exitance();
        match facing {
            Facing::Down => 0.0,
            Facing::Up if beam.exponent() == 1.0 => exitance * configuration_factor(x, y, h),
            Facing::Up => exitance * beam_factor(beam, x, y, h),
            Facing::Right => exitance * side_factor(beam, x, y, h),
            Facing::Left => exitance * side_factor(beam, mirrored(x), y, h),
            Facing::Back => exitance * side_factor(beam, y, x, h),
            Facing::Front => exitance * side_factor(beam, mirrored(y), x, h),
        }
    }

    /// A line whose intensity per length is I' cosψ: Φ = π² I' l for a tube of length l.
    fn tube_light(&self, along: Axis, x: [f64; 2], y: [f64; 2], h: f64, facing: Facing) -> f64 {
        let (run, across) = match along {
            Axis::X => (x, (y[0] + y[1]) / 2.0),
            Axis::Y => (y, (x[0] + x[1]) / 2.0),
        };
        let intensity = self.flux / (PI * PI * (run[1] - run[0]));
        let s = across.hypot(h).max(TUBE_RADIUS_MM);
        let (axis, sign) = facing.normal();
        let own = if along == Axis::X { 0 } else { 1 };
        if axis == own {
            let run = if sign > 0.0 { run } else { mirrored(run) };
            let [a, b] = run.map(|edge| s * s + edge.max(0.0).powi(2));
            return intensity * s * (1.0 / a - 1.0 / b) / 2.0;
        }
        let ahead = sign * if axis == 2 { h } else { across };
        if ahead <= 0.0 {
            return 0.0;
        }
        let upto = |edge: f64| {
            edge / (2.0 * s * s * (s * s + edge * edge)) + (edge / s).atan() / (2.0 * s * s * s)
        };
        intensity * s * ahead * (upto(run[1]) - upto(run[0]))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::f64::consts::TAU;

    fn strip(beam_exponent: f64) -> Emitter {
        Emitter {
            x_mm: [0.0, 1150.0],
            y_mm: [-12.0, 13.0],
            z_mm: 25.0,
            flux: 1600.0,
            optics: Optics::Beam(Beam::new(beam_exponent)),
        }
    }

    const ROUND: [Facing; 5] = [
        Facing::Up,
        Facing::Right,
        Facing::Left,
        Facing::Back,
        Facing::Front,
    ];

    #[test]
    fn table_and_closed_form_agree_where_both_hold() {
        for (x, y) in [(575.0, 0.0), (-40.0, 60.0), (1149.0, 12.0), (300.0, 250.0)] {
            for facing in ROUND {
                let closed = strip(1.0).irradiance([x, y, 0.0], facing);
                // So near to 1 that only the way of computing differs.
                let summed = strip(1.0 + 1e-9).irradiance([x, y, 0.0], facing);
                assert!(
                    (summed - closed).abs() < 2e-3 * closed + 1e-6,
                    "{closed} {summed}"
                );
            }
        }
    }

    #[test]
    fn close_under_a_large_face_it_is_the_faces_own_exitance() {
        let face = Emitter {
            x_mm: [-500.0, 500.0],
            y_mm: [-500.0, 500.0],
            z_mm: 1.0,
            flux: 1000.0,
            optics: Optics::Beam(Beam::new(1.0)),
        };
        assert!((face.irradiance([0.0; 3], Facing::Up) - 1000.0).abs() < 1.0);
    }

    #[test]
    fn far_away_it_is_a_point_source() {
        for m in [0.5, 1.0, 2.5, 6.0, 40.0] {
            let lamp = strip(m);
            let far = lamp.irradiance([575.0, 0.0, -50_000.0], Facing::Up);
            let r_m = 50.025;
            let point = 1600.0 * (m + 1.0) / TAU / (r_m * r_m);
            assert!((far / point - 1.0).abs() < 1e-3, "m {m}: {far} {point}");
        }
    }

    #[test]
    fn nothing_above_its_own_face() {
        for facing in ROUND {
            assert_eq!(strip(1.0).irradiance([575.0, 0.0, 25.0], facing), 0.0);
            assert_eq!(strip(3.0).irradiance([575.0, 0.0, 90.0], facing), 0.0);
        }
    }

    /// What goes through the five sides of a box below the face, summed over small squares.
    fn caught(lamp: &Emitter, up: bool) -> f64 {
        let (lo, hi, n) = ([-400.0, -350.0, -300.0], [600.0, 450.0, 500.0], 160);
        let mut facings = ROUND.to_vec();
        if up {
            facings.push(Facing::Down);
        }
        facings
            .into_iter()
            .map(|facing| {
                let (axis, sign) = facing.normal();
                let (u, v) = ((axis + 1) % 3, (axis + 2) % 3);
                let step = |i: usize| (hi[i] - lo[i]) / n as f64;
                let mut sum = 0.0;
                for i in 0..n {
                    for j in 0..n {
                        let mut point = [0.0; 3];
                        point[axis] = if sign > 0.0 { lo[axis] } else { hi[axis] };
                        point[u] = lo[u] + (i as f64 + 0.5) * step(u);
                        point[v] = lo[v] + (j as f64 + 0.5) * step(v);
                        sum += lamp.irradiance(point, facing);
                    }
                }
                sum * step(u) * step(v) / 1e6
            })
            .sum()
    }

    #[test]
    fn all_that_is_emitted_arrives_somewhere() {
        let base = Emitter {
            x_mm: [-100.0, 250.0],
            y_mm: [20.0, 60.0],
            z_mm: 100.0,
            flux: 1000.0,
            optics: Optics::Beam(Beam::new(1.0)),
        };
        for m in [1.0, 0.6, 2.0, 5.5] {
            let optics = Optics::Beam(Beam::new(m));
            let lamp = Emitter {
                optics,
                ..base.clone()
            };
            let sum = caught(&lamp, false);
            assert!((sum / 1000.0 - 1.0).abs() < 3e-3, "m {m}: {sum}");
        }
        for along in [Axis::X, Axis::Y] {
            let optics = Optics::Tube(along);
            let lamp = Emitter {
                optics,
                ..base.clone()
            };
            let sum = caught(&lamp, true);
            assert!((sum / 1000.0 - 1.0).abs() < 3e-3, "tube {along:?}: {sum}");
        }
    }
}
