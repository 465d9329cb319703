//! The log as it stands: what was corrected counts as it was corrected.

use std::collections::HashMap;

use crate::log::entry::Entry;

/// The entries that count, in the order in which they happened.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Told(Vec<Entry>);

impl Told {
    /// Of all `entries`, in the order in which they were kept.
    ///
    /// An entry counts as the last that corrects it says, and not at all where that takes it back. One that
    /// corrects a correction corrects what that did.
    pub fn of(entries: impl IntoIterator<Item = Entry>) -> Self {
        let mut first: HashMap<String, usize> = HashMap::new();
        let mut told: Vec<Option<Entry>> = Vec::new();
        for entry in entries {
            let corrected = entry
                .corrects
                .as_ref()
                .and_then(|id| first.get(id).copied());
            let at = corrected.unwrap_or(told.len());
            first.insert(entry.id.clone(), at);
            let counts = entry.fact.is_some().then_some(entry);
            match corrected {
                Some(at) => told[at] = counts,
                None => told.push(counts),
            }
        }
        let mut told: Vec<Entry> = told.into_iter().flatten().collect();
        // What has no hour comes before what has one on the same day; else the order stays.
        told.sort_by(|a, b| {
            let hour = |entry: &Entry| entry.at_h.unwrap_or(-1.0);
            a.on.cmp(&b.on).then(hour(a).total_cmp(&hour(b)))
        });
        Self(told)
    }

    /// All of them.
    pub fn all(&self) -> &[Entry] {
        &self.0
    }

    /// The life of a tray: what happened to it, and what came from it or went into it.
    pub fn of_tray<'a>(&'a self, tray: &'a str) -> impl Iterator<Item = &'a Entry> {
        let about = move |entry: &&Entry| {
            let fact = entry.fact.as_ref();
            fact.is_some_and(|fact| fact.trays().contains(&tray))
        };
        self.0.iter().filter(about)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::log::fact::Fact;
    use jiff::civil::date;

    fn entry(id: &str, day: i8, corrects: Option<&str>, left: Option<u32>) -> Entry {
        Entry {
            id: id.into(),
            on: date(2027, 3, day),
            at_h: None,
            corrects: corrects.map(Into::into),
            fact: left.map(|left| Fact::Thinned {
                tray: "a".into(),
                left,
            }),
            text: String::new(),
        }
    }

    fn ids(told: &Told) -> Vec<&str> {
        told.all().iter().map(|entry| entry.id.as_str()).collect()
    }

    #[test]
    fn a_correction_takes_the_place_and_taking_back_leaves_none() {
        let told = Told::of([
            entry("one", 3, None, Some(10)),
            entry("two", 1, None, Some(20)),
            entry("one-b", 4, Some("one"), Some(11)),
        ]);
        assert_eq!(ids(&told), ["two", "one-b"]);
        let told = Told::of([
            entry("one", 3, None, Some(10)),
            entry("gone", 3, Some("one"), None),
        ]);
        assert_eq!(ids(&told), Vec::<&str>::new());
    }

    #[test]
    fn the_last_correction_counts_however_it_is_addressed() {
        let first = || entry("one", 3, None, Some(10));
        let told = Told::of([
            first(),
            entry("b", 3, Some("one"), None),
            entry("c", 3, Some("b"), Some(12)),
        ]);
        assert_eq!(ids(&told), ["c"]);
        let told = Told::of([
            first(),
            entry("b", 3, Some("one"), Some(11)),
            entry("c", 3, Some("one"), Some(12)),
        ]);
        assert_eq!(ids(&told), ["c"]);
        // What was corrected before it came counts for itself.
        let told = Told::of([entry("c", 3, Some("one"), Some(12)), first()]);
        assert_eq!(ids(&told), ["c", "one"]);
    }

    #[test]
    fn a_trays_life_holds_what_came_from_it_and_went_into_it() {
        let potted = Entry {
            fact: Some(Fact::PottedOn {
                tray: "b".into(),
                into: "a".into(),
                plants: 8,
            }),
            ..entry("pot", 2, None, None)
        };
        let told = Told::of([entry("thin", 9, None, Some(3)), potted]);
        let life = |tray| {
            told.of_tray(tray)
                .map(|e| e.id.as_str())
                .collect::<Vec<_>>()
        };
        assert_eq!(life("a"), ["pot", "thin"]);
        assert_eq!((life("b"), life("c").len()), (vec!["pot"], 0));
    }
}
