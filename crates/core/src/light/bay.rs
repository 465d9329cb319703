//! A bay's lamps as emitters of photons, and a tray's cells as points.

use super::emitter::{Emitter, beam_exponent};
use super::photons::umol_per_s_per_klm;
use crate::room::{Lamp, Tier};
use crate::units::area_m2;

/// Photons per second that a lamp emits, in µmol/s: the maker's figure, or lumens x k.
pub fn ppf_umol_s(lamp: &Lamp) -> f64 {
    lamp.ppf_umol_s
        .unwrap_or_else(|| lamp.flux_lm / 1000.0 * umol_per_s_per_klm(lamp.family, lamp.cct_k))
}

/// The emitters of all lamps of a tier, with flux in µmol/s, so that irradiance is PPFD.
pub fn emitters(tier: &Tier) -> Vec<Emitter> {
    tier.lamps
        .iter()
        .flat_map(|lamp| {
            let ppf = ppf_umol_s(lamp);
            let area = |f: &crate::room::Face| area_m2(f.length_mm, f.width_mm);
            let total: f64 = lamp.emitters.iter().map(area).sum();
            lamp.emitters.iter().map(move |face| {
                let centre = match lamp.along {
                    crate::room::Axis::X => [lamp.x_mm, lamp.y_mm + face.across_mm],
                    crate::room::Axis::Y => [lamp.x_mm + face.across_mm, lamp.y_mm],
                };
                Emitter::centred(
                    centre,
                    face.length_mm,
                    face.width_mm,
                    lamp.along,
                    lamp.height_mm,
                    ppf * area(face) / total,
                    beam_exponent(lamp.beam_deg),
                )
            })
        })
        .collect()
}

/// A tray's outline on the deck.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Footprint {
    /// Left and right edge.
    pub x_mm: [f64; 2],
    /// Front and back edge.
    pub y_mm: [f64; 2],
}

impl Footprint {
    /// Whether two trays cannot both stand: more than a rim's width of each lies in the other.
    pub fn overlaps(&self, other: &Self) -> bool {
        const RIM_MM: f64 = 2.0;
        let over = |a: [f64; 2], b: [f64; 2]| a[1].min(b[1]) - a[0].max(b[0]) > RIM_MM;
        over(self.x_mm, other.x_mm) && over(self.y_mm, other.y_mm)
    }

    /// The centres of `columns` x `rows` cells, row by row from the front left.
    pub fn cells(&self, columns: u32, rows: u32) -> Vec<(f64, f64)> {
        let centre = |edge: [f64; 2], i: u32, n: u32| {
            edge[0] + (edge[1] - edge[0]) * (f64::from(i) + 0.5) / f64::from(n)
        };
        (0..rows)
            .flat_map(|row| (0..columns).map(move |column| (column, row)))
            .map(|(column, row)| {
                (
                    centre(self.x_mm, column, columns),
                    centre(self.y_mm, row, rows),
                )
            })
            .collect()
    }
}
