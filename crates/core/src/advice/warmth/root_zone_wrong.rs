//! Triggers when seed lies so cold or so warm that little of it or none comes up: said before it is
//! wasted.

use crate::advice::finding::{Finding, Severity};
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::day::view::BayView;

/// Fewer than this of good seeds are not worth sowing (our own estimate).
const WORTH: f64 = 0.5;

pub(super) fn judge(view: &BayView<'_>) -> Option<Finding> {
    let germinating = view.computed.roots().iter().filter(|roots| {
        let tray = view.standing.iter().find(|s| s.tray.id == roots.tray);
        tray.is_some_and(|s| s.coming_up)
    });
    // What a thermometer in the mix shows counts more than what is reckoned.
    let measured = |sowing: &str| {
        let index = view.plan.sowing_index(sowing);
        view.plan.sowings[index].root_zone_c.is_some()
    };
    let (roots, sown) = germinating
        .flat_map(|roots| roots.sown.iter().map(move |sown| (roots, sown)))
        // What comes up too late or never is told of the sowing.
        .filter(|(roots, sown)| {
            let late = |s: &crate::day::standing::Standing<'_>| {
                let own = s.parts.iter().filter(|part| part.sowing.id == sown.sowing);
                own.into_iter()
                    .any(|part| part.dates.emerge.is_none() || part.dates.needs_warmth)
            };
            let tray = view.standing.iter().find(|s| s.tray.id == roots.tray);
            !tray.is_some_and(late)
        })
        .filter(|(_, sown)| sown.outcome.share < WORTH && !measured(&sown.sowing))
        .min_by(|a, b| a.1.outcome.share.total_cmp(&b.1.outcome.share))?;
    let cold = roots.day.mean_c < sown.wants_c;
    let wants = Quantity::TemperatureC.of(sown.wants_c);
    Some(Finding {
        trays: vec![roots.tray.clone()],
        source: sown.outcome.source,
        ..Finding::of_bay(
            view,
            Severity::Conflict,
            if cold {
                say!(
                    "Warm {tray} to about {wants}",
                    tray = &roots.label,
                    wants = wants
                )
            } else {
                say!(
                    "Cool {tray} to about {wants}",
                    tray = &roots.label,
                    wants = wants
                )
            },
            say!(
                "The mix runs from {least} to {most}, and only {share} of good {seed} seed comes up at that.",
                least = Quantity::TemperatureC.of(roots.day.least_c),
                most = Quantity::TemperatureC.of(roots.day.most_c),
                seed = &sown.name,
                share = Quantity::Share.of(sown.outcome.share),
            ),
        )
    })
}

#[cfg(test)]
mod tests {
    use crate::advice::testing::kettle_fen;
    use crate::basis::dates::DateSpan;
    use crate::day::detail::Detail;
    use crate::plan::Plan;
    use crate::room::BayRef;

    fn said(change: impl FnOnce(&mut Plan)) -> Vec<String> {
        said_by("root_zone_wrong", change)
    }

    fn said_by(code: &str, change: impl FnOnce(&mut Plan)) -> Vec<String> {
        let plan = kettle_fen(change);
        let dates = crate::season::dates(&plan);
        let lettuce = dates.iter().find(|d| d.sowing == "lettuce").unwrap();
        let day = DateSpan::day(lettuce.sow);
        let assessment = crate::ask::assess(&plan, day, Detail::Outline);
        let found = assessment.findings.into_iter();
        found
            .filter(|f| f.code == code)
            .map(|f| format!("{} {}", f.headline, f.reason))
            .collect()
    }

    #[test]
    fn lettuce_in_a_chamber_that_is_too_hot_is_to_be_cooled() {
        assert!(said(|_| ()).is_empty());
        let hot = said(|plan| {
            let cabinet = plan.places.iter_mut().find(|p| p.id == "cabinet").unwrap();
            cabinet.tiers[0].mats[0].thermostat_c = Some(31.0);
        });
        assert!(hot.iter().any(|s| s.starts_with("Cool Le")), "{hot:?}");
    }

    #[test]
    fn peppers_in_a_cold_room_are_told_once_of_the_sowing() {
        let cold = |plan: &mut Plan| {
            plan.site.air.day_c = 12.0;
            plan.site.air.night_c = 8.0;
            let sowing = plan.sowings.iter_mut().find(|s| s.id == "lettuce");
            let sowing = sowing.unwrap();
            sowing.crop = "chilli".into();
            sowing.packet = None;
            for tray in &mut plan.trays {
                if tray.parts[0].sowing == "lettuce" {
                    tray.stands[0].bay = BayRef {
                        place: "bench".into(),
                        tier: "t1".into(),
                    };
                }
            }
        };
        let chilli = |s: &String| s.starts_with("Warm ") && s.contains("Chilli");
        let (once, twice) = (said_by("nothing_comes_up", cold), said(cold));
        assert!(once.iter().any(chilli), "{once:?}");
        assert!(!twice.iter().any(chilli), "{twice:?}");
    }
}
