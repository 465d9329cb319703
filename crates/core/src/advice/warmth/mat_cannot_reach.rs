//! Triggers when a heat mat burns all day and its thermostat's setting is not reached.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::{OWN_ESTIMATE, say};
use crate::day::view::BayView;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let short = view.computed.roots().iter().filter(|r| !r.day.reaches);
    // The coolest of them.
    let roots = short.min_by(|a, b| a.day.mean_c.total_cmp(&b.day.mean_c))?;
    let set_c = roots.set_c?;
    let celsius = |c: f64| Quantity::TemperatureC.of(c);
    let headline = match roots.day.helps.first() {
        Some(help) => help.what.clone(),
        None => say!("Put a stronger mat under {tray}", tray = &roots.label),
    };
    let reason = match roots.day.helps.first() {
        Some(help) => say!(
            "With the mat on all day {tray} averages {mean}, short of the {set} you set; this brings it to {then}.",
            tray = &roots.label,
            mean = celsius(roots.day.mean_c),
            set = celsius(set_c),
            then = celsius(help.mean_c),
        ),
        None => say!(
            "With the mat on all day {tray} averages {mean}, short of the {set} you set.",
            tray = &roots.label,
            mean = celsius(roots.day.mean_c),
            set = celsius(set_c),
        ),
    };
    Some(Finding {
        trays: vec![roots.tray.clone()],
        source: OWN_ESTIMATE,
        ..Finding::of_bay(view, Severity::Advice, headline, reason)
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, kettle_fen};
    use jiff::civil::date;

    #[test]
    fn speaks_of_the_coolest_tray_with_what_would_help() {
        let plan = kettle_fen(|plan| plan.site.air.night_c = 10.0);
        let dates = crate::season::dates(&plan);
        let pepper = dates.iter().find(|d| d.sowing == "pepper").unwrap();
        let day = crate::basis::dates::plus_days(pepper.sow, 2);
        let finding = judged(&plan, "t3", day, judge).expect("a finding");
        assert!(
            finding.reason.to_string().contains("26 °C"),
            "{}",
            finding.reason
        );
        let warm = kettle_fen(|plan| {
            plan.site.air.day_c = 22.0;
            plan.site.air.night_c = 20.0;
        });
        assert_eq!(judged(&warm, "t3", date(2027, 3, 20), judge), None);
    }
}
