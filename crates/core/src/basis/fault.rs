//! What is wrong with a document: every fault with its path, value and remedy.

use std::fmt;
use std::fmt::Write;
use std::ops::RangeInclusive;

use serde::Serialize;
use serde_json::Value;
use utoipa::ToSchema;

use crate::basis::range::Ranges;
use crate::basis::units::Quantity;
use crate::basis::words::{Statement, say};

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
        // Every part of a plan is pointed at, and hardly any is at fault: one string is made for each.
        let mut path = String::with_capacity(self.0.len() + 16);
        path.push_str(&self.0);
        path.push('/');
        let from = path.len();
        write!(path, "{step}").expect("a string takes all");
        if path[from..].contains(['~', '/']) {
            let escaped = path[from..].replace('~', "~0").replace('/', "~1");
            path.truncate(from);
            path.push_str(&escaped);
        }
        Self(path)
    }
}

impl fmt::Display for Pointer {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}

/// Whether a character is a command to the screen: control characters, and those that turn the
/// direction of what follows (Unicode Standard Annex 9, bidirectional formatting).
fn steers(c: char) -> bool {
    c.is_control()
        || matches!(c, '\u{2028}' | '\u{2029}' | '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}')
}

/// Whether a character leaves a mark on the page: no space, and none of those that Unicode has for
/// joining, for marking, or as blanks that count as letters.
fn is_seen(c: char) -> bool {
    !c.is_whitespace()
        && !matches!(c,
            '\u{ad}' | '\u{34f}' | '\u{61c}' | '\u{115f}' | '\u{1160}' | '\u{17b4}' | '\u{17b5}'
            | '\u{180b}'..='\u{180f}' | '\u{200b}'..='\u{200f}' | '\u{2060}'..='\u{206f}' | '\u{2800}'
            | '\u{3164}' | '\u{fe00}'..='\u{fe0f}' | '\u{feff}' | '\u{ffa0}' | '\u{fff0}'..='\u{fffb}'
            | '\u{1d173}'..='\u{1d17a}' | '\u{e0000}'..='\u{e0fff}')
}

/// Of a list that is too long so many entries are looked at: enough to see what went wrong.
const LOOKED_AT: usize = 20;
/// The most characters of what was sent that an answer repeats.
pub const MOST_ECHOED: usize = 200;
/// The most that are called by name when something is called by none of them.
const NAMED: usize = 20;

/// As much of `text` as an answer repeats.
pub fn shortened(text: &str) -> String {
    match text.char_indices().nth(MOST_ECHOED - 1) {
        Some((end, _)) if end + 1 < text.len() => format!("{}…", &text[..end]),
        _ => text.to_owned(),
    }
}

/// `value` as an answer repeats it: whole when it is short, else the beginning of its text.
pub fn echoed(value: Value) -> Value {
    match value {
        Value::String(text) => shortened(&text).into(),
        Value::Array(_) | Value::Object(_) => {
            let text = value.to_string();
            if text.len() > MOST_ECHOED {
                shortened(&text).into()
            } else {
                value
            }
        }
        short => short,
    }
}

/// Collects faults while a document is checked, so that all are named at once; and the ranges of its
/// figures, for whoever wants to know them beforehand.
#[derive(Debug, Default)]
pub struct Faults {
    found: Vec<Fault>,
    ranges: Option<Ranges>,
}

impl Faults {
    /// Notes the range of every figure that is checked, too.
    pub(crate) fn with_ranges() -> Self {
        Self {
            found: Vec::new(),
            ranges: Some(Ranges::default()),
        }
    }

    /// The ranges that were noted.
    pub(crate) fn into_ranges(self) -> Ranges {
        self.ranges.unwrap_or_default()
    }

    /// Notes a fault.
    pub fn add(
        &mut self,
        at: &Pointer,
        value: impl Serialize,
        problem: Statement,
        remedy: Statement,
    ) {
        if self.is_full() {
            return;
        }
        self.found.push(Fault {
            path: shortened(&at.to_string()),
            value: echoed(serde_json::to_value(value).unwrap_or(Value::Null)),
            problem,
            remedy,
        });
    }

    /// Whether so many faults are noted that nobody would read on: a garbled file must not answer
    /// with a hundred times its size, nor be looked through to its end.
    fn is_full(&self) -> bool {
        const MOST: usize = 500;
        self.found.len() >= MOST
    }

    /// Notes a list with fewer or more entries than `range` allows, and goes through it: each entry
    /// with its index. Of a list that is too long, the end is not looked at.
    pub fn list<'a, T>(
        &mut self,
        at: &Pointer,
        list: &'a [T],
        range: RangeInclusive<usize>,
    ) -> impl Iterator<Item = (usize, &'a T)> + use<'a, T> {
        let most = *range.end();
        let fine = self.count(at, list.len(), range);
        let looked_at = if fine {
            list.len()
        } else {
            most.min(LOOKED_AT)
        };
        list.iter().enumerate().take(looked_at)
    }

    /// Notes a number that is not finite or lies outside `range`; true when it is fine.
    pub fn number(
        &mut self,
        at: &Pointer,
        value: f64,
        range: RangeInclusive<f64>,
        quantity: Quantity,
    ) -> bool {
        if let Some(ranges) = &mut self.ranges {
            ranges.note(at, &range, quantity);
        }
        let fine = value.is_finite() && range.contains(&value);
        if !fine {
            self.add(
                at,
                value,
                say!("{value} is out of range", value = quantity.of(value)),
                say!(
                    "enter {least} to {most}",
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

    /// Notes a name that is empty or longer than 120 characters, of which nothing can be seen, or
    /// that holds characters which steer a screen instead of being read.
    pub fn name(&mut self, at: &Pointer, name: &str) {
        let length = name.chars().take(121).count();
        if length > 120 {
            self.add(
                at,
                name,
                say!("a name of more than 120 characters cannot be read on a label"),
                say!("give a name of 1 to 120 characters"),
            );
        } else if let Some(steering) = name.chars().find(|c| steers(*c)) {
            self.add(
                at,
                name.escape_debug().to_string(),
                say!(
                    "the character {code} cannot be seen: it changes how the rest is shown",
                    code = format!("U+{:04X}", u32::from(steering))
                ),
                say!("leave it out; letters, digits, signs and spaces of any language will do"),
            );
        } else if !name.chars().any(is_seen) {
            self.add(
                at,
                name.escape_debug().to_string(),
                say!("nothing of this name can be seen"),
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
                say!("\"{id}\" cannot be an identifier", id = shortened(id)),
                say!("use 1 to 40 small letters, digits and hyphens"),
            );
        }
    }

    /// Notes identifiers that stand twice in the list at `list`.
    pub fn unique<'a>(&mut self, list: &Pointer, ids: impl IntoIterator<Item = &'a str>) {
        let mut seen = std::collections::HashSet::new();
        for (i, id) in ids.into_iter().enumerate() {
            if self.is_full() {
                return;
            }
            if !seen.insert(id) {
                self.add(
                    &list.at(i).at("id"),
                    id,
                    say!("\"{id}\" is already taken in this list", id = shortened(id)),
                    say!("give each its own identifier"),
                );
            }
        }
    }

    /// Notes a reference that names nothing known.
    pub fn unknown(&mut self, at: &Pointer, id: &str, known: impl IntoIterator<Item = String>) {
        if self.is_full() {
            return;
        }
        let mut known = known.into_iter();
        let mut named: Vec<String> = known.by_ref().take(NAMED).collect();
        let more = known.count();
        if more > 0 {
            named.push(format!("and {more} more"));
        }
        let remedy = if named.is_empty() {
            say!("there is none to name yet: add one first")
        } else {
            say!("name one of: {known}", known = named.join(", "))
        };
        self.add(
            at,
            id,
            say!("there is no \"{id}\"", id = shortened(id)),
            remedy,
        );
    }

    /// All faults found, or `Ok` when there are none.
    pub fn verdict(self) -> Result<(), Vec<Fault>> {
        if self.found.is_empty() {
            Ok(())
        } else {
            Err(self.found)
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_pointer_is_written_as_rfc_6901_has_it() {
        let at = Pointer::default().at("a/b").at(7).at("m~n").at("plain");
        assert_eq!(at.to_string(), "/a~1b/7/m~0n/plain");
    }
}
