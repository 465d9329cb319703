//! Every seedling from day to day where its tray stands.

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, days_between, plus_days};
use crate::basis::work::go_on;
use crate::crops::{Crop, GrownFrom};
use crate::growth::{Conditions, Seedling, leaves};
use crate::plan::{SoundPlan, Sowing, Stand, Tray};
use crate::season::airs::Airs;
use crate::season::around::{Around, Plants};
use crate::season::beside::Beside;
use crate::season::moments::{PartSpan, TrayMoments};
use crate::season::sowing_dates::SowingDates;
use crate::season::spot_light::SpotLights;
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
    /// The plants of `plan`, whose sowings have their `dates` in its order: all of them from one day to
    /// the next, since the tall shade the low. Pots follow on what stood in cells before.
    pub(super) fn of<'a>(
        plan: &'a SoundPlan,
        dates: &[SowingDates],
        airs: Airs<'a>,
        lights: SpotLights<'a>,
    ) -> Self {
        let mut around = Around::new(plan, airs, lights);
        let of_tray = |tray| TrayGrowing::of(plan, tray, dates);
        let mut trays: Vec<TrayGrowing<'a>> = plan.trays.iter().map(of_tray).collect();
        let spots = trays.iter().map(|tray| tray.spots.as_slice());
        let beside = Beside::all(plan, &spots.collect::<Vec<_>>());
        while let Some(date) = trays.iter().filter_map(TrayGrowing::next_day).min() {
            go_on();
            let yesterday: Vec<Option<(usize, f64)>> =
                trays.iter().map(|tray| tray.stands_on(date)).collect();
            for i in 0..trays.len() {
                if trays[i].next_day() != Some(date) {
                    continue;
                }
                let tall = |tray: usize, spot: usize| {
                    let (at, top_mm) = yesterday[tray]?;
                    (at == spot).then_some(top_mm)
                };
                let spot = yesterday[i].map(|(spot, _)| spot);
                let beside = spot.map_or(&[][..], |spot| beside.of(i, spot));
                let shaded = |top_mm, own_mm| Beside::unshaded(beside, tall, top_mm, own_mm);
                let potted = trays[i].potted_today(date, &trays, dates);
                trays[i].day_passes(&mut around, i, date, potted, shaded);
            }
        }
        let grown = |tray: TrayGrowing<'a>| {
            let parts = tray.parts.into_iter();
            parts.map(|part| part.grown).collect()
        };
        Self {
            trays: trays.into_iter().map(grown).collect(),
        }
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
}

/// No sowing is in the plan for longer.
const MOST_DAYS: i32 = 400;

/// A tray whose plants are reckoned day by day.
struct TrayGrowing<'a> {
    plan: &'a SoundPlan,
    tray: &'a Tray,
    /// Where it stands, one spot after another.
    spots: Vec<(&'a Stand, DateSpan)>,
    parts: Vec<PartGrowing<'a>>,
}

struct PartGrowing<'a> {
    crop: &'a Crop,
    sowing: &'a Sowing,
    until: Date,
    harden: Date,
    grown: Grown,
}

impl PartGrowing<'_> {
    /// The day that comes next; `None` when its plants have left.
    fn next_day(&self) -> Option<Date> {
        let days = i32::try_from(self.grown.days.len()).ok()?;
        let next = plus_days(self.grown.from?, days);
        (next < self.until).then_some(next)
    }

    /// How tall its plants were the day before; 0 once they have left.
    fn height_mm(&self) -> f64 {
        let there = self.grown.last().filter(|_| self.next_day().is_some());
        there.map_or(0.0, |plant| plant.height_mm)
    }
}

impl<'a> TrayGrowing<'a> {
    fn of(plan: &'a SoundPlan, tray: &'a Tray, dates: &[SowingDates]) -> Self {
        let parts = tray.parts.iter().map(|part| {
            let index = plan.sowing_index(&part.sowing);
            let (sowing, dates) = (&plan.sowings[index], &dates[index]);
            let crop = plan.crop(sowing);
            PartGrowing {
                crop,
                sowing,
                until: PartSpan::of(plan, tray, dates).until,
                harden: dates.harden,
                grown: begins(crop, sowing, tray, dates),
            }
        });
        Self {
            plan,
            tray,
            spots: spots(tray, &TrayMoments::of(plan, tray, dates)),
            parts: parts.collect(),
        }
    }

    fn next_day(&self) -> Option<Date> {
        self.parts.iter().filter_map(PartGrowing::next_day).min()
    }

    /// The spot that it is at on `date`, and how high over the deck the mean of its plants stood the day
    /// before.
    fn stands_on(&self, date: Date) -> Option<(usize, f64)> {
        let here = |(_, days): &(&Stand, DateSpan)| (days.from..=days.to).contains(&date);
        let spot = self.spots.iter().position(here)?;
        let up = self.parts.iter().map(PartGrowing::height_mm);
        let mean_mm = up.sum::<f64>() / self.parts.len().max(1) as f64;
        Some((spot, self.rim_mm(spot) + mean_mm))
    }

    /// Its rim over the deck at `spot`.
    fn rim_mm(&self, spot: usize) -> f64 {
        self.spots[spot].0.box_mm.unwrap_or(0.0) + self.plan.format(self.tray).height_mm
    }

    /// The plants that come into each of its parts on `date` as they stood in their cells.
    fn potted_today(
        &self,
        date: Date,
        trays: &[TrayGrowing<'_>],
        dates: &[SowingDates],
    ) -> Vec<Option<Seedling>> {
        let eve = plus_days(date, -1);
        let comes = |part: &PartGrowing<'_>| {
            let today = self.tray.potted && part.grown.days.is_empty();
            if !today || part.next_day() != Some(date) {
                return None;
            }
            let dates = &dates[self.plan.sowing_index(&part.sowing.id)];
            let cells = self.plan.sown_in(&part.sowing.id);
            let from = cells.filter(|cells| dates.pot_on_of(cells) == Some(date));
            let from = from.filter_map(|cells| trays.get(self.plan.tray_index(&cells.id)?));
            let parts = from.flat_map(|cells| &cells.parts);
            let own = parts.filter(|from| from.sowing.id == part.sowing.id);
            let plants: Vec<Seedling> = own.filter_map(|own| own.grown.on(eve).copied()).collect();
            Seedling::mean(&plants).or_else(|| {
                // Whose cells are not in the plan has grown as usual until then.
                let days = days_between(dates.emerge?, date).clamp(0, MOST_DAYS);
                let usual = Conditions::usual(part.crop);
                let plant = |plant: Seedling, _| plant.after(part.crop, &usual);
                Some((0..days).fold(Seedling::UP, plant))
            })
        };
        self.parts.iter().map(comes).collect()
    }

    /// Lets `date` pass over its plants; `unshaded` says what trays beside it leave of the light on
    /// plants whose tops are so high over the deck and so high over the rim.
    fn day_passes(
        &mut self,
        around: &mut Around<'_>,
        index: usize,
        date: Date,
        potted: Vec<Option<Seedling>>,
        unshaded: impl Fn(f64, f64) -> f64,
    ) {
        let stands = self.stands_on(date).map(|(spot, _)| spot);
        let rim_mm = stands.map_or(0.0, |spot| self.rim_mm(spot));
        let heights: Vec<f64> = self.parts.iter().map(PartGrowing::height_mm).collect();
        let taller = heights.iter().copied().fold(0.0, f64::max);
        for (i, (part, comes)) in self.parts.iter_mut().zip(potted).enumerate() {
            if part.next_day() != Some(date) {
                continue;
            }
            let (crop, stock) = (part.crop, part.sowing.stays.is_some());
            let before = part.grown.last().copied();
            let today = match (comes, before) {
                (Some(plant), _) => plant,
                // How what only passes through grows is nobody's business here.
                (None, Some(before)) if stock => before,
                (None, before) => {
                    let plants = Plants {
                        tray: self.tray,
                        index: (index, i),
                        crop,
                        harden: part.harden,
                    };
                    let spot = stands.map(|spot| (spot, self.spots[spot].0));
                    let own_mm = heights[i];
                    let day = Conditions {
                        unshaded: leaves::unshaded(taller - own_mm, own_mm)
                            * unshaded(rim_mm + own_mm, own_mm),
                        ..around.day(plants, spot, date)
                    };
                    before.unwrap_or(Seedling::UP).after(crop, &day)
                }
            };
            part.grown.days.push(today);
        }
    }
}

/// The first plants of a part of `tray`; those that are potted come later.
fn begins(crop: &Crop, sowing: &Sowing, tray: &Tray, dates: &SowingDates) -> Grown {
    if sowing.stays.is_some() {
        return Grown {
            from: Some(dates.sow),
            days: vec![Seedling::stock(crop)],
        };
    }
    if tray.potted {
        return Grown {
            from: dates.pot_on_of(tray),
            days: Vec::new(),
        };
    }
    let cut = crop.grown_from != GrownFrom::Seed;
    match dates.emerge {
        // A cutting stands there from the day it is stuck; its roots show later.
        Some(up) if cut => {
            let waits = days_between(dates.sow, up).clamp(1, MOST_DAYS) as usize;
            Grown {
                from: Some(dates.sow),
                days: vec![Seedling::cut(crop); waits],
            }
        }
        up => Grown {
            from: up,
            days: Vec::new(),
        },
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

    #[test]
    fn a_low_tray_between_tall_ones_grows_less_and_on_a_box_it_does_not() {
        // Three trays of cherry tomatoes side by side; the middle one is of a dwarf.
        let size = |tall: bool, box_mm: Option<f64>| {
            let plan = crate::testing::one_rack(|plan| {
                let tray = plan.trays[0].clone();
                let mut kind = plan.sowings[0].clone();
                kind.crop = "tomato".into();
                let mut dwarf = kind.clone();
                dwarf.id = "dwarf".into();
                dwarf.variety = "Dwarf".into();
                dwarf.differs.height_out_mm = Some(80.0);
                kind.differs.height_out_mm = Some(250.0);
                plan.sowings = vec![kind, dwarf];
                // A full cell would hold it up sooner than shade.
                plan.tray_formats
                    .iter_mut()
                    .for_each(|format| format.cell_ml = 400.0);
                plan.trays.clear();
                for (i, id) in ["a", "low", "b"].iter().enumerate() {
                    let mut tray = tray.clone();
                    tray.id = (*id).into();
                    tray.name = (*id).to_uppercase();
                    for stand in &mut tray.stands {
                        stand.x_mm = 20.0 + 300.0 * i as f64;
                        stand.along = crate::basis::plane::Axis::Y;
                        stand.box_mm = box_mm.filter(|_| *id == "low");
                    }
                    if *id == "low" {
                        tray.parts[0].sowing = "dwarf".into();
                    } else if !tall {
                        continue;
                    }
                    plan.trays.push(tray);
                }
            });
            let all = reckoned(&plan);
            let tray = plan.trays.iter().find(|tray| tray.id == "low").unwrap();
            let plant = all.growing.of_tray(&plan, tray)[0].last().unwrap();
            plant.size(plan.crop(&plan.sowings[1]))
        };
        // Between tall ones against alone: the lamps over a box are another matter.
        let kept = |box_mm| size(true, box_mm) / size(false, box_mm);
        let (level, raised) = (kept(None), kept(Some(120.0)));
        assert!(level < 0.9 && raised > level + 0.02, "{level} {raised}");
    }
}
