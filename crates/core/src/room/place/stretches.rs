//! A place through its season: as it is set from one date to the next.

use jiff::civil::Date;

use crate::room::place::body::Place;
use crate::room::place::setting::PlaceSetting;

impl Place {
    /// The place as it is set at the beginning of each stretch of dates, in order; empty where nothing
    /// ever changes.
    pub fn stretches(&self) -> Vec<(Date, Self)> {
        let mut settings: Vec<&PlaceSetting> = self.settings.iter().collect();
        settings.sort_by_key(|setting| setting.from);
        let mut stretches: Vec<(Date, Self)> = Vec::new();
        for setting in settings {
            let now = stretches.last().map_or(self, |(_, place)| place);
            let changed = now.set(setting);
            match stretches.last_mut() {
                Some((from, place)) if *from == setting.from => *place = changed,
                _ => stretches.push((setting.from, changed)),
            }
        }
        stretches
    }

    fn set(&self, setting: &PlaceSetting) -> Self {
        let mut place = self.clone();
        let wanted = |id: &str| setting.tier.as_deref().is_none_or(|tier| tier == id);
        for tier in place.tiers.iter_mut().filter(|tier| wanted(&tier.id)) {
            if let Some(on) = setting.lamps_germinating {
                tier.lamps_germinating = on;
            }
            if let Some(on) = setting.mats_growing {
                tier.mats_growing = on;
            }
            if let Some(on) = setting.domes_growing {
                tier.domes_growing = on;
            }
        }
        if let Some(shut) = setting.shut {
            place.set_doors(shut);
        }
        if setting.airing.is_some() {
            place.airing = setting.airing;
        }
        place
    }
}
