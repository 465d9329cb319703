//! When lamps go on: at an hour that lets people sleep and costs little.

use std::collections::HashMap;
use std::sync::{Mutex, PoisonError};

use serde::Serialize;
use utoipa::ToSchema;

use crate::basis::clock::{Burning, DAY_H};
use crate::power::drawn_w;
use crate::room::Tier;
use crate::room::wiring::Wiring;
use crate::site::Site;

/// The step of a timer of which nobody said what it is set by, in minutes: a dial's coarser one (common
/// practice, no source).
pub const USUAL_STEP_MIN: u32 = 30;

/// Finer steps are tried for no timer: prices and quiet hours change at quarters of an hour.
const FINEST_STEP_MIN: u32 = 15;
/// Less than this share of what lamps cost a day is not worth a changed routine (our own estimate).
const WORTH_SAVING: f64 = 0.05;

/// The step in minutes by which the lamps of `tier` are switched.
pub fn step_min(tier: &Tier, wiring: &Wiring) -> u32 {
    let timer = wiring.timer_of(tier);
    timer.map_or(USUAL_STEP_MIN, |(_, timer)| {
        timer.clock.step_min().max(FINEST_STEP_MIN)
    })
}

/// An hour to begin at, and what that means.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct Start {
    /// Hours after midnight.
    pub from_h: f64,
    /// When they go out, in hours after midnight.
    pub to_h: f64,
    /// Hours a day that fall into the quiet hours.
    pub quiet_h: f64,
    /// Hours a day at the cheap price.
    pub cheap_h: f64,
    /// What it costs a day, in the site's currency.
    pub cost_per_day: f64,
}

impl Start {
    /// What it means to burn `watts` in the hours of `burning`.
    pub fn of(burning: Burning, watts: f64, site: &Site) -> Self {
        Self {
            from_h: burning.from_h,
            to_h: burning.to_h(),
            quiet_h: site.quiet.map_or(0.0, |quiet| burning.within(quiet)),
            cheap_h: site.cheap.map_or(0.0, |cheap| burning.within(cheap.hours)),
            cost_per_day: site.cost_on(None, watts, burning),
        }
    }

    /// Whether `best` is worth another routine: less of it quiet, or so much cheaper.
    pub fn is_worth_changing_to(&self, best: &Self) -> bool {
        let saved = self.cost_per_day - best.cost_per_day;
        self.quiet_h > best.quiet_h + 1e-6 || saved > WORTH_SAVING * self.cost_per_day.abs()
    }

    /// The best hour to begin at, to burn `watts` for `hours` a day: the least of it in quiet
    /// hours, then the least cost, then the least change from `now_h`.
    pub fn best(hours: f64, now_h: f64, watts: f64, site: &Site) -> Self {
        Self::best_in_steps(hours, now_h, watts, site, USUAL_STEP_MIN)
    }

    /// The same for a timer that is set by steps of `step_min` minutes.
    pub fn best_in_steps(hours: f64, now_h: f64, watts: f64, site: &Site, step_min: u32) -> Self {
        let step_h = f64::from(step_min.max(1)) / 60.0;
        let steps = (DAY_H / step_h) as i32;
        // As it is first: of equals, the first is taken.
        let hours_of_day = (0..steps).map(|i| f64::from(i) * step_h);
        let starts = std::iter::once(now_h).chain(hours_of_day);
        let change = |from_h: f64| {
            let away = (from_h - now_h).rem_euclid(DAY_H);
            away.min(DAY_H - away)
        };
        let key = |s: &Self| (s.quiet_h, s.cost_per_day, change(s.from_h));
        starts
            .map(|from_h| Self::of(Burning::new(from_h, hours), watts, site))
            .min_by(|a, b| {
                let (a, b) = (key(a), key(b));
                close(a.0, b.0)
                    .then(close(a.1, b.1))
                    .then(a.2.total_cmp(&b.2))
            })
            .expect("there is always the hour as it is")
    }
}

/// Best hours that were found before: shelves have the same from day to day.
#[derive(Debug, Default)]
pub struct Starts(Mutex<HashMap<StartKey, Start>>);

/// Hours, the hour as it is, watts and the step, of one site.
type StartKey = ([u64; 3], u32);

impl Starts {
    /// What [`Start::best_in_steps`] says, all of the same `site`.
    pub fn best_in_steps(
        &self,
        hours: f64,
        now_h: f64,
        watts: f64,
        site: &Site,
        step_min: u32,
    ) -> Start {
        let key = ([hours, now_h, watts].map(f64::to_bits), step_min);
        let known = || self.0.lock().unwrap_or_else(PoisonError::into_inner);
        if let Some(start) = known().get(&key) {
            return *start;
        }
        let start = Start::best_in_steps(hours, now_h, watts, site, step_min);
        known().insert(key, start);
        start
    }

    /// The best hour for the lamps of `tier` in steps of their timer, for as long as they burn now.
    pub fn best_of(&self, tier: &Tier, wiring: &Wiring, site: &Site) -> Start {
        let now = tier.burning();
        let step_min = step_min(tier, wiring);
        self.best_in_steps(now.hours, now.from_h, drawn_w(tier), site, step_min)
    }
}

/// Which is less, where less than a thousandth is rounding.
fn close(a: f64, b: f64) -> std::cmp::Ordering {
    if (a - b).abs() < 1e-3 {
        std::cmp::Ordering::Equal
    } else {
        a.total_cmp(&b)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::basis::clock::ClockSpan;
    use crate::site::CheapHours;

    fn site(quiet: Option<[f64; 2]>, cheap: Option<[f64; 2]>) -> Site {
        let demo = include_str!("../../../../demo/kettle-fen.json");
        let plan: serde_json::Value = serde_json::from_str(demo).unwrap();
        let mut site: Site = serde_json::from_value(plan["site"].clone()).unwrap();
        let span = |[from_h, to_h]: [f64; 2]| ClockSpan { from_h, to_h };
        site.price_per_kwh = 0.3;
        site.quiet = quiet.map(span);
        site.cheap = cheap.map(|hours| CheapHours {
            hours: span(hours),
            price_per_kwh: 0.1,
        });
        site
    }

    #[test]
    fn without_quiet_or_cheap_hours_nothing_changes() {
        let best = Start::best(16.0, 6.25, 100.0, &site(None, None));
        assert_eq!((best.from_h, best.to_h), (6.25, 22.25));
    }

    #[test]
    fn quiet_hours_count_more_than_cheap_ones() {
        let site = site(Some([22.0, 6.0]), Some([0.0, 7.0]));
        let best = Start::best(14.0, 9.0, 100.0, &site);
        // From 06:00 an hour is cheap and none is quiet.
        assert_eq!((best.from_h, best.quiet_h, best.cheap_h), (6.0, 0.0, 1.0));
        assert!((best.cost_per_day - (1.3 * 0.3 + 0.1 * 0.1)).abs() < 1e-9);
        // Eighteen hours cannot all be loud: two are quiet wherever they begin.
        assert_eq!(Start::best(18.0, 9.0, 100.0, &site).quiet_h, 2.0);
    }

    #[test]
    fn cheap_hours_are_used_in_full_with_the_least_change() {
        let site = site(None, Some([23.0, 7.0]));
        let best = Start::best(16.0, 6.0, 100.0, &site);
        assert_eq!(best.cheap_h, 8.0);
        // 23:00 is seven hours away, 15:00 nine.
        assert_eq!(best.from_h, 23.0);
    }
}
