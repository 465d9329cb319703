//! Answers that were reckoned before: most days and most edits ask the same questions again.

use std::sync::{Mutex, PoisonError};

/// The last questions and their answers. An answer follows from its question alone, so whoever
/// asks gets what would be reckoned anew.
pub(super) struct Remembered<Q, A>(Mutex<Vec<(Q, A)>>);

/// How many are kept.
const MOST: usize = 500;

impl<Q: PartialEq, A: Clone> Remembered<Q, A> {
    pub(super) const fn new() -> Self {
        Self(Mutex::new(Vec::new()))
    }

    /// The answer to `question`.
    pub(super) fn ask(&self, question: Q, reckon: impl Fn(&Q) -> A) -> A {
        // A thread that panicked while it only read or pushed leaves the list sound.
        let open = || self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some((_, answer)) = open().iter().rev().find(|(asked, _)| *asked == question) {
            return answer.clone();
        }
        // Not under the lock: others may ask meanwhile.
        let answer = reckon(&question);
        let mut known = open();
        if known.len() >= MOST {
            known.drain(..MOST / 2);
        }
        known.push((question, answer.clone()));
        answer
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::cell::Cell;

    #[test]
    fn what_was_asked_is_not_reckoned_again_until_it_is_forgotten() {
        let memory = Remembered::new();
        let reckoned = Cell::new(0);
        let double = |n: &usize| {
            reckoned.set(reckoned.get() + 1);
            n * 2
        };
        assert_eq!((memory.ask(4, double), memory.ask(4, double)), (8, 8));
        assert_eq!(reckoned.get(), 1);
        for n in 10..10 + MOST {
            assert_eq!(memory.ask(n, double), n * 2);
        }
        assert_eq!(memory.ask(4, double), 8);
        assert_eq!(reckoned.get(), MOST + 2);
    }
}
