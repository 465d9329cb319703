//! How far a fan is felt.

use std::f64::consts::PI;

use crate::room::{Fan, Place};

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

/// What lies beside the middle of a stream gets so much of its speed (our own estimate).
const BESIDE: f64 = 0.5;
/// A fan that turns sweeps over a spot for so much of the time (our own estimate).
const SWEEPS: f64 = 1.0 / 3.0;
/// Nearer than this nothing stands before a fan.
const NEAR_MM: f64 = 150.0;

/// The fans over `tier` of `place`, each with the share of the days on which it is there: some are carried from
/// one tier to the next.
pub fn fans_over(place: &Place, tier: usize) -> impl Iterator<Item = (&Fan, f64)> {
    let id = &place.tiers[tier].id;
    let all = place
        .tiers
        .iter()
        .flat_map(|own| own.fans.iter().map(move |fan| (own, fan)));
    let here = all.filter(move |(own, fan)| own.id == *id || fan.by_turns.contains(id));
    here.map(|(_, fan)| (fan, days_there(fan)))
}

/// The share of the days on which a fan is on each of its tiers.
fn days_there(fan: &Fan) -> f64 {
    1.0 / (1.0 + fan.by_turns.len() as f64)
}

/// What `fan`, moving `flow_m3_h`, brings to the far end of a deck `width_mm` wide, on the mean of the days, in m/s.
pub fn at_far_end_m_s(fan: &Fan, flow_m3_h: f64, width_mm: f64) -> f64 {
    let farthest_mm = fan.x_mm.max(width_mm - fan.x_mm);
    days_there(fan) * speed_m_s(fan.diameter_mm, flow_m3_h, farthest_mm)
}

/// The speed of the air at the end of `tier` of `place` that is farthest from its fans, on the mean of the days,
/// or what fans of other places that turn bring there, in m/s.
pub fn far_end_m_s(place: &Place, tier: usize) -> f64 {
    let shut = place.shares_air(tier).is_some();
    let from_others = if shut { 0.0 } else { place.stirred_m_s };
    let far = |(fan, _): (&Fan, f64)| at_far_end_m_s(fan, fan.flow_m3_h, place.width_mm);
    fans_over(place, tier).map(far).fold(from_others, f64::max)
}

/// The mean speed of the air over the deck of `tier` of `place`, in m/s: its own fans, and those of other
/// places that turn. Still air is 0.
pub fn over_deck_m_s(place: &Place, tier: usize) -> f64 {
    const SPOTS: usize = 5;
    let shut = place.shares_air(tier).is_some();
    let swept = if shut {
        0.0
    } else {
        place.stirred_m_s * SWEEPS
    };
    let own = fans_over(place, tier).map(|(fan, share)| {
        let at = |i: usize| (i as f64 + 0.5) / SPOTS as f64 * place.width_mm;
        let speed = |i: usize| {
            let distance_mm = (at(i) - fan.x_mm).abs().max(NEAR_MM);
            speed_m_s(fan.diameter_mm, fan.flow_m3_h, distance_mm)
        };
        let mean = (0..SPOTS).map(speed).sum::<f64>() / SPOTS as f64;
        mean * share * if fan.turns { SWEEPS } else { BESIDE }
    });
    own.fold(swept, f64::max)
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
