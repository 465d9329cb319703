//! From a few readings to a figure with an interval.

use statrs::distribution::{ContinuousCDF, StudentsT};

/// A figure, and where it lies with 95 % certainty.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Estimate {
    /// The figure.
    pub value: f64,
    /// With 95 % certainty it is at least so much.
    pub low: f64,
    /// With 95 % certainty it is at most so much.
    pub high: f64,
}

/// What is known beforehand of how far readings scatter counts as much as so many readings (our own judgement).
const KNOWN_BEFOREHAND: f64 = 4.0;
/// A reading that lies further than so many robust standard deviations from the middle of all is an outlier.
///
/// Source: B. Iglewicz and D. C. Hoaglin: How to Detect and Handle Outliers, 1993 (from memory): the modified
/// z-score, 3.5.
const OUTLIES_FROM: f64 = 3.5;
/// The median absolute deviation of a normal distribution, against its standard deviation.
const MAD_PER_SD: f64 = 0.6745;

impl Estimate {
    /// The mean of what `values` are readings of, when such readings usually scatter by `usual_sd`; `None` of
    /// none.
    ///
    /// Bayes's rule for a normal mean without a prior and a scaled inverse chi-squared prior on the variance:
    /// Student's t with n + 3 degrees of freedom (A. Gelman et al.: Bayesian Data Analysis, section 3.3; from
    /// memory).
    pub fn of_mean(values: &[f64], usual_sd: f64) -> Option<Self> {
        let n = values.len() as f64;
        if values.is_empty() {
            return None;
        }
        let mean = values.iter().sum::<f64>() / n;
        let squares: f64 = values.iter().map(|v| (v - mean).powi(2)).sum();
        let freedom = KNOWN_BEFOREHAND + n - 1.0;
        let variance = (KNOWN_BEFOREHAND * usual_sd.powi(2) + squares) / freedom;
        let off = t_975(freedom) * (variance / n).sqrt();
        Some(Self {
            value: mean,
            low: mean - off,
            high: mean + off,
        })
    }

    /// The figure on a grid of `nodes` for which `misfit` gives each reading less what is reckoned at a node,
    /// when such readings usually scatter by `usual_sd`; `None` without readings, and where they do not tell
    /// within the grid.
    ///
    /// The same rule as in [`Self::of_mean`] with the scatter integrated out, summed over the grid: a figure's
    /// weight is (ν s² + Σ misfit²)^−(ν + n)/2.
    pub fn on_grid(nodes: &[f64], misfit: impl Fn(f64) -> Vec<f64>, usual_sd: f64) -> Option<Self> {
        let log_weight = |&node: &f64| {
            let off = misfit(node);
            let squares: f64 = off.iter().map(|off| off * off).sum();
            let exponent = (KNOWN_BEFOREHAND + off.len() as f64) / 2.0;
            -exponent * (KNOWN_BEFOREHAND * usual_sd.powi(2) + squares).ln()
        };
        Self::of_weights(nodes, &nodes.iter().map(log_weight).collect::<Vec<_>>())
    }

    /// The median and the middle 95 % of what weighs as much as `log_weights` say on a grid of `nodes`, which rise;
    /// `None` where much of it may lie beyond the grid.
    pub fn of_weights(nodes: &[f64], log_weights: &[f64]) -> Option<Self> {
        /// So much of the weight of the likeliest at an end of the grid, and the readings do not tell.
        const BEYOND: f64 = 0.1;
        let most = log_weights
            .iter()
            .copied()
            .fold(f64::NEG_INFINITY, f64::max);
        if !most.is_finite() {
            return None;
        }
        let weights: Vec<f64> = log_weights.iter().map(|w| (w - most).exp()).collect();
        if weights.last().is_some_and(|last| *last > BEYOND) || weights[0] > BEYOND {
            return None;
        }
        Self::within_bounds(nodes, log_weights)
    }

    /// The same of a figure that cannot lie beyond the grid.
    pub fn within_bounds(nodes: &[f64], log_weights: &[f64]) -> Option<Self> {
        let most = log_weights
            .iter()
            .copied()
            .fold(f64::NEG_INFINITY, f64::max);
        if !most.is_finite() {
            return None;
        }
        let weights: Vec<f64> = log_weights.iter().map(|w| (w - most).exp()).collect();
        let all: f64 = weights.iter().sum();
        let at = |share: f64| {
            let mut sum = 0.0;
            let reached = weights.iter().position(|weight| {
                sum += weight;
                sum >= share * all
            });
            nodes[reached.unwrap_or(nodes.len() - 1)]
        };
        Some(Self {
            value: at(0.5),
            low: at(0.025),
            high: at(0.975),
        })
    }

    /// The same with each figure as `of` has it, which rises.
    #[must_use]
    pub fn map(self, of: impl Fn(f64) -> f64) -> Self {
        Self {
            value: of(self.value),
            low: of(self.low),
            high: of(self.high),
        }
    }

    /// Whether `figure` may be what is measured.
    pub fn holds(&self, figure: f64) -> bool {
        (self.low..=self.high).contains(&figure)
    }
}

/// Student's t that 97.5 % stay under, for so many degrees of `freedom`.
pub fn t_975(freedom: f64) -> f64 {
    let t = StudentsT::new(0.0, 1.0, freedom).expect("freedom is more than 0");
    t.inverse_cdf(0.975)
}

/// Which of `values` stand out from the others, when such readings usually scatter by `usual_sd`. Of fewer than
/// three none does: nobody can say which is wrong.
pub fn outliers(values: &[f64], usual_sd: f64) -> Vec<bool> {
    if values.len() < 3 {
        return vec![false; values.len()];
    }
    let middle = median(values.to_vec());
    let off: Vec<f64> = values.iter().map(|value| (value - middle).abs()).collect();
    let scatter = (median(off.clone()) / MAD_PER_SD).max(usual_sd);
    off.iter()
        .map(|off| *off > OUTLIES_FROM * scatter)
        .collect()
}

/// The median of `values`, of which there is one at least.
pub fn median(mut values: Vec<f64>) -> f64 {
    values.sort_by(f64::total_cmp);
    let half = values.len() / 2;
    if values.len() % 2 == 1 {
        values[half]
    } else {
        (values[half - 1] + values[half]) / 2.0
    }
}
