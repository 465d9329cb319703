//! Triggers when seedlings that are up stand in the dark: out of the chamber, or lamps on.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::{days_between, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if view.is_lit() || view.bay.place.outdoors() {
        return None;
    }
    let dark = view.parts().filter_map(|(s, part)| {
        let due = part.dates.into_light?;
        let crop = view.plan.crop(part.sowing);
        let left = crop.dark_days - f64::from(days_between(due, view.date));
        let shows = (due..part.dates.harden).contains(&view.date);
        shows.then_some((s, part, due, crop, left))
    });
    let (standing, part, due, crop, left) = dark.min_by(|a, b| a.4.total_cmp(&b.4))?;
    let chamber = view.bay.place.chamber().is_some();
    let spoiled = plus_days(due, crop.dark_days.floor() as i32);
    Some(Finding {
        trays: vec![standing.tray.id.clone()],
        source: crate::crops::library().source("dark_days"),
        ..Finding::of_bay(
            view,
            if left < 0.0 {
                Severity::Harm
            } else {
                Severity::Conflict
            },
            if chamber {
                say!(
                    "Take {tray} out of the chamber today",
                    tray = &standing.tray.name
                )
            } else {
                say!(
                    "Bring {tray} into the light today",
                    tray = &standing.tray.name
                )
            },
            say!(
                "{crop} has needed light since {due} and can stand {days} of dark; by {spoiled} the seedlings are leggy for good.",
                crop = &part.dates.name,
                due = due,
                days = Quantity::Days.of(crop.dark_days),
                spoiled = spoiled,
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::Severity;
    use crate::advice::testing::kettle_fen;
    use crate::basis::dates::{DateSpan, plus_days};
    use crate::day::detail::Detail;
    use crate::light::fields::Fields;
    use crate::season;

    #[test]
    fn lettuce_left_in_the_chamber_is_spoiled_after_two_days() {
        let plan = kettle_fen(|plan| {
            let tray = plan.trays.iter_mut().find(|t| t.id == "le1").unwrap();
            tray.stands
                .retain(|stand| stand.stage != crate::plan::Stage::Grow);
        });
        let dates = season::dates(&plan);
        let up = dates
            .iter()
            .find(|d| d.sowing == "lettuce")
            .unwrap()
            .emerge
            .unwrap();
        let fields = Fields::default();
        let on = |days: i32| {
            let day = DateSpan::day(plus_days(up, days));
            let assessment = crate::ask::assess_again(&plan, day, Detail::Outline, &fields);
            let mut found = assessment.findings.into_iter();
            found
                .find(|f| f.code == "dark_after_emergence")
                .map(|f| f.severity)
        };
        assert_eq!(on(-1), None);
        assert_eq!(on(1), Some(Severity::Conflict));
        assert_eq!(on(4), Some(Severity::Harm));
    }
}
