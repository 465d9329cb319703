//! The lines of a file, and what no row of it can be.

/// More than this is no record of a garden: 300 years of days.
pub(super) const MOST_ROWS: u32 = 110_000;

/// After so many nobody wants to hear of the rest.
pub(super) const GIVEN_UP: u32 = 1000;

/// Minima outside of this are errors: the coldest ever measured outdoors where people garden, and
/// nights that never were so warm.
pub(super) const MINIMA_C: std::ops::RangeInclusive<f64> = -60.0..=35.0;

/// Days that never were so warm.
pub(super) const MOST_C: f64 = 60.0;

/// Years that a file's days may be of.
pub(super) const YEARS: std::ops::RangeInclusive<i16> = 1750..=2200;

/// The lines of a file, without a byte-order mark, each with its number from 1.
pub(super) struct Lines<'a>(std::iter::Peekable<std::iter::Enumerate<std::str::Lines<'a>>>);

/// A longer line is no row of a table of days.
const LONGEST_LINE: usize = 10_000;

impl<'a> Lines<'a> {
    pub(super) fn new(text: &'a str) -> Self {
        let text = text.strip_prefix('\u{feff}').unwrap_or(text);
        Self(text.lines().enumerate().peekable())
    }

    pub(super) fn peek(&mut self) -> Option<&'a str> {
        self.0.peek().map(|(_, line)| cut(line))
    }

    pub(super) fn next(&mut self) -> Option<(u32, &'a str)> {
        let (row, line) = self.0.next()?;
        Some((u32::try_from(row + 1).unwrap_or(u32::MAX), cut(line)))
    }
}

/// As much of a line as is looked at.
fn cut(line: &str) -> &str {
    line.get(..LONGEST_LINE).unwrap_or(line)
}
