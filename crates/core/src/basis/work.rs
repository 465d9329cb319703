//! Work that can be stopped: whoever asked has gone, or the time allowed for it is up.
//!
//! Core knows no clock, so somebody else decides: the server holds a [`Work`] and stops it. The
//! computation calls [`go_on`] wherever it is about to do something costly, and is unwound there
//! once it was told to stop. Nothing computed so far is kept, and nothing is half changed: core
//! only ever takes plain data in and gives plain data out.

use std::cell::RefCell;
use std::num::NonZero;
use std::ops::Range;
use std::panic::{AssertUnwindSafe, catch_unwind, resume_unwind};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, LazyLock, Mutex, MutexGuard, PoisonError};

/// A computation that can be stopped from another thread.
///
/// ```
/// use sunrise_core::basis::work::{self, Work};
/// let work = Work::default();
/// assert_eq!(work.run(|| 6 * 7), Ok(42));
/// work.stop();
/// assert_eq!(work.run(|| loop { work::go_on() }), Err::<(), _>(work::Stopped));
/// ```
#[derive(Debug, Clone, Default)]
pub struct Work {
    stopped: Arc<AtomicBool>,
}

/// The computation was stopped before it was done.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Stopped;

thread_local! {
    /// What this thread is computing, if anybody may stop it.
    static CURRENT: RefCell<Option<Arc<AtomicBool>>> = const { RefCell::new(None) };
}

/// Puts back what the thread computed before, however the computation ends.
struct Restore(Option<Arc<AtomicBool>>);

impl Drop for Restore {
    fn drop(&mut self) {
        let before = self.0.take();
        CURRENT.with(|current| current.replace(before));
    }
}

impl Work {
    /// Tells the computation to stop at its next [`go_on`].
    pub fn stop(&self) {
        self.stopped.store(true, Ordering::Relaxed);
    }

    /// Whether it was told to stop.
    pub fn is_stopped(&self) -> bool {
        self.stopped.load(Ordering::Relaxed)
    }

    /// Computes, on this thread.
    ///
    /// # Errors
    /// [`Stopped`] when it was told to stop before it was done.
    ///
    /// # Panics
    /// When the computation itself does.
    pub fn run<T>(&self, compute: impl FnOnce() -> T) -> Result<T, Stopped> {
        let before = CURRENT.with(|current| current.replace(Some(self.stopped.clone())));
        let restore = Restore(before);
        // Plain data comes out or nothing does: there is nothing that could be seen half done.
        let outcome = catch_unwind(AssertUnwindSafe(compute));
        drop(restore);
        outcome.map_err(|cause| match cause.downcast::<Stopped>() {
            Ok(stopped) => *stopped,
            Err(panic) => resume_unwind(panic),
        })
    }
}

/// Goes on unless the computation that this thread is busy with was told to stop. Costs about as
/// much as a comparison, so loops may call it freely.
pub fn go_on() {
    let stopped = CURRENT.with(|current| {
        let current = current.borrow();
        current.as_ref().is_some_and(|s| s.load(Ordering::Relaxed))
    });
    if stopped {
        // Unwinds without the panic hook's message: nothing went wrong.
        resume_unwind(Box::new(Stopped));
    }
}

/// The items of a stretch that nobody took yet, by their places.
struct Stretch(Mutex<Range<usize>>);

impl Stretch {
    fn first(&self) -> Option<usize> {
        self.open().next()
    }

    fn last(&self) -> Option<usize> {
        self.open().next_back()
    }

    fn open(&self) -> MutexGuard<'_, Range<usize>> {
        self.0.lock().unwrap_or_else(PoisonError::into_inner)
    }
}

/// Asked for once: the system reads several files to answer.
static PROCESSORS: LazyLock<usize> =
    LazyLock::new(|| std::thread::available_parallelism().map_or(1, NonZero::get));

fn processors() -> usize {
    *PROCESSORS
}

/// `items` in as many stretches as there are processors.
pub fn stretches<T>(items: &[T]) -> Vec<&[T]> {
    let long = items.len().div_ceil(processors()).max(1);
    items.chunks(long).collect()
}

/// What `each` makes of every item, in their order: each processor takes a stretch of its own from the front,
/// and one that has done its own helps with the others' from behind. Stopping stops them all.
///
/// # Panics
/// When one of them does.
pub fn side_by_side<T: Sync, R: Send>(items: &[T], each: impl Fn(&T) -> R + Sync) -> Vec<R> {
    side_by_side_with(items, || (), |(), item| each(item))
}

/// The same for work that keeps something from one item to the next: each processor keeps its own, and
/// begins with what `begin` gives.
///
/// # Panics
/// When one of them does.
pub fn side_by_side_with<T: Sync, K, R: Send>(
    items: &[T],
    begin: impl Fn() -> K + Sync,
    each: impl Fn(&mut K, &T) -> R + Sync,
) -> Vec<R> {
    let threads = processors().min(items.len());
    if threads < 2 {
        let mut kept = begin();
        return items.iter().map(|item| each(&mut kept, item)).collect();
    }
    let current = CURRENT.with(|current| current.borrow().clone());
    // Neighbours have most in common, so what one processor keeps is seldom made by another too.
    let begins = |n: usize| n * items.len() / threads;
    let stretches: Vec<Stretch> = (0..threads)
        .map(|n| Stretch(Mutex::new(begins(n)..begins(n + 1))))
        .collect();
    let take = |own: usize| {
        let mut kept = begin();
        let (before, after) = stretches.split_at(own);
        let others = || after[1..].iter().chain(before);
        let next = || {
            let first = after[0].first();
            first.or_else(|| others().find_map(Stretch::last))
        };
        std::iter::from_fn(next)
            .map(|i| (i, each(&mut kept, &items[i])))
            .collect::<Vec<_>>()
    };
    // Whoever asked takes the first stretch: a thread less to begin and to wait for.
    let mut all: Vec<(usize, R)> = std::thread::scope(|scope| {
        let (take, current) = (&take, &current);
        let begun: Vec<_> = (1..threads)
            .map(|own| {
                scope.spawn(move || {
                    CURRENT.with(|work| work.replace(current.clone()));
                    take(own)
                })
            })
            .collect();
        let mut all = take(0);
        for thread in begun {
            match thread.join() {
                Ok(done) => all.extend(done),
                Err(cause) => resume_unwind(cause),
            }
        }
        all
    });
    all.sort_unstable_by_key(|(i, _)| *i);
    all.into_iter().map(|(_, made)| made).collect()
}

/// What two pieces of work make, side by side. Stopping stops both.
///
/// # Panics
/// When one of them does.
pub fn both<A: Send, B: Send>(
    one: impl FnOnce() -> A + Send,
    other: impl FnOnce() -> B + Send,
) -> (A, B) {
    if processors() < 2 {
        return (one(), other());
    }
    let current = CURRENT.with(|current| current.borrow().clone());
    std::thread::scope(|scope| {
        let begun = scope.spawn(|| {
            CURRENT.with(|own| own.replace(current));
            one()
        });
        let made = other();
        match begun.join() {
            Ok(first) => (first, made),
            Err(cause) => resume_unwind(cause),
        }
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn side_by_side_all_is_done_in_order_and_stops_together() {
        let numbers: Vec<u32> = (0..1000).collect();
        let squares = |stretch: &&[u32]| stretch.iter().map(|n| n * n).collect::<Vec<_>>();
        let all = side_by_side(&stretches(&numbers), squares).concat();
        assert_eq!(all, squares(&&numbers[..]));
        assert_eq!(side_by_side(&numbers, |n| n * n), all);
        // What each keeps is its own, and all of it is counted.
        let counted = side_by_side_with(
            &numbers,
            || 0,
            |seen, n| {
                *seen += 1;
                (*seen, n * n)
            },
        );
        assert!(counted.iter().map(|(_, square)| square).eq(&all));
        let firsts = counted.iter().filter(|(seen, _)| *seen == 1).count();
        assert!((1..=processors()).contains(&firsts), "{firsts}");
        assert_eq!(side_by_side(&[], |n: &u32| *n), Vec::<u32>::new());

        let work = Work::default();
        let outcome = work.run(|| {
            work.stop();
            side_by_side(&numbers, |_| go_on()).len()
        });
        assert_eq!(outcome, Err(Stopped));
    }

    #[test]
    fn two_pieces_of_work_are_both_done_and_stop_together() {
        assert_eq!(both(|| 6 * 7, || "done"), (42, "done"));
        let work = Work::default();
        let outcome = work.run(|| {
            work.stop();
            both(go_on, || 1)
        });
        assert_eq!(outcome, Err(Stopped));
    }

    #[test]
    fn without_anybody_to_stop_it_work_goes_on() {
        go_on();
        assert_eq!(Work::default().run(|| 1), Ok(1));
    }

    #[test]
    fn what_was_stopped_within_leaves_the_rest_going() {
        let (outer, inner) = (Work::default(), Work::default());
        inner.stop();
        let both = outer.run(|| {
            let within = inner.run(go_on);
            go_on();
            within
        });
        assert_eq!(both, Ok(Err(Stopped)));
        assert!(!outer.is_stopped());
    }

    #[test]
    fn a_panic_stays_a_panic() {
        let caught = catch_unwind(|| Work::default().run(|| panic!("a real fault")));
        assert_eq!(caught.unwrap_err().downcast_ref(), Some(&"a real fault"));
        // And the thread is free again.
        go_on();
    }
}
