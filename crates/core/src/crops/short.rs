//! Short forms of the crops' names, for labels.

use std::collections::{BTreeMap, BTreeSet};
use std::sync::LazyLock;

use crate::crops::library::library;

/// The short form of the crop called `id`, "Lk" of leek: two letters where they suffice, and no
/// other crop of the library has it. A crop of one's own goes by its first two letters.
pub fn short(id: &str) -> String {
    static SHORT: LazyLock<BTreeMap<&str, String>> = LazyLock::new(|| {
        let mut taken = BTreeSet::new();
        let each = library().crops.iter().map(|crop| {
            let free = forms(&crop.id).find(|form| taken.insert(form.clone()));
            (crop.id.as_str(), free.expect("a whole name is a form"))
        });
        each.collect()
    });
    let known = SHORT.get(id).cloned();
    known.or_else(|| forms(id).next()).unwrap_or_default()
}

/// What an identifier may be shortened to: its first letter with each of the others, then more and
/// more of its beginning.
fn forms(id: &str) -> impl Iterator<Item = String> {
    let letters: Vec<char> = id.chars().filter(char::is_ascii_alphanumeric).collect();
    let first = letters.first().map(char::to_ascii_uppercase);
    let (pairs, begins) = (letters.clone(), letters);
    let pairs = (1..pairs.len()).filter_map(move |i| Some([first?, pairs[i]].iter().collect()));
    let lengths = (2..=begins.len()).chain([begins.len()]);
    let begins = lengths.filter_map(move |n| {
        let rest = begins.get(1..n)?.iter();
        Some(std::iter::once(first?).chain(rest.copied()).collect())
    });
    pairs.chain(begins)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn no_two_crops_share_a_short_form() {
        let all: BTreeSet<String> = library().crops.iter().map(|crop| short(&crop.id)).collect();
        assert_eq!(all.len(), library().crops.len());
        let two = all.iter().filter(|form| form.len() == 2).count();
        assert!(two * 10 > all.len() * 8, "most take two letters");
        for (id, form) in [
            ("tomato", "To"),
            ("lettuce", "Le"),
            ("leek", "Lk"),
            ("pea", "Pea"),
        ] {
            assert_eq!(short(id), form);
        }
        assert_eq!(short("oca-of-my-own"), "Oc");
        assert_eq!(short("x"), "X");
    }
}
