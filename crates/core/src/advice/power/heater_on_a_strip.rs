//! Triggers when something that heats is plugged into a strip or a timer.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::{Labelled, WHO_DECIDES, watts};
use crate::basis::words::say;
use crate::room::wiring::{Feed, FeedKind};
use crate::season::Reckoned;

/// Less than this is no heater (our own estimate).
const LEAST_W: f64 = 500.0;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let heats = all
        .plan
        .wiring
        .appliances
        .iter()
        .filter(|a| a.heats && a.watts >= LEAST_W);
    let found = heats.filter_map(|heater| {
        let path = all.plan.wiring.path(heater.plugged.as_deref()?);
        let passes = |feed: &&&Feed| matches!(feed.kind, FeedKind::Strip(_) | FeedKind::Timer(_));
        let through = path.iter().find(passes)?;
        Some(all.finding(
            Severity::Harm,
            say!("Plug {heater} into a socket of its own", heater = &heater.name),
            say!(
                "It draws {watts} for long and is on {strip}. Strips and timers get hot under heaters, and the contacts of a timer may weld. {who}",
                watts = watts(heater.watts),
                strip = &through.name,
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
    fn speaks_of_a_heater_on_a_timers_strip_and_not_in_the_wall() {
        let with = |plugged: &str| {
            wired(230.0, 16.0, |plan| {
                crate::advice::testing::through_timer(plan, 3000.0);
                let heater = &mut plan.wiring.appliances[0];
                (heater.watts, heater.heats) = (2000.0, true);
                heater.plugged = Some(plugged.into());
            })
        };
        assert_eq!(plan_judged(&with("strip"), judge).len(), 1);
        assert!(plan_judged(&with("socket"), judge).is_empty());
    }
}
