//! Where a tray could stand: the spots of a bay that are free on all the days it would be there.

use crate::basis::dates::DateSpan;
use crate::basis::plane::Footprint;
use crate::plan::{SoundPlan, Stage, Stand, Tray};
use crate::room::{Bay, BayRef, bays};
use crate::season::reckoned::Reckoned;
use crate::season::stays::days_at;
use crate::space::decks::post_footprints;
use crate::space::spots::{DeckSpot, free_spots};

/// The room for one tray that is to begin standing as its `stand` says, wherever that is.
#[derive(Debug)]
pub struct RoomFor<'a> {
    reckoned: &'a Reckoned<'a>,
    tray: &'a Tray,
    /// When it begins, and whether it is stacked.
    stand: &'a Stand,
    /// The days on which it would be there.
    pub days: Vec<DateSpan>,
}

impl<'a> RoomFor<'a> {
    /// Of `tray`, which stands as `stand` says from then on.
    pub fn new(reckoned: &'a Reckoned<'a>, tray: &'a Tray, stand: &'a Stand) -> Self {
        let restood = tray.restood(stand);
        Self {
            days: days_at(reckoned.plan, &reckoned.dates, &restood, stand),
            reckoned,
            tray,
            stand,
        }
    }

    fn plan(&self) -> &'a SoundPlan {
        self.reckoned.plan
    }

    /// What other trays take in `bay` on those days, on the deck or stacked.
    fn taken(&self, bay: &BayRef, stacked: bool) -> Vec<Footprint> {
        let others = self.reckoned.stays.iter();
        let others = others.filter(|stay| stay.tray.id != self.tray.id);
        let there = others.filter(|stay| stay.stacked == stacked && stay.is_in(bay, &self.days));
        there.map(|stay| stay.footprint).collect()
    }

    /// The free spots in `bay`: on the deck, or when it is to be stacked, on trays that stand there
    /// on all those days. `near_mm` is a left and a front edge that the hand would like.
    pub fn spots(&self, bay: &Bay<'_>, near_mm: Option<[f64; 2]>) -> Vec<DeckSpot> {
        if bay.tier.storage {
            return Vec::new();
        }
        let (format, reference) = (self.plan().format(self.tray), bay.reference());
        let size = [format.length_mm, format.width_mm];
        if self.stand.stacked {
            return self.on_others(&reference, size);
        }
        let mut taken = post_footprints(bay.place);
        taken.extend(self.taken(&reference, false));
        let mut spots = free_spots(
            [bay.place.width_mm, bay.place.depth_mm],
            &taken,
            size,
            near_mm,
        );
        // Nothing sticks out of a cabinet.
        spots.retain(|spot| !bay.place.is_closed() || spot.y_mm >= 0.0);
        spots
    }

    fn on_others(&self, bay: &BayRef, size: [f64; 2]) -> Vec<DeckSpot> {
        let stacked = self.taken(bay, true);
        let lower = self.reckoned.stays.iter().filter(|stay| {
            if stay.stacked || stay.tray.id == self.tray.id || stay.bay != bay {
                return false;
            }
            // What has come up under it is not to be laid in the dark.
            let moments = self.reckoned.moments_of(stay.tray);
            let Some(own) = moments.days_of(Stage::Germinate) else {
                return false;
            };
            let to = stay.days.to.min(own.to);
            let covers = |d: &DateSpan| stay.days.from <= d.from && d.to <= to;
            self.days.iter().all(covers)
        });
        let spots = lower.map(|stay| {
            let f = &stay.footprint;
            let along = match f.x_mm[1] - f.x_mm[0] >= f.y_mm[1] - f.y_mm[0] {
                true => crate::basis::plane::Axis::X,
                false => crate::basis::plane::Axis::Y,
            };
            let spot = DeckSpot {
                x_mm: f.x_mm[0],
                y_mm: f.y_mm[0],
                along,
            };
            (spot, *f)
        });
        let bears = |(spot, lower): &(DeckSpot, Footprint)| {
            let own = spot.footprint(size);
            let within = |a: [f64; 2], b: [f64; 2]| a[1] <= b[1] + 1.0;
            within(own.x_mm, lower.x_mm)
                && within(own.y_mm, lower.y_mm)
                && !stacked.iter().any(|other| other.overlaps(&own))
        };
        spots.filter(bears).map(|(spot, _)| spot).collect()
    }

    /// The nearest bay to `bay` with a free spot: of the same place first.
    pub fn nearest_bay(&self, bay: &BayRef) -> Option<Bay<'a>> {
        let wanted = self.plan().bay(bay);
        let away = |other: &Bay<'_>| match &wanted {
            Some(bay) => (
                other.place_index.abs_diff(bay.place_index),
                other.tier_index.abs_diff(bay.tier_index),
            ),
            None => (other.place_index, other.tier_index),
        };
        let mut all: Vec<Bay<'a>> = bays(&self.plan().places).collect();
        all.retain(|other| other.reference() != *bay && !other.place.outdoors());
        all.sort_by_key(away);
        all.into_iter()
            .find(|bay| !self.spots(bay, None).is_empty())
    }
}
