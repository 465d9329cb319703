//! Triggers when what is raised for the autumn goes out so late that frost, or short days, come before it is
//! ready.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::{DateSpan, days_between, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::plan::usual_days::{bears_frost, ready_days};

/// A week either way nobody can tell.
const MATTERS_DAYS: i32 = 8;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    if !view.sowing.autumn || view.crop.ready_weeks <= 0.0 {
        return None;
    }
    let by = view.plan.ready_by(view.crop);
    let ready = plus_days(view.dates.out, ready_days(view.crop));
    let late = days_between(by, ready);
    if late < MATTERS_DAYS {
        return None;
    }
    let frost = view.plan.site.first_frost_day().day;
    let hardy = bears_frost(view.crop);
    let fix = (view.sowing.shift_days > 0 && view.sowing.sow_on.is_none())
        .then(|| view.shift(-late.min(view.sowing.shift_days)));
    let what = if hardy {
        "it stops growing soon after, and stands small until spring"
    } else {
        "frost kills it"
    };
    Some(Finding {
        fixes: fix.into_iter().collect(),
        source: view.crop.source("ready_weeks"),
        ..view.finding(
            if hardy {
                Severity::Advice
            } else {
                Severity::Conflict
            },
            DateSpan {
                from: view.dates.sow,
                to: view.dates.out,
            },
            say!(
                "Sow {name} {days} earlier, or cover it from {frost} on",
                name = &view.dates.name,
                days = Quantity::Days.of(f64::from(late)),
                frost = frost
            ),
            say!(
                "Planted out on {out} it is ready by {ready}; the first frost comes about {frost}, and {what}.",
                out = view.dates.out,
                ready = ready,
                frost = frost,
                what = what,
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{fixed, kettle_fen, of_sowing};
    use jiff::civil::date;

    #[test]
    fn what_is_late_for_the_autumn_is_moved_back() {
        let code = "ready_after_frost";
        let later = |crop: &str, shift_days: i32| {
            kettle_fen(|plan| {
                plan.season.to = date(2027, 11, 30);
                let mut own = crate::plan::Sowing::plain("late", crop, "", 6);
                (own.autumn, own.shift_days) = (true, shift_days);
                plan.sowings.push(own);
            })
        };
        assert_eq!(of_sowing(&later("kale", 0), "late", code), None);
        let kale = of_sowing(&later("kale", 25), "late", code).expect("late");
        assert_eq!(
            of_sowing(&fixed(&later("kale", 25), &kale), "late", code),
            None
        );
        let beans = of_sowing(&later("runner-and-french-bean", 25), "late", code);
        assert!(
            beans.expect("late").severity > kale.severity
                || kale.severity != crate::advice::Severity::Conflict
        );
    }
}
