//! What panes of glass let through, by the angle at which light meets them.

/// Refractive index of window glass, and what it takes of light on a mm of its way (from memory: Duffie &
/// Beckman, Solar Engineering of Thermal Processes, 5.1: 1.526 and 4 to 32 per m).
const REFRACTS: f64 = 1.526;
const TAKES_PER_MM: f64 = 0.004;
const PANE_MM: f64 = 4.0;
/// What frame, bars and dust leave (our own estimate).
const FRAME_AND_DUST: f64 = 0.85;
/// Even light from half the sky passes as a beam does at this angle, as a cosine (Duffie & Beckman, 5.4, from
/// memory: 60°).
const DIFFUSE_COS: f64 = 0.5;

/// The share of a beam that passes double glazing with its frame and dust, which meets it at an angle of
/// which the cosine is `cos`, 0 to 1.
///
/// Fresnel's equations for both polarisations, with what two panes throw back and forth between them, and
/// what the glass itself takes. Source: Duffie & Beckman, Solar Engineering of Thermal Processes, 5.1 to 5.3
/// (from memory).
///
/// ```
/// use sunrise_core::light::pane::passes;
/// assert!((passes(1.0) - 0.70).abs() < 0.01);
/// // A steep sun glances off.
/// assert!(passes(0.25) < 0.6 * passes(1.0));
/// assert_eq!(passes(0.0), 0.0);
/// ```
pub fn passes(cos: f64) -> f64 {
    let cos = cos.clamp(0.0, 1.0);
    let sin_within = (1.0 - cos * cos).sqrt() / REFRACTS;
    let cos_within = (1.0 - sin_within * sin_within).sqrt();
    let reflects = |a: f64, b: f64| ((a - b) / (a + b)).powi(2);
    let across = reflects(cos, REFRACTS * cos_within);
    let along = reflects(REFRACTS * cos, cos_within);
    // Two panes have four faces.
    let through = |r: f64| (1.0 - r) / (1.0 + 3.0 * r);
    let taken = (-TAKES_PER_MM * 2.0 * PANE_MM / cos_within).exp();
    FRAME_AND_DUST * taken * (through(across) + through(along)) / 2.0
}

/// The share of even light from the sky that passes it.
pub fn passes_of_sky() -> f64 {
    passes(DIFFUSE_COS)
}
