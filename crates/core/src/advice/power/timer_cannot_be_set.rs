//! Triggers when a shelf is to burn from or to a time that its timer has no segment for.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::{Labelled, count};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::bays;
use crate::season::Reckoned;

/// Minutes in an hour.
const HOUR_MIN: f64 = 60.0;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let found = bays(&all.plan.places).filter_map(|bay| {
        let (feed, timer) = all.plan.wiring.timer_of(bay.tier)?;
        let step_h = f64::from(timer.clock.step_min()) / HOUR_MIN;
        let to_step = |hour: f64| (hour / step_h).round() * step_h;
        let now = bay.tier.burning();
        let (from_h, hours) = (to_step(now.from_h) % 24.0, to_step(now.hours));
        let off = |a: f64, b: f64| (a - b).abs() > 1e-3;
        if !off(to_step(now.from_h), now.from_h) && !off(hours, now.hours) {
            return None;
        }
        let at = bay.pointer();
        let hour = |h: f64| Quantity::ClockH.of(h);
        let to_h = (from_h + hours) % 24.0;
        let fix = Fix {
            label: say!("From {from} to {to}", from = hour(from_h), to = hour(to_h)),
            word: say!(
                "lamps of {bay} burn from {from} to {to}",
                bay = bay.name(),
                from = hour(from_h),
                to = hour(to_h)
            ),
            patch: vec![
                PatchStep::replace(&at.at("photoperiod_h"), hours),
                PatchStep::set(&at.at("lights_on_h"), from_h),
            ],
        };
        Some(Finding {
            bay: Some(bay.reference()),
            place: Some(bay.place.id.clone()),
            fixes: vec![fix],
            ..all.finding(
                Severity::Advice,
                say!("Set the lamps of {bay} to what their timer can do", bay = bay.name()),
                say!(
                    "They are to burn from {from} to {to}; {timer} is set in steps of {step} minutes.",
                    from = hour(now.from_h),
                    to = hour(now.to_h()),
                    timer = &feed.name,
                    step = count(timer.clock.step_min())
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

    use crate::advice::testing::{fixed, through_timer, tier};

    #[test]
    fn speaks_of_a_time_between_segments_and_is_settled() {
        let with = |from_h: f64| {
            wired(230.0, 16.0, |plan| {
                through_timer(plan, 3000.0);
                let tier = tier(plan, "door", "t2");
                (tier.lights_on_h, tier.photoperiod_h) = (Some(from_h), 15.0);
                tier.lamps[0].plugged = Some("strip".into());
            })
        };
        assert!(plan_judged(&with(6.25), judge).is_empty());
        let plan = with(6.1);
        let found = plan_judged(&plan, judge);
        assert_eq!(found.len(), 1);
        assert!(plan_judged(&fixed(&plan, &found[0]), judge).is_empty());
    }
}
