//! What the trays of one bay lie in together: who keeps whose sides warm, which mats are plugged in, and
//! whose mix holds the probe. Dates, sheets, comparisons and lessons reckon root zones here.

use crate::room::{Mat, Place, Tier};
use crate::site::air::Air;
use crate::warmth::closed_air::InClosed;
use crate::warmth::mat::{cover, mat_under};
use crate::warmth::occupant::Occupant;
use crate::warmth::root_zone::{RootZone, RootZoneDay};
use crate::warmth::tray::{TrayHere, root_zone, zone_day};

/// Trays with less than this between them keep one another's sides warm.
const SIDE_BY_SIDE_MM: f64 = 25.0;

/// The share of the sides of `own` that none of `all` stands against.
pub fn free_sides(own: &Occupant<'_>, all: &[Occupant<'_>]) -> f64 {
    let f = &own.footprint;
    let (w, d) = (f.x_mm[1] - f.x_mm[0], f.y_mm[1] - f.y_mm[0]);
    let along = |a: [f64; 2], b: [f64; 2]| (a[1].min(b[1]) - a[0].max(b[0])).max(0.0);
    let beside = |near: f64, far: f64| (near - far).abs() < SIDE_BY_SIDE_MM;
    let mut against = 0.0;
    for other in all.iter().filter(|s| s.tray != own.tray) {
        let g = &other.footprint;
        if beside(f.x_mm[0], g.x_mm[1]) || beside(f.x_mm[1], g.x_mm[0]) {
            against += along(f.y_mm, g.y_mm);
        }
        if beside(f.y_mm[0], g.y_mm[1]) || beside(f.y_mm[1], g.y_mm[0]) {
            against += along(f.x_mm, g.x_mm);
        }
    }
    (1.0 - against / (2.0 * (w + d))).clamp(0.0, 1.0)
}

/// What grows in a tray that is up, where somebody has reckoned it.
#[derive(Debug, Clone, Copy)]
pub struct Grown {
    /// PPFD on it while the lamps burn, in µmol/m²/s.
    pub ppfd: f64,
    /// The share of it that leaves cover.
    pub leaves: f64,
}

/// Leaves count in steps of a tenth of a tray.
const LEAF_STEP: f64 = 0.1;
/// Light counts in steps of this many µmol/m²/s: it warms by a hundredth of a degree for each.
const LIGHT_STEP: f64 = 25.0;

/// A bay and what stands in it.
///
/// One mat under several trays has one probe: it is in the tray that the mat lies most under, the
/// first of like ones, and the others get what that one asks for.
#[derive(Debug, Clone, Copy)]
pub struct Bed<'a> {
    /// The air around its place.
    pub around: &'a Air,
    /// The place.
    pub place: &'a Place,
    /// The tier.
    pub tier_index: usize,
    /// What stands there, in the plan's order.
    pub occupants: &'a [Occupant<'a>],
    /// PPFD on its deck while its lamps burn, in µmol/m²/s; 0 where they do not.
    pub deck_ppfd: f64,
    /// The closed air that it is in.
    pub closed: Option<InClosed<'a>>,
}

impl<'a> Bed<'a> {
    fn tier(&self) -> &'a Tier {
        &self.place.tiers[self.tier_index]
    }

    /// Whether `mat` is plugged in: something on it germinates. Seedlings that are up need none
    /// (common practice, no source), but may have it left on.
    fn plugged_in(&self, mat: &Mat) -> bool {
        let warmed = |s: &Occupant<'_>| s.coming_up || self.tier().mats_growing && s.up;
        let on_it = |s: &&Occupant<'_>| cover(mat, &s.footprint) > 0.0;
        self.occupants.iter().filter(on_it).any(warmed)
    }

    /// The mats that are plugged in, by their index, each with the share of the day that it is on.
    pub fn mats_on(&self) -> Vec<(usize, f64)> {
        let mats = self.tier().mats.iter().enumerate();
        let duties = mats.filter_map(|(i, mat)| Some((i, self.duty(mat)?)));
        duties.filter(|(_, duty)| *duty > 0.0).collect()
    }

    /// The mat under tray `i` that is plugged in, and the share of the tray that it lies under.
    pub fn mat(&self, i: usize) -> Option<(&'a Mat, f64)> {
        let under = mat_under(self.tier(), &self.occupants[i].footprint);
        under.filter(|(mat, _)| self.plugged_in(mat))
    }

    /// The tray that holds the probe of the thermostat that switches `mat`: on the mat that it is sold
    /// with, as long as something stands there.
    fn with_probe(&self, mat: &Mat) -> Option<usize> {
        let warms = |lead: &&Mat| self.plugged_in(lead);
        let mat = self.tier().lead_of(mat).filter(warms).unwrap_or(mat);
        let cover = |i: usize| cover(mat, &self.occupants[i].footprint);
        (0..self.occupants.len()).reduce(|best, i| {
            const MORE: f64 = 0.01;
            if cover(i) > cover(best) + MORE {
                i
            } else {
                best
            }
        })
    }

    /// The share of the day that `mat` is on; `None` while it is not plugged in.
    fn duty(&self, mat: &Mat) -> Option<f64> {
        if let Some(duty) = self.switched_in_air() {
            // A chamber's thermostat switches all its mats, whichever shelf germinates.
            return Some(duty);
        }
        if !self.plugged_in(mat) {
            return None;
        }
        if mat.thermostat_c.is_none() {
            return Some(1.0);
        }
        Some(zone_day(self.by_its_own_probe(self.with_probe(mat)?, None))?.duty)
    }

    /// The share of the day for which a thermostat in closed air has the mats on.
    fn switched_in_air(&self) -> Option<f64> {
        self.closed.and_then(|closed| closed.duty)
    }

    fn by_its_own_probe(&self, i: usize, grown: Option<Grown>) -> RootZone {
        let own = &self.occupants[i];
        let grown = grown.filter(|_| !own.coming_up);
        let ppfd = match grown {
            Some(grown) => grown.ppfd,
            None if own.covered => 0.0,
            None => self.deck_ppfd,
        };
        let leaves = grown.map_or(own.leaves(), |grown| grown.leaves);
        let tray = TrayHere {
            format: own.format,
            mat: self.mat(i),
            free_sides: free_sides(own, self.occupants),
            domed: own.domed,
            ppfd: in_steps(ppfd),
            leaves: (leaves / LEAF_STEP).round() * LEAF_STEP,
        };
        let shelf = self.closed.and_then(|closed| closed.shelf);
        root_zone(self.around, self.place, self.tier_index, tray, shelf)
    }

    /// The root zone of tray `i`, in which so much has `grown` once it is up.
    pub fn zone(&self, i: usize, grown: Option<Grown>) -> Option<RootZone> {
        let zone = self.by_its_own_probe(i, grown);
        let (Some((mat, _)), Some(_)) = (self.mat(i), zone.thermostat) else {
            return Some(zone);
        };
        if let Some(duty) = self.switched_in_air() {
            return Some(zone.switched_elsewhere(duty));
        }
        match self.with_probe(mat).filter(|&holder| holder != i) {
            Some(holder) => {
                let duty = zone_day(self.by_its_own_probe(holder, None))?.duty;
                Some(zone.switched_elsewhere(duty))
            }
            None => Some(zone),
        }
    }

    /// Its day; `None` where the plan's figures are none that physics allows.
    pub fn day(&self, i: usize, grown: Option<Grown>) -> Option<RootZoneDay> {
        zone_day(self.zone(i, grown)?)
    }
}

/// Light that warms, as coarse as warmth minds.
pub fn in_steps(ppfd: f64) -> f64 {
    (ppfd / LIGHT_STEP).round() * LIGHT_STEP
}
