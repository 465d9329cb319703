//! Other ways to run a chamber, side by side with how it runs.

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::clock::DAY_H;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::day::closed_air::ClosedAir;
use crate::day::standing::standing_in;
use crate::plan::patch::PatchStep;
use crate::room::{Airing, Bay, BayRef, Place, Vent, place_pointer};
use crate::season::Reckoned;
use crate::warmth::around::air_around;
use crate::warmth::chamber::{ChamberDay, ChamberSetUp, OpenDoor, SLOT_MM, VentSlot};
use crate::warmth::closed_space::chamber_day;

/// A way to run a chamber.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct ChamberWay {
    /// Stable name.
    pub code: &'static str,
    /// What it is.
    pub name: Statement,
    /// Mean of each shelf from the lowest up, in °C.
    pub shelves_c: Vec<f64>,
    /// The warmest that any shelf gets.
    pub most_c: f64,
    /// The coolest that any shelf gets.
    pub least_c: f64,
    /// Whether that passes its limit.
    pub overheats: bool,
    /// Whether its thermostat's setting is held.
    pub reaches: bool,
    /// Air that its vents let through on the mean, in m³/h.
    pub vents_m3_h: f64,
    /// What heaters and lamps draw, in kWh a day.
    pub kwh_per_day: f64,
    /// What that costs a day.
    pub cost_per_day: f64,
    /// How the plan becomes so; empty for what is there, and where the plan cannot hold it.
    pub patch: Vec<PatchStep>,
}

/// A door ajar.
const AJAR_MM: f64 = 50.0;
/// The hours of the day in which somebody would leave it open.
const DAYTIME_H: [f64; 2] = [8.0, 12.0];
/// What is opened as it gets warm is opened so far below the limit.
const BELOW_LIMIT_K: f64 = 4.0;
/// What the thermostat is tried up and down by.
const STEP_K: f64 = 2.0;

/// How the closed air that `bay` shares runs on `date`, and other ways to run it; empty in the
/// open.
pub fn chamber_ways(reckoned: &Reckoned<'_>, bay: &BayRef, date: Date) -> Vec<ChamberWay> {
    let plan = reckoned.plan;
    let Some(here) = plan.bay_on(bay, date) else {
        return Vec::new();
    };
    let place = here.place;
    let standing: Vec<_> = (0..place.tiers.len())
        .map(|tier_index| {
            let tier = &place.tiers[tier_index];
            let bay = Bay {
                tier,
                tier_index,
                ..here
            };
            standing_in(reckoned, &bay, date)
        })
        .collect();
    let around = air_around(&plan.site, place, date);
    let Some(air) = ClosedAir::around(plan, place, here.tier_index, &standing, around) else {
        return Vec::new();
    };
    let mut all = vec![way("as_it_is", say!("As it is"), &air.day, Vec::new())];
    let (own, vents_at) = place.vents_of(here.tier_index, &place_pointer(here.place_index));
    // Gaps that are always there come first.
    let gaps = air.set_up.vents.len() - own.len();
    for (code, name, vents) in other_vents(own, [air.set_up.width_mm, air.set_up.height_mm]) {
        let mut set_up = air.set_up.clone();
        set_up.vents.truncate(gaps);
        set_up.vents.extend(vents.iter().map(slot));
        all.extend(run(
            code,
            name,
            set_up,
            vec![PatchStep::set(&vents_at, &vents)],
        ));
    }
    let change = |change: &dyn Fn(&mut ChamberSetUp)| {
        let mut set_up = air.set_up.clone();
        change(&mut set_up);
        set_up
    };
    for (code, name, airing) in airings(&air.set_up) {
        let at = place_pointer(here.place_index).at("airing");
        all.extend(run(
            code,
            name,
            change(&|set_up| {
                set_up.door = Some(OpenDoor {
                    slot: VentSlot {
                        width_mm: airing.gap_mm,
                        height_mm: set_up.height_mm,
                        at_mm: set_up.height_mm / 2.0,
                    },
                    from_h: airing.from_h,
                    hours: airing.hours,
                    over_c: airing.over_c,
                });
            }),
            vec![PatchStep::set(&at, airing)],
        ));
    }
    if !air.set_up.lamps.is_empty() {
        all.extend(run(
            "lamps_off",
            say!("Its lamps off"),
            change(&|set_up| set_up.lamps.clear()),
            Vec::new(),
        ));
    }
    if let Some(thermostat) = air.set_up.thermostat {
        for (code, k) in [("cooler", -STEP_K), ("warmer", STEP_K)] {
            let set_c = thermostat.set_c + k;
            all.extend(run(
                code,
                say!(
                    "Its thermostat at {set}",
                    set = Quantity::TemperatureC.of(set_c)
                ),
                change(&|set_up| {
                    if let Some(thermostat) = &mut set_up.thermostat {
                        thermostat.set_c = set_c;
                    }
                }),
                thermostats(place, here.place_index, k),
            ));
        }
        let at = place_pointer(here.place_index).at("kind").at("chamber");
        for (code, name, share) in [
            ("probe_low", say!("Its probe near the bottom"), 0.15),
            ("probe_high", say!("Its probe near the top"), 0.85),
        ] {
            let probe_mm = (air.set_up.height_mm * share).round();
            all.extend(run(
                code,
                name,
                change(&|set_up| {
                    if let Some(thermostat) = &mut set_up.thermostat {
                        thermostat.probe_at_mm = probe_mm;
                    }
                }),
                vec![PatchStep::set(&at.at("probe_mm"), probe_mm)],
            ));
        }
    }
    all
}

/// Ways to air it by its door or a flap.
fn airings(set_up: &ChamberSetUp) -> [(&'static str, Statement, Airing); 2] {
    let [from_h, hours] = DAYTIME_H;
    let gap_mm = AJAR_MM.min(set_up.width_mm);
    let ajar = || Quantity::LengthMm.of(gap_mm);
    let over_c = set_up.limit_c - BELOW_LIMIT_K;
    let by_day = say!(
        "Opened {ajar} wide from {from} for {hours}",
        ajar = ajar(),
        from = Quantity::ClockH.of(from_h),
        hours = Quantity::Hours.of(hours)
    );
    let when_warm = say!(
        "Opened {ajar} wide whenever it is over {over}",
        ajar = ajar(),
        over = Quantity::TemperatureC.of(over_c)
    );
    let airing = |from_h: f64, hours: f64, over_c: Option<f64>| Airing {
        gap_mm,
        from_h,
        hours,
        over_c,
    };
    [
        ("door_by_day", by_day, airing(from_h, hours, None)),
        (
            "door_when_warm",
            when_warm,
            airing(0.0, DAY_H, Some(over_c)),
        ),
    ]
}

/// Vents that could be there instead of its `own`, in walls so wide and high.
fn other_vents(
    own: &[Vent],
    [width_mm, height_mm]: [f64; 2],
) -> Vec<(&'static str, Statement, Vec<Vent>)> {
    let cut = |at_mm: f64| Vent {
        width_mm: SLOT_MM[0].min(width_mm),
        height_mm: SLOT_MM[1],
        at_mm,
    };
    let (low, high) = (30.0_f64.min(height_mm), (height_mm - 30.0).max(0.0));
    let mut all = Vec::new();
    if !own.is_empty() {
        all.push(("vents_shut", say!("Its vents taped shut"), Vec::new()));
        let wider = own.iter().map(|vent| Vent {
            height_mm: 2.0 * vent.height_mm,
            ..vent.clone()
        });
        all.push((
            "vents_doubled",
            say!("Its vents twice as high"),
            wider.collect(),
        ));
    }
    let with = |more: Vec<Vent>| own.iter().cloned().chain(more).collect();
    all.push((
        "vent_at_the_top",
        say!(
            "One more vent of {wide} x {high} at the top",
            wide = Quantity::LengthMm.of(SLOT_MM[0]),
            high = Quantity::LengthMm.of(SLOT_MM[1])
        ),
        with(vec![cut(high)]),
    ));
    all.push((
        "vents_top_and_bottom",
        say!("Such vents at the top and at the bottom"),
        with(vec![cut(low), cut(high)]),
    ));
    all
}

fn slot(vent: &Vent) -> VentSlot {
    VentSlot {
        width_mm: vent.width_mm,
        height_mm: vent.height_mm,
        at_mm: vent.at_mm,
    }
}

/// Every thermostat of the place's mats moved by `k`.
fn thermostats(place: &Place, place_index: usize, k: f64) -> Vec<PatchStep> {
    let tiers = place_pointer(place_index).at("tiers");
    let each = place.tiers.iter().enumerate().flat_map(|(t, tier)| {
        let at = tiers.at(t).at("mats");
        tier.mats.iter().enumerate().filter_map(move |(m, mat)| {
            let to = mat.thermostat_c? + k;
            Some(PatchStep::replace(&at.at(m).at("thermostat_c"), to))
        })
    });
    each.collect()
}

fn run(
    code: &'static str,
    name: Statement,
    set_up: ChamberSetUp,
    patch: Vec<PatchStep>,
) -> Option<ChamberWay> {
    Some(way(code, name, &chamber_day(set_up)?, patch))
}

fn way(code: &'static str, name: Statement, day: &ChamberDay, patch: Vec<PatchStep>) -> ChamberWay {
    let shelves = || day.shelves.iter();
    ChamberWay {
        code,
        name,
        shelves_c: shelves().map(|s| s.mean_c).collect(),
        most_c: shelves()
            .map(|s| s.most_c)
            .fold(f64::NEG_INFINITY, f64::max),
        least_c: shelves().map(|s| s.least_c).fold(f64::INFINITY, f64::min),
        overheats: day.overheats,
        reaches: day.reaches,
        vents_m3_h: day.vents_m3_h,
        kwh_per_day: day.kwh_per_day,
        cost_per_day: day.cost_per_day,
        patch,
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::SoundPlan;
    use crate::room::Side;
    use crate::testing::{bay, kettle_fen, reckoned, tier};
    use jiff::civil::date;

    #[test]
    fn vents_lamps_and_thermostat_do_what_one_expects() {
        let ways = chamber_ways(
            &reckoned(&kettle_fen(|_| ())),
            &bay("cabinet", "t1"),
            date(2027, 3, 20),
        );
        let by = |code: &str| ways.iter().find(|w| w.code == code).expect(code);
        let now = by("as_it_is");
        assert!(by("vents_doubled").vents_m3_h > now.vents_m3_h);
        assert!(by("vents_doubled").kwh_per_day > now.kwh_per_day);
        assert_eq!(by("vents_shut").vents_m3_h, 0.0);
        assert!(by("door_by_day").kwh_per_day > now.kwh_per_day);
        let mean = |w: &ChamberWay| w.shelves_c.iter().sum::<f64>() / w.shelves_c.len() as f64;
        assert!((mean(by("warmer")) - mean(now) - STEP_K).abs() < 0.5);
        assert!((mean(by("cooler")) - mean(now) + STEP_K).abs() < 0.5);
        // A probe that hangs where it is warmest leaves the rest cooler.
        assert!(mean(by("probe_high")) < mean(by("probe_low")));
    }

    #[test]
    fn what_is_offered_can_be_set_up() {
        let closed_in = kettle_fen(|plan| {
            let foil = crate::room::Sides {
                left: Side::Foil,
                right: Side::Foil,
                back: Side::Foil,
                front: Side::Foil,
                top: Side::Open,
            };
            tier(plan, "door", "t3").sides = foil;
            let coat = plan.places.iter_mut().find(|p| p.id == "coat").unwrap();
            coat.kind = serde_json::from_value(serde_json::json!({
                "closet": { "pitch_mm": 20.0, "shut": true,
                    "vents": [{ "width_mm": 100.0, "height_mm": 20.0, "at_mm": 1200.0 }] }
            }))
            .expect("a closet");
        });
        let plan = kettle_fen(|_| ());
        let day = date(2027, 3, 20);
        for (plan, at) in [
            (&plan, bay("cabinet", "t1")),
            (&closed_in, bay("door", "t3")),
            (&closed_in, bay("coat", "t2")),
        ] {
            let ways = chamber_ways(&reckoned(plan), &at, day);
            let offered = ways.iter().filter(|way| !way.patch.is_empty());
            assert!(offered.clone().count() >= 4, "{at:?}");
            for way in offered {
                let changed = crate::plan::patch::patched(plan, &way.patch).unwrap();
                let changed = changed.check().expect(way.code);
                let then = &chamber_ways(&reckoned(&changed), &at, day)[0];
                for (a, b) in then.shelves_c.iter().zip(&way.shelves_c) {
                    assert!((a - b).abs() < 0.4, "{}: {a} {b}", way.code);
                }
            }
        }
    }

    #[test]
    fn what_opens_as_it_gets_warm_caps_the_heat_and_leaves_cool_air_alone() {
        let hot = kettle_fen(|plan| {
            for tier in &mut plan
                .places
                .iter_mut()
                .find(|p| p.id == "cabinet")
                .unwrap()
                .tiers
            {
                tier.mats.iter_mut().for_each(|mat| mat.thermostat_c = None);
            }
        });
        let cabinet = bay("cabinet", "t1");
        let day = date(2027, 3, 20);
        let most = |plan: &SoundPlan, code: &str| {
            let ways = chamber_ways(&reckoned(plan), &cabinet, day);
            let way = ways.into_iter().find(|w| w.code == code);
            way.expect(code)
        };
        let (shut, aired) = (most(&hot, "as_it_is"), most(&hot, "door_when_warm"));
        assert!(aired.most_c < shut.most_c - 1.0);
        let mild = kettle_fen(|_| ());
        let (shut, aired) = (most(&mild, "as_it_is"), most(&mild, "door_when_warm"));
        assert!(shut.most_c < 26.0, "{}", shut.most_c);
        assert!((aired.most_c - shut.most_c).abs() < 0.05);
    }

    #[test]
    fn an_open_rack_is_no_chamber() {
        let plan = kettle_fen(|_| ());
        let ways = chamber_ways(&reckoned(&plan), &bay("door", "t1"), date(2027, 3, 20));
        assert!(ways.is_empty());
    }
}
