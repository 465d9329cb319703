//! Triggers when one timer switches shelves whose lamps are to burn at different hours.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::Labelled;
use crate::basis::clock::Burning;
use crate::basis::fault::Pointer;
use crate::basis::ids::free_id;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::wiring::{Feed, FeedKind, Strip, Wiring};
use crate::room::{Bay, Lamp, bays};
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let timers = all
        .plan
        .wiring
        .feeds
        .iter()
        .filter(|feed| matches!(feed.kind, FeedKind::Timer(_)));
    timers.filter_map(|timer| disagree(&all, timer)).collect()
}

fn disagree(all: &Labelled<'_>, timer: &Feed) -> Option<Finding> {
    let wiring = &all.plan.wiring;
    let on_it = |bay: &Bay<'_>| {
        wiring
            .timer_of(bay.tier)
            .is_some_and(|(feed, _)| feed.id == timer.id)
    };
    let shelves: Vec<Bay<'_>> = bays(&all.plan.places).filter(on_it).collect();
    let alike = |a: Burning, b: Burning| {
        (a.from_h - b.from_h).abs() < 1e-6 && (a.hours - b.hours).abs() < 1e-6
    };
    let first = shelves.first()?.tier.burning();
    let other = shelves
        .iter()
        .find(|bay| !alike(bay.tier.burning(), first))?;
    let odd = odd_one(&shelves, alike)?;
    let hour = |h: f64| Quantity::ClockH.of(h);
    let name = format!("Timer, {}", odd.name());
    let free = free_socket(all, timer);
    let fix = free.and_then(|socket| own_timer(wiring, timer, socket, odd, name));
    let fix = fix.map(|patch| Fix {
        label: say!("Give {shelf} its own timer", shelf = odd.name()),
        word: say!("gave {shelf} a timer of its own", shelf = odd.name()),
        patch,
    });
    let (a, b) = (&shelves[0], other.tier.burning());
    Some(Finding {
        fixes: fix.into_iter().collect(),
        ..all.finding(
            Severity::Advice,
            say!("Give the shelves on {timer} the same hours", timer = &timer.name),
            say!(
                "{a} is to burn from {a_from} to {a_to}, {b} from {b_from} to {b_to}: one timer switches both at once. Give them one time, or one of them a timer of its own.",
                a = a.name(),
                a_from = hour(first.from_h),
                a_to = hour(first.to_h()),
                b = other.name(),
                b_from = hour(b.from_h),
                b_to = hour(b.to_h())
            ),
        )
    })
}

/// The first shelf that has not the hours that most have; of equals the first's count as those.
fn odd_one<'s, 'a>(
    shelves: &'s [Bay<'a>],
    alike: impl Fn(Burning, Burning) -> bool,
) -> Option<&'s Bay<'a>> {
    let have = |bay: &&Bay<'_>| {
        let own = shelves.iter();
        own.filter(|other| alike(other.tier.burning(), bay.tier.burning()))
            .count()
    };
    // The last of equals is taken: from behind that is the first.
    let most = shelves.iter().rev().max_by_key(have)?.tier.burning();
    shelves.iter().find(|bay| !alike(bay.tier.burning(), most))
}

/// The socket that `timer` is in, or another with a free outlet; `None` where all are full.
fn free_socket<'a>(all: &Labelled<'a>, timer: &Feed) -> Option<&'a str> {
    let free = all.feeds().filter(|(feed, load)| {
        matches!(feed.kind, FeedKind::Socket(_)) && load.outlets.is_some_and(|n| load.plugs < n)
    });
    let own = |feed: &&Feed| timer.into.as_deref() != Some(feed.id.as_str());
    free.map(|(feed, _)| feed)
        .min_by_key(own)
        .map(|feed| feed.id.as_str())
}

/// A timer like `timer` in `socket`, with the lamps of `bay` behind it: by their chain, where they
/// have one to themselves, else by a strip.
fn own_timer(
    wiring: &Wiring,
    timer: &Feed,
    socket: &str,
    bay: &Bay<'_>,
    name: String,
) -> Option<Vec<PatchStep>> {
    let feeds = Pointer::default().at("wiring").at("feeds");
    let ids = || wiring.feeds.iter().map(|feed| &feed.id);
    let own = Feed {
        id: free_id("timer", ids()),
        name,
        into: Some(socket.into()),
        ..timer.clone()
    };
    let mut patch = vec![PatchStep::set(&feeds.at("-"), &own)];
    let first = bay
        .tier
        .lamps
        .iter()
        .find_map(|lamp| lamp.plugged.as_deref())?;
    let only_here = |id: &str| {
        let elsewhere = |lamp: &Lamp| lamp.plugged.as_deref() == Some(id);
        bay.tier
            .lamps
            .iter()
            .all(|lamp| elsewhere(lamp) || lamp.plugged.is_none())
    };
    let chain = wiring
        .feeds
        .iter()
        .position(|feed| feed.id == first && feed.is_chain());
    if let Some(chain) = chain.filter(|_| only_here(first)) {
        patch.push(PatchStep::set(&feeds.at(chain).at("into"), &own.id));
        return Some(patch);
    }
    let strip = Feed {
        id: free_id("strip", ids()),
        name: format!("Strip, {}", bay.name()),
        into: Some(own.id.clone()),
        kind: FeedKind::Strip(Strip {
            rating_w: timer.rating_w(),
            outlets: (bay.tier.lamps.len() as u32).max(4),
            surge: false,
            switched: false,
        }),
        ..timer.clone()
    };
    patch.push(PatchStep::set(&feeds.at("-"), &strip));
    for i in 0..bay.tier.lamps.len() {
        let at = bay.pointer().at("lamps").at(i).at("plugged");
        patch.push(PatchStep::set(&at, &strip.id));
    }
    Some(patch)
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    use crate::advice::testing::{fixed, through_timer, tier};

    #[test]
    fn speaks_where_hours_differ_and_is_settled() {
        let with = |hours: f64| {
            wired(230.0, 16.0, |plan| {
                through_timer(plan, 3000.0);
                for id in ["t1", "t2", "t3"] {
                    let tier = tier(plan, "door", id);
                    tier.photoperiod_h = if id == "t2" { hours } else { 16.0 };
                    tier.lamps[0].plugged = Some("strip".into());
                }
            })
        };
        assert!(plan_judged(&with(16.0), judge).is_empty());
        let plan = with(14.0);
        let found = plan_judged(&plan, judge);
        assert_eq!(found.len(), 1);
        assert!(plan_judged(&fixed(&plan, &found[0]), judge).is_empty());
    }
}
