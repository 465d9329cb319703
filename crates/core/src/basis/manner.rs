//! How somebody reads figures: in which units, and with days and times in which form.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::units::{ShownUnit, UnitSystem};

/// How days and times are written.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum DateForm {
    /// 6 May 2027, 22:30.
    DayFirst,
    /// May 6, 2027, 10:30 pm.
    MonthFirst,
}

/// How somebody reads figures: in which units, and with days in which form.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Manner {
    /// The units.
    pub units: UnitSystem,
    /// Days and times.
    pub dates: DateForm,
}

impl ShownUnit {
    /// `value`, which is held in SI, with its unit.
    pub fn write(&self, value: f64) -> String {
        let number = format!(
            "{:.*}",
            usize::from(self.decimals),
            value * self.factor + self.offset
        );
        // "15 h", not "15.0 h": a trailing zero claims an accuracy nobody asked for.
        let number = match number.split_once('.') {
            Some((whole, zeros)) if zeros.bytes().all(|b| b == b'0') => whole,
            _ => &number,
        };
        match self.unit {
            "" => number.to_owned(),
            "%" | "°" => format!("{number}{}", self.unit),
            // "1 week", not "1 weeks".
            "days" | "weeks" | "years" if number == "1" => {
                format!("{number} {}", self.unit.trim_end_matches('s'))
            }
            unit => format!("{number} {unit}"),
        }
    }
}
