//! Triggers when a sowing's root zone is so cold or so warm that nothing comes up, or that it
//! comes up only when it should already harden off.

use crate::advice::finding::{Finding, Severity};
use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::fault::Pointer;
use crate::basis::units::Quantity;
use crate::basis::words::say;
use crate::plan::patch::{Fix, PatchStep};
use crate::season::Reckoned;
use crate::season::how_many::is_kept_down;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let (plan, dates) = (reckoned.plan, &reckoned.dates);
    plan.sowings
        .iter()
        .zip(dates.iter())
        .enumerate()
        .filter(|(_, (sowing, dates))| {
            let kept_down = is_kept_down(plan.crop(sowing), dates) && sowing.stays.is_none();
            dates.emerge.is_none() || dates.needs_warmth || kept_down
        })
        .map(|(i, (sowing, dates))| {
            let crop = plan.crop(sowing);
            // What it lies in, wherever it stands.
            let now_c = dates.root_zone_c;
            let (now, advised) = (
                Quantity::TemperatureC.of(now_c),
                Quantity::TemperatureC.of(crop.root_zone_c),
            );
            let headline = if now_c < crop.root_zone_c {
                say!("Warm {name} to {advised}", name = &dates.name, advised = advised.clone())
            } else {
                say!("Cool {name} to {advised}", name = &dates.name, advised = advised.clone())
            };
            // A root zone that was left to the room has no field to replace yet; measuring it
            // comes first.
            let fix = sowing.root_zone_c.map(|_| Fix {
                label: say!("Done: the mix is at {advised} now", advised = advised.clone()),
                word: say!("{name} to germinate at {advised}", name = &dates.name, advised = advised.clone()),
                patch: vec![PatchStep::replace(
                    &Pointer::default().at("sowings").at(i).at("root_zone_c"),
                    crop.root_zone_c,
                )],
            });
            let trays = plan.sown_in(&sowing.id);
            Finding {
                id: String::new(),
                code: "",
                topic: "",
                severity: Severity::Conflict,
                place: None,
                bay: None,
                sowing: None,
                trays: trays.map(|tray| tray.id.clone()).collect(),
                cells: Vec::new(),
                days: DateSpan { from: dates.sow, to: plus_days(dates.harden, -1) },
                headline,
                reason: match dates.emergence_days {
                    None => say!("No seed comes up in mix at {now}.", now = now),
                    Some(_) if dates.emerge.is_some() && !dates.needs_warmth => say!(
                        "In mix at {now} only {share} of good seed comes up. Warmth is cheaper than more seed.",
                        now = now,
                        share = Quantity::Share.of(dates.comes_up),
                    ),
                    Some(days) if dates.emerge.is_some() => say!(
                        "In mix at {now} seed takes {days} to come up, {late} longer than where it is warm: it needs a mat, or a warmer spot. Sowing earlier is no cure.",
                        now = now,
                        days = Quantity::Days.of(days.round()),
                        late = Quantity::Days.of(dates.late_days.round()),
                    ),
                    Some(days) => say!(
                        "In mix at {now} seed takes {days} to come up, when the plants should be hardening off.",
                        now = now,
                        days = Quantity::Days.of(days.round()),
                    ),
                },
                source: crate::crops::library().source("emergence"),
                fixes: fix.into_iter().collect(),
            }
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{fixed, one_rack, plan_judged};

    #[test]
    fn cold_peppers_are_named_and_warming_settles_it() {
        let plan = one_rack(|plan| {
            let pepper = plan
                .sowings
                .iter_mut()
                .find(|s| s.crop == "pepper")
                .unwrap();
            pepper.root_zone_c = Some(10.0);
        });
        let findings = plan_judged(&plan, judge);
        assert_eq!(findings.len(), 1);
        assert_eq!(
            findings[0].reason.to_string(),
            "No seed comes up in mix at 10 °C."
        );
        let after = fixed(&plan, &findings[0]);
        assert_eq!(plan_judged(&after, judge), []);
    }
}
