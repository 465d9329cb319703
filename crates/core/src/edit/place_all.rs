//! Placing all trays: the room as a whole, then what is of an odd size on the first spot that suits.

use std::collections::BTreeMap;

use crate::basis::dates::DateSpan;
use crate::basis::fault::Fault;
use crate::basis::plane::Axis;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::basis::work::go_on;
use crate::edit::editor::{Editor, Word, fault};
use crate::light::fields::Fields;
use crate::placement::solver::{Effort, Progress};
use crate::placement::{How, place_all};
use crate::plan::{SoundPlan, Stage, Stand, Tray};
use crate::room::container::TrayFormat;
use crate::room::{Bay, BayRef, bays};
use crate::season::Reckoned;
use crate::season::room_for::RoomFor;
use crate::season::stays::clashes;
use crate::season::suits::{Needs, against};
use crate::space::spots::DeckSpot;

impl Editor {
    /// Places every tray, the room as a whole; what is of another size than most takes what is left.
    /// What finds no spot stays on the tray shelf.
    pub(super) fn place_all(&mut self, plan: &SoundPlan, afresh: bool) -> Word {
        let how = How {
            afresh,
            effort: Effort::Little,
        };
        self.place_all_with(plan, how, &Fields::default(), &mut |_| true)
    }

    /// The same with another effort, heard of by `tell`.
    pub(super) fn place_all_with(
        &mut self,
        plan: &SoundPlan,
        how: How,
        fields: &Fields,
        tell: &mut dyn FnMut(Progress) -> bool,
    ) -> Word {
        if plan.trays.is_empty() {
            return Err(fault(
                "place_all",
                0,
                say!("there are no trays to place"),
                say!("sow something first"),
            ));
        }
        self.plan.trays = place_all(plan, how, fields, tell);
        let mut stood = self.sound()?;
        let waiting: Vec<String> = {
            let reckoned = Reckoned::of(&stood, fields);
            let nowhere = reckoned.unplaced.iter();
            nowhere.map(|one| one.tray.id.clone()).collect()
        };
        let was: Vec<Tray> = self.plan.trays.clone();
        let mut avoid = Avoid::new();
        let mut without = self.settle(&waiting, &mut stood, fields, &avoid)?;
        // Days move with the warmth and light of the spot: who then clashes looks again.
        for _ in 0..ROUNDS {
            let clashing: Vec<String> = {
                let reckoned = Reckoned::of(&stood, fields);
                let clashes = clashes(&reckoned.stays);
                let both = clashes
                    .iter()
                    .flat_map(|clash| [&clash.second.id, &clash.first.id]);
                let mut ids: Vec<String> =
                    both.filter(|id| waiting.contains(id)).cloned().collect();
                ids.sort();
                ids.dedup();
                ids
            };
            if clashing.is_empty() {
                break;
            }
            for id in &clashing {
                let index = self.tray_at("trays", id)?;
                let bays = self.plan.trays[index]
                    .stands
                    .iter()
                    .map(|stand| stand.bay.clone());
                avoid.entry(id.clone()).or_default().extend(bays);
                self.plan.trays[index].stands.clone_from(&was[index].stands);
            }
            stood = self.sound()?;
            without += self.settle(&clashing, &mut stood, fields, &avoid)?;
        }
        if self.plan.trays == plan.trays {
            return Err(fault(
                "place_all",
                0,
                match without {
                    0 => say!("every tray has a spot already"),
                    _ => say!("nothing more fits"),
                },
                match without {
                    0 => say!("move single trays by hand, or place all of them afresh"),
                    _ => say!("sow less at a time, or add a shelf"),
                },
            ));
        }
        let n = Quantity::Count.of((plan.trays.len() - without) as f64);
        Ok(match without {
            0 => say!("placed all {n} trays", n = n),
            _ => say!(
                "placed {n} trays; {without} found no spot",
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
        avoid: &Avoid,
    ) -> Result<usize, Vec<Fault>> {
        let mut without = 0;
        for id in ids {
            go_on();
            let index = self.tray_at("trays", id)?;
            let reckoned = Reckoned::of(stood, fields);
            let shut = avoid.get(id).map_or(&[][..], Vec::as_slice);
            let Some(tray) = settled(&reckoned, &stood.trays[index], shut) else {
                without += 1;
                continue;
            };
            self.plan.trays[index] = tray;
            *stood = self.sound()?;
        }
        Ok(without)
    }
}

/// The bays in which a tray clashed with others: its days move with its spot.
type Avoid = BTreeMap<String, Vec<BayRef>>;

/// So many times those that clash look for another spot.
const ROUNDS: usize = 3;
/// A move is worth this much misfit.
const MOVE: f64 = 2.0;

/// `tray` with the best spots that are free for it; `None` where there are none to grow in.
fn settled(reckoned: &Reckoned<'_>, tray: &Tray, shut: &[BayRef]) -> Option<Tray> {
    let needs = Needs::of(reckoned.plan, tray, &reckoned.dates);
    let seek = Seek {
        reckoned,
        needs: &needs,
        shut,
    };
    if tray.stand_in(Stage::Grow).is_some() {
        let germinates = seek.best(tray, &[Stage::Germinate]);
        return Some(germinates.or_else(|| seek.stacked(tray))?.1);
    }
    if tray.potted {
        return Some(seek.best(tray, &[Stage::Grow])?.1);
    }
    let stays = seek.best(tray, &[Stage::Germinate, Stage::Grow]);
    // Where one spot does for both there is nothing to gain by a move.
    if stays.as_ref().is_some_and(|(misfit, _)| *misfit < MOVE) {
        return stays.map(|(_, tray)| tray);
    }
    let moves = seek.best(tray, &[Stage::Grow]).and_then(|(grows, later)| {
        let germinates = seek.best(&later, &[Stage::Germinate]);
        let (germinates, tray) = germinates.or_else(|| seek.stacked(&later))?;
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
    /// Bays in which it clashed with others.
    shut: &'a [BayRef],
}

impl Seek<'_> {
    /// `tray` on the free spot that suits these `stages` best, from the first of them on.
    fn best(&self, tray: &Tray, stages: &[Stage]) -> Option<(f64, Tray)> {
        self.best_of(tray, stages, false)
    }

    /// `tray` on top of another while both germinate: where no spot is left for that, the seed of neither
    /// wants light, and no dome is in the way.
    fn stacked(&self, tray: &Tray) -> Option<(f64, Tray)> {
        if self.needs.wants_light() {
            return None;
        }
        self.best_of(tray, &[Stage::Germinate], true)
    }

    /// Whether `bay` is high enough for two trays of `format`, one on the other, and damp without domes.
    fn takes_stacks(bay: &Bay<'_>, format: &TrayFormat) -> bool {
        let domes = format.dome_height_mm.is_some() && !bay.place.keeps_damp_in();
        let room_mm = bay.lowest_overhead_mm() - bay.tier.lift_mm();
        !domes && room_mm >= 2.0 * format.height_mm
    }

    /// Whether the seed in what lies under a tray stacked on `spot` comes up in the dark.
    fn may_be_dark(
        &self,
        bay: &BayRef,
        spot: &DeckSpot,
        size: [f64; 2],
        days: &[DateSpan],
    ) -> bool {
        let own = spot.footprint(size);
        let stays = self.reckoned.stays.iter();
        let mut under = stays
            .filter(|stay| !stay.stacked && stay.is_in(bay, days) && stay.footprint.overlaps(&own));
        let (plan, dates) = (self.reckoned.plan, &self.reckoned.dates);
        under.all(|stay| !Needs::of(plan, stay.tray, dates).wants_light())
    }

    fn best_of(&self, tray: &Tray, stages: &[Stage], stacked: bool) -> Option<(f64, Tray)> {
        let plan = self.reckoned.plan;
        let format = plan.format(tray);
        let mut best: Option<(f64, Tray)> = None;
        let open = bays(&plan.places).filter(|bay| !self.shut.contains(&bay.reference()));
        for bay in open {
            go_on();
            let mut stand = Stand {
                stage: stages[0],
                from: None,
                bay: bay.reference(),
                x_mm: 0.0,
                y_mm: 0.0,
                along: Axis::X,
                box_mm: None,
                stacked,
            };
            if stacked && !Self::takes_stacks(&bay, format) {
                continue;
            }
            if !stages.iter().all(|&stage| self.allowed(&bay, tray, stage)) {
                continue;
            }
            let size = [format.length_mm, format.width_mm];
            let mut spots;
            {
                let room = RoomFor::new(self.reckoned, tray, &stand);
                // A stage that never comes needs no spot.
                if room.days.is_empty() {
                    continue;
                }
                spots = room.spots(&bay, None);
                let at = bay.reference();
                spots.retain(|spot| !stacked || self.may_be_dark(&at, spot, size, &room.days));
            }
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
