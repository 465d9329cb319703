//! Triggers while a dome is on over seedlings that show: first it is vented, then it comes off.

use crate::advice::finding::{Finding, Severity};
use crate::air::mould::{MouldRisk, OverTrays, risk};
use crate::basis::dates::days_between;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

/// After so many days with seedlings under it a dome has been on too long (common practice, no
/// source).
const TOO_LONG_DAYS: i32 = 4;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let domed = view.standing.iter().filter(|s| s.domed);
    let shown = domed.filter_map(|s| {
        let quarter = s.moments.vent?;
        (quarter <= view.date).then_some((s, quarter))
    });
    let (standing, quarter) = shown.min_by_key(|(_, quarter)| *quarter)?;
    let roots = view.computed.roots().iter();
    let mean_c = roots
        .filter(|r| r.tray == standing.tray.id)
        .map(|r| r.day.mean_c)
        .next()
        .unwrap_or(view.around.day_c);
    let under = OverTrays {
        t_c: mean_c,
        humidity: 1.0,
        speed_m_s: 0.0,
        wet: 1.0,
    };
    let long = days_between(quarter, view.date) >= TOO_LONG_DAYS;
    let mouldy = risk(under) == MouldRisk::High;
    Some(Finding {
        trays: vec![standing.tray.id.clone()],
        ..Finding::of_bay(
            view,
            if long && mouldy {
                Severity::Conflict
            } else {
                Severity::Advice
            },
            if long {
                say!("Take the dome off {tray}", tray = &standing.tray.name)
            } else {
                say!("Vent the dome of {tray}", tray = &standing.tray.name)
            },
            say!(
                "A quarter has been up since {quarter}. Vent now, lift the dome when all are up, then give light at once: still, wet air at {mean} breeds mould.",
                quarter = quarter,
                mean = Quantity::TemperatureC.of(mean_c),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::Severity;
    use crate::advice::testing::{judged, kettle_fen};
    use crate::basis::dates::plus_days;
    use crate::season;

    #[test]
    fn a_dome_is_vented_when_a_quarter_shows() {
        let plan = kettle_fen(|_| ());
        let dates = season::dates(&plan);
        let pepper = dates.iter().find(|d| d.sowing == "pepper").unwrap();
        let quarter = pepper.quarter.unwrap();
        assert_eq!(judged(&plan, "t3", plus_days(quarter, -1), judge), None);
        let finding = judged(&plan, "t3", quarter, judge).expect("a finding");
        assert_eq!(finding.severity, Severity::Advice);
        assert!(finding.headline.to_string().starts_with("Vent the dome"));
        // All are up: it is off.
        let up = pepper.emerge.unwrap();
        assert_eq!(judged(&plan, "t3", plus_days(up, 3), judge), None);
    }
}
