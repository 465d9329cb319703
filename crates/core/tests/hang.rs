//! The choice of height and hours, on trays made for the purpose.

use sunrise_core::lamps::choice;
use sunrise_core::lamps::choice::{Choice, Setting, Want, best, miss, spread_at, sweep};
use sunrise_core::lamps::hours::HourLimits;
use sunrise_core::light::beam::Beam;
use sunrise_core::light::emitter::{Emitter, Optics};
use sunrise_core::light::falloff::{Falloff, Spread};

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
        light: std::rc::Rc::new(move |height_mm, lift_mm| {
            Spread::of(&falloff.at(height_mm - lift_mm - canopy_mm))
        }),
        besides_mol_m2_d: 0.0,
        dli_mol_m2_d: low..=high,
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
    HourLimits {
        most_h,
        free_h: 24.0,
    }
}

fn heights(lowest_mm: f64, highest_mm: f64, step_mm: f64) -> Vec<Choice> {
    let heights = choice::heights(lowest_mm, highest_mm, step_mm);
    heights.into_iter().map(at).collect()
}

#[test]
fn with_light_enough_every_cell_comes_into_the_band() {
    let falloff = Falloff::new(
        &strips(&[100.0, 240.0, 375.0, 510.0], 62.0),
        &cells(470.0),
        400.0,
    );
    let wants = [want(&falloff, 70.0, 6.0, 12.0)];
    let setting = best(&wants, &heights(120.0, 390.0, 10.0), up_to(18.0)).unwrap();
    assert_eq!(miss(&wants, setting), 0.0, "{setting:?}");
    assert!((120.0..=390.0).contains(&setting.height_mm));
    assert_eq!(setting.hours_h % 0.5, 0.0);
}

#[test]
fn weak_lamps_burn_as_long_as_the_crop_bears() {
    let falloff = Falloff::new(&strips(&[305.0], 25.0), &cells(470.0), 400.0);
    let wants = [want(&falloff, 70.0, 10.0, 17.0)];
    for most in [14.0, 16.0, 18.0] {
        let setting = best(&wants, &heights(120.0, 390.0, 10.0), up_to(most)).unwrap();
        // A step less may be as good to a plant, never more than that.
        assert!(
            (most - 0.5..=most).contains(&setting.hours_h),
            "{setting:?}"
        );
    }
}

#[test]
fn strong_lamps_hang_high_and_burn_short() {
    let falloff = Falloff::new(&strips(&[100.0, 305.0, 510.0], 150.0), &cells(470.0), 400.0);
    let wants = [want(&falloff, 70.0, 6.0, 10.0)];
    let setting = best(&wants, &heights(120.0, 390.0, 10.0), up_to(18.0)).unwrap();
    assert_eq!(setting, Setting::new(at(390.0), 12.0));
}

#[test]
fn of_settings_as_good_the_one_that_keeps_out_of_quiet_hours_is_taken() {
    let falloff = Falloff::new(
        &strips(&[100.0, 240.0, 375.0, 510.0], 62.0),
        &cells(470.0),
        400.0,
    );
    let wants = [want(&falloff, 70.0, 6.0, 14.0)];
    let one_height = [at(250.0)];
    let loud = best(&wants, &one_height, up_to(18.0)).unwrap();
    let limits = HourLimits {
        free_h: 13.0,
        ..up_to(18.0)
    };
    let quiet = best(&wants, &one_height, limits).unwrap();
    assert!(quiet.hours_h <= 13.0 && quiet.hours_h <= loud.hours_h);
    // Light comes first: what only long days bring into the band burns long all the same.
    let weak = Falloff::new(&strips(&[305.0], 25.0), &cells(470.0), 400.0);
    let wants = [want(&weak, 70.0, 10.0, 17.0)];
    let long = best(&wants, &heights(120.0, 390.0, 10.0), limits).unwrap();
    assert!(long.hours_h > 17.0, "{long:?}");
}

#[test]
fn taller_plants_push_the_lamps_up_with_them() {
    let falloff = Falloff::new(
        &strips(&[100.0, 240.0, 375.0, 510.0], 62.0),
        &cells(470.0),
        400.0,
    );
    let at = |canopy: f64| {
        let wants = [want(&falloff, canopy, 8.0, 12.0)];
        best(&wants, &heights(canopy + 50.0, 390.0, 10.0), up_to(16.0))
            .unwrap()
            .height_mm
    };
    let chosen: Vec<f64> = [65.0, 110.0, 160.0].map(at).to_vec();
    assert!(chosen.is_sorted(), "{chosen:?}");
}

#[test]
fn a_bay_of_two_crops_gets_the_compromise_between_their_own_settings() {
    let falloff = Falloff::new(
        &strips(&[100.0, 240.0, 375.0, 510.0], 62.0),
        &cells(470.0),
        400.0,
    );
    let leafy = || want(&falloff, 70.0, 6.0, 10.0);
    let fruiting = || want(&falloff, 70.0, 10.0, 17.0);
    let range = heights(120.0, 390.0, 10.0);
    let both = [leafy(), fruiting()];
    let shared = miss(&both, best(&both, &range, up_to(16.0)).unwrap());
    for own in [[leafy()], [fruiting()]] {
        let setting = best(&own, &range, up_to(16.0)).unwrap();
        assert!(shared <= miss(&both, setting) + 1e-12);
    }
}

#[test]
fn no_height_or_no_tray_is_no_setting() {
    let falloff = Falloff::new(&strips(&[305.0], 57.0), &cells(0.0), 400.0);
    assert_eq!(
        best(
            &[want(&falloff, 70.0, 6.0, 10.0)],
            &heights(300.0, 290.0, 10.0),
            up_to(16.0)
        ),
        None
    );
    assert_eq!(best(&[], &heights(100.0, 300.0, 10.0), up_to(16.0)), None);
}

#[test]
fn the_sweep_falls_with_height_and_agrees_with_the_spread() {
    let falloff = Falloff::new(&strips(&[170.0, 440.0], 60.0), &cells(470.0), 400.0);
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
