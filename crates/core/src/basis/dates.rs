//! Whole days of the calendar.

use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Whole days from `from` to `to`, negative when `to` comes first.
pub fn days_between(from: Date, to: Date) -> i32 {
    from.until(to).map_or(0, |span| span.get_days())
}

/// `date` shifted by whole days, held at the calendar's ends.
pub fn plus_days(date: Date, days: i32) -> Date {
    date.saturating_add(jiff::Span::new().days(days.clamp(-100_000, 100_000)))
}

/// Days from one date up to and including another.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DateSpan {
    /// First day.
    pub from: Date,
    /// Last day.
    pub to: Date,
}

impl DateSpan {
    /// A single day.
    pub fn day(date: Date) -> Self {
        Self {
            from: date,
            to: date,
        }
    }

    /// Its days in order.
    pub fn days(self) -> impl Iterator<Item = Date> {
        self.from
            .series(jiff::Span::new().days(1))
            .take_while(move |date| *date <= self.to)
    }

    /// How many days it has.
    pub fn count(self) -> i32 {
        days_between(self.from, self.to) + 1
    }

    /// Whether both have a day in common.
    pub fn meets(self, other: Self) -> bool {
        self.from <= other.to && other.from <= self.to
    }

    /// Whether `date` is one of them.
    pub fn contains(self, date: Date) -> bool {
        (self.from..=self.to).contains(&date)
    }

    /// `date`, or the nearer end when it lies outside.
    pub fn clamp(self, date: Date) -> Date {
        date.clamp(self.from, self.to)
    }
}
