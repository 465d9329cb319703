//! What no plan may hold, named where it stands in the document.

use std::sync::Arc;

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, days_between, plus_days};
use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::range::Ranges;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::crops::Crop;
use crate::plan::document::{Plan, SCHEMA_VERSION};
use crate::plan::ids::Ids;
use crate::plan::sound::SoundPlan;
use crate::plan::sowing::Sowing;
use crate::plan::tray::{Part, Stage, Stand};
use crate::room::MOST_OVERHANG_MM;
use crate::room::container::TrayFormat;
use crate::room::{Place, Tier};
use crate::{crops, room};

impl Plan {
    /// Checks the whole document. Mats on another's thermostat are set as that one is.
    ///
    /// # Errors
    /// Every fault, by its path.
    pub fn check(mut self) -> Result<SoundPlan, Vec<Fault>> {
        let tiers = self.places.iter_mut().flat_map(|place| &mut place.tiers);
        tiers.for_each(Tier::share_thermostats);
        let mut faults = Faults::default();
        let ids = self.look_over(&mut faults);
        faults.verdict()?;
        self.stir_places();
        self.light_rooms();
        Ok(SoundPlan {
            stretches: self.places.iter().map(Place::stretches).collect(),
            varied: self
                .sowings
                .iter()
                .map(|sowing| self.varied(sowing))
                .collect(),
            happened: Arc::default(),
            plan: self,
            ids,
        })
    }

    /// The crop of `sowing` as its variety is; `None` where it is its kind's.
    fn varied(&self, sowing: &Sowing) -> Option<Crop> {
        let differs = &sowing.differs;
        (!differs.is_none()).then(|| Some(differs.of(self.find_crop(&sowing.crop)?)))?
    }

    /// The ranges of the figures that the document has.
    pub(crate) fn ranges(&self) -> Ranges {
        let mut faults = Faults::with_ranges();
        self.look_over(&mut faults);
        faults.into_ranges()
    }

    fn look_over(&self, faults: &mut Faults) -> Ids {
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
        self.site.check(&root.at("site"), faults);
        self.check_season(&root, faults);
        let still = root.at("stands_still_on");
        self.check_near_season(&still, self.stands_still_on, faults);
        self.check_away(&root.at("away"), faults);
        self.room.check(&root.at("room"), faults);
        room::check(&self.places, &self.site, &root.at("places"), faults);
        self.wiring.check(&self.places, &root, faults);
        self.prices.check(&root.at("prices"), faults);
        self.check_formats(&root.at("tray_formats"), faults);
        self.check_crops(&root.at("crops"), faults);
        let ids = Ids::of(self);
        self.check_packets(&root.at("packets"), &ids, faults);
        self.check_sowings(&root.at("sowings"), &ids, faults);
        self.check_trays(&root.at("trays"), &ids, faults);
        ids
    }

    fn check_away(&self, at: &Pointer, faults: &mut Faults) {
        const MOST_DAYS: i32 = 60;
        for (i, span) in faults.list(at, &self.away, 0..=20) {
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

    /// A day that has to do with this season.
    fn check_near_season(&self, at: &Pointer, day: Option<Date>, faults: &mut Faults) {
        /// Two years are sown and overwintered for one season at the most.
        const FAR_DAYS: i32 = 400;
        let (from, to) = (
            plus_days(self.season.from, -FAR_DAYS),
            plus_days(self.season.to, FAR_DAYS),
        );
        if let Some(day) = day.filter(|day| !(from..=to).contains(day)) {
            faults.add(
                at,
                day,
                say!("{day} has nothing to do with this season", day = day),
                say!("give a day from {from} to {to}", from = from, to = to),
            );
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
            let (first, last) = (plus_days(from, -90), plus_days(to, 90));
            self.check_first_frost(root, faults);
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
        faults.unique(at, self.tray_formats.iter().map(|f| f.id.as_str()));
        for (i, format) in faults.list(at, &self.tray_formats, 0..=200) {
            format.check(&at.at(i), faults);
        }
    }

    fn check_crops(&self, at: &Pointer, faults: &mut Faults) {
        faults.unique(at, self.crops.iter().map(|crop| crop.id.as_str()));
        for (i, crop) in faults.list(at, &self.crops, 0..=500) {
            crop.check(&at.at(i), faults);
        }
    }

    fn knows_crop(&self, id: &str, ids: &Ids) -> bool {
        ids.crops.contains_key(id) || crops::library().get(id).is_some()
    }

    /// The crops that a plan may name.
    fn known_crops(&self) -> impl Iterator<Item = String> {
        let library = crops::library().crops.iter();
        self.crops.iter().chain(library).map(|crop| crop.id.clone())
    }

    fn check_packets(&self, at: &Pointer, ids: &Ids, faults: &mut Faults) {
        faults.unique(at, self.packets.iter().map(|packet| packet.id.as_str()));
        for (i, packet) in faults.list(at, &self.packets, 0..=2000) {
            let at = at.at(i);
            packet.check(&at, faults);
            if !self.knows_crop(&packet.crop, ids) {
                faults.unknown(&at.at("crop"), &packet.crop, self.known_crops());
            }
        }
    }

    fn check_sowings(&self, at: &Pointer, ids: &Ids, faults: &mut Faults) {
        faults.unique(at, self.sowings.iter().map(|s| s.id.as_str()));
        for (i, sowing) in faults.list(at, &self.sowings, 0..=500) {
            let at = at.at(i);
            faults.id(&at.at("id"), &sowing.id);
            if !sowing.variety.is_empty() {
                faults.name(&at.at("variety"), &sowing.variety);
            }
            if !self.knows_crop(&sowing.crop, ids) {
                faults.unknown(&at.at("crop"), &sowing.crop, self.known_crops());
            }
            faults.number(
                &at.at("wanted"),
                f64::from(sowing.wanted),
                1.0..=100_000.0,
                Quantity::Count,
            );
            sowing.check_more(&at, faults);
            if let Some(crop) = self.varied(sowing) {
                crop.check(&at.at("differs"), faults);
            }
            let days = [
                ("sow_on", sowing.sow_on),
                ("out_on", sowing.out_on),
                ("covered_until", sowing.covered_until),
            ];
            for (field, day) in days {
                self.check_near_season(&at.at(field), day, faults);
            }
            if let Some(id) = &sowing.packet {
                let packet = ids.packets.get(id).and_then(|&i| self.packets.get(i));
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

    fn check_trays(&self, at: &Pointer, ids: &Ids, faults: &mut Faults) {
        faults.unique(at, self.trays.iter().map(|t| t.id.as_str()));
        for (i, tray) in faults.list(at, &self.trays, 0..=2000) {
            let at = at.at(i);
            faults.id(&at.at("id"), &tray.id);
            faults.name(&at.at("name"), &tray.name);
            let format = ids.formats.get(&tray.format);
            let format = format.and_then(|&i| self.tray_formats.get(i));
            if format.is_none() {
                let known = self.tray_formats.iter().map(|f| f.id.clone());
                faults.unknown(&at.at("format"), &tray.format, known);
            }
            self.check_parts(&tray.parts, format, &at.at("parts"), ids, faults);
            const SPOTS: usize = 24;
            let stands = at.at("stands");
            for (j, stand) in faults.list(&stands, &tray.stands, 0..=SPOTS) {
                let at = stands.at(j);
                let begins = |s: &Stand| (s.stage, s.from);
                let again = tray.stands[..j].iter().any(|s| begins(s) == begins(stand));
                if stand.stage == Stage::Out || again {
                    faults.add(
                        &at.at("stage"),
                        stand.stage,
                        say!("a tray takes one spot at a time while it germinates, grows and hardens off"),
                        say!("give one entry each for germinate, grow and harden, and one for each date on which it moves"),
                    );
                }
                self.check_stand(stand, format, &at, ids, faults);
            }
        }
    }

    fn check_parts(
        &self,
        parts: &[Part],
        format: Option<&TrayFormat>,
        at: &Pointer,
        ids: &Ids,
        faults: &mut Faults,
    ) {
        for (i, part) in faults.list(at, parts, 1..=100) {
            let at = at.at(i);
            if !ids.sowings.contains_key(&part.sowing) {
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
        ids: &Ids,
        faults: &mut Faults,
    ) {
        let Some(bay) = ids.bay(self, &stand.bay) else {
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
                say!("{bay} is used for storage", bay = bay.name()),
                say!("put the tray on another shelf, or free this one first"),
            );
        }
        if stand.stacked && stand.stage != Stage::Germinate {
            faults.add(
                &at.at("stacked"),
                stand.stacked,
                say!("what grows cannot be stacked"),
                say!("stack trays only while they germinate"),
            );
        }
        if let Some(mm) = stand.box_mm {
            const HIGHEST_BOX_MM: f64 = 1000.0;
            let range = 0.0..=HIGHEST_BOX_MM;
            faults.number(&at.at("box_mm"), mm, range, Quantity::LengthMm);
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
