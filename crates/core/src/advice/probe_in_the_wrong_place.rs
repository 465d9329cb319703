//! Triggers when a mat's thermostat does not feel the mix: one in the air burns the mat on, one on
//! the mat switches it off too soon.

use super::{Finding, Fix, PatchStep, Severity};
use crate::bays::BayView;
use crate::room::MatProbe;
use crate::say;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let mats = view.bay.tier.mats.iter().enumerate();
    let (index, mat) = mats
        .filter(|(_, mat)| mat.thermostat_c.is_some())
        .find(|(_, mat)| matches!(mat.probe, Some(MatProbe::Air | MatProbe::Mat)))?;
    let at = view.bay.pointer().at("mats").at(index).at("probe");
    let fix = Fix {
        label: say!("It is in the mix now"),
        word: say!("put the probe of {mat} into the mix", mat = &mat.name),
        patch: vec![PatchStep::set(&at, MatProbe::Mix)],
    };
    let in_air = mat.probe == Some(MatProbe::Air);
    Some(Finding {
        fixes: vec![fix],
        ..Finding::of_bay(
            view,
            "probe_in_the_wrong_place",
            if in_air {
                Severity::Conflict
            } else {
                Severity::Advice
            },
            say!("Push the probe of the thermostat into the mix"),
            if in_air {
                say!(
                    "In the air it feels the room, not {mat}: the mat stays on whatever the roots feel.",
                    mat = &mat.name
                )
            } else {
                say!(
                    "On {mat} it feels the mat, which is some degrees warmer than the roots: it switches off before they are warm.",
                    mat = &mat.name
                )
            },
        )
    })
}

#[cfg(test)]
mod tests {
    use super::super::testing::{fixed, judged, kettle_fen};
    use super::judge;
    use crate::room::MatProbe;
    use jiff::civil::date;

    #[test]
    fn a_probe_in_the_air_or_on_the_mat_belongs_in_the_mix() {
        let day = date(2027, 3, 20);
        for probe in [MatProbe::Air, MatProbe::Mat] {
            let plan = kettle_fen(|plan| plan.places[0].tiers[2].mats[0].probe = Some(probe));
            let finding = judged(&plan, 2, day, judge).expect("a finding");
            assert_eq!(judged(&fixed(&plan, &finding), 2, day, judge), None);
        }
        assert_eq!(judged(&kettle_fen(|_| ()), 2, day, judge), None);
    }
}
