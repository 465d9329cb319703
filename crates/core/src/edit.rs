//! Edits that change the plan's form: adding, copying, moving and removing what the room holds.
//! Each gives a new document; the one it began with is left as it was.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::fault::{Fault, Faults, Pointer};
use crate::kinds;
use crate::packing::{self, Size};
use crate::placement;
use crate::plan::{Plan, SoundPlan, Stage, Stand};
use crate::room::{Axis, BayRef, Kind, LOWEST_FACE_MM, Lamp, Place, Spot, Tier, find_bay};
use crate::say;
use crate::season::{self, TrayDates};
use crate::space;
use crate::units::Quantity;
use crate::words::Statement;

/// What to do with the plan's form.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Edit {
    /// Adds a place of a generic kind at the right.
    AddPlace {
        /// The kind, as the shelf of kinds names it.
        kind: String,
    },
    /// Adds a tier where the place has most room for one.
    AddTier {
        /// The place.
        place: String,
    },
    /// Hangs a lamp of a generic kind in a bay.
    AddLamp {
        /// The bay.
        bay: BayRef,
        /// The kind.
        kind: String,
    },
    /// Lays a heat mat of a generic kind on a deck.
    AddMat {
        /// The bay.
        bay: BayRef,
        /// The kind.
        kind: String,
    },
    /// Puts a fan of a generic kind into a bay.
    AddFan {
        /// The bay.
        bay: BayRef,
        /// The kind.
        kind: String,
    },
    /// Takes a generic container into the plan's own formats.
    AddFormat {
        /// The kind.
        kind: String,
    },
    /// The same again: copies places, tiers and gear, without the trays.
    Again {
        /// What to copy.
        things: Vec<Thing>,
    },
    /// Takes things out of the plan. Trays that stood there stay in the plan without a spot.
    Remove {
        /// What to take out.
        things: Vec<Thing>,
    },
    /// Moves a place along the row.
    MovePlace {
        /// The place.
        place: String,
        /// Its new index, from the left.
        to: usize,
    },
    /// Finds a tray a spot in another bay, from a stage on.
    MoveTray {
        /// The tray.
        tray: String,
        /// From this stage on.
        stage: Stage,
        /// The bay to stand in.
        bay: BayRef,
    },
}

/// Something in the room that can be picked.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Thing {
    /// The place it is, or is in.
    pub place: String,
    /// The tier it is, or is in; left out for a whole place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tier: Option<String>,
    /// The lamp, mat or fan it is; left out for a tier or a place.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gear: Option<GearRef>,
}

/// Names a lamp, mat or fan within its tier.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GearRef {
    /// Which list it stands in.
    pub list: GearList,
    /// Its identifier there.
    pub id: String,
}

/// The lists of gear that a tier has.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GearList {
    /// Its lamps.
    Lamps,
    /// Its heat mats.
    Mats,
    /// Its fans.
    Fans,
}

/// A plan after an edit.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Edited {
    /// The new document.
    pub plan: Plan,
    /// What was done, for the history.
    pub word: Statement,
    /// What the edit made, to be picked next.
    pub made: Vec<Thing>,
}

/// The plan that `edit` makes of `plan`.
///
/// # Errors
/// What the edit names and the plan lacks, by its path within the edit; or no room for what it
/// adds.
pub fn apply(plan: &SoundPlan, edit: &Edit) -> Result<Edited, Vec<Fault>> {
    let mut editor = Editor {
        plan: (**plan).clone(),
        made: Vec::new(),
    };
    let word = match edit {
        Edit::AddPlace { kind } => editor.add_place(kind),
        Edit::AddTier { place } => editor.add_tier(place),
        Edit::AddLamp { bay, kind } => editor.add_lamp(bay, kind),
        Edit::AddMat { bay, kind } => editor.add_mat(bay, kind),
        Edit::AddFan { bay, kind } => editor.add_fan(bay, kind),
        Edit::AddFormat { kind } => editor.add_format(kind),
        Edit::Again { things } => editor.again(things),
        Edit::Remove { things } => editor.remove(things),
        Edit::MovePlace { place, to } => editor.move_place(place, *to),
        Edit::MoveTray { tray, stage, bay } => editor.move_tray(plan, tray, *stage, bay),
    }?;
    let Editor { plan, made } = editor;
    let plan = plan.check()?.into_inner();
    Ok(Edited { plan, word, made })
}

type Word = Result<Statement, Vec<Fault>>;

struct Editor {
    plan: Plan,
    made: Vec<Thing>,
}

fn fault(field: &str, value: impl Serialize, problem: Statement, remedy: Statement) -> Vec<Fault> {
    let mut faults = Faults::default();
    faults.add(&Pointer::default().at(field), value, problem, remedy);
    faults.verdict().expect_err("a fault was added")
}

fn unknown(field: &str, id: &str, known: impl IntoIterator<Item = String>) -> Vec<Fault> {
    let mut faults = Faults::default();
    faults.unknown(&Pointer::default().at(field), id, known);
    faults.verdict().expect_err("a fault was added")
}

/// The kind called `id` on one list of the shelf.
fn kind_of<'a, T>(list: &'a [T], id_of: fn(&T) -> &String, id: &str) -> Result<&'a T, Vec<Fault>> {
    list.iter()
        .find(|kind| id_of(kind) == id)
        .ok_or_else(|| unknown("kind", id, list.iter().map(|kind| id_of(kind).clone())))
}

/// `id`, with a number behind it when it is taken already.
fn free_id<'a>(id: &str, taken: impl Iterator<Item = &'a String> + Clone) -> String {
    // A copy of a copy counts on from the first.
    let base = match id.rsplit_once('-') {
        Some((base, n)) if !base.is_empty() && n.parse::<u32>().is_ok() => base,
        _ => id,
    };
    let base: String = base.chars().take(34).collect();
    let is_taken = |id: &str| taken.clone().any(|other| other == id);
    if !is_taken(id) {
        return id.to_owned();
    }
    (2..)
        .map(|n| format!("{base}-{n}"))
        .find(|id| !is_taken(id))
        .expect("a plan's lists are short")
}

/// `name`, with a number behind it when it is taken already.
fn free_name<'a>(name: &str, taken: impl Iterator<Item = &'a String> + Clone) -> String {
    let base = match name.rsplit_once(' ') {
        Some((base, n)) if n.parse::<u32>().is_ok() => base,
        _ => name,
    };
    let base: String = base.chars().take(110).collect();
    let is_taken = |name: &str| taken.clone().any(|other| other == name);
    if !is_taken(name) {
        return name.to_owned();
    }
    (2..)
        .map(|n| format!("{base} {n}"))
        .find(|name| !is_taken(name))
        .expect("a plan's lists are short")
}

impl Editor {
    fn place_index(&self, id: &str) -> Result<usize, Vec<Fault>> {
        let places = &self.plan.places;
        places
            .iter()
            .position(|place| place.id == id)
            .ok_or_else(|| unknown("place", id, places.iter().map(|p| p.id.clone())))
    }

    fn tier_at(&self, bay: &BayRef) -> Result<[usize; 2], Vec<Fault>> {
        let place = self.place_index(&bay.place)?;
        let tiers = &self.plan.places[place].tiers;
        let tier = tiers
            .iter()
            .position(|tier| tier.id == bay.tier)
            .ok_or_else(|| unknown("tier", &bay.tier, tiers.iter().map(|t| t.id.clone())))?;
        Ok([place, tier])
    }

    fn tier(&mut self, [place, tier]: [usize; 2]) -> &mut Tier {
        &mut self.plan.places[place].tiers[tier]
    }

    fn bay_name(&self, bay: &BayRef) -> String {
        find_bay(&self.plan.places, bay).map_or_else(String::new, |bay| bay.name())
    }

    fn made_gear(&mut self, bay: &BayRef, list: GearList, id: &str) {
        self.made.push(Thing {
            place: bay.place.clone(),
            tier: Some(bay.tier.clone()),
            gear: Some(GearRef {
                list,
                id: id.to_owned(),
            }),
        });
    }

    fn add_place(&mut self, kind: &str) -> Word {
        let kinds = &kinds::library().places;
        let mut place = kind_of(kinds, |p| &p.id, kind)?.clone();
        self.name_place(&mut place);
        place.spot = self.free_spot(&place);
        let name = place.name.clone();
        self.made.push(whole(&place.id));
        self.plan.places.push(place);
        Ok(say!("added {place}", place = name))
    }

    /// Gives a place an identifier and a name that no other has.
    fn name_place(&self, place: &mut Place) {
        let places = &self.plan.places;
        place.id = free_id(&place.id, places.iter().map(|p| &p.id));
        place.name = free_name(&place.name, places.iter().map(|p| &p.name));
    }

    /// A spot on the floor where `place` stands free of the others, with room before it if there
    /// is any; `None` for what does not stand in the room, and when the floor is full.
    fn free_spot(&self, place: &Place) -> Option<Spot> {
        use crate::room::Faces;
        const STEP_MM: f64 = 50.0;
        if !place.is_furniture() {
            return None;
        }
        let room = &self.plan.room;
        let taken: Vec<space::FloorArea> =
            self.plan.places.iter().filter_map(space::outline).collect();
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
                    let area = space::outline(&stood).expect("it has a spot");
                    if taken.iter().any(|other| area.overlap_mm(other) > 0.0) {
                        continue;
                    }
                    let free = space::free_in_front_mm(&stood, room, &self.plan.places);
                    if free >= Some(space::STANDING_ROOM_MM) {
                        return Some(spot);
                    }
                    second_best.get_or_insert(spot);
                }
            }
        }
        second_best
    }

    fn add_tier(&mut self, place: &str) -> Word {
        let index = self.place_index(place)?;
        let tier = Tier {
            storage: false,
            liner: false,
            lamps: Vec::new(),
            mats: Vec::new(),
            fans: Vec::new(),
            ..self.plan.places[index].tiers[0].clone()
        };
        self.insert_tier(index, tier)?;
        Ok(say!(
            "added a tier to {place}",
            place = &self.plan.places[index].name
        ))
    }

    /// Puts `tier` where the place has most room, with all that hangs in it.
    fn insert_tier(&mut self, index: usize, mut tier: Tier) -> Result<(), Vec<Fault>> {
        let place = &self.plan.places[index];
        let need_mm = tier.needed_mm();
        let Some(height_mm) = free_deck_height(place, need_mm) else {
            return Err(fault(
                "place",
                &place.id,
                say!(
                    "{place} has no room for one more tier of {need}",
                    place = &place.name,
                    need = Quantity::LengthMm.of(need_mm)
                ),
                say!("make it taller, or move its tiers together first"),
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

    fn add_lamp(&mut self, bay: &BayRef, kind: &str) -> Word {
        let at = self.tier_at(bay)?;
        let lamp = kind_of(&kinds::library().lamps, |l| &l.id, kind)?.clone();
        let name = lamp.name.clone();
        self.hang_lamp(at, bay, lamp)?;
        Ok(say!(
            "hung {lamp} in {bay}",
            lamp = name,
            bay = self.bay_name(bay)
        ))
    }

    /// Hangs `lamp` level with the others of the bay, in the widest gap between them.
    fn hang_lamp(
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
                    "{lamp} is {body} high and does not go into a bay of {clear}",
                    lamp = &lamp.name,
                    body = Quantity::LengthMm.of(lamp.body_height_mm),
                    clear = Quantity::LengthMm.of(place.clear_height_mm(at[1]))
                ),
                say!("take a flatter lamp or a taller bay"),
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
        lamp.id = free_id("lamp", tier.lamps.iter().map(|l| &l.id));
        self.made_gear(bay, GearList::Lamps, &lamp.id);
        self.tier(at).lamps.push(lamp);
        Ok(())
    }

    fn add_mat(&mut self, bay: &BayRef, kind: &str) -> Word {
        let at = self.tier_at(bay)?;
        let mat = kind_of(&kinds::library().mats, |m| &m.id, kind)?.clone();
        let name = mat.name.clone();
        self.lay_mat(at, bay, mat)?;
        Ok(say!(
            "laid {mat} in {bay}",
            mat = name,
            bay = self.bay_name(bay)
        ))
    }

    /// Lays `mat` flat beside those that lie there.
    fn lay_mat(
        &mut self,
        at: [usize; 2],
        bay: &BayRef,
        mut mat: crate::room::Mat,
    ) -> Result<(), Vec<Fault>> {
        let place = &self.plan.places[at[0]];
        let tier = &place.tiers[at[1]];
        let taken: Vec<_> = tier
            .mats
            .iter()
            .map(|m| {
                let [x, y] = m.size_mm();
                crate::light::bay::Footprint {
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
                    "{mat} finds no free spot on a deck of {width} by {depth}",
                    mat = &mat.name,
                    width = Quantity::LengthMm.of(place.width_mm),
                    depth = Quantity::LengthMm.of(place.depth_mm)
                ),
                say!("take a smaller mat, or take one out first: mats must not overlap or fold"),
            ));
        };
        (mat.x_mm, mat.y_mm, mat.along) = (spot.x_mm, spot.y_mm, spot.along);
        mat.id = free_id("mat", tier.mats.iter().map(|m| &m.id));
        self.made_gear(bay, GearList::Mats, &mat.id);
        self.tier(at).mats.push(mat);
        Ok(())
    }

    fn add_fan(&mut self, bay: &BayRef, kind: &str) -> Word {
        let at = self.tier_at(bay)?;
        let fan = kind_of(&kinds::library().fans, |f| &f.id, kind)?.clone();
        let name = fan.name.clone();
        self.put_fan(at, bay, fan);
        Ok(say!(
            "put {fan} into {bay}",
            fan = name,
            bay = self.bay_name(bay)
        ))
    }

    /// Puts `fan` at an end of the bay, halfway up if it must be.
    fn put_fan(&mut self, at: [usize; 2], bay: &BayRef, mut fan: crate::room::Fan) {
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
        fan.id = free_id("fan", tier.fans.iter().map(|f| &f.id));
        self.made_gear(bay, GearList::Fans, &fan.id);
        self.tier(at).fans.push(fan);
    }

    fn add_format(&mut self, kind: &str) -> Word {
        let mut format = kind_of(&kinds::library().containers, |c| &c.id, kind)?.clone();
        let formats = &self.plan.tray_formats;
        format.id = free_id(&format.id, formats.iter().map(|f| &f.id));
        format.name = free_name(&format.name, formats.iter().map(|f| &f.name));
        let name = format.name.clone();
        self.plan.tray_formats.push(format);
        Ok(say!("took in {format}", format = name))
    }

    fn again(&mut self, things: &[Thing]) -> Word {
        let mut names = Vec::new();
        for thing in things {
            let index = self.place_index(&thing.place)?;
            let Some(tier) = &thing.tier else {
                names.push(self.place_again(index));
                continue;
            };
            let bay = BayRef {
                place: thing.place.clone(),
                tier: tier.clone(),
            };
            let at = self.tier_at(&bay)?;
            let tier = self.plan.places[at[0]].tiers[at[1]].clone();
            match &thing.gear {
                None => {
                    names.push(self.bay_name(&bay));
                    self.insert_tier(index, tier)?;
                }
                Some(gear) => names.push(self.gear_again(at, &bay, &tier, gear)?),
            }
        }
        self.some_things(&names)?;
        Ok(say!("the same again: {names}", names = listed(&names)))
    }

    fn place_again(&mut self, index: usize) -> String {
        let original = self.plan.places[index].name.clone();
        let mut place = self.plan.places[index].clone();
        self.name_place(&mut place);
        if place.spot.is_some() {
            place.spot = self.free_spot(&place);
        }
        self.made.push(whole(&place.id));
        self.plan.places.insert(index + 1, place);
        original
    }

    fn gear_again(
        &mut self,
        at: [usize; 2],
        bay: &BayRef,
        tier: &Tier,
        gear: &GearRef,
    ) -> Result<String, Vec<Fault>> {
        let missing = |ids: Vec<String>| unknown("gear", &gear.id, ids);
        match gear.list {
            GearList::Lamps => {
                let lamp = tier.lamps.iter().find(|l| l.id == gear.id).cloned();
                let lamp =
                    lamp.ok_or_else(|| missing(tier.lamps.iter().map(|l| l.id.clone()).collect()))?;
                let name = lamp.name.clone();
                self.hang_lamp(at, bay, lamp)?;
                Ok(name)
            }
            GearList::Mats => {
                let mat = tier.mats.iter().find(|m| m.id == gear.id).cloned();
                let mat =
                    mat.ok_or_else(|| missing(tier.mats.iter().map(|m| m.id.clone()).collect()))?;
                let name = mat.name.clone();
                self.lay_mat(at, bay, mat)?;
                Ok(name)
            }
            GearList::Fans => {
                let fan = tier.fans.iter().find(|f| f.id == gear.id).cloned();
                let fan =
                    fan.ok_or_else(|| missing(tier.fans.iter().map(|f| f.id.clone()).collect()))?;
                let name = fan.name.clone();
                self.put_fan(at, bay, fan);
                Ok(name)
            }
        }
    }

    fn remove(&mut self, things: &[Thing]) -> Word {
        let mut names = Vec::new();
        for thing in things {
            let Some(tier) = &thing.tier else {
                let index = self.place_index(&thing.place)?;
                names.push(self.plan.places.remove(index).name);
                continue;
            };
            // Its place or its tier may have gone just before it, picked together with it.
            let bay = BayRef {
                place: thing.place.clone(),
                tier: tier.clone(),
            };
            let within = |whole: &Thing| {
                whole != thing
                    && whole.place == thing.place
                    && (whole.tier.is_none() || (whole.tier == thing.tier && whole.gear.is_none()))
            };
            if things.iter().any(within) {
                continue;
            }
            let at = self.tier_at(&bay)?;
            match &thing.gear {
                None => {
                    if self.plan.places[at[0]].tiers.len() == 1 {
                        return Err(fault(
                            "things",
                            thing,
                            say!(
                                "{tier} is the last of {place}",
                                tier = &self.plan.places[at[0]].tiers[0].name,
                                place = &self.plan.places[at[0]].name
                            ),
                            say!("take the whole place out, or add a tier first"),
                        ));
                    }
                    names.push(self.bay_name(&bay));
                    self.plan.places[at[0]].tiers.remove(at[1]);
                }
                Some(gear) => names.push(self.remove_gear(at, gear)?),
            }
        }
        self.some_things(&names)?;
        let homeless = self.clear_stands();
        Ok(if homeless == 0 {
            say!("took out {names}", names = listed(&names))
        } else {
            say!(
                "took out {names}; trays without a spot now: {trays}",
                names = listed(&names),
                trays = Quantity::Count.of(f64::from(homeless))
            )
        })
    }

    fn remove_gear(&mut self, at: [usize; 2], gear: &GearRef) -> Result<String, Vec<Fault>> {
        fn take<T>(list: &mut Vec<T>, id: &str, id_of: fn(&T) -> &String) -> Result<T, Vec<Fault>> {
            match list.iter().position(|item| id_of(item) == id) {
                Some(i) => Ok(list.remove(i)),
                None => Err(unknown("gear", id, list.iter().map(|i| id_of(i).clone()))),
            }
        }
        let tier = self.tier(at);
        Ok(match gear.list {
            GearList::Lamps => take(&mut tier.lamps, &gear.id, |l| &l.id)?.name,
            GearList::Mats => take(&mut tier.mats, &gear.id, |m| &m.id)?.name,
            GearList::Fans => take(&mut tier.fans, &gear.id, |f| &f.id)?.name,
        })
    }

    /// Refuses an edit of nothing.
    fn some_things(&self, names: &[String]) -> Result<(), Vec<Fault>> {
        if names.is_empty() {
            return Err(fault(
                "things",
                Vec::<Thing>::new(),
                say!("nothing is picked"),
                say!("name at least one place, tier, lamp, mat or fan"),
            ));
        }
        Ok(())
    }

    /// Takes away stands in bays that are gone; how many trays lost one.
    fn clear_stands(&mut self) -> u32 {
        let Plan { places, trays, .. } = &mut self.plan;
        let mut homeless = 0;
        for tray in trays {
            let before = tray.stands.len();
            tray.stands
                .retain(|stand| find_bay(places, &stand.bay).is_some());
            homeless += u32::from(tray.stands.len() < before);
        }
        homeless
    }

    fn move_place(&mut self, place: &str, to: usize) -> Word {
        let from = self.place_index(place)?;
        let last = self.plan.places.len() - 1;
        let place = self.plan.places.remove(from);
        let name = place.name.clone();
        self.plan.places.insert(to.min(last), place);
        Ok(say!("moved {place} along", place = name))
    }

    fn move_tray(&mut self, plan: &SoundPlan, tray: &str, stage: Stage, bay: &BayRef) -> Word {
        let at = self.tier_at(bay)?;
        let trays = &self.plan.trays;
        let index = trays
            .iter()
            .position(|t| t.id == tray)
            .ok_or_else(|| unknown("tray", tray, trays.iter().map(|t| t.id.clone())))?;
        let tray = &trays[index];
        let format = plan.format(tray);
        let dates = season::dates(plan);
        let own = TrayDates::of(plan, tray, &dates);
        // Until it is moved again, or planted out.
        let later = |s: &&Stand| s.stage > stage;
        let next = tray.stands.iter().filter(later).map(|s| s.stage).min();
        let stages = [Stage::Germinate, Stage::Grow, Stage::Harden]
            .into_iter()
            .filter(|s| *s >= stage && next.is_none_or(|next| *s < next))
            .filter(|s| stage == Stage::Harden || *s != Stage::Harden);
        let days: Vec<_> = stages.filter_map(|s| own.days_of(s)).collect();
        let busy = |stay: &placement::Stay<'_>| {
            let meets =
                |d: &crate::plan::DateSpan| stay.days.from <= d.to && d.from <= stay.days.to;
            stay.bay == bay && stay.tray.id != tray.id && days.iter().any(meets)
        };
        let place = &self.plan.places[at[0]];
        let mut taken = space::post_footprints(place);
        let stays = placement::stays(plan, &dates);
        taken.extend(stays.iter().filter(|s| busy(s)).map(|s| s.footprint));
        let size = Size {
            length_mm: format.length_mm,
            width_mm: format.width_mm,
            most: Some(1),
        };
        let deck = [place.width_mm, place.depth_mm];
        let found = packing::beside(deck, &taken, &[size]).laid.first().copied();
        let Some(spot) = found else {
            return Err(fault(
                "bay",
                bay,
                say!(
                    "{bay} has no free spot for {tray} in those days",
                    bay = self.bay_name(bay),
                    tray = &tray.name
                ),
                say!("choose another bay, or free a spot there first"),
            ));
        };
        let name = tray.name.clone();
        let stand = Stand {
            stage,
            bay: bay.clone(),
            x_mm: spot.x_mm,
            y_mm: spot.y_mm,
            along: spot.along,
        };
        let stands = &mut self.plan.trays[index].stands;
        match stands.iter_mut().find(|s| s.stage == stage) {
            Some(old) => *old = stand,
            None => stands.push(stand),
        }
        Ok(say!(
            "moved {tray} to {bay}",
            tray = name,
            bay = self.bay_name(bay)
        ))
    }
}

fn whole(place: &str) -> Thing {
    Thing {
        place: place.to_owned(),
        tier: None,
        gear: None,
    }
}

/// Up to three names, and how many more.
fn listed(names: &[String]) -> String {
    match names.len() {
        0..=3 => names.join("; "),
        n => format!("{} and {} more", names[..3].join("; "), n - 3),
    }
}

/// A height for one more deck with `need_mm` over it: in the bay that leaves most, in its middle
/// if what hangs there allows.
fn free_deck_height(place: &Place, need_mm: f64) -> Option<f64> {
    if matches!(place.kind, Kind::Window(_) | Kind::ColdFrame(_)) {
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
