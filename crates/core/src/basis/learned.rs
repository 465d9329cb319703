//! What measurements said of a figure: a correction that somebody accepted.

use std::ops::RangeInclusive;

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::fault::{Faults, Pointer};
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};

/// A correction that measurements gave, with how sure they are of it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Learned {
    /// The correction: a share of what is stated, or a difference in K, as its field says.
    pub value: f64,
    /// With 95 % certainty it is at least so much.
    pub low: f64,
    /// With 95 % certainty it is at most so much.
    pub high: f64,
    /// Readings that it rests on.
    pub readings: u32,
    /// The day of the last of them.
    pub on: Date,
}

impl Learned {
    /// A correction taken for certain.
    pub(crate) fn plain(value: f64, on: Date) -> Self {
        Self {
            value,
            low: value,
            high: value,
            readings: 1,
            on,
        }
    }

    /// The share that `learned` says; all where nothing was learned.
    pub fn share(learned: Option<Self>) -> f64 {
        learned.map_or(1.0, |learned| learned.value)
    }

    /// Notes what of it cannot be, where it is a difference of air at `at`, in K.
    pub(crate) fn check_difference(self, at: &Pointer, faults: &mut Faults) {
        const MOST_K: f64 = 20.0;
        for (name, k) in [
            ("value", self.value),
            ("low", self.low),
            ("high", self.high),
        ] {
            faults.number(&at.at(name), k, -MOST_K..=MOST_K, Quantity::DifferenceK);
        }
        let n = f64::from(self.readings);
        faults.number(&at.at("readings"), n, 1.0..=100_000.0, Quantity::Count);
    }

    /// The same for something that is so many times as much.
    #[must_use]
    pub(crate) fn times(self, so_many: f64) -> Self {
        Self {
            value: self.value * so_many,
            low: self.low * so_many,
            high: self.high * so_many,
            ..self
        }
    }

    /// The same in words, for whoever asks why a figure is as it is.
    pub fn words(self, quantity: Quantity) -> Statement {
        say!(
            "taken at {value} ({low} to {high}) by {n} up to {on}",
            value = quantity.of(self.value),
            low = quantity.of(self.low),
            high = quantity.of(self.high),
            on = self.on,
            n = &readings(self.readings),
        )
    }

    /// Notes what of it cannot be, where it is the correction at `at`.
    pub(crate) fn check(
        self,
        at: &Pointer,
        range: RangeInclusive<f64>,
        quantity: Quantity,
        faults: &mut Faults,
    ) {
        let (least, most) = (*range.start(), *range.end());
        if !faults.number(&at.at("value"), self.value, range, quantity) {
            return;
        }
        let (low, high) = (least..=self.value, self.value..=most.max(self.value) * 4.0);
        faults.number(&at.at("low"), self.low, low, quantity);
        faults.number(&at.at("high"), self.high, high, quantity);
        let n = f64::from(self.readings);
        faults.number(&at.at("readings"), n, 1.0..=100_000.0, Quantity::Count);
    }
}

/// So many readings, in words.
pub(crate) fn readings(n: u32) -> String {
    match n {
        1 => "one reading".into(),
        n => format!("{n} readings"),
    }
}
