//! Triggers when a timer that is not made for damp switches what hangs outdoors.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::{Labelled, WHO_DECIDES};
use crate::basis::words::say;
use crate::room::find_bay;
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let mut found = Vec::new();
    let outdoors = |draw: &&crate::power::draw::Draw| {
        let bay = draw
            .bay
            .as_ref()
            .and_then(|bay| find_bay(&all.plan.places, bay));
        bay.is_some_and(|bay| bay.place.outdoors())
    };
    let mut told: Vec<&str> = Vec::new();
    for draw in all.draws.iter().filter(outdoors) {
        let timer = draw
            .plugged
            .as_deref()
            .and_then(|id| all.plan.wiring.timer_over(id));
        let Some((feed, timer)) = timer else { continue };
        if timer.weatherproof || told.contains(&feed.id.as_str()) {
            continue;
        }
        told.push(&feed.id);
        found.push(all.finding(
            Severity::Harm,
            say!(
                "Use a weatherproof timer in place of {timer}",
                timer = &feed.name
            ),
            say!(
                "It switches {what} outdoors and is made for dry rooms. {who}",
                what = &draw.name,
                who = WHO_DECIDES
            ),
        ));
    }
    found
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    #[test]
    fn speaks_of_a_dry_rooms_timer_outdoors_alone() {
        let with = |weatherproof: bool| {
            wired(230.0, 16.0, |plan| {
                crate::advice::testing::through_timer(plan, 3000.0);
                if let crate::room::wiring::FeedKind::Timer(timer) = &mut plan.wiring.feeds[3].kind
                {
                    timer.weatherproof = weatherproof;
                }
                let frame = crate::room::shelf::library()
                    .places
                    .iter()
                    .find(|p| p.outdoors())
                    .unwrap();
                let mut frame = frame.clone();
                let mut mat = crate::room::shelf::library().mats[0].clone();
                mat.plugged = Some("strip".into());
                (mat.x_mm, mat.y_mm) = (0.0, 0.0);
                frame.id = "frame".into();
                frame.tiers[0].mats.push(mat);
                plan.places.push(frame);
            })
        };
        assert_eq!(plan_judged(&with(false), judge).len(), 1);
        assert!(plan_judged(&with(true), judge).is_empty());
    }
}
