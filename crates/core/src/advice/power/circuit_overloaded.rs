//! Triggers when a circuit carries more than its breaker allows with everything on, what is on for hours
//! counted at 125 %.

use crate::advice::finding::Finding;
use crate::advice::wired::{Labelled, WHO_DECIDES, amps, take_off, watts};
use crate::basis::words::say;
use crate::power::limits::LimitBy;
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let mut found = all.over(LimitBy::Breaker, |_| true, |feed, load, limit| {
        (
            take_off(&feed.name, Labelled::too_much(load, limit)),
            say!(
                "With everything on it carries {peak}, {current}, for hours. A breaker of {breaker} is meant for {lasting} for hours (80 % of it). {who}",
                peak = watts(load.load.peak_w),
                current = amps(load.load.peak_a),
                breaker = amps(limit.most_va / all.plan.site.mains_v),
                lasting = watts(limit.lasting_va),
                who = WHO_DECIDES
            ),
        )
    });
    found.iter_mut().for_each(|finding| finding.source = SOURCE);
    found
}

const SOURCE: &str = "NFPA 70 (NEC) 210.20(A), from memory; other codes differ";

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, plan_judged, tier, wired};

    /// 1,500 W for hours on a breaker of 15 A at 120 V: 80 % of it are 1,440 W.
    #[test]
    fn speaks_of_what_lasts_on_a_small_breaker() {
        let on = |watts: f64| wired(120.0, 15.0, |plan| plan.wiring.appliances[0].watts = watts);
        let found = plan_judged(&on(1500.0), judge);
        assert_eq!(found.len(), 1);
        assert!(
            found[0].headline.to_string().contains("60 W"),
            "{}",
            found[0].headline.to_string()
        );
        assert!(plan_judged(&on(1440.0), judge).is_empty());
    }

    /// Two shelves of 600 W on a breaker of 10 A at 120 V, which bears 960 W for hours.
    #[test]
    fn timers_set_apart_settle_it_where_they_can() {
        let lit = |hours: f64| {
            wired(120.0, 10.0, |plan| {
                plan.site.quiet = None;
                for id in ["t1", "t2"] {
                    let tier = tier(plan, "door", id);
                    (tier.photoperiod_h, tier.lights_on_h) = (hours, Some(6.0));
                    tier.lamps.truncate(1);
                    (tier.lamps[0].watts, tier.lamps[0].plugged) = (600.0, Some("strip".into()));
                }
            })
        };
        let plan = lit(11.0);
        let found = plan_judged(&plan, judge);
        assert_eq!((found.len(), found[0].fixes.len()), (1, 1));
        assert!(plan_judged(&fixed(&plan, &found[0]), judge).is_empty());
        // Sixteen hours and sixteen always meet.
        assert!(plan_judged(&lit(16.0), judge)[0].fixes.is_empty());
    }

    #[test]
    fn what_is_on_for_two_hours_may_take_the_whole_breaker() {
        let on = |to_h: f64| {
            wired(120.0, 15.0, |plan| {
                let load = &mut plan.wiring.appliances[0];
                load.watts = 1800.0;
                load.hours = Some(crate::basis::clock::ClockSpan { from_h: 8.0, to_h });
            })
        };
        assert!(plan_judged(&on(10.0), judge).is_empty());
        assert_eq!(plan_judged(&on(11.0), judge).len(), 1);
    }
}
