//! The plan: one document that holds everything, the same on disk, over HTTP and in a file.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::crops::{self, Crop};
use crate::fault::{Fault, Faults, Pointer};
use crate::light::bay::Footprint;
use crate::room::{self, BayRef, MOST_OVERHANG_MM, Place};
use crate::say;
use crate::site::{Site, days_between};
use crate::units::Quantity;

/// The version of the document that this code reads and writes.
pub const SCHEMA_VERSION: u32 = 1;

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
    /// Racks and other places, from left to right.
    pub places: Vec<Place>,
    /// The kinds of tray in use.
    pub tray_formats: Vec<TrayFormat>,
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

    /// `date`, or the nearer end when it lies outside.
    pub fn clamp(self, date: Date) -> Date {
        date.clamp(self.from, self.to)
    }
}

/// A kind of tray: outer size and cells.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrayFormat {
    /// Identifier that trays name.
    pub id: String,
    /// What it is, in words.
    pub name: String,
    /// Outer length.
    pub length_mm: f64,
    /// Outer width.
    pub width_mm: f64,
    /// Height of the rim, and of the mix's surface.
    pub height_mm: f64,
    /// Cells along its length.
    pub columns: u32,
    /// Cells across its width.
    pub rows: u32,
}

/// A batch of one variety, sown on one day.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Sowing {
    /// Identifier that trays name.
    pub id: String,
    /// The kind, from the crop library.
    pub crop: String,
    /// The variety, as the packet calls it.
    pub variety: String,
    /// Plants wanted in the end.
    pub wanted: u32,
    /// Root-zone temperature while it germinates, as a thermometer in the mix shows it; left out,
    /// the room's air decides.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub root_zone_c: Option<f64>,
}

/// A tray with one sowing in it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Tray {
    /// Identifier.
    pub id: String,
    /// What its label says.
    pub name: String,
    /// What is sown in it.
    pub sowing: String,
    /// Its kind.
    pub format: String,
    /// Where it stands from which stage on; a stage without an entry stays where the one before
    /// stood.
    pub stands: Vec<Stand>,
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
    /// Where it stands in `stage`; `None` when outside or nowhere.
    pub fn stand_in(&self, stage: Stage) -> Option<&Stand> {
        if stage >= Stage::Harden {
            return None;
        }
        self.stands
            .iter()
            .filter(|stand| stand.stage <= stage)
            .max_by_key(|stand| stand.stage)
    }
}

impl Stand {
    /// The outline of a tray of `format` that stands here.
    pub fn footprint(&self, format: &TrayFormat) -> Footprint {
        let (x, y) = match self.along {
            room::Axis::X => (format.length_mm, format.width_mm),
            room::Axis::Y => (format.width_mm, format.length_mm),
        };
        Footprint {
            x_mm: [self.x_mm, self.x_mm + x],
            y_mm: [self.y_mm, self.y_mm + y],
        }
    }

    /// Columns and rows of cells as they lie along x and y.
    pub fn grid(&self, format: &TrayFormat) -> (u32, u32) {
        match self.along {
            room::Axis::X => (format.columns, format.rows),
            room::Axis::Y => (format.rows, format.columns),
        }
    }
}

/// A plan without a fault. Only this can be assessed.
#[derive(Debug, Clone, PartialEq)]
pub struct SoundPlan(Plan);

impl std::ops::Deref for SoundPlan {
    type Target = Plan;

    fn deref(&self) -> &Plan {
        &self.0
    }
}

impl SoundPlan {
    /// The document itself.
    pub fn into_inner(self) -> Plan {
        self.0
    }

    /// The crop of `sowing`, which a sound plan always has.
    pub fn crop(&self, sowing: &Sowing) -> &'static Crop {
        crops::library()
            .get(&sowing.crop)
            .expect("a sound plan names known crops")
    }

    /// The format of `tray`, which a sound plan always has.
    pub fn format(&self, tray: &Tray) -> &TrayFormat {
        self.0
            .tray_formats
            .iter()
            .find(|format| format.id == tray.format)
            .expect("a sound plan names known tray formats")
    }
}

impl Plan {
    /// Checks the whole document.
    ///
    /// # Errors
    /// Every fault, by its path.
    pub fn check(self) -> Result<SoundPlan, Vec<Fault>> {
        let mut faults = Faults::default();
        let root = Pointer::default();
        if self.schema_version != SCHEMA_VERSION {
            faults.add(
                &root.at("schema_version"),
                self.schema_version,
                say!(
                    "this plan is of version {version}",
                    version = Quantity::Count.of(f64::from(self.schema_version))
                ),
                say!(
                    "give version {own}, the one this program reads",
                    own = Quantity::Count.of(f64::from(SCHEMA_VERSION))
                ),
            );
        }
        faults.name(&root.at("name"), &self.name);
        self.site.check(&root.at("site"), &mut faults);
        self.check_season(&root, &mut faults);
        room::check(&self.places, &root.at("places"), &mut faults);
        self.check_formats(&root.at("tray_formats"), &mut faults);
        self.check_sowings(&root.at("sowings"), &mut faults);
        self.check_trays(&root.at("trays"), &mut faults);
        faults.verdict().map(|()| SoundPlan(self))
    }

    fn check_season(&self, root: &Pointer, faults: &mut Faults) {
        let DateSpan { from, to } = self.season;
        let season = root.at("season");
        if !(1900..=2200).contains(&from.year()) {
            faults.add(
                &season.at("from"),
                from,
                say!("{from} is not in our time", from = from),
                say!("begin the season in a year from 1900 to 2200"),
            );
        } else if !(13..=400).contains(&days_between(from, to)) {
            faults.add(
                &season.at("to"),
                to,
                say!("a season from {from} to {to}", from = from, to = to),
                say!("end it two weeks to 400 days after it begins"),
            );
        } else {
            let (first, last) = (
                crate::site::plus_days(from, -90),
                crate::site::plus_days(to, 90),
            );
            if !(first..=last).contains(&self.site.last_frost) {
                faults.add(
                    &root.at("site").at("last_frost"),
                    self.site.last_frost,
                    say!(
                        "a last frost on {day} has nothing to do with this season",
                        day = self.site.last_frost
                    ),
                    say!(
                        "give a day from {first} to {last}",
                        first = first,
                        last = last
                    ),
                );
            }
        }
    }

    fn check_formats(&self, at: &Pointer, faults: &mut Faults) {
        faults.count(at, self.tray_formats.len(), 0..=200);
        faults.unique(at, self.tray_formats.iter().map(|f| f.id.as_str()));
        for (i, format) in self.tray_formats.iter().enumerate() {
            let at = at.at(i);
            faults.id(&at.at("id"), &format.id);
            faults.name(&at.at("name"), &format.name);
            for (name, mm) in [
                ("length_mm", format.length_mm),
                ("width_mm", format.width_mm),
                ("height_mm", format.height_mm),
            ] {
                faults.number(&at.at(name), mm, 10.0..=2000.0, Quantity::LengthMm);
            }
            for (name, cells) in [("columns", format.columns), ("rows", format.rows)] {
                faults.number(&at.at(name), f64::from(cells), 1.0..=40.0, Quantity::Count);
            }
        }
    }

    fn check_sowings(&self, at: &Pointer, faults: &mut Faults) {
        faults.unique(at, self.sowings.iter().map(|s| s.id.as_str()));
        faults.count(at, self.sowings.len(), 0..=500);
        for (i, sowing) in self.sowings.iter().enumerate() {
            let at = at.at(i);
            faults.id(&at.at("id"), &sowing.id);
            faults.name(&at.at("variety"), &sowing.variety);
            let library = crops::library();
            if library.get(&sowing.crop).is_none() {
                let known = library.crops.iter().map(|crop| crop.id.clone());
                faults.unknown(&at.at("crop"), &sowing.crop, known);
            }
            faults.number(
                &at.at("wanted"),
                f64::from(sowing.wanted),
                1.0..=100_000.0,
                Quantity::Count,
            );
            if let Some(c) = sowing.root_zone_c {
                faults.number(&at.at("root_zone_c"), c, 0.0..=45.0, Quantity::TemperatureC);
            }
        }
    }

    fn check_trays(&self, at: &Pointer, faults: &mut Faults) {
        faults.unique(at, self.trays.iter().map(|t| t.id.as_str()));
        faults.count(at, self.trays.len(), 0..=2000);
        for (i, tray) in self.trays.iter().enumerate() {
            let at = at.at(i);
            faults.id(&at.at("id"), &tray.id);
            faults.name(&at.at("name"), &tray.name);
            if !self.sowings.iter().any(|s| s.id == tray.sowing) {
                let known = self.sowings.iter().map(|s| s.id.clone());
                faults.unknown(&at.at("sowing"), &tray.sowing, known);
            }
            let format = self.tray_formats.iter().find(|f| f.id == tray.format);
            if format.is_none() {
                let known = self.tray_formats.iter().map(|f| f.id.clone());
                faults.unknown(&at.at("format"), &tray.format, known);
            }
            for (j, stand) in tray.stands.iter().enumerate() {
                let at = at.at("stands").at(j);
                if stand.stage >= Stage::Harden
                    || tray.stands[..j].iter().any(|s| s.stage == stand.stage)
                {
                    faults.add(
                        &at.at("stage"),
                        stand.stage,
                        say!("a tray stands in the room once while it germinates and once while it grows"),
                        say!("give one entry each for germinate and grow at the most"),
                    );
                }
                self.check_stand(stand, format, &at, faults);
            }
        }
    }

    fn check_stand(
        &self,
        stand: &Stand,
        format: Option<&TrayFormat>,
        at: &Pointer,
        faults: &mut Faults,
    ) {
        let Some(bay) = room::find_bay(&self.places, &stand.bay) else {
            let known =
                room::bays(&self.places).map(|bay| format!("{}/{}", bay.rack.id, bay.tier.id));
            let named = format!("{}/{}", stand.bay.place, stand.bay.tier);
            faults.unknown(&at.at("bay"), &named, known);
            return;
        };
        if bay.tier.storage {
            faults.add(
                &at.at("bay"),
                &stand.bay,
                say!("{bay} is kept for storage", bay = bay.name()),
                say!("put the tray on another tier, or free this one first"),
            );
        }
        let Some(format) = format else { return };
        let outline = stand.footprint(format);
        for (name, value, edges, deck_mm) in [
            ("x_mm", stand.x_mm, outline.x_mm, bay.rack.width_mm),
            ("y_mm", stand.y_mm, outline.y_mm, bay.rack.depth_mm),
        ] {
            let size = edges[1] - edges[0];
            let most_over = MOST_OVERHANG_MM.min(size / 3.0);
            let (least, most) = (-most_over, (deck_mm + most_over - size).max(-most_over));
            faults.number(&at.at(name), value, least..=most, Quantity::LengthMm);
        }
    }
}
