//! What the colour of white light means for seedlings, in numbers: little.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::light::bay::{full_ppf_umol_s, lux_per_umol_m2_s, ppf_umol_s};
use crate::light::photons::{illuminants, stand_ins, umol_per_s_per_klm};
use crate::room::{Lamp, LampFamily, Tier};

/// The colours that lamps are sold in, in K.
const SOLD_K: [f64; 5] = [2700.0, 3000.0, 4000.0, 5000.0, 6500.0];

/// The colour of a tier's lamps.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Colour {
    /// Every kind of lamp in the tier.
    pub lamps: Vec<LampPhotons>,
    /// The colours that lamps of this family are sold in; empty for purple ones.
    pub shades: Vec<Shade>,
    /// What another colour would change, and what it would not.
    pub verdict: Statement,
    /// About lamps sold for flowers and fruit.
    pub flowering: Statement,
}

/// The photons of a kind of lamp as it burns now.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LampPhotons {
    /// What it is.
    pub name: String,
    /// How its light is made.
    pub family: LampFamily,
    /// Photons per second.
    pub ppf_umol_s: f64,
    /// Photons per joule at the plug, in µmol/J, when new and undimmed.
    pub umol_per_j: f64,
    /// Photons per lumen, in µmol/s per klm.
    pub umol_per_s_per_klm: f64,
    /// What a lux meter shows for each µmol/m²/s.
    pub lux_per_umol_m2_s: f64,
}

/// A colour of white, and what the same lumens of it would give.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Shade {
    /// Correlated colour temperature.
    pub cct_k: f64,
    /// Photons per lumen, in µmol/s per klm.
    pub umol_per_s_per_klm: f64,
    /// Mean PPFD on the leaves if the lamps gave the same lumens in this colour, in µmol/m²/s.
    pub mean_ppfd: f64,
    /// The share of its photons from 400 to 500 nm.
    pub blue: f64,
    /// The share of its photons from 600 to 700 nm.
    pub red: f64,
}

impl Colour {
    /// The colour of the lamps of `tier`, which give `mean_ppfd` on the leaves; `None` without
    /// lamps.
    pub fn of(tier: &Tier, mean_ppfd: f64) -> Option<Self> {
        let first = tier.lamps.first()?;
        let mut lamps: Vec<LampPhotons> = Vec::new();
        for lamp in &tier.lamps {
            if lamps.iter().all(|known| known.name != lamp.name) {
                lamps.push(LampPhotons::of(lamp));
            }
        }
        let own = umol_per_s_per_klm(first.family, first.cct_k);
        let shades: Vec<Shade> = if first.family == LampFamily::RedBlueLed {
            Vec::new()
        } else {
            let shade = |cct_k| {
                let k = umol_per_s_per_klm(first.family, cct_k);
                let [blue, red] = shares(first.family, cct_k);
                Shade {
                    cct_k,
                    umol_per_s_per_klm: k,
                    mean_ppfd: mean_ppfd * k / own,
                    blue,
                    red,
                }
            };
            SOLD_K.into_iter().map(shade).collect()
        };
        let verdict = match &shades[..] {
            [] => say!(
                "Purple light is hardly seen: its lumens, and a lux meter, say next to nothing. Its {photons} count like any others, and white lamps with as many grow the same seedlings",
                photons = Quantity::PpfUmolS.of(ppf_umol_s(first))
            ),
            shades => {
                let at = |k: f64| shades.iter().find(|shade| shade.cct_k == k);
                let ppfd =
                    |k: f64| Quantity::PpfdUmolM2S.of(at(k).map_or(0.0, |shade| shade.mean_ppfd));
                let (least, most) = extremes(shades);
                say!(
                    "With the same lumens 4000 K would give {cool} here and 6500 K {day}: over all whites the most and the least differ by {spread}. Lumens, height and hours decide; any white grows seedlings",
                    cool = ppfd(4000.0),
                    day = ppfd(6500.0),
                    spread = Quantity::Share.of(most / least - 1.0)
                )
            }
        };
        Some(Self {
            lamps,
            shades,
            verdict,
            flowering: say!(
                "Seedlings need no lamp \"for flowering or fruiting\": its extra red is for plants that bloom indoors, and these leave before they do"
            ),
        })
    }
}

fn extremes(shades: &[Shade]) -> (f64, f64) {
    let each = || shades.iter().map(|shade| shade.umol_per_s_per_klm);
    (
        each().fold(f64::INFINITY, f64::min),
        each().fold(0.0, f64::max),
    )
}

impl LampPhotons {
    fn of(lamp: &Lamp) -> Self {
        Self {
            name: lamp.name.clone(),
            family: lamp.family,
            ppf_umol_s: ppf_umol_s(lamp),
            umol_per_j: if lamp.watts > 0.0 {
                full_ppf_umol_s(lamp) / lamp.watts
            } else {
                0.0
            },
            umol_per_s_per_klm: umol_per_s_per_klm(lamp.family, lamp.cct_k),
            lux_per_umol_m2_s: lux_per_umol_m2_s(std::slice::from_ref(lamp)),
        }
    }
}

/// The shares of blue and of red photons of `family` at `cct_k`, between its illuminants' figures.
fn shares(family: LampFamily, cct_k: f64) -> [f64; 2] {
    let rows: Vec<_> = stand_ins(family)
        .iter()
        .filter_map(|name| illuminants().iter().find(|row| row.illuminant == *name))
        .collect();
    let above = rows.iter().position(|row| row.cct_k >= cct_k);
    let (a, b) = match above {
        Some(0) => (rows[0], rows[0]),
        Some(i) => (rows[i - 1], rows[i]),
        None => (rows[rows.len() - 1], rows[rows.len() - 1]),
    };
    let t = if b.cct_k > a.cct_k {
        (cct_k - a.cct_k) / (b.cct_k - a.cct_k)
    } else {
        0.0
    };
    [a.blue + t * (b.blue - a.blue), a.red + t * (b.red - a.red)]
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::room::shelf;
    use crate::testing::{self, KETTLE_FEN, read};

    fn tier(kind: &str) -> Tier {
        let mut plan = read(KETTLE_FEN);
        let lamp = shelf::library().lamps.iter().find(|l| l.id == kind);
        Tier {
            lamps: vec![lamp.unwrap().clone()],
            ..testing::tier(&mut plan, "door", "t2").clone()
        }
    }

    /// CIE 015 illuminants LED-B3 (4102 K), LED-B5 (6591 K): 14.337 and 14.409 µmol/s per klm.
    #[test]
    fn whites_differ_by_a_few_percent_only() {
        let colour = Colour::of(&tier("shop-led-36"), 200.0).unwrap();
        let by = |k: f64| colour.shades.iter().find(|s| s.cct_k == k).unwrap();
        let ratio = by(6500.0).mean_ppfd / by(4000.0).mean_ppfd;
        assert!((ratio - 14.409 / 14.337).abs() < 0.005, "{ratio}");
        let own = by(5000.0).mean_ppfd;
        assert!((own - 200.0).abs() < 0.5, "5000 K is its own colour: {own}");
        assert!(by(6500.0).blue > by(2700.0).blue && by(6500.0).red < by(2700.0).red);
    }

    #[test]
    fn purple_lamps_are_reckoned_by_their_photons_alone() {
        let purple = tier("panel-purple-45");
        let colour = Colour::of(&purple, 200.0).unwrap();
        assert!(colour.shades.is_empty());
        assert_eq!(colour.lamps[0].ppf_umol_s, 76.0);
        assert!((colour.lamps[0].umol_per_j - 76.0 / 45.0).abs() < 1e-9);
        // A lux meter sees a third of what it sees of white light.
        assert!(colour.lamps[0].lux_per_umol_m2_s < 30.0);
    }

    #[test]
    fn no_lamps_have_no_colour() {
        let mut bare = tier("shop-led-36");
        bare.lamps.clear();
        assert_eq!(Colour::of(&bare, 0.0), None);
    }
}
