//! A tray whose plants are reckoned day by day.

use jiff::civil::Date;

use crate::basis::dates::{DateSpan, days_between, plus_days};
use crate::crops::{Crop, GrownFrom};
use crate::growth::usual::Usual;
use crate::growth::{Conditions, Seedling, leaves};
use crate::plan::{SoundPlan, Sowing, Stand, Tray};
use crate::season::around::{Around, Plants};
use crate::season::moments::{PartSpan, TrayMoments};
use crate::season::sowing_dates::SowingDates;
use crate::season::stays::spots;

/// The plants of a part of a tray.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Grown {
    pub(super) from: Option<Date>,
    pub(super) days: Vec<Seedling>,
}

impl Grown {
    /// The mean plant of it on `date`; `None` while none is up there, and once they have left.
    pub fn on(&self, date: Date) -> Option<&Seedling> {
        let days = days_between(self.from?, date);
        self.days.get(usize::try_from(days).ok()?)
    }

    /// Every day with the plant on it.
    pub fn days(&self) -> impl Iterator<Item = (Date, &Seedling)> {
        self.from.into_iter().flat_map(|from| {
            let days = self.days.iter().zip(0..);
            days.map(move |(plant, n)| (plus_days(from, n), plant))
        })
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

/// No sowing is in the plan for longer.
const MOST_DAYS: i32 = 400;

/// A tray whose plants are reckoned day by day.
#[derive(Clone)]
pub(super) struct TrayGrowing<'a> {
    plan: &'a SoundPlan,
    tray: &'a Tray,
    /// Where it stands, one spot after another.
    pub(super) spots: Vec<(&'a Stand, DateSpan)>,
    /// Its height without what it stands on.
    rim_mm: f64,
    pub(super) parts: Vec<PartGrowing<'a>>,
    /// The day that comes next; `None` when all its plants have left.
    pub(super) next: Option<Date>,
}

#[derive(Clone)]
pub(super) struct PartGrowing<'a> {
    crop: &'a Crop,
    usual: Usual,
    sowing: &'a Sowing,
    until: Date,
    harden: Date,
    pub(super) grown: Grown,
    /// The day that comes next; `None` when its plants have left.
    next: Option<Date>,
}

impl PartGrowing<'_> {
    /// Its plants at the end of the day that came next.
    fn ends(&mut self, today: Seedling) {
        self.grown.days.push(today);
        let next = self.next.and_then(|day| day.tomorrow().ok());
        self.next = next.filter(|next| *next < self.until);
    }

    /// How tall its plants were the day before; 0 once they have left.
    fn height_mm(&self) -> f64 {
        let there = self.grown.last().filter(|_| self.next.is_some());
        there.map_or(0.0, |plant| plant.height_mm)
    }
}

impl<'a> TrayGrowing<'a> {
    pub(super) fn of(
        plan: &'a SoundPlan,
        tray: &'a Tray,
        dates: &[SowingDates],
        moments: &TrayMoments,
    ) -> Self {
        let parts = tray.parts.iter().map(|part| {
            let index = plan.sowing_index(&part.sowing);
            let (sowing, dates) = (&plan.sowings[index], &dates[index]);
            let crop = plan.crop(sowing);
            let until = PartSpan::of(plan, tray, dates).until;
            let grown = begins(crop, sowing, tray, dates);
            let days = i32::try_from(grown.days.len()).unwrap_or(i32::MAX);
            let next = grown.from.map(|from| plus_days(from, days));
            PartGrowing {
                crop,
                usual: Usual::of(crop),
                sowing,
                until,
                harden: dates.harden,
                grown,
                next: next.filter(|next| *next < until),
            }
        });
        let parts: Vec<PartGrowing<'a>> = parts.collect();
        Self {
            plan,
            tray,
            spots: spots(tray, moments),
            rim_mm: plan.format(tray).height_mm,
            next: parts.iter().filter_map(|part| part.next).min(),
            parts,
        }
    }

    /// The spot that it is at on `date`, and how high over the deck the mean of its plants stood the day
    /// before.
    pub(super) fn stands_on(&self, date: Date) -> Option<(usize, f64)> {
        let here = |(_, days): &(&Stand, DateSpan)| (days.from..=days.to).contains(&date);
        let spot = self.spots.iter().position(here)?;
        let up = self.parts.iter().map(PartGrowing::height_mm);
        let mean_mm = up.sum::<f64>() / self.parts.len().max(1) as f64;
        Some((spot, self.rim_mm(spot) + mean_mm))
    }

    /// Its rim over the deck at `spot`.
    fn rim_mm(&self, spot: usize) -> f64 {
        self.spots[spot].0.box_mm.unwrap_or(0.0) + self.rim_mm
    }

    /// The plants that come into each of its parts on `date` as they stood in their cells; none where it is
    /// not potted.
    pub(super) fn potted_today(
        &self,
        date: Date,
        trays: &[TrayGrowing<'_>],
        dates: &[SowingDates],
    ) -> Vec<Option<Seedling>> {
        if !self.tray.potted {
            return Vec::new();
        }
        let eve = plus_days(date, -1);
        let comes = |part: &PartGrowing<'_>| {
            if !part.grown.days.is_empty() || part.next != Some(date) {
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

    /// Lets `date` pass over its plants at the spot where it `stands`; `unshaded` says what trays beside it leave of the light on
    /// plants whose tops are so high over the deck and so high over the rim.
    pub(super) fn day_passes(
        &mut self,
        around: &mut Around<'_>,
        index: usize,
        (stands, date): (Option<usize>, Date),
        potted: Vec<Option<Seedling>>,
        unshaded: impl Fn(f64, f64) -> f64,
    ) {
        let rim_mm = stands.map_or(0.0, |spot| self.rim_mm(spot));
        let heights = self.parts.iter().map(PartGrowing::height_mm);
        let taller = heights.fold(0.0, f64::max);
        for (i, part) in self.parts.iter_mut().enumerate() {
            if part.next != Some(date) {
                continue;
            }
            let (own_mm, comes) = (part.height_mm(), potted.get(i).copied().flatten());
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
                    let day = Conditions {
                        unshaded: leaves::unshaded(taller - own_mm, own_mm)
                            * unshaded(rim_mm + own_mm, own_mm),
                        ..around.day(plants, spot, date)
                    };
                    let before = before.unwrap_or(Seedling::UP);
                    before.after_usual(crop, &part.usual, &day)
                }
            };
            part.ends(today);
        }
        self.next = self.parts.iter().filter_map(|part| part.next).min();
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
