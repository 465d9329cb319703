//! Dates, sheets, comparisons and calculators give the same figures for every tray, to the last digit.

use jiff::civil::Date;
use sunrise_core::ask::{assess_again, warm_ways};
use sunrise_core::basis::dates::{DateSpan, days_between, plus_days};
use sunrise_core::day::bay::BayOnDay;
use sunrise_core::day::detail::Detail;
use sunrise_core::day::root_zones::TrayRoots;
use sunrise_core::light::fields::Fields;
use sunrise_core::plan::{SoundPlan, Tray};
use sunrise_core::season::{Reckoned, SowingDates};
use sunrise_core::testing::{alder_bluff, kettle_fen, one_rack, place};

const HOURS: usize = 24;

/// The hours of the day that is so many days after the first.
fn hours_of(bed_c: &[f64], day: usize) -> &[f64] {
    let days = bed_c.len() / HOURS;
    let day = if days > 1 { day } else { 0 };
    &bed_c[HOURS * day..HOURS * (day + 1)]
}

fn bays(plan: &SoundPlan, day: Date, fields: &Fields) -> Vec<BayOnDay> {
    let all = assess_again(plan, DateSpan::day(day), Detail::All, fields);
    all.room.into_iter().flat_map(|day| day.bays).collect()
}

/// What the calculators say of the same set-ups.
fn calculators_agree(bay: &BayOnDay, roots: &TrayRoots, name: &str) {
    assert_eq!(
        roots.zone.day().as_ref(),
        Ok(&roots.day),
        "{name}: root-zone"
    );
    if let Some(air) = bay
        .detail
        .as_ref()
        .and_then(|detail| detail.chamber.as_ref())
    {
        assert_eq!(air.set_up.day().as_ref(), Ok(&air.day), "{name}: chamber");
    }
}

fn sheet_agrees(
    reckoned: &Reckoned<'_>,
    (tray, dates): (&Tray, &SowingDates),
    day: Date,
    fields: &Fields,
    name: &str,
) -> usize {
    let plan = reckoned.plan;
    let sowing = &plan.sowings[plan.sowing_index(&dates.sowing)];
    let all = bays(plan, day, fields);
    let own = |roots: &&TrayRoots| roots.tray == tray.id;
    let found = all
        .iter()
        .find_map(|bay| Some((bay, bay.roots().iter().find(own)?)));
    let Some((bay, roots)) = found else {
        return 0;
    };
    let sown = roots.sown.iter().find(|sown| sown.sowing == dates.sowing);
    let outcome = &sown.expect("it is sown there").outcome;
    // The dates' figures are those of the first tray.
    let first = plan
        .sown_in(&sowing.id)
        .next()
        .is_some_and(|first| first.id == tray.id);
    if first {
        assert_eq!(outcome.half_days, dates.emergence_days, "{name}: half up");
    }
    let bed_c = reckoned.beds().of_part_c(tray, sowing, dates.sow);
    if sowing.root_zone_c.is_none() {
        let since = usize::try_from(days_between(dates.sow, day)).expect("it is sown");
        assert_eq!(
            hours_of(&bed_c, since),
            roots.day.root_zone_c(),
            "{name}: hours"
        );
    }
    calculators_agree(bay, roots, name);
    if let Some(ways) = warm_ways(plan, &bay.bay, day, fields).filter(|ways| ways.tray == tray.id) {
        let (is, crop) = (&ways.ways[0], &ways.name);
        assert_eq!(is.mean_c, roots.day.mean_c, "{name}: as it is");
        if *crop == dates.name {
            let compared = (is.half_days, is.share);
            assert_eq!(
                compared,
                (outcome.half_days, outcome.share),
                "{name}: as it is"
            );
        }
    }
    1
}

/// Looks at every tray of `plan` on the days on which it is sown, half way, and last comes up; how often
/// it was seen.
fn agree(plan: &SoundPlan, name: &str) -> usize {
    let fields = Fields::default();
    let reckoned = Reckoned::of(plan, &fields);
    let mut seen = 0;
    for tray in plan.trays.iter().filter(|tray| !tray.potted) {
        for part in &tray.parts {
            let dates = &reckoned.dates[plan.sowing_index(&part.sowing)];
            let moments = reckoned.moments_of(tray);
            let last = moments.all_up.min(moments.harden);
            let days = days_between(dates.sow, last);
            if plan.sowings[plan.sowing_index(&part.sowing)]
                .stays
                .is_some()
            {
                continue;
            }
            for on in [0, days / 2, days - 1] {
                let day = plus_days(dates.sow, on);
                if on >= 0 && moments.coming_up(day) {
                    let name = format!("{name}, {} in {} on {day}", dates.name, tray.name);
                    seen += sheet_agrees(&reckoned, (tray, dates), day, &fields, &name);
                }
            }
        }
    }
    seen
}

#[test]
fn every_tray_of_the_demos_has_one_root_zone() {
    assert!(agree(&kettle_fen(|_| ()), "the demo") > 60);
    assert!(agree(&alder_bluff(|_| ()), "the smaller demo") > 10);
    assert!(agree(&one_rack(|_| ()), "one rack") > 10);
}

#[test]
fn a_chamber_whose_thermostat_hangs_on_its_mat_and_film_round_shelves_have_one_too() {
    use sunrise_core::room::{MatProbe, Side};
    let probed = kettle_fen(|plan| {
        for tier in &mut place(plan, "cabinet").tiers {
            tier.lamps_germinating = true;
            tier.mats_growing = true;
            tier.domes_growing = true;
            for mat in &mut tier.mats {
                mat.probe = Some(MatProbe::Mat);
            }
        }
        for tier in &mut place(plan, "door").tiers {
            let sides = &mut tier.sides;
            for side in [
                &mut sides.left,
                &mut sides.right,
                &mut sides.back,
                &mut sides.front,
            ] {
                *side = Side::Foil;
            }
        }
    });
    assert!(agree(&probed, "closed in") > 60);
    let closet = kettle_fen(|plan| {
        place(plan, "coat").kind = serde_json::from_value(serde_json::json!({
            "closet": { "pitch_mm": 20.0, "shut": true }
        }))
        .expect("a closet");
    });
    assert!(agree(&closet, "a shut closet") > 60);
}

#[test]
fn every_set_up_has_one_root_zone() {
    let mut seen = 0;
    for set_up in super::all() {
        let (plan, _) = set_up.corner.made();
        seen += agree(&plan, set_up.name);
    }
    assert!(seen > 100, "{seen}");
}
