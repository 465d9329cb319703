//! Triggers when a timer switches more than its label allows with everything on.

use crate::advice::finding::Finding;
use crate::advice::wired::{Labelled, WHO_DECIDES};
use crate::basis::words::say;
use crate::room::wiring::FeedKind;
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    all.over_label(
        |feed| matches!(feed.kind, FeedKind::Timer(_)),
        |over| {
            say!(
                "With everything on it switches {peak}; its label allows {most}. {who}",
                peak = over.peak,
                most = over.most,
                who = WHO_DECIDES
            )
        },
    )
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    /// A timer of 300 W with lamps of 600 W behind it.
    #[test]
    fn speaks_of_a_small_timer_behind_many_lamps() {
        let with = |rating_w: f64| {
            wired(230.0, 16.0, |plan| {
                crate::advice::testing::through_timer(plan, rating_w);
                plan.wiring.appliances[0].watts = 600.0;
            })
        };
        assert_eq!(plan_judged(&with(300.0), judge).len(), 1);
        assert!(plan_judged(&with(600.0), judge).is_empty());
    }
}
