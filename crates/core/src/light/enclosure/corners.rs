//! What the cells of a face send out, told by the corners of its grid.

/// So many numbers of single precision are summed up at once.
pub(super) const LANES: usize = 8;

/// So many of them.
pub(super) type Eight = [f32; LANES];

/// What the cells of a grid send out over each of `N` floors as weights of the grid's crossings, so that a sum
/// over cells of differences of a corner function becomes one sum over crossings.
#[derive(Debug, Clone)]
pub(super) struct CornerWeights<const N: usize> {
    /// For each vector of lines along the second axis, for each line along the first; filled up with zeros.
    weights: Vec<[Eight; N]>,
    /// How many lines there are along the first axis.
    lines: usize,
    /// For each vector of lines along the second axis, for each vector along the first, the sum of what comes
    /// before it.
    before: Vec<[Eight; N]>,
}

impl<const N: usize> CornerWeights<N> {
    /// Of `nu` times `nv` cells, each of which sends out over each floor as `sent` tells.
    pub(super) fn of(nu: usize, nv: usize, sent: impl Fn(usize, usize) -> [f64; N]) -> Self {
        let lines = nu + 1;
        let [across, along] = [lines, nv + 1].map(|n: usize| n.div_ceil(LANES));
        // By crossings first, a row for each line along the second axis.
        let mut each = vec![[0.0; N]; lines * along * LANES];
        for u in 0..nu {
            for v in 0..nv {
                let values = sent(u, v);
                for (corner, sign) in [([0, 0], 1.0), ([1, 1], 1.0), ([0, 1], -1.0), ([1, 0], -1.0)]
                {
                    let at = &mut each[(v + corner[1]) * lines + u + corner[0]];
                    for (sum, value) in at.iter_mut().zip(values) {
                        *sum += sign * value;
                    }
                }
            }
        }
        let mut weights = vec![[[0.0; LANES]; N]; along * lines];
        let mut before = vec![[[0.0; LANES]; N]; along * across];
        let mut sums = vec![[0.0; N]; lines];
        for (j, rows) in each.chunks_exact(LANES * lines).enumerate() {
            for (u, sums) in sums.iter_mut().enumerate() {
                for k in 0..N {
                    let own: [f64; LANES] = std::array::from_fn(|i| rows[i * lines + u][k]);
                    weights[j * lines + u][k] = own.map(|weight| weight as f32);
                    before[j * across + u / LANES][k][u % LANES] = sums[k] as f32;
                    sums[k] += own.iter().sum::<f64>();
                }
            }
        }
        Self {
            weights,
            lines,
            before,
        }
    }

    /// The weights of the crossings of vector `j` of lines along the second axis with each line along the
    /// first.
    #[inline(always)]
    pub(super) fn at(&self, j: usize) -> &[[Eight; N]] {
        &self.weights[j * self.lines..(j + 1) * self.lines]
    }

    /// The sums of those that come before vector `j`, for each vector of lines along the first axis.
    #[inline(always)]
    pub(super) fn before(&self, j: usize) -> &[[Eight; N]] {
        let across = self.lines.div_ceil(LANES);
        &self.before[j * across..(j + 1) * across]
    }
}
