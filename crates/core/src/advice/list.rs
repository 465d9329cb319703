//! Every judgement, asked in turn.

use crate::advice::finding::Finding;
use crate::advice::judgement::Judgement;
use crate::advice::sowing_view::SowingView;
use crate::advice::{air, light, power, sowing, space, warmth};
use crate::day::place::PlaceView;
use crate::day::room::RoomView;
use crate::day::view::BayView;
use crate::season::Reckoned;

/// Each judgement with its topic and its code.
fn all() -> impl Iterator<Item = (&'static str, &'static str, &'static Judgement)> {
    let topics = [
        ("warmth", warmth::ALL),
        ("light", light::ALL),
        ("space", space::ALL),
        ("air", air::ALL),
        ("sowing", sowing::ALL),
        ("power", power::ALL),
    ];
    topics.into_iter().flat_map(|(topic, list)| {
        list.iter()
            .map(move |(code, judgement)| (topic, *code, judgement))
    })
}

/// The code of every judgement there is.
pub fn codes() -> impl Iterator<Item = &'static str> {
    all().map(|(_, code, _)| code)
}

/// What each judgement tells to `said` by `ask`, the gravest first.
///
/// Nothing is handed back and forth while nothing is found: this is asked of every bay on every day.
fn judged(ask: impl Fn(&Judgement, &mut dyn FnMut(Finding))) -> Vec<Finding> {
    let mut findings = Vec::new();
    for (topic, code, judgement) in all() {
        ask(judgement, &mut |finding| {
            findings.push(Finding {
                code,
                topic,
                ..finding
            });
        });
    }
    findings.sort_by_key(|finding| finding.severity);
    findings
}

/// All findings on a bay, the gravest first.
pub fn on_bay(view: &BayView<'_>) -> Vec<Finding> {
    judged(|judgement, said| {
        if let Judgement::Bay(judge) = judgement
            && let Some(finding) = judge(view)
        {
            said(finding);
        }
    })
}

/// All findings on a place, the gravest first.
pub fn on_place(view: &PlaceView<'_, '_>) -> Vec<Finding> {
    judged(|judgement, said| {
        if let Judgement::Place(judge) = judgement
            && let Some(finding) = judge(view)
        {
            said(finding);
        }
    })
}
/// All findings on the room as a whole on a date, the gravest first.
pub fn on_room(view: &RoomView<'_>) -> Vec<Finding> {
    judged(|judgement, said| {
        if let Judgement::Room(judge) = judgement {
            judge(view).into_iter().for_each(said);
        }
    })
}

/// All findings on the plan as a whole and on each of its sowings, the gravest first.
pub fn on_plan(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let plan = reckoned.plan;
    let mut findings = judged(|judgement, said| {
        if let Judgement::Plan(judge) = judgement {
            judge(reckoned).into_iter().for_each(said);
        }
    });
    for (index, sowing) in plan.sowings.iter().enumerate() {
        // Stock that passes through is judged where it stands.
        if sowing.stays.is_some() {
            continue;
        }
        let view = SowingView {
            plan,
            index,
            sowing,
            crop: plan.crop(sowing),
            dates: &reckoned.dates[index],
            all_dates: &reckoned.dates,
            cells: reckoned.cells_of(&sowing.id),
            growing: &reckoned.growing,
        };
        findings.extend(judged(|judgement, said| {
            if let Judgement::Sowing(judge) = judgement
                && let Some(finding) = judge(&view)
            {
                said(finding);
            }
        }));
    }
    findings.sort_by_key(|finding| finding.severity);
    findings
}
