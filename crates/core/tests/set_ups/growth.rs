//! How seedlings grow: their cells, their neighbours, the air, and what they are raised from.

use super::SetUp;
use super::corner::Corner;
use sunrise_core::plan::{Part, Sowing, Tray};

const TRAY: &str = "cells-72";
/// Small cells in many rows.
const FINE: &str = "cells-200";
const ROWS: [f64; 4] = [90.0, 230.0, 380.0, 520.0];

/// A lined tier under four shop lights, in air so warm by day and by night.
fn lit(day_c: f64, night_c: f64) -> Corner {
    Corner::new()
        .air(day_c, night_c, 0.5)
        .place("wire-rack", |_| ())
        .tier("t2", |tier| tier.liner = true)
        .lamps("t2", "shop-led-36", &ROWS, 300.0, 14.0)
}

fn one(corner: Corner, crop: &str, format: &str, days: i32) -> Corner {
    corner.tray("t2", crop, format, [320.0, 35.0], days)
}

/// Half a tray of tall tomatoes, and half of a dwarf.
fn with_a_dwarf(sowing: &mut Sowing, tray: &mut Tray) {
    sowing.wanted = 20;
    sowing.differs.height_out_mm = Some(80.0);
    let part = |id: &str, rows| Part {
        sowing: id.into(),
        columns: None,
        rows: Some(rows),
    };
    tray.parts = vec![part("s1", [0, 3]), part(&sowing.id, [3, 6])];
}

pub fn set_ups() -> Vec<SetUp> {
    let all: [(&str, Corner, &[&str], &[&str]); 16] = [
        (
            "tomatoes left in the cells they were sown in",
            one(lit(20.0, 16.0), "tomato", TRAY, 20),
            &["cell_too_small"],
            &["falls_behind", "better_sown_outdoors"],
        ),
        (
            "lettuce in cells of 40 ml",
            one(lit(20.0, 16.0), "lettuce", TRAY, 20),
            &[],
            &["cell_too_small", "falls_behind", "stretches_in_a_crowd"],
        ),
        (
            "cabbages in 200 cells",
            one(lit(20.0, 16.0), "cabbage", FINE, 24),
            &["cell_too_small"],
            &["falls_behind"],
        ),
        (
            "tomatoes in 200 cells for four weeks, under good lamps",
            one(lit(20.0, 16.0), "tomato", FINE, 30),
            &["cell_too_small"],
            &["falls_behind"],
        ),
        (
            "tomatoes for four weeks in a shed of 13 °C by day and 9 by night",
            one(lit(13.0, 9.0), "tomato", "pots-18", 40).tier("t2", |tier| {
                let lamps = tier.lamps.iter_mut();
                lamps.for_each(|lamp| lamp.height_mm = 280.0);
            }),
            &["falls_behind"],
            &["warm_and_dim", "too_cold_for_seedlings"],
        ),
        (
            "tomatoes of the same age in a lived-in room",
            one(lit(20.0, 16.0), "tomato", "pots-18", 20),
            &[],
            &["falls_behind", "warm_and_dim"],
        ),
        (
            "a dwarf tomato and a tall one in one tray",
            one(lit(20.0, 16.0), "tomato", TRAY, 18).tray_changed(
                "t2",
                "tomato",
                TRAY,
                [620.0, 35.0],
                18,
                with_a_dwarf,
            ),
            &["mixed_tray_misfit"],
            &["too_many_hours"],
        ),
        (
            "Chinese cabbage up in a shed of 12 °C by day and 8 by night",
            one(lit(12.0, 8.0), "chinese-cabbage", TRAY, 25),
            &["bolts_from_cold"],
            &["too_cold_for_seedlings", "warm_and_dim"],
        ),
        (
            "Chinese cabbage in a lived-in room",
            one(lit(20.0, 16.0), "chinese-cabbage", TRAY, 12),
            &[],
            &["bolts_from_cold", "falls_behind"],
        ),
        (
            "cabbage up in the shed of 12 °C",
            one(lit(12.0, 8.0), "cabbage", TRAY, 25),
            &[],
            &["bolts_from_cold", "too_cold_for_seedlings", "warm_and_dim"],
        ),
        (
            "fresh melon seed in a room of 18 °C by day and 15 by night",
            one(lit(18.0, 15.0), "melon", "pots-18", 2),
            &["nothing_comes_up"],
            &["too_few_seeds", "too_few_cells"],
        ),
        (
            "melon seed on a mat in that room",
            lit(18.0, 15.0).mats("t2", "mat-large", 1, Some(27.0)).tray(
                "t2",
                "melon",
                "pots-18",
                [20.0, 25.0],
                2,
            ),
            &[],
            &["nothing_comes_up", "too_few_cells"],
        ),
        (
            "woody cuttings in a room of 18 °C by day and 16 by night",
            one(lit(18.0, 16.0), "cuttings-of-woody-herbs", TRAY, 5),
            &["nothing_comes_up"],
            &["too_few_seeds", "germinates_in_the_dark"],
        ),
        (
            "woody cuttings in a room of 25 °C by day and 22 by night",
            one(lit(25.0, 22.0), "cuttings-of-woody-herbs", TRAY, 5),
            &[],
            &["nothing_comes_up", "dark_after_emergence", "too_few_seeds"],
        ),
        (
            "sweet potato roots put up for slips",
            one(lit(27.0, 25.0), "sweet-potato-slips", "pots-18", 5),
            &["slips_want_fresh_water"],
            &["nothing_comes_up", "too_few_seeds"],
        ),
        (
            "a tray of coleus cuttings kept in the dark",
            Corner::new()
                .air(25.0, 23.0, 0.5)
                .place("solid-rack", |_| ())
                .tray("t1", "cuttings-of-tender-perennials", TRAY, [20.0, 25.0], 3),
            &["germinates_in_the_dark"],
            &["nothing_comes_up"],
        ),
    ];
    all.into_iter().map(SetUp::of).collect()
}
