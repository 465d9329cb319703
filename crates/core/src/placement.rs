//! Which trays stand where on a date, and which want the same spot.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::containers::TrayFormat;
use crate::crops::GerminatesIn;
use crate::growth::{height_mm, leaf_cover};
use crate::light::bay::Footprint;
use crate::plan::{DateSpan, SoundPlan, Sowing, Stage, Tray};
use crate::room::{Bay, BayRef, Kind};
use crate::season::{SowingDates, TrayDates};
use crate::work::go_on;

/// A tray as it stands in a bay on a date.
#[derive(Debug, Clone)]
pub struct Standing<'a> {
    /// The tray.
    pub tray: &'a Tray,
    /// Its kind.
    pub format: &'a TrayFormat,
    /// What it stands on over the deck.
    pub lift_mm: f64,
    /// Its dates as a whole.
    pub dates: TrayDates,
    /// Its stage as a whole on the date.
    pub stage: Stage,
    /// Whether its dome is on: until all of it is up, unless a chamber keeps the damp in already
    /// (common practice, no source).
    pub domed: bool,
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
    /// How tall its plants are over the rim.
    pub plant_height_mm: f64,
    /// Height of its leaves, or of the bare mix, over the deck.
    pub canopy_mm: f64,
}

impl StandingPart<'_> {
    /// The share of it that leaves cover.
    pub fn leaf_cover(&self) -> f64 {
        let across = |edges: [f64; 2], cells: u32| (edges[1] - edges[0]) / f64::from(cells.max(1));
        let cell_mm =
            across(self.footprint.x_mm, self.grid.0).min(across(self.footprint.y_mm, self.grid.1));
        leaf_cover(self.plant_height_mm, cell_mm)
    }

    /// Whether seedlings stand here that want light.
    pub fn is_growing(&self) -> bool {
        self.stage == Some(Stage::Grow)
    }

    /// Whether it wants light: seedlings do, and seeds of crops that germinate in light.
    pub fn wants_light(&self, plan: &SoundPlan) -> bool {
        match self.stage {
            Some(Stage::Grow) => true,
            Some(Stage::Germinate) => plan.crop(self.sowing).germinates_in == GerminatesIn::Light,
            _ => false,
        }
    }
}

impl Standing<'_> {
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

    /// Whether any of it wants light.
    pub fn wants_light(&self, plan: &SoundPlan) -> bool {
        self.parts.iter().any(|part| part.wants_light(plan))
    }
}

/// The trays in `bay` on `date`, in the plan's order.
pub fn standing_in<'a>(
    plan: &'a SoundPlan,
    dates: &'a [SowingDates],
    bay: &Bay<'_>,
    date: Date,
) -> Vec<Standing<'a>> {
    let lift_mm = bay.tier.lift_mm();
    let here = |stand: &BayRef| stand.place == bay.place.id && stand.tier == bay.tier.id;
    plan.trays_in(bay)
        .filter_map(|tray| {
            let tray_dates = TrayDates::of(plan, tray, dates);
            let stage = tray_dates.stage_on(date)?;
            let stand = tray.stand_in(stage).filter(|s| here(&s.bay))?;
            let format = plan.format(tray);
            let parts = tray.parts.iter().map(|part| {
                let index = plan.sowing_index(&part.sowing);
                let (sowing, dates) = (&plan.sowings[index], &dates[index]);
                let stage = dates.stage_on(date);
                let gone = stage == Some(Stage::Out);
                let plant_height_mm = dates
                    .days_up(date)
                    .filter(|_| !gone)
                    .map_or(0.0, |days| height_mm(plan.crop(sowing), f64::from(days)));
                let (footprint, grid) = stand.block(format, part.block(format));
                StandingPart {
                    sowing,
                    dates,
                    stage,
                    footprint,
                    grid,
                    plant_height_mm,
                    canopy_mm: lift_mm + format.height_mm + plant_height_mm,
                }
            });
            Some(Standing {
                tray,
                format,
                lift_mm,
                dates: tray_dates,
                stage,
                domed: stage == Stage::Germinate
                    && format.dome_height_mm.is_some()
                    && !matches!(bay.place.kind, Kind::Chamber(_)),
                footprint: stand.footprint(format),
                parts: parts.collect(),
            })
        })
        .collect()
}

/// The last day on which a tray stands where it does, in its stage and the next if it stays put.
pub fn leaves_on(standing: &Standing<'_>, date: Date) -> Date {
    let stays = standing.stage == Stage::Germinate
        && standing.tray.stand_in(Stage::Grow) == standing.tray.stand_in(Stage::Germinate);
    let last = if stays { Stage::Grow } else { standing.stage };
    let days = |stage| standing.dates.days_of(stage);
    days(last)
        .or(days(standing.stage))
        .map_or(date, |days| days.to)
}

/// Two trays that want the same spot.
#[derive(Debug, Clone, PartialEq)]
pub struct Clash<'a> {
    /// The tray named first in the plan.
    pub first: &'a Tray,
    /// The other.
    pub second: &'a Tray,
    /// The bay.
    pub bay: &'a BayRef,
    /// The days on which both would stand there.
    pub days: DateSpan,
}

/// Every pair of trays that want the same spot, with the days.
pub fn clashes<'a>(plan: &'a SoundPlan, dates: &[SowingDates]) -> Vec<Clash<'a>> {
    let mut by_bay: BTreeMap<(&str, &str), Vec<Stay<'_>>> = BTreeMap::new();
    for stay in stays(plan, dates) {
        let bay = (stay.bay.place.as_str(), stay.bay.tier.as_str());
        by_bay.entry(bay).or_default().push(stay);
    }
    let mut clashes = Vec::new();
    let pairs = by_bay.values().flat_map(|stays| {
        let pairs = stays.iter().enumerate();
        pairs.flat_map(move |(i, first)| stays[i + 1..].iter().map(move |second| (first, second)))
    });
    for (first, second) in pairs {
        go_on();
        let days = DateSpan {
            from: first.days.from.max(second.days.from),
            to: first.days.to.min(second.days.to),
        };
        if days.from <= days.to
            && !std::ptr::eq(first.tray, second.tray)
            && first.footprint.overlaps(&second.footprint)
        {
            clashes.push(Clash {
                first: first.tray,
                second: second.tray,
                bay: first.bay,
                days,
            });
        }
    }
    clashes
}

/// A tray at one spot, with the days.
#[derive(Debug, Clone)]
pub struct Stay<'a> {
    /// The tray.
    pub tray: &'a Tray,
    /// The bay.
    pub bay: &'a BayRef,
    /// Its outline on the deck.
    pub footprint: Footprint,
    /// The days.
    pub days: DateSpan,
}

/// Where every tray stands and when. A tray that stays put stands there once, not once a stage.
pub fn stays<'a>(plan: &'a SoundPlan, dates: &[SowingDates]) -> Vec<Stay<'a>> {
    let mut stays: Vec<Stay<'_>> = Vec::new();
    for tray in &plan.trays {
        let format = plan.format(tray);
        let dates = TrayDates::of(plan, tray, dates);
        for stage in [Stage::Germinate, Stage::Grow, Stage::Harden] {
            let (Some(stand), Some(days)) = (tray.stand_in(stage), dates.days_of(stage)) else {
                continue;
            };
            let footprint = stand.footprint(format);
            match stays.last_mut() {
                Some(last)
                    if std::ptr::eq(last.tray, tray)
                        && last.bay == &stand.bay
                        && last.footprint == footprint =>
                {
                    last.days.to = days.to;
                }
                _ => stays.push(Stay {
                    tray,
                    bay: &stand.bay,
                    footprint,
                    days,
                }),
            }
        }
    }
    stays
}
