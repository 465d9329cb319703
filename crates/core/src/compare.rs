//! Other set-ups for a bay, each at its own best height and hours, beside the one that is there.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::advice::PatchStep;
use crate::assess::assess_again;
use crate::bays::{BayLight, BayOnDay, Detail, Hang};
use crate::kinds;
use crate::light::bay::Fields;
use crate::plan::{DateSpan, Plan, SoundPlan};
use crate::power::Power;
use crate::room::{Adjust, Axis, Bay, BayRef, Lamp, Side, Tier, find_bay};
use crate::say;
use crate::units::Quantity;
use crate::words::Statement;

/// A set-up of a bay and what it gives on a day.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct SetUp {
    /// Stable name of the idea.
    pub code: &'static str,
    /// What it is.
    pub name: Statement,
    /// The light on what stands there.
    pub light: BayLight,
    /// The height and hours that it is looked at with.
    pub height_mm: f64,
    /// Hours a day.
    pub hours_h: f64,
    /// What the lamps draw.
    pub power: Power,
    /// What differs from the first set-up, the light first; empty for the first.
    pub differences: Vec<Statement>,
    /// How the plan becomes this; empty for the set-up that is there.
    pub patch: Vec<PatchStep>,
}

/// The set-up that is there, as it hangs, and others that could be; empty where nothing grows
/// under lamps on `date`.
pub fn set_ups(plan: &SoundPlan, bay: &BayRef, date: Date, fields: &Fields) -> Vec<SetUp> {
    let Some(here) = find_bay(&plan.places, bay) else {
        return Vec::new();
    };
    let Some((now, _)) = looked_at(plan, bay, date, fields) else {
        return Vec::new();
    };
    let mut all = vec![now];
    for (code, name, tier) in ideas(&here) {
        let Some(tier) = at_its_best(plan, &here, tier, date, fields) else {
            continue;
        };
        if tier == *here.tier {
            continue;
        }
        let changed = with_tier(plan, &here, tier.clone()).and_then(|p| p.check().ok());
        let Some((set_up, _)) = changed.and_then(|p| looked_at(&p, bay, date, fields)) else {
            continue;
        };
        let differences = differences(&all[0], &set_up);
        all.push(SetUp {
            code,
            name,
            differences,
            patch: vec![PatchStep::replace(&here.pointer(), tier)],
            ..set_up
        });
    }
    all
}

/// The plan with another tier in the place of `bay`.
fn with_tier(plan: &SoundPlan, bay: &Bay<'_>, tier: Tier) -> Option<Plan> {
    let mut plan: Plan = (**plan).clone();
    let place = plan.places.get_mut(bay.place_index)?;
    *place.tiers.get_mut(bay.tier_index)? = tier;
    Some(plan)
}

/// `tier` with its lamps hung and burning as advised for it; `None` where it cannot be.
fn at_its_best(
    plan: &SoundPlan,
    bay: &Bay<'_>,
    mut tier: Tier,
    date: Date,
    fields: &Fields,
) -> Option<Tier> {
    let changed = with_tier(plan, bay, tier.clone())?.check().ok()?;
    let (_, hang) = looked_at(&changed, &bay.reference(), date, fields)?;
    let best = hang?.setting;
    for lamp in &mut tier.lamps {
        lamp.height_mm = best.height_mm;
    }
    tier.photoperiod_h = best.hours_h;
    Some(tier)
}

fn looked_at(
    plan: &SoundPlan,
    bay: &BayRef,
    date: Date,
    fields: &Fields,
) -> Option<(SetUp, Option<Hang>)> {
    let assessment = assess_again(plan, DateSpan::day(date), Detail::Outline, fields);
    let bays = assessment.room.into_iter().flat_map(|day| day.bays);
    let looked: BayOnDay = bays.into_iter().find(|b| b.bay == *bay)?;
    let tier = find_bay(&plan.places, bay)?.tier;
    let light = looked.light.filter(|light| light.target.is_some())?;
    let lowest = tier.lamps.iter().map(|lamp| lamp.height_mm);
    let set_up = SetUp {
        code: "as_it_is",
        name: say!("As it is"),
        light,
        height_mm: lowest.reduce(f64::min)?,
        hours_h: tier.photoperiod_h,
        power: looked.power,
        differences: Vec::new(),
        patch: Vec::new(),
    };
    Some((set_up, looked.hang))
}

/// What people try with a bay, as its tier would be.
fn ideas(bay: &Bay<'_>) -> Vec<(&'static str, Statement, Tier)> {
    let mut ideas = Vec::new();
    let tier = bay.tier;
    let changed = |change: &dyn Fn(&mut Tier)| {
        let mut other = tier.clone();
        change(&mut other);
        other
    };
    let best = changed(&|_| ());
    ideas.push(("best_setting", say!("The best height and hours"), best));
    if tier.lamps.len() < 12 {
        let more = changed(&|other| {
            let mut lamp = other.lamps[0].clone();
            lamp.id = free_id(&other.lamps);
            other.lamps.push(lamp);
            in_rows(&mut other.lamps, bay);
        });
        ideas.push(("one_more_lamp", say!("One more lamp like these"), more));
    }
    if tier.lamps.len() > 1 {
        let fewer = changed(&|other| {
            other.lamps.pop();
            in_rows(&mut other.lamps, bay);
        });
        ideas.push(("one_lamp_less", say!("One lamp less"), fewer));
    }
    if let Some(staggered) = staggered(bay) {
        ideas.push((
            "staggered",
            say!("Lamps staggered left and right"),
            staggered,
        ));
    }
    let sides = tier.sides;
    if sides.back.is_open() {
        let white = changed(&|other| other.sides.back = Side::White);
        ideas.push(("white_back", say!("A white board at the back"), white));
    }
    let foil = changed(&|other| line_with_foil(other));
    if foil != *tier {
        ideas.push(("foil_walls", say!("Foil on all sides"), foil));
    }
    let kinds = kinds::library();
    for (id, count, code, name) in [
        (
            "shop-led-36",
            2,
            "close_shop_lights",
            say!("Two shop lights close above the leaves"),
        ),
        (
            "shop-led-36",
            4,
            "four_shop_lights",
            say!("Four shop lights"),
        ),
        (
            "twin-tube-64",
            2,
            "twin_tubes",
            say!("Two older twin-tube fixtures"),
        ),
    ] {
        if let Some(kind) = kinds.lamps.iter().find(|lamp| lamp.id == id) {
            let other = changed(&|other| other.lamps = rows_of(kind, count, bay));
            if *kind.name != tier.lamps[0].name || count != tier.lamps.len() {
                ideas.push((code, name, other));
            }
        }
    }
    if let Some(bar) = kinds.lamps.iter().find(|lamp| lamp.id == "bar-led-14") {
        let boxed = changed(&|other| {
            other.lamps = rows_of(bar, 3, bay);
            let highest = bay.clear_height_mm() - bar.body_height_mm;
            other.lamps.iter_mut().for_each(|l| l.height_mm = highest);
            line_with_foil(other);
            other.adjust = Some(Adjust::Fixed);
        });
        let name = say!("Three thin bars fixed in a foil box");
        ideas.push(("bars_in_foil", name, boxed));
    }
    if let Some(panel) = kinds.lamps.iter().find(|lamp| lamp.id == "panel-led-100") {
        let other = changed(&|other| other.lamps = rows_of(panel, 1, bay));
        ideas.push(("one_panel", say!("One strong panel high above"), other));
    }
    ideas
}

fn line_with_foil(tier: &mut Tier) {
    let sides = &mut tier.sides;
    let all = [
        &mut sides.left,
        &mut sides.right,
        &mut sides.back,
        &mut sides.front,
        &mut sides.top,
    ];
    all.into_iter().for_each(|side| *side = Side::Foil);
}

fn free_id(lamps: &[Lamp]) -> String {
    let mut ids = (1..).map(|n| format!("l{n}"));
    let free = ids.find(|id| lamps.iter().all(|lamp| lamp.id != *id));
    free.expect("there are more numbers than lamps")
}

/// `count` lamps of a kind in even rows, as low as they may begin.
fn rows_of(kind: &Lamp, count: usize, bay: &Bay<'_>) -> Vec<Lamp> {
    let highest = bay.clear_height_mm() - kind.body_height_mm;
    let mut lamps: Vec<Lamp> = (0..count)
        .map(|i| Lamp {
            id: format!("l{}", i + 1),
            height_mm: kind.height_mm.min(highest),
            ..kind.clone()
        })
        .collect();
    in_rows(&mut lamps, bay);
    lamps
}

/// Spreads lamps evenly across their length, in the middle along it.
fn in_rows(lamps: &mut [Lamp], bay: &Bay<'_>) {
    let (w, d) = (bay.place.width_mm, bay.place.depth_mm);
    let n = lamps.len() as f64;
    for (i, lamp) in lamps.iter_mut().enumerate() {
        let share = (i as f64 + 0.5) / n;
        (lamp.x_mm, lamp.y_mm) = match lamp.along {
            Axis::X => (w / 2.0, d * share),
            Axis::Y => (w * share, d / 2.0),
        };
    }
}

/// Lamps shorter than the deck, pushed to its left and right end by turns.
fn staggered(bay: &Bay<'_>) -> Option<Tier> {
    const SHORTER_MM: f64 = 60.0;
    let mut tier = bay.tier.clone();
    if tier.lamps.len() < 2 {
        return None;
    }
    for (i, lamp) in tier.lamps.iter_mut().enumerate() {
        let [[from, to], _] = lamp.extent_mm();
        let free = bay.place.width_mm - (to - from);
        if lamp.along == Axis::Y || free < SHORTER_MM {
            return None;
        }
        let half = (to - from) / 2.0;
        lamp.x_mm = if i % 2 == 0 { half } else { half + free };
    }
    (tier != *bay.tier).then_some(tier)
}

/// What a gardener would notice, the light first.
fn differences(now: &SetUp, then: &SetUp) -> Vec<Statement> {
    let dli = |value: f64| Quantity::DliMolM2D.of(value);
    let share = |value: f64| Quantity::Share.of(value);
    let mut list = Vec::new();
    let right = |s: &SetUp| (1.0 - s.light.under - s.light.over).max(0.0);
    if (right(now) - right(then)).abs() >= 0.02 {
        list.push(say!(
            "{then} of the cells get the right light instead of {now}",
            then = share(right(then)),
            now = share(right(now))
        ));
    }
    for (what, a, b) in [
        ("mean", now.light.dli.mean, then.light.dli.mean),
        ("worst cell", now.light.dli.worst, then.light.dli.worst),
        ("best cell", now.light.dli.best, then.light.dli.best),
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
            "{word}: the worst cell gets {then} of the mean instead of {now}",
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
    use jiff::civil::date;

    fn compared() -> Vec<SetUp> {
        let plan: Plan =
            serde_json::from_str(include_str!("../../../demo/kettle-fen.json")).unwrap();
        let bay = BayRef {
            place: "door".into(),
            tier: "t1".into(),
        };
        let plan = plan.check().unwrap();
        set_ups(&plan, &bay, date(2027, 4, 9), &Fields::default())
    }

    #[test]
    fn the_first_is_what_is_there_and_each_other_says_what_differs() {
        let all = compared();
        assert_eq!(all[0].code, "as_it_is");
        assert!(all[0].patch.is_empty() && all[0].differences.is_empty());
        assert!(all.len() >= 8, "{}", all.len());
        for other in &all[1..] {
            assert!(!other.differences.is_empty(), "{}", other.code);
            assert_eq!(other.patch.len(), 1);
        }
    }

    #[test]
    fn more_lamps_and_foil_give_more_light_and_foil_is_more_even() {
        let all = compared();
        let by = |code: &str| all.iter().find(|s| s.code == code).expect(code);
        let best = &all[0];
        assert!(by("one_more_lamp").light.ppfd.mean > 0.0);
        // These lamps hang as advised already: to hang them so is no other set-up.
        assert!(all.iter().all(|s| s.code != "best_setting"));
        assert!(by("foil_walls").light.evenness > best.light.evenness);
        assert!(by("foil_walls").light.sent_back > 5.0 * best.light.sent_back);
        assert!(by("one_lamp_less").power.watts < best.power.watts);
    }

    #[test]
    fn a_bay_without_seedlings_has_nothing_to_compare() {
        let plan: Plan =
            serde_json::from_str(include_str!("../../../demo/kettle-fen.json")).unwrap();
        let bay = BayRef {
            place: "door".into(),
            tier: "t4".into(),
        };
        let all = set_ups(
            &plan.check().unwrap(),
            &bay,
            date(2027, 4, 9),
            &Fields::default(),
        );
        assert!(all.is_empty());
    }
}
