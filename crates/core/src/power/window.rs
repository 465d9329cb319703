//! The cheapest hours to burn lamps in on a day, by the real hours of that day: one of them is missing or
//! doubled where clocks are changed.

use jiff::civil::{Date, Time};
use jiff::tz::TimeZone;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::basis::clock::{Burning, ClockSpan, DAY_H};
use crate::basis::dates::plus_days;
use crate::basis::fault::{Fault, Faults, Pointer};
use crate::basis::units::{Quantity, energy_kwh};
use crate::basis::words::say;
use crate::site::Site;
use crate::site::tariff::is_weekend;

/// What is to burn when: the question of the calculator `timer`.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WindowAsk {
    /// Where: its prices, quiet hours and time zone count.
    pub site: Site,
    /// On which day it begins.
    pub date: Date,
    /// For how many hours.
    pub hours: f64,
    /// What burns, in W.
    pub watts: f64,
    /// The least step that the timer can be set by, in minutes.
    pub step_min: u32,
}

/// Hours to burn in, and what that means.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, ToSchema)]
pub struct BurningWindow {
    /// When it begins: minutes of real time after midnight.
    pub from_min: u32,
    /// What the clock on the wall shows then, in hours.
    pub from_h: f64,
    /// What it shows at the end.
    pub to_h: f64,
    /// Minutes of it that fall into the quiet hours.
    pub quiet_min: u32,
    /// What it costs, in the site's currency.
    pub cost: f64,
}

/// The least quiet minutes first, then the least cost, then the earliest start.
#[derive(Debug, Clone, PartialEq, Serialize, ToSchema)]
pub struct Windows {
    /// The best.
    pub best: BurningWindow,
    /// What all other starts mean, from midnight on, a step apart.
    pub all: Vec<BurningWindow>,
}

/// Minutes in an hour.
const HOUR: u32 = 60;

impl WindowAsk {
    fn check(&self) -> Result<(), Vec<Fault>> {
        let (root, mut faults) = (Pointer::default(), Faults::default());
        self.site.check(&root.at("site"), &mut faults);
        let number = |faults: &mut Faults, name: &str, value, range, quantity| {
            faults.number(&root.at(name), value, range, quantity);
        };
        number(
            &mut faults,
            "hours",
            self.hours,
            0.0..=DAY_H,
            Quantity::Hours,
        );
        number(
            &mut faults,
            "watts",
            self.watts,
            0.0..=100_000.0,
            Quantity::PowerW,
        );
        let step = f64::from(self.step_min);
        number(&mut faults, "step_min", step, 1.0..=720.0, Quantity::Count);
        if !(1900..=2200).contains(&self.date.year()) {
            let problem = say!("{day} is not in our time", day = self.date);
            faults.add(
                &root.at("date"),
                self.date,
                problem,
                say!("give a year from 1900 to 2200"),
            );
        }
        faults.verdict()
    }

    /// The best window, and all that there are.
    ///
    /// # Errors
    /// Every fault of the question, by its path.
    pub fn windows(&self) -> Result<Windows, Vec<Fault>> {
        self.check()?;
        let minutes = Minutes::of(&self.site, self.date);
        let long = (self.hours * f64::from(HOUR)).round() as usize;
        let starts = (0..minutes.day).step_by(self.step_min.max(1) as usize);
        let all: Vec<BurningWindow> = starts
            .map(|from| minutes.window(from, long, self.watts))
            .collect();
        let best = all.iter().copied().reduce(|best, window| {
            let less = window.quiet_min.cmp(&best.quiet_min);
            let less = less.then(if (window.cost - best.cost).abs() < 1e-9 {
                std::cmp::Ordering::Equal
            } else {
                window.cost.total_cmp(&best.cost)
            });
            if less.is_lt() { window } else { best }
        });
        Ok(Windows {
            best: best.expect("a day has at least one start"),
            all,
        })
    }
}

/// A day and the next, minute by minute of real time.
struct Minutes {
    /// How many the first day has.
    day: usize,
    /// The clock's hour at each.
    clock_h: Vec<f64>,
    /// What a kW costs up to each.
    cost: Vec<f64>,
    /// How many are quiet up to each.
    quiet: Vec<u32>,
}

impl Minutes {
    fn of(site: &Site, date: Date) -> Self {
        let zone = jiff::tz::TimeZoneDatabase::bundled().get(&site.time_zone);
        let zone = zone.unwrap_or(TimeZone::UTC);
        let mut minutes = Self {
            day: 0,
            clock_h: Vec::new(),
            cost: vec![0.0],
            quiet: vec![0],
        };
        for date in [date, plus_days(date, 1)] {
            minutes.add_day(site, date, &zone);
            if minutes.day == 0 {
                minutes.day = minutes.clock_h.len();
            }
        }
        minutes
    }

    fn add_day(&mut self, site: &Site, date: Date, zone: &TimeZone) {
        let midnight = |date: Date| {
            zone.to_ambiguous_timestamp(date.to_datetime(Time::midnight()))
                .compatible()
        };
        let (Ok(from), Ok(to)) = (midnight(date), midnight(plus_days(date, 1))) else {
            return;
        };
        let (weekend, kw) = (is_weekend(date), 1000.0);
        let long = (to.as_second() - from.as_second()) / 60;
        // The clock is read once in a quarter of an hour: no zone changes within one.
        const QUARTER: i64 = 15;
        for quarter in 0..(long + QUARTER - 1) / QUARTER {
            let at = jiff::Timestamp::from_second(from.as_second() + quarter * QUARTER * 60);
            let clock = at
                .map(|at| zone.to_datetime(at).time())
                .unwrap_or(Time::midnight());
            let begins_h = f64::from(clock.hour()) + f64::from(clock.minute()) / f64::from(HOUR);
            for minute in 0..QUARTER.min(long - quarter * QUARTER) {
                let clock_h = begins_h + minute as f64 / f64::from(HOUR);
                let price = site.price_at(weekend, clock_h + 1e-6);
                let quiet = site.quiet.is_some_and(|quiet| is_in(quiet, clock_h + 1e-6));
                self.clock_h.push(clock_h);
                self.cost.push(
                    self.cost[self.cost.len() - 1] + price * energy_kwh(kw, 1.0 / f64::from(HOUR)),
                );
                self.quiet
                    .push(self.quiet[self.quiet.len() - 1] + u32::from(quiet));
            }
        }
    }

    fn window(&self, from: usize, long: usize, watts: f64) -> BurningWindow {
        let to = (from + long).min(self.cost.len() - 1);
        BurningWindow {
            from_min: from as u32,
            from_h: self.clock_h[from],
            to_h: self.clock_h.get(to).copied().unwrap_or(0.0),
            quiet_min: self.quiet[to] - self.quiet[from],
            cost: (self.cost[to] - self.cost[from]) * watts / 1000.0,
        }
    }
}

fn is_in(span: ClockSpan, hour: f64) -> bool {
    Burning::new(span.from_h, span.hours()).at(hour)
}
