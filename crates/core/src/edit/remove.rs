//! Taking things out, and what that leaves without a spot.

use crate::basis::fault::Fault;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::edit::change::{GearList, GearRef, Thing};
use crate::edit::editor::{Editor, Word, fault, listed, unknown};
use crate::plan::Plan;
use crate::room::{BayRef, find_bay};

impl Editor {
    pub(super) fn remove(&mut self, things: &[Thing]) -> Word {
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
                                "{tier} is the last shelf of {place}",
                                tier = &self.plan.places[at[0]].tiers[0].name,
                                place = &self.plan.places[at[0]].name
                            ),
                            say!("remove the whole rack, or add a shelf first"),
                        ));
                    }
                    names.push(self.bay_name(&bay));
                    let place = &mut self.plan.places[at[0]];
                    let gone = place.tiers.remove(at[1]).id;
                    place
                        .settings
                        .retain(|set| set.tier.as_ref() != Some(&gone));
                    let fans = place.tiers.iter_mut().flat_map(|tier| &mut tier.fans);
                    fans.for_each(|fan| fan.by_turns.retain(|tier| *tier != gone));
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
            GearList::Mats => {
                let gone = take(&mut tier.mats, &gear.id, |m| &m.id)?;
                tier.pass_thermostat_on(&gone.id);
                gone.name
            }
            GearList::Fans => take(&mut tier.fans, &gear.id, |f| &f.id)?.name,
        })
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
}
