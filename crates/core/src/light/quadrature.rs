//! Sums: Gauss-Legendre rules on an interval and its pieces that are small enough for them, and
//! the product of two rows.

use std::iter::Sum;

use num_traits::Float;

/// Nodes and weights on [-1, 1].
type Rule = &'static [(f64, f64)];

const GAUSS_2: Rule = &[
    (-0.577_350_269_189_625_8, 1.0),
    (0.577_350_269_189_625_8, 1.0),
];
const GAUSS_4: Rule = &[
    (-0.861_136_311_594_052_6, 0.347_854_845_137_453_9),
    (-0.339_981_043_584_856_3, 0.652_145_154_862_546_1),
    (0.339_981_043_584_856_3, 0.652_145_154_862_546_1),
    (0.861_136_311_594_052_6, 0.347_854_845_137_453_9),
];

fn with(rule: Rule, [a, b]: [f64; 2], f: &mut impl FnMut(f64) -> f64) -> f64 {
    let (middle, half) = ((a + b) / 2.0, (b - a) / 2.0);
    let sum: f64 = rule.iter().map(|&(t, w)| w * f(middle + t * half)).sum();
    sum * half
}

/// ∫ f over `span` by two points.
pub fn two(span: [f64; 2], mut f: impl FnMut(f64) -> f64) -> f64 {
    with(GAUSS_2, span, &mut f)
}

/// ∫ f over `span` by four points.
pub fn four(span: [f64; 2], mut f: impl FnMut(f64) -> f64) -> f64 {
    with(GAUSS_4, span, &mut f)
}

/// Halvings after which a piece is taken whatever its length: a 20 m face is then cut to 0.02 µm.
const MOST_HALVINGS: usize = 30;

/// Cuts `span` in two until `small` says of each piece that it is small enough, and gives `take`
/// the pieces from one end to the other.
fn halved(span: [f64; 2], small: impl Fn([f64; 2]) -> bool, mut take: impl FnMut([f64; 2])) {
    // What is still to be cut: one piece for each halving, at the most.
    let mut waiting = [[0.0; 2]; MOST_HALVINGS + 1];
    let mut n = 1;
    waiting[0] = span;
    while n > 0 {
        n -= 1;
        let [a, b] = waiting[n];
        if n + 1 >= waiting.len() || small([a, b]) {
            take([a, b]);
            continue;
        }
        let middle = (a + b) / 2.0;
        waiting[n] = [middle, b];
        waiting[n + 1] = [a, middle];
        n += 2;
    }
}

/// ∫ f over `span`, halved until each piece is at most as long as `longest` says of it, by four
/// points a piece; pieces of a millionth are taken whatever it says.
pub fn graded(
    span: [f64; 2],
    longest: &impl Fn([f64; 2]) -> f64,
    f: &mut impl FnMut(f64) -> f64,
) -> f64 {
    let mut sum = 0.0;
    let small = |piece: [f64; 2]| piece[1] - piece[0] <= longest(piece).max(1e-6);
    halved(span, small, |piece| sum += with(GAUSS_4, piece, f));
    sum
}

/// How closely a face is summed up.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Closeness {
    /// Each point within a few thousandths.
    Close,
    /// Within a few hundredths, for what is averaged over a wall.
    Loose,
}

/// The points and weights of a sum over `span` of something that comes from `away` of each piece and
/// falls with the square of the distance: the nearer, the closer together.
///
/// The error of a rule of n points on a piece of length l at distance a goes with (l / a)^2n; the
/// bounds below are where it reaches what `closeness` allows.
#[inline]
pub fn pieces(
    span: [f64; 2],
    closeness: Closeness,
    away: impl Fn([f64; 2]) -> f64,
    mut point: impl FnMut(f64, f64),
) {
    // Up to so many times its distance long, a piece is taken by four points, by two, or by one.
    let [by_four, by_two, by_one] = match closeness {
        Closeness::Close => [1.25, 0.45, 0.08],
        Closeness::Loose => [0.0, 1.0, 0.35],
    };
    let longest = f64::max(by_four, by_two);
    let small = |piece: [f64; 2]| piece[1] - piece[0] <= longest * away(piece);
    halved(span, small, |piece| {
        let length = piece[1] - piece[0];
        let (middle, half) = ((piece[0] + piece[1]) / 2.0, length / 2.0);
        let of_distance = length / away(piece);
        if of_distance <= by_one {
            return point(middle, length);
        }
        let rule = if of_distance > by_two {
            GAUSS_4
        } else {
            GAUSS_2
        };
        for &(t, weight) in rule {
            point(middle + t * half, weight * half);
        }
    });
}

/// How far 0 lies outside `span`.
pub fn nearest(span: [f64; 2]) -> f64 {
    span[0].max(-span[1]).max(0.0)
}

/// A dot product in so many lanes, which the compiler turns into vector instructions.
#[inline(always)]
pub fn product<const LANES: usize, T: Float + Sum>(a: &[T], b: &[T]) -> T {
    let mut lanes = [T::zero(); LANES];
    let (whole_a, whole_b) = (a.chunks_exact(LANES), b.chunks_exact(LANES));
    let rest = whole_a.remainder().iter().zip(whole_b.remainder());
    let rest: T = rest.map(|(&a, &b)| a * b).sum();
    for (a, b) in whole_a.zip(whole_b) {
        for (lane, (&a, &b)) in lanes.iter_mut().zip(a.iter().zip(b)) {
            *lane = *lane + a * b;
        }
    }
    lanes.into_iter().sum::<T>() + rest
}
