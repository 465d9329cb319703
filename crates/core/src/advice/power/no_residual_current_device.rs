//! Triggers when a circuit with gear on it has no residual-current device, or its test button was not
//! pressed for half a year before the season.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::{Labelled, WHO_DECIDES};
use crate::basis::dates::plus_days;
use crate::basis::words::say;
use crate::room::wiring::FeedKind;
use crate::season::Reckoned;

/// Makers ask for a press of the button every so often (common practice, no source: three to six months).
const TESTED_DAYS: i32 = 183;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let found = all.feeds().filter(|(_, load)| load.load.peak_w > 0.0).filter_map(|(feed, _)| {
        let FeedKind::Circuit(circuit) = &feed.kind else { return None };
        if !circuit.rcd {
            return Some(all.finding(
                Severity::Conflict,
                say!("Have a residual-current device put on {circuit}", circuit = &feed.name),
                say!(
                    "Wet trays stand under mains here, and nothing cuts the current when it flows through a person. An RCD (GFCI) does; a plug-in one guards a single strip meanwhile. {who}",
                    who = WHO_DECIDES
                ),
            ));
        }
        let due = plus_days(all.plan.season.from, -TESTED_DAYS);
        let tested = circuit.rcd_tested.is_some_and(|day| day >= due);
        (!tested).then(|| {
            all.finding(
                Severity::Advice,
                say!("Press the test button of the RCD on {circuit}", circuit = &feed.name),
                say!(
                    "Nobody has noted a test since {due}. It has to cut the current at once; if it does not, unplug everything and call an electrician. Note the day in the Power view.",
                    due = due
                ),
            )
        })
    });
    found.collect()
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    use crate::room::wiring::{Circuit, FeedKind};
    use jiff::civil::{Date, date};

    #[test]
    fn speaks_without_one_and_of_a_test_long_ago() {
        let with = |rcd: bool, rcd_tested: Option<Date>| {
            let plan = wired(230.0, 16.0, |plan| {
                let breaker_a = 16.0;
                plan.wiring.feeds[0].kind = FeedKind::Circuit(Circuit {
                    breaker_a,
                    rcd,
                    rcd_tested,
                });
            });
            plan_judged(&plan, judge).len()
        };
        assert_eq!(with(false, None), 1);
        assert_eq!(with(true, Some(date(2025, 1, 1))), 1);
        assert_eq!(with(true, Some(date(2026, 12, 1))), 0);
    }
}
