//! Triggers when more plugs are said to be in a socket, a strip or a timer than it has outlets.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::{Labelled, count};
use crate::basis::words::say;
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let over = all.feeds().filter_map(|(feed, load)| {
        let outlets = load.outlets.filter(|outlets| load.plugs > *outlets)?;
        Some(all.finding(
            Severity::Conflict,
            say!(
                "Find another outlet for {n} plugs of {feed}",
                n = count(load.plugs - outlets),
                feed = &feed.name
            ),
            say!(
                "{n} plugs are to go into {outlets} outlets.",
                n = count(load.plugs),
                outlets = count(outlets)
            ),
        ))
    });
    over.collect()
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    #[test]
    fn speaks_of_two_plugs_in_one_outlet() {
        let with = |outlets: u32| {
            wired(230.0, 16.0, |plan| {
                let second = plan.wiring.appliances[0].clone();
                plan.wiring.appliances.push(crate::room::wiring::Appliance {
                    id: "b".into(),
                    ..second
                });
                if let crate::room::wiring::FeedKind::Strip(strip) = &mut plan.wiring.feeds[2].kind
                {
                    strip.outlets = outlets;
                }
            })
        };
        assert_eq!(plan_judged(&with(1), judge).len(), 1);
        assert!(plan_judged(&with(2), judge).is_empty());
    }
}
