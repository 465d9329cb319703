//! A change carried out, all trays placed again, and what came of it.

use std::collections::BTreeSet;

use crate::advice;
use crate::advice::Severity;
use crate::basis::dates::DateSpan;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::compare::making_room::change::Change;
use crate::compare::making_room::way::WayToFit;
use crate::edit;
use crate::edit::Edited;
use crate::light::fields::Fields;
use crate::placement::solver::Effort;
use crate::placement::{Crowding, How};
use crate::plan::{SoundPlan, Stage};
use crate::season::Reckoned;
use crate::season::stays::clashes;

/// How a plan stands: what has no spot, and what is wrong with it besides.
#[derive(Debug, Clone)]
pub(super) struct Standing {
    /// Trays that stand nowhere, or in another's spot.
    pub(super) without: u32,
    /// What was found wrong: the judgement, and what it is about.
    found: BTreeSet<(String, Option<String>)>,
}

/// Said by trays without a spot themselves.
const OF_SPACE: [&str; 2] = ["stands_nowhere", "trays_clash"];

impl Standing {
    pub(super) fn of(reckoned: &Reckoned<'_>) -> Self {
        let findings = advice::on_plan(reckoned).into_iter();
        Self {
            without: without(reckoned),
            found: findings
                .map(|finding| (finding.code.to_owned(), finding.sowing))
                .collect(),
        }
    }
}

fn without(reckoned: &Reckoned<'_>) -> u32 {
    (reckoned.unplaced.len() + clashes(&reckoned.stays).len()) as u32
}

/// A change with what came of it.
#[derive(Debug, Clone)]
pub(super) struct Tried {
    pub(super) about: String,
    pub(super) steps: Vec<Statement>,
    pub(super) costs: Vec<Statement>,
    pub(super) buys: Vec<Statement>,
    pub(super) harm: u32,
    pub(super) left: u32,
    pub(super) edited: Edited,
}

/// A judgement that was not there before weighs so much.
const NEW_CONFLICT: u32 = 25;
const NEW_ADVICE: u32 = 5;
/// So many of them are named.
const MOST_NAMED: usize = 2;

impl Tried {
    /// Of `change`, after `first` where that is given; `None` where plants would come to harm that do not
    /// now, or the plan would not be sound.
    pub(super) fn of(
        plan: &SoundPlan,
        change: Change,
        first: Option<&Self>,
        before: &Standing,
        fields: &Fields,
    ) -> Option<Self> {
        let changed = plan.changed_to(change.plan).ok()?;
        let how = How {
            afresh: false,
            effort: Effort::Little,
        };
        let placed = match edit::place_all(&changed, how, fields, &mut |_| true) {
            Ok(edited) => plan.changed_to(edited.plan).ok()?,
            // Every tray has a spot, or nothing more fits.
            Err(_) => changed,
        };
        let reckoned = Reckoned::of(&placed, fields);
        let left = without(&reckoned);
        let (mut costs, mut harm) = (change.costs, change.harm);
        let mut named = 0;
        for finding in advice::on_plan(&reckoned) {
            let known = (finding.code.to_owned(), finding.sowing.clone());
            if before.found.contains(&known) || OF_SPACE.contains(&finding.code) {
                continue;
            }
            harm += match finding.severity {
                Severity::Harm => return None,
                Severity::Conflict => NEW_CONFLICT,
                Severity::Advice => NEW_ADVICE,
            };
            if named < MOST_NAMED {
                named += 1;
                costs.push(finding.headline);
            }
        }
        let mut steps = vec![change.step.clone()];
        let mut buys: Vec<Statement> = change.buys.into_iter().collect();
        let mut about = change.about;
        if let Some(first) = first {
            steps.splice(0..0, first.steps.iter().cloned());
            buys.splice(0..0, first.buys.iter().cloned());
            let own = costs;
            costs = first.costs.clone();
            costs.extend(own.into_iter().filter(|cost| !first.costs.contains(cost)));
            costs.dedup();
            harm += first.harm;
            about = format!("{}+{about}", first.about);
        }
        let word = match &steps[..] {
            [one] => one.clone(),
            all => say!(
                "made room by {n} changes",
                n = Quantity::Count.of(all.len() as f64)
            ),
        };
        Some(Self {
            about,
            edited: Edited {
                plan: (*placed).clone(),
                word,
                made: Vec::new(),
            },
            steps,
            costs,
            buys,
            harm,
            left,
        })
    }

    pub(super) fn into_way(self) -> WayToFit {
        WayToFit {
            steps: self.steps,
            costs: self.costs,
            buys: self.buys,
            left: self.left,
            edited: self.edited,
        }
    }
}

/// Whether `change` leaves fewer trays asking for what is short, on any of those days: only then is it worth
/// placing all of them again.
pub(super) fn eases(
    reckoned: &Reckoned<'_>,
    short: &Crowding,
    change: &Change,
    fields: &Fields,
) -> bool {
    let Ok(changed) = reckoned.plan.changed_to(change.plan.clone()) else {
        return false;
    };
    let after = Reckoned::of(&changed, fields);
    short.shortages.iter().any(|shortage| {
        let asks = |reckoned: &Reckoned<'_>| tray_days(reckoned, shortage.days, shortage.stage);
        asks(&after) < asks(reckoned)
    })
}

fn tray_days(reckoned: &Reckoned<'_>, days: DateSpan, stage: Stage) -> i32 {
    let plan: &SoundPlan = reckoned.plan;
    let there = plan.trays.iter().filter_map(|tray| {
        let own = reckoned.moments_of(tray).days_of(stage)?;
        let both = DateSpan {
            from: own.from.max(days.from),
            to: own.to.min(days.to),
        };
        Some(both.count().max(0))
    });
    there.sum()
}
