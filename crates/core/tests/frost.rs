//! Frost records: Seattle against NumPy (`reference/frost.py`), and files that nobody should swallow.

use jiff::civil::date;
use serde_json::Value;
use sunrise_core::basis::dates::{days_between, plus_days};
use sunrise_core::plan::Plan;
use sunrise_core::site::frost::{Caution, quantile};
use sunrise_core::site::minima::{DegreeUnit, Preview, Understanding, read};
use sunrise_core::site::outdoors::Outdoors;

fn seattle(threshold_c: f64) -> Preview {
    let how = Understanding {
        threshold_c,
        latitude_deg: 47.6,
        ..Understanding::default()
    };
    read(include_str!("reference/seattle-weather.csv"), &how).unwrap()
}

#[test]
fn months_outdoors_equal_numpys_and_our_estimate_comes_near_them() {
    let reference: Value = serde_json::from_str(include_str!("reference/frost.json")).unwrap();
    let record = seattle(0.0).record.unwrap();
    let dates = record.dates(47.6, 2027).unwrap();
    let mut site = Plan::blank("2027-01-10".parse().unwrap(), None).site;
    (site.latitude_deg, site.last_frost) = (47.6, dates.p50);
    let estimate = site.year_outdoors();
    assert!(estimate.is_estimated());
    site.frost = Some(record.clone());
    let year = site.year_outdoors();
    assert!(!year.is_estimated());
    for (i, expected) in reference["months"].as_array().unwrap().iter().enumerate() {
        let of = |name: &str| expected[name].as_f64().unwrap();
        let (least, most) = (of("temp_min"), of("temp_max"));
        let month = record.months[i];
        assert!((month.minimum_c - least).abs() < 1e-9 && (month.maximum_c - most).abs() < 1e-9);
        // The mean of the month's days on the curve through all of them.
        let first = date(2027, i as i8 + 1, 1);
        let days: Vec<_> = first
            .series(jiff::Span::new().days(1))
            .take(first.days_in_month() as usize)
            .map(|day| year.on(day))
            .collect();
        let mean = |of: fn(&Outdoors) -> f64| days.iter().map(of).sum::<f64>() / days.len() as f64;
        let off = [
            mean(|day| day.night_c) - least,
            mean(|day| day.day_c) - most,
        ];
        assert!(
            off.iter().all(|k| k.abs() < 0.7),
            "month {}: {off:?}",
            i + 1
        );
        let middle = estimate.on(date(2027, i as i8 + 1, 15));
        let off = [middle.night_c - least, middle.day_c - most];
        assert!(
            off.iter().all(|k| k.abs() < 3.0),
            "month {}: {off:?}",
            i + 1
        );
    }
}

#[test]
fn last_frosts_and_quantiles_of_seattle_equal_numpys() {
    let reference: Value = serde_json::from_str(include_str!("reference/frost.json")).unwrap();
    for threshold in [0.0, -2.0] {
        let expected = &reference[format!("{threshold:.1}")];
        let preview = seattle(threshold);
        assert_eq!((preview.days, preview.problem_rows), (1461, 0));
        assert!(preview.notes[0].to_string().contains("with care"));
        let record = preview.record.expect("four whole springs");
        let got = serde_json::to_value(&record.years).unwrap();
        for (got, expected) in got
            .as_array()
            .unwrap()
            .iter()
            .zip(expected["years"].as_array().unwrap())
        {
            for field in ["year", "last", "first"] {
                assert_eq!(
                    got.get(field).unwrap_or(&Value::Null),
                    &expected[field],
                    "{field}"
                );
            }
        }
        let since: Vec<f64> = {
            let from = |year| date(year, 1, 15);
            let mut days: Vec<f64> = record
                .years
                .iter()
                .map(|y| {
                    y.last
                        .map_or(0.0, |last| f64::from(days_between(from(y.year), last)))
                })
                .collect();
            days.sort_by(f64::total_cmp);
            days
        };
        for (share, expected) in expected["quantiles"].as_object().unwrap() {
            let share: f64 = share.parse().unwrap();
            let expected = expected.as_f64().unwrap();
            assert!((quantile(&since, share) - expected).abs() < 1e-9);
        }
        let dates = record.dates(47.6, 2027).unwrap();
        let median = expected["quantiles"]["0.5"].as_f64().unwrap();
        assert_eq!(
            dates.p50,
            plus_days(date(2027, 1, 15), median.round() as i32)
        );
        assert_eq!(dates.years, 4);
        // 10, 21, 12 and 23 November: half way between the middle two.
        if threshold == 0.0 {
            assert_eq!(dates.first, Some(date(2027, 11, 17)));
        }
    }
}

fn csv(text: &str) -> Preview {
    read(text, &Understanding::default()).unwrap()
}

/// A whole year with a frost on 3 May, written by `row`.
fn year(heading: &str, row: impl Fn(jiff::civil::Date, f64) -> String) -> String {
    let mut text = heading.to_owned();
    for day in 0..365 {
        let date = plus_days(date(2020, 1, 1), day);
        let frosty = date <= jiff::civil::date(2020, 5, 3);
        text += &row(date, if frosty { -0.5 } else { 6.5 });
    }
    text
}

fn last(preview: &Preview) -> Option<jiff::civil::Date> {
    preview.record.as_ref()?.years[0].last
}

#[test]
fn the_same_year_reads_the_same_however_it_is_written() {
    let frost = Some(date(2020, 5, 3));
    let plain = year("date,min\n", |d, c| format!("{d},{c}\n"));
    assert_eq!(last(&csv(&plain)), frost);
    let marked = format!("\u{feff}{}", plain.replace('\n', "\r\n"));
    assert_eq!(last(&csv(&marked)), frost);
    let german = year("Datum;Minimum\n", |d, c| {
        format!(
            "{}.{}.{};{}\n",
            d.day(),
            d.month(),
            d.year(),
            format!("{c}").replace('.', ",")
        )
    });
    assert_eq!(last(&csv(&german)), frost);
    let tabs = year("", |d, c| {
        format!("{}\t{c}\n", d.to_string().replace('-', "/"))
    });
    assert_eq!(last(&csv(&tabs)), frost);
    let fahrenheit = year("date,min\n", |d, c| format!("{d},{}\n", c * 1.8 + 32.0));
    let how = Understanding {
        unit: DegreeUnit::F,
        ..Understanding::default()
    };
    assert_eq!(last(&read(&fahrenheit, &how).unwrap()), frost);
}

#[test]
fn an_epw_file_gives_each_days_least_hour() {
    let mut text = String::from("LOCATION,Kettle Fen,-,-,invented,0,52.9,0.1,0,10\n");
    text += &"heading\n".repeat(7);
    for day in 0..365 {
        let date = plus_days(date(2021, 1, 1), day);
        for hour in 1..=24 {
            let cold = date == jiff::civil::date(2021, 4, 28) && hour == 5;
            let c = if cold { -1.0 } else { 8.0 };
            text += &format!(
                "{},{},{},{hour},60,flags,{c},5,80\n",
                date.year(),
                date.month(),
                date.day()
            );
        }
    }
    let preview = csv(&text);
    assert_eq!(last(&preview), Some(date(2021, 4, 28)));
    assert_eq!(preview.days, 365);
}

#[test]
fn bad_rows_are_numbered_and_nothing_is_taken() {
    let good = year("date,min\n", |d, c| format!("{d},{c}\n"));
    for (bad, row, says) in [
        ("2020-13-01,3\n", 367, "no day"),
        ("0000-02-01,3\n", 367, "no day"),
        ("2021-01-01,40\n", 367, "never measured"),
        ("2021-01-01,warm\n", 367, "no temperature"),
        ("2021-01-01\n", 367, "too few"),
        ("2020-03-01,1\n", 367, "twice"),
        ("01/02/2021,1\n", 367, "no day"),
    ] {
        let preview = csv(&format!("{good}{bad}"));
        assert_eq!(preview.problem_rows, 1, "{bad}");
        assert_eq!(preview.problems[0].row, row, "{bad}");
        let said = preview.problems[0].problem.to_string();
        assert!(said.contains(says), "{bad}: {said}");
        assert_eq!((preview.record, preview.dates), (None, None), "{bad}");
    }
}

#[test]
fn what_is_no_table_of_days_is_refused_in_one_line() {
    for (text, says) in [
        ("", "empty"),
        ("hello\nworld\n", "nothing parts"),
        ("date,rain\n2020-01-01,3\n", "no column is headed minimum"),
        ("day|min\n2020-01-01|3\n", "nothing parts"),
        ("\u{0}\u{1}\u{2}", "nothing parts"),
    ] {
        let preview = csv(text);
        let said = preview.problems[0].problem.to_string();
        assert!(said.contains(says), "{text:?}: {said}");
        assert!(preview.record.is_none());
    }
}

#[test]
fn a_spring_that_lacks_days_is_left_out_and_said() {
    let gap = year("date,min\n", |d, c| {
        if d.month() == 4 {
            String::new()
        } else {
            format!("{d},{c}\n")
        }
    });
    let preview = csv(&gap);
    assert_eq!((preview.problem_rows, preview.record.is_none()), (0, true));
    assert!(preview.notes[0].to_string().contains("2020"));
}

#[test]
fn two_hundred_megabytes_end_with_a_short_list_of_problems() {
    for row in ["2020-01-01,3\n", "x,", "\u{fffd}"] {
        let text = row.repeat(200_000_000 / row.len());
        let preview = read(&text, &Understanding::default()).unwrap();
        assert!(preview.record.is_none());
        assert!((1..=100).contains(&preview.problems.len()));
    }
}

#[test]
fn caution_chooses_among_the_years() {
    let record = seattle(0.0).record.unwrap();
    let chosen = |caution| {
        let record = sunrise_core::site::frost::FrostRecord {
            caution,
            ..record.clone()
        };
        record.dates(47.6, 2027).unwrap().chosen
    };
    assert!(chosen(Caution::Bold) <= chosen(Caution::Even));
    assert!(chosen(Caution::Even) <= chosen(Caution::Careful));
}

/// An EPW file whose months are of the years that `year_of` says, and whose nights are at 1 °C but for
/// those named, which are at -1 °C.
fn epw(source: &str, year_of: impl Fn(i8) -> i16, frosts: &[(i8, i8)]) -> String {
    let mut text = format!("LOCATION,Kettle Fen,,,{source},000000,52.9,0.1,0.0,4.0\n");
    text += &"heading\n".repeat(7);
    for day in date(2001, 1, 1).series(jiff::Span::new().days(1)).take(365) {
        let night = if frosts.contains(&(day.month(), day.day())) {
            -1.0
        } else {
            1.0
        };
        for hour in 1..=24 {
            let c = if hour < 7 { night } else { 8.0 };
            let (year, month, day) = (year_of(day.month()), day.month(), day.day());
            let sun = if (6..20).contains(&hour) { 300 } else { 0 };
            text += &format!(
                "{year},{month},{day},{hour},60,?9?9,{c:.1},5.0,80,101000,0,0,330,{sun}\n"
            );
        }
    }
    text
}

const FROSTS: [(i8, i8); 4] = [(2, 3), (4, 24), (10, 24), (12, 1)];

#[test]
fn a_typical_year_put_together_from_many_is_read_as_one() {
    let years = |month: i8| [2011, 2005, 2019, 2008][usize::from(month.unsigned_abs()) % 4];
    let preview = csv(&epw("SRC", years, &FROSTS));
    assert_eq!((preview.days, preview.problem_rows), (365, 0));
    let dates = preview.dates.expect("one typical spring");
    assert_eq!(dates.p50, date(2027, 4, 24));
    assert_eq!(dates.first, Some(date(2027, 10, 24)));
    assert!(dates.p10 < dates.p50 && dates.p50 < dates.p90);
    let record = preview.record.unwrap();
    assert_eq!(record.typical.unwrap().spread_days, 10.0);
    assert_eq!(record.months.len(), 12);
    assert!((record.months[4].minimum_c - 1.0).abs() < 1e-9);
    assert!((record.months[4].maximum_c - 8.0).abs() < 1e-9);
    assert!((record.months[4].humidity.unwrap() - 0.8).abs() < 1e-9);
    // Fourteen hours of 300 Wh.
    assert!((record.months[4].sun_kwh_m2.unwrap() - 4.2).abs() < 1e-9);
    let said: String = preview.notes.iter().map(ToString::to_string).collect();
    assert!(
        said.contains("typical year") && !said.contains("Left out"),
        "{said}"
    );
}

#[test]
fn a_typical_year_rewritten_to_one_year_is_told_by_its_source() {
    let typical = csv(&epw("TMYx.2007-2021", |_| 2005, &FROSTS))
        .record
        .unwrap();
    assert!(typical.typical.is_some());
    let measured = csv(&epw("station", |_| 2005, &FROSTS)).record.unwrap();
    assert!(measured.typical.is_none());
    // A year of measurements that begins in summer joins up in time.
    let joined = csv(&epw(
        "station",
        |month| if month < 7 { 2006 } else { 2005 },
        &FROSTS,
    ));
    assert!(joined.record.is_none_or(|record| record.typical.is_none()));
}

#[test]
fn south_of_the_equator_a_typical_year_runs_from_july() {
    let years = |month: i8| 2000 + i16::from(month * 7 % 12);
    let file = epw("IWEC", years, &[(6, 20), (9, 12), (5, 3)]).replace(",52.9,", ",-38.0,");
    let dates = csv(&file).dates.unwrap();
    assert_eq!(dates.p50, date(2027, 9, 12));
    // 2028 has a 29 February more, and days are counted from midwinter.
    assert_eq!(dates.first, Some(date(2028, 5, 2)));
}

#[test]
fn years_beyond_the_calendar_are_refused_where_they_stand() {
    for year in [i16::MAX, i16::MIN, 9999, -9999] {
        let how = Understanding {
            year,
            ..Understanding::default()
        };
        let faults = read("date,min\n2012-04-01,1\n", &how).unwrap_err();
        assert_eq!(faults[0].path, "/year");
        let preview = csv(&epw("SRC", |_| year, &FROSTS));
        assert!(preview.record.is_none() && preview.problem_rows > 0);
    }
}
