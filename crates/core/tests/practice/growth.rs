//! What growers say about how seedlings grow.

use super::{HEAD, row};
use sunrise_core::crops::{Crop, library};
use sunrise_core::growth::{Air, Conditions, Seedling, leaves, pace, roots};
use sunrise_core::plan::Differs;

fn crop(id: &str) -> &'static Crop {
    library().get(id).expect(id)
}

fn days(crop: &Crop, from: Seedling, days: usize, day: Conditions) -> Seedling {
    (0..days).fold(from, |plant, _| plant.after(crop, &day))
}

/// The same tomatoes for seven days, on a warm mat under a strong lamp and in a cool office under a
/// weak one: the heights and how many times the leaf and root.
fn side_by_side() -> (f64, f64, f64) {
    let tomato = crop("tomato");
    let usual = Conditions::usual(tomato);
    // Up for a few days, before they are parted.
    let parted = days(tomato, Seedling::UP, 4, usual);
    let bright = Conditions {
        dli: 15.0,
        air: Air::of(20.0, 20.0),
        ..usual
    };
    let dim = Conditions {
        dli: 5.0,
        air: Air::of(20.0, 15.0),
        ..usual
    };
    let (a, b) = (
        days(tomato, parted, 7, bright),
        days(tomato, parted, 7, dim),
    );
    (a.height_mm, b.height_mm, a.size(tomato) / b.size(tomato))
}

/// The leaf and root of a dwarf beside tall ones in one tray, against one that has a tray to itself.
fn beside_big_ones(weeks: usize) -> f64 {
    let tall = crop("tomato");
    let dwarf = Differs {
        height_out_mm: Some(80.0),
        ..Differs::default()
    }
    .of(tall);
    let usual = Conditions::usual(tall);
    let (mut big, mut small) = (Seedling::UP, Seedling::UP);
    for _ in 0..7 * weeks {
        let unshaded = leaves::unshaded(big.height_mm - small.height_mm, small.height_mm);
        big = big.after(tall, &usual);
        small = small.after(&dwarf, &Conditions { unshaded, ..usual });
    }
    let alone = days(&dwarf, Seedling::UP, 7 * weeks, usual);
    small.size(&dwarf) / alone.size(&dwarf)
}

pub fn table() -> String {
    let (bright_mm, dim_mm, times) = side_by_side();
    assert!((1.7..2.6).contains(&times), "{times}");
    assert!(dim_mm > bright_mm, "{dim_mm} {bright_mm}");
    let (three, five) = (beside_big_ones(3), beside_big_ones(5));
    assert!(three < 1.0 && five < 0.85, "{three} {five}");
    let full = |id: &str, ml: f64, air: Air| {
        roots::days_to_fill(crop(id), ml) / pace::by_warmth(crop(id), air)
    };
    let warm = Air::of(22.0, 18.0);
    let (tomato, kale) = (full("tomato", 15.0, warm), full("kale", 11.0, warm));
    assert!(
        (5.0..14.0).contains(&tomato) && (8.0..15.0).contains(&kale),
        "{tomato} {kale}"
    );
    let sill = |dli: f64| {
        let tomato = crop("tomato");
        days(
            tomato,
            Seedling::UP,
            21,
            Conditions {
                dli,
                ..Conditions::usual(tomato)
            },
        )
    };
    let (dark, lit) = (sill(2.5), sill(12.0));
    let mut table = format!(
        "## Growth\n\nSeedlings in the crop's usual cell and spacing, at 18 °C by day and 15 by night, unless said otherwise.\n\n{HEAD}"
    );
    table += &row(
        "The same tomatoes, seven days on a 20 °C mat under a strong lamp, and in a cool office (20 °C by day, 15 by night) under a weak one: about twice the plant in the first",
        format!(
            "At 15 and at 5 mol/m²/d: {times:.1} times the leaf and root; {bright_mm:.0} mm tall against {dim_mm:.0}"
        ),
        "Agrees; the taller one is the weaker",
    );
    table += &row(
        "Small varieties beside big ones in one tray are shaded and stay behind",
        format!(
            "A tomato of 80 mm beside those of 220: {:.0}% of what it would be alone after three weeks, {:.0}% after five",
            100.0 * three,
            100.0 * five
        ),
        "Agrees; how soon depends on how close they stand",
    );
    table += &row(
        "On a dim sill seedlings grow tall and thin",
        format!(
            "Tomatoes after three weeks at 2.5 mol/m²/d: {:.0} mm and {:.0}% of the usual leaf and root; at 12: {:.0} mm and {:.0}%",
            dark.height_mm,
            100.0 * dark.size(crop("tomato")),
            lit.height_mm,
            100.0 * lit.size(crop("tomato"))
        ),
        "Agrees",
    );
    table += &row(
        "Tomato roots come out of a small cell within a week or two of fast growth",
        format!(
            "A cell of 15 ml is full {tomato:.0} days after they are up, at 22 °C by day and 18 by night"
        ),
        "Agrees",
    );
    table += &row(
        "Kale goes from 11 ml cells into a cup at about ten days",
        format!("Full {kale:.0} days after it is up, in the same air"),
        "Agrees within a few days",
    );
    table
}
