//! Standing all trays that stand nowhere, each on the first spot that suits.

use crate::basis::fault::Fault;
use crate::basis::plane::Axis;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::basis::work::go_on;
use crate::edit::editor::{Editor, Word, fault};
use crate::light::fields::Fields;
use crate::plan::{SoundPlan, Stage, Stand, Tray};
use crate::room::{Bay, bays};
use crate::season::Reckoned;
use crate::season::room_for::RoomFor;
use crate::season::stays::clashes;
use crate::season::suits::{Needs, against};
use crate::space::spots::DeckSpot;

impl Editor {
    /// Gives every tray that stands nowhere the spot that suits it best of those still free, the first
    /// to be sown first. What finds none stays on the tray shelf.
    pub(super) fn stand_all(&mut self, plan: &SoundPlan) -> Word {
        let fields = Fields::default();
        let mut stood: SoundPlan = plan.clone();
        let waiting: Vec<String> = {
            let reckoned = Reckoned::of(plan, &fields);
            let mut waiting: Vec<_> = reckoned.unplaced.iter().collect();
            waiting.sort_by_key(|one| one.days.from);
            waiting.iter().map(|one| one.tray.id.clone()).collect()
        };
        if waiting.is_empty() {
            return Err(fault(
                "stand_all",
                0,
                say!("every tray has a spot already"),
                say!("move single trays by hand"),
            ));
        }
        let mut without = self.settle(&waiting, &mut stood, &fields)?;
        // Days move with the warmth and light of the spot: who then clashes looks again.
        for _ in 0..ROUNDS {
            let clashing: Vec<String> = {
                let reckoned = Reckoned::of(&stood, &fields);
                let clashes = clashes(&reckoned.stays);
                let ids = clashes.iter().map(|clash| clash.second.id.clone());
                let mut ids: Vec<String> = ids.filter(|id| waiting.contains(id)).collect();
                ids.sort();
                ids.dedup();
                ids
            };
            if clashing.is_empty() {
                break;
            }
            for id in &clashing {
                let index = self.tray_at("trays", id)?;
                let before = &plan.trays[index].stands;
                self.plan.trays[index].stands.clone_from(before);
            }
            stood = self.plan.clone().check()?;
            without += self.settle(&clashing, &mut stood, &fields)?;
        }
        let n = Quantity::Count.of((waiting.len() - without) as f64);
        Ok(match without {
            0 => say!("stood all {n} trays", n = n),
            _ => say!(
                "stood {n} trays; {without} found no spot",
                n = n,
                without = Quantity::Count.of(without as f64)
            ),
        })
    }
}

impl Editor {
    /// Stands each tray of `ids` where it suits best in `stood`, one after another; how many found
    /// nothing.
    fn settle(
        &mut self,
        ids: &[String],
        stood: &mut SoundPlan,
        fields: &Fields,
    ) -> Result<usize, Vec<Fault>> {
        let mut without = 0;
        for id in ids {
            go_on();
            let index = self.tray_at("trays", id)?;
            let reckoned = Reckoned::of(stood, fields);
            let Some(tray) = settled(&reckoned, &stood.trays[index]) else {
                without += 1;
                continue;
            };
            self.plan.trays[index] = tray;
            *stood = self.plan.clone().check()?;
        }
        Ok(without)
    }
}

/// So many times those that clash look for another spot.
const ROUNDS: usize = 3;
/// A move is worth this much misfit.
const MOVE: f64 = 2.0;

/// `tray` with the best spots that are free for it; `None` where there are none to grow in.
fn settled(reckoned: &Reckoned<'_>, tray: &Tray) -> Option<Tray> {
    let needs = Needs::of(reckoned.plan, tray, &reckoned.dates);
    let seek = Seek {
        reckoned,
        needs: &needs,
    };
    if tray.potted {
        return Some(seek.best(tray, &[Stage::Grow])?.1);
    }
    let stays = seek.best(tray, &[Stage::Germinate, Stage::Grow]);
    // Where one spot does for both there is nothing to gain by a move.
    if stays.as_ref().is_some_and(|(misfit, _)| *misfit < MOVE) {
        return stays.map(|(_, tray)| tray);
    }
    let moves = seek.best(tray, &[Stage::Grow]).and_then(|(grows, later)| {
        let (germinates, tray) = seek.best(&later, &[Stage::Germinate])?;
        Some((grows + germinates + MOVE, tray))
    });
    let both = [stays, moves].into_iter().flatten();
    both.min_by(|a, b| a.0.total_cmp(&b.0))
        .map(|(_, tray)| tray)
}

/// A search for spots.
struct Seek<'a> {
    reckoned: &'a Reckoned<'a>,
    needs: &'a Needs,
}

impl Seek<'_> {
    /// `tray` on the free spot that suits these `stages` best, from the first of them on.
    fn best(&self, tray: &Tray, stages: &[Stage]) -> Option<(f64, Tray)> {
        let plan = self.reckoned.plan;
        let format = plan.format(tray);
        let mut best: Option<(f64, Tray)> = None;
        for bay in bays(&plan.places) {
            go_on();
            let mut stand = Stand {
                stage: stages[0],
                from: None,
                bay: bay.reference(),
                x_mm: 0.0,
                y_mm: 0.0,
                along: Axis::X,
                box_mm: None,
                stacked: false,
            };
            if !stages.iter().all(|&stage| self.allowed(&bay, tray, stage)) {
                continue;
            }
            let spots = {
                let room = RoomFor::new(self.reckoned, tray, &stand);
                // A stage that never comes needs no spot.
                if room.days.is_empty() {
                    continue;
                }
                room.spots(&bay, None)
            };
            let size = [format.length_mm, format.width_mm];
            let misfit = |spot: &DeckSpot| {
                let of = |stage: &Stage| match stage {
                    Stage::Germinate => self.needs.misfit_germinating(&bay, &spot.footprint(size)),
                    _ => self.needs.misfit_growing(&bay, format).unwrap_or(0.0),
                };
                let sticks_out = if spot.y_mm < -0.5 { 1.0 } else { 0.0 };
                stages.iter().map(of).sum::<f64>() + sticks_out
            };
            let here = spots.iter().map(|spot| (misfit(spot), spot));
            let Some((misfit, spot)) = here.min_by(|a, b| a.0.total_cmp(&b.0)) else {
                continue;
            };
            if best.as_ref().is_none_or(|(least, _)| misfit < *least) {
                (stand.x_mm, stand.y_mm, stand.along) = (spot.x_mm, spot.y_mm, spot.along);
                best = Some((misfit, tray.restood(&stand)));
            }
        }
        best
    }

    /// Whether `tray` may stand in `bay` in `stage` at all, wherever there is room.
    fn allowed(&self, bay: &Bay<'_>, tray: &Tray, stage: Stage) -> bool {
        let format = self.reckoned.plan.format(tray);
        let anywhere = [DeckSpot {
            x_mm: 0.0,
            y_mm: 0.0,
            along: Axis::X,
        }];
        let grows = stage != Stage::Grow || self.needs.misfit_growing(bay, format).is_some();
        grows && !bay.place.outdoors() && against(bay, tray, format, stage, &anywhere).is_none()
    }
}
