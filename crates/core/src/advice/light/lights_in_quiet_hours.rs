//! Triggers when lamps burn in hours that are to be quiet, or at the dear price, though beginning
//! at another hour would spare that.

use crate::advice::finding::{Finding, Severity};
use crate::advice::fixes::go_on_at;
use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::day::view::BayView;
use crate::plan::patch::Fix;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if !view.computed.burning {
        return None;
    }
    let now = view.computed.burns;
    let best = view.best_start();
    if !now.is_worth_changing_to(&best) {
        return None;
    }
    let start = Quantity::ClockH.of(best.from_h);
    let hours = Quantity::Hours.of(view.bay.tier.photoperiod_h);
    let saved = now.cost_per_day - best.cost_per_day;
    let reason = if now.quiet_h > best.quiet_h + 1e-6 {
        say!(
            "On from {from} for {hours}, the lamps shine through {quiet} of quiet hours; from {start}, only {rest}.",
            hours = hours,
            from = Quantity::ClockH.of(now.from_h),
            quiet = Quantity::Hours.of(now.quiet_h),
            start = start.clone(),
            rest = Quantity::Hours.of(best.quiet_h),
        )
    } else if view.plan.site.by_hour.is_some() {
        say!(
            "On from {from} for {hours}, the lamps cost {now} a day; from {start} they save {saved} of it.",
            hours = hours,
            from = Quantity::ClockH.of(now.from_h),
            now = Quantity::Money.of(now.cost_per_day),
            start = start.clone(),
            saved = Quantity::Money.of(saved),
        )
    } else {
        say!(
            "On from {from} for {hours}, the lamps use {cheap} of cheap rate; from {start} they use {more} and save {saved} a day.",
            hours = hours,
            from = Quantity::ClockH.of(now.from_h),
            cheap = Quantity::Hours.of(now.cheap_h),
            start = start.clone(),
            more = Quantity::Hours.of(best.cheap_h),
            saved = Quantity::Money.of(saved),
        )
    };
    let fix = Fix {
        label: say!("Begin at {start}", start = start.clone()),
        word: say!(
            "lamps of {bay} go on at {start}",
            bay = view.bay.name(),
            start = start.clone()
        ),
        patch: go_on_at(view, best.from_h).into_iter().collect(),
    };
    Some(Finding {
        source: OWN_ESTIMATE,
        fixes: vec![fix],
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!("Switch the lamps on at {start}", start = start),
            reason,
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, judged, one_rack, tier};
    use crate::basis::clock::ClockSpan;
    use crate::plan::Plan;
    use crate::site::CheapHours;
    use crate::site::tariff::HourPrices;
    use jiff::civil::date;

    const NIGHT: ClockSpan = ClockSpan {
        from_h: 22.0,
        to_h: 7.0,
    };

    fn speaks_and_is_settled(change: impl FnOnce(&mut Plan)) {
        let day = date(2027, 4, 9);
        let plan = one_rack(change);
        let finding = judged(&plan, "t2", day, judge).expect("a finding");
        assert_eq!(judged(&fixed(&plan, &finding), "t2", day, judge), None);
    }

    #[test]
    fn speaks_of_quiet_and_of_cheap_hours_and_is_settled() {
        speaks_and_is_settled(|plan| plan.site.quiet = Some(NIGHT));
        speaks_and_is_settled(|plan| {
            plan.site.cheap = Some(CheapHours {
                hours: NIGHT,
                price_per_kwh: 0.1,
            });
        });
        speaks_and_is_settled(|plan| {
            let mut prices = vec![0.4; 24];
            prices[13..].fill(0.2);
            plan.site.by_hour = Some(HourPrices {
                workday: prices,
                weekend: None,
            });
        });
    }

    #[test]
    fn nothing_to_gain_is_nothing_to_say() {
        let day = date(2027, 4, 9);
        assert_eq!(judged(&one_rack(|_| ()), "t2", day, judge), None);
        let always_on = one_rack(|plan| {
            plan.site.quiet = Some(NIGHT);
            tier(plan, "door", "t2").photoperiod_h = 24.0;
        });
        assert_eq!(judged(&always_on, "t2", day, judge), None);
    }
}
