//! Triggers when a strip is plugged into another, by way of a timer or not.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::{Labelled, WHO_DECIDES};
use crate::basis::words::say;
use crate::room::wiring::FeedKind;
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let strips = all
        .plan
        .wiring
        .feeds
        .iter()
        .filter(|feed| matches!(feed.kind, FeedKind::Strip(_)));
    let found = strips.filter_map(|strip| {
        let mut above = all.plan.wiring.path(&strip.id).into_iter().skip(1);
        let other = above.find(|feed| matches!(feed.kind, FeedKind::Strip(_)))?;
        Some(all.finding(
            Severity::Conflict,
            say!("Plug {strip} into the wall", strip = &strip.name),
            say!(
                "It hangs on {other}, which carries both loads through one plug. Strips in a row are how cords overheat. {who}",
                other = &other.name,
                who = WHO_DECIDES
            ),
        ))
    });
    found.collect()
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    #[test]
    fn speaks_of_a_second_strip_in_the_first() {
        let with = |into: &str| {
            wired(230.0, 16.0, |plan| {
                let mut second = plan.wiring.feeds[2].clone();
                (second.id, second.into) = ("second".into(), Some(into.into()));
                plan.wiring.feeds.push(second);
            })
        };
        assert_eq!(plan_judged(&with("strip"), judge).len(), 1);
        assert!(plan_judged(&with("socket"), judge).is_empty());
    }
}
