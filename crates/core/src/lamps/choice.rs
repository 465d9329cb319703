//! The height to hang lamps at and the hours to burn them, for trays that share a bay.

use crate::lamps::hours::{HourLimits, LEAST_HOURS, TIMER_STEP_H};
use std::ops::RangeInclusive;
use std::rc::Rc;

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::dli_mol_m2_d;
use crate::light::falloff::Spread;

/// What one tray gets and wants.
#[derive(Clone)]
#[allow(missing_debug_implementations)]
pub struct Want<'a> {
    /// The light over its cells in µmol/m²/s, with the lamps' faces at a height over the deck and
    /// trays that stand on so much, both in mm; the lamps as bright as now.
    pub light: Rc<dyn Fn(f64, f64) -> Spread + 'a>,
    /// Daily light that it gets from elsewhere, whatever these lamps do, in mol/m²/d.
    pub besides_mol_m2_d: f64,
    /// The band of daily light in mol/m²/d that suits it.
    pub dli_mol_m2_d: RangeInclusive<f64>,
}

/// A place of lamps and trays to choose.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Choice {
    /// The emitting faces above the deck.
    pub height_mm: f64,
    /// What the trays stand on.
    pub lift_mm: f64,
    /// How bright the lamps burn against now.
    pub brightness: f64,
}

/// Choices and hours.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Setting {
    /// The emitting faces above the deck.
    pub height_mm: f64,
    /// What the trays stand on.
    pub lift_mm: f64,
    /// How bright the lamps burn against now.
    pub brightness: f64,
    /// Hours a day.
    pub hours_h: f64,
}

/// Light on all trays against the lamps' height.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct SweepPoint {
    /// The emitting faces above the deck.
    pub height_mm: f64,
    /// Mean PPFD in µmol/m²/s.
    pub mean: f64,
    /// PPFD of the worst cell.
    pub worst: f64,
    /// PPFD of the best cell.
    pub best: f64,
}

/// Daily light under which seedlings of any crop stretch, in mol/m²/d (from memory: university
/// extension bulletins on DLI).
pub const STRETCHES_UNDER_MOL_M2_D: f64 = 5.0;
/// PPFD over which leaves that grew indoors bleach, in µmol/m²/s: a third of full sun, which they
/// bear only once hardened off (our own estimate).
pub const BLEACHES_OVER_UMOL_M2_S: f64 = 650.0;

/// What to mind where strong lamps hang close over leaves.
pub const CAUTION: &str = "Before you leave a lamp close over leaves, hold your bare hand where \
    they are for half a minute: what is too hot for it is too hot for them. Keep air around lamps \
    and ballasts, let nothing cover them, and do not look into strong ones. A broken fluorescent \
    tube holds mercury: air the room, and sweep it up wet.";

/// The heights to choose from, lowest first: whole steps of `step_mm`, the finest that a hand hangs.
pub fn heights(lowest_mm: f64, highest_mm: f64, step_mm: f64) -> Vec<f64> {
    let first = (lowest_mm / step_mm).ceil() as i64;
    let last = (highest_mm / step_mm).floor() as i64;
    (first..=last).map(|i| i as f64 * step_mm).collect()
}

impl Setting {
    /// A choice and hours.
    pub fn new(choice: Choice, hours_h: f64) -> Self {
        Self {
            height_mm: choice.height_mm,
            lift_mm: choice.lift_mm,
            brightness: choice.brightness,
            hours_h,
        }
    }

    fn choice(&self) -> Choice {
        Choice {
            height_mm: self.height_mm,
            lift_mm: self.lift_mm,
            brightness: self.brightness,
        }
    }
}

/// The light on each tray.
fn light_on(wants: &[Want<'_>], choice: Choice) -> Vec<Spread> {
    wants
        .iter()
        .map(|want| {
            let Spread { mean, least, most } = (want.light)(choice.height_mm, choice.lift_mm);
            Spread {
                mean: mean * choice.brightness,
                least: least * choice.brightness,
                most: most * choice.brightness,
            }
        })
        .collect()
}

fn together(trays: &[Spread]) -> Spread {
    let mean = trays.iter().map(|t| t.mean).sum::<f64>() / trays.len().max(1) as f64;
    Spread {
        mean,
        least: trays.iter().map(|t| t.least).fold(mean, f64::min),
        most: trays.iter().map(|t| t.most).fold(mean, f64::max),
    }
}

/// The light over all trays.
pub fn spread_at(wants: &[Want<'_>], choice: Choice) -> Spread {
    together(&light_on(wants, choice))
}

/// The daily light over all trays with `setting`, in mol/m²/d.
pub fn dli_at(wants: &[Want<'_>], setting: Setting) -> Spread {
    let trays: Vec<Spread> = wants
        .iter()
        .zip(light_on(wants, setting.choice()))
        .map(|(want, ppfd)| {
            let dli = |ppfd| dli_mol_m2_d(ppfd, setting.hours_h) + want.besides_mol_m2_d;
            Spread {
                mean: dli(ppfd.mean),
                least: dli(ppfd.least),
                most: dli(ppfd.most),
            }
        })
        .collect();
    together(&trays)
}

/// The light at each of `heights` with trays that stand on `lift_mm`.
pub fn sweep(wants: &[Want<'_>], heights: &[f64], lift_mm: f64) -> Vec<SweepPoint> {
    heights
        .iter()
        .map(|&height_mm| {
            let choice = Choice {
                height_mm,
                lift_mm,
                brightness: 1.0,
            };
            let light = spread_at(wants, choice);
            SweepPoint {
                height_mm,
                mean: light.mean,
                worst: light.least,
                best: light.most,
            }
        })
        .collect()
}

/// How far a setting misses the trays' bands: 0 when every cell of every tray lies inside.
///
/// Per tray, the worst cell's shortfall and the best cell's excess, relative to the band's edge,
/// and twice the mean's, since the mean is most of the plants.
pub fn miss(wants: &[Want<'_>], setting: Setting) -> f64 {
    let trays = light_on(wants, setting.choice());
    miss_of(wants, &trays, setting.hours_h)
}

fn miss_of(wants: &[Want<'_>], trays: &[Spread], hours_h: f64) -> f64 {
    let outside = |dli: f64, band: &RangeInclusive<f64>| {
        let (low, high) = (*band.start(), *band.end());
        ((low - dli) / low).max(0.0) + ((dli - high) / high).max(0.0)
    };
    let total: f64 = wants
        .iter()
        .zip(trays)
        .map(|(want, ppfd)| {
            [(ppfd.least, 1.0), (ppfd.most, 1.0), (ppfd.mean, 2.0)]
                .into_iter()
                .map(|(ppfd, weight)| {
                    let dli = dli_mol_m2_d(ppfd, hours_h) + want.besides_mol_m2_d;
                    weight * outside(dli, &want.dli_mol_m2_d)
                })
                .sum::<f64>()
        })
        .sum();
    total / wants.len().max(1) as f64
}

/// Whether the mean of a tray lies outside its band with `setting`.
pub fn a_mean_is_outside(wants: &[Want<'_>], setting: Setting) -> bool {
    let trays = light_on(wants, setting.choice());
    wants.iter().zip(trays).any(|(want, ppfd)| {
        let dli = dli_mol_m2_d(ppfd.mean, setting.hours_h) + want.besides_mol_m2_d;
        !want.dli_mol_m2_d.contains(&dli)
    })
}

/// Two misses, or two spreads, closer than this are the same to a plant.
pub const SAME: f64 = 0.02;

/// The best setting among `choices` and hours within `limits`; `None` without a choice or tray.
///
/// First the least miss; among those as good, the most even light (worst cell against the mean);
/// among those as even, the fewest quiet hours, then the least energy.
pub fn best(wants: &[Want<'_>], choices: &[Choice], limits: HourLimits) -> Option<Setting> {
    let most_hours = limits.most_h;
    struct Candidate {
        setting: Setting,
        miss: f64,
        evenness: f64,
    }
    if wants.is_empty() {
        return None;
    }
    let steps = ((most_hours - LEAST_HOURS) / TIMER_STEP_H).floor().max(0.0) as i32;
    let mut candidates = Vec::new();
    for &choice in choices {
        let trays = light_on(wants, choice);
        let light = together(&trays);
        let evenness = if light.mean > 0.0 {
            light.least / light.mean
        } else {
            0.0
        };
        for step in 0..=steps {
            let hours_h = (LEAST_HOURS + f64::from(step) * TIMER_STEP_H).min(most_hours);
            let setting = Setting::new(choice, hours_h);
            candidates.push(Candidate {
                setting,
                miss: miss_of(wants, &trays, setting.hours_h),
                evenness,
            });
        }
    }
    let least_miss = candidates.iter().map(|c| c.miss).reduce(f64::min)?;
    candidates.retain(|c| c.miss <= least_miss + SAME);
    let most_even = candidates.iter().map(|c| c.evenness).reduce(f64::max)?;
    candidates.retain(|c| c.evenness >= most_even - SAME);
    candidates
        .into_iter()
        .min_by(|a, b| {
            let energy = |c: &Candidate| c.setting.hours_h * c.setting.brightness;
            let quiet = |c: &Candidate| (c.setting.hours_h - limits.free_h).max(0.0);
            let key = |c: &Candidate| [quiet(c), energy(c), c.miss, -c.evenness];
            key(a)
                .partial_cmp(&key(b))
                .expect("no figure of a setting is NaN")
        })
        .map(|c| c.setting)
}
