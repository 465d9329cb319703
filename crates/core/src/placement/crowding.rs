//! Where the room is too small: on which days, for whom, and by how many trays.

use std::collections::BTreeSet;

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::{DateSpan, plus_days};
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::placement::asked::Asked;
use crate::placement::hosts::Hosts;
use crate::placement::solver::{Effort, Progress, Short, place_with, short};
use crate::plan::Stage;
use crate::room::BayRef;
use crate::season::Reckoned;
use crate::season::suits::{Outgrown, lit_indoors, outgrows, outgrows_all};

/// What the room is short of.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Crowding {
    /// Trays that stand nowhere, however the others are moved about.
    pub without: Vec<String>,
    /// Why, by their first days.
    pub shortages: Vec<Shortage>,
}

/// Spots of one sort that are too few on some days.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Shortage {
    /// The days.
    pub days: DateSpan,
    /// The stage that wants them.
    pub stage: Stage,
    /// The bays that suit; empty where none does.
    pub bays: Vec<BayRef>,
    /// Trays that those hold.
    pub held: u32,
    /// Trays that can stand there and nowhere else, on the day with most of them.
    pub wanted: u32,
    /// Those of them that stand nowhere.
    pub without: Vec<String>,
    /// What is short, by how many.
    pub headline: Statement,
    /// Why.
    pub reason: Statement,
    /// What would do, if it were a little higher.
    pub nearly: Option<Statement>,
}

/// What the room is short of for the trays of `reckoned`, those that stand moved only where that helps.
/// Trays of odd sizes that stand nowhere are named without a reason.
pub fn crowding(reckoned: &Reckoned<'_>, tell: &mut dyn FnMut(Progress) -> bool) -> Crowding {
    let mut crowding = Crowding {
        without: Vec::new(),
        shortages: Vec::new(),
    };
    let hosts = Hosts::of(reckoned);
    let asked = Asked::of(reckoned, true, &hosts);
    let answer = asked.as_ref().and_then(|asked| {
        let answer = place_with(&asked.instance, Effort::Little, tell).ok()?;
        Some((asked, answer))
    });
    let mut without: BTreeSet<String> = BTreeSet::new();
    if let Some((asked, answer)) = answer {
        for short in short(&asked.instance, &answer) {
            let shortage = Shortage::of(asked, &short);
            // What hardens off may be carried out and in.
            if shortage.stage != Stage::Harden {
                without.extend(shortage.without.iter().cloned());
                add(&mut crowding.shortages, shortage);
            }
        }
        for shortage in &mut crowding.shortages {
            shortage.say(reckoned);
        }
    }
    let known = |id: &String| {
        asked
            .as_ref()
            .is_some_and(|asked| asked.stages.contains_key(id))
    };
    let odd = reckoned.unplaced.iter().map(|one| one.tray.id.clone());
    without.extend(odd.filter(|id| !known(id)));
    crowding.without = without.into_iter().collect();
    crowding
}

/// Adds a shortage to one of the same sort whose days it meets: the greater speaks for both.
fn add(found: &mut Vec<Shortage>, one: Shortage) {
    let touches = |other: &&mut Shortage| {
        let wide = DateSpan {
            from: plus_days(other.days.from, -1),
            to: plus_days(other.days.to, 1),
        };
        let sort = |own: &Shortage| (own.stage, own.bays.is_empty(), own.wanted <= own.held);
        sort(other) == sort(&one) && wide.meets(one.days)
    };
    let Some(other) = found.iter_mut().find(touches) else {
        found.push(one);
        return;
    };
    let lacks = |own: &Shortage| i64::from(own.wanted) - i64::from(own.held);
    let days = DateSpan {
        from: other.days.from.min(one.days.from),
        to: other.days.to.max(one.days.to),
    };
    let both = other.without.iter().chain(&one.without).cloned();
    let both: BTreeSet<String> = both.collect();
    if lacks(&one) > lacks(other) {
        *other = one;
    }
    other.days = days;
    other.without = both.into_iter().collect();
}

impl Shortage {
    /// From the solver's words to the plan's.
    fn of(asked: &Asked<'_>, short: &Short) -> Self {
        let date = |day: u32| plus_days(asked.first, day as i32);
        let days = DateSpan {
            from: date(short.from),
            to: date(short.to.max(short.from + 1) - 1),
        };
        let mut bays: Vec<BayRef> = Vec::new();
        for own in asked
            .positions
            .iter()
            .filter(|own| short.places.contains(&own.id))
        {
            let bay = own.bay.reference();
            if !bays.contains(&bay) {
                bays.push(bay);
            }
        }
        Self {
            days,
            stage: stage_of(asked, short),
            bays,
            held: short.held,
            wanted: if short.is_broken_up() {
                0
            } else {
                short.wanted
            },
            without: short.without.iter().map(|(tray, _)| tray.clone()).collect(),
            headline: say!(""),
            reason: say!(""),
            nearly: None,
        }
    }

    fn say(&mut self, reckoned: &Reckoned<'_>) {
        let count = |n: u32| Quantity::Count.of(f64::from(n));
        let names = |ids: &[String]| {
            let plan = reckoned.plan;
            let trays = plan.trays.iter().filter(|tray| ids.contains(&tray.id));
            listed(&trays.map(|tray| tray.name.clone()).collect::<Vec<_>>())
        };
        let (from, to) = (self.days.from, self.days.to);
        let does = match self.stage {
            Stage::Germinate => "germinate",
            _ => "grow",
        };
        if self.bays.is_empty() {
            self.headline = say!(
                "No spot suits {trays} from {from} on",
                trays = names(&self.without),
                from = from
            );
            let outgrown = self.outgrown(reckoned);
            self.reason = match outgrown.filter(|_| self.stage == Stage::Grow) {
                None if self.stage == Stage::Germinate => {
                    say!("Each shelf indoors is in use for storage, or too low for tray and dome.")
                }
                Some(Outgrown { from, over_mm }) => say!(
                    "Each shelf is in use for storage, without light, or too low: under the highest lamps they are {over} too tall from {date} on.",
                    over = Quantity::LengthMm.of(over_mm),
                    date = from
                ),
                None => say!("No shelf is lit and high enough for them."),
            };
            return;
        }
        let bays = self.bays.iter().filter_map(|bay| reckoned.plan.bay(bay));
        let bays = listed(&bays.map(|bay| bay.name()).collect::<Vec<_>>());
        if self.wanted == 0 {
            self.headline = say!(
                "No spot stays free for {trays} from {from} to {to}",
                trays = names(&self.without),
                from = from,
                to = to
            );
            self.reason = say!(
                "There is room on each single day, but in no one spot for all of them: to {does} in {bays} it would have to move on the way.",
                does = does,
                bays = bays
            );
            return;
        }
        self.headline = match self.wanted - self.held {
            1 => say!("1 tray too many from {from} to {to}", from = from, to = to),
            n => say!(
                "{n} trays too many from {from} to {to}",
                n = count(n),
                from = from,
                to = to
            ),
        };
        self.nearly = self.nearly(reckoned);
        self.reason = say!(
            "{wanted} trays want to {does} and suit no other place than {bays}, with room for {held}.",
            wanted = count(self.wanted),
            does = does,
            bays = bays,
            held = count(self.held)
        );
    }

    /// The lit bay besides that is too low by least, for the first that stands nowhere.
    fn nearly(&self, reckoned: &Reckoned<'_>) -> Option<Statement> {
        let plan = reckoned.plan;
        let index = self.without.first().and_then(|id| plan.tray_index(id));
        let tray = &plan.trays[index.filter(|_| self.stage == Stage::Grow)?];
        let others = lit_indoors(plan).filter(|bay| !self.bays.contains(&bay.reference()));
        let low =
            others.filter_map(|bay| Some((outgrows(plan, tray, &reckoned.dates, &bay)?, bay)));
        let (outgrown, bay) = low.min_by(|a, b| a.0.over_mm.total_cmp(&b.0.over_mm))?;
        Some(say!(
            "{bay} comes next: {over} too low from {from} on",
            bay = bay.name(),
            over = Quantity::LengthMm.of(outgrown.over_mm),
            from = outgrown.from
        ))
    }

    /// From when on and by how much what stands nowhere is too tall for the highest lit bay.
    fn outgrown(&self, reckoned: &Reckoned<'_>) -> Option<Outgrown> {
        let plan = reckoned.plan;
        let tray = &plan.trays[plan.tray_index(self.without.first()?)?];
        outgrows_all(plan, tray, &reckoned.dates)
    }
}

/// The stage in which those that stand nowhere want a spot: the first, where they are in several.
fn stage_of(asked: &Asked<'_>, short: &Short) -> Stage {
    let of = |(tray, stage): &(String, usize)| Some(asked.stages.get(tray)?.get(*stage)?.0);
    let stages = short.without.iter().filter_map(of);
    stages.min().unwrap_or(Stage::Grow)
}

/// Names one after another; the rest of many counted.
fn listed(names: &[String]) -> String {
    const MOST: usize = 6;
    match names {
        [] => String::new(),
        [one] => one.clone(),
        [all @ .., last] if names.len() <= MOST => format!("{} and {last}", all.join(", ")),
        _ => format!(
            "{} and {} more",
            names[..MOST - 1].join(", "),
            names.len() + 1 - MOST
        ),
    }
}
