//! What light does to seedlings: the one owner of the amounts under which they stretch or grow slowly,
//! and over which light is wasted or does harm.

use crate::crops::Crop;

/// Daily light under which seedlings of any crop stretch, in mol/m²/d (from memory: university
/// extension bulletins on DLI).
pub const STRETCHES_UNDER_MOL_M2_D: f64 = 5.0;
/// So many times the top of the comfortable band is used; what is over that is light that nobody uses
/// (from memory: extension bulletins, 14 and no penalty to 17, 17 and useful to 20).
const USEFUL_TO: f64 = 1.2;
/// More than so many times the top of the comfortable band does harm (our own estimate).
const HARMS_OVER: f64 = 1.5;

/// PPFD over which leaves bleach when they have just come up, and when they are settled, in µmol/m²/s
/// (our own estimates: a quarter and a third of full sun, which they stand only once hardened off).
const BLEACHES_OVER_UMOL_M2_S: [f64; 2] = [500.0, 650.0];
/// Days from coming up until leaves are settled (our own estimate).
const SETTLED_DAYS: f64 = 21.0;

/// PPFD over which leaves bleach that came up `days` ago indoors, in µmol/m²/s.
///
/// ```
/// use sunrise_core::lamps::bands::bleaches_over_umol_m2_s;
/// assert_eq!(bleaches_over_umol_m2_s(0), 500.0);
/// assert_eq!(bleaches_over_umol_m2_s(60), 650.0);
/// ```
pub fn bleaches_over_umol_m2_s(days: i32) -> f64 {
    let [young, settled] = BLEACHES_OVER_UMOL_M2_S;
    let settling = (f64::from(days) / SETTLED_DAYS).clamp(0.0, 1.0);
    young + (settled - young) * settling
}

/// What seedlings want of light.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LightBand {
    /// Daily light under which growth is slow, in mol/m²/d.
    pub low: f64,
    /// The comfortable top of daily light, in mol/m²/d.
    pub high: f64,
    /// PPFD over which their leaves bleach, in µmol/m²/s.
    pub bleaches_over: f64,
}

impl LightBand {
    /// What seedlings of `crop` want that came up `days` ago.
    pub fn of(crop: &Crop, days: i32) -> Self {
        Self {
            low: crop.dli_low_mol_m2_d,
            high: crop.dli_high_mol_m2_d,
            bleaches_over: bleaches_over_umol_m2_s(days),
        }
    }

    /// Daily light over this is used by nobody, in mol/m²/d.
    pub fn useful_to(&self) -> f64 {
        self.high * USEFUL_TO
    }

    /// Daily light over this does harm, in mol/m²/d.
    pub fn harms_over(&self) -> f64 {
        self.high * HARMS_OVER
    }
}
