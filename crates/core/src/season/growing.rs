//! Every seedling from day to day where its tray stands.

use std::collections::BTreeMap;

use jiff::civil::Date;

use crate::basis::dates::{days_between, plus_days};
use crate::basis::work::go_on;
use crate::crops::{Crop, GrownFrom};
use crate::growth::{Conditions, Seedling, leaves};
use crate::plan::{SoundPlan, Stage, Stand, Tray};
use crate::season::airs::Airs;
use crate::season::moments::{PartSpan, TrayMoments};
use crate::season::sowing_dates::SowingDates;
use crate::season::spot_light::{Spot, SpotLights};
use crate::season::stays::spots;

/// The plants of every part of every tray, day by day.
#[derive(Debug, Default)]
pub struct Growing {
    /// By tray, as the plan has them, and part.
    trays: Vec<Vec<Grown>>,
}

/// The plants of a part of a tray.
#[derive(Debug, Clone, Default)]
pub struct Grown {
    from: Option<Date>,
    days: Vec<Seedling>,
}

impl Grown {
    /// The mean plant of it on `date`; `None` while none is up there, and once they have left.
    pub fn on(&self, date: Date) -> Option<&Seedling> {
        let days = days_between(self.from?, date);
        self.days.get(usize::try_from(days).ok()?)
    }

    /// The first day on which `is_so`; `None` where none is.
    pub fn first_day(&self, is_so: impl Fn(&Seedling) -> bool) -> Option<Date> {
        let days = self.days.iter().position(is_so)?;
        Some(plus_days(self.from?, i32::try_from(days).ok()?))
    }

    /// The plant on the last day that is reckoned.
    pub fn last(&self) -> Option<&Seedling> {
        self.days.last()
    }
}

impl Growing {
    /// The plants of `plan`, whose sowings have their `dates` in its order. Pots follow on what stood
    /// in cells before.
    pub(super) fn of<'a>(
        plan: &'a SoundPlan,
        dates: &[SowingDates],
        airs: Airs<'a>,
        lights: SpotLights<'a>,
    ) -> Self {
        let mut growing = Self {
            trays: vec![Vec::new(); plan.trays.len()],
        };
        let mut around = Around { plan, lights, airs };
        let sown = (0..plan.trays.len()).filter(|&i| !plan.trays[i].potted);
        let potted = (0..plan.trays.len()).filter(|&i| plan.trays[i].potted);
        for i in sown.chain(potted) {
            go_on();
            growing.trays[i] = growing.tray(&mut around, dates, &plan.trays[i]);
        }
        growing
    }

    /// The plants of part `part` of the tray at `tray` in the plan.
    pub fn of_part(&self, tray: usize, part: usize) -> Option<&Grown> {
        self.trays.get(tray)?.get(part)
    }

    /// The plants of each part of `tray`.
    pub fn of_tray<'g>(&'g self, plan: &SoundPlan, tray: &Tray) -> &'g [Grown] {
        let index = plan.tray_index(&tray.id);
        let parts = index.and_then(|i| self.trays.get(i));
        parts.map_or(&[], Vec::as_slice)
    }

    fn tray(&self, around: &mut Around<'_>, dates: &[SowingDates], tray: &Tray) -> Vec<Grown> {
        let plan = around.plan;
        let moments = TrayMoments::of(plan, tray, dates);
        let mut parts: Vec<PartGrowing<'_>> = tray
            .parts
            .iter()
            .map(|part| {
                let index = plan.sowing_index(&part.sowing);
                let crop = plan.crop(&plan.sowings[index]);
                let span = PartSpan::of(plan, tray.potted, &dates[index]);
                let begins = self.begins(plan, tray, index, crop, &dates[index]);
                PartGrowing {
                    crop,
                    until: span.until,
                    harden: dates[index].harden,
                    stock: plan.sowings[index].stays.is_some(),
                    grown: Grown {
                        from: begins.as_ref().map(|begins| begins.from),
                        days: begins.map_or_else(Vec::new, |begins| begins.days),
                    },
                    lamps: BTreeMap::new(),
                }
            })
            .collect();
        let first = parts.iter().filter_map(PartGrowing::next_day).min();
        let last = parts.iter().map(|part| part.until).max();
        let Some((mut date, last)) = first.zip(last) else {
            return parts.into_iter().map(|part| part.grown).collect();
        };
        let spots = spots(tray, &moments);
        while date < last {
            let spot = spots
                .iter()
                .position(|(_, days)| (days.from..=days.to).contains(&date));
            let spot = spot.map(|i| (i, spots[i].0));
            let heights: Vec<f64> = parts.iter().map(PartGrowing::height_mm).collect();
            for (i, part) in parts.iter_mut().enumerate() {
                if part.next_day() != Some(date) || date >= part.until {
                    continue;
                }
                let taller = heights.iter().copied().fold(0.0, f64::max);
                let unshaded = leaves::unshaded(taller - heights[i], heights[i]);
                let day = Conditions {
                    unshaded,
                    ..around.day(tray, i, part, spot, date)
                };
                let before = part.grown.days.last().copied().unwrap_or(Seedling::UP);
                let after = if part.stock {
                    before
                } else {
                    before.after(part.crop, &day)
                };
                part.grown.days.push(after);
            }
            date = plus_days(date, 1);
        }
        parts.into_iter().map(|part| part.grown).collect()
    }

    /// The first plant of a part, and the day; `None` where none comes up.
    fn begins(
        &self,
        plan: &SoundPlan,
        tray: &Tray,
        sowing: usize,
        crop: &Crop,
        dates: &SowingDates,
    ) -> Option<Begins> {
        let sown = &plan.sowings[sowing];
        if sown.stays.is_some() {
            let (from, days) = (dates.sow, vec![Seedling::stock(crop)]);
            return Some(Begins { from, days });
        }
        if tray.potted {
            let day = dates.pot_on?;
            let eve = plus_days(day, -1);
            let from_cells = plan.sown_in(&sown.id).flat_map(|cells| {
                let grown = self.of_tray(plan, cells).iter().zip(&cells.parts);
                let own = grown.filter(|(_, part)| part.sowing == sown.id);
                own.filter_map(|(grown, _)| grown.on(eve).copied())
            });
            let from_cells: Vec<Seedling> = from_cells.collect();
            // Whose cells are not in the plan has grown as usual until then.
            let grown = || {
                let days = days_between(dates.emerge?, day).clamp(0, MOST_DAYS);
                let usual = Conditions::usual(crop);
                let plant = |plant: Seedling, _| plant.after(crop, &usual);
                Some((0..days).fold(Seedling::UP, plant))
            };
            let days = vec![Seedling::mean(&from_cells).or_else(grown)?];
            return Some(Begins { from: day, days });
        }
        let up = dates.emerge?;
        let cut = crop.grown_from != GrownFrom::Seed;
        Some(if cut {
            // A cutting stands there from the day it is stuck; its roots show later.
            let waits = days_between(dates.sow, up).clamp(0, MOST_DAYS) as usize;
            Begins {
                from: dates.sow,
                days: vec![Seedling::cut(crop); waits.max(1)],
            }
        } else {
            let days = Vec::new();
            Begins { from: up, days }
        })
    }
}

/// No sowing is in the plan for longer.
const MOST_DAYS: i32 = 400;

struct Begins {
    from: Date,
    days: Vec<Seedling>,
}

struct PartGrowing<'a> {
    crop: &'a Crop,
    until: Date,
    harden: Date,
    /// Whether it only passes through: how it grows is nobody's business here.
    stock: bool,
    grown: Grown,
    /// The lamps' daily light at each of the tray's spots.
    lamps: BTreeMap<usize, f64>,
}

impl PartGrowing<'_> {
    fn next_day(&self) -> Option<Date> {
        let days = i32::try_from(self.grown.days.len()).ok()?;
        Some(plus_days(self.grown.from?, days))
    }

    fn height_mm(&self) -> f64 {
        self.grown.last().map_or(0.0, |plant| plant.height_mm)
    }
}

/// What plants have around them where they stand.
struct Around<'a> {
    plan: &'a SoundPlan,
    lights: SpotLights<'a>,
    airs: Airs<'a>,
}

impl Around<'_> {
    /// The day of part `i` of `tray` at `spot`; standing nowhere it has the room's air, and the light
    /// that it wants.
    fn day(
        &mut self,
        tray: &Tray,
        i: usize,
        part: &mut PartGrowing<'_>,
        spot: Option<(usize, &Stand)>,
        date: Date,
    ) -> Conditions {
        let plan = self.plan;
        let format = plan.format(tray);
        let across = format.length_mm / f64::from(format.columns.max(1));
        let deep = format.width_mm / f64::from(format.rows.max(1));
        let base = Conditions {
            cell_ml: format.cell_ml,
            pitch_mm: across.min(deep),
            air: self.airs.of_room(),
            ..Conditions::usual(part.crop)
        };
        if date >= part.harden {
            // Out by day, whatever it stands on by night.
            return Conditions {
                dli: self.lights.outdoors(date),
                air: self.airs.hardening(date),
                ..base
            };
        }
        let Some((index, stand)) = spot else {
            return base;
        };
        let Some(bay) = plan.bay_on(&stand.bay, date) else {
            return base;
        };
        let (outline, _) = stand.block(format, tray.parts[i].block(format));
        let rim_mm = bay.tier.lift_mm() + stand.box_mm.unwrap_or(0.0) + format.height_mm;
        let daylight = self.lights.by_day(&bay, &outline, rim_mm, date);
        let lights = &mut self.lights;
        let by_lamps = part.lamps.entry(index).or_insert_with(|| {
            let spot = Spot {
                crop: part.crop,
                format,
                stand,
                outline,
            };
            lights.by_lamps(spot, &bay, daylight)
        });
        // Under a tray that is stacked on it, it is dark.
        let covered = stand.stage == Stage::Germinate && plan.is_covered(tray);
        Conditions {
            dli: if covered { 0.0 } else { *by_lamps + daylight },
            air: self.airs.there(&stand.bay, date),
            ..base
        }
    }
}

#[cfg(test)]
mod tests {
    use crate::testing::{kettle_fen, reckoned};

    /// The tallest that the plants of `sowing` get, in its first tray.
    fn tallest_mm(plan: &crate::plan::SoundPlan, sowing: &str) -> f64 {
        let all = reckoned(plan);
        let tray = plan.sown_in(sowing).next().expect("a tray");
        let grown = all.growing.of_tray(plan, tray)[0].last();
        grown.expect("it comes up").height_mm
    }

    #[test]
    fn a_variety_is_as_tall_as_it_is_said_to_be_and_lit_as_it_wants() {
        let with = |height_mm, low| {
            kettle_fen(|plan| {
                let mut sowings = plan.sowings.iter_mut();
                let cherry = sowings.find(|s| s.id == "tomato-cherry").expect("cherry");
                cherry.differs.height_out_mm = height_mm;
                cherry.differs.dli_low_mol_m2_d = low;
                cherry.differs.dli_high_mol_m2_d = low.map(|low| low + 1.0);
            })
        };
        let (kind, dwarf) = (with(None, None), with(Some(90.0), None));
        let id = "tomato-cherry";
        assert!(tallest_mm(&dwarf, id) < 0.6 * tallest_mm(&kind, id));
        // One that is content with a dim lamp is advised one, and stands taller for it.
        assert!(tallest_mm(&with(None, Some(5.0)), id) > tallest_mm(&kind, id));
        // Its neighbour of the same kind is none the wiser.
        let plum = tallest_mm(&kind, "tomato");
        assert!((tallest_mm(&dwarf, "tomato") - plum).abs() < 1e-9);
    }
}
