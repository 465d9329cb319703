//! A batch: some trays of a plan, what they had and what became of them.

use std::collections::{HashMap, HashSet};

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::dates::days_between;
use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::dli_mol_m2_d;
use crate::basis::work::go_on;
use crate::batches::figures::Share;
use crate::day::detail::Detail;
use crate::day::spot::spot_light;
use crate::day::view::Looker;
use crate::growth::height::usual_mm;
use crate::learning::air::USUALLY_H;
use crate::learning::estimate::median;
use crate::log::detail::{About, Measurement};
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::log::told::Told;
use crate::plan::{Stage, Tray};
use crate::room::BayRef;
use crate::season::{Reckoned, SowingDates};
use crate::warmth::transfer::air_at;

/// Which trays are meant.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum Batch {
    /// One tray.
    Tray(String),
    /// All trays that a sowing was sown in.
    Sowing(String),
    /// What germinated or grew in a bay.
    Bay(BayRef),
    /// What germinated or grew in a place.
    Place(String),
}

/// What a batch had and what became of it.
#[derive(Debug, Clone)]
pub(super) struct Fared {
    pub(super) name: String,
    pub(super) crops: Vec<String>,
    pub(super) packets: Vec<Option<String>>,
    pub(super) trays: Vec<String>,
    /// Cells in which something showed, by the last count of each tray; `None` where nobody counted.
    pub(super) up: Option<Share>,
    /// The days from sowing until each seedling showed.
    pub(super) days: Vec<f64>,
    /// The logarithm of each height that was measured against the crop's usual height at that age.
    pub(super) heights: Vec<f64>,
    pub(super) mix_c: [Option<f64>; 2],
    pub(super) air_c: [Option<f64>; 2],
    pub(super) dli: Option<f64>,
}

/// So many trays make a batch at the most.
const MOST_TRAYS: usize = 200;

impl Batch {
    /// Notes what of it the plan lacks.
    pub(super) fn check(&self, reckoned: &Reckoned<'_>, at: &Pointer, faults: &mut Faults) {
        let plan = reckoned.plan;
        match self {
            Self::Tray(id) if plan.tray_index(id).is_none() => {
                let known = plan.trays.iter().map(|tray| tray.id.clone());
                faults.unknown(&at.at("tray"), id, known);
            }
            Self::Sowing(id) if plan.sowings.iter().all(|own| own.id != *id) => {
                let known = plan.sowings.iter().map(|own| own.id.clone());
                faults.unknown(&at.at("sowing"), id, known);
            }
            Self::Bay(bay) if plan.bay(bay).is_none() => {
                let bays = crate::room::bays(&plan.places).map(|bay| bay.reference());
                let known = bays.map(|bay| format!("{}/{}", bay.place, bay.tier));
                faults.unknown(&at.at("bay"), &format!("{}/{}", bay.place, bay.tier), known);
            }
            Self::Place(id) if plan.place(id).is_none() => {
                let known = plan.places.iter().map(|place| place.id.clone());
                faults.unknown(&at.at("place"), id, known);
            }
            _ => (),
        }
    }

    /// Whether it is all that stands somewhere, whatever it is.
    pub(super) fn is_a_place(&self) -> bool {
        matches!(self, Self::Bay(_) | Self::Place(_))
    }

    /// Its trays.
    fn trays<'a>(&self, reckoned: &Reckoned<'a>) -> Vec<&'a Tray> {
        let plan = reckoned.plan;
        let stood = |tray: &Tray, here: &dyn Fn(&BayRef) -> bool| {
            let mut stands = tray.stands.iter();
            stands.any(|stand| stand.stage != Stage::Harden && here(&stand.bay))
        };
        let own = plan.trays.iter().filter(|tray| match self {
            Self::Tray(id) => tray.id == *id,
            Self::Sowing(id) => tray.parts.iter().any(|part| part.sowing == *id),
            Self::Bay(bay) => stood(tray, &|own| own == bay),
            Self::Place(id) => stood(tray, &|own| own.place == *id),
        });
        own.take(MOST_TRAYS).collect()
    }

    /// What it is called.
    fn name(&self, reckoned: &Reckoned<'_>) -> String {
        let plan = reckoned.plan;
        match self {
            Self::Tray(id) => {
                let tray = plan.tray_index(id).map(|i| &plan.trays[i]);
                tray.map_or_else(|| id.clone(), |tray| tray.name.clone())
            }
            Self::Sowing(id) => {
                let dates = reckoned.dates.iter().find(|dates| dates.sowing == *id);
                dates.map_or_else(|| id.clone(), |dates| dates.name.clone())
            }
            Self::Bay(bay) => plan.bay(bay).map_or_else(String::new, |bay| bay.name()),
            Self::Place(id) => plan.place(id).map_or_else(String::new, |p| p.name.clone()),
        }
    }

    /// What it had and what became of it, by what is `reckoned` and `told`; only trays of `crop`, if one is given.
    pub(super) fn fared(&self, reckoned: &Reckoned<'_>, told: &Told, crop: Option<&str>) -> Fared {
        let plan = reckoned.plan;
        let crop_of = |tray: &Tray| {
            let sowing = &plan.sowings[plan.sowing_index(&tray.parts[0].sowing)];
            sowing.crop.clone()
        };
        let mut trays = self.trays(reckoned);
        trays.retain(|tray| crop.is_none_or(|crop| crop_of(tray) == crop));
        let ids: HashSet<&str> = trays.iter().map(|tray| tray.id.as_str()).collect();
        // The log is read once, however many trays there are.
        let mut told_of: HashMap<&str, Vec<&Entry>> = HashMap::new();
        for entry in told.all() {
            let of = entry.fact.iter().flat_map(Fact::trays);
            for tray in of.filter(|tray| ids.contains(tray)) {
                told_of.entry(tray).or_default().push(entry);
            }
        }
        let life = |tray: &&Tray| {
            go_on();
            let told = told_of.get(tray.id.as_str());
            Life::of(reckoned, told.map_or(&[], Vec::as_slice), tray)
        };
        let lives: Vec<Life<'_>> = trays.iter().map(life).collect();
        let mut crops: Vec<String> = trays.iter().map(|tray| crop_of(tray)).collect();
        crops.sort();
        crops.dedup();
        let mut packets: Vec<Option<String>> = (trays.iter())
            .map(|tray| {
                plan.sowings[plan.sowing_index(&tray.parts[0].sowing)]
                    .packet
                    .clone()
            })
            .collect();
        packets.sort();
        packets.dedup();
        let up = lives.iter().filter_map(|life| life.up);
        let mean = |of: &dyn Fn(&Life<'_>) -> Option<f64>| {
            let all: Vec<f64> = lives.iter().filter_map(of).collect();
            (!all.is_empty()).then(|| all.iter().sum::<f64>() / all.len() as f64)
        };
        Fared {
            name: self.name(reckoned),
            crops,
            packets,
            trays: trays.iter().map(|tray| tray.id.clone()).collect(),
            up: up.reduce(|a, b| Share {
                count: a.count + b.count,
                of: a.of + b.of,
            }),
            days: lives.iter().flat_map(|life| life.days.clone()).collect(),
            heights: lives.iter().flat_map(|life| life.heights.clone()).collect(),
            mix_c: [mean(&|life| life.mix_c[0]), mean(&|life| life.mix_c[1])],
            air_c: [mean(&|life| life.air_c[0]), mean(&|life| life.air_c[1])],
            dli: mean(&|life| life.dli),
        }
    }
}

/// What one tray had and what became of it.
struct Life<'a> {
    dates: &'a SowingDates,
    up: Option<Share>,
    days: Vec<f64>,
    heights: Vec<f64>,
    mix_c: [Option<f64>; 2],
    air_c: [Option<f64>; 2],
    dli: Option<f64>,
}

impl<'a> Life<'a> {
    fn of(reckoned: &'a Reckoned<'_>, told: &[&Entry], tray: &Tray) -> Self {
        let plan = reckoned.plan;
        let dates = &reckoned.dates[plan.sowing_index(&tray.parts[0].sowing)];
        let past = plan.happened().tray(&tray.id);
        let sown = past.and_then(|past| past.sown).unwrap_or(dates.sow);
        let mut life = Self {
            dates,
            up: None,
            days: Vec::new(),
            heights: Vec::new(),
            mix_c: [(!tray.potted).then_some(dates.root_zone_c), None],
            air_c: [None, None],
            dli: None,
        };
        let (mut soil, mut air) = (Vec::new(), Vec::new());
        let mut before = (sown, 0);
        for entry in told {
            match &entry.fact {
                Some(Fact::Shown { count, of, .. }) => {
                    life.showed(sown, before, (entry.on, *count));
                    before = (entry.on, (*count).max(before.1));
                    life.up = Some(Share {
                        count: *count,
                        of: *of,
                    });
                }
                Some(Fact::Measured {
                    about: About::Tray(_),
                    reading,
                }) => match reading {
                    Measurement::SoilC(c) if dates.last.is_none_or(|last| entry.on <= last) => {
                        soil.push(*c);
                    }
                    // Read at other hours, it is no other air.
                    Measurement::AirC(c) => {
                        let hour = entry.at_h.unwrap_or(USUALLY_H);
                        let room = plan.site.room_air(None, entry.on);
                        let usual_c = air_at(room.day_c, room.night_c, hour);
                        air.push(c + room.mean_c() - usual_c);
                    }
                    Measurement::HeightMm(mm) => life.stood(reckoned, tray, entry.on, *mm),
                    _ => (),
                },
                _ => (),
            }
        }
        life.mix_c[1] = (!soil.is_empty()).then(|| median(soil));
        life.air_c[1] = (!air.is_empty()).then(|| median(air));
        life.had(reckoned, tray);
        life
    }

    /// Adds the seedlings that showed between two counts: half way.
    fn showed(&mut self, sown: Date, before: (Date, u32), now: (Date, u32)) {
        let half = f64::from(days_between(before.0, now.0)) / 2.0;
        let days = f64::from(days_between(sown, before.0)) + half;
        let new = now.1.saturating_sub(before.1) as usize;
        self.days.extend(std::iter::repeat_n(days, new));
    }

    /// Adds a height against the usual one at that age.
    fn stood(&mut self, reckoned: &Reckoned<'_>, tray: &Tray, on: Date, mm: f64) {
        let plan = reckoned.plan;
        let crop = plan.crop(&plan.sowings[plan.sowing_index(&tray.parts[0].sowing)]);
        let days = f64::from(days_between(self.dates.sow, on));
        let usual = usual_mm(crop, days - self.dates.emergence_days.unwrap_or(0.0));
        if usual > 1.0 && mm > 0.0 {
            self.heights.push((mm / usual).ln());
        }
    }

    /// The light and the air where it grew, on a day in the middle of that.
    fn had(&mut self, reckoned: &Reckoned<'_>, tray: &Tray) {
        let plan = reckoned.plan;
        let Some(days) = reckoned.moments_of(tray).days_of(Stage::Grow) else {
            return;
        };
        let middle =
            crate::basis::dates::plus_days(days.from, days_between(days.from, days.to) / 2);
        let stand = tray.stand_on(Stage::Grow, middle);
        let Some((stand, bay)) = stand.and_then(|s| Some((s, plan.bay_on(&s.bay, middle)?))) else {
            return;
        };
        let views = Looker::new(reckoned, Detail::Outline).look(bay.place_index, middle);
        let Some(view) = views.get(bay.tier_index) else {
            return;
        };
        self.air_c[0] = Some(view.mean_air_c());
        let outline = stand.footprint(plan.format(tray));
        let middle_of = |edges: [f64; 2]| (edges[0] + edges[1]) / 2.0;
        let spot = (middle_of(outline.x_mm), middle_of(outline.y_mm));
        self.dli = if bay.tier.lamps.is_empty() {
            view.computed.light.as_ref().map(|light| light.dli.mean)
        } else {
            let (ppfd, _) = spot_light(reckoned, &bay, middle, spot);
            Some(dli_mol_m2_d(ppfd, bay.tier.photoperiod_h))
        };
    }
}
