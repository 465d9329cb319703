//! Faces cut into patches, patches cut finer, and what straight light falls on the pieces.

use std::f64::consts::PI;

use crate::basis::work::go_on;
use crate::light::emitter::{Emitter, Optics};
use crate::light::enclosure::wall::Wall;
use crate::light::measured::LOOSE_NEAREST_MM;
use crate::light::quadrature::{nearest, two};

/// Lines from 0 to `side`, about `patch_mm` apart in the middle and closer towards both ends,
/// where the light changes fastest.
pub(super) fn grid_lines(side: f64, patch_mm: f64) -> Vec<f64> {
    const GRADING: f64 = 0.8;
    let n = ((side / patch_mm).ceil() as usize).clamp(5, 48) + 1;
    (0..=n)
        .map(|i| {
            let even = i as f64 / n as f64;
            let graded = (1.0 - (PI * even).cos()) / 2.0;
            side * ((1.0 - GRADING) * even + GRADING * graded)
        })
        .collect()
}

/// The patches of a wall cut into smaller cells along one axis.
pub(super) struct Cuts {
    /// Where the cells end.
    pub(super) lines: Vec<f64>,
    /// The patch that each cell belongs to.
    pub(super) patch: Vec<usize>,
    /// The two patches whose middles each cell lies between, and how far towards the second.
    pub(super) between: Vec<(usize, usize, f64)>,
    /// How many patches there are along the axis.
    pub(super) patches: usize,
}

impl Cuts {
    /// Each patch of an upright wall is halved: what comes back from elsewhere changes too much
    /// over the whole of it. A wall is dark above a face that shines down and bright soon below
    /// it: no even patch follows that, so it is cut there too.
    pub(super) fn new(lines: &[f64], axis: usize, upright: bool, emitters: &[Emitter]) -> Self {
        const BELOW_MM: [f64; 5] = [0.0, 8.0, 20.0, 45.0, 90.0];
        const APART_MM: f64 = 4.0;
        let mut cut = lines.to_vec();
        let mut add = |at: f64| {
            let inside = at > 0.0 && at < lines[lines.len() - 1];
            if inside && cut.iter().all(|line| (line - at).abs() >= APART_MM) {
                cut.push(at);
            }
        };
        if axis == 2 {
            let mut faces: Vec<f64> = emitters.iter().map(|e| e.z_mm).collect();
            faces.sort_by(f64::total_cmp);
            faces.dedup_by(|a, b| (*a - *b).abs() < APART_MM);
            for below in BELOW_MM {
                faces.iter().for_each(|z| add(z - below));
            }
        }
        if upright {
            for patch in lines.windows(2) {
                add((patch[0] + patch[1]) / 2.0);
            }
        }
        cut.sort_by(f64::total_cmp);
        let patches = lines.len() - 1;
        let middle = |piece: &[f64]| (piece[0] + piece[1]) / 2.0;
        let middles: Vec<f64> = lines.windows(2).map(middle).collect();
        let patch = |strip: &[f64]| lines.partition_point(|&line| line < middle(strip)) - 1;
        let between = |strip: &[f64]| {
            let at = middle(strip);
            let next = middles.partition_point(|&m| m < at).clamp(1, patches - 1);
            let share = (at - middles[next - 1]) / (middles[next] - middles[next - 1]);
            (next - 1, next, share.clamp(0.0, 1.0))
        };
        Self {
            patch: cut.windows(2).map(patch).collect(),
            between: cut.windows(2).map(between).collect(),
            lines: cut,
            patches,
        }
    }

    /// How long the cell at `index` is along the axis.
    pub(super) fn length_mm(&self, index: usize) -> f64 {
        self.lines[index + 1] - self.lines[index]
    }
}

/// What a patch of a wall gets straight from an emitter, in flux units times mm² / m².
pub(super) fn received(emitter: &Emitter, wall: &Wall, sides: [[f64; 2]; 2], depth: u32) -> f64 {
    let [u, v] = sides;
    go_on();
    let mut bounds = [[0.0; 2]; 3];
    bounds[wall.axes[0]] = u;
    bounds[wall.axes[1]] = v;
    bounds[wall.normal()] = [wall.plane_mm; 2];
    let lamp = [emitter.x_mm, emitter.y_mm, [emitter.z_mm; 2]];
    let away: f64 = (0..3)
        .map(|i| nearest([lamp[i][0] - bounds[i][1], lamp[i][1] - bounds[i][0]]).powi(2))
        .sum::<f64>()
        .sqrt();
    let (sharp, away) = match &emitter.optics {
        Optics::Beam(beam) => ((4.0 / (beam.exponent() + 3.0)).sqrt(), away),
        Optics::Tube(_) => (1.0, away),
        // Summed up point by point: a wall that a lamp all but touches is cut no finer.
        Optics::Measured(_) => (1.0, away.max(LOOSE_NEAREST_MM)),
    };
    let (lu, lv) = (u[1] - u[0], v[1] - v[0]);
    const DEEPEST: u32 = 8;
    if lu.max(lv) > 1.3 * sharp * away && depth < DEEPEST {
        let halves = |side: [f64; 2]| {
            let middle = (side[0] + side[1]) / 2.0;
            [[side[0], middle], [middle, side[1]]]
        };
        return if lu > lv {
            let part = |u| received(emitter, wall, [u, v], depth + 1);
            halves(u).into_iter().map(part).sum()
        } else {
            let part = |v| received(emitter, wall, [u, v], depth + 1);
            halves(v).into_iter().map(part).sum()
        };
    }
    let at = |a: f64, b: f64| {
        let mut point = [0.0; 3];
        point[wall.axes[0]] = a;
        point[wall.axes[1]] = b;
        point[wall.normal()] = wall.plane_mm;
        emitter.irradiance_of_wall(point, wall.looks)
    };
    // One look at its middle does for what lies far enough off; a measured lamp's is dear.
    let far = match &emitter.optics {
        Optics::Measured(_) => 0.8,
        _ => 0.5,
    };
    if lu.max(lv) < far * sharp * away {
        return lu * lv * at((u[0] + u[1]) / 2.0, (v[0] + v[1]) / 2.0);
    }
    two(u, |a| two(v, |b| at(a, b)))
}
