//! How a place is set from a date on: doors, and what is on while seedlings come up or grow.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::room::place::airing::Airing;

/// What is set otherwise from a date on. What is left out stays as it was the day before.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlaceSetting {
    /// From this date on.
    pub from: Date,
    /// The tier it is about; all of them when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tier: Option<String>,
    /// Whether lamps burn over what germinates, too.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub lamps_germinating: Option<bool>,
    /// Whether mats stay on under what grows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub mats_growing: Option<bool>,
    /// Whether domes stay on over what grows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub domes_growing: Option<bool>,
    /// Whether a closet's doors are kept shut.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub shut: Option<bool>,
    /// How what is closed is aired.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub airing: Option<Airing>,
}
