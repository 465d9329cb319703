//! How much of the room is asked for.

use serde::Deserialize;
use utoipa::ToSchema;

use crate::room::{Bay, BayRef};

/// How much of a bay is wanted beyond its figures: lists that only its own sheet shows.
#[derive(Debug, Clone, Default, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Detail {
    /// Cells and fits of every bay.
    #[default]
    All,
    /// Cells and fits of one bay.
    Bay(BayRef),
    /// Neither.
    Outline,
    /// Neither, but what every tray drinks: for who waters.
    Water,
    /// Neither, but what all sowings want for the whole season: for views of sowings and seeds.
    Sowings,
    /// Not even the trays and how the lamps would hang: for many days at once.
    Days,
}

impl Detail {
    pub(super) fn wants(&self, bay: &Bay<'_>) -> bool {
        match self {
            Self::All => true,
            Self::Bay(wanted) => wanted.place == bay.place.id && wanted.tier == bay.tier.id,
            Self::Outline | Self::Water | Self::Sowings | Self::Days => false,
        }
    }

    /// Whether each tray is wanted, and how the lamps would hang.
    pub(crate) fn wants_trays(&self) -> bool {
        !matches!(self, Self::Days)
    }

    /// Whether the root zone of every tray is wanted, rather than of those that come up.
    pub(super) fn wants_all_roots(&self) -> bool {
        matches!(self, Self::Water)
    }

    /// Whether every job of the season is wanted, and how much of each sowing to sow.
    pub(crate) fn wants_season(&self) -> bool {
        matches!(self, Self::All | Self::Sowings)
    }
}
