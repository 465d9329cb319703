//! The log as it stands: what was corrected counts as it was corrected.

use std::collections::HashMap;

use crate::log::entry::Entry;

/// The entries that count. Further ones can be added as they come.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Told {
    /// What every entry says by now; nothing where it was taken back.
    slots: Vec<Option<Entry>>,
    /// Where an entry stands in `slots`, or what it corrects does.
    at: HashMap<String, usize>,
    /// The slots in the order in which things happened.
    order: Vec<usize>,
}

impl Told {
    /// Of all `entries`, in the order in which they were kept.
    pub fn of(entries: impl IntoIterator<Item = Entry>) -> Self {
        let mut told = Self::default();
        told.add(entries);
        told
    }

    /// Adds `entries` that were kept since, in that order.
    ///
    /// An entry counts as the last that corrects it says, and not at all where that takes it back. One that
    /// corrects a correction corrects what that did.
    pub fn add(&mut self, entries: impl IntoIterator<Item = Entry>) {
        for entry in entries {
            let corrected = entry.corrects.as_ref();
            let corrected = corrected.and_then(|id| self.at.get(id).copied());
            let slot = corrected.unwrap_or(self.slots.len());
            self.at.insert(entry.id.clone(), slot);
            let counts = entry.fact.is_some().then_some(entry);
            match corrected {
                Some(slot) => self.slots[slot] = counts,
                None => self.slots.push(counts),
            }
        }
        let counting = self.slots.iter().enumerate();
        let counting = counting.filter(|(_, slot)| slot.is_some());
        self.order = counting.map(|(slot, _)| slot).collect();
        let entry = |slot: &usize| self.slots[*slot].as_ref();
        // What has no hour comes before what has one on the same day; else the order stays.
        let when = |entry: &Entry| (entry.on, entry.at_h.map_or(-1, |h| (h * 3600.0) as i32));
        self.order.sort_by_key(|slot| entry(slot).map(when));
    }

    /// All of them, in the order in which they happened.
    pub fn all(&self) -> impl DoubleEndedIterator<Item = &Entry> {
        self.order
            .iter()
            .filter_map(|slot| self.slots[*slot].as_ref())
    }

    /// The life of a tray: what happened to it, and what came from it or went into it.
    pub fn of_tray<'a>(&'a self, tray: &'a str) -> impl Iterator<Item = &'a Entry> {
        let about = move |entry: &&Entry| {
            let fact = entry.fact.as_ref();
            fact.is_some_and(|fact| fact.trays().contains(&tray))
        };
        self.all().filter(about)
    }

    /// Whether the entry called `id` counts as it was kept: it was not corrected, nor taken back.
    pub fn stands(&self, id: &str) -> bool {
        let slot = self.at.get(id).and_then(|slot| self.slots[*slot].as_ref());
        slot.is_some_and(|entry| entry.id == id)
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
            photo: None,
        }
    }

    fn ids(told: &Told) -> Vec<&str> {
        told.all().map(|entry| entry.id.as_str()).collect()
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
        // As they come, one by one, it is the same.
        let mut by_and_by = Told::default();
        for entry in [
            first(),
            entry("b", 3, Some("one"), Some(11)),
            entry("c", 2, Some("one"), Some(12)),
        ] {
            by_and_by.add([entry]);
        }
        assert_eq!(ids(&by_and_by), ["c"]);
        assert!(by_and_by.stands("c") && !by_and_by.stands("one"));
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
