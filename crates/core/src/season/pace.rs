//! How fast a sowing grows where it stands.

use serde::Serialize;
use utoipa::ToSchema;

/// How fast a sowing grows where it stands.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Pace {
    /// Mean daily light on it, from lamps set as advised and from windows, in mol/m²/d; `None` where it
    /// stands nowhere.
    pub dli: Option<f64>,
    /// Mean of the air where it grows, in °C.
    pub air_c: f64,
    /// Growth against what the weeks of the trade take for granted: 1 is that, less is slower.
    pub rate: f64,
    /// Days that growing on takes longer for it; negative when it is faster.
    pub lost_days: f64,
}
