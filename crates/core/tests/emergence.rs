//! Days to emergence against the handbook table.
//!
//! Source, from memory: Harrington & Minges (1954), reprinted in Knott's Handbook for Vegetable
//! Growers. The figures are written out here once more, so that a slip in the data file shows.

use sunrise_core::crops::emergence::EmergenceCurve;
use sunrise_core::crops::emergence_tables::read_table;

const C: [f64; 9] = [0.0, 5.0, 10.0, 15.0, 20.0, 25.0, 30.0, 35.0, 40.0];
/// Nothing came up.
const NG: f64 = 0.0;
/// Not tested.
const NT: f64 = -1.0;

#[rustfmt::skip]
const HANDBOOK: &[(&str, [f64; 9])] = &[
    ("asparagus",         [NG, NG, 52.8, 24.0, 14.6, 10.3, 11.5, 19.3, 28.4]),
    ("bean (lima)",       [NT, NT, NG, 30.5, 17.6, 6.5, 6.7, NG, NT]),
    ("bean (snap)",       [NG, NG, NG, 16.1, 11.4, 8.1, 6.4, 6.2, NG]),
    ("beet",              [NT, 42.0, 16.7, 9.7, 6.2, 5.0, 4.5, 4.6, NT]),
    ("cabbage",           [NT, NT, 14.6, 8.7, 5.8, 4.5, 3.5, NT, NT]),
    ("carrot",            [NG, 50.6, 17.3, 10.1, 6.9, 6.2, 6.0, 8.6, NG]),
    ("cauliflower",       [NT, NT, 19.5, 9.9, 6.2, 5.2, 4.7, NT, NT]),
    ("celery",            [NG, 41.0, 16.0, 12.0, 7.0, NG, NG, NG, NT]),
    ("corn (sweet)",      [NG, NG, 21.6, 12.4, 6.9, 4.0, 3.7, 3.4, NG]),
    ("cucumber",          [NG, NG, NG, 13.0, 6.2, 4.0, 3.1, 3.0, NT]),
    ("eggplant",          [NT, NT, NT, NT, 13.1, 8.1, 5.3, NT, NT]),
    ("lettuce",           [49.0, 14.9, 7.0, 3.9, 2.6, 2.2, 2.6, NG, NG]),
    ("melon (muskmelon)", [NT, NT, NT, NT, 8.4, 4.0, 3.1, NT, NT]),
    ("okra",              [NG, NG, NG, 27.2, 17.4, 12.5, 6.8, 6.4, 6.7]),
    ("onion",             [135.8, 30.6, 13.4, 7.1, 4.6, 3.6, 3.9, 12.5, NG]),
    ("parsley",           [NT, NT, 29.0, 17.0, 14.0, 13.0, 12.3, NT, NT]),
    ("parsnip",           [171.7, 56.7, 26.6, 19.3, 13.6, 14.9, 31.6, NG, NG]),
    ("pea",               [NT, 36.0, 13.5, 9.4, 7.5, 6.2, 5.9, NT, NT]),
    ("pepper",            [NG, NG, NG, 25.0, 12.5, 8.4, 7.6, 8.8, NG]),
    ("radish",            [NG, 29.0, 11.2, 6.3, 4.2, 3.5, 3.0, NT, NT]),
    ("spinach",           [62.6, 22.5, 11.7, 6.9, 5.7, 5.1, 6.4, NG, NG]),
    ("tomato",            [NG, NG, 42.9, 13.6, 8.2, 5.9, 5.9, 9.2, NG]),
    ("turnip",            [NG, NG, 5.2, 3.0, 1.9, 1.4, 1.1, 1.2, NT]),
    ("watermelon",        [NT, NG, NT, NT, 11.8, 4.7, 3.5, 3.0, NT]),
];

fn curves() -> std::collections::BTreeMap<String, EmergenceCurve> {
    read_table(include_str!("../src/crops/emergence_days.csv")).unwrap()
}

#[test]
fn equals_the_handbook_at_every_node() {
    let curves = curves();
    assert_eq!(curves.len(), HANDBOOK.len());
    for (crop, days) in HANDBOOK {
        let curve = &curves[*crop];
        for (c, &days) in C.into_iter().zip(days) {
            match curve.days(c) {
                Some(got) if days > 0.0 => {
                    assert!(
                        (got - days).abs() < 1e-9,
                        "{crop} at {c} °C: {got}, not {days}"
                    );
                }
                got => assert!(
                    days == NT || (days == NG && got.is_none()),
                    "{crop} at {c} °C: {got:?}, table {days}"
                ),
            }
        }
    }
}

#[test]
fn monotone_between_nodes_and_never_where_the_table_says_none() {
    let curves = curves();
    for (crop, days) in HANDBOOK {
        let curve = &curves[*crop];
        for i in 0..8 {
            let (a, b) = (days[i], days[i + 1]);
            let between: Vec<f64> = (0..=50)
                .map(|j| curve.rate_per_day(C[i] + 5.0 * f64::from(j) / 50.0))
                .collect();
            if a == NG && b == NG {
                assert!(between.iter().all(|&r| r == 0.0), "{crop} from {} °C", C[i]);
            } else if a != NT && b != NT {
                let rising = between.windows(2).all(|w| w[1] >= w[0] - 1e-12);
                let falling = between.windows(2).all(|w| w[1] <= w[0] + 1e-12);
                assert!(rising || falling, "{crop} from {} °C", C[i]);
            }
        }
    }
}
