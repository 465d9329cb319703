//! The trays that stand nowhere on a date.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::plan::Stage;
use crate::season::Reckoned;

/// A tray that stands nowhere on a date.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct UnplacedTray {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// What is sown in it, in words.
    pub holds: Vec<String>,
    /// Its kind.
    pub format: String,
    /// What it is going through as a whole.
    pub stage: Stage,
    /// Last day without one.
    pub until: Date,
}

/// Every tray that stands nowhere on `date`, in the plan's order.
pub(super) fn unplaced(reckoned: &Reckoned<'_>, date: Date) -> Vec<UnplacedTray> {
    let now = reckoned.unplaced.iter().filter(|tray| tray.on(date));
    now.filter_map(|unplaced| {
        let tray = unplaced.tray;
        let moments = reckoned.moments_of(tray);
        let sown = tray.parts.iter();
        let name = |id: &str| &reckoned.dates[reckoned.plan.sowing_index(id)].name;
        Some(UnplacedTray {
            tray: tray.id.clone(),
            label: tray.name.clone(),
            holds: sown.map(|part| name(&part.sowing).clone()).collect(),
            format: tray.format.clone(),
            stage: moments.stage_on(date)?,
            until: unplaced.days.to,
        })
    })
    .collect()
}
