//! Weather for mould and damping-off: wet surfaces, warmth and still air.

use serde::Serialize;
use utoipa::ToSchema;

/// What the air over trays is like.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OverTrays {
    /// Its temperature.
    pub t_c: f64,
    /// Its relative humidity, 0 to 1; 1 under a closed dome.
    pub humidity: f64,
    /// How fast it moves over the leaves, in m/s.
    pub speed_m_s: f64,
    /// The share of the day that leaves and mix are wet.
    pub wet: f64,
}

/// How likely mould and damping-off are.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MouldRisk {
    /// Hardly any.
    Low,
    /// Watch for grey fluff and stems that narrow at the mix.
    Raised,
    /// Vent, move the air, water from below.
    High,
}

/// Air over leaves is still below this, in m/s: they no longer stir (our own estimate).
pub const STILL_UNDER_M_S: f64 = 0.2;

/// The risk in such air (our own estimate, like its bounds): a point each for air damper than
/// 85 %, for leaves that stay wet more than half of the day, for still air, and for 15 to 28 °C,
/// in which most of these fungi thrive.
pub fn risk(air: OverTrays) -> MouldRisk {
    let points = [
        air.humidity > 0.85,
        air.wet > 0.5,
        air.speed_m_s < STILL_UNDER_M_S,
        (15.0..=28.0).contains(&air.t_c),
    ];
    match points.into_iter().filter(|point| *point).count() {
        0..=1 => MouldRisk::Low,
        2..=3 => MouldRisk::Raised,
        _ => MouldRisk::High,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn moving_dry_air_is_safe_and_a_closed_dome_is_not() {
        let room = OverTrays {
            t_c: 17.0,
            humidity: 0.45,
            speed_m_s: 0.5,
            wet: 0.2,
        };
        assert_eq!(risk(room), MouldRisk::Low);
        let domed = OverTrays {
            t_c: 22.0,
            humidity: 1.0,
            speed_m_s: 0.0,
            wet: 1.0,
        };
        assert_eq!(risk(domed), MouldRisk::High);
        let stirred = OverTrays {
            speed_m_s: 0.4,
            ..domed
        };
        assert_eq!(risk(stirred), MouldRisk::Raised);
    }
}
