//! Triggers for a sowing whose hardening off has no place to be: trays must stand somewhere outdoors
//! from its day on.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::plan::{Stage, Tray};
use crate::season::moments::TrayMoments;

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let trays: Vec<&Tray> = view.plan.trays_of(&view.sowing.id).collect();
    // What is potted on before leaves its cells to others.
    let hardens = |tray: &&&Tray| {
        let moments = TrayMoments::of(view.plan, tray, view.all_dates);
        moments.days_of(Stage::Harden).is_some()
    };
    let homeless = trays
        .iter()
        .filter(hardens)
        .filter(|tray| tray.stand_in(Stage::Harden).is_none())
        .count();
    if homeless == 0 || view.crop.hardening_days == 0 {
        return None;
    }
    let (from, out) = (view.dates.harden, view.dates.out);
    Some(Finding {
        source: view.crop.source("hardening_days"),
        ..view.finding(
            Severity::Advice,
            DateSpan {
                from,
                to: plus_days(out, -1),
            },
            say!("Find room to harden off {name} from {from}", name = &view.dates.name, from = from),
            say!(
                "Plants going out on {out} need {days} of sun and wind first; trays without an outdoor spot: {trays}.",
                days = Quantity::Days.of(f64::from(view.crop.hardening_days)),
                out = out,
                trays = Quantity::Count.of(homeless as f64),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, of_sowing};
    use crate::plan::Stage;

    #[test]
    fn trays_without_a_spot_outdoors_are_counted() {
        let code = "harden_off_now";
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "tomato", code), None);
        let plan = kettle_fen(|plan| {
            let tray = plan.trays.iter_mut().find(|t| t.id == "to1").unwrap();
            tray.stands.retain(|stand| stand.stage != Stage::Harden);
        });
        let finding = of_sowing(&plan, "tomato", code).expect("homeless");
        assert!(
            finding
                .reason
                .to_string()
                .ends_with("without an outdoor spot: 1.")
        );
    }
}
