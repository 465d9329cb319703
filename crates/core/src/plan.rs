//! The plan: one document that holds everything, the same on disk, over HTTP and in a file.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::containers::TrayFormat;
use crate::crops::{self, Crop};
use crate::fault::{Fault, Faults, Pointer};
use crate::light::bay::Footprint;
use crate::room::{self, BayRef, MOST_OVERHANG_MM, Place, Room};
use crate::say;
use crate::seeds::Packet;
use crate::site::{Site, days_between};
use crate::units::Quantity;

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
    /// Why it is started indoors.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub reason: Option<Reason>,
    /// Days by which all its dates are moved from where the last frost puts them, later positive.
    #[serde(default, skip_serializing_if = "is_zero")]
    pub shift_days: i32,
    /// Weeks indoors as its packet says; left out, the crop's own, lengthened by what emergence and
    /// growth take longer here.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub packet_weeks: Option<f64>,
    /// Stock that only passes through, such as overwintering pots: it is there on these days, and
    /// nothing germinates.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub stays: Option<DateSpan>,
    /// The packet that it is sown from.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub packet: Option<String>,
    /// Plants to raise over those wanted, as a share of them.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub spare: Option<f64>,
    /// How sure one wants to be of the plants wanted, 0.5 to 0.9999; 0.95 when left out.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sure: Option<f64>,
    /// Seeds in each cell; left out, as many as keep cells from staying empty.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub seeds_per_cell: Option<u32>,
    /// Whether it is potted on as the crop usually is; left out, yes. No means its final pot from
    /// the start.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pots_on: Option<bool>,
}

fn is_zero(days: &i32) -> bool {
    *days == 0
}

/// Why a sowing is started indoors.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Reason {
    /// For an earlier crop.
    Earlier,
    /// No bed is free yet.
    NoFreeBed,
    /// Out of the way of slugs, mice and birds.
    Pests,
    /// Its seed needs cold first.
    ColdFirst,
    /// To sell.
    ToSell,
    /// Another.
    Other,
}

impl Sowing {
    fn check_more(&self, at: &Pointer, faults: &mut Faults) {
        let shift = f64::from(self.shift_days);
        faults.number(&at.at("shift_days"), shift, -200.0..=300.0, Quantity::Days);
        if let Some(weeks) = self.packet_weeks {
            let at = at.at("packet_weeks");
            faults.number(&at, weeks, 0.5..=60.0, Quantity::Weeks);
        }
        if let Some(DateSpan { from, to }) = self.stays
            && !(0..=400).contains(&days_between(from, to))
        {
            faults.add(
                &at.at("stays").at("to"),
                to,
                say!("it stays from {from} to {to}", from = from, to = to),
                say!("give a last day on or after the first, 400 days later at the most"),
            );
        }
        if let Some(spare) = self.spare {
            faults.number(&at.at("spare"), spare, 0.0..=5.0, Quantity::Share);
        }
        if let Some(sure) = self.sure {
            faults.number(&at.at("sure"), sure, 0.5..=0.9999, Quantity::Share);
        }
        if let Some(seeds) = self.seeds_per_cell {
            let at = at.at("seeds_per_cell");
            faults.number(&at, f64::from(seeds), 1.0..=50.0, Quantity::Count);
        }
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
pub struct SoundPlan(Plan);

impl std::ops::Deref for SoundPlan {
    type Target = Plan;

    fn deref(&self) -> &Plan {
        &self.0
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
        self.0
    }

    /// The crop of `sowing`, which a sound plan always has.
    pub fn crop(&self, sowing: &Sowing) -> &Crop {
        self.find_crop(&sowing.crop)
            .expect("a sound plan names known crops")
    }

    /// The packet that `sowing` is sown from; `None` when it names none.
    pub fn packet(&self, sowing: &Sowing) -> Option<&Packet> {
        let id = sowing.packet.as_ref()?;
        self.packets.iter().find(|packet| packet.id == *id)
    }

    /// The format of `tray`, which a sound plan always has.
    pub fn format(&self, tray: &Tray) -> &TrayFormat {
        self.0
            .tray_formats
            .iter()
            .find(|format| format.id == tray.format)
            .expect("a sound plan names known tray formats")
    }

    /// Index of the sowing called `id`, which a sound plan always has.
    pub fn sowing_index(&self, id: &str) -> usize {
        self.0
            .sowings
            .iter()
            .position(|sowing| sowing.id == id)
            .expect("a sound plan names known sowings")
    }
}

impl Plan {
    /// The crop called `id`: the plan's own, else the library's.
    pub fn find_crop(&self, id: &str) -> Option<&Crop> {
        let own = self.crops.iter().find(|crop| crop.id == id);
        own.or_else(|| crops::library().get(id))
    }

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
        self.check_away(&root.at("away"), &mut faults);
        self.room.check(&root.at("room"), &mut faults);
        room::check(&self.places, &root.at("places"), &mut faults);
        self.check_formats(&root.at("tray_formats"), &mut faults);
        self.check_crops(&root.at("crops"), &mut faults);
        self.check_packets(&root.at("packets"), &mut faults);
        self.check_sowings(&root.at("sowings"), &mut faults);
        self.check_trays(&root.at("trays"), &mut faults);
        faults.verdict().map(|()| SoundPlan(self))
    }

    fn check_away(&self, at: &Pointer, faults: &mut Faults) {
        const MOST_DAYS: i32 = 60;
        faults.count(at, self.away.len(), 0..=20);
        for (i, span) in self.away.iter().enumerate() {
            if !(0..MOST_DAYS).contains(&days_between(span.from, span.to)) {
                faults.add(
                    &at.at(i).at("to"),
                    span.to,
                    say!("away from {from} to {to}", from = span.from, to = span.to),
                    say!(
                        "give a last day away on or after the first, {most} at the most",
                        most = Quantity::Days.of(f64::from(MOST_DAYS))
                    ),
                );
            }
        }
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
            format.check(&at.at(i), faults);
        }
    }

    fn check_crops(&self, at: &Pointer, faults: &mut Faults) {
        faults.count(at, self.crops.len(), 0..=500);
        faults.unique(at, self.crops.iter().map(|crop| crop.id.as_str()));
        for (i, crop) in self.crops.iter().enumerate() {
            crop.check(&at.at(i), faults);
        }
    }

    /// The crops that a plan may name.
    fn known_crops(&self) -> impl Iterator<Item = String> {
        let library = crops::library().crops.iter();
        self.crops.iter().chain(library).map(|crop| crop.id.clone())
    }

    fn check_packets(&self, at: &Pointer, faults: &mut Faults) {
        faults.count(at, self.packets.len(), 0..=2000);
        faults.unique(at, self.packets.iter().map(|packet| packet.id.as_str()));
        for (i, packet) in self.packets.iter().enumerate() {
            let at = at.at(i);
            packet.check(&at, faults);
            if self.find_crop(&packet.crop).is_none() {
                faults.unknown(&at.at("crop"), &packet.crop, self.known_crops());
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
            let crop = self.find_crop(&sowing.crop);
            if crop.is_none() {
                faults.unknown(&at.at("crop"), &sowing.crop, self.known_crops());
            }
            faults.number(
                &at.at("wanted"),
                f64::from(sowing.wanted),
                1.0..=100_000.0,
                Quantity::Count,
            );
            sowing.check_more(&at, faults);
            if let Some(id) = &sowing.packet {
                let packet = self.packets.iter().find(|packet| packet.id == *id);
                match packet {
                    None => {
                        let known = self.packets.iter().map(|packet| packet.id.clone());
                        faults.unknown(&at.at("packet"), id, known);
                    }
                    Some(packet) if packet.crop != sowing.crop => faults.add(
                        &at.at("packet"),
                        id,
                        say!(
                            "that packet holds {other}, not {crop}",
                            other = &packet.crop,
                            crop = &sowing.crop
                        ),
                        say!("name a packet of the same crop"),
                    ),
                    Some(_) => {}
                }
            }
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
            let format = self.tray_formats.iter().find(|f| f.id == tray.format);
            if format.is_none() {
                let known = self.tray_formats.iter().map(|f| f.id.clone());
                faults.unknown(&at.at("format"), &tray.format, known);
            }
            self.check_parts(&tray.parts, format, &at.at("parts"), faults);
            for (j, stand) in tray.stands.iter().enumerate() {
                let at = at.at("stands").at(j);
                if stand.stage == Stage::Out
                    || tray.stands[..j].iter().any(|s| s.stage == stand.stage)
                {
                    faults.add(
                        &at.at("stage"),
                        stand.stage,
                        say!("a tray stands once each while it germinates, grows and hardens off"),
                        say!("give one entry each for germinate, grow and harden at the most"),
                    );
                }
                self.check_stand(stand, format, &at, faults);
            }
        }
    }

    fn check_parts(
        &self,
        parts: &[Part],
        format: Option<&TrayFormat>,
        at: &Pointer,
        faults: &mut Faults,
    ) {
        faults.count(at, parts.len(), 1..=100);
        for (i, part) in parts.iter().enumerate() {
            let at = at.at(i);
            if !self.sowings.iter().any(|s| s.id == part.sowing) {
                let known = self.sowings.iter().map(|s| s.id.clone());
                faults.unknown(&at.at("sowing"), &part.sowing, known);
            }
            let Some(format) = format else { continue };
            let block = part.block(format);
            let mut fine = true;
            for (name, cells, of) in [
                ("columns", block.columns, format.columns),
                ("rows", block.rows, format.rows),
            ] {
                if cells[0] >= cells[1] || cells[1] > of {
                    fine = false;
                    faults.add(
                        &at.at(name),
                        cells,
                        say!(
                            "{format} has no cells from {from} up to {to} here",
                            format = &format.name,
                            from = Quantity::Count.of(f64::from(cells[0])),
                            to = Quantity::Count.of(f64::from(cells[1]))
                        ),
                        say!(
                            "give a range that rises, from 0 up to {of}",
                            of = Quantity::Count.of(f64::from(of))
                        ),
                    );
                }
            }
            let taken = |earlier: &Part| earlier.block(format).overlaps(&block);
            if fine && parts[..i].iter().any(taken) {
                faults.add(
                    &at,
                    part,
                    say!("some of these cells are sown with something else already"),
                    say!("give each part its own columns or rows"),
                );
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
                room::bays(&self.places).map(|bay| format!("{}/{}", bay.place.id, bay.tier.id));
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
            ("x_mm", stand.x_mm, outline.x_mm, bay.place.width_mm),
            ("y_mm", stand.y_mm, outline.y_mm, bay.place.depth_mm),
        ] {
            let size = edges[1] - edges[0];
            let most_over = MOST_OVERHANG_MM.min(size / 3.0);
            let (least, most) = (-most_over, (deck_mm + most_over - size).max(-most_over));
            faults.number(&at.at(name), value, least..=most, Quantity::LengthMm);
        }
    }
}
