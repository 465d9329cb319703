//! Triggers when another height and other hours would bring the seedlings' light nearer to its
//! band than the lamps do now.

use crate::advice::finding::{Finding, Severity};
use crate::advice::fixes::hang_here;
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::{COMMON_PRACTICE, Statement, say};
use crate::day::hang::Hang;
use crate::day::view::BayView;
use crate::lamps::adjust::Step;
use crate::lamps::choice::SAME;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let hang = view.computed.hang.as_ref()?;
    let light = view.computed.light.as_ref()?;
    let target = light.target?;
    // Leaves nearer than the lamps' least gap are a finding of their own, with the same way out.
    if hang.miss_now <= hang.miss + SAME || light.gap_mm < view.least_gap_mm() {
        return None;
    }
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    let reason = if light.dli.mean < target.low {
        say!(
            "On average the leaves get {now} of light and need at least {low}; this gives them {then}.",
            now = dli(light.dli.mean),
            low = dli(target.low),
            then = dli(hang.dli.mean),
        )
    } else if light.dli.best > target.high {
        say!(
            "The brightest cell gets {now} of light, more than the {high} it can use; this brings it to {then}.",
            now = dli(light.dli.best),
            high = dli(target.high),
            then = dli(hang.dli.best),
        )
    } else {
        say!(
            "The darkest cell gets {now} of light and needs at least {low}; this gives it {then}.",
            now = dli(light.dli.worst),
            low = dli(target.low),
            then = dli(hang.dli.worst),
        )
    };
    Some(Finding {
        id: String::new(),
        code: "",
        topic: "",
        severity: Severity::Advice,
        place: Some(view.bay.place.id.clone()),
        bay: Some(view.bay.reference()),
        sowing: None,
        trays: view.standing.iter().map(|s| s.tray.id.clone()).collect(),
        cells: Vec::new(),
        days: DateSpan::day(view.date),
        headline: headline(hang),
        reason,
        source: COMMON_PRACTICE,
        fixes: hang_here(view).into_iter().collect(),
    })
}

fn headline(hang: &Hang) -> Statement {
    let mm = |value: f64| Quantity::LengthMm.of(value);
    let hours = Quantity::Hours.of(hang.setting.hours_h);
    let start = Quantity::ClockH.of(hang.start.from_h);
    let height = mm(hang.setting.height_mm);
    let count = |links: i32| Quantity::Count.of(f64::from(links.abs()));
    match hang.step {
        Step::Anywhere => say!(
            "Hang the lamps {height} above the shelf; run them {hours} from {start}",
            height = height,
            hours = hours,
            start = start
        ),
        Step::Links { change: 0, .. } => {
            say!(
                "Leave the chains; run the lamps {hours} from {start}",
                hours = hours,
                start = start
            )
        }
        Step::Links { links, change } if change > 0 => say!(
            "Lower the lamps to link {links} ({change} down, {height}); run them {hours} from {start}",
            change = count(change),
            height = height,
            links = count(links),
            hours = hours,
            start = start
        ),
        Step::Links { links, change } => say!(
            "Raise the lamps to link {links} ({change} up, {height}); run them {hours} from {start}",
            change = count(change),
            height = height,
            links = count(links),
            hours = hours,
            start = start
        ),
        Step::Boxes { change_mm: 0.0, .. } => {
            say!(
                "Leave the boxes; run the lamps {hours} from {start}",
                hours = hours,
                start = start
            )
        }
        Step::Boxes { lift_mm, .. } => say!(
            "Stack {lift} of boxes under the trays; run the lamps {hours} from {start}",
            lift = mm(lift_mm),
            hours = hours,
            start = start
        ),
        Step::Fixed => say!(
            "Run the lamps {hours} from {start}",
            hours = hours,
            start = start
        ),
    }
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn lamps_too_high_are_to_come_down_and_then_all_is_well() {
        let plan = one_rack(|plan| {
            tier(plan, "door", "t3").photoperiod_h = 12.0;
            for lamp in &mut tier(plan, "door", "t3").lamps {
                lamp.height_mm = 300.0;
            }
        });
        let finding = judged(&plan, "t3", date(2027, 4, 9), judge).expect("a finding");
        assert!(
            finding.reason.text.contains("need at least"),
            "{}",
            finding.reason
        );
        let after = fixed(&plan, &finding);
        assert_eq!(judged(&after, "t3", date(2027, 4, 9), judge), None);
    }
}
