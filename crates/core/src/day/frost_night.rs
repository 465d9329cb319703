//! A late frost: does everything that is outside fit back inside for a night, and where does each go?

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::DateSpan;
use crate::basis::plane::Footprint;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::basis::work::go_on;
use crate::plan::{SoundPlan, Stage, Tray};
use crate::room::{Bay, BayRef, bays};
use crate::season::Reckoned;
use crate::space::decks::post_footprints;
use crate::space::floor::outline;
use crate::space::spots::free_spots;

/// What is carried in on a night of frost.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FrostNight {
    /// The evening.
    pub date: Date,
    /// Chance that a frost still comes on that day or later, 0 to 1.
    pub frost_risk: f64,
    /// What fits, and what does not.
    pub verdict: Statement,
    /// What goes where, one place after another.
    pub carry: Vec<Carried>,
    /// What finds no room: the names on their labels.
    pub left: Vec<String>,
    /// Whether some go to the floor.
    pub on_the_floor: bool,
}

/// A tray that is carried in.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Carried {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// What is in it.
    pub holds: Vec<String>,
    /// Where it stands by day: a place outdoors; `None` where it is carried out and in.
    pub from: Option<String>,
    /// Where it goes; `None` for the floor.
    pub bay: Option<BayRef>,
    /// The same in words.
    pub to: Statement,
}

/// Under a roof for one night leaves may touch nothing and need no light; this much stays over them, in
/// mm (our own estimate).
const OVER_MM: f64 = 20.0;
/// The floor by the door stays free to walk in, in mm (common practice, no source).
const WAY_IN_MM: f64 = 700.0;

impl FrostNight {
    /// The night after `date`; `None` where nothing is outside.
    pub fn on(reckoned: &Reckoned<'_>, date: Date) -> Option<Self> {
        let plan = reckoned.plan;
        let mut outside = outside(reckoned, date);
        if outside.is_empty() {
            return None;
        }
        // The tallest first: it has least choice.
        outside.sort_by(|a, b| b.high_mm.total_cmp(&a.high_mm));
        let mut inside = Inside::of(reckoned, date);
        let (mut carry, mut left) = (Vec::new(), Vec::new());
        for own in &outside {
            go_on();
            let Some((order, bay)) = inside.take(plan, own) else {
                left.push(own.tray.name.clone());
                continue;
            };
            let to = match bay.and_then(|bay| plan.bay(bay)) {
                Some(bay) => say!("{bay}", bay = bay.name()),
                None => say!("the floor"),
            };
            carry.push((order, own.carried(reckoned, bay.cloned(), to)));
        }
        carry.sort_by_key(|(order, _)| *order);
        let carry: Vec<Carried> = carry.into_iter().map(|(_, carried)| carried).collect();
        let floor = carry.iter().filter(|own| own.bay.is_none()).count();
        Some(Self {
            date,
            frost_risk: plan.site.frost_risk(date),
            verdict: verdict(outside.len(), floor, left.len()),
            carry,
            left,
            on_the_floor: floor > 0,
        })
    }
}

fn verdict(all: usize, floor: usize, left: usize) -> Statement {
    let count = |n: usize| Quantity::Count.of(n as f64);
    match (left, floor) {
        (0, 0) if all == 1 => say!("The one tray outside fits on a shelf for a night"),
        (0, 0) => say!(
            "All {all} trays outside fit on the shelves for a night",
            all = count(all)
        ),
        (0, floor) => say!(
            "All {all} trays outside fit in for a night: {shelves} on shelves, {floor} on the floor",
            all = count(all),
            shelves = count(all - floor),
            floor = count(floor)
        ),
        (left, _) => say!(
            "There is no room inside for {left} of {all} trays outside: cover them where they are, or take them to another room",
            left = count(left),
            all = count(all)
        ),
    }
}

/// A tray that is outside.
struct Outside<'a> {
    tray: &'a Tray,
    /// Where it stands there.
    from: Option<String>,
    /// From its foot to the tips of its leaves.
    high_mm: f64,
}

/// What is outside on `date`: all that hardens off, and all that stands in a place outdoors.
fn outside<'a>(reckoned: &Reckoned<'a>, date: Date) -> Vec<Outside<'a>> {
    let plan = reckoned.plan;
    let place_of = |tray: &Tray| {
        let mut stays = reckoned.stays.iter();
        let stay = stays.find(|stay| stay.tray.id == tray.id && stay.days.contains(date))?;
        plan.place(&stay.bay.place)
    };
    let outside = |tray: &'a Tray| {
        let stage = reckoned.moments_of(tray).stage_on(date)?;
        let place = place_of(tray).filter(|place| place.outdoors());
        if stage == Stage::Out || stage != Stage::Harden && place.is_none() {
            return None;
        }
        let grown = reckoned.growing.of_tray(plan, tray).iter();
        let tall = grown.filter_map(|part| part.on(date).or(part.last()));
        let tall_mm = tall.map(|plant| plant.height_mm).fold(0.0, f64::max);
        Some(Outside {
            tray,
            from: place.map(|place| place.name.clone()),
            high_mm: plan.format(tray).height_mm + tall_mm,
        })
    };
    plan.trays.iter().filter_map(outside).collect()
}

impl Outside<'_> {
    fn carried(&self, reckoned: &Reckoned<'_>, bay: Option<BayRef>, to: Statement) -> Carried {
        let plan = reckoned.plan;
        let name = |sowing: &str| reckoned.dates[plan.sowing_index(sowing)].name.clone();
        let mut holds: Vec<String> = self.tray.parts.iter().map(|p| name(&p.sowing)).collect();
        holds.dedup();
        Carried {
            tray: self.tray.id.clone(),
            label: self.tray.name.clone(),
            holds,
            from: self.from.clone(),
            bay,
            to,
        }
    }
}

/// A deck indoors in that night, with what is on it.
struct Deck<'a> {
    bay: Bay<'a>,
    reference: BayRef,
    taken: Vec<Footprint>,
    load_kg: f64,
}

/// The room in that night.
struct Inside<'a> {
    decks: Vec<Deck<'a>>,
    /// The floor: its size, and what stands on it.
    floor_mm: [f64; 2],
    floor: Vec<Footprint>,
}

impl<'a> Inside<'a> {
    fn of(reckoned: &Reckoned<'a>, date: Date) -> Self {
        let plan: &'a SoundPlan = reckoned.plan;
        let night = [DateSpan::day(date)];
        // A chamber is warm and damp: what was outside by day stays out of it.
        let inside = bays(&plan.places)
            .filter(|bay| !bay.tier.storage && !bay.place.outdoors() && !bay.place.keeps_damp_in());
        let deck = |bay: Bay<'a>| {
            let reference = bay.reference();
            let there = reckoned.stays.iter();
            let there = there.filter(|stay| stay.is_in(&reference, &night));
            let mut taken = post_footprints(bay.place);
            let mut load_kg = 0.0;
            for stay in there {
                load_kg += plan.format(stay.tray).watered_kg();
                if !stay.stacked {
                    taken.push(stay.footprint);
                }
            }
            Deck {
                bay,
                reference,
                taken,
                load_kg,
            }
        };
        let furniture = plan.places.iter().filter_map(outline);
        let mut floor: Vec<Footprint> = furniture
            .map(|area| Footprint {
                x_mm: area.x_mm,
                y_mm: area.y_mm,
            })
            .collect();
        // Nobody knows where the door is: a way in along the near wall stays free.
        floor.push(Footprint {
            x_mm: [0.0, plan.room.width_mm],
            y_mm: [0.0, WAY_IN_MM],
        });
        Self {
            decks: inside.map(deck).collect(),
            floor_mm: [plan.room.width_mm, plan.room.depth_mm],
            floor,
        }
    }

    /// Takes a spot for a tray: on the deck that is just high enough, else on the floor. Its order in the
    /// list, and the bay.
    fn take(&mut self, plan: &SoundPlan, own: &Outside<'_>) -> Option<(usize, Option<&BayRef>)> {
        let format = plan.format(own.tray);
        let (size, kg) = ([format.length_mm, format.width_mm], format.watered_kg());
        let mut order: Vec<(f64, usize)> = Vec::new();
        for (i, deck) in self.decks.iter().enumerate() {
            let spare_mm = deck.bay.lowest_overhead_mm() - own.high_mm - OVER_MM;
            let rating_kg = deck.bay.place.deck.rating_kg.unwrap_or(f64::INFINITY);
            if spare_mm >= 0.0 && deck.load_kg + kg <= rating_kg {
                order.push((spare_mm, i));
            }
        }
        order.sort_by(|a, b| a.0.total_cmp(&b.0));
        for (_, i) in order {
            let deck = &mut self.decks[i];
            let place = deck.bay.place;
            let spots = free_spots([place.width_mm, place.depth_mm], &deck.taken, size, None);
            let mut spots = spots.into_iter();
            // Nothing sticks out of a cabinet.
            if let Some(spot) = spots.find(|spot| !place.is_closed() || spot.y_mm >= 0.0) {
                deck.taken.push(spot.footprint(size));
                deck.load_kg += kg;
                return Some((i, Some(&self.decks[i].reference)));
            }
        }
        let spots = free_spots(self.floor_mm, &self.floor, size, None);
        let spot = spots.into_iter().find(|spot| spot.y_mm >= 0.0)?;
        self.floor.push(spot.footprint(size));
        Some((usize::MAX, None))
    }
}

#[cfg(test)]
mod tests {
    use jiff::civil::{Date, date};

    use super::FrostNight;
    use crate::plan::Plan;
    use crate::testing::{kettle_fen, reckoned};

    fn night(date: Date, change: impl FnOnce(&mut Plan)) -> Option<FrostNight> {
        let plan = kettle_fen(change);
        FrostNight::on(&reckoned(&plan), date)
    }

    #[test]
    fn in_winter_nothing_is_outside() {
        assert_eq!(night(date(2027, 2, 1), |_| ()), None);
    }

    #[test]
    fn each_tray_outside_is_carried_to_one_spot_or_said_to_have_none() {
        let evening = date(2027, 5, 12);
        let found = night(evening, |_| ()).expect("much hardens off in May");
        assert!(!found.carry.is_empty());
        let mut trays: Vec<_> = found.carry.iter().map(|own| &own.tray).collect();
        trays.sort();
        trays.dedup();
        assert_eq!(trays.len(), found.carry.len());
        // Without a free shelf or floor all stays out.
        let full = night(evening, |plan| {
            for place in &mut plan.places {
                place.deck.rating_kg = Some(1.0);
            }
            plan.room.depth_mm = 800.0;
        });
        let full = full.expect("the same is outside");
        assert!(full.carry.is_empty() && full.left.len() == found.carry.len() + found.left.len());
        assert!(
            full.verdict.text.contains("no room inside"),
            "{:?}",
            full.verdict
        );
    }

    #[test]
    fn a_low_room_sends_tall_plants_to_the_floor() {
        let found = night(date(2027, 5, 12), |plan| {
            for place in &mut plan.places {
                place.deck.rating_kg = Some(1.0);
            }
        });
        let found = found.expect("much hardens off in May");
        assert!(found.carry.iter().all(|own| own.bay.is_none()));
        assert!(found.on_the_floor || found.carry.is_empty());
    }
}
