//! The plan: one document that holds everything, the same on disk, over HTTP and in a file.

mod check;
mod ids;
mod sowing;

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::containers::TrayFormat;
use crate::crops::{self, Crop};

use crate::light::bay::Footprint;
use crate::room::{self, Bay, BayRef, Place, Room};
use crate::seeds::Packet;
use crate::site::{Site, days_between};

use ids::Ids;
pub use sowing::{Reason, Sowing};

/// The version of the document that this code reads and writes.
pub const SCHEMA_VERSION: u32 = 2;

/// A season in a room.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Plan {
    /// Version of this document's form.
    pub schema_version: u32,
    /// What people call the plan.
    pub name: String,
    /// Where it is.
    pub site: Site,
    /// The days it covers.
    pub season: DateSpan,
    /// The days on which nobody is there to water; empty when left out.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub away: Vec<DateSpan>,
    /// The room that the places stand in.
    pub room: Room,
    /// Racks and other places, from left to right.
    pub places: Vec<Place>,
    /// The kinds of tray in use.
    pub tray_formats: Vec<TrayFormat>,
    /// Crops of one's own, and those of the library that were changed, by the same identifier.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub crops: Vec<Crop>,
    /// Packets of seed.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub packets: Vec<Packet>,
    /// What is sown.
    pub sowings: Vec<Sowing>,
    /// The trays and where they stand.
    pub trays: Vec<Tray>,
}

/// Days from one date up to and including another.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DateSpan {
    /// First day.
    pub from: Date,
    /// Last day.
    pub to: Date,
}

impl DateSpan {
    /// A single day.
    pub fn day(date: Date) -> Self {
        Self {
            from: date,
            to: date,
        }
    }

    /// Its days in order.
    pub fn days(self) -> impl Iterator<Item = Date> {
        self.from
            .series(jiff::Span::new().days(1))
            .take_while(move |date| *date <= self.to)
    }

    /// How many days it has.
    pub fn count(self) -> i32 {
        days_between(self.from, self.to) + 1
    }

    /// Whether `date` is one of them.
    pub fn contains(self, date: Date) -> bool {
        (self.from..=self.to).contains(&date)
    }

    /// `date`, or the nearer end when it lies outside.
    pub fn clamp(self, date: Date) -> Date {
        date.clamp(self.from, self.to)
    }
}

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
    /// Its kind.
    pub format: String,
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
    /// Whether they share a cell.
    pub fn overlaps(&self, other: &Self) -> bool {
        let over = |a: [u32; 2], b: [u32; 2]| a[0] < b[1] && b[0] < a[1];
        over(self.columns, other.columns) && over(self.rows, other.rows)
    }
}

impl Part {
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
    /// In this bay.
    pub bay: BayRef,
    /// Its left edge on the deck.
    pub x_mm: f64,
    /// Its front edge on the deck.
    pub y_mm: f64,
    /// Which way its length runs.
    pub along: room::Axis,
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
    /// Where it stands in `stage`; `None` when planted out or nowhere. A tray that hardens off
    /// stands only where the plan says so for that stage.
    pub fn stand_in(&self, stage: Stage) -> Option<&Stand> {
        let until_hardening = |stand: &&Stand| stand.stage <= stage;
        match stage {
            Stage::Out => None,
            Stage::Harden => self.stands.iter().find(|s| s.stage == Stage::Harden),
            Stage::Germinate | Stage::Grow => self
                .stands
                .iter()
                .filter(until_hardening)
                .max_by_key(|stand| stand.stage),
        }
    }
}

impl Stand {
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
            room::Axis::X => (block.columns, block.rows, format.columns, format.rows),
            room::Axis::Y => (block.rows, block.columns, format.rows, format.columns),
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

/// A plan without a fault. Only this can be assessed.
#[derive(Debug, Clone, PartialEq)]
pub struct SoundPlan {
    plan: Plan,
    ids: Ids,
}

impl std::ops::Deref for SoundPlan {
    type Target = Plan;

    fn deref(&self) -> &Plan {
        &self.plan
    }
}

impl SoundPlan {
    /// The days away that `date` is in, or that begin within three days: time to prepare.
    pub fn away_near(&self, date: Date) -> Option<DateSpan> {
        const AHEAD_DAYS: i32 = 3;
        let near = |span: &&DateSpan| {
            (crate::site::plus_days(span.from, -AHEAD_DAYS)..=span.to).contains(&date)
        };
        self.away.iter().find(near).copied()
    }

    /// The document itself.
    pub fn into_inner(self) -> Plan {
        self.plan
    }

    /// The crop of `sowing`, which a sound plan always has.
    pub fn crop(&self, sowing: &Sowing) -> &Crop {
        let own = self.ids.crops.get(&sowing.crop);
        own.map(|&i| &self.plan.crops[i])
            .or_else(|| crops::library().get(&sowing.crop))
            .expect("a sound plan names known crops")
    }

    /// The packet that `sowing` is sown from; `None` when it names none.
    pub fn packet(&self, sowing: &Sowing) -> Option<&Packet> {
        let index = self.ids.packets.get(sowing.packet.as_ref()?)?;
        self.plan.packets.get(*index)
    }

    /// The format of `tray`, which a sound plan always has.
    pub fn format(&self, tray: &Tray) -> &TrayFormat {
        let index = self.ids.formats.get(&tray.format);
        let format = index.and_then(|&i| self.plan.tray_formats.get(i));
        format.expect("a sound plan names known tray formats")
    }

    /// Index of the sowing called `id`, which a sound plan always has.
    pub fn sowing_index(&self, id: &str) -> usize {
        let index = self.ids.sowings.get(id);
        *index.expect("a sound plan names known sowings")
    }

    /// The trays that hold the sowing called `id`, in the plan's order.
    pub fn trays_of(&self, id: &str) -> impl Iterator<Item = &Tray> + Clone {
        let sowing = self.ids.sowings.get(id);
        let trays = sowing.map_or(&[][..], |&i| &self.ids.trays_of[i]);
        trays.iter().map(|&i| &self.plan.trays[i])
    }

    /// The trays that stand in `bay` at any time, in the plan's order.
    pub fn trays_in(&self, bay: &Bay<'_>) -> impl Iterator<Item = &Tray> {
        // A place that was put beside the plan's own to compare has no trays of its own.
        let places = self.ids.trays_in.get(bay.place_index);
        let tiers = places.and_then(|tiers| tiers.get(bay.tier_index));
        let trays = tiers.map_or(&[][..], Vec::as_slice);
        trays.iter().map(|&i| &self.plan.trays[i])
    }

    /// Index of the tray called `id`.
    pub fn tray_index(&self, id: &str) -> Option<usize> {
        self.ids.trays.get(id).copied()
    }

    /// The place called `id`.
    pub fn place(&self, id: &str) -> Option<&Place> {
        self.plan.places.get(self.ids.place(id)?)
    }

    /// The bay that `reference` names.
    pub fn bay(&self, reference: &BayRef) -> Option<Bay<'_>> {
        self.ids.bay(&self.plan, reference)
    }
}

impl Plan {
    /// The crop called `id`: the plan's own, else the library's.
    pub fn find_crop(&self, id: &str) -> Option<&Crop> {
        let own = self.crops.iter().find(|crop| crop.id == id);
        own.or_else(|| crops::library().get(id))
    }
}
