//! A quick arc tangent for sums over thousands of corners.

use std::f64::consts::{FRAC_PI_2, PI};

use fearless_simd::{Simd, f32x8, prelude::*};

/// By the first, third, ... power of the tangent, up to 1, less the first.
///
/// Source: Abramowitz & Stegun, Handbook of Mathematical Functions, 4.4.49 (from memory).
const SERIES: [f64; 8] = [
    -0.333_331_452_8,
    0.199_935_508_5,
    -0.142_088_994_4,
    0.106_562_639_3,
    -0.075_289_640_0,
    0.042_909_613_8,
    -0.016_165_736_7,
    0.002_866_225_7,
];

/// The angle whose tangent is `y` / `s`, `s` > 0, within 2e-8: one division and no branch, so that whole rows
/// go through vector instructions.
#[inline(always)]
pub fn angle(y: f64, s: f64) -> f64 {
    let size = y.abs();
    let t = size.min(s) / size.max(s);
    let t2 = t * t;
    let series = SERIES.iter().rev().fold(0.0, |sum, part| sum * t2 + part);
    let sharp = t + t * t2 * series;
    let turn = if size > s { FRAC_PI_2 - sharp } else { sharp };
    turn.copysign(y)
}

/// The same for several at once, within 2e-7.
#[inline(always)]
pub fn angles<S: Simd>(simd: S, y: f32x8<S>, s: f32x8<S>) -> f32x8<S> {
    let all = |value: f64| f32x8::splat(simd, value as f32);
    let size = y.abs();
    let t = size.min(s) / size.max(s);
    let t2 = t * t;
    // By pairs: none waits for the one before it.
    let t4 = t2 * t2;
    let pair = |i: usize| all(SERIES[i]) + all(SERIES[i + 1]) * t2;
    let series = (pair(0) + pair(2) * t4) + (pair(4) + pair(6) * t4) * (t4 * t4);
    let sharp = t + t * t2 * series;
    let turn = size.simd_gt(s).select(all(FRAC_PI_2) - sharp, sharp);
    turn.copysign(y)
}

/// The angle from 0 to π whose tangent is `y` / `x`, `y` > 0: [`angle`] over the half circle.
#[inline(always)]
pub fn angle_over(y: f64, x: f64) -> f64 {
    let sharp = angle(y, x.abs());
    if x < 0.0 { PI - sharp } else { sharp }
}

#[cfg(test)]
mod tests {
    use fearless_simd::{Level, dispatch};

    use super::*;

    #[test]
    fn over_the_half_circle_it_is_the_arc_tangent_of_two() {
        for i in -40..=40 {
            let x = f64::from(i) * 0.1;
            for y in [0.001, 0.7, 13.0] {
                assert!((angle_over(y, x) - y.atan2(x)).abs() < 2.1e-8, "{y} / {x}");
            }
        }
    }

    #[test]
    fn it_is_the_arc_tangent() {
        for i in -4000..=4000 {
            let y = f64::from(i) * 0.01;
            for s in [0.001, 0.7, 13.0] {
                let off = angle(y, s) - (y / s).atan();
                assert!(off.abs() < 2.1e-8, "{y} / {s}: {off}");
            }
        }
    }

    #[test]
    fn several_at_once_are_the_arc_tangent_of_each() {
        for i in -500..=500 {
            let y: [f32; 8] = std::array::from_fn(|k| (8 * i + k as i32) as f32 * 0.01);
            for s in [0.001, 0.7, 13.0] {
                let all = dispatch!(Level::new(), simd => {
                    let [y, s] = [f32x8::load_array(simd, y), f32x8::splat(simd, s)];
                    angles(simd, y, s).to_array()
                });
                for (own, y) in all.iter().zip(y) {
                    let off = f64::from(*own) - f64::from(y / s).atan();
                    assert!(off.abs() < 2e-7, "{y} / {s}: {off}");
                }
            }
        }
    }
}
