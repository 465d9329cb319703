//! Triggers when a strip carries more than its label allows with everything on.

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
        |feed| matches!(feed.kind, FeedKind::Strip(_)),
        |over| {
            say!(
                "With everything on it carries {peak}; its label allows {most}. {who}",
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

    #[test]
    fn speaks_beyond_the_label_and_not_at_it() {
        let on = |watts: f64| wired(230.0, 32.0, |plan| plan.wiring.appliances[0].watts = watts);
        assert_eq!(plan_judged(&on(2301.0), judge).len(), 1);
        assert!(plan_judged(&on(2300.0), judge).is_empty());
    }
}
