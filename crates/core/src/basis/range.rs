//! The ranges of a document's figures, told before anyone types one.

use std::collections::BTreeMap;
use std::ops::RangeInclusive;

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::units::Quantity;

/// What a figure can be.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Range {
    /// The least.
    pub least: f64,
    /// The greatest.
    pub most: f64,
    /// What it is a quantity of.
    pub quantity: Quantity,
}

/// Ranges by the path of the field in the document, with `*` for a place in a list:
/// `/places/*/tiers/*/photoperiod_h`. Where it hangs on other figures, the widest that was seen.
#[derive(Debug, Clone, Default, PartialEq, Serialize, ToSchema)]
pub struct Ranges(BTreeMap<String, Range>);

impl Ranges {
    pub(super) fn note(
        &mut self,
        at: &impl ToString,
        range: &RangeInclusive<f64>,
        quantity: Quantity,
    ) {
        let (least, most) = (*range.start(), *range.end());
        let seen = self.0.entry(in_general(&at.to_string())).or_insert(Range {
            least,
            most,
            quantity,
        });
        seen.least = seen.least.min(least);
        seen.most = seen.most.max(most);
    }

    /// The range of the field at `path`, in general or of one entry.
    pub fn of(&self, path: &str) -> Option<&Range> {
        self.0.get(&in_general(path))
    }

    /// With those of another document, whose paths begin with `root`.
    pub(crate) fn extend(&mut self, root: &str, other: Self) {
        let moved = other.0.into_iter();
        self.0
            .extend(moved.map(|(path, range)| (format!("{root}{path}"), range)));
    }
}

/// `/trays/3/stands/0/x_mm` as `/trays/*/stands/*/x_mm`.
fn in_general(path: &str) -> String {
    let is_index = |step: &str| !step.is_empty() && step.bytes().all(|b| b.is_ascii_digit());
    let steps = path
        .split('/')
        .map(|step| if is_index(step) { "*" } else { step });
    steps.collect::<Vec<_>>().join("/")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::basis::fault::{Faults, Pointer};

    #[test]
    fn places_in_lists_are_one_and_the_widest_range_counts() {
        let mut faults = Faults::with_ranges();
        for (i, most) in [(0, 5.0), (1, 9.0)] {
            let at = Pointer::default().at("lamps").at(i).at("x_mm");
            faults.number(&at, 1.0, 0.0..=most, Quantity::LengthMm);
        }
        let ranges = faults.into_ranges();
        assert_eq!(ranges.of("/lamps/*/x_mm").map(|r| r.most), Some(9.0));
        assert_eq!(ranges.of("/lamps/7/x_mm"), ranges.of("/lamps/*/x_mm"));
        assert_eq!(ranges.of("/lamps/*/y_mm"), None);
    }
}
