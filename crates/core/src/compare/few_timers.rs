//! Few settings of timers for all lit shelves of a room, and what sharing them costs the seedlings.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::fault::Pointer;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::detail::Detail;
use crate::day::shelf_hours::ShelfHours;
use crate::day::view::Looker;
use crate::edit::{Edit, apply};
use crate::lamps::outcome::Outcome;
use crate::lamps::shared_hours::{AtHours, MOST_SETTINGS, shared};
use crate::lamps::start::{Start, USUAL_STEP_MIN, step_min};
use crate::plan::patch::{Fix, PatchStep};
use crate::plan::{Plan, SoundPlan};
use crate::power::drawn_w;
use crate::room::{Bay, BayRef, Tier, bays};
use crate::season::Reckoned;

/// The settings of timers as they are, and how few would serve.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TimersToday {
    /// How many settings the lit shelves have now.
    pub settings_now: u32,
    /// The share of all cells that get the wrong light now.
    pub wrong_now: f64,
    /// What the lamps cost a day now, in the site's currency.
    pub cost_now: f64,
    /// One setting for all, two, and so on, until another gains nothing.
    pub ways: Vec<FewTimers>,
    /// The index of the one with the fewest settings that does as well as the last.
    pub best: u32,
}

/// All lit shelves on so many settings of their timers.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct FewTimers {
    /// The settings, and who shares each.
    pub settings: Vec<TimerSetting>,
    /// The share of all cells that get the wrong light then: too little for their crop, or harm.
    pub wrong: f64,
    /// What the lamps cost a day then, in the site's currency.
    pub cost_per_day: f64,
    /// The edit: heights, hours, and timers where shelves share one that no longer have the same hours;
    /// `None` where all is so already.
    pub fix: Option<Fix>,
}

/// Hours at which several shelves burn.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TimerSetting {
    /// When they go on and off.
    pub start: Start,
    /// Hours a day.
    pub hours_h: f64,
    /// The shelves.
    pub shelves: Vec<SharingShelf>,
}

/// A shelf that shares a setting.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SharingShelf {
    /// The bay.
    pub bay: BayRef,
    /// In words.
    pub name: String,
    /// How high its lamps hang then.
    pub height_mm: f64,
    /// The share of its cells that get the wrong light.
    pub wrong: f64,
    /// The same with hours of its own.
    pub wrong_alone: f64,
    /// Whether sharing costs it more than anybody would notice.
    pub worse: bool,
}

/// So much larger a share of cells in the wrong light is as good: on the whole, and on a shelf (our own
/// estimates).
const AS_GOOD: f64 = 0.03;
const UNNOTICED: f64 = 0.02;

/// The best ways for the shelves that are lit on `date` to share one setting, two, and so on, until
/// another gains nothing; `None` where fewer than two are lit.
pub fn few_timers(reckoned: &Reckoned<'_>, date: Date) -> Option<TimersToday> {
    let plan = reckoned.plan;
    let mut looker = Looker::new(reckoned, Detail::Days);
    let places = 0..plan.places.len();
    let shelves: Vec<ShelfHours<'_>> = places.flat_map(|i| looker.by_hours(i, date)).collect();
    if shelves.len() < 2 {
        return None;
    }
    let each: Vec<Vec<AtHours>> = shelves.iter().map(|shelf| shelf.each.clone()).collect();
    let alone: Vec<AtHours> = each
        .iter()
        .filter_map(|own| shared(std::slice::from_ref(own), 1)?.first().copied())
        .collect();
    if alone.len() < shelves.len() {
        return None;
    }
    let wrong = |all: &[AtHours]| all.iter().map(|at| at.outcome.wrong()).sum::<f64>();
    let least = wrong(&alone);
    let mut ways: Vec<FewTimers> = Vec::new();
    for settings in 1..=MOST_SETTINGS {
        let Some(way) = shared(&each, settings) else {
            continue;
        };
        ways.push(as_way(plan, &shelves, &way, &alone));
        if wrong(&way) <= least + 0.5 {
            break;
        }
    }
    Some(today(plan, &shelves, ways))
}

fn today(plan: &SoundPlan, shelves: &[ShelfHours<'_>], ways: Vec<FewTimers>) -> TimersToday {
    let now: Outcome = shelves.iter().map(|shelf| shelf.now).sum();
    let mut settings: Vec<[u64; 2]> = shelves
        .iter()
        .map(|shelf| shelf.bay.tier.burning())
        .map(|burning| [burning.from_h.to_bits(), burning.hours.to_bits()])
        .collect();
    settings.sort_unstable();
    settings.dedup();
    let tiers = shelves.iter().map(|shelf| shelf.bay.tier);
    let costs = tiers.map(|tier| plan.site.cost_on(None, drawn_w(tier), tier.burning()));
    let least = ways.last().map_or(0.0, |way| way.wrong);
    let best = ways.iter().position(|way| way.wrong <= least + AS_GOOD);
    TimersToday {
        best: best.unwrap_or_default() as u32,
        settings_now: settings.len() as u32,
        wrong_now: now.wrong() / now.cells.max(1.0),
        cost_now: costs.sum(),
        ways,
    }
}

fn as_way(
    plan: &SoundPlan,
    shelves: &[ShelfHours<'_>],
    way: &[AtHours],
    alone: &[AtHours],
) -> FewTimers {
    let mut hours: Vec<f64> = way.iter().map(|at| at.setting.hours_h).collect();
    hours.sort_by(f64::total_cmp);
    hours.dedup();
    let mut then: Plan = (**plan).clone();
    let mut settings = Vec::new();
    for hours_h in hours {
        let who: Vec<usize> = (0..way.len())
            .filter(|&i| way[i].setting.hours_h == hours_h)
            .collect();
        let bays: Vec<&Bay<'_>> = who.iter().map(|&i| &shelves[i].bay).collect();
        let watts: f64 = who.iter().map(|&i| watts(&shelves[i].bay, &way[i])).sum();
        // The coarsest clock among them sets the step.
        let steps = bays.iter().map(|bay| step_min(bay.tier, &plan.wiring));
        let step_min = steps.max().unwrap_or(USUAL_STEP_MIN);
        let now_h = usual_start(&bays);
        let start = Start::best_in_steps(hours_h, now_h, watts, &plan.site, step_min);
        for &i in &who {
            let bay = &shelves[i].bay;
            let tier = &mut then.places[bay.place_index].tiers[bay.tier_index];
            way[i].setting.set(tier);
            if tier.burning().from_h != start.from_h {
                tier.lights_on_h = Some(start.from_h);
            }
        }
        let shelf = |&i: &usize| SharingShelf {
            bay: shelves[i].bay.reference(),
            name: shelves[i].bay.name(),
            height_mm: way[i].setting.height_mm,
            wrong: share(&way[i]),
            wrong_alone: share(&alone[i]),
            worse: share(&way[i]) > share(&alone[i]) + UNNOTICED,
        };
        settings.push(TimerSetting {
            start,
            hours_h,
            shelves: who.iter().map(shelf).collect(),
        });
    }
    let cost = settings.iter().map(|s| s.start.cost_per_day).sum();
    let (cells, wrong) = way.iter().fold((0.0, 0.0), |(cells, wrong), at| {
        (cells + at.outcome.cells, wrong + at.outcome.wrong())
    });
    let wrong = wrong / f64::max(cells, 1.0);
    let n = Quantity::Count.of(settings.len() as f64);
    let patch = with_timers(then).map_or_else(Vec::new, |then| patch(plan, &then));
    FewTimers {
        fix: (!patch.is_empty()).then(|| Fix {
            label: say!("Set the timers so"),
            word: say!("{n} settings of the timers for all lit shelves", n = n),
            patch,
        }),
        settings,
        wrong,
        cost_per_day: cost,
    }
}

fn watts(bay: &Bay<'_>, at: &AtHours) -> f64 {
    drawn_w(bay.tier) * at.setting.brightness
}

fn share(at: &AtHours) -> f64 {
    at.outcome.wrong() / at.outcome.cells.max(1.0)
}

/// When most of `bays` go on now, the earliest of equals.
fn usual_start(bays: &[&Bay<'_>]) -> f64 {
    let from = |bay: &&Bay<'_>| bay.tier.burning().from_h;
    let like = |h: f64| bays.iter().filter(|bay| from(bay) == h).count();
    let mut starts: Vec<f64> = bays.iter().map(from).collect();
    starts.sort_by(f64::total_cmp);
    // The last of equals is taken: from behind that is the earliest.
    let most = starts.into_iter().rev().max_by_key(|&h| like(h));
    most.unwrap_or_default()
}

/// How `plan` becomes `then`, bay by bay, and its wiring.
fn patch(plan: &SoundPlan, then: &Plan) -> Vec<PatchStep> {
    let tier = |bay: &Bay<'_>| &then.places[bay.place_index].tiers[bay.tier_index];
    let changed = bays(&plan.places).filter(|bay| tier(bay) != bay.tier);
    let mut patch: Vec<PatchStep> = changed
        .flat_map(|bay| PatchStep::between(&bay.pointer(), bay.tier, tier(&bay)))
        .collect();
    if then.wiring != plan.wiring {
        let at = Pointer::default().at("wiring");
        patch.push(PatchStep::set(&at, &then.wiring));
    }
    patch
}

/// `plan`, in which timers that would have to switch shelves at different hours keep those of the setting
/// that most of theirs have; the others are plugged in anew.
fn with_timers(plan: Plan) -> Option<Plan> {
    let mut cut = plan.clone();
    let hours = |tier: &Tier| {
        (
            tier.burning().from_h.to_bits(),
            tier.burning().hours.to_bits(),
        )
    };
    let mut odd = false;
    for feed in &plan.wiring.feeds {
        let on_it = |bay: &Bay<'_>| {
            let timer = plan.wiring.timer_of(bay.tier);
            !bay.tier.lamps.is_empty() && timer.is_some_and(|(timer, _)| timer.id == feed.id)
        };
        let shelves: Vec<Bay<'_>> = bays(&plan.places).filter(on_it).collect();
        let alike = |of: &&Bay<'_>| {
            let own = hours(of.tier);
            shelves.iter().filter(|bay| hours(bay.tier) == own).count()
        };
        // The last of equals is taken: from behind that is the first.
        let Some(most) = shelves.iter().rev().max_by_key(alike) else {
            continue;
        };
        for bay in shelves
            .iter()
            .filter(|bay| hours(bay.tier) != hours(most.tier))
        {
            let tier = &mut cut.places[bay.place_index].tiers[bay.tier_index];
            tier.lamps.iter_mut().for_each(|lamp| lamp.plugged = None);
            odd = true;
        }
    }
    if !odd {
        return Some(plan);
    }
    let sound = cut.check().ok()?;
    Some(apply(&sound, &Edit::ProposeWiring).ok()?.plan)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::patch::patched;
    use crate::testing::{kettle_fen, reckoned};
    use jiff::civil::date;

    const DAY: Date = date(2027, 4, 10);

    #[test]
    fn more_settings_never_do_more_harm_and_what_is_said_comes_true() {
        let plan = kettle_fen(|_| ());
        let today = few_timers(&reckoned(&plan), DAY).unwrap();
        assert!(today.settings_now >= 3 && today.cost_now > 4.0, "{today:?}");
        let ways = today.ways;
        for pair in ways.windows(2) {
            assert!(pair[1].wrong <= pair[0].wrong + 1e-9);
        }
        for (i, way) in ways.iter().enumerate() {
            assert!(way.settings.len() <= i + 1);
            let Some(fix) = &way.fix else { continue };
            let then = patched(&plan, &fix.patch).unwrap().check().unwrap();
            for setting in &way.settings {
                for shelf in &setting.shelves {
                    let tier = then.bay(&shelf.bay).unwrap().tier;
                    assert_eq!(tier.burning().hours, setting.hours_h);
                    assert_eq!(tier.burning().from_h, setting.start.from_h);
                }
            }
            // Set so, it is as it was said.
            let again = few_timers(&reckoned(&then), DAY).unwrap();
            assert!(again.settings_now as usize <= i + 1);
            for is in [again.wrong_now, again.ways[i].wrong] {
                assert!((is - way.wrong).abs() < 0.02, "{is} {}", way.wrong);
            }
        }
    }

    /// How many timers switch shelves that want different hours.
    fn torn(plan: &Plan) -> usize {
        let timers = plan.wiring.feeds.iter().filter(|feed| {
            let on_it = |bay: &Bay<'_>| {
                let timer = plan.wiring.timer_of(bay.tier);
                timer.is_some_and(|(timer, _)| timer.id == feed.id)
            };
            let mut hours: Vec<f64> = bays(&plan.places)
                .filter(on_it)
                .map(|bay| bay.tier.photoperiod_h)
                .collect();
            hours.dedup();
            hours.len() > 1
        });
        timers.count()
    }

    #[test]
    fn a_timer_that_cannot_serve_both_keeps_one_and_the_other_gets_its_own() {
        let plan = kettle_fen(|plan| {
            let rack = plan.places.iter_mut().find(|place| place.id == "door");
            let tiers = &mut rack.unwrap().tiers;
            let first = tiers[0].lamps[0].plugged.clone();
            let all = tiers.iter_mut().flat_map(|tier| &mut tier.lamps);
            all.for_each(|lamp| lamp.plugged.clone_from(&first));
            tiers[1].photoperiod_h = 13.0;
        });
        assert_eq!(torn(&plan), 1);
        let then = with_timers((*plan).clone()).unwrap();
        assert_eq!(torn(&then), 0);
        assert!(then.wiring.feeds.len() > plan.wiring.feeds.len());
        assert!(then.check().is_ok());
    }

    #[test]
    fn one_lit_shelf_or_none_has_nothing_to_share() {
        let plan = kettle_fen(|plan| plan.trays.clear());
        assert!(few_timers(&reckoned(&plan), DAY).is_none());
    }
}
