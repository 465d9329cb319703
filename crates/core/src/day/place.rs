//! A place on a date: its bays together, what it carries, and how it stands in the room.

use jiff::civil::Date;
use rustc_hash::FxHashMap;
use serde::Serialize;
use utoipa::ToSchema;

use crate::day::load::PlaceLoad;
use crate::day::view::BayView;
use crate::plan::SoundPlan;
use crate::room::{MOST_OVERHANG_MM, Place};
use crate::space::doors::ThroughDoor;
use crate::space::floor::FloorArea;
use crate::space::{decks, doors, floor};

/// A place on a date.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct PlaceOnDay {
    /// The place.
    pub place: String,
    /// What it carries, and how that stands.
    pub load: PlaceLoad,
    /// Outer width, depth and height, walls and all.
    pub outer_mm: [f64; 3],
    /// The least width, depth and height of the place that keep everything in it where it is.
    pub least_mm: [f64; 3],
    /// Distance from one height that a deck can have to the next; `None` where decks are fixed.
    pub pitch_mm: Option<f64>,
    /// How it goes through the room's door; `None` for what is not carried in.
    pub through_door: Option<ThroughDoor>,
    /// Its outline on the floor; `None` when it has no spot there.
    pub outline: Option<FloorArea>,
    /// The floor one stands on to work at it; `None` when it has no spot.
    pub standing_area: Option<FloorArea>,
    /// How deep the free floor in front of it is; `None` when it has no spot.
    pub free_in_front_mm: Option<f64>,
}

/// A place on a date with all that judgements look at.
#[derive(Debug)]
pub struct PlaceView<'a, 'b> {
    /// The plan.
    pub plan: &'a SoundPlan,
    /// The place.
    pub place: &'a Place,
    /// Its index in the plan.
    pub index: usize,
    /// The day.
    pub date: Date,
    /// Its bays, from the lowest up.
    pub bays: &'b [BayView<'a>],
    /// What was computed.
    pub computed: PlaceOnDay,
}

/// The places of a plan, keeping what does not change from one day to the next.
#[derive(Debug, Default)]
pub struct PlaceViews {
    /// By the place in the plan and how it is set: with nothing in it.
    empty: FxHashMap<(usize, usize), PlaceOnDay>,
}

impl PlaceViews {
    /// Place `index` of `plan` on `date` with the view of each of its bays.
    pub fn of<'a, 'b>(
        &mut self,
        plan: &'a SoundPlan,
        index: usize,
        date: Date,
        bays: &'b [BayView<'a>],
    ) -> PlaceView<'a, 'b> {
        let place = plan.place_on(index, date);
        let standing: Vec<_> = bays.iter().map(|bay| &bay.standing[..]).collect();
        let key = (index, plan.setting_on(index, date));
        let empty = self.empty.entry(key);
        let empty = empty.or_insert_with(|| PlaceOnDay::empty(plan, index, place));
        PlaceView {
            plan,
            place,
            index,
            date,
            bays,
            computed: PlaceOnDay {
                load: PlaceLoad::of(place, &standing),
                ..empty.clone()
            },
        }
    }
}

impl PlaceOnDay {
    /// `place`, which is `plan`'s at `index`, with nothing in it.
    fn empty(plan: &SoundPlan, index: usize, place: &Place) -> Self {
        Self {
            place: place.id.clone(),
            load: PlaceLoad::of(place, &[]),
            outer_mm: place.outer_mm(),
            least_mm: least_mm(plan, index, place),
            pitch_mm: place.pitch_mm(),
            through_door: doors::passage(place, &plan.room),
            outline: floor::outline(place),
            standing_area: floor::standing_area(place),
            free_in_front_mm: floor::free_in_front_mm(place, &plan.room, &plan.places),
        }
    }
}

/// What stands, lies and hangs in `place`, pushed as far out as the plan allows.
fn least_mm(plan: &SoundPlan, index: usize, place: &Place) -> [f64; 3] {
    let mut least = [100.0_f64, 80.0];
    let mut keep = |edges: [f64; 2]| {
        least = [least[0].max(edges[0]), least[1].max(edges[1])];
    };
    for tier in &place.tiers {
        for lamp in &tier.lamps {
            keep([lamp.x_mm, lamp.y_mm].map(|at| at - MOST_OVERHANG_MM));
        }
        for fan in &tier.fans {
            keep([fan.x_mm, fan.y_mm].map(|at| at - MOST_OVERHANG_MM));
        }
        for mat in &tier.mats {
            let [x, y] = mat.size_mm();
            keep([mat.x_mm + x, mat.y_mm + y]);
        }
    }
    for bay in place.bays(index) {
        let here = bay.reference();
        for tray in plan.trays_in(&bay) {
            let format = plan.format(tray);
            for stand in tray.stands.iter().filter(|s| s.bay == here) {
                let edges = stand.footprint(format);
                keep([edges.x_mm, edges.y_mm].map(|e| e[1] - decks::most_overhang_mm(e[1] - e[0])));
            }
        }
    }
    [least[0], least[1], place.least_height_mm()]
}
