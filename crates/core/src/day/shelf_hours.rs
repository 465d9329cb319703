//! What the lamps of each lit bay come to at every number of hours.

use jiff::civil::Date;

use crate::day::hang::by_hours;
use crate::day::view::Looker;
use crate::lamps::outcome::Outcome;
use crate::lamps::shared_hours::AtHours;
use crate::room::Bay;

/// A bay whose lamps burn, and what they come to at each number of hours.
#[derive(Debug)]
pub struct ShelfHours<'a> {
    /// The bay.
    pub bay: Bay<'a>,
    /// What its cells come to as its lamps hang and burn.
    pub now: Outcome,
    /// A setting for each number of hours.
    pub each: Vec<AtHours>,
}

impl<'a> Looker<'a> {
    /// The bays of `place` whose lamps burn over seedlings on `date`, with what they come to at each number
    /// of hours.
    pub fn by_hours(&mut self, place_index: usize, date: Date) -> Vec<ShelfHours<'a>> {
        let scenes = self.scenes(place_index, date).into_iter();
        let lit = scenes.filter(|scene| scene.lit_h > 0.0 && !scene.bay.tier.lamps.is_empty());
        lit.filter_map(|scene| {
            let (bay, standing) = (&scene.bay, &scene.standing[..]);
            let lights =
                self.light
                    .part_lights(bay, standing, (scene.from_above, scene.lit_h), date);
            let (now, each) = by_hours(self.reckoned, bay, date, standing, &lights)?;
            Some(ShelfHours {
                bay: scene.bay,
                now,
                each,
            })
        })
        .collect()
    }
}
