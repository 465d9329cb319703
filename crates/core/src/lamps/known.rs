//! Choices that were made before: while one lamp is dragged, all other bays ask what they asked before.

use std::hash::{DefaultHasher, Hasher};
use std::sync::{LazyLock, Mutex, PoisonError};

use rustc_hash::FxHashMap;

use crate::lamps::choice::{Choice, Setting, Want};
use crate::lamps::hours::HourLimits;
use crate::lamps::outcome::Outcome;

/// What tells a question from all others.
pub(super) type Question = [u64; 2];

/// Answers by their questions. An answer follows from its question alone, so whoever asks gets what would be
/// searched anew.
#[derive(Debug)]
pub(super) struct Known<A>(LazyLock<Mutex<Turns<A>>>);

/// What was asked since the last turn is young; what was not asked for two turns is forgotten.
#[derive(Debug)]
struct Turns<A> {
    young: FxHashMap<Question, A>,
    old: FxHashMap<Question, A>,
}

/// So many young ones make a turn.
const MOST: usize = 2000;

impl<A> Default for Turns<A> {
    fn default() -> Self {
        Self {
            young: FxHashMap::default(),
            old: FxHashMap::default(),
        }
    }
}

impl<A: Copy> Turns<A> {
    fn get(&mut self, question: &Question) -> Option<A> {
        if let Some(answer) = self.young.get(question) {
            return Some(*answer);
        }
        let answer = self.old.remove(question)?;
        self.keep(*question, answer);
        Some(answer)
    }

    fn keep(&mut self, question: Question, answer: A) {
        if self.young.len() >= MOST {
            self.old = std::mem::take(&mut self.young);
        }
        self.young.insert(question, answer);
    }
}

impl<A: Copy> Known<A> {
    pub(super) const fn new() -> Self {
        Self(LazyLock::new(Mutex::default))
    }

    /// The answer to `question`: what `search` finds, where that was not asked before; each time where there
    /// is no question to know it by.
    pub(super) fn ask(&self, question: Option<Question>, search: impl FnOnce() -> A) -> A {
        // A thread that panicked while it only read or put in leaves it sound.
        let open = || self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let Some(question) = question else {
            return search();
        };
        if let Some(answer) = open().get(&question) {
            return answer;
        }
        // Not under the lock: others may ask meanwhile.
        let answer = search();
        open().keep(question, answer);
        answer
    }
}

/// All that a choice for `wants` follows from, with the lamps now at a setting that comes to an outcome, and
/// touching what stands there or not; `None` where the light of a part has no name.
pub(super) fn question(
    (wants, choices): (&[Want<'_>], &[Choice]),
    limits: HourLimits,
    (set, is, touches): (Setting, Outcome, bool),
) -> Option<Question> {
    // Two questions that one of them takes for the same the other does not.
    let mut hashers = [0, 1].map(|seed| {
        let mut hasher = DefaultHasher::new();
        hasher.write_u64(seed);
        hasher
    });
    let mut take = |values: &[f64]| {
        for hasher in &mut hashers {
            hasher.write_usize(values.len());
            values.iter().for_each(|v| hasher.write_u64(v.to_bits()));
        }
    };
    for want in wants {
        let (name, band) = (want.name?, want.band);
        take(&name.figures());
        take(&want.besides);
        take(&[band.low, band.high, band.bleaches_over]);
    }
    for choice in choices {
        take(&[choice.height_mm, choice.lift_mm, choice.brightness]);
    }
    take(&[limits.most_h, limits.free_h, limits.used_h]);
    take(&[set.height_mm, set.lift_mm, set.brightness, set.hours_h]);
    take(&[is.cells, is.harmed, is.stretched, is.under, is.over]);
    take(&[is.lacks_to_stretch, is.lacks, is.daily, is.unused]);
    take(&[f64::from(u8::from(touches))]);
    Some(hashers.map(|hasher| hasher.finish()))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::basis::plane::Footprint;
    use crate::lamps::bands::LightBand;
    use crate::lamps::choice::LightName;
    use crate::light::field_name::FieldName;
    use std::cell::Cell;
    use std::rc::Rc;

    fn want(name: Option<FieldName>, besides: f64) -> Want<'static> {
        let outline = Footprint {
            x_mm: [0.0, 280.0],
            y_mm: [0.0, 540.0],
        };
        Want {
            light: Rc::new(|_, _| vec![100.0]),
            name: name.map(|field| LightName {
                field,
                outline,
                grid: (6, 12),
                over_feet_mm: 90.0,
                through: 1.0,
            }),
            besides: vec![besides],
            band: LightBand {
                low: 10.0,
                high: 15.0,
                bleaches_over: 600.0,
            },
        }
    }

    #[test]
    fn the_same_is_searched_once_and_whatever_differs_is_another_question() {
        let (known, searched) = (Known::new(), Cell::new(0));
        let choice = Choice {
            height_mm: 200.0,
            lift_mm: 0.0,
            brightness: 1.0,
        };
        let limits = HourLimits {
            most_h: 16.0,
            free_h: 24.0,
            used_h: 12.0,
        };
        let ask = |want: Want<'_>, height_mm: f64| {
            let setting = Setting::new(choice, 14.0);
            let hung = Setting {
                height_mm,
                ..setting
            };
            let now = (hung, Outcome::default(), false);
            let question = question((&[want], &[choice]), limits, now);
            known.ask(question, || searched.set(searched.get() + 1));
        };
        let field = FieldName::of_its_own();
        let times = |want: &dyn Fn() -> Want<'static>, height_mm: f64| {
            let before = searched.get();
            ask(want(), height_mm);
            ask(want(), height_mm);
            searched.get() - before
        };
        assert_eq!(times(&|| want(Some(field), 0.0), 200.0), 1);
        assert_eq!(times(&|| want(Some(field), 0.0), 200.0), 0);
        assert_eq!(times(&|| want(Some(field), 0.5), 200.0), 1);
        assert_eq!(times(&|| want(Some(field), 0.0), 210.0), 1);
        let other = FieldName::of_its_own();
        assert_eq!(times(&|| want(Some(other), 0.0), 200.0), 1);
        // Light that has no name is searched each time.
        assert_eq!(times(&|| want(None, 0.0), 200.0), 2);
    }

    #[test]
    fn what_is_asked_again_stays_and_the_rest_is_forgotten_in_two_turns() {
        let mut known = Turns::default();
        known.keep([0, 0], ());
        known.keep([0, 1], ());
        for n in 1..=2 * MOST as u64 {
            known.keep([n, 0], ());
            assert!(known.get(&[0, 0]).is_some(), "{n}");
        }
        assert!(known.get(&[0, 1]).is_none());
        assert!(known.young.len() <= MOST && known.old.len() <= MOST);
    }
}
