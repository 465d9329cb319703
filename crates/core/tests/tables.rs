//! The demo as tables that a person can review: the season, a bay, a chamber, the findings. Accept a
//! change with `INSTA_UPDATE=always cargo test -p sunrise-core --test tables`, and look at it first.

use std::fmt::{Display, Write};

use jiff::civil::{Date, date};
use sunrise_core::ask::{Assessment, assess};
use sunrise_core::basis::dates::DateSpan;
use sunrise_core::day::bay::BayOnDay;
use sunrise_core::day::detail::Detail;
use sunrise_core::testing::{self, kettle_fen};

fn on(day: Date) -> Assessment {
    assess(&kettle_fen(|_| ()), DateSpan::day(day), Detail::All)
}

fn bay(assessment: &Assessment, place: &str, tier: &str) -> BayOnDay {
    let wanted = testing::bay(place, tier);
    let mut bays = assessment.room[0].bays.iter();
    bays.find(|bay| bay.bay == wanted).expect(tier).clone()
}

/// Rows of cells, each column as wide as its widest cell.
struct Table(Vec<Vec<String>>);

impl Table {
    fn new(heading: &[&str]) -> Self {
        Self(vec![heading.iter().map(ToString::to_string).collect()])
    }

    fn row(&mut self, cells: &[&dyn Display]) {
        self.0.push(cells.iter().map(ToString::to_string).collect());
    }
}

impl Display for Table {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        let columns = self.0[0].len();
        let wide = |column: usize| {
            let cells = self.0.iter().map(|row| row[column].chars().count());
            cells.max().unwrap_or(0)
        };
        for row in &self.0 {
            let cells: Vec<String> = (0..columns)
                .map(|column| format!("{:<1$}", row[column], wide(column)))
                .collect();
            writeln!(f, "{}", cells.join("  ").trim_end())?;
        }
        Ok(())
    }
}

/// Four digits, as many as anyone reads and every machine agrees on.
fn n(value: f64) -> String {
    if value == 0.0 {
        return "0".into();
    }
    let digits = (3 - value.abs().log10().floor() as i32).clamp(0, 4) as usize;
    format!("{value:.digits$}")
}

fn day(date: Option<Date>) -> String {
    date.map_or("-".into(), |date| date.strftime("%d %b").to_string())
}

fn opt(value: Option<f64>) -> String {
    value.map_or("-".into(), n)
}

#[test]
fn the_season() {
    let assessment = on(date(2027, 4, 9));
    let mut sowings = Table::new(&[
        "sowing", "cold", "sow", "first", "quarter", "half", "all", "thin", "pot on", "harden",
        "out", "frost", "comes up", "pace", "cells", "seeds",
    ]);
    for dates in &assessment.sowings {
        let mut cells = assessment.to_sow.iter().flatten();
        let cells = cells.find(|cells| cells.sowing == dates.sowing).unwrap();
        let to_sow = cells.to_sow.as_ref();
        sowings.row(&[
            &dates.sowing,
            &day(dates.chill),
            &day(Some(dates.sow)),
            &day(dates.first),
            &day(dates.quarter),
            &day(dates.emerge),
            &day(dates.last),
            &day(dates.thin),
            &day(dates.pot_on),
            &day(Some(dates.harden)),
            &day(Some(dates.out)),
            &n(dates.frost_risk_out),
            &n(dates.comes_up),
            &opt(dates.pace.map(|pace| pace.rate)),
            &to_sow.map_or(0, |sow| sow.cells),
            &to_sow.map_or(0, |sow| sow.seeds),
        ]);
    }
    let mut days = Table::new(&["day", "trays", "day length", "outdoors", "frost risk"]);
    for of in assessment.season.days.iter().step_by(10) {
        days.row(&[
            &day(Some(of.date)),
            &of.trays,
            &n(of.day_length_h),
            &n(of.outdoors_mol_m2_d),
            &n(of.frost_risk),
        ]);
    }
    let mut jobs = Table::new(&["day", "job", "note"]);
    for job in &assessment.season.events {
        jobs.row(&[&day(Some(job.date)), &job.headline, &job.note]);
    }
    insta::assert_snapshot!(format!(
        "places held {}, fullest on {}\n\n{sowings}\n{days}\n{jobs}",
        assessment.season.capacity.standard, assessment.season.fullest
    ));
}

#[test]
fn every_bay() {
    let mut table = Table::new(&[
        "bay",
        "trays",
        "lit",
        "headroom",
        "kg",
        "ppfd",
        "least",
        "most",
        "dli",
        "least",
        "most",
        "back",
        "above",
        "lux",
        "gap",
        "best height",
        "hours",
        "under then",
        "now",
        "W",
        "kWh",
        "cost",
    ]);
    for day in [date(2027, 3, 20), date(2027, 4, 9), date(2027, 5, 5)] {
        for bay in &on(day).room[0].bays {
            let (light, hang) = (bay.light.as_ref(), bay.hang.as_ref());
            table.row(&[
                &format!(
                    "{} {}/{}",
                    day.strftime("%d %b"),
                    bay.bay.place,
                    bay.bay.tier
                ),
                &bay.trays().len(),
                &(if bay.burning { "yes" } else { "no" }),
                &opt(bay.headroom_mm),
                &n(bay.load.watered_kg),
                &opt(light.map(|l| l.ppfd.mean)),
                &opt(light.map(|l| l.ppfd.worst)),
                &opt(light.map(|l| l.ppfd.best)),
                &opt(light.map(|l| l.dli.mean)),
                &opt(light.map(|l| l.dli.worst)),
                &opt(light.map(|l| l.dli.best)),
                &opt(light.map(|l| l.sent_back)),
                &opt(light.map(|l| l.from_above_mol_m2_d)),
                &opt(light.map(|l| l.lux.mean)),
                &opt(light.map(|l| l.gap_mm)),
                &opt(hang.map(|h| h.setting.height_mm)),
                &opt(hang.map(|h| h.setting.hours_h)),
                &opt(hang.map(|h| h.then.under)),
                &opt(hang.map(|h| h.now.under)),
                &n(bay.power.watts),
                &n(bay.power.kwh_per_day),
                &n(bay.power.cost_per_day),
            ]);
        }
    }
    insta::assert_snapshot!(table);
}

#[test]
fn one_bay() {
    let bay = bay(&on(date(2027, 4, 9)), "door", "t2");
    let mut parts = Table::new(&[
        "tray",
        "stage",
        "sowing",
        "tall",
        "x",
        "y",
        "cells",
        "first cells",
        "band",
    ]);
    for tray in bay.trays() {
        for part in &tray.parts {
            let cells: Vec<String> = part
                .cells
                .iter()
                .flat_map(|c| &c.dli)
                .take(4)
                .map(|dli| n(*dli))
                .collect();
            parts.row(&[
                &tray.label,
                &format!("{:?}", tray.stage),
                &part.sowing,
                &n(part.plant_height_mm),
                &n(part.x_mm[0]),
                &n(part.y_mm[0]),
                &format!("{} x {}", part.columns, part.rows),
                &cells.join(" "),
                &format!("{}-{}", n(part.target.low), n(part.target.high)),
            ]);
        }
    }
    let detail = bay.detail.as_ref().unwrap();
    let hang = bay.hang.as_ref().unwrap().detail.as_ref().unwrap();
    let mut steps = Table::new(&["day", "height", "hours", "gap"]);
    for change in &hang.adjustments {
        steps.row(&[
            &day(Some(change.date)),
            &n(change.setting.height_mm),
            &n(change.setting.hours_h),
            &n(change.gap_mm),
        ]);
    }
    let mut fits = Table::new(&[
        "format",
        "lengthwise",
        "crosswise",
        "most",
        "free",
        "over rim",
    ]);
    for fit in &detail.fits {
        fits.row(&[
            &fit.deck.format,
            &fit.deck.lengthwise.trays,
            &fit.deck.crosswise.trays,
            &fit.deck.most,
            &fit.free,
            &n(fit.over_rim_mm),
        ]);
    }
    let air = detail.air.as_ref().unwrap();
    let why = detail.light_why.as_ref().unwrap();
    insta::assert_snapshot!(format!(
        "{}\n{}\n{}\n{}\nair {} C, {} damp, {} m/s at the far end\n\n{parts}\n{steps}\n{fits}\n{}",
        bay.name,
        why.ppfd.rule,
        why.dli.rule,
        hang.outlook,
        n(air.day_c),
        n(air.humidity),
        n(air.far_end_m_s),
        roots(&bay),
    ));
}

/// The root zones of a bay.
fn roots(bay: &BayOnDay) -> Table {
    let mut roots = Table::new(&[
        "tray",
        "mat",
        "mean",
        "least",
        "most",
        "duty",
        "evaporates",
        "lasts",
        "sowing",
        "first",
        "half",
        "last",
        "share",
    ]);
    for tray in bay.roots() {
        for sown in &tray.sown {
            roots.row(&[
                &tray.label,
                &tray.mat.as_deref().unwrap_or("-"),
                &n(tray.day.mean_c),
                &n(tray.day.least_c),
                &n(tray.day.most_c),
                &n(tray.day.duty),
                &n(tray.day.evaporation_kg_m2_d),
                &opt(tray.water.lasts_days),
                &sown.sowing,
                &opt(sown.outcome.first_days),
                &opt(sown.outcome.half_days),
                &opt(sown.outcome.last_days),
                &n(sown.outcome.share),
            ]);
        }
    }
    roots
}

#[test]
fn one_chamber() {
    let assessment = on(date(2027, 3, 20));
    let bay = bay(&assessment, "cabinet", "t3");
    let air = bay.detail.as_ref().unwrap().chamber.as_ref().unwrap();
    let mut shelves = Table::new(&["shelf at", "mean", "least", "most", "suits"]);
    for (shelf, suits) in air.day.shelves.iter().zip(&air.suits) {
        shelves.row(&[
            &n(shelf.at_mm),
            &n(shelf.mean_c),
            &n(shelf.least_c),
            &n(shelf.most_c),
            &suits.join(", "),
        ]);
    }
    let day = &air.day;
    let mut text = format!(
        "walls {} W/K, vents {} m3/h, heat on {}, {} kWh, {} a day\n\n{shelves}\n",
        n(day.walls_w_k),
        n(day.vents_m3_h),
        n(day.duty),
        n(day.kwh_per_day),
        n(day.cost_per_day)
    );
    for tier in ["t1", "t2", "t3", "t4", "t5"] {
        let bay = self::bay(&assessment, "cabinet", tier);
        write!(text, "{}\n{}\n", bay.name, roots(&bay)).unwrap();
    }
    insta::assert_snapshot!(text);
}

#[test]
fn the_findings() {
    let mut text = String::new();
    for day in [date(2027, 3, 20), date(2027, 4, 9), date(2027, 5, 5)] {
        writeln!(text, "{day}").unwrap();
        for finding in on(day).findings {
            writeln!(
                text,
                "  {:?} {}\n    {}\n    {}",
                finding.severity, finding.id, finding.headline, finding.reason
            )
            .unwrap();
            for fix in &finding.fixes {
                writeln!(text, "    [{}] {}", fix.label, fix.word).unwrap();
            }
        }
    }
    insta::assert_snapshot!(text);
}
