//! What can be done about the sowings that crowd a room: other days, smaller cells, fewer plants.

use crate::basis::dates::plus_days;
use crate::basis::ids::free_id;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::basis::work::go_on;
use crate::compare::making_room::change::Change;
use crate::placement::Crowding;
use crate::plan::{Plan, SoundPlan, Sowing, Tray};
use crate::room::container::TrayFormat;
use crate::room::shelf;
use crate::season::{Reckoned, SowingDates};

/// So many sowings are looked at, those with most trays there first.
const MOST_SOWINGS: usize = 10;
/// Days that a sowing is moved by, earlier or later.
const SHIFTS: [i32; 4] = [7, -7, 14, -14];
/// Days that hardy plants go out sooner under cover.
const SOONER: [i32; 2] = [7, 14];
/// Days that plants wait in full cells.
const WAITS: [i32; 2] = [5, 10];

/// Every change of the sowings that stand where room is short, on the days that it is.
pub(super) fn changes(reckoned: &Reckoned<'_>, short: &Crowding) -> Vec<Change> {
    let plan = reckoned.plan;
    let mut changes = Vec::new();
    for index in crowding_sowings(reckoned, short) {
        go_on();
        let of = Of {
            plan,
            index,
            sowing: &plan.sowings[index],
            dates: &reckoned.dates[index],
            short,
        };
        if of.sowing.stays.is_some() {
            continue;
        }
        changes.extend(of.fewer_trays(reckoned));
        changes.extend(of.smaller_cells(reckoned, false));
        changes.extend(of.smaller_cells(reckoned, true));
        changes.extend(SHIFTS.iter().filter_map(|days| of.shifted(*days)));
        changes.extend(SOONER.iter().filter_map(|days| of.out_sooner(*days)));
        changes.extend(WAITS.iter().filter_map(|days| of.potted_later(*days)));
    }
    changes
}

/// One that stands nowhere counts as so many that do.
const WITHOUT: u32 = 100;

/// Whether `tray` wants what is short, on days on which it is.
fn crowds(reckoned: &Reckoned<'_>, short: &Crowding, tray: &Tray) -> bool {
    let moments = reckoned.moments_of(tray);
    short.shortages.iter().any(|shortage| {
        let own = moments.days_of(shortage.stage);
        own.is_some_and(|own| own.meets(shortage.days))
    })
}

/// The sowings that have trays in the stage and on the days that are short, by how many.
fn crowding_sowings(reckoned: &Reckoned<'_>, short: &Crowding) -> Vec<usize> {
    let plan = reckoned.plan;
    let mut trays = vec![0_u32; plan.sowings.len()];
    for tray in &plan.trays {
        let crowds = crowds(reckoned, short, tray);
        let without = short.without.contains(&tray.id);
        for part in tray.parts.iter().filter(|_| crowds || without) {
            trays[plan.sowing_index(&part.sowing)] += if without { WITHOUT } else { 1 };
        }
    }
    let mut order: Vec<usize> = (0..trays.len()).filter(|&i| trays[i] > 0).collect();
    order.sort_by_key(|&i| std::cmp::Reverse(trays[i]));
    order.truncate(MOST_SOWINGS);
    order
}

/// A sowing that is to make room.
struct Of<'a> {
    plan: &'a SoundPlan,
    index: usize,
    sowing: &'a Sowing,
    dates: &'a SowingDates,
    short: &'a Crowding,
}

impl Of<'_> {
    fn plan_with(&self, change: impl FnOnce(&mut Sowing)) -> Plan {
        let mut plan = (**self.plan).clone();
        change(&mut plan.sowings[self.index]);
        plan
    }

    /// Whether its days are its own: not sown yet, and in no flat with others.
    fn is_free(&self) -> bool {
        let mut trays = self.plan.trays_of(&self.sowing.id);
        !self.sowing.sown && !trays.any(|tray| tray.sown_together)
    }

    /// Sown, and all after that, so many days later; earlier where negative.
    fn shifted(&self, days: i32) -> Option<Change> {
        if !self.is_free() {
            return None;
        }
        let later = |day| plus_days(day, days);
        let plan = self.plan_with(|sowing| {
            sowing.shift_days += days;
            sowing.sow_on = sowing.sow_on.map(later);
            sowing.out_on = sowing.out_on.map(later);
            sowing.covered_until = sowing.covered_until.map(later);
        });
        let (name, by) = (&self.dates.name, Quantity::Days.of(f64::from(days.abs())));
        Some(Change {
            about: self.sowing.id.clone(),
            step: if days > 0 {
                say!("Sow {name} {by} later", name = name, by = by)
            } else {
                say!("Sow {name} {by} earlier", name = name, by = by)
            },
            costs: vec![say!(
                "planted out on {out} rather than {was}",
                out = later(self.dates.out),
                was = self.dates.out
            )],
            buys: None,
            more_spots: false,
            harm: days.unsigned_abs(),
            plan,
        })
    }

    /// Hardy plants out sooner, under cover until the day they would have gone out.
    fn out_sooner(&self, days: i32) -> Option<Change> {
        let hardy = self.plan.crop(self.sowing).weeks_after_last_frost < 0.0;
        if !hardy || !self.is_free() {
            return None;
        }
        let (sow, out) = (self.dates.sow, plus_days(self.dates.out, -days));
        let plan = self.plan_with(|sowing| {
            sowing.sow_on = Some(sow);
            sowing.covered_until = Some(sowing.covered_until.unwrap_or(self.dates.out));
            sowing.out_on = Some(out);
        });
        Some(Change {
            about: self.sowing.id.clone(),
            step: say!(
                "Plant {name} out {by} sooner, on {out}, under cover until {until}",
                name = &self.dates.name,
                by = Quantity::Days.of(f64::from(days)),
                out = out,
                until = self.dates.out
            ),
            costs: vec![say!("it wants fleece or a tunnel over the bed")],
            buys: None,
            more_spots: false,
            harm: 4 + days as u32 / 2,
            plan,
        })
    }

    /// Left in full cells for some days before it is potted on.
    fn potted_later(&self, days: i32) -> Option<Change> {
        self.plan.potted_into(&self.sowing.id).next()?;
        // After that day it would not be potted on at all.
        if plus_days(self.dates.pot_on?, days) >= self.dates.harden {
            return None;
        }
        let before = self.sowing.pot_on_later_days.unwrap_or(0);
        let plan = self.plan_with(|sowing| sowing.pot_on_later_days = Some(before + days));
        Some(Change {
            about: self.sowing.id.clone(),
            step: say!(
                "Pot {name} on {by} later",
                name = &self.dates.name,
                by = Quantity::Days.of(f64::from(days))
            ),
            costs: vec![say!(
                "its roots wait in full cells: it grows less, and wants a weak feed"
            )],
            buys: None,
            more_spots: false,
            harm: days as u32,
            plan,
        })
    }

    /// One tray fewer: of what is to spare, else of what is wanted.
    fn fewer_trays(&self, reckoned: &Reckoned<'_>) -> Option<Change> {
        let cells = reckoned.cells_of(&self.sowing.id)?;
        let own = |tray: &&Tray| tray.parts.len() == 1 && tray.parts[0].sowing == self.sowing.id;
        let trays = self
            .plan
            .trays
            .iter()
            .filter(own)
            .filter(|tray| crowds(reckoned, self.short, tray));
        let without = |tray: &&Tray| self.short.without.contains(&tray.id);
        let gone = trays.max_by_key(|tray| (without(tray), tray.potted))?;
        let (there, needed) = match gone.potted {
            true => (cells.pots_there, cells.pots?),
            false => (cells.cells_there, cells.to_sow.as_ref()?.cells),
        };
        let left = there - self.plan.cells_in(gone, &self.sowing.id).min(there);
        if left == 0 {
            return None;
        }
        let spare = left >= needed;
        let wanted = f64::from(self.sowing.wanted) * f64::from(left) / f64::from(needed.max(1));
        let wanted = (wanted.floor() as u32).clamp(1, self.sowing.wanted);
        let mut plan = self.plan_with(|sowing| {
            if !spare {
                sowing.wanted = wanted;
            }
        });
        plan.trays.retain(|tray| tray.id != gone.id);
        let fewer = self.sowing.wanted - wanted;
        let count = |n: u32| Quantity::Count.of(f64::from(n));
        Some(Change {
            about: self.sowing.id.clone(),
            step: if spare {
                say!(
                    "Do without {tray}: {name} has cells enough",
                    tray = &gone.name,
                    name = &self.dates.name
                )
            } else {
                say!(
                    "Raise {wanted} {name} rather than {was}, without {tray}",
                    wanted = count(wanted),
                    was = count(self.sowing.wanted),
                    name = &self.dates.name,
                    tray = &gone.name
                )
            },
            costs: if spare {
                Vec::new()
            } else {
                vec![match fewer {
                    1 => say!("one plant fewer"),
                    n => say!("{n} plants fewer", n = count(n)),
                }]
            },
            buys: None,
            more_spots: false,
            harm: if spare { 0 } else { 10 + fewer },
            plan,
        })
    }

    /// In trays of the same size with smaller cells, so that it takes fewer of them.
    fn smaller_cells(&self, reckoned: &Reckoned<'_>, potted: bool) -> Option<Change> {
        let cells = reckoned.cells_of(&self.sowing.id)?;
        let own = |tray: &Tray| {
            let part = &tray.parts[0];
            let whole = part.columns.is_none() && part.rows.is_none();
            tray.parts.len() == 1 && whole && part.sowing == self.sowing.id && tray.potted == potted
        };
        let trays: Vec<&Tray> = self.plan.trays.iter().filter(|tray| own(tray)).collect();
        let now = self.plan.format(trays.first()?);
        let alike = |tray: &&Tray| self.plan.format(tray) == now;
        let needed = match potted {
            true => cells.pots?,
            false => cells.to_sow.as_ref()?.cells,
        };
        let there: u32 = trays
            .iter()
            .map(|tray| self.plan.format(tray).cells())
            .sum();
        let needed = needed.min(there);
        let generic = &shelf::library_in(self.plan.site.units).containers;
        let smaller = self.plan.tray_formats.iter().chain(generic);
        let smaller = smaller.filter(|format| {
            let fewer = needed.div_ceil(format.cells().max(1)) as usize;
            same_size(format, now)
                && (LEAST_SHARE * now.cell_ml..now.cell_ml).contains(&format.cell_ml)
                && fewer < trays.len()
        });
        let format = smaller.max_by(|a, b| a.cell_ml.total_cmp(&b.cell_ml))?;
        if !trays.iter().all(alike) {
            return None;
        }
        let keep = needed.div_ceil(format.cells()) as usize;
        let mut plan = (**self.plan).clone();
        let mut taken = format.clone();
        match plan.tray_formats.iter().find(|other| *other == format) {
            Some(there) => taken.id.clone_from(&there.id),
            None => {
                taken.id = free_id(&taken.id, plan.tray_formats.iter().map(|other| &other.id));
                plan.tray_formats.push(taken.clone());
            }
        }
        // Those that stand somewhere stay.
        let mut order: Vec<&Tray> = trays.clone();
        order.sort_by_key(|tray| self.short.without.contains(&tray.id));
        let kept: Vec<&str> = order
            .iter()
            .take(keep)
            .map(|tray| tray.id.as_str())
            .collect();
        plan.trays
            .retain(|tray| !own(tray) || kept.contains(&tray.id.as_str()));
        for tray in plan.trays.iter_mut().filter(|tray| own(tray)) {
            tray.format.clone_from(&taken.id);
        }
        let count = |n: usize| Quantity::Count.of(n as f64);
        Some(Change {
            about: self.sowing.id.clone(),
            step: say!(
                "{name}: {n} × {format} in place of {was} trays",
                name = &self.dates.name,
                n = count(keep),
                format = &taken.name,
                was = count(trays.len())
            ),
            costs: vec![say!(
                "cells of {to} rather than {from}: full sooner, and drier",
                to = Quantity::VolumeMl.of(taken.cell_ml),
                from = Quantity::VolumeMl.of(now.cell_ml)
            )],
            buys: None,
            more_spots: false,
            harm: 8,
            plan,
        })
    }
}

/// Cells of less than this share of those in use are another way of raising it (our own judgement).
const LEAST_SHARE: f64 = 0.5;

fn same_size(a: &TrayFormat, b: &TrayFormat) -> bool {
    const SLACK_MM: f64 = 5.0;
    let near = |a: f64, b: f64| (a - b).abs() <= SLACK_MM;
    near(a.length_mm, b.length_mm) && near(a.width_mm, b.width_mm)
}
