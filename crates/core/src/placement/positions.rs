//! The positions of a room: where trays of the plan's usual size lie on each deck, on its mats and beside
//! them.

use crate::basis::plane::Footprint;
use crate::plan::SoundPlan;
use crate::room::container::TrayFormat;
use crate::room::{Bay, BayRef, bays};
use crate::season::Demand;
use crate::space::decks::{Fits, post_footprints};
use crate::space::spots::{DeckSpot, free_spots};
use crate::warmth::mat::mat_under;

/// A set of like positions: a deck, or what of it lies on its mats.
#[derive(Debug, Clone)]
pub(super) struct Positions<'p> {
    pub(super) id: String,
    pub(super) bay: Bay<'p>,
    pub(super) heated: bool,
    pub(super) spots: Vec<DeckSpot>,
}

/// A tray lies on a mat when so much of it does (our own judgement).
const ON_A_MAT: f64 = 0.5;

/// Whether a tray that lies at `outline` in `bay` is warmed from below.
pub(super) fn is_heated(bay: &Bay<'_>, outline: &Footprint) -> bool {
    mat_under(bay.tier, outline).is_some_and(|(_, cover)| cover >= ON_A_MAT)
}

/// What positions are called in the solver's question.
pub(super) fn id_of(bay: &BayRef, heated: bool) -> String {
    let mat = if heated { "/mat" } else { "" };
    format!("{}/{}{mat}", bay.place, bay.tier)
}

/// The format that most trays of the plan have the size of; `None` without trays.
pub(super) fn usual_format(plan: &SoundPlan) -> Option<&TrayFormat> {
    let mut sizes: Vec<(&TrayFormat, usize)> = Vec::new();
    for tray in &plan.trays {
        let format = plan.format(tray);
        match sizes
            .iter_mut()
            .find(|(other, _)| lies_on(format, other) && lies_on(other, format))
        {
            Some((_, trays)) => *trays += 1,
            None => sizes.push((format, 1)),
        }
    }
    let area = |format: &TrayFormat| format.length_mm * format.width_mm;
    let most = sizes
        .into_iter()
        .max_by(|a, b| a.1.cmp(&b.1).then_with(|| area(a.0).total_cmp(&area(b.0))));
    most.map(|(format, _)| format)
}

/// Whether a tray of `format` lies where one of `usual` would, without wasting half of it.
pub(super) fn lies_on(format: &TrayFormat, usual: &TrayFormat) -> bool {
    const SLACK_MM: f64 = 5.0;
    let sides = |f: &TrayFormat| [f.length_mm.max(f.width_mm), f.length_mm.min(f.width_mm)];
    let (own, room) = (sides(format), sides(usual));
    let fits = own[0] <= room[0] + SLACK_MM && own[1] <= room[1] + SLACK_MM;
    fits && 2.0 * own[0] * own[1] > room[0] * room[1]
}

/// All positions of the plan's room for trays of `format`.
pub(super) fn positions<'p>(plan: &'p SoundPlan, format: &TrayFormat) -> Vec<Positions<'p>> {
    let (mut all, mut fits) = (Vec::new(), Fits::default());
    for bay in bays(&plan.places).filter(|bay| !bay.tier.storage) {
        let spots = spots_of(&bay, format, &mut fits);
        let size = [format.length_mm, format.width_mm];
        let (warm, cold): (Vec<DeckSpot>, Vec<DeckSpot>) = spots
            .into_iter()
            .partition(|spot| is_heated(&bay, &spot.footprint(size)));
        for (heated, spots) in [(true, warm), (false, cold)] {
            if !spots.is_empty() {
                all.push(Positions {
                    id: id_of(&bay.reference(), heated),
                    bay,
                    heated,
                    spots: as_many_as_bears(&bay, format, spots),
                });
            }
        }
    }
    all
}

/// No more than the deck's rating carries.
fn as_many_as_bears(bay: &Bay<'_>, format: &TrayFormat, mut spots: Vec<DeckSpot>) -> Vec<DeckSpot> {
    if let Some(rating_kg) = bay.place.deck.rating_kg {
        spots.truncate((rating_kg / format.watered_kg().max(0.1)).floor() as usize);
    }
    spots
}

/// Where trays of `format` lie in `bay`: those on its mats first, then as many more as go beside them;
/// or where that holds more, as they are packed best.
fn spots_of(bay: &Bay<'_>, format: &TrayFormat, fits: &mut Fits) -> Vec<DeckSpot> {
    const MOST: usize = 200;
    let size = [format.length_mm, format.width_mm];
    let deck = [bay.place.width_mm, bay.place.depth_mm];
    let mut taken = post_footprints(bay.place);
    let mut spots: Vec<DeckSpot> = Vec::new();
    for mat in bay.tier.mats.iter().map(Some).chain([None]) {
        while spots.len() < MOST {
            let near = mat.map(|mat| [mat.x_mm, mat.y_mm]);
            let free = free_spots(deck, &taken, size, near).into_iter();
            let free = free.filter(|spot| !bay.place.is_closed() || spot.y_mm >= 0.0);
            let cover = |spot: &DeckSpot| {
                mat_under(bay.tier, &spot.footprint(size)).map_or(0.0, |(_, cover)| cover)
            };
            let best = match mat {
                Some(_) => free
                    .filter(|spot| cover(spot) >= ON_A_MAT)
                    .max_by(|a, b| cover(a).total_cmp(&cover(b))),
                None => free.into_iter().next(),
            };
            let Some(spot) = best else { break };
            taken.push(spot.footprint(size));
            spots.push(spot);
        }
    }
    let packed = fits.of(bay.place, format).laid.into_iter();
    let packed: Vec<DeckSpot> = packed
        .map(|laid| DeckSpot {
            x_mm: laid.x_mm,
            y_mm: laid.y_mm,
            along: laid.along,
        })
        .collect();
    // What sticks out counts only where nothing else does as well.
    let inside = spots.iter().filter(|spot| spot.y_mm > -0.5).count();
    if packed.len() > inside
        || packed.len() == inside && inside == spots.len() && bay.tier.mats.is_empty()
    {
        return packed;
    }
    spots
}

/// What the room has of each sort of spot, for trays of the plan's usual size.
pub fn spots_by_sort(plan: &SoundPlan) -> Demand {
    let Some(format) = usual_format(plan) else {
        return Demand::default();
    };
    let mut all = Demand::default();
    for own in positions(plan, format) {
        let (place, spots) = (own.bay.place, own.spots.len() as u32);
        if place.outdoors() {
            all.outdoors += spots;
            continue;
        }
        if own.heated || place.keeps_damp_in() {
            all.warm += spots;
        }
        if !own.bay.is_dark() {
            all.light += spots;
        }
    }
    all
}
