//! What readings are gathered into before anything is learned from them.

use std::collections::HashMap;

use jiff::civil::Date;

use crate::basis::learned::{Learned, readings};
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};
use crate::learning::estimate::{Estimate, median, outliers};
use crate::learning::lesson::LessonReading;
use crate::log::detail::{About, Measurement};
use crate::log::entry::Entry;
use crate::log::fact::Fact;
use crate::log::told::Told;
use crate::plan::{Stand, Tray};
use crate::season::{Reckoned, SowingDates};

/// What lessons are drawn from.
#[derive(Debug, Clone, Copy)]
pub(super) struct Asked<'a, 'r> {
    pub(super) reckoned: &'a Reckoned<'r>,
    pub(super) told: &'a Told,
    /// Entries that count though they stand out.
    pub(super) put_in: &'a [String],
    /// What was measured in the mix.
    pub(super) soil: &'a Soil,
}

/// What was measured in the mix of each tray: read from the log once.
#[derive(Debug, Default)]
pub(super) struct Soil(HashMap<String, Vec<(Date, f64)>>);

impl Soil {
    /// Of all that is `told`.
    pub(super) fn of(told: &Told) -> Self {
        let mut soil = Self::default();
        for entry in told.all() {
            if let Some(Fact::Measured {
                about: About::Tray(tray),
                reading: Measurement::SoilC(c),
            }) = &entry.fact
            {
                soil.0.entry(tray.clone()).or_default().push((entry.on, *c));
            }
        }
        soil
    }
}

/// A reading with what is reckoned for it.
#[derive(Debug, Clone)]
pub(super) struct Evidence {
    pub(super) entry: String,
    pub(super) on: Date,
    pub(super) at: String,
    pub(super) measured: f64,
    pub(super) reckoned: f64,
    pub(super) quantity: Quantity,
    /// How far it is from what is reckoned: the difference, or the logarithm of the ratio.
    pub(super) off: f64,
    /// Why it does not count, whatever the others say.
    pub(super) no: Option<Statement>,
    /// Whether it stands out from the others.
    pub(super) outlies: bool,
}

/// So many readings of a thing count, the latest: older ones tell of another year's dust.
const MOST_READINGS: usize = 30;

impl<'r> Asked<'_, 'r> {
    /// What was measured, the latest first.
    pub(super) fn measured(&self) -> impl Iterator<Item = (&Entry, &About, Measurement)> {
        self.told.all().rev().filter_map(|entry| match &entry.fact {
            Some(Fact::Measured { about, reading }) => Some((entry, about, *reading)),
            _ => None,
        })
    }

    /// The tray called `id`, and its stand on `date`; `None` where it stands nowhere then.
    pub(super) fn stood(&self, id: &str, date: Date) -> Option<(&'r Tray, &'r Stand)> {
        let plan = self.reckoned.plan;
        let tray = &plan.trays[plan.tray_index(id)?];
        let stage = self.reckoned.moments_of(tray).stage_on(date)?;
        Some((tray, tray.stand_on(stage, date)?))
    }

    /// The mean of the mix in `tray` as it was measured from its sowing until most were up, in °C; `None` where
    /// nobody measured.
    pub(super) fn germinated_at_c(&self, tray: &str, dates: &SowingDates) -> Option<f64> {
        let until = dates.last.or(dates.emerge)?;
        let soil = self.soil.0.get(tray)?.iter();
        let soil = soil.filter(|(on, _)| (dates.sow..=until).contains(on));
        let soil: Vec<f64> = soil.map(|(_, c)| *c).collect();
        (!soil.is_empty()).then(|| median(soil))
    }

    /// `all` of a thing with what stands out marked, when such readings usually scatter by `usual_sd`.
    pub(super) fn weighed(&self, mut all: Vec<Evidence>, usual_sd: f64) -> Vec<Evidence> {
        all.truncate(MOST_READINGS);
        let counting: Vec<usize> = (0..all.len()).filter(|&i| all[i].no.is_none()).collect();
        let off: Vec<f64> = counting.iter().map(|&i| all[i].off).collect();
        for (i, outlies) in counting.into_iter().zip(outliers(&off, usual_sd)) {
            all[i].outlies = outlies;
        }
        all
    }

    /// Whether `own` counts.
    pub(super) fn counts(&self, own: &Evidence) -> bool {
        own.no.is_none() && (!own.outlies || self.put_in.contains(&own.entry))
    }

    /// What counts of `all`.
    pub(super) fn counting<'e>(&self, all: &'e [Evidence]) -> Vec<&'e Evidence> {
        all.iter().filter(|own| self.counts(own)).collect()
    }

    /// `all` as they are shown.
    pub(super) fn shown(&self, all: Vec<Evidence>) -> Vec<LessonReading> {
        let shown = |own: Evidence| LessonReading {
            left_out: match own.no.clone() {
                Some(no) => Some(no),
                None if self.counts(&own) => None,
                None => Some(say!(
                    "it stands out from the others: a slip of hand, eye or instrument"
                )),
            },
            can_be_put_in: own.no.is_none() && own.outlies,
            entry: own.entry,
            on: own.on,
            at: own.at,
            measured: own.measured,
            reckoned: own.reckoned,
            quantity: own.quantity,
        };
        all.into_iter().map(shown).collect()
    }
}

impl Evidence {
    /// `measured` in `entry` beside what is `reckoned`, apart by a ratio.
    pub(super) fn by_ratio(
        entry: &Entry,
        at: String,
        quantity: Quantity,
        measured: f64,
        reckoned: f64,
    ) -> Self {
        let off = (measured.max(1e-6) / reckoned.max(1e-6)).ln();
        Self {
            off,
            ..Self::by_difference(entry, at, quantity, measured, reckoned)
        }
    }

    /// `measured` in `entry` beside what is `reckoned`, apart by a difference.
    pub(super) fn by_difference(
        entry: &Entry,
        at: String,
        quantity: Quantity,
        measured: f64,
        reckoned: f64,
    ) -> Self {
        Self {
            entry: entry.id.clone(),
            on: entry.on,
            at,
            measured,
            reckoned,
            quantity,
            off: measured - reckoned,
            no: None,
            outlies: false,
        }
    }

    /// The same, which does not count because of `why`.
    pub(super) fn unless(self, why: Option<Statement>) -> Self {
        Self { no: why, ..self }
    }
}

/// What `counting` readings say, where a correction of `estimate` is taken; the last of them gives the day.
pub(super) fn learned(estimate: Estimate, counting: &[&Evidence]) -> Option<Learned> {
    Some(Learned {
        value: rounded(estimate.value),
        low: rounded(estimate.low),
        high: rounded(estimate.high),
        readings: counting.len() as u32,
        on: counting.iter().map(|own| own.on).max()?,
    })
}

/// Four digits are more than any reading tells.
fn rounded(value: f64) -> f64 {
    (value * 1000.0).round() / 1000.0
}

/// So many readings, as a figure.
pub(super) fn so_many(counting: &[&Evidence]) -> crate::basis::words::Figure {
    readings(counting.len() as u32).as_str().into()
}
