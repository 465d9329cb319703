//! Lamps, windows and hours.

use super::SetUp;
use super::corner::Corner;
use sunrise_core::room::{Adjust, Chain, Tier};

const RACK: &str = "wire-rack";
/// Left edges of four trays that stand side by side.
const X: [f64; 4] = [30.0, 320.0, 610.0, 900.0];
const TRAY: &str = "cells-72";

/// A tier of a wire rack with two, three or four shop lights over four trays of a crop, up for about
/// a week.
fn shop_lights(rows: &[f64], height_mm: f64, hours: f64, crop: &str) -> Corner {
    let mut corner = Corner::new()
        .place(RACK, |_| ())
        .tier("t2", |tier| tier.liner = true)
        .lamps("t2", "shop-led-36", rows, height_mm, hours);
    for x in X {
        corner = corner.tray("t2", crop, TRAY, [x, 35.0], 14);
    }
    corner
}

fn flux(lm: f64) -> impl FnOnce(&mut Tier) {
    move |tier| tier.lamps.iter_mut().for_each(|lamp| lamp.flux_lm = lm)
}

const ROWS_2: [f64; 2] = [180.0, 430.0];
const ROWS_4: [f64; 4] = [90.0, 230.0, 380.0, 520.0];

pub fn set_ups() -> Vec<SetUp> {
    let all: [(&str, Corner, &[&str], &[&str]); 26] = [
        (
            "one 4,300 lm lamp over four trays of tomatoes",
            shop_lights(&[305.0], 160.0, 16.0, "tomato"),
            &["too_little_light"],
            &["too_many_hours", "light_wasted", "leaves_bleach"],
        ),
        (
            "two 5,000 lm lamps near, over tomatoes, 16 h",
            shop_lights(&ROWS_2, 160.0, 16.0, "tomato").tier("t2", flux(5000.0)),
            &[],
            &[
                "too_many_hours",
                "light_wasted",
                "leaves_bleach",
                "leaves_too_near",
            ],
        ),
        (
            "two 5,600 lm lamps over lettuce, 17 cm up, 15 h",
            shop_lights(&ROWS_2, 170.0, 15.0, "lettuce").tier("t2", flux(5600.0)),
            &[],
            &[
                "too_little_light",
                "too_many_hours",
                "light_wasted",
                "leaves_bleach",
            ],
        ),
        (
            "two shop lights at the top of the tier, over lettuce",
            shop_lights(&ROWS_2, 305.0, 14.0, "lettuce"),
            &[],
            &["too_little_light", "light_wasted", "too_many_hours"],
        ),
        (
            "four shop lights, right over lettuce, 14 h",
            shop_lights(&ROWS_4, 160.0, 14.0, "lettuce"),
            &[],
            &["too_little_light", "seedlings_stretch", "leaves_bleach"],
        ),
        (
            "four 45 W lamps at 12 cm over tomatoes, 16 h",
            Corner::new()
                .place(RACK, |_| ())
                .tier("t2", |tier| tier.liner = true)
                .lamps("t2", "shop-led-45", &ROWS_4, 150.0, 16.0)
                .tray("t2", "tomato", TRAY, [X[1], 35.0], 20)
                .tray("t2", "tomato", TRAY, [X[2], 35.0], 20),
            &[],
            &["too_little_light", "seedlings_stretch"],
        ),
        (
            "well-lit lettuce in the middle of four lamps",
            Corner::new()
                .place(RACK, |_| ())
                .tier("t2", |tier| tier.liner = true)
                .lamps("t2", "shop-led-36", &ROWS_4, 240.0, 14.0)
                .tray("t2", "lettuce", TRAY, [X[1], 35.0], 18)
                .tray("t2", "lettuce", TRAY, [X[2], 35.0], 18),
            &[],
            &["anything"],
        ),
        (
            "tomatoes under four lamps for 24 h",
            shop_lights(&ROWS_4, 180.0, 24.0, "tomato"),
            &["too_many_hours"],
            &["too_little_light"],
        ),
        (
            "tomatoes under four lamps for 20 h",
            shop_lights(&ROWS_4, 180.0, 20.0, "tomato"),
            &["too_many_hours"],
            &["too_little_light"],
        ),
        (
            "onions under four lamps for 17 h",
            shop_lights(&ROWS_4, 200.0, 17.0, "onion"),
            &["too_many_hours"],
            &["leaves_bleach"],
        ),
        (
            "a 200 W panel 75 cm over a table of tomatoes",
            panel(750.0, 16.0),
            &[],
            &["leaves_bleach", "leaves_too_near", "too_many_hours"],
        ),
        (
            "a 200 W panel 20 cm over tomatoes",
            panel(280.0, 16.0),
            &["leaves_too_near"],
            &["too_little_light"],
        ),
        (
            "a 500 W panel 40 cm over young lettuce, 18 h",
            Corner::new()
                .place("bench", |bench| bench.height_mm = 1900.0)
                .lamps("t1", "panel-led-500", &[300.0], 560.0, 18.0)
                .tray("t1", "lettuce", TRAY, [350.0, 30.0], 8),
            &["hang_lamps"],
            &["too_little_light", "seedlings_stretch"],
        ),
        (
            "two bare tubes at 30 cm over peppers",
            Corner::new()
                .place(RACK, |_| ())
                .tier("t2", |tier| tier.liner = true)
                .lamps("t2", "tube-bare-36", &[250.0, 360.0], 285.0, 14.0)
                .tray("t2", "pepper", TRAY, [X[1], 35.0], 25)
                .tray("t2", "pepper", TRAY, [X[2], 35.0], 25),
            &["too_little_light"],
            &["leaves_bleach", "light_wasted"],
        ),
        (
            "three bars in a foil-lined shelf over basil",
            Corner::new()
                .place(RACK, |_| ())
                .tier("t2", |tier| {
                    tier.liner = true;
                    let foil = sunrise_core::room::Side::Foil;
                    (tier.sides.left, tier.sides.right, tier.sides.back) = (foil, foil, foil);
                })
                .lamps("t2", "bar-led-14", &[120.0, 305.0, 490.0], 220.0, 16.0)
                .tray("t2", "basil", TRAY, [X[1], 35.0], 20)
                .tray("t2", "basil", TRAY, [X[2], 35.0], 20),
            &[],
            &["leaves_bleach", "light_wasted", "too_many_hours"],
        ),
        (
            "a clear south sill in April, tomatoes",
            sill(15.0, "tomato"),
            &[],
            &["hang_lamps", "too_many_hours"],
        ),
        (
            "a dim north sill in February, tomatoes",
            february_sill(),
            &["window_too_dark"],
            &["hang_lamps", "too_little_light", "seedlings_stretch"],
        ),
        (
            "a dim sill with one weak lamp over the tray",
            february_sill().lamps("t1", "bar-led-10", &[100.0], 250.0, 14.0),
            &["too_little_light"],
            &["window_too_dark"],
        ),
        (
            "seedlings on a shelf of a solid rack without a lamp",
            Corner::new().place("solid-rack", |_| ()).tray(
                "t2",
                "lettuce",
                TRAY,
                [100.0, 20.0],
                20,
            ),
            &["storage_shades"],
            &["too_little_light"],
        ),
        (
            "lettuce up for a week, lamps never on because the shelf has none",
            Corner::new()
                .place(RACK, |_| ())
                .tier("t1", |tier| tier.liner = true)
                .tray("t1", "lettuce", TRAY, [X[1], 35.0], 14),
            &["dark_after_emergence"],
            &["too_many_hours"],
        ),
        (
            "tall tomatoes among small lettuce under the same two lamps",
            Corner::new()
                .place(RACK, |_| ())
                .tier("t2", |tier| tier.liner = true)
                .lamps("t2", "shop-led-36", &ROWS_2, 305.0, 16.0)
                .tray("t2", "lettuce", TRAY, [X[0], 35.0], 14)
                .tray("t2", "lettuce", TRAY, [X[1], 35.0], 14)
                .tray("t2", "tomato", TRAY, [X[3], 35.0], 50),
            &[],
            &["light_wasted", "too_many_hours"],
        ),
        (
            "two like trays at both ends of two lamps",
            Corner::new()
                .place(RACK, |_| ())
                .tier("t2", |tier| tier.liner = true)
                .lamps("t2", "shop-led-36", &ROWS_2, 200.0, 16.0)
                .tray("t2", "cabbage", TRAY, [X[0], 35.0], 20)
                .tray("t2", "cabbage", TRAY, [X[3], 35.0], 20),
            &[],
            &["tray_elsewhere"],
        ),
        (
            "lamps on chains, three links too high over cabbage",
            shop_lights(&ROWS_2, 300.0, 16.0, "cabbage").tier("t2", |tier| {
                tier.adjust = Some(Adjust::Chain(Chain { link_mm: 25.0 }));
            }),
            &[],
            &["light_wasted", "too_many_hours"],
        ),
        (
            "three 2,200 lm bars in a foil box over lettuce",
            Corner::new()
                .place("foil-box", |place| place.width_mm = 1200.0)
                .lamps("t1", "bar-led-14", &[90.0, 300.0, 510.0], 230.0, 16.0)
                .tier("t1", flux(2200.0))
                .tray("t1", "lettuce", TRAY, [150.0, 20.0], 18)
                .tray("t1", "lettuce", TRAY, [450.0, 20.0], 18)
                .tray("t1", "lettuce", TRAY, [750.0, 20.0], 18),
            &[],
            &[
                "leaves_bleach",
                "too_little_light",
                "seedlings_stretch",
                "closed_air_too_hot",
                "mat_in_a_sealed_box",
                "tray_elsewhere",
            ],
        ),
        (
            "leeks in 200 cells under two lamps",
            Corner::new()
                .place(RACK, |_| ())
                .tier("t2", |tier| tier.liner = true)
                .lamps("t2", "shop-led-36", &ROWS_2, 180.0, 16.0)
                .tray("t2", "leek", "cells-200", [X[1], 35.0], 25)
                .tray("t2", "leek", "cells-200", [X[2], 35.0], 25),
            &[],
            &[
                "stays_too_wet",
                "too_little_light",
                "tray_elsewhere",
                "leaves_bleach",
            ],
        ),
        (
            "lamps that touch the leaves of tall peppers",
            Corner::new()
                .place(RACK, |_| ())
                .tier("t2", |tier| tier.liner = true)
                .lamps("t2", "shop-led-36", &ROWS_4, 120.0, 16.0)
                .tray("t2", "pepper", TRAY, [X[1], 35.0], 50),
            &["leaves_too_near"],
            &["too_little_light", "hang_lamps"],
        ),
    ];
    all.into_iter().map(SetUp::of).collect()
}

fn panel(height_mm: f64, hours: f64) -> Corner {
    Corner::new()
        .place("bench", |bench| bench.height_mm = 1900.0)
        .lamps("t1", "panel-led-200", &[300.0], height_mm, hours)
        .tray("t1", "tomato", TRAY, [250.0, 30.0], 25)
        .tray("t1", "tomato", TRAY, [540.0, 30.0], 25)
}

fn sill(obstruction_deg: f64, crop: &str) -> Corner {
    sill_facing(180.0, obstruction_deg, crop, super::corner::DAY)
}

fn february_sill() -> Corner {
    sill_facing(0.0, 35.0, "tomato", jiff::civil::date(2027, 2, 20))
}

fn sill_facing(
    azimuth_deg: f64,
    obstruction_deg: f64,
    crop: &str,
    day: jiff::civil::Date,
) -> Corner {
    Corner::new()
        .on(day)
        .place("window-sill", |place| {
            place.depth_mm = 300.0;
            let sunrise_core::room::place::Kind::Window(window) = &mut place.kind else {
                panic!("a window");
            };
            window.azimuth_deg = azimuth_deg;
            window.obstruction_deg = obstruction_deg;
        })
        .tray("t1", crop, "half-tray", [300.0, 10.0], 25)
}
