//! Triggers when a crop that is spoiled by an early start is sown indoors for no stated reason.

use crate::advice::finding::{Finding, Severity};
use crate::advice::sowing_view::SowingView;
use crate::basis::words::say;
use crate::crops::{GrownFrom, StartPlace};

pub(super) fn judge(view: &SowingView<'_>) -> Option<Finding> {
    let crop = view.crop;
    let seed = crop.grown_from == GrownFrom::Seed;
    if crop.start != StartPlace::Outdoors || view.sowing.reason.is_some() || !seed {
        return None;
    }
    Some(Finding {
        source: crop.source("start"),
        ..view.finding(
            Severity::Advice,
            view.days(),
            say!("Sow {name} direct in the bed", name = &view.dates.name),
            say!(
                "{crop}: {why}. If no bed is free or mice are about, choose that as the reason and sow in the final pot.",
                crop = &crop.name,
                why = crop.start_reason.words()
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::{kettle_fen, of_sowing, sowing};
    use crate::plan::Reason;

    #[test]
    fn peas_are_sown_outside_unless_there_is_a_reason() {
        let code = "better_sown_outdoors";
        let peas = |reason| {
            kettle_fen(|plan| {
                let sowing = sowing(plan, "beetroot");
                sowing.crop = "pea".into();
                sowing.packet = None;
                sowing.reason = reason;
            })
        };
        let finding = of_sowing(&peas(None), "beetroot", code).expect("outside");
        assert!(finding.reason.to_string().contains("hardy"));
        assert_eq!(
            of_sowing(&peas(Some(Reason::Pests)), "beetroot", code),
            None
        );
        assert_eq!(of_sowing(&kettle_fen(|_| ()), "tomato", code), None);
    }
}
