//! The root zones of the trays in a bay, as they stand in the plan.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::plus_days;
use crate::crops::emergence::AtTemperature;
use crate::crops::showing::Outcome;
use crate::day::closed_air::ClosedAir;
use crate::day::standing::{Standing, StandingPart, burns, occupants};
use crate::day::water::TrayWater;
use crate::room::Bay;
use crate::season::root_zone::{Beds, deck_ppfd};
use crate::season::{Reckoned, Shows};
use crate::site::air::Air;
use crate::warmth::bed::{Bed, Grown};
use crate::warmth::occupant::Occupant;
use crate::warmth::root_zone::{RootZone, RootZoneDay};
use crate::warmth::tray::zone_day;

/// The root zone of a tray on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct TrayRoots {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// The heat mat that warms it; `None` when none does, or it is off.
    pub mat: Option<String>,
    /// What its thermostat is set to, in °C.
    pub set_c: Option<f64>,
    /// Its temperatures.
    pub day: RootZoneDay,
    /// What it drinks.
    pub water: TrayWater,
    /// What is sown in it and comes up at these temperatures.
    pub sown: Vec<SownRoots>,
    /// What was reckoned.
    #[serde(skip)]
    pub zone: RootZone,
}

/// A sowing in the root zone that its tray has.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SownRoots {
    /// The sowing.
    pub sowing: String,
    /// Crop and variety in words.
    pub name: String,
    /// What suits it, in °C.
    pub wants_c: f64,
    /// When and how many show if the root zone stays so.
    pub outcome: Outcome,
    /// Days and share against temperature: none once it is up; `None` when it was not asked for.
    pub by_temperature: Option<Vec<AtTemperature>>,
    /// The days on which it shows; `None` when none come up.
    pub shows: Option<Shows>,
}

/// Whose root zones are wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Whose {
    /// Every tray's.
    All,
    /// Those of trays that come up: there they matter most.
    ComingUp,
}

/// A bay and what stands in it, with `ppfd` on each tray while its lamps burn (0 while they are off), in
/// the room's air or in `closed` air.
#[derive(Debug, Clone, Copy)]
pub struct Here<'a> {
    /// What is reckoned of the plan.
    pub reckoned: &'a Reckoned<'a>,
    /// The bay.
    pub bay: &'a Bay<'a>,
    /// What stands there.
    pub standing: &'a [Standing<'a>],
    /// The light on its deck, in µmol/m²/s: 0 while its lamps do not burn.
    pub deck_ppfd: f64,
    /// The light on each of it; none where nobody reckoned it.
    pub ppfd: &'a [f64],
    /// The air around its place.
    pub around: &'a Air,
    /// The closed air that the bay is in.
    pub closed: Option<&'a ClosedAir>,
    /// Whether its lists are wanted.
    pub detailed: bool,
}

impl Here<'_> {
    fn bed<'b>(&'b self, occupants: &'b [Occupant<'b>]) -> Bed<'b> {
        let index = self.bay.tier_index;
        Bed {
            around: self.around,
            place: self.bay.place,
            tier_index: index,
            occupants,
            deck_ppfd: self.deck_ppfd,
            closed: self.closed.map(|air| air.on_tier(index)),
        }
    }

    /// The root zones of its trays, and what comes up if they stay so.
    pub fn trays(&self, whose: Whose) -> Vec<TrayRoots> {
        self.each(whose, |_, _| None)
    }

    /// The same on `date`, and of those that come up what shows when by the root zones that each has from the
    /// day that it is sown until it is up: as their dates do.
    pub fn trays_as_it_goes(
        &self,
        whose: Whose,
        beds: &mut Beds<'_>,
        date: Date,
    ) -> Vec<TrayRoots> {
        let (plan, reckoned) = (self.reckoned.plan, self.reckoned);
        self.each(whose, |own, part| {
            let tray = plan.tray_index(&own.tray.id)?;
            let coming_up = reckoned.moments_of(&plan.trays[tray]).coming_up(date);
            coming_up.then(|| {
                let sowing = plan.sowing_index(&part.sowing.id);
                beds.outcome(tray, sowing, reckoned.dates[sowing].sow)
                    .clone()
            })
        })
    }

    /// The root zones of its trays, and what comes up in each part as it is `known`, or if they stay so.
    fn each(
        &self,
        whose: Whose,
        mut known: impl FnMut(&Standing<'_>, &StandingPart<'_>) -> Option<Outcome>,
    ) -> Vec<TrayRoots> {
        let wanted = |i: &usize| whose == Whose::All || self.standing[*i].coming_up;
        let each: Vec<usize> = (0..self.standing.len()).filter(wanted).collect();
        if each.is_empty() {
            return Vec::new();
        }
        let occupants = occupants(self.standing);
        let bed = self.bed(&occupants);
        each.iter()
            .filter_map(|&i| self.roots(&bed, i, &mut known))
            .collect()
    }

    /// The mats that are plugged in, by their index, each with the share of the day that it is on.
    pub fn mats_on(&self) -> Vec<(usize, f64)> {
        if self.bay.tier.mats.is_empty() {
            return Vec::new();
        }
        self.bed(&occupants(self.standing)).mats_on()
    }

    fn roots(
        &self,
        bed: &Bed<'_>,
        i: usize,
        mut known: impl FnMut(&Standing<'_>, &StandingPart<'_>) -> Option<Outcome>,
    ) -> Option<TrayRoots> {
        let own = &self.standing[i];
        let mat = bed.mat(i).map(|(mat, _)| mat);
        let grown = Grown {
            ppfd: self.ppfd.get(i).copied().unwrap_or(0.0),
            leaves: own.leaf_cover(),
        };
        // A plan may hold what no thermostat or mat is like; then there is nothing to show.
        let zone = bed.zone(i, Some(grown))?;
        let day = zone_day(zone.clone())?;
        let plan = self.reckoned.plan;
        let sown = own.parts.iter().map(|part| {
            let crop = plan.crop(part.sowing);
            let curve = crop.curve();
            SownRoots {
                sowing: part.sowing.id.clone(),
                name: part.dates.name.clone(),
                wants_c: crop.root_zone_c,
                outcome: known(own, part)
                    .unwrap_or_else(|| Outcome::of(crop, &curve, day.root_zone_c())),
                by_temperature: self.detailed.then(|| {
                    let wanted = own.coming_up.then(|| curve.by_temperature());
                    wanted.unwrap_or_default()
                }),
                shows: part.dates.shows(),
            }
        });
        Some(TrayRoots {
            tray: own.tray.id.clone(),
            label: own.tray.name.clone(),
            mat: mat.map(|mat| mat.name.clone()),
            set_c: mat.and_then(|mat| mat.thermostat_c),
            sown: sown.collect(),
            water: TrayWater::of(own.format, day.evaporation_kg_m2_d),
            day,
            zone,
        })
    }
}

/// The light on the mix in `bay`, with `standing` there: 0 while its lamps do not burn.
pub fn deck_light(reckoned: &Reckoned<'_>, bay: &Bay<'_>, standing: &[Standing<'_>]) -> f64 {
    if burns(bay, standing) {
        deck_ppfd(bay, reckoned.fields)
    } else {
        0.0
    }
}

impl TrayRoots {
    /// The day on which it is dry, watered well on `from`, and left filled from below if `filled`;
    /// `None` when that is over a month away.
    pub fn dries_on(&self, from: Date, filled: bool) -> Option<Date> {
        let days = if filled {
            self.water.lasts_filled_days
        } else {
            self.water.lasts_days
        };
        days.map(|days| plus_days(from, days.floor() as i32))
    }

    /// Without its hours, which are for its own sheet: every bay's would swell the answer.
    pub(crate) fn in_outline(&mut self) {
        self.day.hours = None;
    }
}
