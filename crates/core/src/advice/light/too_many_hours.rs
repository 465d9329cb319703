//! Triggers when lamps burn longer than the crops under them stand: tomato and aubergine turn yellow,
//! onions begin to bulb.

use crate::advice::finding::{Finding, Severity};
use crate::advice::fixes::{hang_anyhow, how_to_set};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::standing::StandingPart;
use crate::day::view::BayView;

/// So many hours too many do harm soon.
const SOON_H: f64 = 4.0;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let (hours, most) = (
        view.bay.tier.photoperiod_h,
        view.computed.hang.as_ref()?.most_hours_h,
    );
    if !view.computed.burning || hours <= most {
        return None;
    }
    let shortest = |part: &StandingPart<'_>| view.plan.crop(part.sowing).photoperiod_most_h;
    let (standing, part) = view
        .growing()
        .min_by(|a, b| shortest(a.1).total_cmp(&shortest(b.1)))?;
    let h = |value: f64| Quantity::Hours.of(value);
    Some(Finding {
        trays: vec![standing.tray.id.clone()],
        source: crate::crops::library().source("photoperiod_most_h"),
        fixes: hang_anyhow(view).into_iter().collect(),
        ..Finding::of_bay(
            view,
            if hours >= most + SOON_H {
                Severity::Conflict
            } else {
                Severity::Advice
            },
            match view
                .computed
                .hang
                .as_ref()
                .filter(|hang| hang.change.is_some())
            {
                Some(hang) => how_to_set(hang),
                None => say!(
                    "Run the lamps of {bay} no longer than {most} a day",
                    bay = view.bay.name(),
                    most = h(most)
                ),
            },
            say!(
                "{crop} stands no more than {most} of light; the lamps run {hours}, and it needs a night.",
                crop = &part.dates.name,
                most = h(most),
                hours = h(hours),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::Severity;
    use crate::advice::testing::{fixed, judged, one_rack, tier};
    use jiff::civil::date;

    #[test]
    fn speaks_over_the_crops_limit_only_and_its_fix_keeps_to_it() {
        let day = date(2027, 4, 9);
        let with = |hours| {
            let plan = one_rack(|plan| tier(plan, "door", "t2").photoperiod_h = hours);
            let finding = judged(&plan, "t2", day, judge);
            (plan, finding)
        };
        assert_eq!(with(14.0).1, None);
        let (plan, finding) = with(24.0);
        let finding = finding.expect("a night is missing");
        assert_eq!(finding.severity, Severity::Conflict);
        assert_eq!(judged(&fixed(&plan, &finding), "t2", day, judge), None);
    }
}
