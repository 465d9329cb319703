//! Photons in a lumen.
//!
//! k, in µmol/s per klm, follows from V(λ) and the lamp's spectrum. The table beside this file
//! was computed from the CIE illuminants (CIE 015, FL and LED series; CIE 1931 V(λ);
//! K_m = 683 lm/W; 400-700 nm).

use std::sync::{LazyLock, OnceLock};

use serde::Deserialize;

use crate::room::LampFamily;

/// The CIE illuminants that stand for a family, from warm to cool.
pub(super) fn stand_ins(family: LampFamily) -> &'static [&'static str] {
    match family {
        LampFamily::WhiteLed => &["LED-B1", "LED-B2", "LED-B3", "LED-B4", "LED-B5"],
        LampFamily::FluorescentTriBand => &["FL12", "FL11", "FL10", "FL3.11"],
        LampFamily::FluorescentStandard => &["FL4", "FL3", "FL2", "FL1"],
        LampFamily::RedBlueLed => &[],
    }
}

/// A row of the illuminants' table.
#[derive(Debug, Clone, PartialEq, Deserialize)]
pub struct Illuminant {
    /// The CIE's name.
    pub illuminant: String,
    /// Correlated colour temperature.
    pub cct_k: f64,
    /// Photons of 400-700 nm per lumen, times 1000.
    pub umol_per_s_per_klm: f64,
    /// The share of its photons from 400 to 500 nm.
    pub blue: f64,
    /// The share of its photons from 600 to 700 nm.
    pub red: f64,
}

/// The table of CIE illuminants.
pub fn illuminants() -> &'static [Illuminant] {
    static ROWS: LazyLock<Vec<Illuminant>> = LazyLock::new(|| {
        csv::Reader::from_reader(include_bytes!("photon_conversion.csv").as_slice())
            .deserialize()
            .collect::<Result<_, _>>()
            .expect("the built-in table of illuminants reads")
    });
    &ROWS
}

/// The colour temperatures of `family`'s illuminants, from warm to cool, and their photons per lumen.
fn curve(family: LampFamily) -> &'static [(f64, f64)] {
    static CURVES: [OnceLock<Vec<(f64, f64)>>; 4] = [const { OnceLock::new() }; 4];
    CURVES[family as usize].get_or_init(|| {
        let row = |name: &&str| {
            let row = illuminants().iter().find(|row| row.illuminant == *name);
            let row = row.expect("every family's illuminants are in the table");
            (row.cct_k, row.umol_per_s_per_klm)
        };
        stand_ins(family).iter().map(row).collect()
    })
}

/// Photons of a purple lamp in µmol/s per klm: four in five red (660 nm), the rest blue (450 nm).
///
/// V(λ) of CIE 1931 is 0.061 and 0.038 there, and a µmol of photons carries 119.63 / λ J (λ in
/// nm; Planck's constant, the speed of light and Avogadro's number); K_m = 683 lm/W.
fn red_and_blue() -> f64 {
    let lumens = |nm: f64, v: f64| 119.627 / nm * 683.0 * v;
    1000.0 / (0.8 * lumens(660.0, 0.061) + 0.2 * lumens(450.0, 0.038))
}

/// Photons per lumen, in µmol/s per klm, of a lamp of `family` at `cct_k` K.
///
/// Straight between the family's illuminants; the nearest one's value beyond its ends.
///
/// ```
/// use sunrise_core::{light::photons::umol_per_s_per_klm, room::LampFamily};
/// // A 6500 K white LED, close to the CIE's LED-B5.
/// let k = umol_per_s_per_klm(LampFamily::WhiteLed, 6591.0);
/// assert!((k - 14.409).abs() < 1e-9);
/// ```
pub fn umol_per_s_per_klm(family: LampFamily, cct_k: f64) -> f64 {
    if family == LampFamily::RedBlueLed {
        return red_and_blue();
    }
    let mut below = None;
    for &(cct, k) in curve(family) {
        if cct >= cct_k {
            return match below {
                Some((cct0, k0)) => k0 + (k - k0) * (cct_k - cct0) / (cct - cct0),
                None => k,
            };
        }
        below = Some((cct, k));
    }
    below.map_or(0.0, |(_, k)| k)
}
