//! On-times of timers moved apart, so that less is on at once behind a circuit or a plug.

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::clock::{Burning, ClockSpan};
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::lamps::start::step_min;
use crate::plan::SoundPlan;
use crate::plan::patch::{Fix, PatchStep};
use crate::power::draw::{Draw, Drawer};
use crate::power::load::{DayLoad, day_load};
use crate::power::spread;
use crate::power::spread::Window;
use crate::room::wiring::Feed;
use crate::room::{Bay, BayRef, bays};

/// On-times moved apart.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Apart {
    /// The feed that carries less for it.
    pub feed: String,
    /// The most that is on at once behind it now, in W.
    pub peak_w: f64,
    /// The most then.
    pub peak_then_w: f64,
    /// In a sentence.
    pub verdict: Statement,
    /// The edit.
    pub fix: Fix,
    /// The load of the day then.
    #[serde(skip)]
    pub load: DayLoad,
}

/// Shelves whose lamps go on and off together, and when.
struct Group<'a> {
    shelves: Vec<Bay<'a>>,
    window: Window,
}

/// The on-times by which the least is on at once behind `feed`, where that is less than now with `draws`.
pub fn apart(plan: &SoundPlan, feed: &Feed, draws: &[Draw]) -> Option<Apart> {
    let behind = |draw: &&Draw| {
        let path = draw.plugged.as_deref().map(|id| plan.wiring.path(id));
        path.is_some_and(|path| path.iter().any(|on| on.id == feed.id))
    };
    let (lamps, others): (Vec<&Draw>, Vec<&Draw>) = draws
        .iter()
        .filter(behind)
        .partition(|draw| draw.what == Drawer::Lamp && draw.hours.is_some());
    let groups = groups(plan, &lamps);
    let switched = others.iter().any(|draw| draw.hours.is_some());
    if groups.len() < 2 && !switched {
        // One clock alone is never apart.
        return None;
    }
    let windows: Vec<Window> = groups.iter().map(|group| group.window).collect();
    let others: Vec<(Burning, f64)> = others
        .iter()
        .map(|draw| (draw.burning(), draw.volt_amps()))
        .collect();
    let starts = spread::apart(&windows, &others, &plan.site);
    let moved = || {
        let each = groups.iter().zip(&starts);
        each.filter(|(group, start)| group.window.burning.from_h != **start)
    };
    let mut then = draws.to_vec();
    let mut patch = Vec::new();
    for (group, &from_h) in moved() {
        let to_h = Burning::new(from_h, group.window.burning.hours).to_h();
        for bay in &group.shelves {
            patch.push(PatchStep::set(&bay.pointer().at("lights_on_h"), from_h));
            let own = Some(bay.reference());
            let lamps = then.iter_mut().filter(|draw| draw.bay == own);
            for lamp in lamps.filter(|draw| draw.what == Drawer::Lamp && draw.hours.is_some()) {
                lamp.hours = Some(ClockSpan { from_h, to_h });
            }
        }
    }
    let load = |draws: &[Draw]| day_load(&plan.wiring, plan.site.mains_v, draws);
    let peak_w = |load: &DayLoad| {
        let on = load.feeds.iter().find(|on| on.feed == feed.id);
        on.map_or(0.0, |on| on.load.peak_w)
    };
    let (now, then) = (load(draws), load(&then));
    let (is, less) = (peak_w(&now), peak_w(&then));
    let watts = |value: f64| Quantity::PowerW.of(value);
    (less < is - 1e-6).then(|| Apart {
        feed: feed.id.clone(),
        peak_w: is,
        peak_then_w: less,
        verdict: say!(
            "{feed}: with its on-times set apart, {less} at most are on at once instead of {is}",
            feed = &feed.name,
            less = watts(less),
            is = watts(is)
        ),
        fix: Fix {
            label: say!("Set the on-times apart"),
            word: say!("set the on-times of {feed} apart", feed = &feed.name),
            patch,
        },
        load: then,
    })
}

/// The shelves of `lamps`, by the timer that switches them together.
fn groups<'a>(plan: &'a SoundPlan, lamps: &[&Draw]) -> Vec<Group<'a>> {
    let mut groups: Vec<(Option<&str>, Group<'a>)> = Vec::new();
    let all: Vec<Bay<'a>> = bays(&plan.places).collect();
    let drawn = |bay: &BayRef| -> f64 {
        let own = lamps.iter().filter(|draw| draw.bay.as_ref() == Some(bay));
        own.map(|draw| draw.volt_amps()).sum()
    };
    for bay in all {
        let volt_amps = drawn(&bay.reference());
        if volt_amps == 0.0 {
            continue;
        }
        let timer = plan.wiring.timer_of(bay.tier);
        let timer = timer.map(|(feed, _)| feed.id.as_str());
        let burning = bay.tier.burning();
        let with = groups
            .iter_mut()
            .find(|(of, group)| timer.is_some() && *of == timer && group.window.burning == burning);
        match with {
            Some((_, group)) => {
                group.shelves.push(bay);
                group.window.volt_amps += volt_amps;
            }
            None => groups.push((
                timer,
                Group {
                    shelves: vec![bay],
                    window: Window {
                        burning,
                        volt_amps,
                        step_min: step_min(bay.tier, &plan.wiring),
                    },
                },
            )),
        }
    }
    groups.into_iter().map(|(_, group)| group).collect()
}

#[cfg(test)]
mod tests {
    use super::apart;
    use crate::day::draws::by_label;
    use crate::plan::patch::patched;
    use crate::testing::{kettle_fen, sound, tier};

    #[test]
    fn twelve_hours_and_twelve_need_not_meet_and_the_edit_makes_it_so() {
        let plan = kettle_fen(|plan| {
            plan.site.quiet = None;
            let places = plan.places.iter_mut();
            for tier in places.flat_map(|place| &mut place.tiers) {
                (tier.photoperiod_h, tier.lights_on_h) = (12.0, Some(6.0));
            }
        });
        let circuit = &plan.wiring.feeds[0];
        let found = apart(&plan, circuit, &by_label(&plan)).expect("its timers meet");
        assert!(found.peak_then_w < 0.9 * found.peak_w, "{found:?}");
        let then = sound(patched(&plan, &found.fix.patch).unwrap());
        assert_eq!(apart(&then, circuit, &by_label(&then)), None);
    }

    #[test]
    fn who_never_can_be_apart_is_left_alone() {
        let plan = kettle_fen(|plan| {
            plan.site.quiet = None;
            let places = plan.places.iter_mut();
            for tier in places.flat_map(|place| &mut place.tiers) {
                (tier.photoperiod_h, tier.lights_on_h) = (24.0, None);
            }
            tier(plan, "door", "t1").photoperiod_h = 24.0;
        });
        for feed in &plan.wiring.feeds {
            assert_eq!(apart(&plan, feed, &by_label(&plan)), None);
        }
    }
}
