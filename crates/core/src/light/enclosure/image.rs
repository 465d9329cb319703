//! Whether a bay is its own image in a mirror: half of it tells the light of the other half then.

use crate::light::emitter::{Emitter, Optics};
use crate::light::enclosure::wall::{Faces, Wall};
use crate::light::facing::Facing;

/// So far off its image a face still stands for it.
const APART_MM: f64 = 1e-6;

/// Whether a box of `size_mm` with these `walls`, these `emitters` in it, and faces that `glow`, is its own
/// image in a mirror across x, and across y.
pub(super) fn its_own_image(
    size_mm: [f64; 2],
    walls: &[Wall],
    emitters: &[Emitter],
    glow: Faces<f64>,
) -> [bool; 2] {
    let share = |looks: Facing| {
        let wall = walls.iter().find(|wall| wall.looks == looks);
        wall.map(|wall| wall.reflectance)
    };
    let alike = |(a, b)| share(a) == share(b);
    let walls = [(Facing::Right, Facing::Left), (Facing::Back, Facing::Front)].map(alike);
    let glows = [glow.left == glow.right, glow.front == glow.back];
    // What was measured may send more to one side than to the other.
    let even = |e: &Emitter| !matches!(e.optics, Optics::Measured(_));
    let has_image = |axis: usize, own: &Emitter| {
        let [from, to] = edges(own)[axis];
        let image = [size_mm[axis] - to, size_mm[axis] - from];
        emitters.iter().any(|other| {
            let mut wanted = edges(own);
            wanted[axis] = image;
            let there = wanted
                .iter()
                .flatten()
                .zip(edges(other).into_iter().flatten());
            there.into_iter().all(|(a, b)| (a - b).abs() < APART_MM)
                && own.z_mm == other.z_mm
                && own.flux == other.flux
                && own.optics == other.optics
        })
    };
    [0, 1].map(|axis| {
        walls[axis] && glows[axis] && emitters.iter().all(|own| even(own) && has_image(axis, own))
    })
}

fn edges(emitter: &Emitter) -> [[f64; 2]; 2] {
    [emitter.x_mm, emitter.y_mm]
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::light::beam::Beam;
    use crate::light::enclosure::wall::{LOOKS, across};

    fn lamp(x: [f64; 2], y: [f64; 2], flux: f64) -> Emitter {
        Emitter {
            x_mm: x,
            y_mm: y,
            z_mm: 300.0,
            flux,
            optics: Optics::Beam(Beam::new(1.0)),
        }
    }

    #[test]
    fn lamps_that_hang_evenly_between_like_sides_are_their_own_image() {
        let like = |front: f64| -> Vec<Wall> {
            let wall = |looks| Wall {
                looks,
                axes: across(looks.normal().0),
                plane_mm: 0.0,
                reflectance: if looks == Facing::Back { front } else { 0.9 },
                first: 0,
            };
            LOOKS.map(wall).into()
        };
        let of = |walls: &[Wall], lamps: &[Emitter]| {
            its_own_image([1200.0, 600.0], walls, lamps, Faces::default())
        };
        let along = [25.0, 1175.0];
        let two = [
            lamp(along, [130.0, 170.0], 50.0),
            lamp(along, [430.0, 470.0], 50.0),
        ];
        assert_eq!(of(&like(0.9), &two), [true, true]);
        assert_eq!(of(&like(0.0), &two), [true, false]);
        // One is nearer to the front, or brighter, or pushed to one side.
        let near = [two[0].clone(), lamp(along, [400.0, 440.0], 50.0)];
        assert_eq!(of(&like(0.9), &near), [true, false]);
        let brighter = [two[0].clone(), lamp(along, [430.0, 470.0], 60.0)];
        assert_eq!(of(&like(0.9), &brighter), [true, false]);
        let pushed = [lamp([0.0, 1150.0], [280.0, 320.0], 50.0)];
        assert_eq!(of(&like(0.9), &pushed), [false, true]);
    }
}
