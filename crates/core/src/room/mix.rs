//! What containers are filled with.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A kind of mix, by what most of it is.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum MixKind {
    /// Peat, or a peat-like mix for seeds.
    #[default]
    Peat,
    /// Coir.
    Coir,
    /// Composted bark.
    Bark,
    /// Garden compost, or a mix that is based on it.
    Compost,
}

/// What a mix is like.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct MixFigures {
    /// The share of its volume that is water once it was watered through and has drained, in a cell.
    pub holds: f64,
    /// The share of its volume that is water which roots draw easily.
    pub easy: f64,
    /// Its mass dry, in kg for each litre as filled.
    pub dry_kg_l: f64,
    /// How well it conducts while moist, in W/(m·K).
    pub conductivity_w_mk: f64,
    /// What it stores while moist, in MJ/(m³·K): 4.2 times its share of water and a little more.
    pub heat_capacity_mj_m3k: f64,
}

impl MixKind {
    /// Whether it is what is meant where nobody says more.
    pub(crate) fn is_usual(&self) -> bool {
        *self == Self::default()
    }

    /// What it is like.
    ///
    /// Source: from memory of tables of growing media (easily available water after de Boodt and Verdonck
    /// 1972: 20 to 30 % of the volume is right, bark has less); densities, conduction and heat stored are our
    /// own estimates.
    ///
    /// ```
    /// use sunrise_core::room::MixKind;
    /// // Bark drains freely and dries soon; compost is heavy.
    /// assert!(MixKind::Bark.figures().easy < MixKind::Peat.figures().easy);
    /// assert!(MixKind::Compost.figures().dry_kg_l > 3.0 * MixKind::Coir.figures().dry_kg_l);
    /// ```
    pub fn figures(self) -> MixFigures {
        let of = |[
            holds,
            easy,
            dry_kg_l,
            conductivity_w_mk,
            heat_capacity_mj_m3k,
        ]: [f64; 5]| {
            MixFigures {
                holds,
                easy,
                dry_kg_l,
                conductivity_w_mk,
                heat_capacity_mj_m3k,
            }
        };
        match self {
            Self::Peat => of([0.70, 0.25, 0.10, 0.45, 2.8]),
            Self::Coir => of([0.65, 0.22, 0.08, 0.42, 2.6]),
            Self::Bark => of([0.50, 0.15, 0.22, 0.35, 2.2]),
            Self::Compost => of([0.55, 0.17, 0.45, 0.55, 2.6]),
        }
    }
}

impl MixFigures {
    /// What a litre weighs, watered through and drained, in kg.
    pub fn wet_kg_l(&self) -> f64 {
        self.dry_kg_l + self.holds
    }
}
