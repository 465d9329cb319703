//! Sums: Gauss-Legendre rules on an interval and its pieces that are small enough for them, and
//! the product of two rows.

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

/// ∫ f over `span`, halved until each piece is at most as long as `longest` says of it, by four
/// points a piece; pieces of a millionth are taken whatever it says.
pub fn graded(
    span: [f64; 2],
    longest: &impl Fn([f64; 2]) -> f64,
    f: &mut impl FnMut(f64) -> f64,
) -> f64 {
    let [a, b] = span;
    if b - a <= longest(span) || b - a < 1e-6 {
        return with(GAUSS_4, span, f);
    }
    let middle = (a + b) / 2.0;
    graded([a, middle], longest, f) + graded([middle, b], longest, f)
}

/// How far 0 lies outside `span`.
pub fn nearest(span: [f64; 2]) -> f64 {
    span[0].max(-span[1]).max(0.0)
}

/// A dot product in four lanes, which the compiler turns into vector instructions.
pub fn product(a: &[f64], b: &[f64]) -> f64 {
    let mut lanes = [0.0; 4];
    let (a4, b4) = (a.chunks_exact(4), b.chunks_exact(4));
    let rest: f64 = a4
        .remainder()
        .iter()
        .zip(b4.remainder())
        .map(|(a, b)| a * b)
        .sum();
    for (a, b) in a4.zip(b4) {
        for (lane, (a, b)) in lanes.iter_mut().zip(a.iter().zip(b)) {
            *lane += a * b;
        }
    }
    lanes.iter().sum::<f64>() + rest
}
