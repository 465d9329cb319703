//! The choice of height and hours, on trays made for the purpose.

use std::rc::Rc;

use sunrise_core::lamps::bands::LightBand;
use sunrise_core::lamps::choice;
use sunrise_core::lamps::choice::{Choice, Setting, Want, outcome_at, spread_at, sweep};
use sunrise_core::lamps::chooser::{Change, Chosen, Now, best_anyhow, choose};
use sunrise_core::lamps::hours::HourLimits;
use sunrise_core::light::beam::Beam;
use sunrise_core::light::emitter::{Emitter, Optics};
use sunrise_core::light::falloff::Falloff;

/// Strips of `ppf` µmol/s each along a deck of 1220 x 610 mm.
fn strips(rows: &[f64], ppf: f64) -> Vec<Emitter> {
    rows.iter()
        .map(|&y| Emitter {
            x_mm: [35.0, 1185.0],
            y_mm: [y - 20.0, y + 20.0],
            z_mm: 0.0,
            flux: ppf,
            optics: Optics::Beam(Beam::new(1.0)),
        })
        .collect()
}

/// The cells of a tray that stands crosswise with its left edge at `x`.
fn cells(x: f64) -> Vec<(f64, f64)> {
    (0..72)
        .map(|i| {
            let (column, row) = (f64::from(i % 6), f64::from(i / 6));
            (x + 23.0 + 46.7 * column, 58.0 + 45.0 * row)
        })
        .collect()
}

fn want(falloff: &Falloff, canopy_mm: f64, low: f64, high: f64) -> Want<'_> {
    Want {
        light: Rc::new(move |height_mm, lift_mm| falloff.at(height_mm - lift_mm - canopy_mm)),
        name: None,
        besides: Vec::new(),
        band: LightBand {
            low,
            high,
            bleaches_over: 650.0,
        },
    }
}

/// Trays on the deck and lamps as bright as now.
fn at(height_mm: f64) -> Choice {
    Choice {
        height_mm,
        lift_mm: 0.0,
        brightness: 1.0,
    }
}

/// Days of up to `most_h`, none of them in quiet hours.
fn up_to(most_h: f64) -> HourLimits {
    HourLimits::new(most_h, 24.0, false)
}

fn heights(lowest_mm: f64, highest_mm: f64, step_mm: f64) -> Vec<Choice> {
    let heights = choice::heights(lowest_mm, highest_mm, step_mm);
    heights.into_iter().map(at).collect()
}

/// Four strips over a tray between them.
fn four(ppf: f64) -> Falloff {
    Falloff::new(
        strips(&[100.0, 240.0, 375.0, 510.0], ppf),
        cells(470.0),
        400.0,
    )
}

/// One strip in the middle.
fn one(ppf: f64) -> Falloff {
    Falloff::new(strips(&[305.0], ppf), cells(470.0), 400.0)
}

/// What is chosen where the lamps hang at `height_mm` and burn `hours`.
fn chosen(
    wants: &[Want<'_>],
    choices: &[Choice],
    limits: HourLimits,
    [height_mm, hours]: [f64; 2],
) -> Chosen {
    let setting = Setting::new(at(height_mm), hours);
    let now = Now {
        setting,
        outcome: outcome_at(wants, setting),
        touches: false,
    };
    choose(wants, choices, limits, &now).expect("there is a choice")
}

#[test]
fn with_light_enough_every_cell_gets_what_it_needs_and_no_more_is_paid_for() {
    let falloff = four(62.0);
    let wants = [want(&falloff, 70.0, 8.0, 14.0)];
    let best = best_anyhow(&wants, &heights(120.0, 390.0, 10.0), up_to(18.0)).unwrap();
    let outcome = outcome_at(&wants, best);
    assert_eq!((outcome.under, outcome.harmed), (0.0, 0.0), "{best:?}");
    assert!((120.0..=390.0).contains(&best.height_mm));
    assert_eq!(best.hours_h, 12.0, "{best:?}");
}

#[test]
fn weak_lamps_burn_as_long_as_the_crop_stands_and_never_longer() {
    let falloff = one(25.0);
    let wants = [want(&falloff, 70.0, 10.0, 17.0)];
    for most in [14.0, 16.0, 18.0] {
        let best = best_anyhow(&wants, &heights(120.0, 390.0, 10.0), up_to(most)).unwrap();
        assert!((most - 0.5..=most).contains(&best.hours_h), "{best:?}");
    }
}

#[test]
fn strong_lamps_hang_where_no_leaf_bleaches_and_far_too_strong_ones_as_high_as_they_go() {
    let all = heights(120.0, 390.0, 10.0);
    for (ppf, harmed) in [(200.0, 0.0), (2000.0, 72.0)] {
        let falloff = Falloff::new(strips(&[100.0, 305.0, 510.0], ppf), cells(470.0), 400.0);
        let wants = [want(&falloff, 70.0, 10.0, 17.0)];
        let low = chosen(&wants, &all, up_to(16.0), [120.0, 16.0]);
        assert_eq!(low.change, Some(Change::Harms), "{low:?}");
        assert_eq!(low.then.harmed, harmed, "{low:?}");
        assert!(
            low.setting.height_mm > 300.0 && low.setting.hours_h == 12.0,
            "{low:?}"
        );
    }
}

#[test]
fn what_is_well_is_left_alone_and_so_is_what_betters_next_to_nothing() {
    let falloff = four(62.0);
    let wants = [want(&falloff, 70.0, 8.0, 14.0)];
    let all = heights(120.0, 390.0, 10.0);
    let well = chosen(&wants, &all, up_to(16.0), [200.0, 14.0]);
    assert_eq!((well.change, well.setting.height_mm), (None, 200.0));
    // A band whose lower end a few cells miss by a hair.
    let outcome = |low: f64| {
        outcome_at(
            &[want(&falloff, 70.0, low, 14.0)],
            Setting::new(at(200.0), 14.0),
        )
    };
    let lows = (800..1600).map(|i| f64::from(i) / 100.0);
    let hair = lows
        .clone()
        .find(|low| outcome(*low).shares().under > 0.05)
        .unwrap();
    let nearly = [want(&falloff, 70.0, hair, 14.0)];
    let left = chosen(&nearly, &all, up_to(14.0), [200.0, 14.0]);
    assert_eq!(left.change, None, "{left:?}");
}

#[test]
fn light_that_nobody_uses_is_not_paid_for() {
    let falloff = four(150.0);
    let wants = [want(&falloff, 70.0, 8.0, 14.0)];
    let much = chosen(
        &wants,
        &heights(120.0, 390.0, 10.0),
        up_to(18.0),
        [390.0, 18.0],
    );
    assert!(
        matches!(much.change, Some(Change::Harms | Change::Wasted)),
        "{much:?}"
    );
    assert!(much.setting.hours_h < 14.0);
    assert_eq!(much.then.under, 0.0);
}

#[test]
fn a_day_that_is_too_long_is_cut_to_what_the_crop_stands() {
    let falloff = four(62.0);
    let wants = [want(&falloff, 70.0, 10.0, 17.0)];
    let long = chosen(
        &wants,
        &heights(120.0, 390.0, 10.0),
        up_to(16.0),
        [250.0, 20.0],
    );
    assert_eq!(long.change, Some(Change::TooLong));
    assert!(long.setting.hours_h <= 16.0);
}

#[test]
fn nothing_that_is_advised_adds_cells_that_stretch_or_bleach() {
    for ppf in [8.0, 20.0, 40.0, 90.0, 250.0, 700.0] {
        for rows in [&[305.0][..], &[100.0, 510.0], &[240.0, 375.0]] {
            let falloff = Falloff::new(strips(rows, ppf), cells(0.0), 400.0);
            for (low, high) in [(8.0, 14.0), (10.0, 17.0)] {
                let wants = [want(&falloff, 70.0, low, high)];
                for now in [[120.0, 12.0], [200.0, 14.0], [350.0, 16.0], [350.0, 8.0]] {
                    let is = outcome_at(&wants, Setting::new(at(now[0]), now[1]));
                    let to = chosen(&wants, &heights(120.0, 390.0, 10.0), up_to(16.0), now);
                    assert!(
                        to.then.stretched <= is.stretched,
                        "{ppf} {now:?}: {is:?} {to:?}"
                    );
                    assert!(to.then.harmed <= is.harmed, "{ppf} {now:?}: {is:?} {to:?}");
                }
            }
        }
    }
}

#[test]
fn of_settings_as_good_the_one_that_keeps_out_of_quiet_hours_is_taken() {
    let falloff = four(62.0);
    let wants = [want(&falloff, 70.0, 8.0, 14.0)];
    let one_height = [at(250.0)];
    let limits = HourLimits {
        free_h: 13.0,
        ..up_to(18.0)
    };
    let quiet = best_anyhow(&wants, &one_height, limits).unwrap();
    assert!(quiet.hours_h <= 13.0, "{quiet:?}");
    // Light comes first: what only long days bring into the band burns long all the same.
    let weak = one(25.0);
    let wants = [want(&weak, 70.0, 10.0, 17.0)];
    let long = best_anyhow(&wants, &heights(120.0, 390.0, 10.0), limits).unwrap();
    assert!(long.hours_h > 17.0, "{long:?}");
}

#[test]
fn of_two_crops_neither_is_left_under_the_line_where_both_can_be_over_it() {
    let falloff = four(62.0);
    let both = [
        want(&falloff, 70.0, 8.0, 14.0),
        want(&falloff, 70.0, 10.0, 17.0),
    ];
    let best = best_anyhow(&both, &heights(120.0, 390.0, 10.0), up_to(16.0)).unwrap();
    assert_eq!(outcome_at(&both, best).under, 0.0, "{best:?}");
}

#[test]
fn no_height_or_no_tray_is_no_setting() {
    let falloff = one(57.0);
    let wants = [want(&falloff, 70.0, 8.0, 14.0)];
    assert_eq!(
        best_anyhow(&wants, &heights(300.0, 290.0, 10.0), up_to(16.0)),
        None
    );
    assert_eq!(
        best_anyhow(&[], &heights(100.0, 300.0, 10.0), up_to(16.0)),
        None
    );
}

#[test]
fn the_sweep_falls_with_height_and_agrees_with_the_spread() {
    let falloff = Falloff::new(strips(&[170.0, 440.0], 60.0), cells(470.0), 400.0);
    let wants = [want(&falloff, 80.0, 6.0, 10.0)];
    let points = sweep(&wants, &choice::heights(140.0, 390.0, 10.0), 0.0);
    assert_eq!(points.len(), 26);
    for pair in points.windows(2) {
        assert!(pair[1].best < pair[0].best, "{pair:?}");
    }
    for point in points {
        assert!(point.worst <= point.mean && point.mean <= point.best);
        assert_eq!(spread_at(&wants, at(point.height_mm)).mean, point.mean);
    }
}
