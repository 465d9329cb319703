//! Triggers when some gear is plugged in and some is not: nobody knows what the rest hangs on.

use crate::advice::finding::{Finding, Severity};
use crate::advice::wired::{Labelled, count, watts};
use crate::basis::words::say;
use crate::season::Reckoned;

pub(super) fn judge(reckoned: &Reckoned<'_>) -> Vec<Finding> {
    let Some(all) = Labelled::of(reckoned) else {
        return Vec::new();
    };
    let loose = all.draws.iter().filter(|draw| draw.plugged.is_none());
    let n = loose.clone().count() as u32;
    let Some(first) = loose.clone().next() else {
        return Vec::new();
    };
    vec![all.finding(
        Severity::Advice,
        say!("Say where {n} things are plugged in", n = count(n)),
        say!(
            "{first} and the rest draw {watts} by their labels, and no circuit counts them. Drag their cords in the Power view, or have it proposed there.",
            first = &first.name,
            watts = watts(loose.map(|draw| draw.watts).sum())
        ),
    )]
}

#[cfg(test)]
mod tests {
    use super::judge;
    use crate::advice::testing::{plan_judged, wired};

    #[test]
    fn speaks_of_what_is_loose_once_anything_is_plugged_in() {
        let one_in = wired(230.0, 16.0, |_| ());
        assert_eq!(plan_judged(&one_in, judge).len(), 1);
        let nothing_said = crate::advice::testing::one_rack(|_| ());
        assert!(plan_judged(&nothing_said, judge).is_empty());
        let all_in = wired(230.0, 16.0, crate::advice::testing::all_in_the_strip);
        assert!(plan_judged(&all_in, judge).is_empty());
    }
}
