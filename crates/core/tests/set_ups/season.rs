//! Days to sow and to plant out.

use super::SetUp;
use super::corner::Corner;
use jiff::civil::date;

const TRAY: &str = "cells-72";

/// Cabbage or tomatoes in a tray on a lit shelf, their sowing changed at will.
fn one(crop: &str, change: impl FnOnce(&mut sunrise_core::plan::Sowing)) -> Corner {
    Corner::new()
        .place("wire-rack", |_| ())
        .tier("t1", |tier| tier.liner = true)
        .lamps(
            "t1",
            "shop-led-36",
            &[90.0, 230.0, 380.0, 520.0],
            240.0,
            14.0,
        )
        .tray_changed("t1", crop, TRAY, [320.0, 35.0], 10, |sowing, _| {
            (sowing.sow_on, sowing.sown) = (None, false);
            change(sowing);
        })
}

pub fn set_ups() -> Vec<SetUp> {
    let all: [(&str, Corner, &[&str], &[&str]); 8] = [
        (
            "cabbage sown when it usually is",
            one("cabbage", |_| ()),
            &[],
            &[
                "sown_too_early",
                "sown_too_late",
                "out_too_early",
                "season_too_short",
            ],
        ),
        (
            "cabbage planted out a month early in the open",
            one("cabbage", |sowing| sowing.shift_days = -28),
            &["out_too_early"],
            &["sown_too_early"],
        ),
        (
            "the same under a cover until its time",
            one("cabbage", |sowing| {
                sowing.shift_days = -28;
                sowing.covered_until = Some(date(2027, 4, 15));
            }),
            &[],
            &["out_too_early", "sown_too_early"],
        ),
        (
            "tomatoes sown in January for planting out at the end of May",
            one("tomato", |sowing| sowing.sow_on = Some(date(2027, 1, 20))),
            &["sown_too_early"],
            &["frost_after_planting_out"],
        ),
        (
            "tomatoes planted out before the last frost",
            one("tomato", |sowing| sowing.out_on = Some(date(2027, 5, 1))),
            &["frost_after_planting_out"],
            &[],
        ),
        (
            "the same under a cover until mid-May",
            one("tomato", |sowing| {
                sowing.out_on = Some(date(2027, 5, 1));
                sowing.covered_until = Some(date(2027, 5, 20));
            }),
            &[],
            &["frost_after_planting_out"],
        ),
        (
            "tomatoes in an ordinary warm room",
            one("tomato", |_| ()).air(22.0, 19.0, 0.5),
            &[],
            &["sown_too_early", "sown_too_late", "season_too_short"],
        ),
        (
            "lettuce sown late, on a day of the gardener's own",
            one("lettuce", |sowing| sowing.sow_on = Some(date(2027, 4, 25))),
            &[],
            &["sown_too_late", "sown_too_early", "out_too_early"],
        ),
    ];
    all.into_iter().map(SetUp::of).collect()
}
