//! When a tray wants water: by what it drinks, since it was watered last.

use jiff::civil::Date;

use crate::basis::dates::{days_between, plus_days};
use crate::day::standing::Standing;
use crate::day::view::BayView;
use crate::day::water::TrayWater;

/// What a tray drinks, and when it was watered last.
pub(super) struct Thirst {
    /// The day on which it was watered, sown or potted last, by the log.
    pub(super) last: Option<Date>,
    /// Days from then until it wants water; `None` when that is over a month.
    lasts_days: Option<f64>,
    /// What it drinks.
    pub(super) water: TrayWater,
}

/// The day on which the tray was watered last, sown or potted into, by the log; `None` where nobody logged it
/// until the day that is looked at.
pub(super) fn last_wet(view: &BayView<'_>, standing: &Standing<'_>) -> Option<Date> {
    let past = view.plan.happened().tray(&standing.tray.id)?;
    let watered = past.watered.map(|(day, _)| day);
    // What is sown or potted is watered in.
    let wet = past.sown.into_iter().chain(past.potted_into).max();
    watered.max(wet).filter(|last| *last <= view.date)
}

impl Thirst {
    /// That of a tray of `view` indoors.
    pub(super) fn of(view: &BayView<'_>, standing: &Standing<'_>) -> Self {
        let tray = &standing.tray.id;
        let mut roots = view.computed.roots().iter();
        let roots = roots.find(|roots| roots.tray == *tray);
        let water = roots.map_or_else(|| view.water_in_air(standing), |roots| roots.water);
        let last = last_wet(view, standing);
        let past = view.plan.happened().tray(tray);
        let poured = past
            .and_then(|past| past.watered)
            .filter(|(day, _)| Some(*day) == last)
            .and_then(|(_, ml)| ml);
        // A little water lasts a little while.
        let lasts_days = water.lasts_days.map(|lasts| match poured {
            Some(ml) if ml > 0.0 => lasts.min(ml / water.uses_ml_d.max(1e-6)),
            _ => lasts,
        });
        Self {
            last,
            lasts_days,
            water,
        }
    }

    /// The day on which it wants water again; `None` where nobody logged any, and when that is over a month
    /// away.
    pub(super) fn due(&self) -> Option<Date> {
        let days = (self.lasts_days?.floor() as i32).max(1);
        Some(plus_days(self.last?, days))
    }

    /// Whether it wants water within a month of being watered.
    pub(super) fn dries(&self) -> bool {
        self.lasts_days.is_some()
    }

    /// What makes it wet again on `date`, in ml.
    pub(super) fn wants_ml(&self, date: Date) -> f64 {
        let lasts = self.lasts_days.unwrap_or(0.0);
        let since = self
            .last
            .map_or(lasts, |last| f64::from(days_between(last, date)));
        self.water.uses_ml_d * since.clamp(1.0, lasts.max(1.0))
    }
}
