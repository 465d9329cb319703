//! Looking at bays date by date: the light, the hang and the space of each.

use std::collections::HashMap;

use jiff::civil::Date;

use super::{
    Band, BayLight, BayOnDay, BayView, Cell, Detail, Hang, Measures, PartOnDay, TrayOnDay,
    least_gap_mm, tallest_leaves,
};
use crate::light::bay::{Footprint, emitters, ppf_umol_s};
use crate::light::falloff::{Falloff, Spread, light_at};
use crate::light::hang::{self, Setting, Want};
use crate::load::DeckLoad;
use crate::placement::{self, Standing, StandingPart};
use crate::plan::{SoundPlan, Stage};
use crate::power::Power;
use crate::room::{Bay, BayRef, LOWEST_FACE_MM};
use crate::say;
use crate::season::SowingDates;
use crate::space::{self, Fits};
use crate::units::{Quantity, hanging_step_mm, ppfd_umol_m2_s};
use crate::words::{COMMON_PRACTICE, Why};

/// Looks at bays date by date, keeping what does not change from one date to the next.
#[derive(Debug)]
pub struct Looker<'a> {
    plan: &'a SoundPlan,
    dates: &'a [SowingDates],
    detail: Detail,
    fits: Fits,
    falloffs: HashMap<(BayRef, String, usize), Falloff>,
}

impl<'a> Looker<'a> {
    /// Looks at `plan`, whose sowings have `dates`.
    pub fn new(plan: &'a SoundPlan, dates: &'a [SowingDates], detail: Detail) -> Self {
        Self {
            plan,
            dates,
            detail,
            fits: Fits::default(),
            falloffs: HashMap::new(),
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
        bays.into_iter()
            .zip(standing)
            .enumerate()
            .map(|(i, (bay, standing))| {
                let trays_above = counts.get(i + 1).copied().unwrap_or(0);
                self.look_at(bay, date, standing, trays_above)
            })
            .collect()
    }

    fn look_at(
        &mut self,
        bay: Bay<'a>,
        date: Date,
        standing: Vec<Standing<'a>>,
        trays_above: usize,
    ) -> BayView<'a> {
        let detailed = self.detail.wants(&bay);
        let lamps = !bay.tier.lamps.is_empty();
        let burning = lamps && standing.iter().any(|s| s.wants_light(self.plan));
        let mut trays = self.trays(&bay, &standing, date);
        let light = (lamps && !trays.is_empty())
            .then(|| self.light(&bay, &standing, &trays, burning, detailed));
        if !detailed {
            for part in trays.iter_mut().flat_map(|tray| &mut tray.parts) {
                part.ppfd = Vec::new();
            }
        }
        let fits = if detailed {
            space::bay_fits(self.plan, &bay, &standing, &mut self.fits)
        } else {
            Vec::new()
        };
        let hang = if lamps {
            self.hang(&bay, &standing, detailed)
        } else {
            None
        };
        let top_mm = standing.iter().map(Standing::top_mm).reduce(f64::max);
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
            power: Power::of_lamps(bay.tier, burning, &self.plan.site),
            power_why: detailed.then(|| power_why(&bay, self.plan)),
        };
        BayView {
            plan: self.plan,
            bay,
            date,
            standing,
            trays_above,
            computed,
        }
    }

    fn trays(&self, bay: &Bay<'_>, standing: &[Standing<'_>], date: Date) -> Vec<TrayOnDay> {
        let lamps = emitters(bay.tier);
        standing
            .iter()
            .map(|s| {
                let parts = s.parts.iter().map(|part| {
                    let crop = self.plan.crop(part.sowing);
                    let (columns, rows) = part.grid;
                    let points = if lamps.is_empty() {
                        Vec::new()
                    } else {
                        part.footprint.cells(columns, rows)
                    };
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
                        ppfd: points
                            .into_iter()
                            .map(|point| light_at(&lamps, point, part.canopy_mm))
                            .collect(),
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
                    rim_mm: s.format.height_mm,
                    dome_mm: s.format.dome_height_mm.filter(|_| s.domed),
                    parts: parts.collect(),
                    until: placement::leaves_on(s, date),
                }
            })
            .collect()
    }

    fn light(
        &self,
        bay: &Bay<'_>,
        standing: &[Standing<'_>],
        trays: &[TrayOnDay],
        burning: bool,
        detailed: bool,
    ) -> BayLight {
        let values: Vec<f64> = trays
            .iter()
            .flat_map(|tray| &tray.parts)
            .flat_map(|part| &part.ppfd)
            .copied()
            .collect();
        let ppfd = Spread::of(&values);
        let hours = if burning { bay.tier.photoperiod_h } else { 0.0 };
        let lowest_face = bay
            .tier
            .lamps
            .iter()
            .map(|lamp| lamp.height_mm)
            .fold(f64::INFINITY, f64::min);
        let gap_mm = lowest_face - tallest_leaves(standing).map_or(0.0, |(_, part)| part.canopy_mm);
        let photons: f64 = bay.tier.lamps.iter().map(ppf_umol_s).sum();
        let target = shared_target(trays);
        BayLight {
            ppfd: ppfd.into(),
            dli: Measures::dli(ppfd, hours),
            evenness: if ppfd.mean > 0.0 {
                ppfd.least / ppfd.mean
            } else {
                0.0
            },
            worst: cell_with(ppfd.least, trays),
            best: cell_with(ppfd.most, trays),
            target,
            ppfd_target: target.filter(|_| hours > 0.0).map(|band| Band {
                low: ppfd_umol_m2_s(band.low, hours),
                high: ppfd_umol_m2_s(band.high, hours),
            }),
            gap_mm,
            ppfd_why: detailed.then(|| Why {
                rule: say!(
                    "{lamps} lamps emit {photons}; what reaches the middle of each cell, {gap} under the lowest lamp at the tallest leaves, is summed over their emitting faces; light reflected by walls and decks is not counted",
                    lamps = Quantity::Count.of(bay.tier.lamps.len() as f64),
                    photons = Quantity::PpfUmolS.of(photons),
                    gap = Quantity::LengthMm.of(gap_mm),
                ),
                source: "photons per lumen from the CIE 015 illuminants; direct light by the configuration factor of a parallel rectangle",
            }),
            dli_why: detailed.then(|| Why {
                rule: say!(
                    "{ppfd} for {hours} a day, times 0.0036",
                    ppfd = Quantity::PpfdUmolM2S.of(ppfd.mean),
                    hours = Quantity::Hours.of(hours),
                ),
                source: crate::crops::library().source("dli_low_mol_m2_d"),
            }),
        }
    }

    fn hang(&mut self, bay: &Bay<'_>, standing: &[Standing<'_>], detailed: bool) -> Option<Hang> {
        let growing: Vec<(&str, usize, &StandingPart<'_>)> = standing
            .iter()
            .flat_map(|s| {
                let parts = s.parts.iter().enumerate();
                parts.map(move |(i, part)| (s.tray.id.as_str(), i, part))
            })
            .filter(|(_, _, part)| part.is_growing())
            .collect();
        let key = |tray: &str, i: usize| (bay.reference(), tray.to_owned(), i);
        for (tray, i, part) in &growing {
            self.falloffs.entry(key(tray, *i)).or_insert_with(|| {
                let points = part.footprint.cells(part.grid.0, part.grid.1);
                Falloff::new(&emitters(bay.tier), &points, bay.clear_height_mm())
            });
        }
        let wants: Vec<Want<'_>> = growing
            .iter()
            .map(|(tray, i, part)| {
                let crop = self.plan.crop(part.sowing);
                Want {
                    falloff: &self.falloffs[&key(tray, *i)],
                    canopy_mm: part.canopy_mm,
                    dli_mol_m2_d: crop.dli_low_mol_m2_d..=crop.dli_high_mol_m2_d,
                }
            })
            .collect();
        let most_hours = growing
            .iter()
            .map(|(_, _, part)| self.plan.crop(part.sowing).photoperiod_most_h)
            .fold(f64::INFINITY, f64::min);
        let leaves_mm = tallest_leaves(standing)?.1.canopy_mm;
        // A tray that germinates beside seedlings must fit under the lamps too, dome and all.
        let leaves = standing.iter().map(Standing::canopy_mm);
        let tops = standing.iter().map(Standing::top_mm);
        let lowest_mm =
            (leaves.fold(0.0, f64::max) + least_gap_mm(bay)).max(tops.fold(0.0, f64::max));
        let step_mm = hanging_step_mm(self.plan.site.units);
        let heights = hang::heights(lowest_mm, bay.highest_face_mm(), step_mm);
        let setting = hang::best(&wants, &heights, most_hours)?;
        let sweep_from = hang::heights(leaves_mm + 1.0, bay.highest_face_mm(), step_mm);
        Some(Hang {
            setting,
            gap_mm: setting.height_mm - leaves_mm,
            dli: Measures::dli(hang::spread_at(&wants, setting.height_mm), setting.hours_h),
            lowest_mm,
            sweep: if detailed {
                hang::sweep(&wants, &sweep_from)
            } else {
                Vec::new()
            },
            miss: hang::miss(&wants, setting),
            miss_now: miss_now(bay, &wants),
            why: detailed.then(|| Why {
                rule: say!(
                    "of all heights from {lowest} to {highest} and hours up to {hours}: first those that leave the least light outside the band, then the most even, then the fewest hours",
                    lowest = Quantity::LengthMm.of(lowest_mm),
                    highest = Quantity::LengthMm.of(bay.highest_face_mm()),
                    hours = Quantity::Hours.of(most_hours),
                ),
                source: COMMON_PRACTICE,
            }),
        })
    }
}

/// The first cell that gets `ppfd`: the first of equals, so that its mark does not jump about.
fn cell_with(ppfd: f64, trays: &[TrayOnDay]) -> Cell {
    trays
        .iter()
        .flat_map(|tray| tray.parts.iter().map(move |part| (tray, part)))
        .find_map(|(tray, part)| {
            let index = part.ppfd.iter().position(|&value| value == ppfd)?;
            let footprint = Footprint {
                x_mm: part.x_mm,
                y_mm: part.y_mm,
            };
            let (x_mm, y_mm) = footprint.cells(part.columns, part.rows)[index];
            let tray = tray.tray.clone();
            Some(Cell { tray, x_mm, y_mm })
        })
        .expect("the value was found in one of these cells")
}

/// How far the lamps as they hang miss the bands. Lamps at different heights count at their mean.
fn miss_now(bay: &Bay<'_>, wants: &[Want<'_>]) -> f64 {
    let lamps = &bay.tier.lamps;
    let mean = lamps.iter().map(|l| l.height_mm).sum::<f64>() / lamps.len().max(1) as f64;
    hang::miss(
        wants,
        Setting {
            height_mm: mean,
            hours_h: bay.tier.photoperiod_h,
        },
    )
}

/// The band that suits every seedling of the bay; where their bands do not meet, from the least
/// to the greatest of them.
fn shared_target(trays: &[TrayOnDay]) -> Option<Band> {
    let bands: Vec<Band> = trays
        .iter()
        .flat_map(|tray| &tray.parts)
        .filter(|part| part.stage == Some(Stage::Grow))
        .map(|part| part.target)
        .collect();
    let most = |f: fn(&Band) -> f64| bands.iter().map(f).reduce(f64::max);
    let least = |f: fn(&Band) -> f64| bands.iter().map(f).reduce(f64::min);
    let shared = Band {
        low: most(|b| b.low)?,
        high: least(|b| b.high)?,
    };
    if shared.low < shared.high {
        return Some(shared);
    }
    Some(Band {
        low: least(|b| b.low)?,
        high: most(|b| b.high)?,
    })
}

fn power_why(bay: &Bay<'_>, plan: &SoundPlan) -> Why {
    let watts: f64 = bay.tier.lamps.iter().map(|lamp| lamp.watts).sum();
    Why {
        rule: say!(
            "{watts} at {volts}, {hours} a day while something here wants light, at {price} a kWh",
            watts = Quantity::PowerW.of(watts),
            volts = Quantity::VoltageV.of(plan.site.mains_v),
            hours = Quantity::Hours.of(bay.tier.photoperiod_h),
            price = Quantity::Money.of(plan.site.price_per_kwh),
        ),
        source: "the lamps' own figures and the site's price",
    }
}
