//! View factors between rectangles that face one another or stand at right angles.
//!
//! Both are sums over the rectangles' corners, so a face cut into a grid of patches needs the
//! corner function once for each pair of grid lines, not sixteen times for each pair of patches.

use std::f64::consts::TAU;

/// x ln x² with its limit at 0.
fn square_log(coefficient: f64, square: f64) -> f64 {
    if square <= 0.0 {
        0.0
    } else {
        coefficient * square.ln()
    }
}

/// The corner function of two parallel rectangles at distance `z`, for corners `dx` and `dy` apart.
///
/// Source: Howell, A Catalog of Radiation Heat Transfer Configuration Factors, case C-13.
pub fn parallel_corner(dx: f64, dy: f64, z: f64) -> f64 {
    let part = |a: f64, b: f64| {
        let s = (b * b + z * z).sqrt();
        if s > 0.0 { a * s * (a / s).atan() } else { 0.0 }
    };
    let square = dx * dx + dy * dy + z * z;
    (part(dy, dx) + part(dx, dy) - square_log(z * z / 2.0, square)) / TAU
}

/// The corner function of two rectangles at right angles whose corners lie `x` and `z` from the
/// edge that their planes share, and `dy` apart along it.
///
/// Source: Howell, case C-15.
pub fn perpendicular_corner(x: f64, z: f64, dy: f64) -> f64 {
    let c2 = x * x + z * z;
    let c = c2.sqrt();
    let turn = if c > 0.0 {
        dy * c * (dy / c).atan()
    } else {
        0.0
    };
    (turn - square_log((c2 - dy * dy) / 4.0, c2 + dy * dy)) / TAU
}

#[cfg(test)]
mod tests {
    use super::*;

    /// A₁F₁₂ of two equal squares of side 1 opposite one another at distance 1.
    #[test]
    fn opposite_and_adjoining_faces_of_a_cube_have_the_textbook_factors() {
        let sign = |i: usize| if i == 0 { -1.0 } else { 1.0 };
        let ends = [0.0, 1.0];
        let (mut opposite, mut adjoining) = (0.0, 0.0);
        for (i, a) in ends.iter().enumerate() {
            for (j, b) in ends.iter().enumerate() {
                for (k, c) in ends.iter().enumerate() {
                    for (l, d) in ends.iter().enumerate() {
                        let s = sign(i) * sign(j) * sign(k) * sign(l);
                        opposite += s * parallel_corner(a - b, c - d, 1.0);
                        adjoining += s * perpendicular_corner(*a, *b, c - d);
                    }
                }
            }
        }
        // Incropera & DeWitt, Fundamentals of Heat and Mass Transfer (from memory): 0.1998, 0.2000.
        assert!((opposite.abs() - 0.199_825).abs() < 1e-6, "{opposite}");
        assert!((adjoining.abs() - 0.200_044).abs() < 1e-6, "{adjoining}");
        // One opposite and four adjoining faces see all that a face sends out.
        assert!((opposite.abs() + 4.0 * adjoining.abs() - 1.0).abs() < 1e-9);
    }
}
