//! Other ways to warm a tray than the one that is there, each with what it gains.

use crate::basis::words::say;
use crate::compare::warmth::way::{WarmWay, WarmWays, Ways};
use crate::day::closed_air::ClosedAir;
use crate::day::root_zones::{Here, SownRoots, TrayRoots, Whose, deck_light};
use crate::day::standing::{Standing, standing_in};
use crate::room::{Bay, BayRef};
use crate::season::Reckoned;
use crate::season::root_zone::deck_ppfd;
use crate::warmth::around::air_around;
use jiff::civil::Date;

/// The ways to warm the tray in `bay` that germinates there on `date` and lacks most; `None` while
/// nothing germinates.
pub fn warm_ways(reckoned: &Reckoned<'_>, bay: &BayRef, date: Date) -> Option<WarmWays> {
    let plan = reckoned.plan;
    let here = plan.bay_on(bay, date)?;
    let standing: Vec<Vec<Standing<'_>>> = (0..here.place.tiers.len())
        .map(|tier_index| {
            let tier = &here.place.tiers[tier_index];
            let bay = Bay {
                tier,
                tier_index,
                ..here
            };
            standing_in(reckoned, &bay, date)
        })
        .collect();
    let own = &standing[here.tier_index];
    let around = air_around(&plan.site, here.place, date);
    let closed = ClosedAir::around(plan, here.place, here.tier_index, &standing, around.clone());
    let now = Here {
        reckoned,
        deck_ppfd: deck_light(reckoned, &here, own),
        bay: &here,
        standing: own,
        ppfd: &[],
        around: &around,
        closed: closed.as_ref(),
        detailed: false,
    }
    .trays_as_it_goes(Whose::ComingUp, &mut reckoned.beds(), date);
    let (roots, sown) = now
        .iter()
        .flat_map(|roots| roots.sown.iter().map(move |sown| (roots, sown)))
        .min_by(|a, b| {
            let lacks = |(roots, sown): &(&TrayRoots, &SownRoots)| roots.day.mean_c - sown.wants_c;
            lacks(a).total_cmp(&lacks(b))
        })?;
    let tray = own.iter().find(|s| s.tray.id == roots.tray)?;
    let ways = Ways {
        plan,
        bay: here,
        tray,
        standing: &standing,
        sowing: &sown.sowing,
        around: &around,
        ppfd: deck_light(reckoned, &here, own),
        lit_ppfd: deck_ppfd(&here, reckoned.fields),
        bare_c: 0.0,
    };
    let bare = ways.run(&around, None)?;
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
        ways.in_a_chamber(reckoned, date, sown.wants_c),
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
        half_days: sown.outcome.half_days,
        share: sown.outcome.share,
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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::compare::warmth::heat::WARMER_K;
    use crate::plan::Plan;
    use crate::testing::{bay, kettle_fen, reckoned, tier, tray};
    use jiff::civil::date;

    fn ways(change: impl FnOnce(&mut Plan), place: &str, tier: &str) -> Option<WarmWays> {
        let plan = kettle_fen(change);
        warm_ways(&reckoned(&plan), &bay(place, tier), date(2027, 3, 20))
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
        let unheated = |plan: &mut Plan| tier(plan, "door", "t3").mats.clear();
        let promised = ways(unheated, "door", "t3").unwrap();
        let mat = promised.ways.iter().find(|w| w.code == "mat").unwrap();
        let plan = kettle_fen(unheated);
        let changed = crate::plan::patch::patched(&plan, &mat.patch).unwrap();
        let day = crate::basis::dates::DateSpan::day(date(2027, 3, 20));
        let changed = changed.check().unwrap();
        let assessed = crate::ask::assess(&changed, day, crate::day::detail::Detail::All);
        let mut roots = assessed.room[0].bays.iter().flat_map(|bay| bay.roots());
        let laid = roots.find(|r| r.tray == promised.tray).unwrap();
        assert!((laid.day.mean_c - mat.mean_c).abs() < 0.1);
    }

    #[test]
    fn film_is_put_up_with_a_click_only_where_its_lamps_burn() {
        let film = |grows: bool| {
            let change = |plan: &mut Plan| {
                if grows {
                    tray(plan, "ce1").stands[1].bay.tier = "t3".into();
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
