//! Which intervals are worth most together where only so many may overlap.
//!
//! A flow of so many units from the first day to the last: a unit waits from day to day, or takes an
//! interval and gains its worth. The dearest ways are taken one after another, over what is left of the
//! others (Ahuja, Magnanti & Orlin, Network Flows, 1993, from memory): the answer is the best there is.

use std::cmp::Reverse;
use std::collections::BinaryHeap;

use crate::basis::work::go_on;

/// An interval `[from, to)` of days, and what it is worth.
#[derive(Debug, Clone, Copy)]
pub(super) struct Interval {
    pub(super) from: usize,
    pub(super) to: usize,
    pub(super) worth: i64,
}

/// How a way goes on.
#[derive(Debug, Clone, Copy)]
enum Step {
    /// A day later.
    Waits,
    /// A wait of another way is given back.
    WaitsLess,
    /// Takes an interval.
    Takes(usize),
    /// Gives an interval back.
    GivesBack(usize),
}

/// Which of `all` are worth most together when no more than `most` of them are there on any day.
pub(super) fn worth_most(all: &[Interval], most: usize) -> Vec<bool> {
    let mut taken = vec![false; all.len()];
    // Days on which none begins or ends tell nothing.
    let mut days: Vec<usize> = all.iter().flat_map(|one| [one.from, one.to]).collect();
    days.sort_unstable();
    days.dedup();
    let Some(last) = days.len().checked_sub(1) else {
        return taken;
    };
    let node = |day: usize| days.partition_point(|other| *other < day);
    let arcs: Vec<(usize, usize, i64)> = all
        .iter()
        .map(|one| (node(one.from), node(one.to), one.worth))
        .collect();
    let (mut leave, mut enter) = (vec![Vec::new(); last + 1], vec![Vec::new(); last + 1]);
    for (k, (from, to, _)) in arcs.iter().enumerate() {
        leave[*from].push(k);
        enter[*to].push(k);
    }
    // Waits from each day to the next; and the dearest way to each, which keeps what follows positive.
    let mut waits = vec![0usize; last + 1];
    let mut dearest = vec![0i64; last + 1];
    for i in 0..=last {
        if i < last {
            dearest[i + 1] = dearest[i + 1].max(dearest[i]);
        }
        for &k in &leave[i] {
            dearest[arcs[k].1] = dearest[arcs[k].1].max(dearest[i] + arcs[k].2);
        }
    }
    let mut less = vec![i64::MAX; last + 1];
    let mut via = vec![(0, Step::Waits); last + 1];
    let mut next = BinaryHeap::new();
    for _ in 0..most {
        go_on();
        less.fill(i64::MAX);
        less[0] = 0;
        next.push((Reverse(0i64), 0usize));
        while let Some((Reverse(so_far), from)) = next.pop() {
            if so_far > less[from] {
                continue;
            }
            let mut go = |to: usize, worth: i64, step: Step| {
                let then = so_far + dearest[to] - dearest[from] - worth;
                if then < less[to] {
                    less[to] = then;
                    via[to] = (from, step);
                    next.push((Reverse(then), to));
                }
            };
            if from < last {
                go(from + 1, 0, Step::Waits);
            }
            if from > 0 && waits[from - 1] > 0 {
                go(from - 1, 0, Step::WaitsLess);
            }
            for &k in leave[from].iter().filter(|&&k| !taken[k]) {
                go(arcs[k].1, arcs[k].2, Step::Takes(k));
            }
            for &k in enter[from].iter().filter(|&&k| taken[k]) {
                go(arcs[k].0, -arcs[k].2, Step::GivesBack(k));
            }
        }
        if dearest[last] - dearest[0] - less[last] <= 0 {
            break;
        }
        let mut at = last;
        while at != 0 {
            let (from, step) = via[at];
            match step {
                Step::Waits => waits[from] += 1,
                Step::WaitsLess => waits[at] -= 1,
                Step::Takes(k) => taken[k] = true,
                Step::GivesBack(k) => taken[k] = false,
            }
            at = from;
        }
        for (dearest, less) in dearest.iter_mut().zip(&less) {
            *dearest -= if *less == i64::MAX { 0 } else { *less };
        }
    }
    taken
}

#[cfg(test)]
mod tests {
    use super::*;

    /// The most that any choice of `all` is worth, by trying every one.
    fn by_trying(all: &[Interval], most: usize) -> i64 {
        let fits = |choice: u32| {
            (0..20).all(|day| {
                let there = |(i, one): (usize, &Interval)| {
                    choice >> i & 1 == 1 && (one.from..one.to).contains(&day)
                };
                all.iter().enumerate().filter(|x| there(*x)).count() <= most
            })
        };
        let worth = |choice: u32| {
            let own = all.iter().enumerate().filter(|(i, _)| choice >> i & 1 == 1);
            own.map(|(_, one)| one.worth).sum::<i64>()
        };
        let choices = (0..1u32 << all.len()).filter(|choice| fits(*choice));
        choices.map(worth).max().unwrap_or(0)
    }

    #[test]
    fn it_finds_what_trying_everything_finds() {
        let mut random = fastrand::Rng::with_seed(7);
        for _ in 0..200 {
            let interval = |random: &mut fastrand::Rng| {
                let from = random.usize(0..15);
                Interval {
                    from,
                    to: from + random.usize(1..5),
                    worth: random.i64(1..30),
                }
            };
            let all: Vec<Interval> = (0..9).map(|_| interval(&mut random)).collect();
            let most = random.usize(0..4);
            let taken = worth_most(&all, most);
            let own = all.iter().zip(&taken).filter(|(_, taken)| **taken);
            let worth: i64 = own.clone().map(|(one, _)| one.worth).sum();
            assert_eq!(worth, by_trying(&all, most));
            for day in 0..20 {
                let there = own
                    .clone()
                    .filter(|(one, _)| (one.from..one.to).contains(&day));
                assert!(there.count() <= most);
            }
        }
    }
}
