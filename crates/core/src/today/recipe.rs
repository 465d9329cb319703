//! How a sowing is made: what the bench must have ready.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::words::{Statement, say};
use crate::plan::{SoundPlan, Tray};
use crate::room::MixKind;
use crate::season::Reckoned;
use crate::season::jobs::{covered_how, lies_on_mat};

/// What to have ready for a sowing, and how it is made.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Recipe {
    /// What it is sown in.
    pub container: String,
    /// So many of them.
    pub trays: u32,
    /// Mix for all of them, in litres.
    pub mix_l: f64,
    /// What mix that is.
    pub mix: MixKind,
    /// How deep seed lies.
    pub depth_mm: f64,
    /// Whether it is covered, in light or in the dark.
    pub cover: Statement,
    /// Seeds in each cell; `None` where that is not reckoned.
    pub seeds_per_cell: Option<u32>,
    /// Seeds in all; `None` where that is not reckoned.
    pub seeds: Option<u32>,
    /// What the mix is to be kept at, in °C.
    pub root_zone_c: f64,
    /// Whether the trays go on a mat.
    pub on_mat: bool,
    /// What to write on each label.
    pub labels: Vec<String>,
}

impl Recipe {
    /// Of the sowing called `id` in `trays`; `None` where it has no tray yet.
    pub(super) fn of(reckoned: &Reckoned<'_>, id: &str, trays: &[&Tray]) -> Option<Self> {
        let plan = reckoned.plan;
        let index = plan.sowing_index(id);
        let (sowing, dates) = (&plan.sowings[index], &reckoned.dates[index]);
        let crop = plan.crop(sowing);
        let format = plan.format(trays.first()?);
        let to_sow = reckoned
            .cells_of(id)
            .and_then(|cells| cells.to_sow.as_ref());
        Some(Self {
            container: format.name.clone(),
            trays: trays.len() as u32,
            mix_l: trays.iter().map(|tray| plan.format(tray).mix_l()).sum(),
            mix: format.mix,
            depth_mm: crop.sow_depth_mm,
            cover: say!("{how}", how = covered_how(crop)),
            seeds_per_cell: to_sow.map(|sow| sow.seeds_per_cell),
            seeds: to_sow.map(|sow| sow.seeds),
            root_zone_c: crop.root_zone_c,
            on_mat: trays.iter().any(|tray| lies_on_mat(plan, tray)),
            labels: trays
                .iter()
                .map(|tray| label(plan, tray, &dates.name))
                .collect(),
        })
    }
}

/// What to write on the label of `tray`.
fn label(plan: &SoundPlan, tray: &Tray, name: &str) -> String {
    match tray.parts.len() {
        1 => format!("{}: {name}", tray.name),
        n => {
            let kinds = tray.parts.iter().map(|part| {
                let sowing = &plan.sowings[plan.sowing_index(&part.sowing)];
                sowing.called(&plan.crop(sowing).name)
            });
            let mut kinds: Vec<String> = kinds.collect();
            kinds.dedup();
            format!("{}: {} kinds ({})", tray.name, n, kinds.join(", "))
        }
    }
}
