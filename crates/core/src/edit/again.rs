//! Add another: copies without the trays.

use crate::basis::fault::Fault;
use crate::basis::words::say;
use crate::basis::work::go_on;
use crate::edit::change::{GearList, GearRef, Thing};
use crate::edit::editor::{Editor, Word, listed, unknown, whole};
use crate::room::{BayRef, Tier};

impl Editor {
    pub(super) fn again(&mut self, things: &[Thing]) -> Word {
        self.not_too_many(things)?;
        let mut names = Vec::new();
        for thing in things {
            go_on();
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
            let mut tier = self.plan.places[at[0]].tiers[at[1]].clone();
            tier.unplug();
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
        place.tiers.iter_mut().for_each(Tier::unplug);
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
}
