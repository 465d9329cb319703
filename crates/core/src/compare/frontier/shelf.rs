//! The shelves that are equipped anew.

use jiff::civil::Date;

use crate::basis::work::go_on;
use crate::day::detail::Detail;
use crate::day::view::Looker;
use crate::power::draw::Drawer;
use crate::room::{Bay, BayRef, bays};
use crate::season::Reckoned;

/// A shelf that is equipped anew, and how long its gear is on over the season.
pub(super) struct Shelf<'a> {
    pub(super) bay: Bay<'a>,
    /// Cells that grow there on the day that was asked for.
    pub(super) cells: u32,
    /// Days of the season on which its lamps burn.
    pub(super) lit_days: u32,
    /// Days on which something comes up there, and the first of those on which most trays do.
    pub(super) warm_days: u32,
    pub(super) warm_on: Option<Date>,
}

/// `bay`, or every bay with lamps, where seedlings grow on `date`.
pub(super) fn shelves<'a>(
    reckoned: &'a Reckoned<'_>,
    bay: Option<&BayRef>,
    date: Date,
) -> Vec<Shelf<'a>> {
    let plan = reckoned.plan;
    let wanted = |own: &Bay<'_>| match bay {
        Some(bay) => own.reference() == *bay,
        None => !own.tier.lamps.is_empty(),
    };
    let wanted: Vec<Bay<'a>> = bays(&plan.places)
        .filter(wanted)
        .filter_map(|own| plan.bay_on(&own.reference(), date))
        .collect();
    let mut looker = Looker::new(reckoned, Detail::Days);
    let mut shelves: Vec<Shelf<'a>> = Vec::new();
    for bay in wanted {
        let views = looker.look(bay.place_index, date);
        let growing = views[bay.tier_index].growing();
        let cells = growing.map(|(_, part)| part.grid.0 * part.grid.1).sum();
        if cells > 0 {
            shelves.push(Shelf {
                bay,
                cells,
                lit_days: 0,
                warm_days: 0,
                warm_on: None,
            });
        }
    }
    let mut places: Vec<usize> = shelves.iter().map(|shelf| shelf.bay.place_index).collect();
    places.dedup();
    let mut most = vec![0; shelves.len()];
    for (place, day) in places
        .iter()
        .flat_map(|place| plan.season.days().map(move |day| (*place, day)))
    {
        go_on();
        let views = looker.look(place, day);
        let own = shelves.iter_mut().zip(&mut most);
        for (shelf, most) in own.filter(|(shelf, _)| shelf.bay.place_index == place) {
            let Some(view) = views.get(shelf.bay.tier_index) else {
                continue;
            };
            let mut draws = view.computed.draws.iter();
            shelf.lit_days += u32::from(draws.any(|draw| draw.what == Drawer::Lamp));
            let coming_up = view.standing.iter().filter(|s| s.coming_up).count();
            shelf.warm_days += u32::from(coming_up > 0);
            if coming_up > *most {
                (*most, shelf.warm_on) = (coming_up, Some(day));
            }
        }
    }
    shelves
}
