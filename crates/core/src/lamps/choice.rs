//! What can be chosen for lamps over trays that share a bay, and the light that it gives.

use std::rc::Rc;

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::plane::Footprint;
use crate::basis::units::dli_mol_m2_d;
use crate::lamps::bands::LightBand;
use crate::lamps::outcome::Outcome;
use crate::light::falloff::Spread;
use crate::light::field_name::FieldName;
use crate::room::{Adjust, Tier};

/// PPFD on each cell in µmol/m²/s, with the lamps' faces at a height over the deck and trays that
/// stand on so much, both in mm; the lamps as bright as now.
pub type LightAt<'a> = Rc<dyn Fn(f64, f64) -> Vec<f64> + 'a>;

/// What tells the light on a part of a tray from all other: two of one name are lit alike wherever the lamps
/// hang.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LightName {
    /// The light of its bay.
    pub field: FieldName,
    /// Its outline on the deck.
    pub outline: Footprint,
    /// Its columns and rows of cells.
    pub grid: (u32, u32),
    /// Its leaves over the tray's feet.
    pub over_feet_mm: f64,
    /// What a dome lets through.
    pub through: f64,
}

impl LightName {
    /// All of it in figures.
    pub(super) fn figures(&self) -> [f64; 10] {
        let ([x0, x1], [y0, y1]) = (self.outline.x_mm, self.outline.y_mm);
        let (columns, rows) = (f64::from(self.grid.0), f64::from(self.grid.1));
        let [level, floor] = self.field.figures();
        let (over, through) = (self.over_feet_mm, self.through);
        [x0, x1, y0, y1, columns, rows, level, floor, over, through]
    }
}

/// What one part of a tray gets and wants.
#[derive(Clone)]
#[allow(missing_debug_implementations)]
pub struct Want<'a> {
    /// The light on its cells.
    pub light: LightAt<'a>,
    /// What tells that light from all other; `None` where nothing does.
    pub name: Option<LightName>,
    /// Daily light that each cell gets from elsewhere, whatever these lamps do, in mol/m²/d; empty
    /// where there is none.
    pub besides: Vec<f64>,
    /// What suits it.
    pub band: LightBand,
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

    /// Hangs the lamps of `tier` so, and sets its hours.
    pub fn set(&self, tier: &mut Tier) {
        for lamp in &mut tier.lamps {
            lamp.height_mm = self.height_mm;
            let wanted = lamp.dimmed() * self.brightness;
            let Some(dimmer) = &mut lamp.dimmer else {
                continue;
            };
            let off = |share: &f64| (share - wanted).abs();
            let steps = dimmer.steps.iter().enumerate();
            let nearest = steps.min_by(|a, b| off(a.1).total_cmp(&off(b.1)));
            dimmer.at = nearest.map_or(dimmer.at, |(step, _)| step);
        }
        if let Some(Adjust::Boxes(boxes)) = &mut tier.adjust {
            boxes.stacked_mm = self.lift_mm;
        }
        tier.photoperiod_h = self.hours_h;
    }

    /// The place of lamps and trays alone.
    pub fn choice(&self) -> Choice {
        Choice {
            height_mm: self.height_mm,
            lift_mm: self.lift_mm,
            brightness: self.brightness,
        }
    }
}

/// PPFD on each cell of each part in µmol/m²/s.
fn light_at<'a>(
    wants: &'a [Want<'_>],
    choice: Choice,
) -> impl Iterator<Item = (&'a Want<'a>, Vec<f64>)> {
    wants.iter().map(move |want| {
        let mut light = (want.light)(choice.height_mm, choice.lift_mm);
        light.iter_mut().for_each(|ppfd| *ppfd *= choice.brightness);
        (want, light)
    })
}

/// The light over all trays.
pub fn spread_at(wants: &[Want<'_>], choice: Choice) -> Spread {
    let light: Vec<f64> = light_at(wants, choice)
        .flat_map(|(_, light)| light)
        .collect();
    Spread::of(&light)
}

/// The daily light over all trays with `setting`, in mol/m²/d.
pub fn dli_at(wants: &[Want<'_>], setting: Setting) -> Spread {
    let daily: Vec<f64> = light_at(wants, setting.choice())
        .flat_map(|(want, light)| {
            let besides = |i: usize| want.besides.get(i).copied().unwrap_or(0.0);
            let cells = light.into_iter().enumerate();
            cells
                .map(|(i, ppfd)| dli_mol_m2_d(ppfd, setting.hours_h) + besides(i))
                .collect::<Vec<_>>()
        })
        .collect();
    Spread::of(&daily)
}

/// What the cells come to with `setting`.
pub fn outcome_at(wants: &[Want<'_>], setting: Setting) -> Outcome {
    light_at(wants, setting.choice())
        .map(|(want, light)| Outcome::of(&light, setting.hours_h, &want.besides, &want.band))
        .sum()
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
