//! A sowing with all that judgements look at.

use jiff::civil::Date;

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::fault::Pointer;
use crate::basis::units::Quantity;
use crate::basis::words::{COMMON_PRACTICE, Statement, say};
use crate::crops::Crop;
use crate::plan::patch::{Fix, PatchStep};
use crate::plan::{SoundPlan, Sowing, Tray};
use crate::room::container::TrayFormat;
use crate::season::SowingDates;
use crate::season::growing::Growing;
use crate::season::how_many::SowingCells;

/// A sowing with all that judgements look at.
pub(crate) struct SowingView<'a> {
    /// The plan.
    pub plan: &'a SoundPlan,
    /// The sowing's index in the plan.
    pub index: usize,
    /// The sowing.
    pub sowing: &'a Sowing,
    /// Its crop.
    pub crop: &'a Crop,
    /// Its dates.
    pub dates: &'a SowingDates,
    /// The dates of every sowing, in the plan's order.
    pub all_dates: &'a [SowingDates],
    /// How much of it to sow.
    pub cells: Option<&'a SowingCells>,
    /// The plants of every tray, day by day.
    pub growing: &'a Growing,
}

impl SowingView<'_> {
    /// As many trays of `format` more as so many cells take, to sow it in or to pot it on into.
    pub(super) fn more_trays(&self, format: &TrayFormat, cells: u32, potted: bool) -> Fix {
        let added = Tray::more(&self.plan.trays, self.sowing, format, cells, potted);
        let all = Pointer::default().at("trays");
        let count = Quantity::Count.of(added.len() as f64);
        Fix {
            label: say!(
                "Add {n} × {format}",
                n = count.clone(),
                format = &format.name
            ),
            word: say!(
                "added {n} × {format} for {name}",
                n = count,
                format = &format.name,
                name = &self.dates.name
            ),
            patch: added
                .iter()
                .map(|tray| PatchStep::append(&all, tray))
                .collect(),
        }
    }

    /// A finding on the sowing, of common practice and without fixes.
    pub(super) fn finding(
        &self,
        severity: Severity,
        days: DateSpan,
        headline: Statement,
        reason: Statement,
    ) -> Finding {
        let trays = self.plan.trays_of(&self.sowing.id);
        Finding {
            id: String::new(),
            code: "",
            topic: "",
            severity,
            place: None,
            bay: None,
            sowing: Some(self.sowing.id.clone()),
            trays: trays.map(|tray| tray.id.clone()).collect(),
            cells: Vec::new(),
            days,
            headline,
            reason,
            source: COMMON_PRACTICE,
            fixes: Vec::new(),
        }
    }

    /// From sowing to planting out.
    pub(super) fn days(&self) -> DateSpan {
        DateSpan {
            from: self.dates.sow,
            to: self.dates.out,
        }
    }

    /// Field `name` of the sowing in the document.
    pub(super) fn at(&self, name: &str) -> Pointer {
        Pointer::default().at("sowings").at(self.index).at(name)
    }

    /// The edit that plants it out `days` later; its sowing moves with it, unless that has a day of its
    /// own.
    pub(super) fn plant_out_later(&self, days: i32) -> Fix {
        let Some(out) = self.sowing.out_on else {
            return self.shift(days);
        };
        let day = plus_days(out, days);
        self.fix_day(
            "out_on",
            day,
            say!("Plant out on {day}", day = day),
            say!(
                "plants {name} out on {day}",
                name = &self.dates.name,
                day = day
            ),
        )
    }

    /// The edit that keeps it under cover outdoors until `day`.
    pub(super) fn cover_until(&self, day: Date) -> Fix {
        self.fix_day(
            "covered_until",
            day,
            say!("Cover until {day}", day = day),
            say!(
                "covers {name} until {day}",
                name = &self.dates.name,
                day = day
            ),
        )
    }

    /// The edit that sows it `days` later and plants it out when it does now; `None` where the packet's
    /// weeks count the days.
    pub(super) fn sow_later(&self, days: i32) -> Option<Fix> {
        self.sowing.sow_on?;
        let day = plus_days(self.dates.sow, days);
        Some(self.fix_day(
            "sow_on",
            day,
            say!("Sow on {day}", day = day),
            say!("sows {name} on {day}", name = &self.dates.name, day = day),
        ))
    }

    fn fix_day(&self, field: &str, day: Date, label: Statement, word: Statement) -> Fix {
        Fix {
            label,
            word,
            patch: vec![PatchStep::set(&self.at(field), day)],
        }
    }

    /// The edit that moves all its dates by `days` more.
    pub(super) fn shift(&self, days: i32) -> Fix {
        Fix {
            label: say!("Move the sowing {by}", by = moved(days)),
            word: say!(
                "moved {name} {by}",
                name = &self.dates.name,
                by = moved(days)
            ),
            patch: vec![PatchStep::set(
                &self.at("shift_days"),
                self.sowing.shift_days + days,
            )],
        }
    }
}

/// Days later or earlier, in words.
fn moved(days: i32) -> String {
    let unit = if days.abs() == 1 { "day" } else { "days" };
    let way = if days < 0 { "earlier" } else { "later" };
    format!("{} {unit} {way}", days.abs())
}
