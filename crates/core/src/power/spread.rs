//! Windows of lamps moved apart, so that as little as can be is on at once.

use crate::basis::clock::{Burning, DAY_H};
use crate::basis::work::go_on;
use crate::site::Site;

/// Lamps that one clock switches.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Window {
    /// When they burn.
    pub burning: Burning,
    /// What they take, in VA.
    pub volt_amps: f64,
    /// The step of their clock in minutes.
    pub step_min: u32,
}

/// The day in quarters of an hour.
const QUARTERS: usize = 96;
/// Rounds are made until nothing gets better, but no more than these.
const MOST_ROUNDS: usize = 8;
/// So many windows are moved two at a time; more are moved one by one.
const MOST_IN_PAIRS: usize = 6;

type Day = [f64; QUARTERS];

/// When each of `windows` had best begin, in hours after midnight, so that the least is on at once, with
/// `others` (when they are on, and what they take in VA) as they are; what is no better stays.
///
/// No window gets more quiet hours than it has now. Of starts with as low a peak, the cheapest are taken,
/// then those with the least change.
pub fn apart(windows: &[Window], others: &[(Burning, f64)], site: &Site) -> Vec<f64> {
    let mut base = [0.0; QUARTERS];
    for (burning, volt_amps) in others {
        add(&mut base, &quarters(*burning), *volt_amps);
    }
    let all: Vec<Movable> = windows.iter().map(|w| Movable::of(w, site)).collect();
    let as_now = vec![0; all.len()];
    let ways = [as_now.clone(), one_after_another(&all, &base)];
    let found = ways.map(|way| bettered(&all, &base, way));
    let peak_of = |way: &[usize]| peak(&load(&all, &base, way, &[]));
    let best = found
        .into_iter()
        .min_by(|a, b| peak_of(a).total_cmp(&peak_of(b)))
        .expect("there are two");
    let (now, least) = (peak_of(&as_now), peak_of(&best));
    let way = if least < now - 1e-6 { best } else { as_now };
    let way = settled(&all, &base, way);
    all.iter()
        .zip(way)
        .map(|(w, i)| w.starts[i].from_h)
        .collect()
}

/// A start of a window.
struct Start {
    from_h: f64,
    /// The quarters in which it is on.
    on: Vec<usize>,
    cost: f64,
    /// How far it is from now, in hours.
    away_h: f64,
}

/// A window and its starts, as it is now first.
struct Movable {
    volt_amps: f64,
    starts: Vec<Start>,
}

impl Movable {
    fn of(window: &Window, site: &Site) -> Self {
        let (now, hours) = (window.burning, window.burning.hours);
        let quiet_h = |burning: Burning| site.quiet.map_or(0.0, |quiet| burning.within(quiet));
        let most_quiet_h = quiet_h(now) + 1e-6;
        let step_h = f64::from(window.step_min.clamp(15, 12 * 60)) / 60.0;
        let steps = (DAY_H / step_h) as u32;
        let each = (0..steps).map(|i| f64::from(i) * step_h);
        let starts = std::iter::once(now.from_h).chain(each).map(|from_h| {
            let burning = Burning::new(from_h, hours);
            let away = (from_h - now.from_h).rem_euclid(DAY_H);
            (burning, away.min(DAY_H - away))
        });
        let starts = starts
            .filter(|(burning, _)| quiet_h(*burning) <= most_quiet_h)
            .map(|(burning, away_h)| Start {
                from_h: burning.from_h,
                on: quarters(burning),
                cost: site.cost_on(None, window.volt_amps, burning),
                away_h,
            });
        Self {
            volt_amps: window.volt_amps,
            starts: starts.collect(),
        }
    }
}

/// The quarters of an hour in which something burns, if only for a part of one.
fn quarters(burning: Burning) -> Vec<usize> {
    const ROUNDING: f64 = 1e-6;
    let [from, to] = [burning.from_h, burning.from_h + burning.hours].map(|hour| hour * 4.0);
    let (first, end) = ((from + ROUNDING).floor(), (to - ROUNDING).ceil());
    let on = (first as usize..end.max(first) as usize).take(QUARTERS);
    on.map(|i| i % QUARTERS).collect()
}

fn add(day: &mut Day, on: &[usize], volt_amps: f64) {
    on.iter().for_each(|&i| day[i] += volt_amps);
}

fn peak(day: &Day) -> f64 {
    day.iter().copied().fold(0.0, f64::max)
}

/// The peak, and how uneven the load is: what is more even leaves the next window more room.
fn key(day: &Day) -> (f64, f64) {
    (peak(day), day.iter().map(|va| va * va).sum())
}

fn less(a: (f64, f64), b: (f64, f64)) -> bool {
    a.0 < b.0 - 1e-6 || a.0 < b.0 + 1e-6 && a.1 < b.1 - 1e-3
}

/// The load of the day with the windows at the starts of `way`, without those in `without`.
fn load(all: &[Movable], base: &Day, way: &[usize], without: &[usize]) -> Day {
    let mut day = *base;
    for (i, window) in all.iter().enumerate() {
        if !without.contains(&i) {
            add(&mut day, &window.starts[way[i]].on, window.volt_amps);
        }
    }
    day
}

/// The largest first, each where it adds least to what is there.
fn one_after_another(all: &[Movable], base: &Day) -> Vec<usize> {
    let mut order: Vec<usize> = (0..all.len()).collect();
    order.sort_by(|&a, &b| all[b].volt_amps.total_cmp(&all[a].volt_amps));
    let (mut day, mut way) = (*base, vec![0; all.len()]);
    for i in order {
        let (best, with) = best_start(&all[i], &day);
        (way[i], day) = (best, with);
    }
    way
}

/// The start of `window` that suits `day` best, and the day with it.
fn best_start(window: &Movable, day: &Day) -> (usize, Day) {
    let with = |start: &Start| {
        let mut day = *day;
        add(&mut day, &start.on, window.volt_amps);
        day
    };
    let days = window.starts.iter().map(with).enumerate();
    days.reduce(|best, other| {
        if less(key(&other.1), key(&best.1)) {
            other
        } else {
            best
        }
    })
    .expect("there is always the start as it is")
}

/// `way` with windows moved two by two, or one by one where there are many, until nothing gets better.
fn bettered(all: &[Movable], base: &Day, mut way: Vec<usize>) -> Vec<usize> {
    for _ in 0..MOST_ROUNDS {
        let before = way.clone();
        for i in 0..all.len() {
            go_on();
            if all.len() > MOST_IN_PAIRS || all.len() == 1 {
                let (start, with) = best_start(&all[i], &load(all, base, &way, &[i]));
                if less(key(&with), key(&load(all, base, &way, &[]))) {
                    way[i] = start;
                }
                continue;
            }
            for j in 0..i {
                let rest = load(all, base, &way, &[i, j]);
                let mut best = (way[i], way[j], key(&load(all, base, &way, &[])));
                for (a, start) in all[i].starts.iter().enumerate() {
                    let mut day = rest;
                    add(&mut day, &start.on, all[i].volt_amps);
                    if peak(&day) > best.2.0 + 1e-6 {
                        continue;
                    }
                    let (b, with) = best_start(&all[j], &day);
                    if less(key(&with), best.2) {
                        best = (a, b, key(&with));
                    }
                }
                (way[i], way[j]) = (best.0, best.1);
            }
        }
        if way == before {
            break;
        }
    }
    way
}

/// `way` with each window where it costs least, then where it changes least, as long as the peak stays.
fn settled(all: &[Movable], base: &Day, mut way: Vec<usize>) -> Vec<usize> {
    let most = peak(&load(all, base, &way, &[])) + 1e-6;
    for i in 0..all.len() {
        let rest = load(all, base, &way, &[i]);
        let stays = |start: &Start| {
            let mut day = rest;
            add(&mut day, &start.on, all[i].volt_amps);
            peak(&day) <= most
        };
        let starts = all[i].starts.iter().enumerate();
        let best = starts.filter(|(_, start)| stays(start)).min_by(|a, b| {
            let key = |s: &Start| ((s.cost * 1e6).round(), s.away_h);
            let (a, b) = (key(a.1), key(b.1));
            a.0.total_cmp(&b.0).then(a.1.total_cmp(&b.1))
        });
        way[i] = best.map_or(way[i], |(start, _)| start);
    }
    way
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::basis::clock::ClockSpan;
    use crate::testing::kettle_fen;

    fn site(quiet: Option<ClockSpan>) -> Site {
        let mut site = kettle_fen(|_| ()).site.clone();
        (site.quiet, site.cheap, site.by_hour) = (quiet, None, None);
        site
    }

    fn window(from_h: f64, hours: f64, volt_amps: f64) -> Window {
        Window {
            burning: Burning::new(from_h, hours),
            volt_amps,
            step_min: 60,
        }
    }

    fn peak_with(windows: &[Window], others: &[(Burning, f64)], starts: &[f64]) -> f64 {
        let mut day = [0.0; QUARTERS];
        for (burning, volt_amps) in others {
            add(&mut day, &quarters(*burning), *volt_amps);
        }
        for (window, &from_h) in windows.iter().zip(starts) {
            let burning = Burning::new(from_h, window.burning.hours);
            add(&mut day, &quarters(burning), window.volt_amps);
        }
        peak(&day)
    }

    #[test]
    fn a_quarter_counts_when_any_of_it_is_lit() {
        let on = |from_h: f64, hours: f64| quarters(Burning::new(from_h, hours));
        assert_eq!(on(6.1, 0.5), [24, 25, 26]);
        assert_eq!(on(23.75, 0.5), [95, 0]);
        assert_eq!((on(6.0, 0.0).len(), on(6.1, 24.0).len()), (0, QUARTERS));
    }

    #[test]
    fn two_half_days_need_never_meet() {
        let windows = [window(6.0, 12.0, 300.0), window(6.0, 12.0, 300.0)];
        let starts = apart(&windows, &[], &site(None));
        assert_eq!(peak_with(&windows, &[], &starts), 300.0);
    }

    #[test]
    fn nothing_moves_where_nothing_is_gained() {
        // Sixteen hours and sixteen always meet.
        let windows = [window(6.0, 16.0, 300.0), window(6.0, 16.0, 200.0)];
        assert_eq!(apart(&windows, &[], &site(None)), [6.0, 6.0]);
        assert!(apart(&[], &[], &site(None)).is_empty());
    }

    #[test]
    fn no_window_gets_more_quiet_hours_for_it() {
        let quiet = ClockSpan {
            from_h: 22.0,
            to_h: 6.0,
        };
        let windows = [window(6.0, 12.0, 300.0), window(6.0, 12.0, 300.0)];
        let starts = apart(&windows, &[], &site(Some(quiet)));
        for (window, from_h) in windows.iter().zip(&starts) {
            let burning = Burning::new(*from_h, window.burning.hours);
            assert_eq!(burning.within(quiet), 0.0);
        }
        // From 06:00 to 22:00 two of twelve hours meet for eight.
        assert_eq!(peak_with(&windows, &[], &starts), 600.0);
    }

    /// Against every start of every window, for drawn cases.
    #[test]
    fn the_peak_is_the_least_that_any_starts_give() {
        let mut drawn = fastrand::Rng::with_seed(18);
        for case in 0..60 {
            let n = 1 + case % 3;
            let windows: Vec<Window> = (0..n)
                .map(|_| {
                    let from_h = f64::from(drawn.u32(..24));
                    window(
                        from_h,
                        6.0 + f64::from(drawn.u32(..12)),
                        50.0 * f64::from(drawn.u32(1..9)),
                    )
                })
                .collect();
            let dryer = Burning::new(f64::from(drawn.u32(..24)), 2.0);
            let others = [(dryer, 100.0 * f64::from(drawn.u32(..6)))];
            let mut least = f64::INFINITY;
            for code in 0..24_usize.pow(n as u32) {
                let starts: Vec<f64> = (0..n)
                    .map(|i| (code / 24_usize.pow(i as u32) % 24) as f64)
                    .collect();
                least = least.min(peak_with(&windows, &others, &starts));
            }
            let found = peak_with(&windows, &others, &apart(&windows, &others, &site(None)));
            assert!(
                found <= least + 1e-6,
                "case {case}: {found} instead of {least}"
            );
        }
    }
}
