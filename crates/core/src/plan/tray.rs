//! Trays: what is sown in them, and where they stand.

use std::collections::HashSet;

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::plane::{Axis, Footprint};
use crate::crops::short;
use crate::plan::sowing::Sowing;
use crate::room::BayRef;
use crate::room::container::TrayFormat;

/// A tray with what is sown in it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Tray {
    /// Identifier.
    pub id: String,
    /// What its label says.
    pub name: String,
    /// What is sown in it: one sowing, or several by rows or packs of cells.
    pub parts: Vec<Part>,
    /// Whether plants that came up elsewhere are potted on into it, when their cells are full; left
    /// out, it is sown.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub potted: bool,
    /// Whether all that is sown in it is sown on one day, rather than each kind on its own.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub sown_together: bool,
    /// Its kind.
    pub format: String,
    /// Whether it stays where it stands when all trays are placed.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub pinned: bool,
    /// Where it stands from which stage on; a stage without an entry stays where the one before
    /// stood.
    pub stands: Vec<Stand>,
}

/// A block of a tray's cells with one sowing in it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Part {
    /// What is sown.
    pub sowing: String,
    /// In these columns, counted from 0: from the first up to but not including the second. All
    /// when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub columns: Option<[u32; 2]>,
    /// In these rows, counted from 0 at the front, in the same way. All when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rows: Option<[u32; 2]>,
}

/// A rectangle of cells: half-open ranges of columns and rows.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct CellBlock {
    /// From one column up to another.
    pub columns: [u32; 2],
    /// From one row up to another.
    pub rows: [u32; 2],
}

impl CellBlock {
    /// How many cells it has.
    pub fn cells(&self) -> u32 {
        (self.columns[1] - self.columns[0]) * (self.rows[1] - self.rows[0])
    }

    /// Whether they share a cell.
    pub fn overlaps(&self, other: &Self) -> bool {
        let over = |a: [u32; 2], b: [u32; 2]| a[0] < b[1] && b[0] < a[1];
        over(self.columns, other.columns) && over(self.rows, other.rows)
    }
}

impl Part {
    /// The `block` of a tray of `format` with `sowing` in it.
    pub fn of(sowing: &str, block: CellBlock, format: &TrayFormat) -> Self {
        Self {
            sowing: sowing.to_owned(),
            columns: Some(block.columns).filter(|columns| *columns != [0, format.columns]),
            rows: Some(block.rows).filter(|rows| *rows != [0, format.rows]),
        }
    }

    /// The cells it takes in a tray of `format`.
    pub fn block(&self, format: &TrayFormat) -> CellBlock {
        CellBlock {
            columns: self.columns.unwrap_or([0, format.columns]),
            rows: self.rows.unwrap_or([0, format.rows]),
        }
    }
}

/// Where a tray stands from a stage on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Stand {
    /// From this stage on.
    pub stage: Stage,
    /// From this date on, for one that moves in the middle of its stage; from the stage's first day
    /// when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub from: Option<Date>,
    /// In this bay.
    pub bay: BayRef,
    /// Its left edge on the deck.
    pub x_mm: f64,
    /// Its front edge on the deck.
    pub y_mm: f64,
    /// Which way its length runs.
    pub along: Axis,
    /// The height of a box of its own under it; left out, it stands on what its tier's trays do.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub box_mm: Option<f64>,
    /// Whether it is stacked on the trays under it, which lie dark then.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub stacked: bool,
}

/// What a sowing goes through.
#[derive(
    Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize, ToSchema,
)]
#[serde(rename_all = "snake_case")]
pub enum Stage {
    /// From sowing to emergence.
    Germinate,
    /// From emergence to hardening off.
    Grow,
    /// In and out, to get used to sun and wind.
    Harden,
    /// Planted out.
    Out,
}

impl Tray {
    /// So many trays more besides `trays` as `cells` of `sowing` take, or as many pots to pot it on
    /// into; each has a label of its own and stands nowhere.
    pub fn more(
        trays: &[Self],
        sowing: &Sowing,
        format: &TrayFormat,
        cells: u32,
        potted: bool,
    ) -> Vec<Self> {
        const MOST: u32 = 200;
        let label = short(&sowing.crop);
        let id = label.to_ascii_lowercase();
        let taken: HashSet<&str> = trays
            .iter()
            .flat_map(|tray| [tray.id.as_str(), tray.name.as_str()])
            .collect();
        let free = |n: &u32| {
            let names = [format!("{id}{n}"), format!("{label}{n}")];
            names.iter().all(|name| !taken.contains(name.as_str()))
        };
        let tray = |n: u32| Self {
            id: format!("{id}{n}"),
            name: format!("{label}{n}"),
            parts: vec![Part {
                sowing: sowing.id.clone(),
                columns: None,
                rows: None,
            }],
            potted,
            sown_together: false,
            format: format.id.clone(),
            pinned: false,
            stands: Vec::new(),
        };
        let wanted = cells.div_ceil(format.cells()).clamp(1, MOST);
        (1..).filter(free).take(wanted as usize).map(tray).collect()
    }

    /// Where it stands when `stage` begins; `None` when planted out or nowhere. A tray that hardens
    /// off stands only where the plan says so for that stage.
    pub fn stand_in(&self, stage: Stage) -> Option<&Stand> {
        let begun = |stand: &&Stand| match stage {
            Stage::Out => false,
            Stage::Harden => stand.stage == stage && stand.from.is_none(),
            // What is stacked comes down before it grows.
            _ => {
                stand.stage < stage && !stand.stacked
                    || stand.stage == stage && stand.from.is_none()
            }
        };
        let stands = self.stands.iter().filter(begun);
        stands.max_by_key(|stand| (stand.stage, stand.from))
    }

    /// Where it stands on `date`, in `stage` then; `None` when planted out or nowhere.
    pub fn stand_on(&self, stage: Stage, date: Date) -> Option<&Stand> {
        let moved =
            |stand: &&Stand| stand.stage == stage && stand.from.is_some_and(|from| from <= date);
        let stands = self.stands.iter().filter(moved);
        let last = stands.max_by_key(|stand| stand.from);
        last.or_else(|| self.stand_in(stage))
    }
}

impl Tray {
    /// The tray with `stand` in place of the one that begins when it does, or besides.
    pub fn restood(&self, stand: &Stand) -> Self {
        let mut tray = self.clone();
        let begins = |s: &Stand| (s.stage, s.from);
        match tray.stands.iter_mut().find(|s| begins(s) == begins(stand)) {
            Some(old) => *old = stand.clone(),
            None => tray.stands.push(stand.clone()),
        }
        tray
    }
}

impl Stand {
    /// Whether it is the same spot as `other`, whenever each is taken.
    pub fn same_spot(&self, other: &Self) -> bool {
        let spot = |stand: &Self| {
            let up = (stand.box_mm, stand.stacked);
            (stand.x_mm, stand.y_mm, stand.along, up)
        };
        self.bay == other.bay && spot(self) == spot(other)
    }

    /// The outline of a tray of `format` that stands here.
    pub fn footprint(&self, format: &TrayFormat) -> Footprint {
        let [x, y] = self.along.lay(format.length_mm, format.width_mm);
        Footprint {
            x_mm: [self.x_mm, self.x_mm + x],
            y_mm: [self.y_mm, self.y_mm + y],
        }
    }

    /// The outline of `block` of such a tray, and its columns and rows of cells as they lie along
    /// x and y.
    pub fn block(&self, format: &TrayFormat, block: CellBlock) -> (Footprint, (u32, u32)) {
        let whole = self.footprint(format);
        let cut = |edges: [f64; 2], cells: [u32; 2], of: u32| {
            let step = (edges[1] - edges[0]) / f64::from(of);
            cells.map(|cell| edges[0] + step * f64::from(cell))
        };
        let (along_x, along_y, of_x, of_y) = match self.along {
            Axis::X => (block.columns, block.rows, format.columns, format.rows),
            Axis::Y => (block.rows, block.columns, format.rows, format.columns),
        };
        let footprint = Footprint {
            x_mm: cut(whole.x_mm, along_x, of_x),
            y_mm: cut(whole.y_mm, along_y, of_y),
        };
        (
            footprint,
            (along_x[1] - along_x[0], along_y[1] - along_y[0]),
        )
    }
}
