//! How far a fan is felt.

use std::f64::consts::PI;

/// Where the rule comes from.
pub const SOURCE: &str = "free round jet: ASHRAE Fundamentals, space air diffusion (from memory); a fan's share of it is our own estimate";

/// How slowly a free round jet fades: its centre moves at K V₀ √A₀ / x.
///
/// Source: ASHRAE Fundamentals, space air diffusion (from memory: about 6 for free round openings
/// above 2.5 m/s, 5 below).
const FADES: f64 = 5.0;
/// A fan's air swirls and spreads wider than a nozzle's: it keeps so much of its throw (our own
/// estimate).
const OF_A_NOZZLE: f64 = 0.6;

/// The speed of the air in m/s at `distance_mm` from a fan `diameter_mm` across that moves
/// `flow_m3_h`, in the middle of its stream.
///
/// A free round jet: its middle keeps its speed over the core and falls off with the distance behind
/// it. Source: [`SOURCE`].
///
/// ```
/// use sunrise_core::air::fan::speed_m_s;
/// // A clip-on fan stirs leaves at the far end of a shelf.
/// assert!(speed_m_s(150.0, 180.0, 1200.0) > 0.5);
/// ```
pub fn speed_m_s(diameter_mm: f64, flow_m3_h: f64, distance_mm: f64) -> f64 {
    let diameter_m = diameter_mm / 1000.0;
    let area = PI / 4.0 * diameter_m * diameter_m;
    if area <= 0.0 {
        return 0.0;
    }
    let at_blades = flow_m3_h / 3600.0 / area;
    let faded = OF_A_NOZZLE * FADES * at_blades * area.sqrt() / (distance_mm / 1000.0).max(1e-3);
    faded.min(at_blades)
}

/// How far its stream still moves at `speed_m_s`, in mm.
///
/// [`speed_m_s`] turned round; see there for the source.
pub fn reach_mm(diameter_mm: f64, flow_m3_h: f64, speed: f64) -> f64 {
    let diameter_m = diameter_mm / 1000.0;
    let area = PI / 4.0 * diameter_m * diameter_m;
    if area <= 0.0 || speed <= 0.0 {
        return 0.0;
    }
    let at_blades = flow_m3_h / 3600.0 / area;
    if at_blades < speed {
        return 0.0;
    }
    1000.0 * OF_A_NOZZLE * FADES * at_blades * area.sqrt() / speed
}

/// What a fan of this size must move for its stream to have `speed_m_s` at `distance_mm`, in m³/h.
///
/// [`speed_m_s`] turned round; see there for the source.
pub fn flow_for_m3_h(diameter_mm: f64, distance_mm: f64, speed_m_s: f64) -> f64 {
    let diameter_m = diameter_mm / 1000.0;
    let area = PI / 4.0 * diameter_m * diameter_m;
    let faded = speed_m_s * (distance_mm / 1000.0) / (OF_A_NOZZLE * FADES * area.sqrt());
    3600.0 * area * faded.max(speed_m_s)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn reach_and_speed_are_each_others_inverse() {
        for (d, q) in [(120.0, 70.0), (150.0, 180.0), (400.0, 2200.0)] {
            let reach = reach_mm(d, q, 0.3);
            assert!((speed_m_s(d, q, reach) - 0.3).abs() < 1e-9);
            assert!((flow_for_m3_h(d, reach, 0.3) - q).abs() < 1e-9 * q);
        }
        assert!(reach_mm(400.0, 2200.0, 0.3) > reach_mm(120.0, 70.0, 0.3));
        assert_eq!(reach_mm(400.0, 10.0, 0.3), 0.0);
    }
}
