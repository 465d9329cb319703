//! Triggers in the days after all on a heat mat is up: it is to be unplugged and passed on.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::days_between;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::plan::Stage;
use crate::warmth::mat::cover;

/// So many days the reminder stands.
const DAYS: i32 = 3;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    if view.bay.tier.mats_growing {
        return None;
    }
    let done = view.bay.tier.mats.iter().find_map(|mat| {
        let on_it = || {
            let all = view.standing.iter();
            all.filter(|s| cover(mat, &s.footprint) > 0.0)
        };
        let coming_up = on_it().any(|s| s.coming_up);
        let last_up = on_it()
            .filter(|s| s.stage == Stage::Grow)
            .map(|s| s.moments.all_up)
            .max()?;
        // Only what germinated on this mat was warmed by it.
        let here = |s: &&crate::day::standing::Standing<'_>| {
            let first = s.tray.stand_in(Stage::Germinate);
            first.is_some_and(|stand| stand.bay == view.bay.reference())
        };
        let tray = on_it().filter(here).find(|s| s.moments.all_up == last_up)?;
        let since = days_between(last_up, view.date);
        (!coming_up && (0..DAYS).contains(&since)).then_some((mat, tray))
    });
    let (mat, tray) = done?;
    Some(Finding {
        trays: vec![tray.tray.id.clone()],
        ..Finding::of_bay(
            view,
            Severity::Advice,
            say!("Unplug {mat}", mat = &mat.name),
            say!(
                "Everything in {tray} has been up since {up}, and warm roots make leggy seedlings. The mat ({watts}) is free for the next sowing.",
                tray = &tray.tray.name,
                up = tray.moments.all_up,
                watts = Quantity::PowerW.of(mat.watts),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{judged, kettle_fen};
    use crate::basis::dates::plus_days;
    use crate::season;

    #[test]
    fn reminds_for_three_days_once_all_is_up() {
        let plan = kettle_fen(|_| ());
        let dates = season::dates(&plan);
        let up = dates
            .iter()
            .filter(|d| d.sowing.starts_with("pepper"))
            .filter_map(|d| d.last)
            .max()
            .unwrap();
        let on = |days| judged(&plan, "t3", plus_days(up, days), judge).is_some();
        assert!(!on(-1));
        assert!(on(0) && on(2));
        assert!(!on(3));
    }
}
