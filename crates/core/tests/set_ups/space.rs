//! Loads, reach, water and the outdoors.

use super::SetUp;
use super::corner::Corner;
use jiff::civil::date;
use sunrise_core::room::{Faces, Spot};

const TRAY: &str = "cells-72";

pub fn set_ups() -> Vec<SetUp> {
    let all: [(&str, Corner, &[&str], &[&str]); 11] = [
        (
            "a dozen trays on the free floor",
            {
                let mut corner = Corner::new().place("floor", |floor| {
                    floor.width_mm = 3600.0;
                    floor.deck.rating_kg = Some(5.0);
                });
                for n in 0..12 {
                    corner = corner.tray("t1", "cabbage", TRAY, [290.0 * f64::from(n), 10.0], 2);
                }
                corner
            },
            &[],
            &["deck_over_rating", "rack_over_rating"],
        ),
        (
            "a bench 1.2 m deep that one walks round",
            Corner::new().place("bench", |bench| {
                bench.depth_mm = 1200.0;
                bench.spot = Some(Spot {
                    x_mm: 1200.0,
                    y_mm: 900.0,
                    faces: Faces::Near,
                });
            }),
            &[],
            &["out_of_reach"],
        ),
        (
            "the same bench against the wall",
            Corner::new().place("bench", |bench| {
                bench.depth_mm = 1200.0;
                bench.spot = Some(Spot {
                    x_mm: 1200.0,
                    y_mm: 1800.0,
                    faces: Faces::Near,
                });
            }),
            &["out_of_reach"],
            &[],
        ),
        (
            "pots with holes on a heat mat",
            Corner::new()
                .place("wire-rack", |_| ())
                .mats("t1", "mat-small", 1, Some(24.0))
                .tray_changed("t1", "tomato", "pots-18", [30.0, 20.0], 2, |_, _| ())
                .plan(|plan| plan.tray_formats[0].holds_water = false),
            &["drips_on_mains"],
            &[],
        ),
        (
            "solid trays on the same mat",
            Corner::new()
                .place("wire-rack", |_| ())
                .mats("t1", "mat-small", 1, Some(24.0))
                .tray("t1", "tomato", TRAY, [30.0, 20.0], 2),
            &[],
            &["drips_on_mains", "drowns_in_the_rain"],
        ),
        (
            "solid trays on the terrace in the rain",
            Corner::new()
                .place("terrace", |_| ())
                .tray("t1", "cabbage", TRAY, [20.0, 20.0], 30)
                .come_up_in_the_warm(),
            &["drowns_in_the_rain"],
            &["frost_over_the_frame"],
        ),
        (
            "tomatoes in a cold frame in April",
            Corner::new()
                .place("cold-frame", |_| ())
                .tray("t1", "tomato", TRAY, [20.0, 20.0], 40)
                .come_up_in_the_warm(),
            &["frost_over_the_frame"],
            &["drowns_in_the_rain", "too_cold_for_seedlings"],
        ),
        (
            "cabbages in the same frame",
            Corner::new()
                .place("cold-frame", |_| ())
                .tray("t1", "cabbage", TRAY, [20.0, 20.0], 30)
                .come_up_in_the_warm(),
            &[],
            &["frost_over_the_frame", "drowns_in_the_rain"],
        ),
        (
            "tomatoes in the frame in June",
            Corner::new()
                .on(date(2027, 6, 10))
                .place("cold-frame", |_| ())
                .tray("t1", "tomato", TRAY, [20.0, 20.0], 40)
                .come_up_in_the_warm(),
            &[],
            &["frost_over_the_frame"],
        ),
        (
            "tomatoes sown in a cold frame in April",
            Corner::new()
                .on(date(2027, 4, 10))
                .place("cold-frame", |_| ())
                .tray("t1", "tomato", TRAY, [20.0, 20.0], 2),
            &["nothing_comes_up"],
            &["dark_after_emergence"],
        ),
        (
            "lettuce sown in the same frame",
            Corner::new()
                .on(date(2027, 4, 10))
                .place("cold-frame", |_| ())
                .tray("t1", "lettuce", TRAY, [20.0, 20.0], 2),
            &[],
            &[
                "nothing_comes_up",
                "dries_while_germinating",
                "too_cold_for_seedlings",
            ],
        ),
    ];
    all.into_iter().map(SetUp::of).collect()
}
