//! The solver's answer laid on the decks: each tray on a position of its own.

use std::collections::{BTreeMap, HashMap, HashSet};

use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::plane::Footprint;
use crate::placement::asked::Asked;
use crate::placement::positions::{Positions, id_of, is_heated};
use crate::placement::solver::Answer;
use crate::plan::{Stage, Stand, Tray};
use crate::room::container::TrayFormat;
use crate::season::Reckoned;
use crate::season::suits::Needs;
use crate::space::decks::post_footprints;
use crate::space::spots::{DeckSpot, free_spots};

/// The plan's trays, each laid where the answer has it.
pub(super) fn laid(asked: &Asked<'_>, reckoned: &Reckoned<'_>, answer: &Answer) -> Vec<Tray> {
    let plan = reckoned.plan;
    let index = asked.positions.iter().map(|own| (own.id.as_str(), own));
    let index: HashMap<&str, &Positions<'_>> = index.collect();
    let mut decks = Decks::default();
    // What is not asked about lies where it lies.
    for stay in &reckoned.stays {
        if !asked.stages.contains_key(&stay.tray.id) {
            decks.lay(&id_of(stay.bay, false), stay.days, stay.footprint, 0.0);
        }
    }
    let mut runs: Vec<Run<'_>> = Vec::new();
    for tray in &plan.trays {
        let Some(stages) = asked.stages.get(&tray.id) else {
            continue;
        };
        let places = &answer.assignment[&tray.id];
        runs.extend(runs_of(reckoned, tray, stages, places));
    }
    // What keeps its spot lies first; then the tallest, beside each other.
    runs.sort_by(|a, b| {
        let key = |run: &Run<'_>| (run.was.is_none(), run.days.from);
        key(a)
            .cmp(&key(b))
            .then_with(|| b.tall_mm.total_cmp(&a.tall_mm))
    });
    let mut laid: BTreeMap<&str, Vec<Stand>> = BTreeMap::new();
    let mut grows: HashSet<&str> = HashSet::new();
    for run in &runs {
        let Some(own) = index.get(run.place.as_str()) else {
            continue;
        };
        if let Some(spot) = decks.spot_for(run, own, plan.format(run.tray)) {
            let id = run.tray.id.as_str();
            if run.grows {
                grows.insert(id);
            }
            let stands = laid.entry(id).or_default();
            stands.push(Stand {
                stage: run.stage,
                from: None,
                bay: own.bay.reference(),
                x_mm: spot.x_mm,
                y_mm: spot.y_mm,
                along: spot.along,
                box_mm: None,
                stacked: false,
            });
        }
    }
    let trays = plan.trays.iter().map(|tray| {
        let id = tray.id.as_str();
        let Some(stages) = asked.stages.get(id) else {
            return tray.clone();
        };
        let mut placed = tray.clone();
        placed.stands = laid.remove(tray.id.as_str()).unwrap_or_default();
        placed.stands.sort_by_key(|stand| stand.stage);
        // What has nowhere to grow is better said to stand nowhere than left where it came up.
        if stages.iter().any(|(stage, _)| *stage == Stage::Grow) && !grows.contains(id) {
            placed.stands.clear();
        }
        // What stays is said as it was.
        if stages
            .iter()
            .all(|(stage, _)| stands_alike(tray, &placed, *stage))
        {
            return tray.clone();
        }
        placed
    });
    trays.collect()
}

/// Whether a tray is at the same spot in both, or at none.
fn stands_alike(before: &Tray, after: &Tray, stage: Stage) -> bool {
    match (before.stand_in(stage), after.stand_in(stage)) {
        (Some(before), Some(after)) => before.same_spot(after),
        (before, after) => before.is_none() && after.is_none(),
    }
}

/// A tray in one place without a break.
struct Run<'r> {
    tray: &'r Tray,
    /// The first of its stages.
    stage: Stage,
    /// Whether it grows there.
    grows: bool,
    days: DateSpan,
    place: String,
    /// Where it lies there already.
    was: Option<&'r Stand>,
    tall_mm: f64,
}

/// The runs of a tray whose `stages` stand at `places`.
fn runs_of<'r>(
    reckoned: &Reckoned<'_>,
    tray: &'r Tray,
    stages: &[(Stage, DateSpan)],
    places: &[Option<String>],
) -> Vec<Run<'r>> {
    let needs = Needs::of(reckoned.plan, tray, &reckoned.dates);
    let mut runs: Vec<Run<'r>> = Vec::new();
    for ((stage, days), place) in stages.iter().zip(places) {
        let Some(place) = place else { continue };
        match runs.last_mut() {
            Some(last) if last.place == *place && plus_days(last.days.to, 1) == days.from => {
                last.days.to = days.to;
                last.grows |= *stage == Stage::Grow;
            }
            _ => runs.push(Run {
                tray,
                stage: *stage,
                grows: *stage == Stage::Grow,
                days: *days,
                place: place.clone(),
                was: tray.stand_in(*stage).filter(|stand| {
                    let bay = reckoned.plan.bay(&stand.bay);
                    let outline = stand.footprint(reckoned.plan.format(tray));
                    bay.is_some_and(|bay| id_of(&stand.bay, is_heated(&bay, &outline)) == *place)
                }),
                tall_mm: needs.tall_mm(),
            }),
        }
    }
    runs
}

/// What lies on the decks, with its days.
#[derive(Default)]
struct Decks(HashMap<String, Vec<(DateSpan, Footprint, f64)>>);

impl Decks {
    fn lay(&mut self, deck: &str, days: DateSpan, outline: Footprint, tall_mm: f64) {
        self.0
            .entry(deck.to_owned())
            .or_default()
            .push((days, outline, tall_mm));
    }

    /// The spot for a run on its positions, which is taken from then on: its own, or the free one whose
    /// neighbours are most like it.
    fn spot_for(
        &mut self,
        run: &Run<'_>,
        own: &Positions<'_>,
        format: &TrayFormat,
    ) -> Option<DeckSpot> {
        let deck = id_of(&own.bay.reference(), false);
        let size = [format.length_mm, format.width_mm];
        let there = self.0.entry(deck.clone()).or_default();
        let there: Vec<&(DateSpan, Footprint, f64)> = there
            .iter()
            .filter(|(days, ..)| days.meets(run.days))
            .collect();
        let free = |spot: &DeckSpot| {
            let outline = spot.footprint(size);
            !there.iter().any(|(_, other, _)| other.overlaps(&outline))
        };
        let was = run.was.map(|stand| DeckSpot {
            x_mm: stand.x_mm,
            y_mm: stand.y_mm,
            along: stand.along,
        });
        let unlike = |spot: &DeckSpot| {
            let outline = spot.footprint(size);
            let near = there
                .iter()
                .filter(|(_, other, _)| is_beside(other, &outline));
            near.map(|(_, _, tall_mm)| (tall_mm - run.tall_mm).abs())
                .sum::<f64>()
        };
        let spot = was.filter(free).or_else(|| {
            let spots = own.spots.iter().copied().filter(free);
            spots.min_by(|a, b| unlike(a).total_cmp(&unlike(b)))
        });
        // What was stood by hand may lie across two positions: whatever is left between does too.
        let spot = spot.or_else(|| {
            let place = own.bay.place;
            let mut taken = post_footprints(place);
            taken.extend(there.iter().map(|(_, outline, _)| *outline));
            let spots = free_spots([place.width_mm, place.depth_mm], &taken, size, None);
            let suits = |spot: &DeckSpot| {
                let inside = !place.is_closed() || spot.y_mm >= 0.0;
                inside && is_heated(&own.bay, &spot.footprint(size)) == own.heated
            };
            spots.into_iter().find(suits)
        })?;
        self.lay(&deck, run.days, spot.footprint(size), run.tall_mm);
        Some(spot)
    }
}

/// Whether two trays lie next to each other.
fn is_beside(a: &Footprint, b: &Footprint) -> bool {
    const NEAR_MM: f64 = 60.0;
    a.apart_mm(b).iter().all(|apart| *apart < NEAR_MM)
}
