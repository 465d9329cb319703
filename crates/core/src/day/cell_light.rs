//! The light on each cell of a bay: from its own lamps, from walls and decks, through the deck above,
//! and through a window.

use rustc_hash::FxHashMap;
use std::rc::Rc;
use std::sync::Arc;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::plane::Footprint;
use crate::basis::units::dli_mol_m2_d;
use crate::day::measures::Measures;
use crate::day::standing::{Standing, burns, covered, let_through};
use crate::light::bay::BayField;
use crate::light::daylight::Sill;
use crate::light::falloff::Spread;
use crate::light::sill_days::SillDays;
use crate::light::surfaces::{let_down, reflectance};
use crate::room::Bay;
use crate::season::Reckoned;

/// The light of all bays, keeping what does not change from one date to the next.
#[derive(Debug)]
pub(super) struct CellLight<'a> {
    reckoned: &'a Reckoned<'a>,
    /// The fields of a bay over whatever its deck sends back, by its place and tier in the plan.
    fields: FxHashMap<(usize, usize), Vec<Rc<BayField>>>,
}

impl<'a> CellLight<'a> {
    pub(super) fn new(reckoned: &'a Reckoned<'a>) -> Self {
        Self {
            reckoned,
            fields: FxHashMap::default(),
        }
    }

    /// The light that the deck of `above`, where `there` stands, lets down; `None` when it is dark
    /// there or lets none through.
    pub(super) fn through_the_deck_above(
        &mut self,
        above: &Bay<'_>,
        there: &[Standing<'_>],
    ) -> Option<FromAbove> {
        if !burns(above, there) {
            return None;
        }
        let share = let_down(above, covered(above, there));
        (share > 0.0).then(|| FromAbove {
            exitance: share * self.field(above, there).mean_on_deck(),
            hours: above.tier.photoperiod_h,
        })
    }

    /// The field of a bay with what stands there.
    fn field(&mut self, bay: &Bay<'_>, standing: &[Standing<'_>]) -> Rc<BayField> {
        let cover = covered(bay, standing);
        let floor = reflectance(bay, cover).floor;
        let remembered = self.reckoned.fields;
        let known = self.fields.entry((bay.place_index, bay.tier_index));
        let known = known.or_default();
        if let Some(field) = known.iter().find(|field| field.floor() == floor) {
            return Rc::clone(field);
        }
        let field = Rc::new(match known.first() {
            Some(other) => other.covered(bay, cover),
            None => BayField::new(bay, cover, remembered),
        });
        known.push(Rc::clone(&field));
        field
    }

    /// The days of the year of `date` on the sill that `bay` is.
    fn sill_days(&self, bay: &Bay<'_>, date: Date) -> Option<Arc<SillDays>> {
        let sill = Sill::before(bay, &self.reckoned.plan.site)?;
        Some(self.reckoned.fields.sill_days(sill, date.year()))
    }

    /// The light on each part of each tray, tray by tray, with the lamps on for `hours`.
    pub(super) fn part_lights(
        &mut self,
        bay: &Bay<'_>,
        standing: &[Standing<'_>],
        (from_above, hours): (Option<FromAbove>, f64),
        date: Date,
    ) -> Vec<PartLight> {
        let days = self.sill_days(bay, date);
        let sill = days.as_ref().map(|days| days.on(date));
        if bay.tier.lamps.is_empty() && from_above.is_none() && sill.is_none() {
            return Vec::new();
        }
        let field = self.field(bay, standing);
        let mut lights = Vec::with_capacity(standing.len());
        for s in standing {
            let through = let_through(s);
            for part in &s.parts {
                let cells = field.cells(part.footprint, part.grid);
                let (mut ppfd, sent_back) = field.now(&cells, part.canopy_mm);
                ppfd.iter_mut().for_each(|ppfd| *ppfd *= through);
                let mut besides = vec![0.0; ppfd.len()];
                if let Some(above) = from_above {
                    let light = field.let_down(&cells, part.canopy_mm, above.exitance);
                    let daily = light.iter().map(|&ppfd| dli_mol_m2_d(ppfd, above.hours));
                    besides
                        .iter_mut()
                        .zip(daily)
                        .for_each(|(sum, dli)| *sum += dli * through);
                }
                let from_above = besides.iter().sum();
                let mut daylight = 0.0;
                if let Some(sill) = &sill {
                    let points = part.footprint.cells(part.grid.0, part.grid.1);
                    for (sum, at) in besides.iter_mut().zip(points) {
                        let dli = sill.mol_m2_d(at, part.canopy_mm) * through;
                        *sum += dli;
                        daylight += dli;
                    }
                }
                lights.push(PartLight {
                    daily: daily(&ppfd, hours, &besides),
                    field: Rc::clone(&field),
                    sums: Sums {
                        sent_back: sent_back * through,
                        from_above,
                        daylight,
                    },
                    ppfd,
                    besides,
                });
            }
        }
        lights
    }
}

/// The light that seedlings would get on a deck where nothing stands.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct EmptyLight {
    /// How high over the deck their leaves are taken to be.
    pub canopy_mm: f64,
    /// PPFD there while the lamps burn, in µmol/m²/s.
    pub ppfd: Measures,
    /// Daily light there with the lamps on for their hours, in mol/m²/d.
    pub dli: Measures,
    /// From those leaves to the lowest emitting face; `None` without lamps.
    pub gap_mm: Option<f64>,
}

impl CellLight<'_> {
    /// The light that `bay` would give on `date`, where nothing stands; `None` where there is none.
    pub(super) fn on_empty(&mut self, bay: &Bay<'_>, date: Date) -> Option<EmptyLight> {
        /// A low tray's rim, and young seedlings over it (our own estimate).
        const CANOPY_MM: f64 = 80.0;
        /// Cells along and across the deck: as fine as those of a tray.
        const GRID: (u32, u32) = (24, 12);
        let days = self.sill_days(bay, date);
        let sill = days.as_ref().map(|days| days.on(date));
        if bay.tier.lamps.is_empty() && sill.is_none() {
            return None;
        }
        let deck = Footprint {
            x_mm: [0.0, bay.place.width_mm],
            y_mm: [0.0, bay.place.depth_mm],
        };
        let field = self.field(bay, &[]);
        let (ppfd, _) = field.now(&field.cells(deck, GRID), CANOPY_MM);
        let hours = bay.tier.photoperiod_h;
        let daylight = |at| {
            sill.as_ref()
                .map_or(0.0, |sill| sill.mol_m2_d(at, CANOPY_MM))
        };
        let daily = deck.cells(GRID.0, GRID.1).into_iter().zip(&ppfd);
        let dli: Vec<f64> = daily
            .map(|(at, &ppfd)| dli_mol_m2_d(ppfd, hours) + daylight(at))
            .collect();
        Some(EmptyLight {
            canopy_mm: CANOPY_MM,
            ppfd: Spread::of(&ppfd).into(),
            dli: Spread::of(&dli).into(),
            gap_mm: (!bay.tier.lamps.is_empty()).then(|| bay.lowest_overhead_mm() - CANOPY_MM),
        })
    }
}

/// The light on a part of a tray, cell by cell.
pub(super) struct PartLight {
    pub(super) field: Rc<BayField>,
    /// PPFD of the bay's own lamps.
    pub(super) ppfd: Vec<f64>,
    /// Daily light with the lamps on for their hours, in mol/m²/d.
    pub(super) daily: Vec<f64>,
    /// What of it does not come from the bay's own lamps.
    pub(super) besides: Vec<f64>,
    pub(super) sums: Sums,
}

impl PartLight {
    /// Daily light with the lamps on for `hours`, in mol/m²/d.
    pub(super) fn daily_at(&self, hours: f64) -> Vec<f64> {
        daily(&self.ppfd, hours, &self.besides)
    }
}

fn daily(ppfd: &[f64], hours: f64, besides: &[f64]) -> Vec<f64> {
    let own = ppfd.iter().map(|&ppfd| dli_mol_m2_d(ppfd, hours));
    own.zip(besides)
        .map(|(own, besides)| own + besides)
        .collect()
}

/// Where the light of all cells together comes from.
#[derive(Debug, Clone, Copy, Default)]
pub(super) struct Sums {
    /// What of the PPFD walls and decks send back.
    pub(super) sent_back: f64,
    /// Daily light that falls through the deck above, in mol/m²/d.
    pub(super) from_above: f64,
    /// Daylight through the pane, in mol/m²/d.
    pub(super) daylight: f64,
}

/// Light that the deck above a bay lets down.
#[derive(Debug, Clone, Copy)]
pub(super) struct FromAbove {
    /// What each unit of the deck's underside sends out, in µmol/m²/s.
    exitance: f64,
    /// Hours that the lamps above burn.
    hours: f64,
}
