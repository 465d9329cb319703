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

    /// In how many of `spans` each of its days lies, in order.
    pub fn counts(self, spans: impl IntoIterator<Item = Self>) -> Vec<u32> {
        let days = usize::try_from(self.count()).unwrap_or(0);
        let at = |date: Date| usize::try_from(days_between(self.from, date)).unwrap_or(0);
        // Who comes and who goes from one day to the next.
        let (mut come, mut gone) = (vec![0; days + 1], vec![0; days + 1]);
        let meeting = spans.into_iter().filter(|span| self.meets(*span));
        for span in meeting.filter(|span| span.from <= span.to) {
            come[at(span.from)] += 1;
            gone[(at(span.to) + 1).min(days)] += 1;
        }
        let turns = come.into_iter().zip(gone).take(days);
        let count = turns.scan(0_u32, |there, (come, gone)| {
            *there = *there + come - gone;
            Some(*there)
        });
        count.collect()
    }

    /// `date`, or the nearer end when it lies outside.
    pub fn clamp(self, date: Date) -> Date {
        date.clamp(self.from, self.to)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use jiff::civil::date;

    #[test]
    fn days_are_counted_in_as_many_spans_as_hold_them() {
        let day = |n: i32| plus_days(date(2027, 2, 20), n);
        let span = |from: i32, to: i32| DateSpan {
            from: day(from),
            to: day(to),
        };
        let all = [
            span(-5, 2),
            span(0, 0),
            span(2, 30),
            span(9, 9),
            span(5, 4),
            span(20, 25),
            span(-9, -1),
        ];
        let own = span(0, 9);
        let holding = |date: Date| all.iter().filter(|span| span.contains(date)).count() as u32;
        let each: Vec<u32> = own.days().map(holding).collect();
        assert_eq!(own.counts(all), each);
        assert_eq!(each, [2, 1, 2, 1, 1, 1, 1, 1, 1, 2]);
        assert!(span(3, 2).counts(all).is_empty());
    }
}
