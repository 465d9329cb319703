//! Who stands in a bay on a date.

use jiff::civil::Date;

use crate::basis::dates::DateSpan;
use crate::basis::plane::Footprint;
use crate::growth::{Seedling, leaves};
use crate::lamps::bands::LightBand;
use crate::lamps::hours::HourLimits;
use crate::light::surfaces::{Cover, THROUGH_DOME};
use crate::plan::{SoundPlan, Sowing, Stage, Tray};
use crate::room::Bay;
use crate::room::container::TrayFormat;
use crate::season::company::present;
use crate::season::moments::TrayMoments;
use crate::season::stays::spots;
use crate::season::{Reckoned, SowingDates};
use crate::warmth::occupant::Occupant;

/// A tray as it stands in a bay on a date.
#[derive(Debug, Clone)]
pub struct Standing<'a> {
    /// The tray.
    pub tray: &'a Tray,
    /// Its kind.
    pub format: &'a TrayFormat,
    /// What it stands on over the deck.
    pub lift_mm: f64,
    /// Its moments as a whole.
    pub moments: TrayMoments,
    /// Its stage as a whole on the date.
    pub stage: Stage,
    /// Whether not all of it is up: it wants warmth and damp.
    pub coming_up: bool,
    /// Whether its dome is on: where it germinates, unless the place, or a tray stacked on it, keeps
    /// the damp in already.
    pub domed: bool,
    /// Whether it is stacked on others.
    pub stacked: bool,
    /// Whether others are stacked on it, so that it lies dark.
    pub covered: bool,
    /// Its outline on the deck.
    pub footprint: Footprint,
    /// What is sown in it.
    pub parts: Vec<StandingPart<'a>>,
}

/// A part of a tray as it stands on a date.
#[derive(Debug, Clone)]
pub struct StandingPart<'a> {
    /// Its sowing.
    pub sowing: &'a Sowing,
    /// The sowing's dates.
    pub dates: &'a SowingDates,
    /// Its own stage; `None` while the rest of the tray is sown and it is not.
    pub stage: Option<Stage>,
    /// Its outline on the deck.
    pub footprint: Footprint,
    /// Columns and rows of cells along x and y.
    pub grid: (u32, u32),
    /// Whether its lamps are to burn.
    pub wants_light: bool,
    /// Its plants; `None` while none is up.
    pub plant: Option<Seedling>,
    /// How tall they are over the rim.
    pub plant_height_mm: f64,
    /// How wide their leaves spread.
    pub spread_mm: f64,
    /// Height of its leaves, or of the bare mix, over the deck.
    pub canopy_mm: f64,
}

impl StandingPart<'_> {
    /// The share of it that leaves cover.
    pub fn leaf_cover(&self) -> f64 {
        let across = |edges: [f64; 2], cells: u32| (edges[1] - edges[0]) / f64::from(cells.max(1));
        let cell_mm =
            across(self.footprint.x_mm, self.grid.0).min(across(self.footprint.y_mm, self.grid.1));
        leaves::cover(self.spread_mm, cell_mm)
    }

    /// What its seedlings want of light on `date`.
    pub fn light_band(&self, plan: &SoundPlan, date: Date) -> LightBand {
        let days_up = self.dates.days_up(date).unwrap_or(0);
        LightBand::of(plan.crop(self.sowing), days_up)
    }

    /// Whether seedlings stand here that want light.
    pub fn is_growing(&self) -> bool {
        self.stage == Some(Stage::Grow)
    }
}

impl<'a> Standing<'a> {
    /// The same as warmth and damp know it.
    pub fn occupant(&self) -> Occupant<'a> {
        Occupant {
            tray: &self.tray.id,
            format: self.format,
            footprint: self.footprint,
            coming_up: self.coming_up,
            up: self.is_up(),
            domed: self.domed,
            covered: self.covered,
            wants_lamps: self.wants_light(),
        }
    }

    /// The share of it that leaves cover.
    pub fn leaf_cover(&self) -> f64 {
        let area = |f: &Footprint| (f.x_mm[1] - f.x_mm[0]) * (f.y_mm[1] - f.y_mm[0]);
        let parts = self.parts.iter();
        let leaves = parts.map(|part| area(&part.footprint) * part.leaf_cover());
        (leaves.sum::<f64>() / area(&self.footprint)).clamp(0.0, 1.0)
    }

    /// Its rim over the deck.
    pub fn rim_mm(&self) -> f64 {
        self.lift_mm + self.format.height_mm
    }

    /// The top of its leaves, or of its rim, over the deck.
    pub fn canopy_mm(&self) -> f64 {
        let leaves = self.parts.iter().map(|part| part.canopy_mm);
        leaves.fold(self.rim_mm(), f64::max)
    }

    /// The top of all of it over the deck, the dome too while it is on.
    pub fn top_mm(&self) -> f64 {
        let dome = self.format.dome_height_mm.filter(|_| self.domed);
        let dome = dome.map_or(0.0, |mm| self.rim_mm() + mm);
        self.canopy_mm().max(dome)
    }

    /// Whether seedlings stand in any of it.
    pub fn is_up(&self) -> bool {
        self.parts.iter().any(StandingPart::is_growing)
    }

    /// Whether plants of any of it are up, hardening off too.
    pub fn is_up_or_hardening(&self) -> bool {
        let up = |part: &StandingPart<'_>| matches!(part.stage, Some(Stage::Grow | Stage::Harden));
        self.parts.iter().any(up)
    }

    /// Whether any of it wants light.
    pub fn wants_light(&self) -> bool {
        self.parts.iter().any(|part| part.wants_light)
    }
}

/// The trays in `bay` on `date`, in the plan's order.
pub fn standing_in<'a>(reckoned: &'a Reckoned<'a>, bay: &Bay<'_>, date: Date) -> Vec<Standing<'a>> {
    let (plan, dates) = (reckoned.plan, &reckoned.dates);
    let lift_mm = bay.tier.lift_mm();
    let all = present(plan, dates, |tray| reckoned.moments_of(tray), bay, date);
    let mut standing: Vec<Standing<'a>> = all
        .into_iter()
        .map(|here| {
            let (tray, format, stand) = (here.tray, here.format, here.stand);
            let lift_mm = lift_mm + stand.box_mm.unwrap_or(0.0);
            let grown = reckoned.growing.of_tray(plan, tray);
            let parts = tray.parts.iter().zip(&here.parts).enumerate();
            let parts = parts.map(|(i, (part, now))| {
                let index = plan.sowing_index(&part.sowing);
                let (sowing, dates) = (&plan.sowings[index], &dates[index]);
                let plant = grown.get(i).and_then(|grown| grown.on(date)).copied();
                let plant = plant.filter(|_| now.there);
                let plant_height_mm = plant.map_or(0.0, |plant| plant.height_mm);
                let crop = plan.crop(sowing);
                let (footprint, grid) = stand.block(format, part.block(format));
                StandingPart {
                    sowing,
                    dates,
                    stage: now.stage,
                    footprint,
                    grid,
                    wants_light: now.wants_light,
                    plant_height_mm,
                    spread_mm: plant.map_or(0.0, |plant| plant.spread_mm(crop)),
                    plant,
                    canopy_mm: lift_mm + format.height_mm + plant_height_mm,
                }
            });
            Standing {
                tray,
                format,
                lift_mm,
                moments: reckoned.moments_of(tray),
                stage: here.stage,
                coming_up: here.coming_up,
                domed: here.domed,
                stacked: stand.stacked,
                covered: here.covered,
                footprint: here.footprint,
                parts: parts.collect(),
            }
        })
        .collect();
    lift_stacked(&mut standing);
    standing
}

/// Lifts what is stacked onto what it is stacked on.
fn lift_stacked(standing: &mut [Standing<'_>]) {
    for upper in 0..standing.len() {
        if !standing[upper].stacked {
            continue;
        }
        let own = &standing[upper];
        let below = standing.iter().filter(|s| !s.stacked);
        let below = below.filter(|s| s.footprint.overlaps(&own.footprint));
        let lift_mm = below.map(Standing::rim_mm).fold(own.lift_mm, f64::max);
        let own = &mut standing[upper];
        let raised_mm = lift_mm - own.lift_mm;
        own.lift_mm = lift_mm;
        own.parts
            .iter_mut()
            .for_each(|part| part.canopy_mm += raised_mm);
    }
}

/// The days on which a tray stands where it does on `date`.
pub fn days_here(standing: &Standing<'_>, date: Date) -> DateSpan {
    let mut spots = spots(standing.tray, &standing.moments).into_iter();
    let here = spots.find(|(_, days)| (days.from..=days.to).contains(&date));
    here.map_or(DateSpan::day(date), |(_, days)| days)
}

/// Every part of every tray.
pub(super) fn parts<'a, 'b>(
    standing: &'b [Standing<'a>],
) -> impl Iterator<Item = (&'b Standing<'a>, &'b StandingPart<'a>)> {
    standing
        .iter()
        .flat_map(|s| s.parts.iter().map(move |part| (s, part)))
}

pub(super) fn tallest_leaves<'a, 'b>(
    standing: &'b [Standing<'a>],
) -> Option<(&'b Standing<'a>, &'b StandingPart<'a>)> {
    parts(standing).max_by(|(_, a), (_, b)| {
        let up = |part: &StandingPart<'_>| part.is_growing();
        up(a).cmp(&up(b)).then(a.canopy_mm.total_cmp(&b.canopy_mm))
    })
}

/// What the dome of a tray, or a tray on top of it, lets through.
pub(super) fn let_through(s: &Standing<'_>) -> f64 {
    if s.covered {
        0.0
    } else if s.domed && s.format.dome_height_mm.is_some() {
        THROUGH_DOME
    } else {
        1.0
    }
}

/// All of them as warmth and damp know them.
pub fn occupants<'a>(standing: &[Standing<'a>]) -> Vec<Occupant<'a>> {
    standing.iter().map(Standing::occupant).collect()
}

/// Whether anything among `standing` wants its lamps on.
pub fn want_light(standing: &[Standing<'_>]) -> bool {
    standing.iter().any(Standing::wants_light)
}

/// Whether the lamps of a bay burn: something there wants light.
pub(super) fn burns(bay: &Bay<'_>, standing: &[Standing<'_>]) -> bool {
    !bay.tier.lamps.is_empty() && want_light(standing)
}

/// What lies on a deck: trays, and the leaves of what grows in them.
pub(super) fn covered(bay: &Bay<'_>, standing: &[Standing<'_>]) -> Cover {
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

/// How long the lamps of `bay` may burn over the seedlings among `standing`; `None` when there are
/// none.
pub(super) fn hour_limits(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    standing: &[Standing<'_>],
) -> Option<HourLimits> {
    let growing = parts(standing).filter(|(_, part)| part.is_growing());
    let most = growing.map(|(_, part)| plan.crop(part.sowing).photoperiod_most_h);
    Some(HourLimits::new(
        most.reduce(f64::min)?,
        plan.site.free_hours(),
        bay.place.has_daylight(),
    ))
}
