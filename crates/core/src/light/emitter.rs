//! Direct light from a lamp's emitting face: a flat rectangle that faces down, a bare tube, or a
//! rectangle with a measured distribution.

use std::f64::consts::{FRAC_PI_2, LN_2, PI, TAU};
use std::sync::Arc;

use super::angle::{angle, angle_over};
use super::photometry::{Hemisphere, Photometry};
use super::quadrature::{Closeness, four, graded, nearest, pieces};
use crate::room::Axis;

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

/// A direction that a surface faces.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Facing {
    /// The ceiling's.
    Down,
    /// A tray's.
    Up,
    /// The left wall's, towards +x.
    Right,
    /// The right wall's, towards -x.
    Left,
    /// The front's, towards +y.
    Back,
    /// The back wall's, towards -y.
    Front,
}

impl Facing {
    /// The axis of its normal (0 x, 1 y, 2 z) and the normal's sign along it.
    pub fn normal(self) -> (usize, f64) {
        match self {
            Self::Right => (0, 1.0),
            Self::Left => (0, -1.0),
            Self::Back => (1, 1.0),
            Self::Front => (1, -1.0),
            Self::Up => (2, 1.0),
            Self::Down => (2, -1.0),
        }
    }
}

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
/// use sunrise_core::light::emitter::beam_exponent;
/// assert_eq!(beam_exponent(120.0), 1.0);
/// assert!((beam_exponent(90.0) - 2.0).abs() < 1e-9);
/// ```
pub fn beam_exponent(beam_deg: f64) -> f64 {
    let m = -LN_2 / (beam_deg / 2.0).to_radians().cos().ln();
    // 120° is Lambertian by definition; rounding must not cost it the closed form.
    if (m - 1.0).abs() < 1e-9 { 1.0 } else { m }
}

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

/// `x` to the power `m`; whole and half powers, which many lamps have, are quick.
fn raised(x: f64, m: f64) -> f64 {
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
    pub fn irradiance(&self, point: [f64; 3], facing: Facing) -> f64 {
        self.arriving(point, facing, Closeness::Close)
    }

    /// The same, no closer than what is averaged over a wall needs.
    pub(super) fn irradiance_of_wall(&self, point: [f64; 3], facing: Facing) -> f64 {
        self.arriving(point, facing, Closeness::Loose)
    }

    fn arriving(&self, point: [f64; 3], facing: Facing, closeness: Closeness) -> f64 {
        let x = self.x_mm.map(|edge| edge - point[0]);
        let y = self.y_mm.map(|edge| edge - point[1]);
        let h = self.z_mm - point[2];
        let per_mm2 = match &self.optics {
            Optics::Beam(beam) => self.beam_light(beam, x, y, h, facing),
            Optics::Tube(along) => self.tube_light(*along, x, y, h, facing),
            Optics::Measured(photometry) => {
                self.measured_light(photometry, [x, y], h, facing, closeness)
            }
        };
        per_mm2 * 1e6
    }

    fn beam_light(&self, beam: &Beam, x: [f64; 2], y: [f64; 2], h: f64, facing: Facing) -> f64 {
        if h <= 0.0 {
            return 0.0;
        }
        let exitance = self.flux / ((x[1] - x[0]) * (y[1] - y[0]));
        match facing {
            Facing::Down => 0.0,
            Facing::Up if beam.exponent == 1.0 => exitance * configuration_factor(x, y, h),
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

    /// Summed over points of the face, close enough together for their distance.
    fn measured_light(
        &self,
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
        self.flux * sum / area
    }
}

/// An interval seen in a mirror at 0.
fn mirrored(span: [f64; 2]) -> [f64; 2] {
    [-span[1], -span[0]]
}

/// The configuration factor from a differential element to a parallel rectangle at distance `h`,
/// with edges at `x` and `y` from the foot of the element's normal.
///
/// Source: the standard closed form for an element opposite a rectangle's corner (Howell, A
/// Catalog of Radiation Heat Transfer Configuration Factors, case B-3), summed over the four
/// corners; each edge's two arc tangents are taken together.
pub fn configuration_factor(x: [f64; 2], y: [f64; 2], h: f64) -> f64 {
    let edge = |a: f64, b: [f64; 2]| {
        let s = (a * a + h * h).sqrt();
        a / s * angle_over(s * (b[1] - b[0]), s * s + b[0] * b[1])
    };
    // Far to its side the four edges all but cancel: what is left of rounding is no light.
    ((edge(x[1], y) - edge(x[0], y) + edge(y[1], x) - edge(y[0], x)) / TAU).max(0.0)
}

/// The same for a beam: (m + 1)/2π ∫ h^(m+1) / r^(m+3) dA, in closed form along the longer side
/// and by Gauss's rule across.
fn beam_factor(beam: &Beam, x: [f64; 2], y: [f64; 2], h: f64) -> f64 {
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
fn side_factor(beam: &Beam, ahead: [f64; 2], beside: [f64; 2], h: f64) -> f64 {
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

#[cfg(test)]
mod tests {
    use super::*;

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
