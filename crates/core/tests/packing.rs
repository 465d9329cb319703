//! Exact packing against counts found another way.

use sunrise_core::basis::plane::Axis;
use sunrise_core::space::packing::{Packing, Size, beside, most};

fn size(length_mm: f64, width_mm: f64) -> Size {
    Size {
        length_mm,
        width_mm,
        most: None,
    }
}

/// Every tray lies on the deck and in no other, in no post and in nothing taken.
fn assert_sound(packing: &Packing, deck: [f64; 2], sizes: &[Size], blocked: &[[f64; 4]]) {
    let rects: Vec<[f64; 4]> = packing
        .laid
        .iter()
        .map(|laid| {
            let Size {
                length_mm,
                width_mm,
                ..
            } = sizes[laid.size];
            let (w, d) = match laid.along {
                Axis::X => (length_mm, width_mm),
                Axis::Y => (width_mm, length_mm),
            };
            [laid.x_mm, laid.y_mm, laid.x_mm + w, laid.y_mm + d]
        })
        .collect();
    let apart = |a: &[f64; 4], b: &[f64; 4]| {
        a[2] <= b[0] + 0.01 || b[2] <= a[0] + 0.01 || a[3] <= b[1] + 0.01 || b[3] <= a[1] + 0.01
    };
    for (i, rect) in rects.iter().enumerate() {
        assert!(rect[0] >= -0.01 && rect[1] >= -0.01, "{rect:?}");
        assert!(
            rect[2] <= deck[0] + 0.01 && rect[3] <= deck[1] + 0.01,
            "{rect:?}"
        );
        let others = rects[i + 1..].iter().chain(blocked);
        for other in others {
            assert!(apart(rect, other), "{rect:?} in {other:?}");
        }
    }
}

/// Width and depth of a deck, length and width of a tray, and the most that fit: found by an
/// integer program over every position on the trays' common measure, solved with SciPy 1.x
/// `optimize.milp` (HiGHS), run once outside this project.
#[rustfmt::skip]
const COUNTS: &[(f64, f64, f64, f64, usize)] = &[
    (1220.0, 610.0, 540.0, 280.0, 4),
    (1220.0, 610.0, 280.0, 180.0, 13),
    (1220.0, 610.0, 600.0, 400.0, 3),
    (1220.0, 610.0, 360.0, 220.0, 8),
    (1220.0, 610.0, 300.0, 200.0, 12),
    (1220.0, 610.0, 340.0, 240.0, 8),
    (1220.0, 610.0, 380.0, 220.0, 8),
    (1220.0, 610.0, 250.0, 150.0, 18),
    (1220.0, 457.0, 540.0, 280.0, 2),
    (1220.0, 457.0, 280.0, 180.0, 8),
    (1220.0, 457.0, 600.0, 400.0, 2),
    (1220.0, 457.0, 360.0, 220.0, 6),
    (1220.0, 457.0, 300.0, 200.0, 8),
    (1220.0, 457.0, 340.0, 240.0, 5),
    (1220.0, 457.0, 380.0, 220.0, 6),
    (1220.0, 457.0, 250.0, 150.0, 13),
    (900.0, 400.0, 540.0, 280.0, 1),
    (900.0, 400.0, 280.0, 180.0, 6),
    (900.0, 400.0, 600.0, 400.0, 1),
    (900.0, 400.0, 360.0, 220.0, 4),
    (900.0, 400.0, 300.0, 200.0, 6),
    (900.0, 400.0, 340.0, 240.0, 3),
    (900.0, 400.0, 380.0, 220.0, 4),
    (900.0, 400.0, 160.0, 60.0, 36),
    (900.0, 400.0, 250.0, 150.0, 9),
    (900.0, 400.0, 120.0, 90.0, 32),
    (1500.0, 600.0, 600.0, 400.0, 3),
    (1500.0, 600.0, 300.0, 200.0, 15),
    (1500.0, 600.0, 250.0, 150.0, 24),
    (620.0, 570.0, 540.0, 280.0, 2),
    (620.0, 570.0, 280.0, 180.0, 6),
    (620.0, 570.0, 600.0, 400.0, 1),
    (620.0, 570.0, 360.0, 220.0, 3),
    (620.0, 570.0, 300.0, 200.0, 5),
    (620.0, 570.0, 340.0, 240.0, 3),
    (620.0, 570.0, 380.0, 220.0, 3),
    (620.0, 570.0, 160.0, 60.0, 36),
    (620.0, 570.0, 250.0, 150.0, 8),
    (620.0, 570.0, 120.0, 90.0, 31),
    (1200.0, 300.0, 540.0, 280.0, 2),
    (1200.0, 300.0, 280.0, 180.0, 6),
    (1200.0, 300.0, 600.0, 400.0, 0),
    (1200.0, 300.0, 360.0, 220.0, 3),
    (1200.0, 300.0, 300.0, 200.0, 6),
    (1200.0, 300.0, 340.0, 240.0, 3),
    (1200.0, 300.0, 380.0, 220.0, 3),
    (1200.0, 300.0, 160.0, 60.0, 36),
    (1200.0, 300.0, 250.0, 150.0, 9),
    (1200.0, 300.0, 120.0, 90.0, 33),
    (1150.0, 600.0, 540.0, 280.0, 4),
    (1150.0, 600.0, 280.0, 180.0, 12),
    (1150.0, 600.0, 600.0, 400.0, 2),
    (1150.0, 600.0, 360.0, 220.0, 8),
    (1150.0, 600.0, 300.0, 200.0, 11),
    (1150.0, 600.0, 340.0, 240.0, 7),
    (1150.0, 600.0, 380.0, 220.0, 8),
    (1150.0, 600.0, 250.0, 150.0, 18),
    (2000.0, 1120.0, 600.0, 400.0, 8),
    (2000.0, 1120.0, 300.0, 200.0, 36),
    (900.0, 550.0, 540.0, 280.0, 3),
    (900.0, 550.0, 280.0, 180.0, 9),
    (900.0, 550.0, 600.0, 400.0, 1),
    (900.0, 550.0, 360.0, 220.0, 4),
    (900.0, 550.0, 300.0, 200.0, 7),
    (900.0, 550.0, 340.0, 240.0, 4),
    (900.0, 550.0, 380.0, 220.0, 4),
    (900.0, 550.0, 250.0, 150.0, 13),
    (900.0, 550.0, 120.0, 90.0, 44),
    (760.0, 350.0, 540.0, 280.0, 1),
    (760.0, 350.0, 280.0, 180.0, 4),
    (760.0, 350.0, 600.0, 400.0, 0),
    (760.0, 350.0, 360.0, 220.0, 2),
    (760.0, 350.0, 300.0, 200.0, 3),
    (760.0, 350.0, 340.0, 240.0, 3),
    (760.0, 350.0, 380.0, 220.0, 2),
    (760.0, 350.0, 160.0, 60.0, 26),
    (760.0, 350.0, 250.0, 150.0, 6),
    (760.0, 350.0, 120.0, 90.0, 22),
];

#[test]
fn counts_equal_those_of_an_integer_program() {
    assert!(COUNTS.len() >= 30);
    for &(width, depth, length, breadth, count) in COUNTS {
        let sizes = [size(length, breadth)];
        let packing = most([width, depth], 0.0, sizes[0]);
        assert_eq!(
            packing.laid.len(),
            count,
            "{length} x {breadth} on {width} x {depth}"
        );
        // Past a score of trays the count may be right without a proof in the time it has.
        assert!(
            packing.proven || count > 20,
            "{length} x {breadth} on {width} x {depth}"
        );
        assert_sound(&packing, [width, depth], &sizes, &[]);
    }
}

/// The most trays of `l` x `s` cells on a deck of `w` x `d` cells, trying every cell for every
/// tray: the first free cell is a corner or stays empty.
fn brute(w: usize, d: usize, l: usize, s: usize, taken: &mut Vec<bool>, from: usize) -> usize {
    let Some(at) = (from..w * d).find(|&cell| !taken[cell]) else {
        return 0;
    };
    let (x, y) = (at % w, at / w);
    let mut best = brute(w, d, l, s, taken, at + 1);
    for (a, b) in [(l, s), (s, l)] {
        let cells: Vec<usize> = (0..b)
            .flat_map(|j| (0..a).map(move |i| (i, j)))
            .map(|(i, j)| (y + j) * w + x + i)
            .collect();
        if x + a <= w && y + b <= d && cells.iter().all(|&cell| !taken[cell]) {
            for &cell in &cells {
                taken[cell] = true;
            }
            best = best.max(1 + brute(w, d, l, s, taken, at + 1));
            for &cell in &cells {
                taken[cell] = false;
            }
        }
    }
    best
}

#[test]
fn counts_equal_brute_force_on_small_decks_free_and_partly_taken() {
    let mut rng = fastrand::Rng::with_seed(3);
    for _ in 0..120 {
        let (w, d) = (rng.usize(3..6), rng.usize(2..5));
        let (l, s) = (rng.usize(2..5), rng.usize(1..4));
        let mm = |cells: usize| cells as f64 * 37.0;
        let deck = [mm(w), mm(d)];
        let sizes = [size(mm(l), mm(s))];
        let free = most(deck, 0.0, sizes[0]);
        let count = brute(w, d, l, s, &mut vec![false; w * d], 0);
        assert_eq!(free.laid.len(), count, "{l} x {s} on {w} x {d}");
        assert_sound(&free, deck, &sizes, &[]);

        let (x, y) = (rng.usize(0..w), rng.usize(0..d));
        let mut taken = vec![false; w * d];
        taken[y * w + x] = true;
        let block = sunrise_core::basis::plane::Footprint {
            x_mm: [mm(x), mm(x + 1)],
            y_mm: [mm(y), mm(y + 1)],
        };
        let rest = beside(deck, &[block], &sizes);
        let count = brute(w, d, l, s, &mut taken, 0);
        assert_eq!(
            rest.laid.len(),
            count,
            "{l} x {s} on {w} x {d} beside {x},{y}"
        );
        assert!(rest.proven);
        assert_sound(&rest, deck, &sizes, &[[mm(x), mm(y), mm(x + 1), mm(y + 1)]]);
    }
}

#[test]
fn mixed_sizes_are_all_laid_where_they_can_be() {
    // Two standard trays and two half trays on a deck of 1220 x 610 mm: 1110 mm of 1220 for the
    // crosswise standard trays and 230 mm halves beside them.
    let sizes = [
        Size {
            most: Some(2),
            ..size(540.0, 280.0)
        },
        Size {
            most: Some(2),
            ..size(370.0, 230.0)
        },
    ];
    let packing = beside([1220.0, 610.0], &[], &sizes);
    assert_eq!(packing.laid.len(), 4);
    assert!(packing.proven);
    assert_sound(&packing, [1220.0, 610.0], &sizes, &[]);
}

#[test]
fn posts_take_the_corners_only() {
    let sizes = [size(300.0, 200.0)];
    let deck = [1200.0, 600.0];
    let post = 30.0;
    let free = most(deck, 0.0, sizes[0]);
    let posted = most(deck, post, sizes[0]);
    assert_eq!(free.laid.len(), 12, "the deck is covered whole");
    assert!(posted.laid.len() < 12 && posted.laid.len() >= 8);
    let ends = |side: f64| [[0.0, post], [side - post, side]];
    let posts: Vec<[f64; 4]> = ends(deck[0])
        .iter()
        .flat_map(|x| ends(deck[1]).map(|y| [x[0], y[0], x[1], y[1]]))
        .collect();
    assert_sound(&posted, deck, &sizes, &posts);
}

#[test]
fn odd_sizes_never_panic() {
    let mut rng = fastrand::Rng::with_seed(11);
    for _ in 0..30 {
        let any = |rng: &mut fastrand::Rng, most: f64| 10.0 + rng.f64() * most;
        let deck = [any(&mut rng, 3000.0), any(&mut rng, 1500.0)];
        let sizes = [size(any(&mut rng, 900.0), any(&mut rng, 900.0))];
        let packing = most(deck, rng.f64() * 60.0, sizes[0]);
        assert_sound(&packing, deck, &sizes, &[]);
    }
}

/// A deck of 610 x 1983 mm and trays of 79.5 x 66 mm once ran the search so deep that the stack
/// ended; decks and sizes are drawn from all that a request may name.
#[test]
fn a_hundred_thousand_decks_and_sizes_end_soon() {
    let halves: Vec<_> = (0..2u64)
        .map(|seed| {
            std::thread::Builder::new()
                .stack_size(256 << 10)
                .spawn(move || random_decks(seed))
                .unwrap()
        })
        .collect();
    for half in halves {
        half.join().unwrap();
    }
    let packing = most([610.0, 1983.0], 40.0, size(79.5, 66.0));
    assert!(packing.laid.len() > 200);
}

fn random_decks(seed: u64) {
    let mut random = fastrand::Rng::with_seed(seed);
    let mut tenth =
        |from: f64, to: f64| ((from + (to - from) * random.f64()) * 10.0).round() / 10.0;
    for i in 0..50_000 {
        let deck = [tenth(10.0, 5000.0), tenth(10.0, 5000.0)];
        // Now and then posts: they call for the search over all positions.
        let post = if i % 120 == 0 { tenth(0.0, 100.0) } else { 0.0 };
        // Small decks hold few trays whatever they are: they are searched to the end.
        let deck = if i % 60 > 0 {
            deck.map(|mm| (mm / 8.0).max(10.0))
        } else {
            deck
        };
        let sizes = [size(tenth(10.0, 600.0), tenth(10.0, 400.0))];
        let packing = most(deck, post, sizes[0]);
        if i % 100 == 0 {
            assert_sound(&packing, deck, &sizes, &[]);
        }
    }
}
