//! Sowings: another, the same again every so many days, and taking one out.

use crate::basis::fault::Fault;
use crate::basis::ids::{free_id, free_name};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::editor::{Editor, Word, fault, unknown};
use crate::light::fields::Fields;
use crate::plan::{Sowing, Tray};
use crate::room::container::TrayFormat;
use crate::room::shelf;
use crate::season::Reckoned;

/// The most sowings that one succession makes.
const MOST_TIMES: u32 = 20;

impl Editor {
    /// Sows `crop`, in trays whose cells are nearest to what it wants and as many as it takes; they
    /// have no spot yet.
    pub(super) fn add_sowing(&mut self, crop: &str, variety: &str, wanted: u32) -> Word {
        let Some(kind) = self.plan.find_crop(crop).cloned() else {
            let own = self.plan.crops.iter();
            let known = own.chain(&crate::crops::library().crops);
            return Err(unknown("crop", crop, known.map(|crop| crop.id.clone())));
        };
        let sowing = Sowing {
            id: free_id(&kind.id, self.plan.sowings.iter().map(|s| &s.id)),
            crop: kind.id.clone(),
            variety: variety.trim().to_owned(),
            wanted,
            root_zone_c: None,
            reason: None,
            shift_days: 0,
            packet_weeks: None,
            stays: None,
            packet: None,
            spare: None,
            sure: None,
            seeds_per_cell: None,
            pots_on: None,
        };
        let word = say!(
            "sowed {crop}, {variety}",
            crop = &kind.name,
            variety = &sowing.variety
        );
        let format = self.format_for(kind.cell_ml);
        self.plan.sowings.push(sowing.clone());
        self.add_trays(&sowing, &format)?;
        Ok(word)
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
                self.format_for(cell_ml)
            }
        };
        for n in 1..=times {
            let sowing = Sowing {
                id: free_id(&first.id, self.plan.sowings.iter().map(|s| &s.id)),
                variety: free_name(&first.variety, self.plan.sowings.iter().map(|s| &s.variety)),
                shift_days: first.shift_days + (n * every_days) as i32,
                ..first.clone()
            };
            self.plan.sowings.push(sowing.clone());
            self.add_trays(&sowing, &format)?;
        }
        Ok(say!(
            "sowed {variety} {times} more times, every {days}",
            variety = &first.variety,
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
        Ok(say!("took {variety} out", variety = &sowing.variety))
    }

    fn sowing(&self, id: &str) -> Result<&Sowing, Vec<Fault>> {
        Ok(&self.plan.sowings[self.sowing_at(id)?])
    }

    pub(super) fn sowing_at(&self, id: &str) -> Result<usize, Vec<Fault>> {
        let sowings = &self.plan.sowings;
        let index = sowings.iter().position(|sowing| sowing.id == id);
        index.ok_or_else(|| unknown("sowing", id, sowings.iter().map(|s| s.id.clone())))
    }

    /// The plan's format with cells nearest to `cell_ml`; a generic one when it has none like it.
    pub(super) fn format_for(&mut self, cell_ml: f64) -> TrayFormat {
        if let Some(own) = TrayFormat::nearest(&self.plan.tray_formats, cell_ml) {
            return own.clone();
        }
        let kinds = &shelf::library().containers;
        let kind = TrayFormat::nearest(kinds, cell_ml).or_else(|| {
            // Nothing is like it: the largest or smallest there is.
            let off = |format: &&TrayFormat| (format.cell_ml / cell_ml).ln().abs();
            let trays = kinds.iter().filter(|format| format.cells() > 1);
            trays.min_by(|a, b| off(a).total_cmp(&off(b)))
        });
        let mut format = kind.expect("the shelf has trays of cells").clone();
        format.id = free_id(&format.id, self.plan.tray_formats.iter().map(|f| &f.id));
        self.plan.tray_formats.push(format.clone());
        format
    }

    /// As many trays of `format` as the cells of `sowing` take.
    fn add_trays(&mut self, sowing: &Sowing, format: &TrayFormat) -> Result<(), Vec<Fault>> {
        let plan = self.plan.clone().check()?;
        let fields = Fields::default();
        let reckoned = Reckoned::of(&plan, &fields);
        let cells = reckoned.cells_of(&sowing.id);
        let cells = cells
            .and_then(|cells| cells.to_sow.as_ref())
            .map_or(sowing.wanted, |sow| sow.cells);
        let trays = Tray::more(&self.plan.trays, sowing, format, cells, false);
        self.plan.trays.extend(trays);
        Ok(())
    }
}
