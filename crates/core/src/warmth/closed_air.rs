//! The closed air that trays share, by who stands in it.

use crate::room::Place;
use crate::site::Site;
use crate::site::air::Air;
use crate::warmth::chamber::{ChamberDay, ChamberSetUp, ShelfDay};
use crate::warmth::closed_space::{ClosedSpace, Inside};
use crate::warmth::mat::mat_under;
use crate::warmth::occupant::Occupant;
use crate::warmth::tray::TrayHere;

/// Closed air with those who stand in it.
#[derive(Debug, Clone, PartialEq)]
pub struct Closed {
    /// The index of its lowest tier in the place.
    pub first_tier: usize,
    /// What was reckoned.
    pub set_up: ChamberSetUp,
    /// Its day.
    pub day: ChamberDay,
}

/// What a tier has of closed air.
#[derive(Debug, Clone, Copy)]
pub struct InClosed<'a> {
    /// The air over its shelf.
    pub shelf: Option<&'a ShelfDay>,
    /// The share of the day for which a thermostat in the air has the mats on; `None` where none hangs
    /// there.
    pub duty: Option<f64>,
}

impl<'a> InClosed<'a> {
    /// What tier `index` of a place has of closed air whose lowest tier is `first_tier`.
    pub fn of(set_up: &ChamberSetUp, day: &'a ChamberDay, first_tier: usize, index: usize) -> Self {
        let shelf = index.checked_sub(first_tier);
        Self {
            shelf: shelf.and_then(|shelf| day.shelves.get(shelf)),
            duty: set_up.thermostat.map(|_| day.duty),
        }
    }
}

impl Inside {
    /// What goes on among the tiers of `space` with `occupants` on each tier of its place.
    pub fn of(space: &ClosedSpace<'_>, occupants: &[Vec<Occupant<'_>>], around: Air) -> Self {
        let here = &occupants[space.tiers()];
        let all = || here.iter().flatten();
        Self {
            lit: here
                .iter()
                .map(|on| on.iter().any(|s| s.wants_lamps))
                .collect(),
            heat: f64::from(u8::from(all().any(|s| s.coming_up))),
            grown: all().any(|s| s.up),
            wet_kg: all().map(|s| s.format.wet_kg).sum(),
            wet_m2: all().map(Occupant::wet_m2).sum(),
            around,
        }
    }
}

impl Closed {
    /// The air that tier `index` of `place` is in, with `occupants` on each tier of the place and the air
    /// `around` that; `None` in the open.
    pub fn around(
        site: &Site,
        place: &Place,
        index: usize,
        occupants: &[Vec<Occupant<'_>>],
        around: Air,
    ) -> Option<Self> {
        let space = ClosedSpace::around(place, index)?;
        let inside = Inside::of(&space, occupants, around);
        Self::with(site, place, &space, &inside, occupants)
    }

    /// The same for seedlings that grow on tier `index`, whoever else stands there.
    pub fn that_grows(
        site: &Site,
        place: &Place,
        index: usize,
        occupants: &[Vec<Occupant<'_>>],
        around: Air,
    ) -> Option<Self> {
        let space = ClosedSpace::around(place, index)?;
        let mut inside = Inside::of(&space, occupants, around);
        inside.grown = true;
        inside.lit[index - space.tiers().start] = true;
        Self::with(site, place, &space, &inside, occupants)
    }

    fn with(
        site: &Site,
        place: &Place,
        space: &ClosedSpace<'_>,
        inside: &Inside,
        occupants: &[Vec<Occupant<'_>>],
    ) -> Option<Self> {
        // The mix of the first tray on a mat holds the probe of what no thermostat in the air switches.
        let on_mat = space.tiers().find_map(|tier| {
            let coming_up = |s: &&Occupant<'_>| s.coming_up;
            occupants[tier].iter().filter(coming_up).find_map(|s| {
                let tray = TrayHere {
                    format: s.format,
                    mat: Some(mat_under(&place.tiers[tier], &s.footprint)?),
                    free_sides: 1.0,
                    domed: s.domed,
                    ppfd: 0.0,
                    leaves: 0.0,
                };
                Some((tier, tray))
            })
        });
        let (set_up, day) = space.day(site, inside, on_mat)?;
        Some(Self {
            first_tier: space.tiers().start,
            set_up,
            day,
        })
    }

    /// What tier `index` of its place has of it.
    pub fn on_tier(&self, index: usize) -> InClosed<'_> {
        InClosed::of(&self.set_up, &self.day, self.first_tier, index)
    }
}
