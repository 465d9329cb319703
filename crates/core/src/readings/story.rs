//! The life of a tray: what was planned beside what happened.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::{days_between, plus_days};
use crate::log::detail::{About, Measurement};
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::log::told::Told;
use crate::plan::Tray;
use crate::season::jobs::{EventKind, on_tray};
use crate::season::{Reckoned, SowingDates, jobs};

/// The life of a tray.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Story {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// What grows in it, in words.
    pub holds: Vec<String>,
    /// Each step of its life, in order.
    pub steps: Vec<LifeStep>,
    /// What came up, a curve for each sowing in it.
    pub counts: Vec<Track>,
    /// How tall its plants stood, in mm, for each sowing in it.
    pub heights: Vec<Track>,
    /// The temperature of the mix while it germinated, in °C.
    pub soil: Track,
    /// Water it was given, in ml; `None` where nobody measured.
    pub water_ml: Option<f64>,
}

/// A step of a tray's life.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct LifeStep {
    /// Which.
    pub what: EventKind,
    /// The sowing that it is a step of.
    pub sowing: String,
    /// The day that the plan alone would have for it; `None` where it would not come.
    pub planned: Option<Date>,
    /// The day on which it happened, or falls due by what happened so far.
    pub day: Date,
    /// Whether it happened.
    pub happened: bool,
}

/// A figure from day to day: as it is reckoned, and as it was seen.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Track {
    /// Of what.
    pub name: String,
    /// As reckoned.
    pub reckoned: Vec<OnADay>,
    /// As seen.
    pub seen: Vec<OnADay>,
    /// The most that it can be; `None` where there is no such limit.
    pub most: Option<f64>,
}

/// A figure on a day.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct OnADay {
    /// The day.
    pub day: Date,
    /// The figure.
    pub value: f64,
}

impl Story {
    /// Of the tray called `id`, by what is `reckoned` from plan and log, and by what the plan alone would have:
    /// `planned`; `None` where the plan has no such tray.
    pub fn of(
        reckoned: &Reckoned<'_>,
        planned: &Reckoned<'_>,
        told: &Told,
        id: &str,
    ) -> Option<Self> {
        let plan = reckoned.plan;
        let tray = &plan.trays[plan.tray_index(id)?];
        let entries: Vec<Entry> = told.of_tray(id).cloned().collect();
        let of = |sowing| &reckoned.dates[plan.sowing_index(sowing)];
        let dates: Vec<&SowingDates> = sowings(tray).map(of).collect();
        let teller = Teller {
            reckoned,
            planned,
            tray,
            entries: &entries,
        };
        let counts = dates.iter().map(|dates| teller.counts(dates)).collect();
        let heights = dates.iter().map(|dates| teller.heights(dates)).collect();
        let water: Vec<f64> = entries.iter().filter_map(water_ml).collect();
        Some(Self {
            tray: tray.id.clone(),
            label: tray.name.clone(),
            holds: dates.iter().map(|dates| dates.name.clone()).collect(),
            steps: steps(reckoned, planned, tray),
            counts,
            heights,
            soil: soil(reckoned, tray, &entries),
            water_ml: (!water.is_empty()).then(|| water.iter().sum()),
        })
    }
}

/// The sowings in `tray`, each once.
fn sowings(tray: &Tray) -> impl Iterator<Item = &str> {
    let parts = tray.parts.iter().enumerate();
    let first = parts.filter(|(i, part)| {
        let mut before = tray.parts[..*i].iter();
        before.all(|other| other.sowing != part.sowing)
    });
    first.map(|(_, part)| part.sowing.as_str())
}

fn water_ml(entry: &Entry) -> Option<f64> {
    match entry.fact {
        Some(Fact::Watered { water_ml, .. }) => water_ml,
        _ => None,
    }
}

/// The jobs of `tray` in order, each with its planned day.
fn steps(reckoned: &Reckoned<'_>, planned: &Reckoned<'_>, tray: &Tray) -> Vec<LifeStep> {
    let before = jobs::all(planned);
    let own = jobs::all(reckoned).into_iter();
    let own = own.filter(|event| event.trays.contains(&tray.id));
    let steps = own.map(|event| {
        let mut same = before.iter().filter(|other| other.trays.contains(&tray.id));
        let same = same.find(|other| other.what == event.what && other.sowing == event.sowing);
        let done = on_tray(reckoned.plan, &event, &tray.id);
        LifeStep {
            what: event.what,
            planned: same.map(|other| other.date),
            day: done.unwrap_or(event.date),
            happened: done.is_some(),
            sowing: event.sowing,
        }
    });
    let mut steps: Vec<LifeStep> = steps.collect();
    steps.sort_by_key(|step| (step.day, step.what));
    steps
}

/// What a track is told by.
struct Teller<'a, 'r> {
    reckoned: &'a Reckoned<'r>,
    planned: &'a Reckoned<'r>,
    tray: &'a Tray,
    entries: &'a [Entry],
}

impl Teller<'_, '_> {
    /// Cells in which something shows: as the plan alone has it, from the day on which it was sown.
    fn counts(&self, dates: &SowingDates) -> Track {
        let plan = self.reckoned.plan;
        let cells = f64::from(plan.cells_in(self.tray, &dates.sowing));
        let before = &self.planned.dates[plan.sowing_index(&dates.sowing)];
        let to_sow = self.reckoned.cells_of(&dates.sowing);
        let to_sow = to_sow.and_then(|cells| cells.to_sow.as_ref());
        let full = cells * to_sow.map_or(1.0, |sow| 1.0 - sow.empty);
        let later = days_between(before.sow, dates.sow);
        let shows = [
            (Some(before.sow), 0.0),
            (before.first, 0.1),
            (before.quarter, 0.25),
            (before.emerge, 0.5),
            (before.last, 0.9),
            (before.last.map(|last| plus_days(last, 3)), 1.0),
        ];
        let on = |(day, share): (Option<Date>, f64)| {
            Some(OnADay {
                day: plus_days(day?, later),
                value: (share * full).round(),
            })
        };
        let seen = self.entries.iter().filter_map(|entry| match &entry.fact {
            Some(Fact::Shown {
                tray,
                sowing,
                count,
                ..
            }) if *tray == self.tray.id && sowing.as_ref().is_none_or(|id| *id == dates.sowing) => {
                Some(OnADay {
                    day: entry.on,
                    value: f64::from(*count),
                })
            }
            _ => None,
        });
        Track {
            name: dates.name.clone(),
            reckoned: if self.tray.potted {
                Vec::new()
            } else {
                shows.into_iter().filter_map(on).collect()
            },
            seen: seen.collect(),
            most: Some(cells),
        }
    }

    /// How tall the plants of a sowing stood.
    fn heights(&self, dates: &SowingDates) -> Track {
        let plan = self.reckoned.plan;
        let grown = self.reckoned.growing.of_tray(plan, self.tray).iter();
        let mut own = grown.zip(&self.tray.parts);
        let grown = own
            .find(|(_, part)| part.sowing == dates.sowing)
            .map(|(grown, _)| grown);
        let reckoned = grown.map_or_else(Vec::new, |grown| {
            let days = grown.days();
            let tall = days.map(|(day, plant)| OnADay {
                day,
                value: plant.height_mm,
            });
            tall.collect()
        });
        Track {
            name: dates.name.clone(),
            reckoned,
            seen: readings(self.entries, &self.tray.id, |reading| match reading {
                Measurement::HeightMm(mm) => Some(mm),
                _ => None,
            }),
            most: None,
        }
    }
}

/// What was read in `tray`.
fn readings(entries: &[Entry], tray: &str, of: impl Fn(Measurement) -> Option<f64>) -> Vec<OnADay> {
    let read = entries.iter().filter_map(|entry| match &entry.fact {
        Some(Fact::Measured {
            about: About::Tray(own),
            reading,
        }) if own == tray => Some(OnADay {
            day: entry.on,
            value: of(*reading)?,
        }),
        _ => None,
    });
    read.collect()
}

/// The mix while `tray` germinates.
fn soil(reckoned: &Reckoned<'_>, tray: &Tray, entries: &[Entry]) -> Track {
    let plan = reckoned.plan;
    let moments = reckoned.moments_of(tray);
    let first = &reckoned.dates[plan.sowing_index(&tray.parts[0].sowing)];
    let ends = [moments.sow, moments.moves.max(moments.sow)];
    Track {
        name: first.name.clone(),
        reckoned: if tray.potted {
            Vec::new()
        } else {
            let on = |day| OnADay {
                day,
                value: first.root_zone_c,
            };
            ends.map(on).into()
        },
        seen: readings(entries, &tray.id, |reading| match reading {
            Measurement::SoilC(c) => Some(c),
            _ => None,
        }),
        most: None,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::log::entry::Entry;
    use crate::testing::{after, kettle_fen, noted, reckoned};

    #[test]
    fn a_life_has_its_planned_and_its_real_days_and_what_was_seen() {
        let plain = kettle_fen(|_| ());
        let tray = plain.sown_in("tomato").next().unwrap().id.clone();
        let planned = reckoned(&plain);
        let sow = crate::testing::dates_of(&planned, "tomato").sow;
        let own = || tray.clone();
        let about = || About::Tray(own());
        let day = |n| plus_days(sow, 6 + n);
        let reading = |on, reading| {
            let about = about();
            noted(on, Fact::Measured { about, reading })
        };
        let entries: Vec<Entry> = vec![
            noted(day(0), Fact::Sown { tray: own() }),
            noted(
                day(11),
                Fact::Shown {
                    tray: own(),
                    sowing: None,
                    count: 20,
                    of: 50,
                },
            ),
            reading(day(3), Measurement::SoilC(19.5)),
            reading(day(20), Measurement::HeightMm(44.0)),
            noted(
                day(21),
                Fact::Watered {
                    tray: own(),
                    water_ml: Some(400.0),
                },
            ),
        ];
        let told = Told::of(entries.clone());
        let plan = after(plain.clone(), entries);
        let now = reckoned(&plan);
        let story = Story::of(&now, &planned, &told, &tray).expect("the tray is there");
        let sown = &story.steps[0];
        assert_eq!((sown.what, sown.planned), (EventKind::Sow, Some(sow)));
        assert_eq!((sown.day, sown.happened), (day(0), true));
        assert!(story.steps.iter().any(|step| !step.happened));
        assert_eq!(
            story.counts[0].seen,
            [OnADay {
                day: day(11),
                value: 20.0
            }]
        );
        // The reckoned curve begins on the day it was really sown, and never falls.
        let curve = &story.counts[0].reckoned;
        assert_eq!(curve[0].day, day(0));
        assert!(curve.is_sorted_by(|a, b| a.day <= b.day && a.value <= b.value));
        assert_eq!(story.heights[0].seen[0].value, 44.0);
        assert!(story.heights[0].reckoned.len() > 20);
        assert_eq!(story.soil.seen[0].value, 19.5);
        assert_eq!(story.water_ml, Some(400.0));
        assert_eq!(Story::of(&now, &planned, &told, "none"), None);
    }
}
