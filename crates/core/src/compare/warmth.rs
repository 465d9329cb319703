//! Other ways to warm a tray than the one that is there, each with what it gains.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::advice::PatchStep;
use crate::chambers::ClosedAir;
use crate::crops::showing::Outcome;
use crate::kinds;
use crate::light::bay::Fields;
use crate::placement::{Standing, standing_in};
use crate::plan::{SoundPlan, Stage};
use crate::power::drawn_w;
use crate::room::place::Closet;
use crate::room::{Axis, Bay, BayRef, Kind, Mat, Place, Side, Tier};
use crate::roots::{self, Whose};
use crate::say;
use crate::season;
use crate::units::{Quantity, energy_kwh};
use crate::warmth::chamber::ShelfDay;
use crate::warmth::placed::{TrayHere, root_zone, zone_day};
use crate::warmth::root_zone::{RootZone, RootZoneDay};
use crate::words::Statement;

/// The ways to warm the tray of a bay that lacks most.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WarmWays {
    /// The tray.
    pub tray: String,
    /// What its label says.
    pub label: String,
    /// Crop and variety in words.
    pub name: String,
    /// What suits it, in °C.
    pub wants_c: f64,
    /// The ways: what is there, then the others, what comes nearest to that first.
    pub ways: Vec<WarmWay>,
}

/// A way to warm a tray.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct WarmWay {
    /// Stable name.
    pub code: &'static str,
    /// What it is.
    pub name: Statement,
    /// Mean of the root zone, in °C.
    pub mean_c: f64,
    /// Coolest of the day.
    pub least_c: f64,
    /// Warmest of the day.
    pub most_c: f64,
    /// Mean over what the room alone gives.
    pub gain_k: f64,
    /// Days until half show; `None` when none come up.
    pub half_days: Option<f64>,
    /// The share of good seeds that come up.
    pub share: f64,
    /// What it draws for this tray beyond what burns already, in kWh a day; `None` where it hangs
    /// on the room or is shared with much else.
    pub kwh_per_day: Option<f64>,
    /// What that costs a day.
    pub cost_per_day: Option<f64>,
    /// What to mind with it.
    pub caution: Option<Statement>,
    /// How the plan becomes so; empty for what is there, and where the plan cannot hold it.
    pub patch: Vec<PatchStep>,
}

/// The top of a refrigerator, a boiler or a router's cupboard (our own estimate).
const APPLIANCE_C: f64 = 28.0;
/// A room is heated by so much more without its owners' noticing (our own estimate).
const WARMER_K: f64 = 3.0;

/// The ways to warm the tray in `bay` that germinates there on `date` and lacks most; `None` while
/// nothing germinates.
pub fn warm_ways(plan: &SoundPlan, bay: &BayRef, date: Date, fields: &Fields) -> Option<WarmWays> {
    let here = plan.bay(bay)?;
    let dates = season::dates_again(plan, fields);
    let standing: Vec<Vec<Standing<'_>>> = (0..here.place.tiers.len())
        .map(|tier_index| {
            let tier = &here.place.tiers[tier_index];
            let bay = Bay {
                tier,
                tier_index,
                ..here
            };
            standing_in(plan, &dates, &bay, date)
        })
        .collect();
    let own = &standing[here.tier_index];
    let closed = ClosedAir::around(plan, here.place, here.tier_index, &standing);
    let now = roots::of_bay(plan, &here, own, &[], closed.as_ref(), Whose::Germinating);
    let (roots, sown) = now
        .iter()
        .flat_map(|roots| roots.sown.iter().map(move |sown| (roots, sown)))
        .min_by(|a, b| {
            let lacks = |(roots, sown): &(&roots::TrayRoots, &roots::SownRoots)| {
                roots.day.mean_c - sown.wants_c
            };
            lacks(a).total_cmp(&lacks(b))
        })?;
    let tray = own.iter().find(|s| s.tray.id == roots.tray)?;
    let ways = Ways {
        plan,
        bay: here,
        tray,
        standing: &standing,
        sowing: &sown.sowing,
        bare_c: 0.0,
    };
    let bare = ways.run(&plan.site.air, None)?;
    let ways = Ways {
        bare_c: bare.mean_c,
        ..ways
    };
    let mut others: Vec<WarmWay> = [
        Some(ways.way("no_heat", say!("No heat but the room's"), &bare)),
        ways.mat(sown.wants_c, 1.0),
        ways.mat(sown.wants_c, 0.5),
        ways.appliance(),
        ways.warmer_room(),
        ways.film(),
        ways.shut_closet(),
        ways.in_a_chamber(&dates, date, sown.wants_c),
    ]
    .into_iter()
    .flatten()
    .collect();
    others.sort_by(|a, b| {
        let off = |way: &WarmWay| (way.mean_c - sown.wants_c).abs();
        off(a).total_cmp(&off(b))
    });
    let kwh = roots.day.kwh_per_day;
    let mut all = vec![WarmWay {
        kwh_per_day: Some(kwh),
        cost_per_day: Some(kwh * plan.site.price_per_kwh),
        ..ways.way("as_it_is", say!("As it is"), &roots.day)
    }];
    all.extend(others);
    Some(WarmWays {
        tray: roots.tray.clone(),
        label: roots.label.clone(),
        name: sown.name.clone(),
        wants_c: sown.wants_c,
        ways: all,
    })
}

/// A tray that is to be warmed, where it stands.
#[derive(Clone, Copy)]
struct Ways<'a> {
    plan: &'a SoundPlan,
    bay: Bay<'a>,
    tray: &'a Standing<'a>,
    standing: &'a [Vec<Standing<'a>>],
    sowing: &'a str,
    /// Mean of its root zone with no heat but the room's.
    bare_c: f64,
}

impl Ways<'_> {
    fn here<'m>(&'m self, mat: Option<(&'m Mat, f64)>) -> TrayHere<'m> {
        TrayHere {
            format: self.tray.format,
            mat,
            free_sides: roots::free_sides(self.tray, &self.standing[self.bay.tier_index]),
            domed: self.tray.domed,
            ppfd: 0.0,
            leaves: 0.0,
        }
    }

    fn zone(&self, mat: Option<(&Mat, f64)>, shelf: Option<&ShelfDay>) -> RootZone {
        let (place, tier) = (self.bay.place, self.bay.tier_index);
        root_zone(&self.plan.site, place, tier, self.here(mat), shelf)
    }

    fn way(&self, code: &'static str, name: Statement, day: &RootZoneDay) -> WarmWay {
        let sowing = &self.plan.sowings[self.plan.sowing_index(self.sowing)];
        let crop = self.plan.crop(sowing);
        // Findings in outline have no hours; their mean serves.
        let hours = if day.root_zone_c.is_empty() {
            vec![day.mean_c]
        } else {
            day.root_zone_c.clone()
        };
        let outcome = Outcome::of(crop, &crop.curve(), &hours);
        WarmWay {
            code,
            name,
            mean_c: day.mean_c,
            least_c: day.least_c,
            most_c: day.most_c,
            gain_k: day.mean_c - self.bare_c,
            half_days: outcome.half_days,
            share: outcome.share,
            kwh_per_day: Some(0.0),
            cost_per_day: Some(0.0),
            caution: None,
            patch: Vec::new(),
        }
    }

    fn drawing(&self, way: WarmWay, kwh: Option<f64>) -> WarmWay {
        WarmWay {
            kwh_per_day: kwh,
            cost_per_day: kwh.map(|kwh| kwh * self.plan.site.price_per_kwh),
            ..way
        }
    }

    /// A mat for one tray, with a thermostat, under so much of it.
    fn mat(&self, set_c: f64, share: f64) -> Option<WarmWay> {
        if self.bay.place.shares_air(self.bay.tier_index).is_some() {
            return None;
        }
        let generic = kinds::library().mats.iter().find(|m| m.id == "mat-small")?;
        let footprint = &self.tray.footprint;
        let mut mat = Mat {
            id: "mat-to-warm".into(),
            thermostat_c: Some(set_c),
            along: if footprint.x_mm[1] - footprint.x_mm[0] >= footprint.y_mm[1] - footprint.y_mm[0]
            {
                Axis::X
            } else {
                Axis::Y
            },
            ..generic.clone()
        };
        let [w, d] = mat.size_mm();
        let deck = [self.bay.place.width_mm, self.bay.place.depth_mm];
        mat.x_mm = footprint.x_mm[0].clamp(0.0, (deck[0] - w).max(0.0));
        mat.y_mm = footprint.y_mm[0].clamp(0.0, (deck[1] - d).max(0.0));
        let whole = crate::warmth::placed::cover(&mat, footprint);
        let day = zone_day(self.zone(Some((&mat, whole * share)), None))?;
        let whole_tray = share > 0.9;
        let mut way = self.drawing(
            if whole_tray {
                self.way(
                    "mat",
                    say!(
                        "A {mat} with a thermostat at {set}",
                        mat = &mat.name,
                        set = Quantity::TemperatureC.of(set_c)
                    ),
                    &day,
                )
            } else {
                self.way(
                    "half_mat",
                    say!("The same mat shared by two trays, half of each on it"),
                    &day,
                )
            },
            Some(day.kwh_per_day),
        );
        if whole_tray && self.bay.tier.mats.is_empty() {
            let mut tier = self.bay.tier.clone();
            tier.mats.push(mat);
            way.patch = vec![PatchStep::replace(&self.bay.pointer(), &tier)];
        }
        Some(way)
    }

    fn appliance(&self) -> Option<WarmWay> {
        let zone = RootZone {
            warm_surface_c: Some(APPLIANCE_C),
            under: Vec::new(),
            ..self.zone(None, None)
        };
        Some(WarmWay {
            caution: Some(say!(
                "No water near its mains: a tray without holes, its vents uncovered"
            )),
            ..self.way(
                "appliance",
                say!(
                    "On the warm top of an appliance, at {at}",
                    at = Quantity::TemperatureC.of(APPLIANCE_C)
                ),
                &zone_day(zone)?,
            )
        })
    }

    fn run(&self, air: &crate::site::Air, shelf: Option<&ShelfDay>) -> Option<RootZoneDay> {
        let mut site = self.plan.site.clone();
        site.air = air.clone();
        let (place, tier) = (self.bay.place, self.bay.tier_index);
        zone_day(root_zone(&site, place, tier, self.here(None), shelf))
    }

    fn warmer_room(&self) -> Option<WarmWay> {
        let mut air = self.plan.site.air.clone();
        air.day_c += WARMER_K;
        air.night_c += WARMER_K;
        let day = self.run(&air, None)?;
        let way = self.way(
            "warmer_room",
            say!(
                "The room heated to {night} by night and {day} by day",
                night = Quantity::TemperatureC.of(air.night_c),
                day = Quantity::TemperatureC.of(air.day_c)
            ),
            &day,
        );
        Some(self.drawing(way, None))
    }

    /// The root zone with the bay's place changed to `place`, its lamps burning where `lit`, no mat
    /// under the tray.
    fn changed(&self, place: &Place, lit: std::ops::Range<usize>) -> Option<RootZoneDay> {
        use crate::warmth::placed::{ClosedSpace, Inside};
        let tier = self.bay.tier_index;
        let space = ClosedSpace::around(place, tier)?;
        let inside = Inside {
            lit: space.tiers().map(|i| lit.contains(&i)).collect(),
            heat: 0.0,
            wet_kg: self.standing[space.tiers()]
                .iter()
                .flatten()
                .map(|s| s.format.wet_kg)
                .sum(),
        };
        let (_, day) = space.day(&self.plan.site, &inside, None)?;
        let shelf = day.shelves.get(tier - space.tiers().start)?;
        let site = &self.plan.site;
        zone_day(root_zone(site, place, tier, self.here(None), Some(shelf)))
    }

    /// Whether the lamps of tier `index` burn: something there wants light.
    fn burns(&self, index: usize) -> bool {
        self.standing[index]
            .iter()
            .any(|s| s.wants_light(self.plan))
    }

    /// What the lamps of `tiers` would draw beyond those that burn now.
    fn lamps_kwh(&self, tiers: &[Tier]) -> f64 {
        let dark = tiers.iter().enumerate().filter(|(i, _)| !self.burns(*i));
        dark.map(|(_, tier)| energy_kwh(drawn_w(tier), tier.photoperiod_h))
            .sum()
    }

    fn film(&self) -> Option<WarmWay> {
        let (tier, index) = (self.bay.tier, self.bay.tier_index);
        if tier.lamps.is_empty() || self.bay.place.shares_air(index).is_some() {
            return None;
        }
        let mut place = self.bay.place.clone();
        let sides = &mut place.tiers[index].sides;
        for side in [
            &mut sides.left,
            &mut sides.right,
            &mut sides.back,
            &mut sides.front,
        ] {
            if side.is_open() {
                *side = Side::Foil;
            }
        }
        let day = self.changed(&place, index..index + 1)?;
        let burns = self.burns(index);
        let kwh = if burns {
            0.0
        } else {
            energy_kwh(drawn_w(tier), tier.photoperiod_h)
        };
        let way = self.way(
            "film",
            say!(
                "Film all round the bay, its lamps burning {hours}",
                hours = Quantity::Hours.of(tier.photoperiod_h)
            ),
            &day,
        );
        Some(WarmWay {
            caution: Some(say!(
                "Keep film off lamps and ballasts, leave gaps at the top, and no mat under it without a thermostat"
            )),
            // Where nothing wants light a plan keeps its lamps off, and film alone warms little.
            patch: burns
                .then(|| {
                    let sides = self.bay.pointer().at("sides");
                    PatchStep::replace(&sides, place.tiers[index].sides)
                })
                .into_iter()
                .collect(),
            ..self.drawing(way, Some(kwh))
        })
    }

    fn shut_closet(&self) -> Option<WarmWay> {
        let Kind::Closet(Closet { shut: false, .. }) = self.bay.place.kind else {
            return None;
        };
        let mut place = self.bay.place.clone();
        if let Kind::Closet(closet) = &mut place.kind {
            closet.shut = true;
        }
        let lit = 0..place.tiers.len();
        let day = self.changed(&place, lit)?;
        let kwh = self.lamps_kwh(&place.tiers);
        let path = crate::room::place_pointer(self.bay.place_index);
        let way = self.way(
            "shut_closet",
            say!("The closet's doors shut, its lamps burning"),
            &day,
        );
        Some(WarmWay {
            patch: (kwh <= 0.0)
                .then(|| PatchStep::set(&path.at("kind").at("closet").at("shut"), true))
                .into_iter()
                .collect(),
            ..self.drawing(way, Some(kwh))
        })
    }

    /// On the shelf of the plan's chambers that comes nearest.
    fn in_a_chamber(
        &self,
        dates: &[season::SowingDates],
        date: Date,
        wants_c: f64,
    ) -> Option<WarmWay> {
        let plan = self.plan;
        let mut best: Option<(RootZoneDay, String)> = None;
        for (place_index, place) in plan.places.iter().enumerate() {
            let chamber = matches!(place.kind, Kind::Chamber(_));
            if !chamber || place_index == self.bay.place_index {
                continue;
            }
            let bay = |tier_index| Bay {
                place,
                place_index,
                tier: &place.tiers[tier_index],
                tier_index,
            };
            let mut standing: Vec<Vec<Standing<'_>>> = (0..place.tiers.len())
                .map(|i| standing_in(plan, dates, &bay(i), date))
                .collect();
            // It is heated for this tray, if for no other.
            standing[0].push(Standing {
                stage: Stage::Germinate,
                ..self.tray.clone()
            });
            let air = ClosedAir::around(plan, place, 0, &standing)?;
            for (i, shelf) in air.day.shelves.iter().enumerate() {
                let tray = TrayHere {
                    domed: false,
                    ..self.here(None)
                };
                let zone = root_zone(&plan.site, place, i, tray, Some(shelf));
                let Some(day) = zone_day(zone) else { continue };
                let off = |day: &RootZoneDay| (day.mean_c - wants_c).abs();
                if best
                    .as_ref()
                    .is_none_or(|(known, _)| off(&day) < off(known))
                {
                    best = Some((day, bay(i).name()));
                }
            }
        }
        let (day, shelf) = best?;
        let way = self.way("chamber", say!("In {shelf}", shelf = &shelf), &day);
        Some(WarmWay {
            caution: Some(say!("Out of it on the day it shows, into light")),
            ..self.drawing(way, None)
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::Plan;
    use jiff::civil::date;

    fn ways(change: impl FnOnce(&mut Plan), place: &str, tier: &str) -> Option<WarmWays> {
        let mut plan: Plan =
            serde_json::from_str(include_str!("../../../../demo/kettle-fen.json")).unwrap();
        change(&mut plan);
        let bay = BayRef {
            place: place.into(),
            tier: tier.into(),
        };
        warm_ways(
            &plan.check().unwrap(),
            &bay,
            date(2027, 3, 20),
            &Fields::default(),
        )
    }

    #[test]
    fn peppers_on_a_mat_gain_most_by_it_and_every_way_has_its_gain() {
        let peppers = ways(|_| (), "door", "t3").expect("peppers germinate");
        let by = |code: &str| peppers.ways.iter().find(|w| w.code == code).expect(code);
        assert_eq!(peppers.ways[0].code, "as_it_is");
        assert!(by("no_heat").gain_k.abs() < 1e-9);
        for code in ["mat", "half_mat", "appliance", "warmer_room", "film"] {
            assert!(by(code).gain_k > 0.3, "{code}: {}", by(code).gain_k);
        }
        assert!(by("mat").gain_k > by("half_mat").gain_k);
        assert!((by("warmer_room").gain_k - WARMER_K).abs() < 0.3);
        assert!(by("appliance").caution.is_some() && by("film").caution.is_some());
        // After what is there the nearest to what suits comes first.
        let off: Vec<f64> = peppers.ways[1..]
            .iter()
            .map(|w| (w.mean_c - peppers.wants_c).abs())
            .collect();
        assert!(off.is_sorted());
    }

    #[test]
    fn a_mat_that_is_laid_gives_what_was_promised() {
        let unheated = |plan: &mut Plan| plan.places[0].tiers[2].mats.clear();
        let promised = ways(unheated, "door", "t3").unwrap();
        let mat = promised.ways.iter().find(|w| w.code == "mat").unwrap();
        let mut plan: Plan =
            serde_json::from_str(include_str!("../../../../demo/kettle-fen.json")).unwrap();
        unheated(&mut plan);
        let plan = plan.check().unwrap();
        let changed = crate::advice::patched(&plan, &mat.patch).unwrap();
        let day = crate::plan::DateSpan::day(date(2027, 3, 20));
        let changed = changed.check().unwrap();
        let assessed = crate::assess(&changed, day, crate::bays::Detail::All);
        let mut roots = assessed.room[0].bays.iter().flat_map(|bay| &bay.roots);
        let laid = roots.find(|r| r.tray == promised.tray).unwrap();
        assert!((laid.day.mean_c - mat.mean_c).abs() < 0.1);
    }

    #[test]
    fn film_is_put_up_with_a_click_only_where_its_lamps_burn() {
        let film = |grows: bool| {
            let change = |plan: &mut Plan| {
                if grows {
                    let tray = plan.trays.iter_mut().find(|t| t.id == "ce1").unwrap();
                    tray.stands[1].bay.tier = "t3".into();
                }
            };
            let all = ways(change, "door", "t3").unwrap().ways;
            all.into_iter().find(|w| w.code == "film").unwrap()
        };
        assert!(film(false).patch.is_empty() && film(false).kwh_per_day > Some(0.3));
        // Celery that is up has them on already.
        assert_eq!(
            (film(true).patch.len(), film(true).kwh_per_day),
            (1, Some(0.0))
        );
    }

    #[test]
    fn nothing_germinates_nothing_to_warm() {
        assert_eq!(ways(|plan| plan.trays.clear(), "door", "t3"), None);
    }
}
