//! What a tray drinks, how long its mix holds out, and how much to pour.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::{area_m2, litres};
use crate::room::container::{TrayFormat, WATER_FROM_BELOW_MM};

/// Longer than this nobody leaves a tray alone: the mix sours.
const MOST_DAYS: f64 = 30.0;

/// The water of a tray.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct TrayWater {
    /// What it gives off in a day.
    pub uses_ml_d: f64,
    /// Days from well watered, its reservoir full, until it wants water again; `None` when that is over a
    /// month.
    pub lasts_days: Option<f64>,
    /// The same when it is filled from below as deep as `fill_mm` and left so.
    pub lasts_filled_days: Option<f64>,
    /// How deep it is filled from below.
    pub fill_mm: f64,
    /// What goes in so deep; 0 where it has holes.
    pub fill_ml: f64,
    /// What a wick lifts from its reservoir until that is empty; 0 where it has none.
    pub reservoir_ml: f64,
    /// What it weighs when it wants water again: its weight in the hand tells.
    pub light_kg: f64,
}

impl TrayWater {
    /// A tray of `format` that gives off `evaporation_kg_m2_d`.
    ///
    /// ```
    /// use sunrise_core::{day::water::TrayWater, room::shelf};
    /// let cells = &shelf::library().containers[0];
    /// let dry = TrayWater::of(cells, 2.0);
    /// let damp = TrayWater::of(cells, 0.5);
    /// assert!(dry.uses_ml_d > damp.uses_ml_d);
    /// assert!(dry.lasts_days.unwrap() < damp.lasts_days.unwrap());
    /// ```
    pub fn of(format: &TrayFormat, evaporation_kg_m2_d: f64) -> Self {
        let area = area_m2(format.length_mm, format.width_mm);
        // A litre of water is a kilogram.
        let uses_ml_d = evaporation_kg_m2_d.max(0.0) * area * 1000.0;
        let easy_ml = format.mix.figures().easy * format.mix_l() * 1000.0;
        let reservoir_ml = format.reservoir_ml.unwrap_or(0.0);
        let lasts = |ml: f64| {
            let days = ml / uses_ml_d.max(1e-6);
            (days <= MOST_DAYS).then_some(days)
        };
        let fill_mm = WATER_FROM_BELOW_MM.min(format.height_mm);
        let fill_ml = if format.holds_water {
            litres(format.length_mm, format.width_mm, fill_mm) * 1000.0
        } else {
            0.0
        };
        Self {
            uses_ml_d,
            lasts_days: lasts(easy_ml + reservoir_ml),
            lasts_filled_days: lasts(easy_ml + reservoir_ml + fill_ml),
            fill_mm,
            fill_ml,
            reservoir_ml,
            light_kg: (format.wet_kg - easy_ml / 1000.0).max(0.0),
        }
    }
}
