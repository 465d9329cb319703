//! Few settings of timers for many shelves: which numbers of hours do least harm when shelves share them.

use crate::basis::work::go_on;
use crate::lamps::choice::Setting;
use crate::lamps::outcome::Outcome;

/// The most numbers of hours that are shared out: more need no sharing, and all ways to choose them
/// are tried.
pub const MOST_SETTINGS: usize = 3;

/// What the lamps of a shelf come to at a number of hours, hung as suits that best.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AtHours {
    /// The setting.
    pub setting: Setting,
    /// What its cells come to.
    pub outcome: Outcome,
    /// What its lamps draw then, in kWh a day.
    pub kwh: f64,
}

/// How bad something is: cells that get the wrong light, then the energy.
type Harm = (f64, f64);

impl AtHours {
    fn harm(&self) -> Harm {
        (self.outcome.wrong(), self.kwh)
    }

    /// In half hours, by which all of them are chosen.
    fn step(&self) -> i64 {
        (self.setting.hours_h * 2.0).round() as i64
    }
}

/// Whether `a` does less harm: cells count as equal within a hundredth of one.
fn less(a: Harm, b: Harm) -> bool {
    a.0 < b.0 - 0.01 || a.0 < b.0 + 0.01 && a.1 < b.1 - 1e-9
}

/// For each shelf what it comes to when all share `settings` numbers of hours, so that the fewest cells
/// get the wrong light, then for the least energy; `shelves` holds what each can have. `None` where some
/// shelf finds no number that it can share.
///
/// Every way to choose the numbers is tried.
pub fn shared(shelves: &[Vec<AtHours>], settings: usize) -> Option<Vec<AtHours>> {
    let mut steps: Vec<i64> = shelves.iter().flatten().map(AtHours::step).collect();
    steps.sort_unstable();
    steps.dedup();
    let settings = settings.min(MOST_SETTINGS).min(steps.len());
    let table: Vec<Vec<Option<AtHours>>> = shelves
        .iter()
        .map(|shelf| {
            let at = |step: &i64| shelf.iter().find(|at| at.step() == *step).copied();
            steps.iter().map(at).collect()
        })
        .collect();
    let mut best: Option<(Harm, Vec<AtHours>)> = None;
    for chosen in choices(steps.len(), settings) {
        go_on();
        let each = table.iter().map(|shelf| {
            let own = chosen.iter().filter_map(|&i| shelf[i]);
            own.reduce(|a, b| if less(b.harm(), a.harm()) { b } else { a })
        });
        let Some(each) = each.collect::<Option<Vec<AtHours>>>() else {
            continue;
        };
        let harm = each.iter().map(AtHours::harm);
        let harm = harm.fold((0.0, 0.0), |sum, harm| (sum.0 + harm.0, sum.1 + harm.1));
        if best.as_ref().is_none_or(|(least, _)| less(harm, *least)) {
            best = Some((harm, each));
        }
    }
    best.map(|(_, each)| each)
}

/// Every way to choose `k` of `n`, in order.
fn choices(n: usize, k: usize) -> Vec<Vec<usize>> {
    if k == 0 {
        return vec![Vec::new()];
    }
    let last = (k - 1..n).flat_map(|last| {
        choices(last, k - 1).into_iter().map(move |mut rest| {
            rest.push(last);
            rest
        })
    });
    last.collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::lamps::choice::Choice;

    /// A shelf that wants `wants_h`, half a cell worse for every half hour less, and one for each more.
    fn shelf(wants_h: f64, most_h: f64) -> Vec<AtHours> {
        let choice = Choice {
            height_mm: 200.0,
            lift_mm: 0.0,
            brightness: 1.0,
        };
        let each = (24..=48)
            .map(|i| f64::from(i) / 2.0)
            .filter(|h| *h <= most_h);
        each.map(|hours_h| AtHours {
            setting: Setting::new(choice, hours_h),
            outcome: Outcome {
                cells: 100.0,
                under: (wants_h - hours_h).max(0.0),
                harmed: 2.0 * (hours_h - wants_h).max(0.0),
                ..Outcome::default()
            },
            kwh: 0.1 * hours_h,
        })
        .collect()
    }

    fn hours(found: &Option<Vec<AtHours>>) -> Vec<f64> {
        found
            .iter()
            .flatten()
            .map(|at| at.setting.hours_h)
            .collect()
    }

    #[test]
    fn two_settings_serve_two_sorts_of_shelf_without_harm() {
        let shelves = [shelf(14.0, 24.0), shelf(18.0, 24.0), shelf(14.0, 24.0)];
        assert_eq!(hours(&shared(&shelves, 2)), [14.0, 18.0, 14.0]);
        // With one, 14 h does two cells harm twice less than 18 h does two shelves' eight.
        assert_eq!(hours(&shared(&shelves, 1)), [14.0; 3]);
        // A third is not needed.
        assert_eq!(hours(&shared(&shelves, 3)), hours(&shared(&shelves, 2)));
    }

    #[test]
    fn nobody_burns_longer_than_their_crops_stand() {
        let shelves = [shelf(18.0, 24.0), shelf(13.0, 13.0)];
        assert_eq!(hours(&shared(&shelves, 1)), [13.0; 2]);
        // Eleven hours and no less than twelve have none in common.
        let never = [shelf(12.0, 12.0), shelf(18.0, 24.0)[2..].to_vec()];
        assert_eq!(shared(&never, 1), None);
        assert!(shared(&never, 2).is_some());
        assert_eq!(shared(&[], 1), Some(Vec::new()));
    }

    #[test]
    fn of_equal_harm_the_least_energy_is_taken() {
        let mut indifferent = shelf(18.0, 24.0);
        indifferent.iter_mut().for_each(|at| at.outcome.under = 0.0);
        indifferent
            .iter_mut()
            .for_each(|at| at.outcome.harmed = 0.0);
        assert_eq!(hours(&shared(&[indifferent], 1)), [12.0]);
    }

    #[test]
    fn all_ways_to_choose_are_there_once() {
        let all = choices(5, 3);
        assert_eq!(all.len(), 10);
        assert!(all.iter().all(|way| way.is_sorted()));
    }
}
