//! Every seedling from day to day where its tray stands.

use std::sync::Arc;

use crate::basis::work::{go_on, side_by_side, stretches};
use crate::plan::{SoundPlan, Tray};
use crate::room::Bay;
use crate::season::airs::Airs;
use crate::season::apart::apart;
use crate::season::around::Around;
use crate::season::beside::Beside;
use crate::season::company::Known;
use crate::season::sowing_dates::SowingDates;
use crate::season::spot_light::SpotLights;
use crate::season::tray_growing::{Grown, TrayGrowing};

/// The plants of every part of every tray, day by day.
#[derive(Debug, Default)]
pub struct Growing {
    /// By tray, as the plan has them, and part.
    trays: Vec<Arc<Vec<Grown>>>,
}

/// What grew in a plan of which only the lamps hung otherwise.
#[derive(Clone, Copy)]
pub(super) struct Before<'b> {
    pub(super) growing: &'b Growing,
    /// When everything happened there.
    pub(super) known: Known<'b>,
    /// Whether the lamps of each place hang as they did.
    pub(super) same: &'b [bool],
}

impl Growing {
    /// The plants of `plan`, of which it is `known` when everything happens: all of them from one day to
    /// the next, since the tall shade the low. Pots follow on what stood in cells before. What grew the
    /// same `before` is not reckoned anew.
    pub(super) fn of<'a>(
        plan: &'a SoundPlan,
        known: Known<'_>,
        airs: Airs<'a>,
        lights: SpotLights<'a>,
        before: Option<Before<'_>>,
    ) -> Self {
        let Known { dates, moments } = known;
        let of_tray = |(tray, moments)| TrayGrowing::of(plan, tray, dates, moments);
        let trays: Vec<TrayGrowing<'a>> = plan.trays.iter().zip(moments).map(of_tray).collect();
        let spots = trays.iter().map(|tray| tray.spots.as_slice());
        let season = Season {
            dates,
            beside: Beside::all(plan, &spots.collect::<Vec<_>>()),
        };
        let mut grown_of = vec![Arc::default(); plan.trays.len()];
        let mut groups = apart(plan);
        if let Some(before) = before {
            let all_alike = known.alike(&before.known);
            groups.retain(|group| {
                let stays = |&i: &usize| before.stays(plan, known, i, all_alike);
                let stay = group.iter().all(stays);
                if stay {
                    let grown = &before.growing.trays;
                    group
                        .iter()
                        .for_each(|&i| grown_of[i] = Arc::clone(&grown[i]));
                }
                !stay
            });
        }
        // Those that have nothing to do with each other grow side by side.
        let grown = side_by_side(&stretches(&groups), |groups| {
            let own: Vec<usize> = groups.concat();
            let mut around = Around::new(plan, airs.clone(), lights.clone());
            let mut trays = trays.clone();
            season.passes(&mut trays, &own, &mut around);
            let grown = |i: usize| {
                let parts = std::mem::take(&mut trays[i].parts).into_iter();
                (i, parts.map(|part| part.grown).collect::<Vec<_>>())
            };
            own.into_iter().map(grown).collect::<Vec<_>>()
        });
        for (i, parts) in grown.into_iter().flatten() {
            grown_of[i] = Arc::new(parts);
        }
        Self { trays: grown_of }
    }

    /// The plants of part `part` of the tray at `tray` in the plan.
    pub fn of_part(&self, tray: usize, part: usize) -> Option<&Grown> {
        self.trays.get(tray)?.get(part)
    }

    /// The plants of each part of `tray`.
    pub fn of_tray<'g>(&'g self, plan: &SoundPlan, tray: &Tray) -> &'g [Grown] {
        let index = plan.tray_index(&tray.id);
        let parts = index.and_then(|i| self.trays.get(i));
        parts.map_or(&[], |parts| parts.as_slice())
    }
}

impl Before<'_> {
    /// Whether the tray at `index` has on each day what it had: it stands there on the same days, the lamps of
    /// all its places hang as they did, and whoever shares air with it is there then, too.
    fn stays(&self, plan: &SoundPlan, known: Known<'_>, index: usize, all_alike: bool) -> bool {
        let tray = &plan.trays[index];
        let mut sowings = tray
            .parts
            .iter()
            .map(|part| plan.sowing_index(&part.sowing));
        let mut bays = tray.stands.iter().filter_map(|stand| plan.bay(&stand.bay));
        let in_the_open = |bay: &Bay<'_>| {
            let mut settings = plan.settings(bay.place_index);
            settings.all(|place| place.shares_air(bay.tier_index).is_none())
        };
        known.moments[index] == self.known.moments[index]
            && sowings.all(|sowing| known.turns_alike(&self.known, sowing))
            && bays.all(|bay| self.same[bay.place_index] && (all_alike || in_the_open(&bay)))
    }
}

/// What bears on all trays of a plan from day to day.
struct Season<'s> {
    dates: &'s [SowingDates],
    beside: Beside,
}

impl Season<'_> {
    /// Lets the season pass over `own` of `trays`, which are all of the plan's.
    fn passes<'a>(&self, trays: &mut [TrayGrowing<'a>], own: &[usize], around: &mut Around<'a>) {
        let next = |trays: &[TrayGrowing<'a>]| own.iter().filter_map(|&i| trays[i].next).min();
        let mut yesterday: Vec<Option<(usize, f64)>> = vec![None; trays.len()];
        while let Some(date) = next(trays) {
            go_on();
            for &i in own {
                yesterday[i] = trays[i].stands_on(date);
            }
            for &i in own {
                if trays[i].next != Some(date) {
                    continue;
                }
                let tall = |tray: usize, spot: usize| {
                    let (at, top_mm) = yesterday[tray]?;
                    (at == spot).then_some(top_mm)
                };
                let spot = yesterday[i].map(|(spot, _)| spot);
                let beside = spot.map_or(&[][..], |spot| self.beside.of(i, spot));
                let shaded = |top_mm, own_mm| Beside::unshaded(beside, tall, top_mm, own_mm);
                let potted = trays[i].potted_today(date, trays, self.dates);
                trays[i].day_passes(around, i, (spot, date), potted, shaded);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::light::fields::Fields;
    use crate::season::{HungOtherwise, Outcome, Reckoned};
    use crate::testing::{kettle_fen, reckoned};

    #[test]
    fn only_what_stands_under_a_lamp_that_was_moved_is_grown_anew() {
        // Trays that grow where they are sown: none is carried from one rack to another.
        let plan = |moved_mm: f64| {
            kettle_fen(|plan| {
                plan.places[0].tiers[1].lamps[0].height_mm += moved_mm;
                plan.trays.retain(|tray| !tray.potted);
                for tray in &mut plan.trays {
                    let grows =
                        |stand: &crate::plan::Stand| stand.stage == crate::plan::Stage::Grow;
                    tray.stands.retain(grows);
                }
                plan.trays.retain(|tray| tray.stands.len() < 2);
            })
        };
        let fields = Fields::default();
        let of = |plan: &SoundPlan, before| Outcome::of(plan, &fields, before);
        let (then, now) = (plan(0.0), plan(-2.0));
        let outcome = of(&then, None);
        let same: Vec<bool> = (0..now.places.len()).map(|place| place != 0).collect();
        let before = HungOtherwise {
            outcome: &outcome,
            same: &same,
        };
        let [again, anew] = [of(&now, Some(before)), of(&now, None)];
        let trays = |outcome: &Outcome| {
            Reckoned::with(&now, &fields, outcome.clone())
                .growing
                .trays
                .clone()
        };
        let [then, again, anew] = [&outcome, &again, &anew].map(trays);
        assert_eq!(again, anew);
        for ((tray, then), again) in now.trays.iter().zip(&then).zip(&again) {
            let moved = tray
                .stands
                .iter()
                .any(|stand| stand.bay.place == now.places[0].id);
            assert_eq!(Arc::ptr_eq(then, again), !moved, "{}", tray.name);
        }
    }

    /// The tallest that the plants of `sowing` get, in its first tray.
    fn tallest_mm(plan: &crate::plan::SoundPlan, sowing: &str) -> f64 {
        let all = reckoned(plan);
        let tray = plan.sown_in(sowing).next().expect("a tray");
        let grown = all.growing.of_tray(plan, tray)[0].last();
        grown.expect("it comes up").height_mm
    }

    #[test]
    fn a_variety_is_as_tall_as_it_is_said_to_be_and_lit_as_it_wants() {
        let with = |height_mm, low| {
            kettle_fen(|plan| {
                let mut sowings = plan.sowings.iter_mut();
                let cherry = sowings.find(|s| s.id == "tomato-cherry").expect("cherry");
                cherry.differs.height_out_mm = height_mm;
                cherry.differs.dli_low_mol_m2_d = low;
                cherry.differs.dli_high_mol_m2_d = low.map(|low| low + 1.0);
            })
        };
        let (kind, dwarf) = (with(None, None), with(Some(90.0), None));
        let id = "tomato-cherry";
        assert!(tallest_mm(&dwarf, id) < 0.6 * tallest_mm(&kind, id));
        // One that is content with a dim lamp is advised one, and stands taller for it.
        assert!(tallest_mm(&with(None, Some(5.0)), id) > tallest_mm(&kind, id));
        // Its neighbour of the same kind is none the wiser.
        let plum = tallest_mm(&kind, "tomato");
        assert!((tallest_mm(&dwarf, "tomato") - plum).abs() < 1e-9);
    }

    #[test]
    fn a_low_tray_between_tall_ones_grows_less_and_on_a_box_it_does_not() {
        // Three trays of cherry tomatoes side by side; the middle one is of a dwarf.
        let size = |tall: bool, box_mm: Option<f64>| {
            let plan = crate::testing::one_rack(|plan| {
                let tray = plan.trays[0].clone();
                let mut kind = plan.sowings[0].clone();
                kind.crop = "tomato".into();
                let mut dwarf = kind.clone();
                dwarf.id = "dwarf".into();
                dwarf.variety = "Dwarf".into();
                dwarf.differs.height_out_mm = Some(80.0);
                kind.differs.height_out_mm = Some(250.0);
                plan.sowings = vec![kind, dwarf];
                // A full cell would hold it up sooner than shade.
                plan.tray_formats
                    .iter_mut()
                    .for_each(|format| format.cell_ml = 400.0);
                plan.trays.clear();
                for (i, id) in ["a", "low", "b"].iter().enumerate() {
                    let mut tray = tray.clone();
                    tray.id = (*id).into();
                    tray.name = (*id).to_uppercase();
                    for stand in &mut tray.stands {
                        stand.x_mm = 20.0 + 300.0 * i as f64;
                        stand.along = crate::basis::plane::Axis::Y;
                        stand.box_mm = box_mm.filter(|_| *id == "low");
                    }
                    if *id == "low" {
                        tray.parts[0].sowing = "dwarf".into();
                    } else if !tall {
                        continue;
                    }
                    plan.trays.push(tray);
                }
            });
            let all = reckoned(&plan);
            let tray = plan.trays.iter().find(|tray| tray.id == "low").unwrap();
            let plant = all.growing.of_tray(&plan, tray)[0].last().unwrap();
            plant.size(plan.crop(&plan.sowings[1]))
        };
        // Between tall ones against alone: the lamps over a box are another matter.
        let kept = |box_mm| size(true, box_mm) / size(false, box_mm);
        let (level, raised) = (kept(None), kept(Some(120.0)));
        assert!(level < 0.9 && raised > level + 0.02, "{level} {raised}");
    }
}
