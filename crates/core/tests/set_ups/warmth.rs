//! Mats, boxes, chambers and rooms.

use super::SetUp;
use super::corner::Corner;
use sunrise_core::room::{MatProbe, Side, Tier};

const RACK: &str = "wire-rack";
const TRAY: &str = "cells-72";

fn rack() -> Corner {
    Corner::new()
        .place(RACK, |_| ())
        .tier("t1", |tier| tier.liner = true)
}

fn in_film(tier: &mut Tier) {
    let film = Side::Foil;
    (tier.sides.left, tier.sides.right) = (film, film);
    (tier.sides.front, tier.sides.back) = (film, film);
}

fn lit(corner: Corner) -> Corner {
    corner.lamps(
        "t1",
        "shop-led-36",
        &[90.0, 230.0, 380.0, 520.0],
        200.0,
        14.0,
    )
}

pub fn set_ups() -> Vec<SetUp> {
    let all: [(&str, Corner, &[&str], &[&str]); 16] = [
        (
            "peppers on a mat with a thermostat at 26 °C, dome on",
            rack().mats("t1", "mat-middle", 1, Some(26.0)).tray(
                "t1",
                "pepper",
                TRAY,
                [30.0, 20.0],
                2,
            ),
            &[],
            &[
                "nothing_comes_up",
                "mat_cannot_reach",
                "root_zone_wrong",
                "closed_air_too_hot",
            ],
        ),
        (
            "peppers sown in a shed at 12 °C by day and 8 by night, no mat",
            Corner::new()
                .air(12.0, 8.0, 0.6)
                .place(RACK, |_| ())
                .tier("t1", |tier| tier.liner = true)
                .tray("t1", "pepper", TRAY, [30.0, 20.0], 2),
            &["nothing_comes_up"],
            &["season_too_short"],
        ),
        (
            "peppers sown on a mat in that shed",
            Corner::new()
                .air(12.0, 8.0, 0.6)
                .place(RACK, |_| ())
                .tier("t1", |tier| tier.liner = true)
                .mats("t1", "mat-small", 1, None)
                .tray("t1", "pepper", TRAY, [30.0, 20.0], 2),
            &[],
            &["season_too_short", "closed_air_too_hot"],
        ),
        (
            "two mats without a thermostat in a shelf that film closes all round",
            rack()
                .tier("t1", in_film)
                .mats("t1", "mat-middle", 2, None)
                .tray("t1", "tomato", TRAY, [30.0, 20.0], 2)
                .tray("t1", "tomato", TRAY, [620.0, 20.0], 2),
            &["mat_in_a_sealed_box"],
            &["nothing_comes_up", "season_too_short"],
        ),
        (
            "one small mat in that film, in a cool room",
            Corner::new()
                .air(15.0, 12.0, 0.5)
                .place(RACK, |_| ())
                .tier("t1", |tier| tier.liner = true)
                .tier("t1", in_film)
                .mats("t1", "mat-small", 1, None)
                .tray("t1", "tomato", TRAY, [30.0, 20.0], 2),
            &[],
            &["mat_in_a_sealed_box", "closed_air_too_hot"],
        ),
        (
            "the same film with nothing in it",
            rack().tier("t1", in_film).mats("t1", "mat-middle", 2, None),
            &[],
            &["anything"],
        ),
        (
            "a germination cabinet whose thermostat feels its air",
            Corner::new()
                .place("cabinet", |_| ())
                .mats("t1", "mat-small", 1, Some(21.0))
                .tier("t1", |tier| tier.mats[0].probe = Some(MatProbe::Air))
                .tray("t3", "cabbage", TRAY, [20.0, 20.0], 2),
            &[],
            &[
                "probe_in_the_wrong_place",
                "closed_air_too_hot",
                "nothing_comes_up",
            ],
        ),
        (
            "a mat whose thermostat hangs in the room's air",
            rack()
                .mats("t1", "mat-small", 1, Some(24.0))
                .tier("t1", |tier| tier.mats[0].probe = Some(MatProbe::Air))
                .tray("t1", "tomato", TRAY, [30.0, 20.0], 2),
            &["probe_in_the_wrong_place"],
            &[],
        ),
        (
            "celery, which germinates in light, stacked in a dark cabinet",
            Corner::new()
                .place("cabinet", |_| ())
                .tray("t3", "celery", TRAY, [20.0, 20.0], 2),
            &["germinates_in_the_dark"],
            &["dark_after_emergence"],
        ),
        (
            "cabbage in the same dark cabinet",
            Corner::new()
                .place("cabinet", |_| ())
                .tray("t3", "cabbage", TRAY, [20.0, 20.0], 2),
            &[],
            &["germinates_in_the_dark", "dark_after_emergence"],
        ),
        (
            "basil seedlings in an attic that falls to 9 °C",
            lit(Corner::new()
                .air(16.0, 9.0, 0.5)
                .place(RACK, |_| ())
                .tier("t1", |tier| tier.liner = true))
            .tray_changed("t1", "basil", TRAY, [320.0, 35.0], 20, |sowing, _| {
                // It came up in a warm place.
                sowing.root_zone_c = Some(23.0);
            }),
            &["too_cold_for_seedlings"],
            &["warm_and_dim"],
        ),
        (
            "cabbage seedlings in the same cold attic",
            lit(Corner::new()
                .air(16.0, 9.0, 0.5)
                .place(RACK, |_| ())
                .tier("t1", |tier| tier.liner = true))
            .tray("t1", "cabbage", TRAY, [320.0, 35.0], 30),
            &[],
            &[
                "too_cold_for_seedlings",
                "warm_and_dim",
                "frost_over_the_frame",
            ],
        ),
        (
            "tomatoes under one weak lamp in a room at 24 °C",
            Corner::new()
                .air(24.0, 20.0, 0.5)
                .place(RACK, |_| ())
                .tier("t1", |tier| tier.liner = true)
                .lamps("t1", "bar-led-14", &[305.0], 200.0, 16.0)
                .tray("t1", "tomato", TRAY, [320.0, 35.0], 12)
                .tray("t1", "tomato", TRAY, [620.0, 35.0], 12),
            &["warm_and_dim", "too_little_light"],
            &["too_cold_for_seedlings"],
        ),
        (
            "an open tray of lettuce seed in a room at 28 % humidity",
            Corner::new()
                .air(21.0, 18.0, 0.28)
                .place(RACK, |_| ())
                .tier("t1", |tier| tier.liner = true)
                .tray("t1", "lettuce", "catering-tray", [320.0, 35.0], 1),
            &["dries_while_germinating"],
            &["stays_too_wet", "mould_weather"],
        ),
        (
            "small seedlings in deep pots in a damp cellar at 14 °C",
            lit(Corner::new()
                .air(14.0, 12.0, 0.75)
                .place(RACK, |_| ())
                .tier("t1", |tier| tier.liner = true))
            .tray("t1", "leek", "pots-18", [320.0, 35.0], 35),
            &["stays_too_wet"],
            &["dries_while_germinating", "too_cold_for_seedlings"],
        ),
        (
            "a shut closet with lamps on over seedlings that are up",
            Corner::new()
                .air(24.0, 22.0, 0.5)
                .place("closet", |closet| {
                    assert!(closet.set_doors(true));
                })
                .lamps(
                    "t2",
                    "bar-led-10",
                    &[120.0, 200.0, 275.0, 350.0, 430.0],
                    250.0,
                    16.0,
                )
                .tier("t2", |tier| tier.liner = true)
                .tray("t2", "lettuce", TRAY, [60.0, 5.0], 18)
                .tray("t2", "lettuce", TRAY, [360.0, 5.0], 1),
            &[],
            &["nothing_comes_up", "dark_after_emergence"],
        ),
    ];
    all.into_iter().map(SetUp::of).collect()
}
