//! Set-ups that growers know, each with the findings that an old hand would give and those they would
//! not; and that following all the advice ends well. `table.md` shows them (`UPDATE_DOCS=1` writes it
//! anew). What an old hand says is common practice, no source.

mod agreement;
mod chains;
mod corner;
mod growth;
mod light;
mod season;
mod space;
mod warmth;

use std::fmt::Write as _;

use corner::Corner;
use sunrise_core::advice::Finding;
use sunrise_core::ask::assess_again;
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::detail::Detail;
use sunrise_core::light::fields::Fields;
use sunrise_core::plan::SoundPlan;

/// A set-up, and what is to be said of it.
struct SetUp {
    /// In words.
    name: &'static str,
    corner: Corner,
    /// Codes that have to be among the findings.
    says: &'static [&'static str],
    /// Codes that must not be; `"anything"` where nothing at all is to be said of bays.
    not: &'static [&'static str],
}

type Row = (
    &'static str,
    Corner,
    &'static [&'static str],
    &'static [&'static str],
);

impl SetUp {
    fn of((name, corner, says, not): Row) -> Self {
        Self {
            name,
            corner,
            says,
            not,
        }
    }
}

fn all() -> Vec<SetUp> {
    [
        light::set_ups(),
        warmth::set_ups(),
        space::set_ups(),
        season::set_ups(),
        growth::set_ups(),
    ]
    .into_iter()
    .flatten()
    .collect()
}

fn found(plan: &SoundPlan, day: jiff::civil::Date, fields: &Fields) -> Vec<Finding> {
    assess_again(plan, DateSpan::day(day), Detail::Outline, fields).findings
}

/// What a judgement of seed, packets or the season's frame says, whatever the set-up.
fn beside_the_point(finding: &Finding) -> bool {
    ["too_few_pots", "pot_on_now", "harden_off_now"].contains(&finding.code)
}

#[test]
fn an_old_hand_would_say_the_same() {
    let fields = Fields::default();
    let mut wrong = String::new();
    for SetUp {
        name,
        corner,
        says,
        not,
    } in all()
    {
        let (plan, day) = corner.made();
        let findings = found(&plan, day, &fields);
        let codes: Vec<&str> = findings.iter().map(|f| f.code).collect();
        for code in says.iter().filter(|code| !codes.contains(code)) {
            writeln!(wrong, "{name}: {code} is not said, but {codes:?}").unwrap();
        }
        for finding in &findings {
            let anything = not.contains(&"anything") && !beside_the_point(finding);
            if !says.contains(&finding.code) && (anything || not.contains(&finding.code)) {
                writeln!(
                    wrong,
                    "{name}: {} is said: {} ({})",
                    finding.code, finding.headline, finding.reason
                )
                .unwrap();
            }
        }
    }
    assert!(wrong.is_empty(), "\n{wrong}");
}

#[test]
fn there_are_enough_of_them_and_the_table_shows_them() {
    let sets = all();
    assert!(sets.len() >= 60, "{}", sets.len());
    let mut table = String::from(
        "# Set-ups, and what is said of them\n\nCommon practice, no source, in the first three columns; the last is computed.\n\n| set-up | an old hand says | and would not say | first advice |\n|---|---|---|---|\n",
    );
    let fields = Fields::default();
    for set_up in sets {
        let (plan, day) = set_up.corner.made();
        let findings = found(&plan, day, &fields);
        let of_bays = findings.iter().filter(|f| f.sowing.is_none());
        let rest = findings.iter().filter(|f| f.sowing.is_some());
        let first = of_bays.chain(rest).find(|f| !beside_the_point(f));
        let first = first.map_or("nothing".into(), |f| f.headline.to_string());
        let list = |codes: &[&str]| codes.join(", ");
        writeln!(
            table,
            "| {} | {} | {} | {first} |",
            set_up.name,
            list(set_up.says),
            list(set_up.not)
        )
        .unwrap();
    }
    let path = concat!(env!("CARGO_MANIFEST_DIR"), "/tests/set_ups/table.md");
    if std::env::var_os("UPDATE_DOCS").is_some() {
        std::fs::write(path, &table).unwrap();
    }
    let shown = std::fs::read_to_string(path).unwrap_or_default();
    assert_eq!(shown, table, "run this test with UPDATE_DOCS=1");
}

#[test]
fn a_closet_that_is_too_hot_is_opened_and_its_seedlings_keep_their_lamps() {
    let closet = |sown_days: i32| {
        let corner = Corner::new()
            .air(28.0, 26.0, 0.5)
            .place("closet", |closet| assert!(closet.set_doors(true)))
            .tier("t2", |tier| tier.liner = true)
            .lamps(
                "t2",
                "bar-led-10",
                &[100.0, 200.0, 300.0, 400.0],
                300.0,
                16.0,
            )
            .tray("t2", "lettuce", "cells-72", [60.0, 5.0], sown_days)
            .tray("t2", "celery", "cells-72", [360.0, 5.0], 1);
        let (plan, day) = corner.made();
        let findings = found(&plan, day, &Fields::default());
        let hot = findings
            .into_iter()
            .find(|f| f.code == "closed_air_too_hot");
        hot.expect("it is hot in there").headline.to_string()
    };
    assert!(
        !closet(18).contains("Leave the lamps off"),
        "{}",
        closet(18)
    );
    assert!(!closet(18).is_empty());
}
