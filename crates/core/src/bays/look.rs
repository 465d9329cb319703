//! Looking at bays date by date: the light, the hang and the space of each.

use std::cell::RefCell;
use std::collections::HashMap;
use std::rc::Rc;

use jiff::civil::Date;

use super::adjust::{self, Ahead, Reach};
use super::harm::{Harm, Harmed};
use super::lit::sill;
use super::sill::SillYear;
use super::{
    Band, BayOnDay, BayView, Detail, Hang, PartOnDay, TrayOnDay, least_gap_mm, tallest_leaves,
};
use crate::chambers::ClosedAir;
use crate::light::bay::{BayField, Fields, Footprint};
use crate::light::colour::Colour;
use crate::light::falloff::Spread;
use crate::light::hang::{self, HourLimits, Want};
use crate::light::start::Start;
use crate::light::surfaces::{Cover, THROUGH_DOME, let_down, reflectance};
use crate::load::DeckLoad;
use crate::over_trays::bay_air;
use crate::placement::{self, Standing};
use crate::plan::{SoundPlan, Stage};
use crate::power::{Power, drawn_w};
use crate::room::{Bay, BayRef, LOWEST_FACE_MM};
use crate::roots::{self, TrayRoots, Whose};
use crate::say;
use crate::season::{self, SowingDates};
use crate::site::plus_days;
use crate::space::{self, Fits};
use crate::units::{Quantity, dli_mol_m2_d, hanging_step_mm};
use crate::words::{COMMON_PRACTICE, Why};

/// Looks at bays date by date, keeping what does not change from one date to the next.
#[derive(Debug)]
pub struct Looker<'a, 'f> {
    pub(super) plan: &'a SoundPlan,
    dates: &'a [SowingDates],
    detail: Detail,
    fits: Fits,
    remembered: &'f Fields,
    /// The field of a bay by what its deck sends back.
    fields: HashMap<(BayRef, u64), Rc<BayField>>,
}

/// The light on a part of a tray.
pub(super) struct PartLight {
    field: Rc<BayField>,
    /// PPFD of the bay's own lamps.
    pub(super) ppfd: Vec<f64>,
    /// What of it walls and decks send back.
    pub(super) sent_back: Vec<f64>,
    /// Daily light that falls through the deck above, in mol/m²/d; empty where none does.
    pub(super) from_above: Vec<f64>,
    /// Daylight through the pane, in mol/m²/d; empty away from windows.
    pub(super) daylight: Vec<f64>,
}

impl PartLight {
    /// Daily light cell by cell, with the lamps on for `hours`, in mol/m²/d.
    pub(super) fn daily(&self, hours: f64) -> Vec<f64> {
        let own = self.ppfd.iter().map(|&ppfd| dli_mol_m2_d(ppfd, hours));
        own.zip(self.besides()).map(|(a, b)| a + b).collect()
    }

    /// Daily light that does not come from the bay's own lamps, cell by cell, in mol/m²/d.
    pub(super) fn besides(&self) -> Vec<f64> {
        let of = |list: &[f64], i: usize| list.get(i).copied().unwrap_or(0.0);
        (0..self.ppfd.len())
            .map(|i| of(&self.from_above, i) + of(&self.daylight, i))
            .collect()
    }
}

/// What bears on a bay from outside it.
struct Besides {
    /// How many trays stand on the tier above.
    trays_above: usize,
    from_above: Option<FromAbove>,
    /// The closed air that it is in, when it was asked for.
    closed: Option<Rc<ClosedAir>>,
}

/// Light that the deck above a bay lets down.
#[derive(Clone, Copy)]
struct FromAbove {
    /// What each unit of the deck's underside sends out, in µmol/m²/s.
    exitance: f64,
    /// Hours that the lamps above burn.
    hours: f64,
}

impl<'a, 'f> Looker<'a, 'f> {
    /// Looks at `plan`, whose sowings have `dates`; light that is `remembered` is not reckoned
    /// again.
    pub fn new(
        plan: &'a SoundPlan,
        dates: &'a [SowingDates],
        detail: Detail,
        remembered: &'f Fields,
    ) -> Self {
        Self {
            plan,
            dates,
            detail,
            fits: Fits::default(),
            remembered,
            fields: HashMap::new(),
        }
    }

    /// Every bay of `place` on `date`, from the lowest up.
    pub fn look(&mut self, place_index: usize, date: Date) -> Vec<BayView<'a>> {
        let plan = self.plan;
        let place = &plan.places[place_index];
        let bays: Vec<Bay<'a>> = (0..place.tiers.len())
            .map(|tier_index| Bay {
                place,
                place_index,
                tier: &place.tiers[tier_index],
                tier_index,
            })
            .collect();
        let standing: Vec<Vec<Standing<'a>>> = bays
            .iter()
            .map(|bay| placement::standing_in(plan, self.dates, bay, date))
            .collect();
        let counts: Vec<usize> = standing.iter().map(Vec::len).collect();
        let from_above: Vec<Option<FromAbove>> = (0..bays.len())
            .map(|i| {
                let (above, there) = (bays.get(i + 1)?, standing.get(i + 1)?);
                if standing[i].is_empty() || !burns(plan, above, there) {
                    return None;
                }
                let share = let_down(above, covered(above, there));
                (share > 0.0).then(|| FromAbove {
                    exitance: share * self.field(above, there).mean_on_deck(),
                    hours: above.tier.photoperiod_h,
                })
            })
            .collect();
        let germinates = |s: &Standing<'_>| s.stage == Stage::Germinate;
        let wanted = bays.iter().any(|bay| self.detail.wants(bay))
            || standing.iter().flatten().any(germinates);
        let mut closed: Vec<Option<Rc<ClosedAir>>> = vec![None; bays.len()];
        let mut index = 0;
        while wanted && index < bays.len() {
            let shared = place.shares_air(index).unwrap_or(index..index + 1);
            let air = ClosedAir::around(plan, place, index, &standing).map(Rc::new);
            closed[shared.clone()].fill(air);
            index = shared.end;
        }
        bays.into_iter()
            .zip(standing)
            .enumerate()
            .map(|(i, (bay, standing))| {
                let trays_above = counts.get(i + 1).copied().unwrap_or(0);
                let besides = Besides {
                    trays_above,
                    from_above: from_above[i],
                    closed: closed[i].clone(),
                };
                self.look_at(bay, date, standing, besides)
            })
            .collect()
    }

    /// The field of a bay with what stands there.
    fn field(&mut self, bay: &Bay<'_>, standing: &[Standing<'_>]) -> Rc<BayField> {
        let cover = covered(bay, standing);
        let floor = reflectance(bay, cover).floor;
        let remembered = self.remembered;
        let field = self
            .fields
            .entry((bay.reference(), floor.to_bits()))
            .or_insert_with(|| Rc::new(BayField::new(bay, cover, remembered)));
        Rc::clone(field)
    }

    /// The light on each part of each tray, tray by tray.
    fn part_lights(
        &mut self,
        bay: &Bay<'_>,
        standing: &[Standing<'_>],
        from_above: Option<FromAbove>,
        date: Date,
    ) -> Vec<PartLight> {
        let sill = sill(bay, &self.plan.site).map(|sill| sill.on(date));
        if bay.tier.lamps.is_empty() && from_above.is_none() && sill.is_none() {
            return Vec::new();
        }
        let field = self.field(bay, standing);
        let mut lights = Vec::new();
        for s in standing {
            for part in &s.parts {
                let cells = field.cells(part.footprint.cells(part.grid.0, part.grid.1));
                let through = through_dome(s);
                let dimmed = |light: Vec<f64>| light.into_iter().map(|v| v * through).collect();
                let (ppfd, sent_back) = field.now(&cells, part.canopy_mm);
                let from_above = from_above.map_or_else(Vec::new, |above| {
                    let light = field.let_down(&cells, part.canopy_mm, above.exitance);
                    let daily = light.into_iter().map(|v| dli_mol_m2_d(v, above.hours));
                    dimmed(daily.collect())
                });
                let daylight = sill.as_ref().map_or_else(Vec::new, |sill| {
                    let points = part.footprint.cells(part.grid.0, part.grid.1);
                    let daily = points
                        .into_iter()
                        .map(|at| sill.mol_m2_d(at, part.canopy_mm));
                    dimmed(daily.collect())
                });
                lights.push(PartLight {
                    daylight,
                    field: Rc::clone(&field),
                    ppfd: dimmed(ppfd),
                    sent_back: dimmed(sent_back),
                    from_above,
                });
            }
        }
        lights
    }

    fn look_at(
        &mut self,
        bay: Bay<'a>,
        date: Date,
        standing: Vec<Standing<'a>>,
        besides: Besides,
    ) -> BayView<'a> {
        let Besides {
            trays_above,
            from_above,
            closed,
        } = besides;
        let detailed = self.detail.wants(&bay);
        let lamps = !bay.tier.lamps.is_empty();
        let burning = burns(self.plan, &bay, &standing);
        let part_lights = self.part_lights(&bay, &standing, from_above, date);
        let hours = if burning { bay.tier.photoperiod_h } else { 0.0 };
        let mut trays = self.trays(&standing, &part_lights, hours, date);
        let light = (!part_lights.is_empty())
            .then(|| self.light(&bay, date, &standing, &trays, &part_lights, detailed));
        let ppfd: Vec<f64> = trays
            .iter()
            .map(|tray| {
                let cells = tray.parts.iter().flat_map(|part| &part.ppfd);
                let cells: Vec<f64> = cells.copied().collect();
                if burning {
                    Spread::of(&cells).mean
                } else {
                    0.0
                }
            })
            .collect();
        // Who goes away wants to know of every tray.
        let whose = if detailed || self.plan.away_near(date).is_some() {
            Whose::All
        } else {
            Whose::Germinating
        };
        let mut roots = roots::of_bay(self.plan, &bay, &standing, &ppfd, closed.as_deref(), whose);
        if !detailed {
            roots.iter_mut().for_each(TrayRoots::in_outline);
        }
        if !detailed {
            for part in trays.iter_mut().flat_map(|tray| &mut tray.parts) {
                part.ppfd = Vec::new();
                part.dli = Vec::new();
            }
        }
        let fits = if detailed {
            space::bay_fits(self.plan, &bay, &standing, &mut self.fits)
        } else {
            Vec::new()
        };
        let hang = if lamps && self.detail.wants_trays() {
            self.hang(&bay, date, &standing, &part_lights, detailed)
        } else {
            None
        };
        let harmed = [Harm::Stretched, Harm::Bleached].map(|harm| {
            let mut harmed = Harmed::find(harm, &standing, &part_lights, hours, date)?;
            if detailed {
                harmed.until = self.harmed_until(harm, &bay, from_above, date);
            } else {
                harmed.in_outline();
            }
            Some(harmed)
        });
        if !self.detail.wants_trays() {
            (trays, roots) = (Vec::new(), Vec::new());
        }
        let top_mm = standing.iter().map(Standing::top_mm).reduce(f64::max);
        let mean_ppfd = light.as_ref().map_or(0.0, |light| light.ppfd.mean);
        let colour = detailed.then(|| Colour::of(bay.tier, mean_ppfd)).flatten();
        let computed = BayOnDay {
            bay: bay.reference(),
            name: bay.name(),
            clear_height_mm: bay.clear_height_mm(),
            deck_range_mm: bay.place.deck_range_mm(bay.tier_index),
            lowest_face_mm: LOWEST_FACE_MM,
            highest_face_mm: bay.highest_face_mm(),
            burning,
            light,
            hang,
            trays,
            headroom_mm: top_mm.map(|top| bay.lowest_overhead_mm() - top),
            load: DeckLoad::of(bay.place, &standing),
            fits,
            roots,
            air: (detailed && !bay.place.outdoors())
                .then(|| bay_air(self.plan, &bay, closed.as_deref()))
                .map(|air| air.with_fans(self.plan, &bay, closed.is_some())),
            chamber: closed
                .clone()
                .filter(|_| detailed)
                .map(|air| (*air).clone()),
            burns: Start::of(bay.tier.burning(), drawn_w(bay.tier), &self.plan.site),
            colour,
            sill: sill(&bay, &self.plan.site)
                .filter(|_| detailed)
                .map(|sill| SillYear::of(&sill, &standing, date)),
            power: Power::of_lamps(bay.tier, burning, &self.plan.site),
            power_why: detailed.then(|| power_why(&bay, self.plan)),
        };
        BayView {
            plan: self.plan,
            bay,
            date,
            standing,
            trays_above,
            harmed,
            closed,
            computed,
        }
    }

    /// The last day of those from `date` on that follow one another with cells harmed so.
    fn harmed_until(
        &mut self,
        harm: Harm,
        bay: &Bay<'a>,
        from_above: Option<FromAbove>,
        date: Date,
    ) -> Date {
        let harms = |day: &Date| {
            let standing = placement::standing_in(self.plan, self.dates, bay, *day);
            let burning = burns(self.plan, bay, &standing);
            let hours = if burning { bay.tier.photoperiod_h } else { 0.0 };
            let lights = self.part_lights(bay, &standing, from_above, *day);
            Harmed::find(harm, &standing, &lights, hours, *day).is_some()
        };
        let days = (1..=DAYS_AHEAD).map(|n| plus_days(date, n));
        days.take_while(harms).last().unwrap_or(date)
    }

    fn trays(
        &self,
        standing: &[Standing<'_>],
        part_lights: &[PartLight],
        hours: f64,
        date: Date,
    ) -> Vec<TrayOnDay> {
        let mut lights = part_lights.iter();
        standing
            .iter()
            .map(|s| {
                let parts = s.parts.iter().map(|part| {
                    let crop = self.plan.crop(part.sowing);
                    let (columns, rows) = part.grid;
                    let light = lights.next();
                    PartOnDay {
                        sowing: part.sowing.id.clone(),
                        crop: crop.id.clone(),
                        name: part.dates.name.clone(),
                        stage: part.stage,
                        x_mm: part.footprint.x_mm,
                        y_mm: part.footprint.y_mm,
                        plant_height_mm: part.plant_height_mm,
                        columns,
                        rows,
                        ppfd: light.map_or_else(Vec::new, |l| l.ppfd.clone()),
                        dli: light.map_or_else(Vec::new, |l| l.daily(hours)),
                        target: Band {
                            low: crop.dli_low_mol_m2_d,
                            high: crop.dli_high_mol_m2_d,
                        },
                    }
                });
                TrayOnDay {
                    tray: s.tray.id.clone(),
                    label: s.tray.name.clone(),
                    format: s.format.id.clone(),
                    stage: s.stage,
                    x_mm: s.footprint.x_mm,
                    y_mm: s.footprint.y_mm,
                    rim_mm: s.rim_mm(),
                    lift_mm: s.lift_mm,
                    dome_mm: s.format.dome_height_mm.filter(|_| s.domed),
                    parts: parts.collect(),
                    until: placement::leaves_on(s, date),
                }
            })
            .collect()
    }

    fn hang(
        &self,
        bay: &Bay<'_>,
        date: Date,
        standing: &[Standing<'_>],
        part_lights: &[PartLight],
        detailed: bool,
    ) -> Option<Hang> {
        let field = part_lights.first().map(|light| Rc::clone(&light.field))?;
        let beside: Vec<f64> = part_lights.iter().flat_map(PartLight::besides).collect();
        let besides = Spread::of(&beside).mean;
        let here = ahead(self.plan, bay, &field, standing, besides)?;
        let (leaves_mm, lift_mm) = (tallest_leaves(standing)?.1.canopy_mm, bay.tier.lift_mm());
        let step_mm = hanging_step_mm(self.plan.site.units);
        let lowest_mm = here.reach.lowest_mm(lift_mm);
        let choices = adjust::choices(bay, here.reach, step_mm);
        let setting = hang::best(&here.wants, &choices, here.limits)?;
        let now = adjust::now(bay);
        let outlook = detailed.then(|| {
            adjust::outlook(bay, date, DAYS_AHEAD, step_mm, |date| {
                let standing = placement::standing_in(self.plan, self.dates, bay, date);
                ahead(self.plan, bay, &field, &standing, besides)
            })
        });
        let sweep_from = hang::heights(leaves_mm + 10.0, bay.highest_face_mm(), step_mm);
        Some(Hang {
            setting,
            start: Start::best(
                setting.hours_h,
                bay.tier.burning().from_h,
                drawn_w(bay.tier) * setting.brightness,
                &self.plan.site,
            ),
            step: adjust::step(bay, now, setting),
            gap_mm: setting.height_mm - setting.lift_mm - (leaves_mm - lift_mm),
            dli: hang::dli_at(&here.wants, setting).into(),
            lowest_mm,
            sweep: if detailed {
                hang::sweep(&here.wants, &sweep_from, lift_mm)
            } else {
                Vec::new()
            },
            outlook: outlook.as_ref().map(|outlook| outlook.words(bay)),
            adjustments: outlook.map_or_else(Vec::new, |outlook| outlook.adjustments),
            misfit: here.misfit(&choices, hang::miss(&here.wants, setting)),
            miss: hang::miss(&here.wants, setting),
            miss_now: hang::miss(&here.wants, now),
            why: detailed.then(|| Why {
                rule: say!(
                    "of all that can be set, from {lowest} to {highest} and up to {hours}: first what leaves the least light outside the band, then the most even, then the least energy",
                    lowest = Quantity::LengthMm.of(lowest_mm),
                    highest = Quantity::LengthMm.of(bay.highest_face_mm()),
                    hours = Quantity::Hours.of(here.limits.most_h),
                ),
                source: COMMON_PRACTICE,
            }),
        })
    }
}

/// PPFD of a bay's lamps on `date` at a spot of its deck, in µmol/m²/s, and the height over the
/// deck of the leaves there; the deck's own between trays.
pub fn spot_light(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    date: Date,
    (x_mm, y_mm): (f64, f64),
    fields: &Fields,
) -> (f64, f64) {
    let dates = season::dates_again(plan, fields);
    let standing = placement::standing_in(plan, &dates, bay, date);
    let covers = |f: &Footprint| {
        (f.x_mm[0]..=f.x_mm[1]).contains(&x_mm) && (f.y_mm[0]..=f.y_mm[1]).contains(&y_mm)
    };
    let parts = standing.iter().flat_map(|s| &s.parts);
    let canopies = parts.filter(|p| covers(&p.footprint)).map(|p| p.canopy_mm);
    let z_mm = canopies.reduce(f64::max).unwrap_or(0.0);
    let field = BayField::new(bay, covered(bay, &standing), fields);
    let cells = field.cells(vec![(x_mm, y_mm)]);
    let (ppfd, _) = field.now(&cells, z_mm);
    (ppfd[0], z_mm)
}

/// How many days ahead changes are listed: longer than any seedling stays under lamps.
const DAYS_AHEAD: i32 = 100;

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
    let (mut wants, mut trays, mut most_hours) = (Vec::new(), Vec::new(), f64::INFINITY);
    for s in standing {
        for part in s.parts.iter().filter(|part| part.is_growing()) {
            let crop = plan.crop(part.sowing);
            let cells = field.cells(part.footprint.cells(part.grid.0, part.grid.1));
            let (field, through) = (Rc::clone(field), through_dome(s));
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
            most_hours = most_hours.min(crop.photoperiod_most_h);
        }
    }
    // A tray that germinates beside seedlings must fit under the lamps too, dome and all.
    let leaves_mm = standing.iter().map(Standing::canopy_mm).fold(0.0, f64::max);
    let tops_mm = standing.iter().map(Standing::top_mm).fold(0.0, f64::max);
    (!wants.is_empty()).then(|| Ahead {
        wants,
        trays,
        reach: Reach {
            leaves_mm: leaves_mm - lift_now,
            tops_mm: tops_mm - lift_now,
            least_gap_mm: least_gap_mm(bay),
        },
        limits: HourLimits {
            most_h: most_hours,
            free_h: plan.site.free_hours(),
        },
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

/// What the dome of a tray lets through.
fn through_dome(s: &Standing<'_>) -> f64 {
    if s.domed && s.format.dome_height_mm.is_some() {
        THROUGH_DOME
    } else {
        1.0
    }
}

/// Whether the lamps of a bay burn: something there wants light.
pub(super) fn burns(plan: &SoundPlan, bay: &Bay<'_>, standing: &[Standing<'_>]) -> bool {
    !bay.tier.lamps.is_empty() && standing.iter().any(|s| s.wants_light(plan))
}

/// What lies on a deck: trays, and the leaves of what grows in them.
fn covered(bay: &Bay<'_>, standing: &[Standing<'_>]) -> Cover {
    let (w, d) = (bay.place.width_mm, bay.place.depth_mm);
    let within = |side: [f64; 2], most: f64| (side[1].min(most) - side[0].max(0.0)).max(0.0);
    let share = |f: &Footprint| within(f.x_mm, w) * within(f.y_mm, d) / (w * d);
    let trays: f64 = standing.iter().map(|s| share(&s.footprint)).sum();
    let parts = standing.iter().flat_map(|s| &s.parts);
    let leaves = parts.map(|part| share(&part.footprint) * part.leaf_cover());
    let trays = trays.min(1.0);
    Cover {
        trays,
        leaves: leaves.sum::<f64>().min(trays),
    }
}

fn power_why(bay: &Bay<'_>, plan: &SoundPlan) -> Why {
    Why {
        rule: say!(
            "{watts} at {volts}, {hours} a day while something here wants light, at {price} a kWh",
            watts = Quantity::PowerW.of(drawn_w(bay.tier)),
            volts = Quantity::VoltageV.of(plan.site.mains_v),
            hours = Quantity::Hours.of(bay.tier.photoperiod_h),
            price = Quantity::Money.of(plan.site.price_per_kwh),
        ),
        source: "the lamps' own figures and the site's price",
    }
}
