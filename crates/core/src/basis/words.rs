//! Sentences with figures in them, so that a reason can be read in anybody's units.
//!
//! A [`Statement`] keeps its numbers apart from its words: the screen fills them in the reader's
//! units, the command line in SI.

use std::collections::BTreeMap;
use std::fmt;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::manner::{DateForm, Manner};
use crate::basis::units::Quantity;

/// A value inside a sentence.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
#[serde(tag = "is", rename_all = "snake_case")]
pub enum Figure {
    /// A number with what it measures.
    Number {
        /// The value in the quantity's own unit.
        value: f64,
        /// What it measures.
        quantity: Quantity,
    },
    /// A name.
    Text {
        /// The name as the user wrote it.
        text: String,
    },
    /// A calendar day.
    Day {
        /// The day.
        date: Date,
    },
}

impl Quantity {
    /// This quantity's figure of `value`, for use in a [`Statement`].
    pub fn of(self, value: f64) -> Figure {
        Figure::Number {
            value,
            quantity: self,
        }
    }
}

impl From<&str> for Figure {
    fn from(text: &str) -> Self {
        Self::Text { text: text.into() }
    }
}

impl From<&String> for Figure {
    fn from(text: &String) -> Self {
        text.as_str().into()
    }
}

impl From<String> for Figure {
    fn from(text: String) -> Self {
        Self::Text { text }
    }
}

impl From<Date> for Figure {
    fn from(date: Date) -> Self {
        Self::Day { date }
    }
}

impl fmt::Display for Figure {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Number {
                value,
                quantity: Quantity::ClockH,
            } => {
                let minutes = (value * 60.0).round() as i64;
                write!(f, "{:02}:{:02}", minutes / 60, minutes % 60)
            }
            Self::Number { value, quantity } => f.write_str(&quantity.si().write(*value)),
            Self::Text { text } => f.write_str(text),
            Self::Day { date } => write!(f, "{date}"),
        }
    }
}

impl Figure {
    /// The figure as its reader writes it.
    fn written(&self, manner: Manner) -> String {
        let month_first = manner.dates == DateForm::MonthFirst;
        match self {
            Self::Number {
                value,
                quantity: Quantity::ClockH,
            } if month_first => {
                let minutes = (value * 60.0).round() as i64 % (24 * 60);
                let (hour, half) = (minutes / 60, if minutes < 12 * 60 { "am" } else { "pm" });
                let hour = if hour % 12 == 0 { 12 } else { hour % 12 };
                format!("{hour}:{:02} {half}", minutes % 60)
            }
            Self::Number { value, quantity } if *quantity != Quantity::ClockH => {
                quantity.shown(manner.units).write(*value)
            }
            Self::Day { date } if month_first => date.strftime("%B %-d").to_string(),
            Self::Day { date } => date.strftime("%-d %B").to_string(),
            _ => self.to_string(),
        }
    }
}

/// A sentence whose `{names}` stand for figures. `Display` writes it in SI.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Statement {
    /// The words, with `{name}` where a figure goes.
    pub text: &'static str,
    /// The figures by name.
    pub figures: BTreeMap<&'static str, Figure>,
}

impl Statement {
    /// A sentence with its figures; use [`say!`](crate::say).
    pub fn new(
        text: &'static str,
        figures: impl IntoIterator<Item = (&'static str, Figure)>,
    ) -> Self {
        Self {
            text,
            figures: figures.into_iter().collect(),
        }
    }
}

impl Statement {
    /// The sentence as its reader writes figures.
    pub fn written(&self, manner: Manner) -> String {
        let mut written = String::new();
        // Writing to a string cannot fail.
        let _ = self.write_with(&mut written, |figure| figure.written(manner));
        written
    }

    fn write_with(
        &self,
        f: &mut impl fmt::Write,
        write: impl Fn(&Figure) -> String,
    ) -> fmt::Result {
        let mut rest = self.text;
        while let Some((before, after)) = rest.split_once('{') {
            let (name, tail) = after
                .split_once('}')
                .expect("a statement's braces are closed");
            let figure = self
                .figures
                .get(name)
                .expect("a statement has every figure that it names");
            write!(f, "{before}{}", write(figure))?;
            rest = tail;
        }
        f.write_str(rest)
    }
}

impl fmt::Display for Statement {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        self.write_with(f, Figure::to_string)
    }
}

/// Builds a [`Statement`]: `say!("at most {most}", most = Quantity::Hours.of(18.0))`.
#[macro_export]
#[doc(hidden)]
macro_rules! __say {
    ($text:literal $(, $name:ident = $value:expr)* $(,)?) => {
        $crate::basis::words::Statement::new($text, [$((stringify!($name), $crate::basis::words::Figure::from($value))),*])
    };
}

pub use crate::__say as say;

/// The answer to "why?" beside a figure: the rule with its inputs, and where the rule comes from.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Why {
    /// The rule, with its inputs as figures.
    pub rule: Statement,
    /// Published source, or how sure we are without one.
    pub source: &'static str,
}

/// How facts of the trade are marked that nobody published.
pub const COMMON_PRACTICE: &str = "growers' usual practice";
/// How our own estimates are marked.
pub const OWN_ESTIMATE: &str = "our own estimate";

#[cfg(test)]
mod tests {
    use super::*;
    use crate::basis::units::UnitSystem;

    #[test]
    fn figures_read_in_si_without_needless_zeros() {
        let s = say!(
            "{what} at {gap}, {hours} from {clock}, {share}, on {day}",
            what = "Lamp {1}",
            gap = Quantity::LengthMm.of(130.4),
            hours = Quantity::Hours.of(15.0),
            clock = Quantity::ClockH.of(6.5),
            share = Quantity::Share.of(0.5),
            day = jiff::civil::date(2027, 4, 9),
        );
        assert_eq!(
            s.to_string(),
            "Lamp {1} at 130 mm, 15 h from 06:30, 50%, on 2027-04-09"
        );
    }

    #[test]
    fn figures_read_as_their_reader_writes_them() {
        let s = say!(
            "{deep} deep at {warm}, {weeks} from {day}, {clock}",
            deep = Quantity::LengthMm.of(12.7),
            warm = Quantity::TemperatureC.of(20.0),
            weeks = Quantity::Weeks.of(1.0),
            day = jiff::civil::date(2027, 5, 6),
            clock = Quantity::ClockH.of(22.5),
        );
        let us = Manner {
            units: UnitSystem::Us,
            dates: DateForm::MonthFirst,
        };
        let metric = Manner {
            units: UnitSystem::Metric,
            dates: DateForm::DayFirst,
        };
        assert_eq!(
            s.written(us),
            "0.50 in deep at 68 °F, 1 week from May 6, 10:30 pm"
        );
        assert_eq!(
            s.written(metric),
            "1.3 cm deep at 20 °C, 1 week from 6 May, 22:30"
        );
    }
}
