//! Adding things, each where it goes.

use crate::basis::fault::Fault;
use crate::basis::ids::{free_id, free_name};
use crate::basis::plane::{Axis, Footprint};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::change::{GearList, Thing};
use crate::edit::editor::{Editor, Word, fault, kind_of, unknown, whole};
use crate::room::{BayRef, Faces, Fan, LOWEST_FACE_MM, Lamp, Mat, MixKind, Place, Spot, Tier};
use crate::space::packing::Size;
use crate::space::{floor, packing};

impl Editor {
    pub(super) fn add_place(&mut self, kind: &str) -> Word {
        let kinds = &self.kinds().places;
        let mut place = kind_of(kinds, |p| &p.id, kind)?.clone();
        self.name_place(&mut place);
        place.spot = self.free_spot(&place);
        let name = place.name.clone();
        self.made.push(whole(&place.id));
        self.plan.places.push(place);
        Ok(say!("added {place}", place = name))
    }

    /// Gives a place an identifier and a name that no other has.
    pub(super) fn name_place(&self, place: &mut Place) {
        let places = &self.plan.places;
        place.id = free_id(&place.id, places.iter().map(|p| &p.id));
        place.name = free_name(&place.name, places.iter().map(|p| &p.name));
    }

    /// A spot on the floor where `place` stands free of the others, with room before it if there
    /// is any; `None` for what does not stand in the room, and when the floor is full.
    pub(super) fn free_spot(&self, place: &Place) -> Option<Spot> {
        const STEP_MM: f64 = 50.0;
        if !place.is_furniture() {
            return None;
        }
        let room = &self.plan.room;
        let taken: Vec<floor::FloorArea> =
            self.plan.places.iter().filter_map(floor::outline).collect();
        let mut second_best = None;
        for faces in [Faces::Near, Faces::Right, Faces::Left, Faces::Far] {
            let [w, d, _] = place.outer_mm();
            let [w, d] = faces.front_along().lay(w, d);
            let steps = |side: f64| (side.max(-1.0) / STEP_MM).floor() as i64;
            for y in (0..=steps(room.depth_mm - d)).rev() {
                for x in 0..=steps(room.width_mm - w) {
                    let spot = Spot {
                        x_mm: x as f64 * STEP_MM,
                        y_mm: y as f64 * STEP_MM,
                        faces,
                    };
                    let stood = Place {
                        spot: Some(spot),
                        ..place.clone()
                    };
                    let area = floor::outline(&stood).expect("it has a spot");
                    if taken.iter().any(|other| area.overlap_mm(other) > 0.0) {
                        continue;
                    }
                    let free = floor::free_in_front_mm(&stood, room, &self.plan.places);
                    if free >= Some(floor::STANDING_ROOM_MM) {
                        return Some(spot);
                    }
                    second_best.get_or_insert(spot);
                }
            }
        }
        second_best
    }

    pub(super) fn add_tier(&mut self, place: &str) -> Word {
        let index = self.place_index(place)?;
        let tier = Tier {
            storage: false,
            liner: false,
            adjust: None,
            lamps: Vec::new(),
            mats: Vec::new(),
            fans: Vec::new(),
            ..self.plan.places[index].tiers[0].clone()
        };
        self.insert_tier(index, tier)?;
        Ok(say!(
            "added a shelf to {place}",
            place = &self.plan.places[index].name
        ))
    }

    /// Puts `tier` where the place has most room, with all that hangs in it.
    pub(super) fn insert_tier(&mut self, index: usize, mut tier: Tier) -> Result<(), Vec<Fault>> {
        let place = &self.plan.places[index];
        let need_mm = tier.needed_mm();
        let Some(height_mm) = free_deck_height(place, need_mm) else {
            return Err(fault(
                "place",
                &place.id,
                say!(
                    "{place} has no room for one more shelf of {need}",
                    place = &place.name,
                    need = Quantity::LengthMm.of(need_mm)
                ),
                say!("make the rack taller, or move its shelves together first"),
            ));
        };
        tier.deck_height_mm = height_mm;
        tier.id = free_id(&tier.id, place.tiers.iter().map(|t| &t.id));
        tier.name = free_name(&tier.name, place.tiers.iter().map(|t| &t.name));
        let at = place
            .tiers
            .partition_point(|other| other.deck_height_mm < height_mm);
        self.made.push(Thing {
            place: place.id.clone(),
            tier: Some(tier.id.clone()),
            gear: None,
        });
        self.plan.places[index].tiers.insert(at, tier);
        Ok(())
    }

    pub(super) fn add_lamp(&mut self, bay: &BayRef, kind: &str) -> Word {
        let at = self.tier_at(bay)?;
        let lamp = kind_of(&self.kinds().lamps, |l| &l.id, kind)?.clone();
        let name = lamp.name.clone();
        self.hang_lamp(at, bay, lamp)?;
        Ok(say!(
            "hung {lamp} in {bay}",
            lamp = name,
            bay = self.bay_name(bay)
        ))
    }

    /// Hangs `lamp` level with the others of the bay, in the widest gap between them.
    pub(super) fn hang_lamp(
        &mut self,
        at: [usize; 2],
        bay: &BayRef,
        mut lamp: Lamp,
    ) -> Result<(), Vec<Fault>> {
        let place = &self.plan.places[at[0]];
        let tier = &place.tiers[at[1]];
        let highest_mm = place.clear_height_mm(at[1]) - lamp.body_height_mm;
        if highest_mm < LOWEST_FACE_MM {
            return Err(fault(
                "kind",
                &lamp.id,
                say!(
                    "{lamp} is {body} high, too tall for a shelf with {clear} clear",
                    lamp = &lamp.name,
                    body = Quantity::LengthMm.of(lamp.body_height_mm),
                    clear = Quantity::LengthMm.of(place.clear_height_mm(at[1]))
                ),
                say!("take a flatter lamp or a taller shelf"),
            ));
        }
        let level_mm = tier.lamps.first().map_or(lamp.height_mm, |l| l.height_mm);
        lamp.height_mm = level_mm.clamp(LOWEST_FACE_MM, highest_mm);
        let [x, _] = lamp.extent_mm();
        if place.is_closed() && x[1] - x[0] > place.width_mm {
            // Between walls it may go in the other way round.
            lamp.along = match lamp.along {
                Axis::X => Axis::Y,
                Axis::Y => Axis::X,
            };
        }
        lamp.x_mm = place.width_mm / 2.0;
        lamp.y_mm = widest_gap_mm(place.depth_mm, tier.lamps.iter().map(|l| l.y_mm));
        lamp.plugged = None;
        lamp.id = free_id("lamp", tier.lamps.iter().map(|l| &l.id));
        self.made_gear(bay, GearList::Lamps, &lamp.id);
        self.tier(at).lamps.push(lamp);
        Ok(())
    }

    pub(super) fn add_mat(&mut self, bay: &BayRef, kind: &str) -> Word {
        let at = self.tier_at(bay)?;
        let mat = kind_of(&self.kinds().mats, |m| &m.id, kind)?.clone();
        let name = mat.name.clone();
        self.lay_mat(at, bay, mat)?;
        Ok(say!(
            "laid {mat} in {bay}",
            mat = name,
            bay = self.bay_name(bay)
        ))
    }

    /// Lays `mat` flat beside those that lie there.
    pub(super) fn lay_mat(
        &mut self,
        at: [usize; 2],
        bay: &BayRef,
        mut mat: Mat,
    ) -> Result<(), Vec<Fault>> {
        let place = &self.plan.places[at[0]];
        let tier = &place.tiers[at[1]];
        let taken: Vec<_> = tier
            .mats
            .iter()
            .map(|m| {
                let [x, y] = m.size_mm();
                Footprint {
                    x_mm: [m.x_mm, m.x_mm + x],
                    y_mm: [m.y_mm, m.y_mm + y],
                }
            })
            .collect();
        let size = Size {
            length_mm: mat.length_mm,
            width_mm: mat.width_mm,
            most: Some(1),
        };
        let deck = [place.width_mm, place.depth_mm];
        let Some(spot) = packing::beside(deck, &taken, &[size]).laid.first().copied() else {
            return Err(fault(
                "kind",
                &mat.id,
                say!(
                    "there is no room for {mat} on a shelf of {width} by {depth}",
                    mat = &mat.name,
                    width = Quantity::LengthMm.of(place.width_mm),
                    depth = Quantity::LengthMm.of(place.depth_mm)
                ),
                say!("take a smaller mat, or take one out first: mats must not overlap or fold"),
            ));
        };
        (mat.x_mm, mat.y_mm, mat.along) = (spot.x_mm, spot.y_mm, spot.along);
        mat.plugged = None;
        mat.id = free_id("mat", tier.mats.iter().map(|m| &m.id));
        self.made_gear(bay, GearList::Mats, &mat.id);
        self.tier(at).mats.push(mat);
        Ok(())
    }

    pub(super) fn add_fan(&mut self, bay: &BayRef, kind: &str) -> Word {
        let at = self.tier_at(bay)?;
        let fan = kind_of(&self.kinds().fans, |f| &f.id, kind)?.clone();
        let name = fan.name.clone();
        self.put_fan(at, bay, fan);
        Ok(say!(
            "put {fan} into {bay}",
            fan = name,
            bay = self.bay_name(bay)
        ))
    }

    /// Puts `fan` at an end of the bay, halfway up if it must be.
    pub(super) fn put_fan(&mut self, at: [usize; 2], bay: &BayRef, mut fan: Fan) {
        let place = &self.plan.places[at[0]];
        let tier = &place.tiers[at[1]];
        let half = fan.diameter_mm / 2.0;
        let clear_mm = place.clear_height_mm(at[1]);
        fan.x_mm = if tier.fans.len().is_multiple_of(2) {
            half
        } else {
            place.width_mm - half
        };
        fan.y_mm = place.depth_mm / 2.0;
        fan.height_mm = fan.height_mm.min(clear_mm - half).max(half);
        fan.plugged = None;
        fan.by_turns.clear();
        fan.id = free_id("fan", tier.fans.iter().map(|f| &f.id));
        self.made_gear(bay, GearList::Fans, &fan.id);
        self.tier(at).fans.push(fan);
    }

    pub(super) fn add_format(&mut self, kind: &str) -> Word {
        let mut format = kind_of(&self.kinds().containers, |c| &c.id, kind)?.clone();
        let formats = &self.plan.tray_formats;
        format.id = free_id(&format.id, formats.iter().map(|f| &f.id));
        format.name = free_name(&format.name, formats.iter().map(|f| &f.name));
        let name = format.name.clone();
        self.plan.tray_formats.push(format);
        Ok(say!("took in {format}", format = name))
    }

    pub(super) fn fill_with(&mut self, format: &str, mix: MixKind) -> Word {
        let formats = &mut self.plan.tray_formats;
        let Some(own) = formats.iter_mut().find(|own| own.id == format) else {
            let known: Vec<String> = formats.iter().map(|own| own.id.clone()).collect();
            return Err(unknown("format", format, known));
        };
        *own = own.clone().filled_with(mix);
        let what = match mix {
            MixKind::Peat => "a peat mix",
            MixKind::Coir => "coir",
            MixKind::Bark => "composted bark",
            MixKind::Compost => "compost",
        };
        Ok(say!(
            "filled {format} with {what}",
            format = &own.name,
            what = what
        ))
    }
}

/// A height for one more deck with `need_mm` over it: in the bay that leaves most, in its middle
/// if what hangs there allows.
fn free_deck_height(place: &Place, need_mm: f64) -> Option<f64> {
    if !place.takes_more_decks() {
        return None;
    }
    let thickness = place.deck.thickness_mm;
    let within = place.tiers.iter().enumerate().filter_map(|(i, tier)| {
        let floor = tier.deck_height_mm;
        let ceiling = floor + place.clear_height_mm(i);
        let lowest = floor + tier.needed_mm() + thickness;
        let highest = ceiling - need_mm;
        let pitch = place.pitch_mm().unwrap_or(1.0);
        let up = |mm: f64| (mm / pitch - 1e-9).ceil() * pitch;
        let wanted = up(((floor + ceiling) / 2.0).max(lowest));
        let height = if wanted <= highest {
            wanted
        } else {
            up(lowest)
        };
        (height <= highest + 1e-9).then_some((ceiling - height, height))
    });
    // Under the lowest tier too, if its deck stands high: a bench has room beneath.
    let below = place.tiers.first().and_then(|tier| {
        let highest = tier.deck_height_mm - thickness - need_mm;
        let height = place.snapped_mm(100.0_f64.min(highest));
        (height >= 0.0 && height <= highest).then_some((highest - height + need_mm, height))
    });
    within
        .chain(below)
        .max_by(|a, b| a.0.total_cmp(&b.0))
        .map(|(_, height)| height)
}

/// The middle of the widest gap that things at `taken` leave from 0 to `side_mm`.
fn widest_gap_mm(side_mm: f64, taken: impl Iterator<Item = f64>) -> f64 {
    let mut edges: Vec<f64> = taken.map(|at| at.clamp(0.0, side_mm)).collect();
    if edges.is_empty() {
        return side_mm / 2.0;
    }
    edges.push(0.0);
    edges.push(side_mm);
    edges.sort_by(f64::total_cmp);
    let widest = edges
        .windows(2)
        .max_by(|a, b| (a[1] - a[0]).total_cmp(&(b[1] - b[0])))
        .expect("there are two edges");
    f64::midpoint(widest[0], widest[1])
}
