//! The trays of a bay on a date.

use jiff::civil::Date;
use serde::{Serialize, Serializer};
use utoipa::ToSchema;

use crate::crops::{Crop, Habit};
use crate::day::cell_light::PartLight;
use crate::day::measures::Band;
use crate::day::standing::{Standing, StandingPart, days_here};
use crate::growth::Behind;
use crate::growth::seedling::SMALL_FOR_ITS_AGE;
use crate::light::falloff::Spread;
use crate::plan::{SoundPlan, Stage};

/// A tray on a date.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrayOnDay {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// Its kind.
    pub format: String,
    /// What it is going through as a whole.
    pub stage: Stage,
    /// Left and right edge on the deck.
    pub x_mm: [f64; 2],
    /// Front and back edge on the deck.
    pub y_mm: [f64; 2],
    /// Height of its rim over the deck.
    pub rim_mm: f64,
    /// What it stands on over the deck: boxes.
    pub lift_mm: f64,
    /// How far its dome reaches over the rim; `None` while it has none on.
    pub dome_mm: Option<f64>,
    /// What is sown in it.
    pub parts: Vec<PartOnDay>,
    /// First day on which it stands here.
    pub since: Date,
    /// Last day in this bay.
    pub until: Date,
}

/// A part of a tray on a date.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PartOnDay {
    /// Its sowing.
    pub sowing: String,
    /// Its crop, as the library names it.
    pub crop: String,
    /// How it grows.
    pub habit: Habit,
    /// Crop and variety in words.
    pub name: String,
    /// What it is going through; `None` before it is sown.
    pub stage: Option<Stage>,
    /// Left and right edge on the deck.
    pub x_mm: [f64; 2],
    /// Front and back edge on the deck.
    pub y_mm: [f64; 2],
    /// How tall the plants stand over the rim.
    pub plant_height_mm: f64,
    /// How they have grown; `None` while none is up.
    pub plant: Option<PlantOnDay>,
    /// Cells along x.
    pub columns: u32,
    /// Cells along y.
    pub rows: u32,
    /// The light of each cell; `None` when it was not asked for.
    pub cells: Option<CellFigures>,
    /// The daily light that suits the crop.
    pub target: Band,
}

/// How the plants of a part have grown until a day.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct PlantOnDay {
    /// How wide their leaves spread.
    pub spread_mm: f64,
    /// Their height against that of sturdy ones: 1.4 is stretched by 40 %.
    pub stretched: f64,
    /// Leaf and root against those of their age in usual conditions: 0.5 is half as much.
    pub size: f64,
    /// What holds them up most; `None` where nothing does, or not by much.
    pub behind_by: Option<Behind>,
    /// The share of their cell that roots fill; over 1 they circle.
    pub cell_filled: f64,
}

impl PlantOnDay {
    fn of(crop: &Crop, part: &StandingPart<'_>, cell_ml: f64) -> Option<Self> {
        let plant = part.plant.filter(|_| part.sowing.stays.is_none())?;
        let size = plant.size(crop);
        Some(Self {
            spread_mm: part.spread_mm,
            stretched: plant.stretched(),
            size,
            behind_by: plant.behind_by().filter(|_| size < SMALL_FOR_ITS_AGE),
            cell_filled: plant.filled_ml(crop) / cell_ml,
        })
    }
}

/// The light of each cell of a part, row by row from the front left; empty where there is none.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct CellFigures {
    /// PPFD in µmol/m²/s.
    #[serde(serialize_with = "to_hundredths")]
    pub ppfd: Vec<f64>,
    /// DLI in mol/m²/d, from lamps and window together.
    #[serde(serialize_with = "to_hundredths")]
    pub dli: Vec<f64>,
}

/// As nobody can measure more closely: a bay of cells in all their digits is most of an answer.
fn to_hundredths<S: Serializer>(values: &[f64], to: S) -> Result<S::Ok, S::Error> {
    to.collect_seq(values.iter().map(|value| (value * 100.0).round() / 100.0))
}

impl PartOnDay {
    /// PPFD of each cell, where it was asked for.
    pub(super) fn ppfd(&self) -> &[f64] {
        self.cells.as_ref().map_or(&[], |cells| &cells.ppfd)
    }

    /// DLI of each cell, where it was asked for.
    pub(super) fn dli(&self) -> &[f64] {
        self.cells.as_ref().map_or(&[], |cells| &cells.dli)
    }
}

/// The trays of `standing`, with the light on each part.
pub(super) fn trays(
    plan: &SoundPlan,
    standing: &[Standing<'_>],
    part_lights: &[PartLight],
    date: Date,
) -> Vec<TrayOnDay> {
    let mut lights = part_lights.iter();
    standing
        .iter()
        .map(|s| {
            let parts = s.parts.iter().map(|part| {
                let crop = plan.crop(part.sowing);
                let (columns, rows) = part.grid;
                let light = lights.next();
                PartOnDay {
                    sowing: part.sowing.id.clone(),
                    crop: crop.id.clone(),
                    habit: crop.habit,
                    name: part.dates.name.clone(),
                    stage: part.stage,
                    x_mm: part.footprint.x_mm,
                    y_mm: part.footprint.y_mm,
                    plant_height_mm: part.plant_height_mm,
                    plant: PlantOnDay::of(crop, part, s.format.cell_ml),
                    columns,
                    rows,
                    cells: Some(CellFigures {
                        ppfd: light.map_or_else(Vec::new, |l| l.ppfd.clone()),
                        dli: light.map_or_else(Vec::new, |l| l.daily.clone()),
                    }),
                    target: Band {
                        low: crop.dli_low_mol_m2_d,
                        high: crop.dli_high_mol_m2_d,
                    },
                }
            });
            let here = days_here(s, date);
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
                since: here.from,
                until: here.to,
            }
        })
        .collect()
}

impl TrayOnDay {
    /// Without the lists of its cells, which are for its own sheet.
    pub(super) fn in_outline(&mut self) {
        for part in &mut self.parts {
            part.cells = None;
        }
    }
}

/// The light on each of `trays` while the lamps burn, in µmol/m²/s; 0 while they are off.
pub(super) fn mean_ppfd(trays: &[TrayOnDay], burning: bool) -> Vec<f64> {
    let mean = |tray: &TrayOnDay| {
        let cells = tray.parts.iter().flat_map(PartOnDay::ppfd);
        let cells: Vec<f64> = cells.copied().collect();
        if burning {
            Spread::of(&cells).mean
        } else {
            0.0
        }
    };
    trays.iter().map(mean).collect()
}
