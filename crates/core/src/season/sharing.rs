//! Which kinds share a flat well, and on which day it is sown: what lies in one flat is sown on one
//! day, under one dome, on one mat and under one lamp.

use jiff::civil::Date;

use crate::basis::dates::days_between;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::basis::work::go_on;
use crate::crops::{Crop, Vigour};
use crate::plan::SoundPlan;
use crate::season::sowing_dates::SowingDates;

/// Root zones that differ by more do not suit both (our own estimate).
const APART_C: f64 = 5.0;
/// One that shows so much later sits under a dome that must come off (our own estimate).
const APART_DAYS: i32 = 6;
/// So many times as tall as another of its kind it shades it (our own estimate).
const TALLER: f64 = 1.6;
/// Sown together they are each off their own day by half of it at the most (our own estimate).
const SOWN_APART_DAYS: i32 = 14;

/// A kind that is to share a flat.
#[derive(Debug, Clone, Copy)]
pub struct Sharer<'a> {
    /// Its crop.
    pub crop: &'a Crop,
    /// Its dates.
    pub dates: &'a SowingDates,
}

impl Sharer<'_> {
    /// In what two kinds do not go together in one flat; `None` where they do.
    pub fn misfit(&self, other: &Self) -> Option<Statement> {
        let apart = match (self.dates.emerge, other.dates.emerge) {
            (Some(first), Some(second)) => days_between(first, second).abs(),
            _ => 0,
        };
        self.misfit_when(other, apart)
    }

    /// The same before they are sown on one day.
    pub fn misfit_if_sown_together(&self, other: &Self) -> Option<Statement> {
        let sown = days_between(self.dates.sow, other.dates.sow).abs();
        if sown > SOWN_APART_DAYS {
            return Some(say!(
                "{a} and {b} should be sown {apart} apart.",
                a = &self.dates.name,
                b = &other.dates.name,
                apart = Quantity::Days.of(f64::from(sown))
            ));
        }
        let days = |of: &Self| of.dates.emergence_days.unwrap_or(0.0);
        let apart = (days(self) - days(other)).abs().round() as i32;
        self.misfit_when(other, apart)
    }

    fn misfit_when(&self, other: &Self, shows_apart: i32) -> Option<Statement> {
        let celsius = |c: f64| Quantity::TemperatureC.of(c);
        let dli = |value: f64| Quantity::DliMolM2D.of(value);
        let (a, b) = (self.crop, other.crop);
        if (a.root_zone_c - b.root_zone_c).abs() > APART_C {
            return Some(say!(
                "One needs its mix at {a}, the other at {b}.",
                a = celsius(a.root_zone_c),
                b = celsius(b.root_zone_c)
            ));
        }
        let light = |x: &Crop, y: &Crop| x.dli_high_mol_m2_d < y.dli_low_mol_m2_d;
        if light(a, b) || light(b, a) {
            return Some(say!(
                "One needs at least {a} of light, the other {b}; no lamp height suits both.",
                a = dli(a.dli_low_mol_m2_d),
                b = dli(b.dli_low_mol_m2_d)
            ));
        }
        if shows_apart > APART_DAYS {
            return Some(say!(
                "One comes up {apart} before the other and goes leggy under the dome the slower one needs.",
                apart = Quantity::Days.of(f64::from(shows_apart))
            ));
        }
        // Two varieties of one kind come up together: the taller shades the shorter.
        let (low, tall) = if a.height_out_mm < b.height_out_mm {
            (self, other)
        } else {
            (other, self)
        };
        if a.id == b.id && tall.crop.height_out_mm > TALLER * low.crop.height_out_mm {
            return Some(say!(
                "{tall} grows to {tall_mm}, {low} to {low_mm}: the taller shades the other.",
                tall = &tall.dates.name,
                low = &low.dates.name,
                tall_mm = Quantity::LengthMm.of(tall.crop.height_out_mm),
                low_mm = Quantity::LengthMm.of(low.crop.height_out_mm),
            ));
        }
        let (slow, strong) = if a.vigour < b.vigour { (a, b) } else { (b, a) };
        (slow.vigour == Vigour::Slow && strong.vigour == Vigour::Strong).then(|| {
            say!(
                "{strong} shades {slow} within a week or two: group by vigour.",
                strong = &strong.name,
                slow = &slow.name
            )
        })
    }
}

/// The sowings at `indices` of the plan in groups that share a flat well, those sown first first.
pub fn groups(plan: &SoundPlan, dates: &[SowingDates], indices: &[usize]) -> Vec<Vec<usize>> {
    let sharer = |i: usize| Sharer {
        crop: plan.crop(&plan.sowings[i]),
        dates: &dates[i],
    };
    let mut order = indices.to_vec();
    order.sort_by_key(|&i| (dates[i].sow, i));
    let mut groups: Vec<Vec<usize>> = Vec::new();
    for i in order {
        go_on();
        let suits = |group: &&mut Vec<usize>| {
            let mut all = group.iter();
            all.all(|&j| sharer(i).misfit_if_sown_together(&sharer(j)).is_none())
        };
        match groups.iter_mut().find(suits) {
            Some(group) => group.push(i),
            None => groups.push(vec![i]),
        }
    }
    groups
}

/// The day on which a flat is sown whose kinds would be sown on `days`, each by itself: the middle
/// one, so that none is far off (our own estimate).
pub fn day_of_flat(mut days: Vec<Date>) -> Option<Date> {
    days.sort();
    days.get(days.len().saturating_sub(1) / 2).copied()
}
