//! Gear for a whole place at once: as many lamps and mats as people own, spread over its tiers.

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::change::Equipment;
use crate::edit::editor::{Editor, Word, fault, kind_of};
use crate::room::{BayRef, LOWEST_FACE_MM, Lamp, Mat, Place, Tier};

/// The most lamps or mats that a place is given at once.
const MOST: u32 = 60;
/// One lamp lights a strip of a deck this deep (common practice, no source: two over a shelf of 46 cm,
/// three over one of 61 cm, since the edges get least).
const LAMP_REACH_MM: f64 = 230.0;

impl Editor {
    /// Gives the place called `id` its lamps and mats, in place of those that it has of that sort.
    pub(super) fn equip(&mut self, id: &str, with: &Equipment) -> Word {
        let index = self.place_index(id)?;
        let mut faults = Faults::default();
        let root = Pointer::default();
        for (name, n) in [
            ("lamps", with.lamps),
            ("mats", with.mats),
            ("thermostats", with.thermostats),
        ] {
            faults.number(
                &root.at(name),
                f64::from(n),
                0.0..=f64::from(MOST),
                Quantity::Count,
            );
        }
        faults.verdict()?;
        if let Some(kind) = &with.lamp {
            let lamp = kind_of(&self.kinds().lamps, |lamp| &lamp.id, kind)?.clone();
            self.spread_lamps(index, &lamp, with.lamps)?;
        }
        if let Some(kind) = &with.mat {
            let mat = kind_of(&self.kinds().mats, |mat| &mat.id, kind)?.clone();
            self.spread_mats(index, &mat, with.mats, with.thermostats)?;
        }
        let count = |of: fn(&Tier) -> usize| {
            let tiers = self.plan.places[index].tiers.iter();
            Quantity::Count.of(tiers.map(of).sum::<usize>() as f64)
        };
        Ok(say!(
            "gave {place} {lamps} lamps and {mats} heat mats",
            place = &self.plan.places[index].name,
            lamps = count(|tier| tier.lamps.len()),
            mats = count(|tier| tier.mats.len())
        ))
    }

    /// Hangs `count` lamps like `lamp`: full sets tier by tier, the lowest first, and what is left over
    /// one by one on the tiers after them.
    fn spread_lamps(&mut self, index: usize, lamp: &Lamp, count: u32) -> Result<(), Vec<Fault>> {
        let place = &self.plan.places[index];
        let tiers: Vec<usize> = in_use(place).collect();
        let fits =
            |tier: &&usize| place.clear_height_mm(**tier) - lamp.body_height_mm >= LOWEST_FACE_MM;
        let tall: Vec<usize> = tiers.iter().filter(fits).copied().collect();
        if tall.is_empty() && count > 0 {
            return Err(fault(
                "lamp",
                &lamp.id,
                say!(
                    "no shelf of {place} is high enough for {lamp}",
                    place = &place.name,
                    lamp = &lamp.name
                ),
                say!("take a flatter lamp"),
            ));
        }
        let set = ((place.depth_mm / lamp_depth_mm(lamp)).round() as u32).max(1);
        let places = tall.len() as u32;
        // More than full sets on all tiers: as evenly as it goes.
        let set = set.max(count.div_ceil(places.max(1)));
        let shares = (0..places).map(|i| count.saturating_sub(i * set).min(set));
        let shares: Vec<u32> = shares.collect();
        for tier in &mut self.plan.places[index].tiers {
            tier.lamps.clear();
        }
        for (&tier, n) in tall.iter().zip(shares) {
            self.hang_row(index, tier, lamp, n);
        }
        Ok(())
    }

    /// `n` lamps level and evenly over the depth of a deck.
    fn hang_row(&mut self, index: usize, tier: usize, lamp: &Lamp, n: u32) {
        let place = &self.plan.places[index];
        let (width_mm, depth_mm) = (place.width_mm, place.depth_mm);
        let highest_mm = place.clear_height_mm(tier) - lamp.body_height_mm;
        let lamps = (0..n).map(|i| Lamp {
            id: if i == 0 {
                "lamp".into()
            } else {
                format!("lamp-{}", i + 1)
            },
            x_mm: width_mm / 2.0,
            y_mm: depth_mm * (f64::from(i) + 0.5) / f64::from(n),
            height_mm: lamp.height_mm.clamp(LOWEST_FACE_MM, highest_mm),
            ..lamp.clone()
        });
        self.plan.places[index].tiers[tier].lamps = lamps.collect();
    }

    /// Lays `count` mats like `mat`, the lowest tier that has lamps first.
    fn spread_mats(
        &mut self,
        index: usize,
        mat: &Mat,
        count: u32,
        thermostats: u32,
    ) -> Result<(), Vec<Fault>> {
        let place = self.plan.places[index].clone();
        for tier in &mut self.plan.places[index].tiers {
            tier.mats.clear();
        }
        let mut left = count;
        for tier in in_use(&place) {
            let bay = BayRef {
                place: place.id.clone(),
                tier: place.tiers[tier].id.clone(),
            };
            while left > 0 && self.lay_mat([index, tier], &bay, mat.clone()).is_ok() {
                left -= 1;
            }
        }
        self.made.clear();
        if left > 0 {
            return Err(fault(
                "mats",
                count,
                say!(
                    "{place} has room for {n} of these mats",
                    place = &place.name,
                    n = Quantity::Count.of(f64::from(count - left))
                ),
                say!(
                    "lay the others elsewhere, or take smaller ones: mats must not overlap or fold"
                ),
            ));
        }
        const SET_C: f64 = 24.0;
        let tiers = self.plan.places[index].tiers.iter_mut();
        let mut given = 0;
        for tier in tiers {
            let mut lead: Option<String> = None;
            for mat in &mut tier.mats {
                // The first thermostat of a tier switches all mats there that have none of their own.
                if given < thermostats {
                    mat.thermostat_c = Some(SET_C);
                    lead.get_or_insert_with(|| mat.id.clone());
                    given += 1;
                } else if let Some(lead) = &lead {
                    mat.switched_with = Some(lead.clone());
                }
            }
        }
        Ok(())
    }

    /// Hangs and lays in each of `to` what hangs and lies in `from`, in place of what was there.
    pub(super) fn copy_gear(&mut self, from: &BayRef, to: &[BayRef]) -> Word {
        let [place, tier] = self.tier_at(from)?;
        let model = self.plan.places[place].tiers[tier].clone();
        let deck = [
            self.plan.places[place].width_mm,
            self.plan.places[place].depth_mm,
        ];
        self.some_things(&to.iter().map(|bay| bay.tier.clone()).collect::<Vec<_>>())?;
        for bay in to {
            let at = self.tier_at(bay)?;
            if bay == from {
                continue;
            }
            let place = &self.plan.places[at[0]];
            let clear_mm = place.clear_height_mm(at[1]);
            let tall = model
                .lamps
                .iter()
                .find(|lamp| clear_mm - lamp.body_height_mm < LOWEST_FACE_MM);
            if let Some(lamp) = tall {
                return Err(fault(
                    "to",
                    bay,
                    say!(
                        "{lamp} does not go into {bay}",
                        lamp = &lamp.name,
                        bay = self.bay_name(bay)
                    ),
                    say!("leave that shelf out"),
                ));
            }
            // On a deck of another size all keeps its share of width and depth.
            let (x, y) = (place.width_mm / deck[0], place.depth_mm / deck[1]);
            let tier = self.tier(at);
            tier.photoperiod_h = model.photoperiod_h;
            tier.lamps.clone_from(&model.lamps);
            tier.unplug();
            for lamp in &mut tier.lamps {
                (lamp.x_mm, lamp.y_mm) = (lamp.x_mm * x, lamp.y_mm * y);
                let highest_mm = clear_mm - lamp.body_height_mm;
                lamp.height_mm = lamp.height_mm.clamp(LOWEST_FACE_MM, highest_mm);
            }
            tier.mats.clear();
            tier.fans.clear();
            for mat in &model.mats {
                self.lay_mat(at, bay, mat.clone())?;
                // Whoever is switched with another names it.
                if let Some(laid) = self.tier(at).mats.last_mut() {
                    laid.id.clone_from(&mat.id);
                }
            }
            for fan in &model.fans {
                self.put_fan(at, bay, fan.clone());
            }
        }
        self.made.clear();
        Ok(say!(
            "copied the lamps, mats and fans of {bay} to {n} more shelves",
            bay = self.bay_name(from),
            n = Quantity::Count.of(to.iter().filter(|bay| *bay != from).count() as f64)
        ))
    }
}

/// The tiers of a place that trays stand on, from the lowest up.
fn in_use(place: &Place) -> impl Iterator<Item = usize> {
    let tiers = place.tiers.iter().enumerate();
    tiers.filter(|(_, tier)| !tier.storage).map(|(i, _)| i)
}

/// How deep a strip of deck one such lamp lights: its own depth, or [`LAMP_REACH_MM`].
fn lamp_depth_mm(lamp: &Lamp) -> f64 {
    let [_, y] = lamp.extent_mm();
    (y[1] - y[0]).max(LAMP_REACH_MM)
}
