//! What happened to a sowing so far, from all its trays: what happened wins over what was reckoned.

use std::collections::HashMap;

use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::dates::{days_between, plus_days};
use crate::plan::happened::TrayPast;
use crate::plan::{SoundPlan, Sowing, Tray};

/// What happened to a sowing.
#[derive(Debug, Clone, Default, PartialEq)]
pub(super) struct Past {
    /// The day the first of its trays was sown.
    pub(super) sown: Option<Date>,
    /// The first day any of it stood outdoors to harden off.
    pub(super) hardened_from: Option<Date>,
    /// The day the last of it was planted out, once all of it is.
    pub(super) planted_out: Option<Date>,
    /// What was counted, day by day.
    seen: Vec<Seen>,
    /// The day a dome over it was vented, and the day one came off.
    domes: [Option<Date>; 2],
}

/// Seedlings that were counted on a day.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
pub struct Seen {
    /// The day of the last count.
    pub on: Date,
    /// Cells in which something showed, of all trays that were ever counted.
    pub count: u32,
    /// Of so many.
    pub of: u32,
    /// Whether no more are to be expected: in days the number hardly grew.
    pub all: bool,
}

/// Counts that so many days apart differ by less than this share of the cells are all that comes up
/// (our own judgement).
const NO_MORE_DAYS: i32 = 4;
const NO_MORE_SHARE: f64 = 0.03;
/// The shares of all that come up at which the moments of a sowing lie: first, vented, half, all.
const SHARES: [f64; 4] = [0.1, 0.25, 0.5, 0.9];

impl Past {
    /// Of `sowing`.
    pub(super) fn of(plan: &SoundPlan, sowing: &Sowing) -> Self {
        if plan.happened().is_empty() {
            return Self::default();
        }
        let id = sowing.id.as_str();
        let past = |tray: &Tray| plan.happened().tray(&tray.id).cloned();
        let sown_in: Vec<TrayPast> = plan.sown_in(id).filter_map(past).collect();
        let all = plan.trays_of(id).filter_map(past);
        let last = |tray: &&Tray| plan.potted_into(id).next().is_none() || tray.potted;
        let mut out = plan.trays_of(id).filter(last).map(|tray| {
            let past = plan.happened().tray(&tray.id);
            past.and_then(|past| past.planted_out)
        });
        let first = |of: fn(&TrayPast) -> Option<Date>| sown_in.iter().filter_map(of).min();
        Self {
            sown: first(|past| past.sown),
            hardened_from: all.filter_map(|past| past.hardened_from).min(),
            planted_out: out
                .try_fold(None, |last: Option<Date>, day| Some(last.max(Some(day?))))
                .flatten(),
            seen: seen(plan, sowing),
            domes: [first(|past| past.vented), first(|past| past.dome_off)],
        }
    }

    /// The last count; `None` when nobody counted.
    pub(super) fn last_seen(&self) -> Option<Seen> {
        self.seen.last().copied()
    }

    /// The days on which it shows, a tenth, a quarter, half and nine tenths of the `share` of cells that are
    /// to be expected: as reckoned, but never against what was counted. What comes late moves all that
    /// follows.
    pub(super) fn shows(&self, reckoned: [Option<Date>; 4], share: f64) -> [Option<Date>; 4] {
        if self.seen.is_empty() && self.domes == [None; 2] {
            return reckoned;
        }
        let most = self.seen.iter().map(Seen::share).fold(0.0, f64::max);
        let expected = match self.last_seen() {
            Some(last) if last.all => most,
            _ => share.max(most),
        };
        let mut late = 0;
        let mut shows = reckoned;
        for ((day, wanted), i) in shows.iter_mut().zip(SHARES).zip(0..) {
            let reached = |seen: &&Seen| seen.share() >= wanted * expected && seen.count > 0;
            let by = self.seen.iter().find(reached).map(|seen| seen.on);
            // A dome comes off over what is up.
            let dome = match i {
                1 => self.domes[0],
                3 => self.domes[1],
                _ => None,
            };
            let by = [by, dome].into_iter().flatten().min();
            let short = self.seen.iter().take_while(|seen| !reached(seen));
            let not_before = short.last().map(|seen| plus_days(seen.on, 1));
            let Some(planned) = *day else {
                *day = by;
                continue;
            };
            let moved = plus_days(planned, late);
            let mut found = not_before.map_or(moved, |first| moved.max(first));
            if let Some(by) = by {
                found = found.min(by);
            }
            late += days_between(moved, found);
            *day = Some(found);
        }
        shows
    }
}

impl Seen {
    fn share(&self) -> f64 {
        f64::from(self.count) / f64::from(self.of.max(1))
    }
}

/// The counts of `sowing`: on each day the last of every tray that was counted by then.
fn seen(plan: &SoundPlan, sowing: &Sowing) -> Vec<Seen> {
    let mut counts = Vec::new();
    for tray in plan.sown_in(&sowing.id) {
        let past = plan.happened().tray(&tray.id);
        let own = past.map_or(&[][..], |past| &past.counts).iter();
        let own = own.filter(|count| count.sowing.as_ref().is_none_or(|id| *id == sowing.id));
        counts.extend(own.map(|count| (count.on, tray.id.as_str(), count.count, count.of)));
    }
    counts.sort();
    let mut last: HashMap<&str, (u32, u32)> = HashMap::new();
    let mut seen: Vec<Seen> = Vec::new();
    for (on, tray, count, of) in counts {
        last.insert(tray, (count, of));
        let sum = |part: fn(&(u32, u32)) -> u32| last.values().map(part).sum();
        let now = Seen {
            on,
            count: sum(|own| own.0),
            of: sum(|own| own.1),
            all: false,
        };
        match seen.last_mut() {
            Some(before) if before.on == on => *before = now,
            _ => seen.push(now),
        }
    }
    for i in 1..seen.len() {
        let (earlier, now) = (&seen[..i], seen[i]);
        let mut long_ago = earlier.iter().rev();
        let long_ago = long_ago.find(|seen| days_between(seen.on, now.on) >= NO_MORE_DAYS);
        let grew = long_ago.map(|seen| now.share() - seen.share());
        seen[i].all = now.count > 0 && grew.is_some_and(|grew| grew < NO_MORE_SHARE);
    }
    seen
}

#[cfg(test)]
mod tests {
    use jiff::civil::Date;

    use crate::basis::dates::{days_between, plus_days};
    use crate::log::detail::Dome;
    use crate::log::entry::Entry;
    use crate::log::fact::Fact;
    use crate::plan::SoundPlan;
    use crate::season::{SowingDates, dates};
    use crate::testing::{after, kettle_fen, noted};

    fn of(plan: &SoundPlan, sowing: &str) -> SowingDates {
        let mut all = dates(plan).into_iter();
        all.find(|dates| dates.sowing == sowing).expect(sowing)
    }

    /// The dates of a sowing before and after what is noted of its first tray.
    fn both(sowing: &str, of_it: impl Fn(&SowingDates, &str) -> Vec<Entry>) -> [SowingDates; 2] {
        let plan = kettle_fen(|_| ());
        let before = of(&plan, sowing);
        let trays: Vec<String> = plan.sown_in(sowing).map(|tray| tray.id.clone()).collect();
        let entries: Vec<Entry> = trays.iter().flat_map(|t| of_it(&before, t)).collect();
        [before, of(&after(plan, entries), sowing)]
    }

    fn shown(on: Date, tray: &str, count: u32, of: u32) -> Entry {
        let (tray, sowing) = (tray.to_owned(), None);
        noted(
            on,
            Fact::Shown {
                tray,
                sowing,
                count,
                of,
            },
        )
    }

    fn sown(on: Date, tray: &str) -> Entry {
        noted(on, Fact::Sown { tray: tray.into() })
    }

    #[test]
    fn sown_late_everything_follows_and_nothing_else_moves() {
        let [before, then] = both("tomato", |dates, tray| {
            vec![sown(plus_days(dates.sow, 9), tray)]
        });
        assert_eq!(days_between(before.sow, then.sow), 9);
        assert_eq!(
            days_between(before.emerge.unwrap(), then.emerge.unwrap()),
            9
        );
        assert!(then.why.sow.rule.text.contains("as you logged"));
        assert!(then.out >= before.out);
        let plan = kettle_fen(|_| ());
        let tomato = plan.sown_in("tomato").map(|t| sown(before.sow, &t.id));
        let logged = after(plan.clone(), tomato);
        assert_eq!(of(&logged, "cabbage"), of(&plan, "cabbage"));
    }

    #[test]
    fn what_was_counted_moves_what_shows_later_and_never_before_the_count() {
        let [before, none] = both("tomato", |dates, tray| {
            let late = plus_days(dates.emerge.unwrap(), 3);
            vec![sown(dates.sow, tray), shown(late, tray, 0, 50)]
        });
        let looked = plus_days(before.emerge.unwrap(), 3);
        assert_eq!(none.first, Some(plus_days(looked, 1)));
        assert!(none.behind_days > 3 && none.emerge > none.first);
        assert!(none.why.emerge.rule.text.contains("later than reckoned"));
        // Up sooner than reckoned: the dome comes off sooner too.
        let [_, soon] = both("tomato", |dates, tray| {
            let early = plus_days(dates.first.unwrap(), -1);
            vec![sown(dates.sow, tray), shown(early, tray, 46, 50)]
        });
        assert!(soon.behind_days < 0);
        assert_eq!(soon.emerge, before.first.map(|day| plus_days(day, -1)));
    }

    #[test]
    fn a_number_that_does_not_grow_is_all_that_comes_up() {
        let [_, poor] = both("tomato", |dates, tray| {
            let up = dates.last.unwrap();
            vec![
                sown(dates.sow, tray),
                shown(up, tray, 12, 50),
                shown(plus_days(up, 5), tray, 12, 50),
            ]
        });
        let seen = poor.seen.expect("it was counted");
        assert!(seen.all && seen.count * 50 == 12 * seen.of);
        // The dome need not stay on for what will not come.
        assert!(poor.last.unwrap() <= seen.on);
    }

    #[test]
    fn domes_pots_and_planting_out_are_as_they_were_logged() {
        let [before, then] = both("tomato", |dates, tray| {
            let dome = Dome::Off;
            let off = plus_days(dates.first.unwrap(), 1);
            let tray = tray.to_owned();
            vec![noted(off, Fact::Dome { tray, dome })]
        });
        assert_eq!(then.last, before.first.map(|day| plus_days(day, 1)));
        let plan = kettle_fen(|_| ());
        let day = plus_days(of(&plan, "aubergine").pot_on.unwrap(), 4);
        let from = plan.sown_in("aubergine").next().unwrap().id.clone();
        let into = plan.potted_into("aubergine").next().unwrap().id.clone();
        let potted = Fact::PottedOn {
            tray: from,
            into,
            plants: 8,
        };
        let potted = after(plan.clone(), [noted(day, potted)]);
        assert_eq!(of(&potted, "aubergine").pot_on, Some(day));
        let out = plus_days(of(&plan, "cabbage").out, 6);
        let trays = plan.trays_of("cabbage").map(|tray| {
            let tray = tray.id.clone();
            noted(out, Fact::PlantedOut { tray, plants: 20 })
        });
        let trays: Vec<Entry> = trays.collect();
        assert_eq!(of(&after(plan.clone(), trays.clone()), "cabbage").out, out);
        // One of several alone does not make the sowing gone.
        let one = of(&after(plan.clone(), trays.into_iter().take(1)), "cabbage");
        assert_eq!(one.out, of(&plan, "cabbage").out);
    }

    #[test]
    fn hardening_that_began_late_takes_as_long() {
        let [before, then] = both("cabbage", |dates, tray| {
            let tray = tray.to_owned();
            let outdoors = true;
            vec![noted(
                plus_days(dates.harden, 5),
                Fact::Hardening { tray, outdoors },
            )]
        });
        assert_eq!(days_between(before.harden, then.harden), 5);
        assert_eq!(days_between(before.out, then.out), 5);
    }
}
