//! Every judgement, asked in turn.

use std::sync::LazyLock;

use crate::advice::finding::Finding;
use crate::advice::judgement::{Judgement, OnBay, OnPlace, OnRoom};
use crate::advice::sowing_view::SowingView;
use crate::advice::{air, light, power, sowing, space, warmth};
use crate::day::place::PlaceView;
use crate::day::room::RoomView;
use crate::day::view::BayView;
use crate::season::Reckoned;

/// A judgement with its topic and its code.
type Named<J> = (&'static str, &'static str, J);

/// Each judgement.
fn all() -> impl Iterator<Item = Named<&'static Judgement>> {
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

/// The judgements of which `kind` takes what they look at. They are asked of every bay on every day: nobody
/// passes over all the others each time.
fn those<J>(kind: impl Fn(&Judgement) -> Option<J>) -> Vec<Named<J>> {
    let own = all().filter_map(|(topic, code, judgement)| Some((topic, code, kind(judgement)?)));
    own.collect()
}

/// What each of `judgements` tells to `said` by `ask`, the gravest first.
///
/// Nothing is handed back and forth while nothing is found.
fn judged<J>(judgements: &[Named<J>], ask: impl Fn(&J, &mut dyn FnMut(Finding))) -> Vec<Finding> {
    let mut findings = Vec::new();
    for (topic, code, judgement) in judgements {
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
    static ON_EMPTY: LazyLock<Vec<Named<OnBay>>> = LazyLock::new(|| {
        those(|judgement| match judgement {
            Judgement::Bay(judge) => Some(*judge),
            _ => None,
        })
    });
    static OWN: LazyLock<Vec<Named<OnBay>>> = LazyLock::new(|| {
        those(|judgement| match judgement {
            Judgement::Bay(judge) | Judgement::Trays(judge) => Some(*judge),
            _ => None,
        })
    });
    let own = if view.standing.is_empty() {
        &ON_EMPTY
    } else {
        &OWN
    };
    judged(own, |judge, said| {
        if let Some(finding) = judge(view) {
            said(finding);
        }
    })
}

/// All findings on a place, the gravest first.
pub fn on_place(view: &PlaceView<'_, '_>) -> Vec<Finding> {
    static OWN: LazyLock<Vec<Named<OnPlace>>> = LazyLock::new(|| {
        those(|judgement| match judgement {
            Judgement::Place(judge) => Some(*judge),
            _ => None,
        })
    });
    judged(&OWN, |judge, said| {
        if let Some(finding) = judge(view) {
            said(finding);
        }
    })
}

/// All findings on the room as a whole on a date, the gravest first.
pub fn on_room(view: &RoomView<'_>) -> Vec<Finding> {
    static OWN: LazyLock<Vec<Named<OnRoom>>> = LazyLock::new(|| {
        those(|judgement| match judgement {
            Judgement::Room(judge) => Some(*judge),
            _ => None,
        })
    });
    judged(&OWN, |judge, said| judge(view).into_iter().for_each(said))
}

/// All findings on the plan as a whole and on each of its sowings, the gravest first.
pub fn on_plan(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let plan = reckoned.plan;
    let on_plan = those(|judgement| match judgement {
        Judgement::Plan(judge) => Some(*judge),
        _ => None,
    });
    let on_sowing = those(|judgement| match judgement {
        Judgement::Sowing(judge) => Some(*judge),
        _ => None,
    });
    let mut findings = judged(&on_plan, |judge, said| {
        judge(reckoned).into_iter().for_each(said);
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
        findings.extend(judged(&on_sowing, |judge, said| {
            if let Some(finding) = judge(&view) {
                said(finding);
            }
        }));
    }
    findings.sort_by_key(|finding| finding.severity);
    findings
}
