//! What fits in a bay beside what stands there, and what the room holds.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::plane::Footprint;
use crate::day::standing::Standing;
use crate::plan::SoundPlan;
use crate::room::container::TrayFormat;
use crate::room::{Bay, MixKind};
use crate::space::decks::{DeckFit, Fits, STANDARD_TRAY_MM};

/// What the tiers of the room hold that are not kept for storage, each format alone. Trays that stick
/// out count where that is accepted.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Capacity {
    /// Standard trays.
    pub standard: u32,
    /// Each of the plan's own formats, in its order.
    pub own: Vec<FormatHeld>,
}

/// How many of a format the room holds.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FormatHeld {
    /// The format.
    pub format: String,
    /// Trays of it.
    pub trays: u32,
    /// Cells of all those: plants, where each holds one.
    pub cells: u32,
    /// Mix that fills one of them, in litres.
    pub mix_l: f64,
}

impl Capacity {
    /// Of the room of `plan`.
    pub fn of(plan: &SoundPlan, fits: &mut Fits) -> Self {
        let standard = TrayFormat {
            id: String::new(),
            name: String::new(),
            length_mm: STANDARD_TRAY_MM[0],
            width_mm: STANDARD_TRAY_MM[1],
            height_mm: 0.0,
            columns: 1,
            rows: 1,
            cell_ml: 0.0,
            cell_depth_mm: 0.0,
            wet_kg: 0.0,
            holds_water: false,
            mix: MixKind::default(),
            reservoir_ml: None,
            dome_height_mm: None,
        };
        let own = plan.tray_formats.iter().map(|format| {
            let trays = held(plan, format, fits);
            FormatHeld {
                format: format.id.clone(),
                trays,
                cells: trays * format.cells(),
                mix_l: format.mix_l(),
            }
        });
        Self {
            own: own.collect(),
            standard: held(plan, &standard, fits),
        }
    }
}

/// How many trays of `format` the room holds.
fn held(plan: &SoundPlan, format: &TrayFormat, fits: &mut Fits) -> u32 {
    let indoors = plan.places.iter().filter(|place| !place.outdoors());
    let each = indoors.map(|place| {
        let tiers = place.tiers.iter().filter(|tier| !tier.storage).count() as u32;
        let fit = fits.of(place, format);
        let over = [fit.lengthwise, fit.crosswise].map(|way| way.overhanging);
        let over = over.iter().flatten().map(|over| over.trays).max();
        let accepted = over.filter(|_| place.overhang_accepted).unwrap_or(0);
        tiers * fit.most.max(accepted)
    });
    each.sum()
}

/// A format in a bay on a date: what fits under the ceiling, and beside what stands there.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct BayFit {
    /// What the deck holds.
    #[serde(flatten)]
    pub deck: DeckFit,
    /// How many more go beside what stands there on the date, without moving anything.
    pub free: u32,
    /// Whether that is proven to be the most.
    pub free_proven: bool,
    /// What stays between the rim and the lowest lamp, or the deck above; negative when it does
    /// not go under.
    pub over_rim_mm: f64,
    /// The same over its dome; `None` for a format without one.
    pub over_dome_mm: Option<f64>,
}

/// Every format of the plan in `bay`, beside the trays of `standing`.
pub fn bay_fits(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    standing: &[Standing<'_>],
    fits: &mut Fits,
) -> Vec<BayFit> {
    let overhead_mm = bay.lowest_overhead_mm();
    let there: Vec<Footprint> = standing.iter().map(|s| s.footprint).collect();
    plan.tray_formats
        .iter()
        .map(|format| {
            let deck = fits.of(bay.place, format);
            let (free, free_proven) = fits.free(bay.place, format, &there);
            let over_rim_mm = overhead_mm - format.height_mm;
            BayFit {
                free,
                free_proven,
                deck,
                over_rim_mm,
                over_dome_mm: format.dome_height_mm.map(|dome| over_rim_mm - dome),
            }
        })
        .collect()
}
