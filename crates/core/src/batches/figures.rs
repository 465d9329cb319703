//! The tests that tell a difference from chance, and the intervals that go with them.

use statrs::distribution::{ContinuousCDF, StudentsT};
use statrs::function::factorial::ln_binomial;

use crate::learning::estimate::t_975;

/// A count of so many.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Share {
    /// That came up.
    pub count: u32,
    /// Of so many.
    pub of: u32,
}

/// A difference, where it lies with 95 % certainty, and how likely chance alone makes one as large.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Apart {
    /// The first less the second.
    pub by: f64,
    /// At least.
    pub low: f64,
    /// At most.
    pub high: f64,
    /// The chance of one at least as large where there is none.
    pub p: f64,
}

/// 95 % of a normal distribution lie within so many standard deviations.
const Z_975: f64 = 1.959_963_984_540_054;

impl Share {
    /// As a share.
    pub fn value(self) -> f64 {
        f64::from(self.count) / f64::from(self.of.max(1))
    }

    /// Where the true share lies with 95 % certainty.
    ///
    /// Source: E. B. Wilson, Journal of the American Statistical Association 22, 1927; checked against SciPy.
    pub fn wilson(self) -> [f64; 2] {
        let (p, n) = (self.value(), f64::from(self.of.max(1)));
        let z2 = Z_975 * Z_975;
        let middle = (p + z2 / (2.0 * n)) / (1.0 + z2 / n);
        let off = Z_975 / (1.0 + z2 / n) * (p * (1.0 - p) / n + z2 / (4.0 * n * n)).sqrt();
        [(middle - off).max(0.0), (middle + off).min(1.0)]
    }
}

/// How far two shares are apart: Fisher's exact test, two-sided, and the interval of R. G. Newcombe (Statistics in
/// Medicine 17, 1998, method 10: from two of Wilson's); both checked against SciPy.
pub fn shares_apart(a: Share, b: Share) -> Apart {
    let ([al, au], [bl, bu]) = (a.wilson(), b.wilson());
    let (pa, pb) = (a.value(), b.value());
    let by = pa - pb;
    Apart {
        by,
        low: by - ((pa - al).powi(2) + (bu - pb).powi(2)).sqrt(),
        high: by + ((au - pa).powi(2) + (pb - bl).powi(2)).sqrt(),
        p: fisher(a, b),
    }
}

/// Fisher's exact test: the chance of a table at most as likely as this one, with the same sums.
fn fisher(a: Share, b: Share) -> f64 {
    let of = |n: u32| u64::from(n);
    let (all, up) = (of(a.of + b.of), of(a.count + b.count));
    if all == 0 {
        return 1.0;
    }
    let (least, most) = (up.saturating_sub(of(b.of)), up.min(of(a.of)));
    let chance = |k: u64| {
        let ln = ln_binomial(of(a.of), k) + ln_binomial(of(b.of), up - k) - ln_binomial(all, up);
        ln.exp()
    };
    // A table as likely as this one counts, however its digits are rounded.
    let own = chance(of(a.count)) * (1.0 + 1e-7);
    let chances = (least..=most).map(chance);
    chances
        .filter(|chance| *chance <= own)
        .sum::<f64>()
        .min(1.0)
}

/// How far the means of `a` and `b` are apart: Welch's t test (B. L. Welch, Biometrika 34, 1947; checked against
/// SciPy); `None` where one of them has fewer than two, and where neither scatters.
pub fn means_apart(a: &[f64], b: &[f64]) -> Option<Apart> {
    let of = |values: &[f64]| {
        let n = values.len() as f64;
        let mean = values.iter().sum::<f64>() / n;
        let squares: f64 = values.iter().map(|v| (v - mean).powi(2)).sum();
        (mean, squares / (n - 1.0) / n, n)
    };
    if a.len() < 2 || b.len() < 2 {
        return None;
    }
    let ((ma, va, na), (mb, vb, nb)) = (of(a), of(b));
    let spread = va + vb;
    if spread <= 0.0 {
        return None;
    }
    let freedom = spread * spread / (va * va / (na - 1.0) + vb * vb / (nb - 1.0));
    let by = ma - mb;
    let t = StudentsT::new(0.0, 1.0, freedom).ok()?;
    let off = t_975(freedom) * spread.sqrt();
    Some(Apart {
        by,
        low: by - off,
        high: by + off,
        p: 2.0 * t.cdf(-(by / spread.sqrt()).abs()),
    })
}

/// The chances `p` of several tests made at once, each raised so that none of them is off too often by having more
/// than one try.
///
/// Source: S. Holm, Scandinavian Journal of Statistics 6, 1979.
pub fn holm(p: &[f64]) -> Vec<f64> {
    let mut order: Vec<usize> = (0..p.len()).collect();
    order.sort_by(|&i, &j| p[i].total_cmp(&p[j]));
    let (mut raised, mut least) = (vec![1.0; p.len()], 0.0f64);
    for (rank, i) in order.into_iter().enumerate() {
        least = least.max(p[i] * (p.len() - rank) as f64).min(1.0);
        raised[i] = least;
    }
    raised
}
