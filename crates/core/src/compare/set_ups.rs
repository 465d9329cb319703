//! Other set-ups for a bay, each at its own best height and hours, beside the one that is there.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::compare::ideas::{Idea, ideas};
use crate::day::detail::Detail;
use crate::day::hang::Hang;
use crate::day::light::BayLight;
use crate::day::view::Looker;
use crate::plan::Plan;
use crate::plan::patch::PatchStep;
use crate::power::Power;
use crate::room::{Bay, BayRef, Place, Tier, shelf};
use crate::season::Reckoned;

/// A set-up of a bay and what it gives on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SetUp {
    /// Stable name of the idea.
    pub code: &'static str,
    /// What it is.
    pub name: Statement,
    /// The light on what stands there.
    pub light: BayLight,
    /// The height that it is looked at with; `None` without lamps.
    pub height_mm: Option<f64>,
    /// Hours a day.
    pub hours_h: f64,
    /// What the lamps draw.
    pub power: Power,
    /// What differs from the first set-up, the light first; empty for the first.
    pub differences: Vec<Statement>,
    /// How the plan becomes this; empty for the set-up that is there, and for the window.
    pub patch: Vec<PatchStep>,
}

/// The set-up that is there, as it hangs, and others that could be; empty where nothing grows
/// under lamps on `date`.
pub fn set_ups(reckoned: &Reckoned<'_>, bay: &BayRef, date: Date) -> Vec<SetUp> {
    let Some(here) = reckoned.plan.bay_on(bay, date) else {
        return Vec::new();
    };
    let mut all = tried(reckoned, &here, date, ideas(&here, reckoned, date));
    if all.is_empty() {
        return all;
    }
    if let Some((set_up, _)) = behind_a_window(reckoned, &here, date) {
        all.push(SetUp {
            code: "window",
            name: say!("No lamps: the same trays behind a window"),
            differences: differences(&all[0], &set_up),
            ..set_up
        });
    }
    all
}

/// The set-up of `here` as it hangs, and each of `ideas` that can be, at its best; empty where nothing grows
/// under lamps on `date`.
pub(super) fn tried(
    reckoned: &Reckoned<'_>,
    here: &Bay<'_>,
    date: Date,
    ideas: Vec<Idea>,
) -> Vec<SetUp> {
    let (plan, bay) = (reckoned.plan, &here.reference());
    let Some((now, _)) = looked_at(reckoned, bay, date) else {
        return Vec::new();
    };
    let mut all = vec![now];
    for idea in ideas {
        let Some(tier) = at_its_best(reckoned, here, &idea, date) else {
            continue;
        };
        let best = Idea { tier, ..idea };
        let patch = best.patch(here);
        if patch.is_empty() {
            continue;
        }
        let changed = best.plan(plan, here).and_then(|p| plan.changed_to(p).ok());
        if let Some((set_up, _)) =
            changed.and_then(|p| looked_at(&Reckoned::of(&p, reckoned.fields), bay, date))
        {
            all.push(SetUp {
                code: best.code,
                name: best.name,
                differences: differences(&all[0], &set_up),
                patch,
                ..set_up
            });
        }
    }
    all
}

/// The idea's tier with its lamps hung and burning as advised for it; `None` where it cannot be.
fn at_its_best(reckoned: &Reckoned<'_>, bay: &Bay<'_>, idea: &Idea, date: Date) -> Option<Tier> {
    let changed = idea.plan(reckoned.plan, bay)?;
    let changed = reckoned.plan.changed_to(changed).ok()?;
    let changed = Reckoned::of(&changed, reckoned.fields);
    let (_, hang) = looked_at(&changed, &bay.reference(), date)?;
    let mut tier = idea.tier.clone();
    hang?.set(&mut tier);
    Some(tier)
}

/// The trays of `bay` on a sill of the bay's size, behind the plan's own window or one that faces
/// south.
fn behind_a_window(
    reckoned: &Reckoned<'_>,
    bay: &Bay<'_>,
    date: Date,
) -> Option<(SetUp, Option<Hang>)> {
    let plan = reckoned.plan;
    const ID: &str = "window-to-compare";
    let is_window = |place: &&Place| place.window().is_some();
    let window = plan.places.iter().find(is_window);
    let window = window.or_else(|| shelf::library().places.iter().find(is_window))?;
    if is_window(&bay.place) {
        return None;
    }
    let mut other: Plan = (**plan).clone();
    let deck_height_mm = window.tiers.first()?.deck_height_mm;
    other.places.push(Place {
        id: ID.into(),
        width_mm: bay.place.width_mm,
        depth_mm: bay.place.depth_mm,
        height_mm: deck_height_mm + bay.clear_height_mm().min(1500.0),
        tiers: vec![Tier {
            deck_height_mm,
            adjust: None,
            lamps: Vec::new(),
            mats: Vec::new(),
            fans: Vec::new(),
            ..bay.tier.clone()
        }],
        spot: None,
        airing: None,
        settings: Vec::new(),
        ..window.clone()
    });
    let from = bay.reference();
    let to = BayRef {
        place: ID.into(),
        tier: bay.tier.id.clone(),
    };
    let stands = other.trays.iter_mut().flat_map(|tray| &mut tray.stands);
    for stand in stands.filter(|stand| stand.bay == from) {
        stand.bay = to.clone();
    }
    looked_at(
        &Reckoned::of(&reckoned.plan.changed_to(other).ok()?, reckoned.fields),
        &to,
        date,
    )
}

fn looked_at(reckoned: &Reckoned<'_>, bay: &BayRef, date: Date) -> Option<(SetUp, Option<Hang>)> {
    let here = reckoned.plan.bay_on(bay, date)?;
    let tier = here.tier;
    let place = Looker::new(reckoned, Detail::Outline).look(here.place_index, date);
    let looked = place.into_iter().nth(here.tier_index)?.computed;
    let light = looked.light.filter(|light| light.target.is_some())?;
    let lowest = tier.lamps.iter().map(|lamp| lamp.height_mm);
    let set_up = SetUp {
        code: "as_it_is",
        name: say!("As it is"),
        light,
        height_mm: lowest.reduce(f64::min),
        hours_h: tier.photoperiod_h,
        power: looked.power,
        differences: Vec::new(),
        patch: Vec::new(),
    };
    Some((set_up, looked.hang))
}

/// What a gardener would notice, the light first.
fn differences(now: &SetUp, then: &SetUp) -> Vec<Statement> {
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    let share = |value: f64| Quantity::Share.of(value);
    let mut list = Vec::new();
    let right = |s: &SetUp| (1.0 - s.light.under - s.light.over).max(0.0);
    if (right(now) - right(then)).abs() >= 0.02 {
        list.push(say!(
            "{then} of cells get the right light (now {now})",
            then = share(right(then)),
            now = share(right(now))
        ));
    }
    for (what, a, b) in [
        ("average", now.light.dli.mean, then.light.dli.mean),
        ("darkest cell", now.light.dli.worst, then.light.dli.worst),
        ("brightest cell", now.light.dli.best, then.light.dli.best),
    ] {
        if (b - a).abs() >= 0.3 {
            list.push(say!(
                "{what}: {then} instead of {now}",
                what = what,
                then = dli(b),
                now = dli(a)
            ));
        }
    }
    if (then.light.evenness - now.light.evenness).abs() >= 0.05 {
        let word = if then.light.evenness > now.light.evenness {
            "more even"
        } else {
            "less even"
        };
        list.push(say!(
            "{word}: the darkest cell gets {then} of the average (now {now})",
            word = word,
            then = share(then.light.evenness),
            now = share(now.light.evenness)
        ));
    }
    let energy = then.power.kwh_per_day - now.power.kwh_per_day;
    if energy.abs() >= 0.02 {
        list.push(say!(
            "{energy} {word} a day, at {cost}",
            energy = Quantity::EnergyKwh.of(energy.abs()),
            word = if energy > 0.0 { "more" } else { "less" },
            cost = Quantity::Money.of((then.power.cost_per_day - now.power.cost_per_day).abs())
        ));
    }
    if list.is_empty() {
        list.push(say!("No difference that a plant would notice"));
    }
    list
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::patch::patched;
    use crate::testing::{bay, kettle_fen, place, reckoned, tier};
    use jiff::civil::date;

    #[test]
    fn lamps_that_hang_as_advised_have_no_better_setting_to_compare() {
        let (day, at) = (date(2027, 4, 9), bay("door", "t1"));
        let with = |height_mm: f64| {
            let plan = kettle_fen(|plan| {
                let lamps = &mut tier(plan, "door", "t1").lamps;
                lamps.iter_mut().for_each(|lamp| lamp.height_mm = height_mm);
            });
            let all = set_ups(&reckoned(&plan), &at, day);
            let mut best = all.into_iter().filter(|s| s.code == "best_setting");
            best.next().map(|s| s.height_mm.unwrap())
        };
        let advised = with(120.0).expect("they hang too low");
        assert!(advised > 120.0);
        assert_eq!(with(advised), None);
    }

    #[test]
    fn what_is_set_otherwise_from_a_day_on_is_not_set_for_all_days() {
        let setting =
            serde_json::json!([{"from": "2027-04-01", "tier": "t1", "lamps_germinating": true}]);
        let plan = kettle_fen(|plan| {
            place(plan, "door").settings = serde_json::from_value(setting).unwrap();
        });
        let (day, at) = (date(2027, 4, 9), bay("door", "t1"));
        assert!(plan.bay_on(&at, day).unwrap().tier.lamps_germinating);
        let all = set_ups(&reckoned(&plan), &at, day);
        for set_up in all.iter().filter(|set_up| !set_up.patch.is_empty()) {
            let then = patched(&plan, &set_up.patch).unwrap();
            assert!(
                !then
                    .check()
                    .unwrap()
                    .bay(&at)
                    .unwrap()
                    .tier
                    .lamps_germinating
            );
        }
    }

    fn compared() -> Vec<SetUp> {
        let plan = kettle_fen(|_| ());
        set_ups(&reckoned(&plan), &bay("door", "t1"), date(2027, 4, 9))
    }

    #[test]
    fn the_first_is_what_is_there_and_each_other_says_what_differs() {
        let all = compared();
        assert_eq!(all[0].code, "as_it_is");
        assert!(all[0].patch.is_empty() && all[0].differences.is_empty());
        assert!(all.len() >= 8, "{}", all.len());
        for other in &all[1..] {
            assert!(!other.differences.is_empty(), "{}", other.code);
            assert_eq!(other.patch.is_empty(), other.code == "window");
        }
    }

    #[test]
    fn more_lamps_and_foil_give_more_light_and_foil_is_more_even() {
        let all = compared();
        let by = |code: &str| all.iter().find(|s| s.code == code).expect(code);
        let best = &all[0];
        assert!(by("one_more_lamp").light.ppfd.mean > 0.0);
        assert!(by("foil_walls").light.evenness > best.light.evenness);
        assert!(by("foil_walls").light.sent_back > 5.0 * best.light.sent_back);
        assert!(by("one_lamp_less").power.watts < best.power.watts);
    }

    #[test]
    fn trays_turned_crosswise_stand_on_the_deck_and_a_window_costs_nothing() {
        let all = compared();
        let by = |code: &str| all.iter().find(|s| s.code == code).expect(code);
        let stands = by("turned_trays").patch.iter();
        assert!(stands.filter(|s| s.path.starts_with("/trays/")).count() >= 2);
        let window = by("window");
        assert_eq!((window.height_mm, window.power.watts), (None, 0.0));
        assert!(window.light.dli.mean > 0.5 && window.light.daylight_mol_m2_d > 0.5);
        assert!(window.light.dli.mean < all[0].light.dli.mean);
    }

    #[test]
    fn a_bay_without_seedlings_has_nothing_to_compare() {
        let plan = kettle_fen(|_| ());
        let all = set_ups(&reckoned(&plan), &bay("cabinet", "t1"), date(2027, 4, 9));
        assert!(all.is_empty());
    }
}
