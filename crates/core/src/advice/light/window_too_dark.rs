//! Triggers when seedlings on a window sill without lamps get too little daylight.

use crate::advice::finding::Finding;
use crate::advice::light::too_little_light::dark;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

/// Bright days make up for so much, and April is longer by the day (our own estimate).
const SHORT_OF_DAYLIGHT: f64 = 0.2;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let light = view.computed.light.as_ref()?;
    let target = light.target?;
    let short = light.dli.mean < (1.0 - SHORT_OF_DAYLIGHT) * target.low;
    if view.bay.place.window().is_none() || !view.bay.tier.lamps.is_empty() || !short {
        return None;
    }
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    let headline = match view.daylight_enough_from() {
        Some(date) if date > view.date => {
            say!("Keep seedlings off this sill until {date}", date = date)
        }
        _ => say!("Hang a lamp over this sill, or move the trays"),
    };
    Some(Finding {
        trays: view.standing.iter().map(|s| s.tray.id.clone()).collect(),
        source: crate::crops::library().source("dli_low_mol_m2_d"),
        ..Finding::of_bay(
            view,
            dark(light.dli.mean),
            headline,
            say!(
                "The window gives {day} on an average day; these seedlings need at least {low}. Turn the trays end for end every day, as plants lean towards the glass.",
                day = dli(light.daylight_mol_m2_d),
                low = dli(target.low),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, place};
    use crate::basis::dates::DateSpan;
    use crate::day::detail::Detail;
    use crate::light::fields::Fields;
    use crate::plan::Plan;
    use crate::room::{BayRef, Kind};
    use jiff::civil::{Date, date};

    /// Leek seedlings of the door rack moved to the sill, from the day they are sown.
    fn on_the_sill(
        change: impl FnOnce(&mut Plan),
        day: Date,
        fields: &Fields,
    ) -> Option<(String, f64)> {
        let plan = kettle_fen(|plan| {
            for tray in &mut plan.trays {
                let sill = BayRef {
                    place: "window".into(),
                    tier: "t1".into(),
                };
                if tray.id == "ls1" {
                    tray.stands.truncate(1);
                    tray.stands[0].bay = sill;
                }
            }
            change(plan);
        });
        let day = DateSpan::day(day);
        let assessment = crate::ask::assess_again(&plan, day, Detail::Outline, fields);
        let bays = &assessment.room[0].bays;
        let sill = bays.iter().find(|b| b.bay.place == "window").unwrap();
        let found = assessment
            .findings
            .iter()
            .find(|f| f.code == "window_too_dark");
        let dli = sill.light.as_ref().map_or(0.0, |light| light.dli.mean);
        found.map(|f| (f.headline.to_string(), dli))
    }

    #[test]
    fn a_sill_is_too_dark_behind_trees_and_bright_enough_behind_nothing() {
        let grown = |obstruction_deg: f64| {
            move |plan: &mut Plan| {
                let Kind::Window(pane) = &mut place(plan, "window").kind else {
                    panic!()
                };
                pane.obstruction_deg = obstruction_deg;
            }
        };
        let fields = Fields::default();
        let days = (0..120).map(|i| crate::basis::dates::plus_days(date(2027, 2, 1), i));
        let dark: Vec<(String, f64)> = days
            .clone()
            .filter_map(|day| on_the_sill(grown(50.0), day, &fields))
            .collect();
        assert!(!dark.is_empty());
        assert!(
            dark.iter()
                .all(|(headline, dli)| headline.contains("sill") && *dli < 10.0)
        );
        let open = days
            .filter_map(|day| on_the_sill(grown(0.0), day, &fields))
            .count();
        assert!(open < dark.len(), "{open} of {}", dark.len());
    }
}
