//! What is wrong with a document: every fault with its path, value and remedy.

use std::fmt;
use std::ops::RangeInclusive;

use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;

use crate::say;
use crate::units::Quantity;
use crate::words::Statement;

/// One thing that is wrong, said so that it can be mended.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Fault {
    /// JSON Pointer (RFC 6901) of the field within the document.
    pub path: String,
    /// What stands there now.
    pub value: Value,
    /// What is wrong with it.
    pub problem: Statement,
    /// What would be right.
    pub remedy: Statement,
}

impl fmt::Display for Fault {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}: {}; {}", self.path, self.problem, self.remedy)
    }
}

/// A JSON Pointer under construction.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Pointer(String);

impl Pointer {
    /// The pointer of a member, or of an element when `step` is a number.
    pub fn at(&self, step: impl fmt::Display) -> Self {
        let step = step.to_string().replace('~', "~0").replace('/', "~1");
        Self(format!("{}/{step}", self.0))
    }
}

impl fmt::Display for Pointer {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}

/// Collects faults while a document is checked, so that all are named at once.
#[derive(Debug, Default)]
pub struct Faults(Vec<Fault>);

impl Faults {
    /// Notes a fault.
    pub fn add(
        &mut self,
        at: &Pointer,
        value: impl Serialize,
        problem: Statement,
        remedy: Statement,
    ) {
        // Past this nobody reads on; a garbled file must not answer with a hundred times its size.
        const MOST: usize = 500;
        if self.0.len() >= MOST {
            return;
        }
        self.0.push(Fault {
            path: at.to_string(),
            value: serde_json::to_value(value).unwrap_or(Value::Null),
            problem,
            remedy,
        });
    }

    /// Notes a number that is not finite or lies outside `range`; true when it is fine.
    pub fn number(
        &mut self,
        at: &Pointer,
        value: f64,
        range: RangeInclusive<f64>,
        quantity: Quantity,
    ) -> bool {
        let fine = value.is_finite() && range.contains(&value);
        if !fine {
            self.add(
                at,
                value,
                say!(
                    "{value} is not a figure this can have",
                    value = quantity.of(value)
                ),
                say!(
                    "give a number from {least} to {most}",
                    least = quantity.of(*range.start()),
                    most = quantity.of(*range.end())
                ),
            );
        }
        fine
    }

    /// Notes a list with fewer or more entries than `range` allows; true when it is fine.
    pub fn count(&mut self, at: &Pointer, entries: usize, range: RangeInclusive<usize>) -> bool {
        let count = |n: usize| Quantity::Count.of(n as f64);
        let fine = range.contains(&entries);
        if !fine {
            self.add(
                at,
                entries,
                say!("a list of {entries} entries", entries = count(entries)),
                say!(
                    "give {least} to {most} entries",
                    least = count(*range.start()),
                    most = count(*range.end())
                ),
            );
        }
        fine
    }

    /// Notes a name that is empty or longer than 120 characters.
    pub fn name(&mut self, at: &Pointer, name: &str) {
        let length = name.chars().count();
        if name.trim().is_empty() || length > 120 {
            self.add(
                at,
                name,
                say!(
                    "a name of {length} characters cannot be read on a label",
                    length = Quantity::Count.of(length as f64)
                ),
                say!("give a name of 1 to 120 characters"),
            );
        }
    }

    /// Notes an identifier that is not made of 1 to 40 small letters, digits and hyphens.
    pub fn id(&mut self, at: &Pointer, id: &str) {
        let fine = (1..=40).contains(&id.len())
            && id
                .bytes()
                .all(|b| b.is_ascii_lowercase() || b.is_ascii_digit() || b == b'-');
        if !fine {
            self.add(
                at,
                id,
                say!("\"{id}\" cannot be an identifier", id = id),
                say!("use 1 to 40 small letters, digits and hyphens"),
            );
        }
    }

    /// Notes identifiers that stand twice in the list at `list`.
    pub fn unique<'a>(&mut self, list: &Pointer, ids: impl IntoIterator<Item = &'a str>) {
        let mut seen = std::collections::HashSet::new();
        for (i, id) in ids.into_iter().enumerate() {
            if !seen.insert(id) {
                self.add(
                    &list.at(i).at("id"),
                    id,
                    say!("\"{id}\" is already taken in this list", id = id),
                    say!("give each its own identifier"),
                );
            }
        }
    }

    /// Notes a reference that names nothing known.
    pub fn unknown(&mut self, at: &Pointer, id: &str, known: impl IntoIterator<Item = String>) {
        let known: Vec<String> = known.into_iter().collect();
        let remedy = if known.is_empty() {
            say!("there is none to name yet: add one first")
        } else {
            say!("name one of: {known}", known = known.join(", "))
        };
        self.add(
            at,
            id,
            say!("nothing here is called \"{id}\"", id = id),
            remedy,
        );
    }

    /// All faults found, or `Ok` when there are none.
    pub fn verdict(self) -> Result<(), Vec<Fault>> {
        if self.0.is_empty() {
            Ok(())
        } else {
            Err(self.0)
        }
    }
}
