//! Closing a tray in: behind film, in a shut closet, in a chamber.

use crate::basis::units::{Quantity, energy_kwh};
use crate::basis::words::say;
use crate::compare::warmth::way::{WarmWay, Ways};
use crate::day::closed_air::ClosedAir;
use crate::day::standing::{Standing, occupants, standing_in, want_light};
use crate::plan::patch::PatchStep;
use crate::power::drawn_w;
use crate::room::{Bay, Place, Side, Tier};
use crate::season::Reckoned;
use crate::warmth::around::air_around;
use crate::warmth::closed_space::{ClosedSpace, Inside};
use crate::warmth::root_zone::RootZoneDay;
use crate::warmth::tray::{TrayHere, root_zone, zone_day};
use jiff::civil::Date;

impl Ways<'_> {
    /// The root zone with the bay's place changed to `place`, its lamps burning where `lit`, no mat
    /// under the tray.
    pub(super) fn changed(
        &self,
        place: &Place,
        lit: std::ops::Range<usize>,
    ) -> Option<RootZoneDay> {
        let tier = self.bay.tier_index;
        let space = ClosedSpace::around(place, tier)?;
        let occupants: Vec<_> = self.standing.iter().map(|on| occupants(on)).collect();
        let inside = Inside {
            lit: space.tiers().map(|i| lit.contains(&i)).collect(),
            heat: 0.0,
            ..Inside::of(&space, &occupants, self.around.clone())
        };
        let (_, day) = space.day(&self.plan.site, &inside, None)?;
        let shelf = day.shelves.get(tier - space.tiers().start)?;
        zone_day(root_zone(
            self.around,
            place,
            tier,
            TrayHere {
                ppfd: self.lit_ppfd,
                ..self.here(None)
            },
            Some(shelf),
        ))
    }

    /// What the lamps of `tiers` would draw beyond those that burn now.
    pub(super) fn lamps_kwh(&self, tiers: &[Tier]) -> f64 {
        let dark = tiers
            .iter()
            .enumerate()
            .filter(|(i, _)| !want_light(&self.standing[*i]));
        dark.map(|(_, tier)| energy_kwh(drawn_w(tier), tier.photoperiod_h))
            .sum()
    }

    pub(super) fn film(&self) -> Option<WarmWay> {
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
        let burns = want_light(&self.standing[index]);
        let kwh = if burns {
            0.0
        } else {
            energy_kwh(drawn_w(tier), tier.photoperiod_h)
        };
        let way = self.way(
            "film",
            say!(
                "Film all round the shelf, lamps on for {hours}",
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

    pub(super) fn shut_closet(&self) -> Option<WarmWay> {
        let place = self.bay.place.with_doors_shut()?;
        let lit = 0..place.tiers.len();
        let day = self.changed(&place, lit)?;
        let kwh = self.lamps_kwh(&place.tiers);
        let path = crate::room::place_pointer(self.bay.place_index);
        let way = self.way("shut_closet", say!("Closet doors shut, lamps on"), &day);
        Some(WarmWay {
            patch: (kwh <= 0.0)
                .then(|| PatchStep::set(&path.at("kind").at("closet").at("shut"), true))
                .into_iter()
                .collect(),
            ..self.drawing(way, Some(kwh))
        })
    }

    /// On the shelf of the plan's chambers that comes nearest.
    pub(super) fn in_a_chamber(
        &self,
        reckoned: &Reckoned<'_>,
        date: Date,
        wants_c: f64,
    ) -> Option<WarmWay> {
        let plan = self.plan;
        let mut best: Option<(RootZoneDay, String)> = None;
        for (place_index, place) in plan.places.iter().enumerate() {
            if place.chamber().is_none() || place_index == self.bay.place_index {
                continue;
            }
            let bay = |tier_index| Bay {
                place,
                place_index,
                tier: &place.tiers[tier_index],
                tier_index,
            };
            let mut standing: Vec<Vec<Standing<'_>>> = (0..place.tiers.len())
                .map(|i| standing_in(reckoned, &bay(i), date))
                .collect();
            // It is heated for this tray, if for no other.
            standing[0].push(Standing {
                coming_up: true,
                ..self.tray.clone()
            });
            let around = air_around(&plan.site, place, date);
            let air = ClosedAir::around(plan, place, 0, &standing, around.clone())?;
            for (i, shelf) in air.day.shelves.iter().enumerate() {
                let tray = TrayHere {
                    domed: false,
                    ..self.here(None)
                };
                let zone = root_zone(&around, place, i, tray, Some(shelf));
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
            caution: Some(say!(
                "Move the tray into the light the day seedlings come up"
            )),
            ..self.drawing(way, None)
        })
    }
}
