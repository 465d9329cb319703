//! What is to be placed, as it is asked.

use std::collections::{BTreeMap, BTreeSet, HashMap};

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::say;

/// Trays to be placed. A name, or where the instance comes from, may stand beside it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
pub struct Instance {
    /// Days that are looked at, numbered from 0.
    pub days: u32,
    /// The places.
    pub places: Vec<PlaceOf>,
    /// The trays.
    pub trays: Vec<TrayOf>,
    /// Whether trays stay where they were, but for those that cannot and those that make room for them.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub keep: bool,
}

/// A set of like positions.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlaceOf {
    /// What it is called.
    pub id: String,
    /// Trays that it holds.
    pub capacity: u32,
}

/// A tray.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TrayOf {
    /// What it is called.
    pub id: String,
    /// What a day without a place costs.
    pub weight: u32,
    /// Its stages, one after another.
    pub stages: Vec<StageOf>,
}

/// A stage of a tray: it stands in one place for all of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StageOf {
    /// Its first day.
    pub from: u32,
    /// The day after its last.
    pub to: u32,
    /// Whether light must burn where it stands.
    pub needs_light: bool,
    /// The places that it may stand in, and how badly each suits, for each of its days.
    pub places: BTreeMap<String, u32>,
    /// Where it must stand, one of its places.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pinned: Option<String>,
    /// Where it stands in the saved plan: to stand elsewhere costs something.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub was: Option<String>,
}

/// The most days that are looked at: five years.
const MOST_DAYS: u32 = 1830;
const MOST_PLACES: usize = 2000;
const MOST_TRAYS: usize = 5000;
/// Days in the life of a tray: sowing, growing, potted, hardened off, and a few moves.
const MOST_STAGES: usize = 20;
/// Places that all stages together may name.
const MOST_OPTIONS: usize = 400_000;
const MOST_MISFIT: u32 = 1000;
const MOST_WEIGHT: u32 = 100_000;
const MOST_CAPACITY: u32 = 10_000;

impl Instance {
    /// Whether it can be placed at all.
    ///
    /// # Errors
    /// Every fault, with its path.
    pub fn check(&self) -> Result<(), Vec<Fault>> {
        let (mut faults, root) = (Faults::default(), Pointer::default());
        let within = |faults: &mut Faults, at: &Pointer, value: u32, least: u32, most: u32| {
            let fine = (f64::from(least))..=(f64::from(most));
            faults.number(at, f64::from(value), fine, Quantity::Count)
        };
        within(&mut faults, &root.at("days"), self.days, 1, MOST_DAYS);
        let mut capacity: HashMap<&str, u32> = HashMap::new();
        for (i, place) in faults.list(&root.at("places"), &self.places, 0..=MOST_PLACES) {
            let at = root.at("places").at(i);
            within(
                &mut faults,
                &at.at("capacity"),
                place.capacity,
                0,
                MOST_CAPACITY,
            );
            if capacity.insert(&place.id, place.capacity).is_some() {
                faults.add(
                    &at.at("id"),
                    &place.id,
                    say!("a place is called that already"),
                    say!("give each place a name of its own"),
                );
            }
        }
        let mut names: BTreeSet<&str> = BTreeSet::new();
        let mut options = 0;
        for (i, tray) in faults.list(&root.at("trays"), &self.trays, 0..=MOST_TRAYS) {
            let at = root.at("trays").at(i);
            if !names.insert(&tray.id) {
                faults.add(
                    &at.at("id"),
                    &tray.id,
                    say!("a tray is called that already"),
                    say!("give each tray a name of its own"),
                );
            }
            within(&mut faults, &at.at("weight"), tray.weight, 0, MOST_WEIGHT);
            let mut free_from = 0;
            for (j, stage) in faults.list(&at.at("stages"), &tray.stages, 0..=MOST_STAGES) {
                let at = at.at("stages").at(j);
                options += stage.places.len();
                self.check_stage(&mut faults, &at, stage, free_from, &capacity);
                free_from = stage.to;
            }
        }
        if options > MOST_OPTIONS {
            let count = |n: usize| Quantity::Count.of(n as f64);
            faults.add(
                &root.at("trays"),
                options,
                say!("the stages name {n} places in all", n = count(options)),
                say!("name no more than {most}", most = count(MOST_OPTIONS)),
            );
        }
        faults.verdict()?;
        self.check_pins()
    }

    fn check_stage(
        &self,
        faults: &mut Faults,
        at: &Pointer,
        stage: &StageOf,
        free_from: u32,
        capacity: &HashMap<&str, u32>,
    ) {
        let day = |n: u32| Quantity::Count.of(f64::from(n));
        if stage.from < free_from {
            faults.add(
                &at.at("from"),
                stage.from,
                say!("it begins before the stage before it ends"),
                say!("let it begin on day {day} or later", day = day(free_from)),
            );
        }
        if stage.to <= stage.from || stage.to > self.days {
            faults.add(
                &at.at("to"),
                stage.to,
                say!("it ends on day {day}", day = day(stage.to)),
                say!(
                    "let it end after day {from}, and on day {days} at the latest",
                    from = day(stage.from),
                    days = day(self.days)
                ),
            );
        }
        for (place, misfit) in &stage.places {
            let at = at.at("places").at(place);
            if !capacity.contains_key(place.as_str()) {
                faults.unknown(&at, place, capacity.keys().map(|id| (*id).to_owned()));
            }
            let fine = 0.0..=f64::from(MOST_MISFIT);
            faults.number(&at, f64::from(*misfit), fine, Quantity::Count);
        }
        for (name, place) in [("pinned", &stage.pinned), ("was", &stage.was)] {
            let Some(place) = place else { continue };
            let known = match name {
                "pinned" => stage.places.contains_key(place),
                _ => capacity.contains_key(place.as_str()),
            };
            if !known {
                let own = stage.places.keys().cloned();
                faults.unknown(&at.at(name), place, own);
            }
        }
    }

    /// Whether all that is pinned fits.
    fn check_pins(&self) -> Result<(), Vec<Fault>> {
        let capacity = self.places.iter().map(|p| (p.id.as_str(), p.capacity));
        let capacity: HashMap<&str, u32> = capacity.collect();
        let mut taken: HashMap<(&str, u32), u32> = HashMap::new();
        let mut faults = Faults::default();
        for (i, tray) in self.trays.iter().enumerate() {
            for (j, stage) in tray.stages.iter().enumerate() {
                let Some(place) = &stage.pinned else { continue };
                let full = (stage.from..stage.to).find(|day| {
                    let taken = taken.entry((place, *day)).or_default();
                    *taken += 1;
                    *taken > capacity[place.as_str()]
                });
                if let Some(day) = full {
                    let at = Pointer::default().at("trays").at(i).at("stages").at(j);
                    faults.add(
                        &at.at("pinned"),
                        place,
                        say!(
                            "more trays are pinned to {place} on day {day} than it holds",
                            place = place,
                            day = Quantity::Count.of(f64::from(day))
                        ),
                        say!("let some of them go free"),
                    );
                }
            }
        }
        faults.verdict()
    }
}
