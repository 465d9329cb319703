//! How the lamps of a bay would hang best.

use std::cell::RefCell;
use std::collections::HashMap;
use std::rc::Rc;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::plus_days;
use crate::basis::units::{Quantity, energy_kwh, hanging_step_mm};
use crate::basis::words::{OWN_ESTIMATE, Statement, Why, say};
use crate::day::cell_light::PartLight;
use crate::day::measures::Measures;
use crate::day::standing::{
    Standing, hour_limits, let_through, parts, standing_in, tallest_leaves,
};
use crate::lamps::adjust::{AHEAD_DAYS, Adjustment, Ahead, Reach, Step};
use crate::lamps::choice::{LightAt, LightName, Setting, SweepPoint, Want};
use crate::lamps::chooser::{Change, Chosen, Now, best_by_hours, choose};
use crate::lamps::hours::HourLimits;
use crate::lamps::misfit::{Misfit, misfit};
use crate::lamps::outcome::{Outcome, Shares};
use crate::lamps::shared_hours::AtHours;
use crate::lamps::start::{Start, step_min};
use crate::lamps::{adjust, choice};
use crate::light::bay::BayField;
use crate::light::falloff::Spread;
use crate::plan::SoundPlan;
use crate::power::drawn_w;
use crate::room::{Bay, Tier};
use crate::season::Reckoned;

/// The height and hours that are advised, and what they would give: what the chooser says of a bay.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Hang {
    /// The setting; as it is now where no other is worth getting up for.
    pub setting: Setting,
    /// Why it is another than now; `None` where the lamps are to be left alone.
    pub change: Option<Change>,
    /// When the lamps had best go on for so many hours.
    pub start: Start,
    /// How a hand gets there from now.
    pub step: Step,
    /// From the tallest leaves to the emitting faces at that height.
    pub gap_mm: f64,
    /// Daily light then.
    pub dli: Measures,
    /// The cells by what they get now.
    pub now: Shares,
    /// The cells by what they would get.
    pub then: Shares,
    /// The greatest mean daily light that these lamps can give without harm, in mol/m²/d; `None`
    /// where nobody needs more.
    pub brightest_mol_m2_d: Option<f64>,
    /// The longest day that the crops here stand, in hours.
    pub most_hours_h: f64,
    /// The lowest height that keeps the lamps' least gap.
    pub lowest_mm: f64,
    /// The tray that had better stand elsewhere, when no setting is good for all.
    pub misfit: Option<Misfit>,
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

impl Hang {
    /// Sets the lamps of `tier` as advised.
    pub fn set(&self, tier: &mut Tier) {
        self.setting.set(tier);
        if tier.burning().from_h != self.start.from_h {
            tier.lights_on_h = Some(self.start.from_h);
        }
    }
}

/// How many days ahead changes are listed: longer than any seedling stays under lamps.
pub(super) const DAYS_AHEAD: i32 = 100;

/// What the seedlings among `standing` get and want; `None` when there are none. `besides` is
/// the daily light of each cell of each part that falls through the deck above or a window.
fn ahead(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    date: Date,
    field: &Rc<BayField>,
    standing: &[Standing<'_>],
    besides: &Besides<'_>,
) -> Option<Ahead> {
    let lift_now = bay.tier.lift_mm();
    let (mut wants, mut trays) = (Vec::new(), Vec::new());
    for (i, (s, part)) in parts(standing).enumerate() {
        if !part.is_growing() {
            continue;
        }
        let cells = field.cells(part.footprint, part.grid);
        let count = (part.grid.0 * part.grid.1) as usize;
        let (field, name, through) = (Rc::clone(field), field.name(), let_through(s));
        let over_feet = part.canopy_mm - lift_now;
        let light = move |height_mm: f64, lift_mm: f64| {
            let mut light = field.hung(&cells, over_feet + lift_mm, height_mm);
            light.iter_mut().for_each(|ppfd| *ppfd *= through);
            light
        };
        wants.push(Want {
            light: remembered(light),
            name: Some(LightName {
                field: name,
                outline: part.footprint,
                grid: part.grid,
                over_feet_mm: over_feet,
                through,
            }),
            besides: match besides {
                Besides::Each(lights) => lights[i].besides.clone(),
                Besides::Mean(0.0) => Vec::new(),
                Besides::Mean(daily) => vec![*daily; count],
            },
            band: part.light_band(plan, date),
        });
        trays.push((s.tray.id.clone(), over_feet));
    }
    // A tray that germinates beside seedlings must fit under the lamps too, dome and all.
    let reaches: Vec<(String, Reach)> = standing
        .iter()
        .map(|s| {
            let reach = Reach {
                leaves_mm: s.canopy_mm() - lift_now,
                tops_mm: s.top_mm() - lift_now,
                least_gap_mm: bay.least_gap_mm(),
            };
            (s.tray.id.clone(), reach)
        })
        .collect();
    let limits = hour_limits(plan, bay, standing)?;
    Some(Ahead {
        wants,
        trays,
        reach: reaches.iter().map(|(_, reach)| *reach).reduce(Reach::or)?,
        reaches,
        limits,
    })
}

/// The daily light that does not come from a bay's own lamps.
enum Besides<'a> {
    /// Of each part, cell by cell.
    Each(&'a [PartLight]),
    /// The mean of all cells: on days to come nobody knows which cells they are.
    Mean(f64),
}

/// `light` that is reckoned once for each height and lift: searches ask for the same ones.
fn remembered(light: impl Fn(f64, f64) -> Vec<f64> + 'static) -> LightAt<'static> {
    /// A rack's worth of heights; a tall room's are reckoned again.
    const MOST: usize = 64;
    let known = RefCell::new(HashMap::new());
    Rc::new(move |height_mm, lift_mm| {
        let key = (height_mm.to_bits(), lift_mm.to_bits());
        if let Some(light) = known.borrow().get(&key) {
            return Vec::clone(light);
        }
        let light = light(height_mm, lift_mm);
        if known.borrow().len() < MOST {
            known.borrow_mut().insert(key, light.clone());
        }
        light
    })
}

/// The lamps of `bay` as they are over `standing`, by the light that its sheet shows.
fn as_they_are(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    date: Date,
    standing: &[Standing<'_>],
    lights: &[PartLight],
    reach: Reach,
) -> Now {
    let setting = adjust::now(bay);
    let growing = parts(standing).zip(lights);
    let outcome: Outcome = growing
        .filter(|((_, part), _)| part.is_growing())
        .map(|((_, part), light)| {
            let band = part.light_band(plan, date);
            Outcome::of(&light.ppfd, setting.hours_h, &light.besides, &band)
        })
        .sum();
    let faces = bay.tier.lamps.iter().map(|lamp| lamp.height_mm);
    let lowest_face_mm = faces.fold(f64::INFINITY, f64::min);
    Now {
        setting,
        outcome,
        touches: reach.lowest_mm(setting.lift_mm) > lowest_face_mm + 1e-6,
    }
}

/// What the lamps of `bay` come to as they are, and at each number of hours that its seedlings stand, hung as suits that best;
/// `None` while no seedling stands there or none fits under them.
pub(super) fn by_hours(
    reckoned: &Reckoned<'_>,
    bay: &Bay<'_>,
    date: Date,
    standing: &[Standing<'_>],
    part_lights: &[PartLight],
) -> Option<(Outcome, Vec<AtHours>)> {
    let plan = reckoned.plan;
    let field = part_lights.first().map(|light| Rc::clone(&light.field))?;
    let here = ahead(
        plan,
        bay,
        date,
        &field,
        standing,
        &Besides::Each(part_lights),
    )?;
    let now = as_they_are(plan, bay, date, standing, part_lights, here.reach);
    let choices = here.choices(bay, None, hanging_step_mm(plan.site.units));
    // Whole half hours, so that shelves can have the same.
    let limits = HourLimits {
        most_h: (here.limits.most_h * 2.0).floor() / 2.0,
        ..here.limits
    };
    let each = best_by_hours(&here.wants, &choices, limits, &now).into_iter();
    let each: Vec<AtHours> = each
        .map(|(setting, outcome)| AtHours {
            setting,
            outcome,
            kwh: energy_kwh(drawn_w(bay.tier) * setting.brightness, setting.hours_h),
        })
        .collect();
    (!each.is_empty()).then_some((now.outcome, each))
}

/// How the lamps of `bay` are advised to hang; `None` while no seedling stands there or none fits
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
    let beside: Vec<f64> = part_lights.iter().flat_map(|l| l.besides.clone()).collect();
    let besides = Besides::Mean(Spread::of(&beside).mean);
    let each = Besides::Each(part_lights);
    let here = ahead(plan, bay, date, &field, standing, &each)?;
    let on = |date| {
        let standing = standing_in(reckoned, bay, date);
        ahead(plan, bay, date, &field, &standing, &besides)
    };
    let (leaves_mm, lift_mm) = (tallest_leaves(standing)?.1.canopy_mm, bay.tier.lift_mm());
    let step_mm = hanging_step_mm(plan.site.units);
    let lowest_mm = here.reach.lowest_mm(lift_mm);
    let now = as_they_are(plan, bay, date, standing, part_lights, here.reach);
    let choices = here.choices(bay, on(plus_days(date, AHEAD_DAYS)).as_ref(), step_mm);
    let chosen: Chosen = choose(&here.wants, &choices, here.limits, &now)?;
    let setting = chosen.setting;
    let detail = detailed.then(|| {
        let look = |day| if day == date { ahead(plan, bay, date, &field, standing, &each) } else { on(day) };
        let outlook = adjust::outlook(bay, date, DAYS_AHEAD, step_mm, &now, look);
        let sweep_from = choice::heights(leaves_mm + 10.0, bay.highest_face_mm(), step_mm);
        HangDetail {
            sweep: choice::sweep(&here.wants, &sweep_from, lift_mm),
            outlook: outlook.words(bay),
            adjustments: outlook.adjustments,
            why: Why {
                rule: say!(
                    "of all that can be set, from {lowest} to {highest} and up to {hours}: no leaf comes to harm, then the fewest cells go leggy, then the fewest get less than they need, then the least energy and the fewest changes; what betters fewer than one cell in twenty is left alone",
                    lowest = Quantity::LengthMm.of(lowest_mm),
                    highest = Quantity::LengthMm.of(bay.highest_face_mm()),
                    hours = Quantity::Hours.of(here.limits.most_h),
                ),
                source: OWN_ESTIMATE,
            },
        }
    });
    let dli = if chosen.change.is_some() {
        choice::dli_at(&here.wants, setting)
    } else {
        // As its sheet shows it, lamp by lamp.
        let lights = parts(standing).zip(part_lights);
        let growing = lights.filter(|((_, part), _)| part.is_growing());
        let daily: Vec<f64> = growing
            .flat_map(|(_, l)| l.daily_at(setting.hours_h))
            .collect();
        Spread::of(&daily)
    };
    Some(Hang {
        detail,
        setting,
        change: chosen.change,
        start: reckoned.starts.best_in_steps(
            setting.hours_h,
            bay.tier.burning().from_h,
            drawn_w(bay.tier) * setting.brightness,
            &plan.site,
            step_min(bay.tier, &plan.wiring),
        ),
        step: adjust::step(bay, now.setting, setting),
        gap_mm: setting.height_mm - setting.lift_mm - (leaves_mm - lift_mm),
        dli: dli.into(),
        now: now.outcome.shares(),
        then: chosen.then.shares(),
        brightest_mol_m2_d: chosen.brightest_mol_m2_d,
        most_hours_h: here.limits.most_h,
        lowest_mm,
        misfit: misfit(bay, &here, step_mm, &now, &chosen.then),
    })
}
