//! How the lamps of a bay would hang best.

use std::cell::RefCell;
use std::collections::HashMap;
use std::rc::Rc;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::{Quantity, hanging_step_mm};
use crate::basis::words::{COMMON_PRACTICE, Statement, Why, say};
use crate::day::cell_light::PartLight;
use crate::day::measures::Measures;
use crate::day::standing::{
    Standing, hour_limits, least_gap_mm, let_through, standing_in, tallest_leaves,
};
use crate::lamps::adjust::{Adjustment, Ahead, Misfit, Reach, Step};
use crate::lamps::choice::{Setting, SweepPoint, Want};
use crate::lamps::start::Start;
use crate::lamps::{adjust, choice};
use crate::light::bay::BayField;
use crate::light::falloff::Spread;
use crate::plan::SoundPlan;
use crate::power::drawn_w;
use crate::room::Bay;
use crate::season::Reckoned;

/// The best height and hours, and what they would give.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Hang {
    /// The setting.
    pub setting: Setting,
    /// When the lamps had best go on for so many hours.
    pub start: Start,
    /// How a hand gets there from now.
    pub step: Step,
    /// From the tallest leaves to the emitting faces at that height.
    pub gap_mm: f64,
    /// Daily light then.
    pub dli: Measures,
    /// The lowest height that keeps the lamps' least gap.
    pub lowest_mm: f64,
    /// The tray that had better stand elsewhere, when no setting is good for all.
    pub misfit: Option<Misfit>,
    /// How far the setting misses the band (0 = every cell within); see [`crate::lamps::choice::miss`].
    pub miss: f64,
    /// The same for the lamps as they hang now.
    pub miss_now: f64,
    /// What its own sheet shows besides; `None` when it was not asked for.
    pub detail: Option<HangDetail>,
}

/// How lamps would hang through the season, and how that is chosen.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct HangDetail {
    /// The light against the height.
    pub sweep: Vec<SweepPoint>,
    /// What to change on which day from now on, as plants grow.
    pub adjustments: Vec<Adjustment>,
    /// How well that does until the seedlings leave.
    pub outlook: Statement,
    /// How the setting is chosen.
    pub why: Why,
}

/// How many days ahead changes are listed: longer than any seedling stays under lamps.
pub(super) const DAYS_AHEAD: i32 = 100;

/// What the seedlings among `standing` get and want; `None` when there are none. `besides` is
/// the daily light that falls through the deck above.
fn ahead(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    field: &Rc<BayField>,
    standing: &[Standing<'_>],
    besides: f64,
) -> Option<Ahead> {
    let lift_now = bay.tier.lift_mm();
    let (mut wants, mut trays) = (Vec::new(), Vec::new());
    for s in standing {
        for part in s.parts.iter().filter(|part| part.is_growing()) {
            let crop = plan.crop(part.sowing);
            let cells = field.cells(part.footprint.cells(part.grid.0, part.grid.1));
            let (field, through) = (Rc::clone(field), let_through(s));
            let over_feet = part.canopy_mm - lift_now;
            let light = move |height_mm: f64, lift_mm: f64| {
                let mut light = field.hung(&cells, over_feet + lift_mm, height_mm);
                light.iter_mut().for_each(|ppfd| *ppfd *= through);
                Spread::of(&light)
            };
            wants.push(Want {
                light: remembered(light),
                besides_mol_m2_d: besides,
                dli_mol_m2_d: crop.dli_low_mol_m2_d..=crop.dli_high_mol_m2_d,
            });
            trays.push(s.tray.id.clone());
        }
    }
    // A tray that germinates beside seedlings must fit under the lamps too, dome and all.
    let leaves_mm = standing.iter().map(Standing::canopy_mm).fold(0.0, f64::max);
    let tops_mm = standing.iter().map(Standing::top_mm).fold(0.0, f64::max);
    let limits = hour_limits(plan, standing)?;
    Some(Ahead {
        wants,
        trays,
        reach: Reach {
            leaves_mm: leaves_mm - lift_now,
            tops_mm: tops_mm - lift_now,
            least_gap_mm: least_gap_mm(bay),
        },
        limits,
    })
}

/// `light` that is reckoned once for each height and lift: searches ask for the same ones.
fn remembered(light: impl Fn(f64, f64) -> Spread + 'static) -> Rc<dyn Fn(f64, f64) -> Spread> {
    let known = RefCell::new(HashMap::new());
    Rc::new(move |height_mm, lift_mm| {
        let key = (height_mm.to_bits(), lift_mm.to_bits());
        *known
            .borrow_mut()
            .entry(key)
            .or_insert_with(|| light(height_mm, lift_mm))
    })
}

/// How the lamps of `bay` would hang best; `None` while no seedling stands there or none fits
/// under them.
pub(super) fn hang(
    reckoned: &Reckoned<'_>,
    bay: &Bay<'_>,
    date: Date,
    standing: &[Standing<'_>],
    part_lights: &[PartLight],
    detailed: bool,
) -> Option<Hang> {
    let plan = reckoned.plan;
    let field = part_lights.first().map(|light| Rc::clone(&light.field))?;
    let beside: Vec<f64> = part_lights.iter().flat_map(PartLight::besides).collect();
    let besides = Spread::of(&beside).mean;
    let here = ahead(plan, bay, &field, standing, besides)?;
    let (leaves_mm, lift_mm) = (tallest_leaves(standing)?.1.canopy_mm, bay.tier.lift_mm());
    let step_mm = hanging_step_mm(plan.site.units);
    let lowest_mm = here.reach.lowest_mm(lift_mm);
    let choices = adjust::choices(bay, here.reach, step_mm);
    let setting = choice::best(&here.wants, &choices, here.limits)?;
    let now = adjust::now(bay);
    let detail = detailed.then(|| {
        let outlook = adjust::outlook(bay, date, DAYS_AHEAD, step_mm, |date| {
            let standing = standing_in(reckoned, bay, date);
            ahead(plan, bay, &field, &standing, besides)
        });
        let sweep_from = choice::heights(leaves_mm + 10.0, bay.highest_face_mm(), step_mm);
        HangDetail {
            sweep: choice::sweep(&here.wants, &sweep_from, lift_mm),
            outlook: outlook.words(bay),
            adjustments: outlook.adjustments,
            why: Why {
                rule: say!(
                    "of all that can be set, from {lowest} to {highest} and up to {hours}: first what leaves the least light outside the band, then the most even, then the least energy",
                    lowest = Quantity::LengthMm.of(lowest_mm),
                    highest = Quantity::LengthMm.of(bay.highest_face_mm()),
                    hours = Quantity::Hours.of(here.limits.most_h),
                ),
                source: COMMON_PRACTICE,
            },
        }
    });
    Some(Hang {
        detail,
        setting,
        start: Start::best(
            setting.hours_h,
            bay.tier.burning().from_h,
            drawn_w(bay.tier) * setting.brightness,
            &plan.site,
        ),
        step: adjust::step(bay, now, setting),
        gap_mm: setting.height_mm - setting.lift_mm - (leaves_mm - lift_mm),
        dli: choice::dli_at(&here.wants, setting).into(),
        lowest_mm,
        misfit: here.misfit(&choices, choice::miss(&here.wants, setting)),
        miss: choice::miss(&here.wants, setting),
        miss_now: choice::miss(&here.wants, now),
    })
}
