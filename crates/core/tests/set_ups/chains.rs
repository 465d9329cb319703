//! Following the advice, fix after fix: it ends, and nothing gets worse on the way.

use super::{all, found};
use jiff::civil::Date;
use sunrise_core::advice::{Finding, Severity};
use sunrise_core::ask::assess_again;
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::bay::BayOnDay;
use sunrise_core::day::detail::Detail;
use sunrise_core::light::fields::Fields;
use sunrise_core::plan::SoundPlan;
use sunrise_core::plan::patch::{Fix, patched};
use sunrise_core::testing::{alder_bluff, kettle_fen};

/// More fixes in a row than these nobody follows.
const MOST_STEPS: usize = 6;
/// Where a setting is computed by a table and then by itself, so many of the cells may differ.
const AS_MANY: f64 = 0.015;

fn applied(plan: &SoundPlan, fix: &Fix) -> SoundPlan {
    let plan = patched(plan, &fix.patch).expect("a fix keeps the plan's form");
    plan.check().unwrap_or_else(|faults| panic!("{faults:#?}"))
}

fn bays(plan: &SoundPlan, day: Date, fields: &Fields) -> Vec<BayOnDay> {
    let mut assessed = assess_again(plan, DateSpan::day(day), Detail::Outline, fields);
    assessed.room.remove(0).bays
}

/// Where a finding is: fixes of one place are followed one after another.
fn target(finding: &Finding) -> String {
    let place = finding.bay.as_ref().map(|bay| format!("{bay:?}"));
    let place = place.or_else(|| finding.place.clone());
    place.or_else(|| finding.sowing.clone()).unwrap_or_default()
}

fn same_matter(a: &Finding, b: &Finding) -> bool {
    a.code == b.code && target(a) == target(b)
}

/// What a finding complains of, the more the worse; `None` where it names no figure of light.
fn complaint(finding: &Finding, bays: &[BayOnDay]) -> Option<f64> {
    let bay = bays
        .iter()
        .find(|bay| Some(&bay.bay) == finding.bay.as_ref())?;
    let (hang, light) = (bay.hang.as_ref()?, bay.light.as_ref()?);
    Some(match finding.code {
        "hang_lamps" if finding.reason.text.contains("On average") => -hang.now.mean_mol_m2_d,
        "hang_lamps" if finding.reason.text.contains("more light") => hang.now.harmed,
        "hang_lamps" => hang.now.under,
        "seedlings_stretch" => hang.now.stretched,
        "leaves_bleach" => hang.now.harmed,
        "leaves_too_near" => -light.gap_mm,
        "light_wasted" => hang.now.unused,
        // Round the clock is 24 h, not none.
        "too_many_hours" => 24.0 - (bay.burns.from_h - bay.burns.to_h).rem_euclid(24.0),
        _ => return None,
    })
}

/// Follows `fix` of `finding`, and complains where anything is worse for it.
fn followed(
    plan: &SoundPlan,
    day: Date,
    fields: &Fields,
    before: &[Finding],
    finding: &Finding,
    fix: &Fix,
) -> Result<SoundPlan, String> {
    let after = applied(plan, fix);
    let (were, are) = (bays(plan, day, fields), bays(&after, day, fields));
    let said = format!("{} ({}) by {}", finding.headline, finding.reason, fix.label);
    if let (Some(was), Some(is)) = (complaint(finding, &were), complaint(finding, &are))
        && is > was + AS_MANY
    {
        return Err(format!("{said}: {was} became {is}"));
    }
    for (was, is) in were.iter().zip(&are) {
        let (Some(was), Some(is)) = (&was.hang, &is.hang) else {
            continue;
        };
        for (what, was, is) in [
            ("stretching", was.now.stretched, is.now.stretched),
            ("harmed", was.now.harmed, is.now.harmed),
        ] {
            if is > was + AS_MANY {
                return Err(format!("{said}: {what} cells from {was} to {is}"));
            }
        }
    }
    for new in found(&after, day, fields) {
        let known = before.iter().any(|old| same_matter(old, &new));
        if !known && new.severity < Severity::Advice && new.severity <= finding.severity {
            return Err(format!("{said}: brings {} ({})", new.headline, new.reason));
        }
    }
    Ok(after)
}

/// Follows all advice on `plan`, target by target.
fn follow(plan: &SoundPlan, day: Date, fields: &Fields) -> Result<(), String> {
    let first = found(plan, day, fields);
    let mut targets: Vec<String> = first.iter().map(target).collect();
    targets.sort();
    targets.dedup();
    for at in targets {
        let mut plan = plan.clone();
        let mut findings = first.clone();
        let mut steps = Vec::new();
        while let Some(finding) = findings
            .iter()
            .find(|f| target(f) == at && !f.fixes.is_empty())
        {
            steps.push(finding.headline.to_string());
            if steps.len() > MOST_STEPS {
                return Err(format!("no end in sight: {steps:#?}"));
            }
            let mut next = None;
            // Each way out is tried; the first is gone on with.
            for fix in &finding.fixes {
                let after = followed(&plan, day, fields, &findings, finding, fix)?;
                next.get_or_insert(after);
            }
            plan = next.expect("there is a fix");
            findings = found(&plan, day, fields);
        }
    }
    Ok(())
}

#[test]
fn following_the_advice_ends_and_makes_nothing_worse() {
    let fields = Fields::default();
    let mut wrong = Vec::new();
    for set_up in all() {
        let name = set_up.name;
        let (plan, day) = set_up.corner.made();
        if let Err(error) = follow(&plan, day, &fields) {
            wrong.push(format!("{name}: {error}"));
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}

#[test]
fn so_it_does_on_every_fifth_day_of_the_demos() {
    let mut wrong = Vec::new();
    for plan in [kettle_fen(|_| ()), alder_bluff(|_| ())] {
        let fields = Fields::default();
        for day in plan.season.days().step_by(5) {
            if let Err(error) = follow(&plan, day, &fields) {
                wrong.push(format!("{day}: {error}"));
            }
        }
    }
    assert!(wrong.is_empty(), "{wrong:#?}");
}

#[test]
fn sheet_schedule_and_finding_speak_with_one_voice() {
    let fields = Fields::default();
    let mut advised = 0;
    for set_up in all() {
        let name = set_up.name;
        let (plan, day) = set_up.corner.made();
        let findings = found(&plan, day, &fields);
        for bay in bays(&plan, day, &fields) {
            let detail = Detail::Bay(bay.bay.clone());
            let mut assessed = assess_again(&plan, DateSpan::day(day), detail, &fields);
            let mut shown = assessed.room.remove(0).bays.into_iter();
            let hang = shown.find(|b| b.bay == bay.bay).and_then(|b| b.hang);
            let Some(hang) = hang else { continue };
            assert_eq!(
                bay.hang.as_ref().map(|h| h.setting),
                Some(hang.setting),
                "{name}"
            );
            let schedule = hang.detail.expect("it was asked for").adjustments;
            let today = schedule.first().filter(|change| change.date == day);
            let wanted = hang.change.map(|_| hang.setting);
            assert_eq!(today.map(|change| change.setting), wanted, "{name}");
            // One finding at the most sets the lamps, but for leaves that are in them too.
            let of_bay = findings.iter().filter(|f| f.bay.as_ref() == Some(&bay.bay));
            let fixes = of_bay
                .flat_map(|f| &f.fixes)
                .map(|fix| fix.label.to_string());
            let hangs = fixes.filter(|label| label == "Hang here").count();
            assert!(
                hangs <= 1 && (hangs == 1) == wanted.is_some(),
                "{name}: {hangs}"
            );
            advised += hangs;
        }
    }
    assert!(advised > 10, "{advised}");
}
