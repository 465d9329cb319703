//! Sowings: another, the same again every so many days, and taking one out.

use crate::basis::dates::plus_days;
use crate::basis::fault::Fault;
use crate::basis::ids::{free_id, free_name};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::editor::{Editor, Word, fault, unknown};
use crate::light::fields::Fields;
use crate::plan::{Sowing, Tray};
use crate::room::container::TrayFormat;
use crate::season::Reckoned;

/// The season is looked at so long after what is raised for the autumn goes out.
const AFTER_AUTUMN_DAYS: i32 = 14;
/// The most sowings that one succession makes.
const MOST_TIMES: u32 = 20;

impl Editor {
    /// Sows `crop`, in trays whose cells are nearest to what it wants and as many as it takes; they
    /// have no spot yet. With `pots`, where it is potted on, those too; for the `autumn` the season lasts until
    /// it is out.
    pub(super) fn add_sowing(
        &mut self,
        crop: &str,
        variety: &str,
        wanted: u32,
        [pots, autumn]: [bool; 2],
    ) -> Word {
        let Some(kind) = self.plan.find_crop(crop).cloned() else {
            let own = self.plan.crops.iter();
            let known = own.chain(&crate::crops::library().crops);
            return Err(unknown("crop", crop, known.map(|crop| crop.id.clone())));
        };
        let variety = match variety.trim() {
            "" => self.nth_of(&kind.id),
            variety => variety.to_owned(),
        };
        let id = free_id(&kind.id, self.plan.sowings.iter().map(|s| &s.id));
        let mut sowing = Sowing::plain(&id, &kind.id, &variety, wanted);
        if autumn {
            if kind.ready_weeks <= 0.0 {
                return Err(fault(
                    "autumn",
                    autumn,
                    say!(
                        "nobody knows how long {crop} takes in autumn",
                        crop = &kind.name
                    ),
                    say!("sow it for the summer, or give its weeks until it is ready"),
                ));
            }
            sowing.autumn = true;
            let until = plus_days(self.plan.usually_out(&sowing, &kind), AFTER_AUTUMN_DAYS);
            self.plan.season.to = self.plan.season.to.max(until);
        }
        let word = say!(
            "sowed {n} × {name}",
            n = Quantity::Count.of(f64::from(wanted)),
            name = sowing.called(&kind.name)
        );
        self.plan.sowings.push(sowing.clone());
        let cells = self.cells_of(&sowing)?;
        let format = self.format_for(kind.cell_ml, cells);
        self.add_trays(&sowing, &format, cells);
        if pots && kind.pot_on_weeks > 0.0 {
            let plan = self.sound()?;
            self.pot_on(&plan, &sowing.id, None)?;
        }
        Ok(word)
    }

    /// What stands in for a variety where several of a crop are sown and none is named: nothing for the
    /// first, a number for the others.
    fn nth_of(&self, crop: &str) -> String {
        let unnamed = self.plan.sowings.iter().filter(|s| s.crop == crop);
        let unnamed: Vec<&str> = unnamed.map(|s| s.variety.as_str()).collect();
        if !unnamed.contains(&"") {
            return String::new();
        }
        let free = (2..).map(|n: u32| n.to_string());
        let mut free = free.filter(|n| !unnamed.contains(&n.as_str()));
        free.next().expect("numbers do not end")
    }

    /// Sets how many plants are wanted, and the trays to what they take: those that it has alone, that
    /// stand nowhere and are too many go; what is lacking is added.
    pub(super) fn want(&mut self, id: &str, wanted: u32) -> Word {
        let index = self.sowing_at(id)?;
        self.plan.sowings[index].wanted = wanted;
        let sowing = self.plan.sowings[index].clone();
        let crop = self.plan.find_crop(&sowing.crop);
        let cell_ml = crop.map_or(40.0, |crop| crop.cell_ml);
        let word = say!(
            "set {name} to {n} plants",
            name = self.name_of(&sowing),
            n = Quantity::Count.of(f64::from(wanted))
        );
        if sowing.stays.is_some() {
            return Ok(word);
        }
        let cells = self.cells_of(&sowing)?;
        let own = |tray: &Tray| {
            !tray.potted && tray.stands.is_empty() && tray.parts.iter().all(|p| p.sowing == id)
        };
        self.plan.trays.retain(|tray| !own(tray));
        let there = self.cells_there(id);
        if there < cells {
            let format = self.format_for(cell_ml, cells - there);
            self.add_trays(&sowing, &format, cells - there);
        }
        Ok(word)
    }

    /// The cells that the sowing called `id` has in trays it is sown in.
    fn cells_there(&self, id: &str) -> u32 {
        let sown = self.plan.trays.iter().filter(|tray| !tray.potted);
        let cells = sown.flat_map(|tray| {
            let mut formats = self.plan.tray_formats.iter();
            let format = formats.find(|format| format.id == tray.format);
            let parts = tray.parts.iter().filter(|part| part.sowing == id);
            parts.map(move |part| format.map_or(0, |format| part.block(format).cells()))
        });
        cells.sum()
    }

    /// `times` more sowings like `id`, each `every_days` after the one before.
    pub(super) fn repeat_sowing(&mut self, id: &str, times: u32, every_days: u32) -> Word {
        if !(1..=MOST_TIMES).contains(&times) {
            return Err(fault(
                "times",
                times,
                say!("{n} more sowings", n = Quantity::Count.of(f64::from(times))),
                say!(
                    "give 1 to {most}",
                    most = Quantity::Count.of(f64::from(MOST_TIMES))
                ),
            ));
        }
        if !(1..=120).contains(&every_days) {
            return Err(fault(
                "every_days",
                every_days,
                say!(
                    "every {n} days",
                    n = Quantity::Count.of(f64::from(every_days))
                ),
                say!("give 1 to 120 days"),
            ));
        }
        let first = self.sowing(id)?.clone();
        let holds = |tray: &&Tray| tray.parts.iter().any(|part| part.sowing == id);
        let tray = self.plan.trays.iter().find(holds);
        let format = tray.and_then(|tray| {
            let formats = self.plan.tray_formats.iter();
            formats.clone().find(|format| format.id == tray.format)
        });
        let format = match format {
            Some(format) => format.clone(),
            None => {
                let crop = self.plan.find_crop(&first.crop);
                let cell_ml = crop.map_or(40.0, |crop| crop.cell_ml);
                let cells = self.cells_of(&first)?;
                self.format_for(cell_ml, cells)
            }
        };
        let later = |n: u32| (n * every_days) as i32;
        for n in 1..=times {
            let sowing = Sowing {
                id: free_id(&first.id, self.plan.sowings.iter().map(|s| &s.id)),
                variety: match first.variety.as_str() {
                    n if n.bytes().all(|b| b.is_ascii_digit()) => self.nth_of(&first.crop),
                    named => free_name(named, self.plan.sowings.iter().map(|s| &s.variety)),
                },
                shift_days: first.shift_days + later(n),
                sow_on: first.sow_on.map(|day| plus_days(day, later(n))),
                out_on: first.out_on.map(|day| plus_days(day, later(n))),
                covered_until: first.covered_until.map(|day| plus_days(day, later(n))),
                // It is yet to be sown.
                sown: false,
                ..first.clone()
            };
            self.plan.sowings.push(sowing.clone());
            let cells = self.cells_of(&sowing)?;
            self.add_trays(&sowing, &format, cells);
        }
        Ok(say!(
            "sowed {name} {times} more times, every {days}",
            name = self.name_of(&first),
            times = Quantity::Count.of(f64::from(times)),
            days = Quantity::Days.of(f64::from(every_days))
        ))
    }

    /// Takes a sowing out, and the trays that hold nothing else.
    pub(super) fn remove_sowing(&mut self, id: &str) -> Word {
        let sowing = self.sowing(id)?.clone();
        self.plan.sowings.retain(|s| s.id != id);
        for tray in &mut self.plan.trays {
            tray.parts.retain(|part| part.sowing != id);
        }
        self.plan.trays.retain(|tray| !tray.parts.is_empty());
        Ok(say!("deleted {name}", name = self.name_of(&sowing)))
    }

    /// Crop and variety of a sowing in words.
    fn name_of(&self, sowing: &Sowing) -> String {
        let crop = self.plan.find_crop(&sowing.crop);
        crop.map_or_else(|| sowing.variety.clone(), |crop| sowing.called(&crop.name))
    }

    fn sowing(&self, id: &str) -> Result<&Sowing, Vec<Fault>> {
        Ok(&self.plan.sowings[self.sowing_at(id)?])
    }

    pub(super) fn sowing_at(&self, id: &str) -> Result<usize, Vec<Fault>> {
        let sowings = &self.plan.sowings;
        let index = sowings.iter().position(|sowing| sowing.id == id);
        index.ok_or_else(|| unknown("sowing", id, sowings.iter().map(|s| s.id.clone())))
    }

    /// The container that `cells` cells of about `cell_ml` take least room in: one of the plan's own
    /// unless a generic one does with much less, so that no whole tray is taken for five cells.
    pub(super) fn format_for(&mut self, cell_ml: f64, cells: u32) -> TrayFormat {
        /// How much less room a generic container must take to come before one's own.
        const OWN_FIRST: f64 = 0.8;
        let kinds = &self.kinds().containers;
        let room = |format: &TrayFormat| {
            let trays = f64::from(cells.div_ceil(format.cells()).max(1));
            // Many small ones are more to handle, and have gaps between them.
            const AROUND_MM: f64 = 60.0;
            let area = (format.length_mm + AROUND_MM) * (format.width_mm + AROUND_MM);
            // Cells of another size cost root room, or mix.
            let off = (format.cell_ml / cell_ml).ln().abs();
            trays * area * (1.0 + off)
        };
        let own = TrayFormat::like(&self.plan.tray_formats, cell_ml);
        let own = own.map(|format| (OWN_FIRST * room(format), format));
        let generic = TrayFormat::like(kinds, cell_ml).map(|format| (room(format), format));
        let least = own.chain(generic).min_by(|a, b| a.0.total_cmp(&b.0));
        let kind = least.map(|(_, format)| format).or_else(|| {
            // Nothing is like it: the largest or smallest there is.
            let off = |format: &&TrayFormat| (format.cell_ml / cell_ml).ln().abs();
            let trays = kinds.iter().filter(|format| format.cells() > 1);
            trays.min_by(|a, b| off(a).total_cmp(&off(b)))
        });
        let mut format = kind.expect("the shelf has trays of cells").clone();
        let mut own = self.plan.tray_formats.iter();
        if !own.any(|own| *own == format) {
            format.id = free_id(&format.id, self.plan.tray_formats.iter().map(|f| &f.id));
            self.plan.tray_formats.push(format.clone());
        }
        format
    }

    /// The cells that `sowing`, which is in the plan, takes.
    fn cells_of(&self, sowing: &Sowing) -> Result<u32, Vec<Fault>> {
        let plan = self.sound()?;
        let fields = Fields::default();
        let reckoned = Reckoned::of(&plan, &fields);
        let cells = reckoned.cells_of(&sowing.id);
        let to_sow = cells.and_then(|cells| cells.to_sow.as_ref());
        Ok(to_sow.map_or(sowing.wanted, |sow| sow.cells))
    }

    /// As many trays of `format` as `cells` of `sowing` take.
    fn add_trays(&mut self, sowing: &Sowing, format: &TrayFormat, cells: u32) {
        let trays = Tray::more(&self.plan.trays, sowing, format, cells, false);
        self.plan.trays.extend(trays);
    }
}
