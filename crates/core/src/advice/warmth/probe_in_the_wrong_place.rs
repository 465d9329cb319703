//! Triggers when a mat's thermostat does not feel the mix: one in the air burns the mat on, one on
//! the mat switches it off too soon.

use crate::advice::finding::{Finding, Severity};
use crate::basis::words::say;
use crate::day::view::BayView;
use crate::plan::patch::{Fix, PatchStep};
use crate::room::MatProbe;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let mats = view.bay.tier.mats.iter().enumerate();
    let (index, mat) = mats
        // One that another's thermostat switches has no probe of its own; in a chamber the air is what
        // is held.
        .filter(|(_, mat)| mat.thermostat_c.is_some() && mat.switched_with.is_none())
        .filter(|_| view.bay.place.chamber().is_none())
        .find(|(_, mat)| matches!(mat.probe, Some(MatProbe::Air | MatProbe::Mat)))?;
    let at = view.bay.pointer().at("mats").at(index).at("probe");
    let fix = Fix {
        label: say!("Done: probe in the mix"),
        word: say!("put the probe of {mat} into the mix", mat = &mat.name),
        patch: vec![PatchStep::set(&at, MatProbe::Mix)],
    };
    let in_air = mat.probe == Some(MatProbe::Air);
    Some(Finding {
        fixes: vec![fix],
        ..Finding::of_bay(
            view,
            if in_air {
                Severity::Conflict
            } else {
                Severity::Advice
            },
            say!("Push the probe of the thermostat into the mix"),
            if in_air {
                say!(
                    "A probe in the air reads the room, so {mat} stays on however warm the roots are.",
                    mat = &mat.name
                )
            } else {
                say!(
                    "A probe lying on {mat} reads a few degrees high, so the mat switches off before the roots are warm.",
                    mat = &mat.name
                )
            },
        )
    })
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, judged, kettle_fen, tier};
    use crate::room::MatProbe;
    use jiff::civil::date;

    #[test]
    fn a_probe_in_the_air_or_on_the_mat_belongs_in_the_mix() {
        let day = date(2027, 3, 20);
        for probe in [MatProbe::Air, MatProbe::Mat] {
            let plan = kettle_fen(|plan| tier(plan, "door", "t3").mats[0].probe = Some(probe));
            let finding = judged(&plan, "t3", day, judge).expect("a finding");
            assert_eq!(judged(&fixed(&plan, &finding), "t3", day, judge), None);
        }
        assert_eq!(judged(&kettle_fen(|_| ()), "t3", day, judge), None);
    }
}
