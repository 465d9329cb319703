//! Vapour pressure, dew point, and what air can hold.

/// Pressure of saturated water vapour over water (over ice below 0 °C) at `t_c`, in Pa.
///
/// Source: ASHRAE Handbook, Fundamentals, chapter Psychrometrics (Hyland and Wexler), from -100 to
/// 200 °C.
///
/// ```
/// use sunrise_core::air::saturation_pressure_pa;
/// assert!((saturation_pressure_pa(20.0) - 2338.8).abs() < 1.0);
/// ```
pub fn saturation_pressure_pa(t_c: f64) -> f64 {
    let t = t_c + 273.15;
    let ln = if t_c <= 0.01 {
        -5.674_535_9e3 / t + 6.392_524_7 - 9.677_843e-3 * t
            + 6.221_570_1e-7 * t * t
            + 2.074_782_5e-9 * t.powi(3)
            - 9.484_024e-13 * t.powi(4)
            + 4.163_501_9 * t.ln()
    } else {
        -5.800_220_6e3 / t + 1.391_499_3 - 4.864_023_9e-2 * t + 4.176_476_8e-5 * t * t
            - 1.445_209_3e-8 * t.powi(3)
            + 6.545_967_3 * t.ln()
    };
    ln.exp()
}

/// By what share saturation pressure rises with a degree at `t_c`, in 1/K.
///
/// Source: the derivative of Magnus's formula, 17.27 t / (237.3 + t) (from memory).
pub fn saturation_slope_per_k(t_c: f64) -> f64 {
    17.27 * 237.3 / (237.3 + t_c).powi(2)
}

/// How much more vapour the air could hold at `t_c` and relative humidity `humidity` (0 to 1), in
/// kPa: the vapour pressure deficit.
///
/// VPD = (1 − humidity) · e_s(t), with [`saturation_pressure_pa`] for e_s; 0 at saturation.
///
/// ```
/// use sunrise_core::air::vpd_kpa;
/// assert!((vpd_kpa(10.0, 0.29) - 0.8719).abs() < 0.001);
/// ```
pub fn vpd_kpa(t_c: f64, humidity: f64) -> f64 {
    saturation_pressure_pa(t_c) * (1.0 - humidity) / 1000.0
}

/// The temperature to which air at `t_c` and relative humidity `humidity` (0 to 1, not 0) must
/// cool for dew to fall, in °C; `None` for bone-dry air.
///
/// The saturation curve is turned round by Newton's rule, so both agree exactly.
///
/// Where e_s(t_d) = humidity · e_s(t), with [`saturation_pressure_pa`] for e_s.
pub fn dew_point_c(t_c: f64, humidity: f64) -> Option<f64> {
    let vapour = saturation_pressure_pa(t_c) * humidity;
    if vapour < saturation_pressure_pa(-80.0) {
        return None;
    }
    let wanted = vapour.ln();
    let mut c = t_c;
    for _ in 0..50 {
        const NEAR_K: f64 = 0.01;
        let ln = saturation_pressure_pa(c).ln();
        let slope = (saturation_pressure_pa(c + NEAR_K).ln() - ln) / NEAR_K;
        let step = (wanted - ln) / slope;
        c += step;
        if step.abs() < 1e-6 {
            break;
        }
    }
    Some(c)
}
