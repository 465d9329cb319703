//! Triggers when a strip or a timer lies on the floor below trays that are watered.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::{Labelled, WHO_DECIDES};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::room::wiring::{Feed, FeedKind};
use crate::season::Reckoned;

/// Below this it lies where spilt water runs (our own estimate).
const SPLASH_MM: f64 = 150.0;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let lies = |feed: &&Feed| {
        matches!(feed.kind, FeedKind::Strip(_) | FeedKind::Timer(_)) && feed.height_mm < SPLASH_MM
    };
    let found = all.plan.wiring.feeds.iter().filter(lies).map(|feed| {
        all.finding(
            Severity::Conflict,
            say!("Hang {feed} up off the floor", feed = &feed.name),
            say!(
                "It lies {height} over the floor, where what runs out of trays and cans collects. Fix it above splash height, with a drip loop in every cord. {who}",
                height = Quantity::LengthMm.of(feed.height_mm),
                who = WHO_DECIDES
            ),
        )
    });
    found.collect()
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    #[test]
    fn speaks_of_what_lies_down_and_not_of_what_hangs() {
        let at = |height_mm: f64| {
            wired(230.0, 16.0, |plan| {
                plan.wiring.feeds[2].height_mm = height_mm
            })
        };
        assert_eq!(plan_judged(&at(0.0), judge).len(), 1);
        assert!(plan_judged(&at(1500.0), judge).is_empty());
    }
}
